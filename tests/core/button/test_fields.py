"""The registry of fields, held to the document's own model."""

import types
from collections.abc import Iterator
from typing import Annotated, Any, Union, get_args, get_origin

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel

from tests.samples import document, kit
from uptick.core.button.document import ButtonDocument
from uptick.core.button.fields import BY_PATH, FIELDS, PARTS, WHOLE_FIELDS, WRITTEN, MovedBox, field_title
from uptick.core.button.merge import Json, at_path, merge_layer, patch_at
from uptick.core.drawing.compile import compile_button
from uptick.core.formats.css_in import read_css
from uptick.core.formats.css_out import write_css
from uptick.core.formats.tokens import write_tokens
from uptick.core.formats.tokens_in import read_tokens
from uptick.core.looks.sentences import specification

# Texts and what stands in the placement have as many fields as there are languages; the script's own switch.
BY_LANGUAGE = ("wording", "spoken")


def kinds_of(annotation: Any) -> Iterator[Any]:
    """Yield the types that an annotation allows, whatever it is wrapped in."""
    origin = get_origin(annotation)
    if origin is Annotated:
        yield from kinds_of(get_args(annotation)[0])
    elif origin in (Union, types.UnionType):
        for argument in get_args(annotation):
            yield from kinds_of(argument)
    else:
        yield annotation


def fields_in(model: type[BaseModel], before: str = "") -> Iterator[tuple[str, bool]]:
    """Yield the path of every field of a model, and whether its value names its own kind."""
    for name, info in model.model_fields.items():
        path = f"{before}{name}"
        kinds = [kind for kind in kinds_of(info.annotation) if isinstance(kind, type) and issubclass(kind, BaseModel)]
        tagged = any("kind" in kind.model_fields for kind in kinds)
        if kinds and not tagged:
            yield from fields_in(kinds[0], f"{path}.")
        else:
            yield path, tagged


MODEL = {path: tagged for path, tagged in fields_in(ButtonDocument) if not path.startswith(BY_LANGUAGE)}


def test_every_field_of_the_model_is_declared_and_no_other() -> None:
    assert set(BY_PATH) - {"uses"} == set(MODEL)
    assert len(BY_PATH) == len(FIELDS)


def test_just_the_values_that_name_their_own_kind_are_replaced_whole() -> None:
    assert set(WHOLE_FIELDS) == {path for path, tagged in MODEL.items() if tagged}


def test_every_field_has_a_title_of_its_own_and_says_what_it_moves() -> None:
    titles = [field.title for field in FIELDS]
    assert len(set(titles)) == len(titles)
    assert all(field.moves for field in FIELDS if field.path.startswith(("look.", "icon", "quantity", "second")))
    assert field_title("wording.sold_out.en-GB") == "words: sold out, en-GB"


def test_every_field_of_a_look_is_carried_with_one_part() -> None:
    roots = [root for those in PARTS.values() for root in those]
    for path in MODEL:
        if path.startswith("look.") or path in ("icon", "quantity", "second"):
            assert sum(path == root or path.startswith(f"{root}.") for root in roots) == 1, path


VALUES: dict[str, st.SearchStrategy[Any]] = {
    "look.type.letter_spacing_px": st.floats(-2, 20).map(lambda px: round(px, 2)),
    "look.type.case": st.sampled_from(["as_written", "upper"]),
    "look.type.slant": st.sampled_from(["upright", "italic"]),
    "look.type.underline_px": st.floats(0, 8).map(lambda px: round(px, 2)),
    "look.type.underline_offset_px": st.floats(0, 24).map(lambda px: round(px, 2)),
}


@given(st.fixed_dictionaries(VALUES))
def test_what_is_one_property_is_read_again_as_it_was_written(drawn: dict[str, Any]) -> None:
    patch: Json = {}
    for path, value in drawn.items():
        patch = merge_layer(patch, patch_at(path, value))
    look = document(patch).look
    told = read_css(write_css(look, kit())).layer
    assert {path: at_path(told, path) for path in drawn} == drawn
    tokens = read_tokens(write_tokens(look)).layer
    for field, _ in WRITTEN:
        if field.token:
            assert at_path(tokens, field.path) == drawn[field.path]


def test_every_field_that_is_one_property_is_tried() -> None:
    assert set(VALUES) == {field.path for field, _ in WRITTEN}


@pytest.mark.parametrize(
    ("css", "px"),
    [
        ("text-decoration: underline", 1.6),
        ("text-decoration: underline 2px", 2),
        ("text-decoration: solid underline 0.125em", 2),
        ("text-decoration: none", 0),
        ("text-decoration: line-through", None),
        ("text-decoration: underline wavy", None),
    ],
)
def test_an_underline_is_read_or_told(css: str, px: float | None) -> None:
    read = read_css(f".button {{ font-size: 16px; padding: 4px; {css} }}")
    assert at_path(read.layer, "look.type.underline_px") == px
    assert bool([omission for omission in read.left_out if "text-decoration" in omission]) is (px is None)


def test_an_underline_is_drawn_under_the_words_alone_and_moves_nothing() -> None:
    plain, lined = document(), document({"look": {"type": {"underline_px": 2, "underline_offset_px": 3}}})
    css = compile_button(lined, kit())["css"]
    assert ".w{text-decoration:underline 2px;text-underline-offset:3px" in css
    assert "text-decoration" not in compile_button(plain, kit())["css"]
    assert compile_button(lined, kit())["high"] == compile_button(plain, kit())["high"]
    assert BY_PATH["look.type.underline_px"].moves == {MovedBox.PAINT}
    assert "underlined 2 px thick, 3 px below them" in specification(lined)
