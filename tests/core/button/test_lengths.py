import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document
from uptick.core.button.lengths import Ground, css_length, to_px
from uptick.core.errors import BadDocument

GROUND = Ground(container_px=320, window_px=1280)


@pytest.mark.parametrize(
    ("length", "px"), [(12, 12), ("5%", 16), ("1.5em", 24), ("2vw", 25.6), (0, 0), ("0%", 0), ("100vw", 1280)]
)
def test_a_length_is_so_many_pixels_on_its_ground(length: float | str, px: float) -> None:
    """Source: CSS Values 4, 6.1 (em of the type, vw of the window); CSS Box 3 (percentages of the container)."""
    assert to_px(length, GROUND, 16) == pytest.approx(px)


@pytest.mark.parametrize(
    ("given_", "kept"), [("12px", 12), (" 1.50em ", "1.5em"), ("3", 3), (7.25, 7.25), ("5 %", "5%")]
)
def test_what_is_typed_is_kept_as_a_number_or_with_its_unit(given_: float | str, kept: float | str) -> None:
    assert document({"look": {"padding": {"left": given_}}}).look.padding.left == kept


@pytest.mark.parametrize(
    "wrong", ["wide", "12 miles", -1, 401, "201%", "41em", "101vw", True, None, "calc(1px)", "1e9px"]
)
def test_what_is_no_length_is_refused_with_what_is_allowed(wrong: object) -> None:
    raw = document().model_dump(mode="json")
    raw["look"]["padding"]["left"] = wrong
    from uptick.core.button.document import parse_document

    with pytest.raises(BadDocument, match=r"look\.padding\.left.*(400 px|40em|100vw|5%)"):
        parse_document(raw)


@given(st.floats(0, 200).map(lambda n: round(n, 2)), st.sampled_from(["%", "em", "vw"]))
def test_a_relative_length_is_written_as_it_is_kept(number: float, unit: str) -> None:
    written = f"{min(number, 40):g}{unit}"
    assert css_length(written) == written
    assert css_length(0) == "0"
