"""The compiler: a button document becomes the CSS, markup and text patterns that shoppers get."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from typing_extensions import TypedDict

from uptick.core.document import ButtonDocument, FixedSize, FullSize, Moment, ShippedIcon
from uptick.core.errors import OutOfRange
from uptick.core.fill import template_of
from uptick.core.type.fontbook import FontBook
from uptick.core.wording import Live, parse_text


@dataclass(frozen=True, slots=True)
class IconShape:
    """A shipped icon: one filled path in a square of `box` units."""

    path: str
    box: int


class CompiledIcon(TypedDict):
    path: str
    box: int
    side: str


class CompiledButton(TypedDict):
    """A button in the form that the script stands on a page.

    `css` is a whole style sheet for the button's shadow root; every value in it is a number, a parsed colour or a
    name from a list, so nothing of a designer's text can reach it. `words` holds patterns by language and moment:
    plain runs, and `{"v": name}` for live values. `high` is the height in pixels to reserve.
    """

    css: str
    icon: CompiledIcon | None
    words: dict[str, dict[str, list[Any]]]
    wide: bool
    high: float


@dataclass(frozen=True, slots=True)
class Kit:
    """What the compiler draws from: fonts and icons as they ship."""

    fonts: FontBook
    icons: Mapping[str, IconShape]


def compile_button(document: ButtonDocument, kit: Kit, languages: tuple[str, ...]) -> CompiledButton:
    """Return a button compiled for the given languages.

    Raises:
        OutOfRange: The icon is not shipped.
    """
    return {
        "css": _css(document, kit.fonts),
        "icon": _icon(document, kit),
        "words": {language: _words(document, language) for language in languages},
        "wide": isinstance(document.look.size, FullSize),
        "high": reserved_height(document, kit.fonts),
    }


def reserved_height(document: ButtonDocument, fonts: FontBook) -> float:
    """Return the height of a button in pixels, the same in every moment."""
    look, pad = document.look, document.look.padding
    if isinstance(look.size, FixedSize):
        return max(look.size.height_px, pad.top_px + pad.bottom_px)
    icon = document.icon.size_px if isinstance(document.icon, ShippedIcon) else 0.0
    line = fonts.measure("", look.type.family, look.type.size_px, look.type.weight).line_height_px
    return pad.top_px + max(icon, line) + pad.bottom_px


def _words(document: ButtonDocument, language: str) -> dict[str, list[Any]]:
    return {
        moment.value: [
            {"v": part.name} if isinstance(part, Live) else part
            for part in parse_text(template_of(document, moment, language))
        ]
        for moment in Moment
    }


def _icon(document: ButtonDocument, kit: Kit) -> CompiledIcon | None:
    icon = document.icon
    if not isinstance(icon, ShippedIcon):
        return None
    shape = kit.icons.get(icon.name)
    if shape is None:
        raise OutOfRange.of("icon.name", f"one of {', '.join(sorted(kit.icons))}", icon.name)
    return {"path": shape.path, "box": shape.box, "side": icon.side}


def font_family(family: str) -> str:
    """Return the name under which the script loads a shipped family, so that no theme's font is hit by chance."""
    return f"up-{family}"


def _css(document: ButtonDocument, fonts: FontBook) -> str:
    look, pad, kind = document.look, document.look.padding, document.look.type
    wide = isinstance(look.size, FullSize)
    fallback = next(f.fallback for f in fonts.files if f.family == kind.family)
    size = "width:100%;" if wide else ""
    if isinstance(look.size, FixedSize):
        size = f"width:{_px(look.size.width_px)};height:{_px(look.size.height_px)};"
    icon = document.icon if isinstance(document.icon, ShippedIcon) else None
    rules = [
        # A flex box has no line of text in it that could be higher than the button.
        f":host{{all:initial;display:{'flex' if wide else 'inline-flex'};vertical-align:top;align-items:flex-start}}",
        ".b{all:unset;flex:none;box-sizing:border-box;position:relative;overflow:visible;display:inline-flex;"
        "align-items:center;justify-content:center;cursor:pointer;white-space:nowrap;text-align:center;"
        "-webkit-tap-highlight-color:transparent;touch-action:manipulation;"
        f"{size}padding:{_px(pad.top_px)} {_px(pad.right_px)} {_px(pad.bottom_px)} {_px(pad.left_px)};"
        f"gap:{_px(icon.gap_px) if icon else '0'};border-radius:{_px(look.radius_px)};"
        f"background:{look.fill.colour};color:{look.text_colour};"
        f"font:{kind.weight} {_px(kind.size_px)}/normal {font_family(kind.family)},{fallback}}}",
        ".b>*{flex:none}",
        _state(
            ".b:hover:not([aria-disabled=true]),.b[data-look=hover]", look.hover.fill.colour, look.hover.text_colour
        ),
        _state(".b:focus-visible,.b[data-look=focus]", look.focus.fill.colour, look.focus.text_colour),
        f".b:focus-visible,.b[data-look=focus]{{outline:3px solid {look.focus.ring_colour};outline-offset:2px}}",
        _state(".b[data-moment=sold_out]", look.disabled.fill.colour, look.disabled.text_colour),
        ".b[aria-disabled=true]{cursor:not-allowed}",
        # Working is told by a tick that runs along the lower edge, not by a spinner.
        ".b[data-moment=working]{cursor:progress}",
        ".b[data-moment=working]::after{content:'';position:absolute;left:0;right:0;bottom:0;height:3px;"
        "background:currentColor;transform-origin:0 0;animation:t 1.2s ease-in-out infinite}",
        "@keyframes t{from{transform:scaleX(0)}to{transform:scaleX(1)}}",
        "@media(prefers-reduced-motion:reduce){.b[data-moment=working]::after{animation:none}}",
        "@media(forced-colors:active){.b{border:solid 1px ButtonText}}",
        ".n{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}",
    ]
    if icon:
        rules.append(f"svg{{width:{_px(icon.size_px)};height:{_px(icon.size_px)};fill:currentColor}}")
    return "".join(rules)


def _state(selector: str, fill: str, words: str) -> str:
    return f"{selector}{{background:{fill};color:{words}}}"


def _px(value: float) -> str:
    return f"{value:g}px" if value else "0"
