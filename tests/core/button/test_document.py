import pytest

from tests.samples import document
from uptick.core.button.document import ButtonDocument
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.button.merge import Json
from uptick.core.errors import BadDocument

REFUSED: list[tuple[Json, str]] = [
    ({"look": {"fill": {"kind": "solid", "colour": "red; background:url(x)"}}}, "look.fill"),
    ({"look": {"padding": {"top": -1}}}, "look.padding.top"),
    ({"look": {"padding": {"top": "12 miles"}}}, "look.padding.top"),
    ({"look": {"type": {"family": "comic"}}}, "look.type.family"),
    ({"look": {"size": {"kind": "fixed", "width": 9, "height": 40}}}, "look.size"),
    ({"look": {"size": {"kind": "floating"}}}, "look.size"),
    ({"look": {"shadow": "0 0 9px"}}, "look.shadow"),
    ({"icon": {"kind": "shipped"}}, "icon"),
    ({"wording": {"ready": {"en-GB": "x" * 201}}}, "wording.ready.en-GB"),
    ({"wording": {"ready": {"English": "Buy"}}}, "wording.ready.English"),
    ({"wording": {"lunch": {"en-GB": "Back soon"}}}, "wording.lunch"),
]


@pytest.mark.parametrize(("patch", "field"), REFUSED)
def test_what_makes_no_button_is_refused_by_its_field(patch: Json, field: str) -> None:
    with pytest.raises(BadDocument) as refused:
        document(patch)
    assert refused.value.facts["field"].startswith(field)


def test_a_document_survives_the_way_through_json() -> None:
    made = document({"icon": {"kind": "shipped", "name": "basket"}})
    assert ButtonDocument.model_validate_json(made.model_dump_json()) == made


def test_the_published_schema_names_every_part() -> None:
    schema = ButtonDocument.model_json_schema()
    assert set(schema["required"]) == {"look", "icon", "wording"}
    assert {"SolidFill", "NaturalSize", "FullSize", "FixedSize", "ShippedIcon"} <= set(schema["$defs"])


def test_fields_and_values_are_called_as_a_designer_calls_them() -> None:
    assert field_title("look.hover.fill") == "fill when hovered"
    assert field_title("wording.sold_out.en-GB") == "words: sold out, en-GB"
    assert value_text({"kind": "fixed", "width": 120, "height": 40.5}) == "120 × 40.5 px"
    assert value_text({"kind": "shipped", "name": "bag", "side": "after", "size_px": 18, "gap_px": 6}) == (
        "bag after the words, 18 px, gap 6"
    )
    assert value_text("Take it") == "“Take it”"
    assert value_text({"kind": "own_left"}) == "once the page’s own button has left"
    assert value_text({"kind": "share", "share": 0.12}) == "after 12 % of the way"
    assert value_text({"kind": "distance", "px": 200}) == "after 200 px"
    assert value_text(["picture", "button"]) == "picture, button"
    assert value_text([]) == "nothing"
    assert value_text("#ffffff") == "#ffffff"
    assert value_text(None) == "nothing"
