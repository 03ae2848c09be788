"""The compiler: a button document becomes the CSS, markup and text patterns that shoppers get."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from typing_extensions import TypedDict

from uptick.core.boxes import QUANTITY_GAP_PX
from uptick.core.document import ButtonDocument, FixedSize, FullSize, QuantityBox, ShippedIcon
from uptick.core.errors import OutOfRange
from uptick.core.merge import Json
from uptick.core.type.fontbook import FontBook
from uptick.core.wording import Live, Pattern, Plural, parse_text


@dataclass(frozen=True, slots=True)
class IconShape:
    """A shipped icon: one filled path in a square of `box` units."""

    path: str
    box: int


class CompiledIcon(TypedDict):
    path: str
    box: int
    side: str


class CompiledQuantity(TypedDict):
    least: int
    most: int
    step: int
    start: int


class CompiledButton(TypedDict):
    """A button in the form that the script stands on a page; its words come beside it.

    `css` is the part of the style sheet that differs from button to button; `BASE_CSS` goes before it. Every value in
    it is a number, a parsed colour or a name from a list, so nothing of a designer's text can reach it. `high` is the
    height in pixels to reserve; `after` is where a press leads.
    """

    css: str
    icon: CompiledIcon | None
    wide: bool
    high: float
    shown: bool
    name: bool
    price: bool
    quantity: CompiledQuantity | None
    after: str


@dataclass(frozen=True, slots=True)
class Kit:
    """What the compiler draws from: fonts and icons as they ship."""

    fonts: FontBook
    icons: Mapping[str, IconShape]


def compile_button(document: ButtonDocument, kit: Kit) -> CompiledButton:
    """Return a button compiled, without its words.

    Raises:
        OutOfRange: The icon is not shipped.
    """
    stands, box = document.placement, document.quantity
    quantity: CompiledQuantity | None = None
    if isinstance(box, QuantityBox):
        quantity = {"least": box.least, "most": box.most, "step": box.step, "start": box.start}
    return {
        "css": _css(document, kit.fonts),
        "icon": _icon(document, kit),
        "wide": isinstance(document.look.size, FullSize),
        "high": reserved_height(document, kit.fonts),
        "shown": stands.shown,
        "name": stands.name,
        "price": stands.price,
        "quantity": quantity,
        "after": document.afterwards.kind,
    }


def reserved_height(document: ButtonDocument, fonts: FontBook) -> float:
    """Return the height of a button in pixels, the same in every moment."""
    look, pad = document.look, document.look.padding
    if isinstance(look.size, FixedSize):
        return max(look.size.height_px, pad.top_px + pad.bottom_px)
    icon = document.icon.size_px if isinstance(document.icon, ShippedIcon) else 0.0
    line = fonts.measure("", look.type.family, look.type.size_px, look.type.weight).line_height_px
    return pad.top_px + max(icon, line) + pad.bottom_px


def compile_words(layer: Json) -> dict[str, dict[str, list[Any]]]:
    """Return the texts that one layer sets, by moment and language, laid out as the script fills them.

    Plain runs are strings, live values `{"v": name}`, plurals `{"p": name, "=0": …, "one": …, "other": …}`.
    """
    return {
        moment: {language: wire_pattern(parse_text(text)) for language, text in texts.items()}
        for moment, texts in (layer.get("wording") or {}).items()
    }


def wire_pattern(pattern: Pattern) -> list[Any]:
    return [_wire(part) for part in pattern]


def _wire(part: str | Live | Plural) -> Any:
    if isinstance(part, str):
        return part
    if isinstance(part, Live):
        return {"v": part.name}
    forms = [(f"={number}", inner) for number, inner in part.exact] + list(part.forms)
    return {"p": part.name} | {name: wire_pattern(inner) for name, inner in forms}


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


# No rule of a theme for its own boxes may undo how ours stands, so the host insists on its display.
# Working is told by a tick that runs along the lower edge, not by a spinner. A flex box has no line of text in it that
# could be higher than the button.
BASE_CSS = (
    ":host{all:initial;visibility:inherit;display:inline-flex!important;vertical-align:top;align-items:stretch;"
    f"gap:{QUANTITY_GAP_PX:g}px}}"
    ".b{all:unset;flex:none;box-sizing:border-box;position:relative;overflow:visible;display:inline-flex;"
    "align-items:center;justify-content:center;cursor:pointer;white-space:nowrap;text-align:center;"
    "-webkit-tap-highlight-color:transparent;touch-action:manipulation}"
    ".b>*{flex:none}"
    ".b[aria-disabled=true]{cursor:not-allowed}"
    ".b[data-moment=working]{cursor:progress}"
    ".b[data-moment=working]::after{content:'';position:absolute;left:0;right:0;bottom:0;height:3px;"
    "background:currentColor;transform-origin:0 0;animation:t 1.2s ease-in-out infinite}"
    "@keyframes t{from{transform:scaleX(0)}to{transform:scaleX(1)}}"
    "@media(prefers-reduced-motion:reduce){.b[data-moment=working]::after{animation:none}}"
    "@media(forced-colors:active){.b,.q{border:solid 1px ButtonText}}"
    ".n{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}"
    "svg{fill:currentColor}"
    ".q{all:unset;flex:none;box-sizing:border-box;text-align:center;background:#fff;color:#111;"
    "box-shadow:inset 0 0 0 1px #767676}"
    ".q:focus-visible{outline:3px solid #111;outline-offset:2px}"
)


# It slides quickly (0.3 s is common practice), casts its shadow away from the edge and puts no shade over the page.
BAR_CSS = (
    ":host{all:initial;position:fixed;inset:auto 0 0;z-index:2147483000;visibility:hidden;transform:translateY(110%);"
    "transition:transform .3s,visibility .3s;background:#fff;color:#111;box-shadow:0 -2px 12px rgb(0 0 0/.18);"
    "font:15px/1.3 system-ui,sans-serif}:host([data-in]){visibility:visible;transform:none}"
    "div{display:flex;align-items:center;gap:16px;max-width:1128px;margin:0 auto;padding:8px 16px}"
    "span{overflow:hidden;text-overflow:ellipsis;white-space:nowrap}.n{flex:1;font-weight:600}[hidden]{display:none}"
    "slot{display:block;flex:0 1 auto;margin-inline-start:auto}"
    "@media(max-width:599px){.n{display:none}slot{flex:1}}"
    "@media(prefers-reduced-motion:reduce){:host{transition:none}}@media print{:host{display:none}}"
)


def font_stack(family: str, fonts: FontBook) -> str:
    """Return a CSS list: the family, those that stand in for letters that it lacks, and what every browser has."""
    fallback = next(f.fallback for f in fonts.files if f.family == family)
    return ",".join((*(font_family(one) for one in (family, *fonts.stand_ins)), fallback))


def _css(document: ButtonDocument, fonts: FontBook) -> str:
    look, pad, kind = document.look, document.look.padding, document.look.type
    wide = isinstance(look.size, FullSize)
    # Beside a quantity box, full width is what the box leaves.
    size = (
        "flex:1 1 0;min-width:0;"
        if wide and isinstance(document.quantity, QuantityBox)
        else "width:100%;"
        if wide
        else ""
    )
    if isinstance(look.size, FixedSize):
        size = f"width:{_px(look.size.width_px)};height:{_px(look.size.height_px)};"
    icon = document.icon if isinstance(document.icon, ShippedIcon) else None
    # The line height is said in pixels, since letters from another typeface would make a "normal" one higher.
    line = fonts.measure("", kind.family, kind.size_px, kind.weight).line_height_px
    font = f"font:{kind.weight} {_px(kind.size_px)}/{_px(line)} {font_stack(kind.family, fonts)}"
    rules = [
        # Left and right are those of the direction of reading: from right to left the drawing is mirrored.
        f".b{{{size}padding-block:{_px(pad.top_px)} {_px(pad.bottom_px)};"
        f"padding-inline:{_px(pad.left_px)} {_px(pad.right_px)};"
        f"gap:{_px(icon.gap_px) if icon else '0'};border-radius:{_px(look.radius_px)};"
        f"background:{look.fill.colour};color:{look.text_colour};{font}}}",
        _state(
            ".b:hover:not([aria-disabled=true]),.b[data-look=hover]", look.hover.fill.colour, look.hover.text_colour
        ),
        _state(".b:focus-visible,.b[data-look=focus]", look.focus.fill.colour, look.focus.text_colour),
        f".b:focus-visible,.b[data-look=focus]{{outline:3px solid {look.focus.ring_colour};outline-offset:2px}}",
        _state(
            ".b[data-moment=sold_out],.b[data-moment=choose_first][aria-disabled=true]",
            look.disabled.fill.colour,
            look.disabled.text_colour,
        ),
    ]
    if wide:
        rules.insert(0, ":host{display:flex!important}")
    if icon:
        rules.append(f"svg{{width:{_px(icon.size_px)};height:{_px(icon.size_px)}}}")
    if isinstance(document.quantity, QuantityBox):
        rules.append(f".q{{width:{_px(document.quantity.width_px)};border-radius:{_px(look.radius_px)};{font}}}")
    return "".join(rules)


def _state(selector: str, fill: str, words: str) -> str:
    return f"{selector}{{background:{fill};color:{words}}}"


def _px(value: float) -> str:
    return f"{value:g}px" if value else "0"
