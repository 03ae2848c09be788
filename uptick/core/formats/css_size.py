"""The size of a button from its computed widths and heights."""

from collections.abc import Collection, Mapping

import tinycss2

from uptick.core.button.merge import Json
from uptick.core.formats import css_values as values
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_reading import ComputedBox

SIZES = ("width", "height", "min-width", "max-width", "min-height", "max-height", "box-sizing", "display")
_NONE = ("auto", "none", "normal")
_BY_WORDS = ("auto", "fit-content", "max-content")
# Boxes of these displays take the row that they stand in, but a button's own element does not.
_ROWS = ("block", "flex", "grid", "list-item", "flow-root")


def size_of(
    style: Mapping[str, str], box: ComputedBox, tag: str, given: Collection[str], notes: list[str]
) -> Json | None:
    """Return a size of the document, or nothing where the stylesheet sets none.

    Args:
        style: Computed values, percentages as they are.
        box: How it stood in the browser.
        tag: The element's name.
        said: Longhands that the stylesheet sets.
        told: What cannot be said is added to it.

    Raises:
        NotUnderstood: No size of ours is that wide.

    Source:
        CSS Box Sizing 3, section 3 (`box-sizing`, minimum and maximum sizes).
    """
    if style["display"] == "inline":
        if not {"width", "height", "min-width", "min-height"}.isdisjoint(given):
            notes.append("width and height: an inline box takes none (CSS 2, 10.2)")
        return {"kind": "natural"}
    across, along = _more(style, ("left", "right")), _more(style, ("top", "bottom"))
    width = _length(style, "width", across) if style["width"] not in _BY_WORDS else None
    height = _height(style, "height", along, notes)
    least_height = _height(style, "min-height", along, notes) or 0
    if style.get("max-height", "none") != "none" and "max-height" in given:
        notes.append(f"max-height: {style['max-height']} (a button is as high as its words need)")
    most = None if style["max-width"] in _NONE else _length(style, "max-width", across)
    least = (
        0.0 if style["min-width"] in _NONE else _length(style, "min-width", across) if _is(style["min-width"]) else 0.0
    )
    takes_row = style["display"] in _ROWS and tag not in ("button", "input") and style["width"] == "auto"
    high = max(height or 0, least_height)
    is_fixed = width is not None and height is not None and width != "100%"
    if height is not None and box.overflows and not is_fixed:
        notes.append(f"height: {style['height']} (its words need more; ours grows with them)")
    if width == "100%" or takes_row:
        return {"kind": "full", **({"most": most} if most is not None else {}), **_high(high)}
    if width is not None and height is not None:
        return {"kind": "fixed", "width": width, "height": max(height, least_height)}
    sized: Json = {"kind": "natural", **_high(high)}
    if width is not None:
        return {**sized, "least": width, "most": width}
    return {**sized, **({"least": least} if least else {}), **({"most": most} if most is not None else {})}


def _is(value: str) -> bool:
    return value not in ("0px", "0")


def _high(px: float) -> Json:
    return {"least_height_px": px} if px else {}


def _length(style: Mapping[str, str], name: str, more: float) -> float | str:
    length = values.length(tinycss2.parse_component_value_list(style[name]))
    if style["box-sizing"] == "border-box":
        return length
    if isinstance(length, str):
        if more and length != "100%":
            raise NotUnderstood("a share of its room without padding and border; ours has them in it")
        if more:
            raise NotUnderstood("100% without padding and border stands out of its room by them")
        return length
    return round(length + more, 3)


def _height(style: Mapping[str, str], name: str, more: float, notes: list[str]) -> float | None:
    if style[name] in _NONE or style[name] == "0px":
        return None
    try:
        length = values.in_px(tinycss2.parse_component_value_list(style[name]), 16)
    except NotUnderstood as why:
        notes.append(f"{name}: {style[name]} ({why})")
        return None
    return length if style["box-sizing"] == "border-box" else round(length + more, 3)


def _more(style: Mapping[str, str], sides: tuple[str, str]) -> float:
    """Return what padding and border add to a width or a height, in pixels."""
    if style["box-sizing"] == "border-box":
        return 0.0
    names = [f"padding-{side}" for side in sides] + [f"border-{side}-width" for side in sides]
    each = [values.length(tinycss2.parse_component_value_list(style[name])) for name in names]
    if any(isinstance(part, str) for part in each):
        raise NotUnderstood("its content's size, with padding as a share of its room")
    return sum(part for part in each if isinstance(part, float | int))
