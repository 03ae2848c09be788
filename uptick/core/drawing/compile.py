"""The compiler: a button document becomes the CSS, markup and text patterns that shoppers get."""

from collections.abc import Mapping, Sequence
from typing import Annotated, Any, NotRequired

from pydantic import WithJsonSchema
from typing_extensions import TypeAliasType, TypedDict

from uptick.core.button.box_names import as_wire
from uptick.core.button.document import KEY_PX, ButtonDocument, QuantityBox, SecondButton, Shape, TellWhenBack
from uptick.core.button.fields import declared
from uptick.core.button.lengths import Ground, to_px
from uptick.core.button.look import FixedSize, FullSize, Look, corners_of
from uptick.core.button.merge import Json
from uptick.core.button.message import ToMessage, address_parts, open_spans
from uptick.core.colour.dress import REST, dress_in
from uptick.core.drawing import css
from uptick.core.drawing.bar import CompiledBar
from uptick.core.drawing.beside import QUANTITY_GAP_PX, second_look, takes_row
from uptick.core.drawing.drawing import border_edges
from uptick.core.drawing.hanging import CompiledHanging
from uptick.core.drawing.kit import Kit, icon_of
from uptick.core.drawing.over import CompiledOver
from uptick.core.drawing.sheet import (
    CompiledCloser,
    CompiledSheet,
    CompiledShow,
    compile_closer,
    compile_sheet,
    compile_show,
    has_closer,
)
from uptick.core.type.setting import set_words
from uptick.core.words.tab_words import TAB_WORDS
from uptick.core.words.wording import Live, Pattern, Plural, parse_text


class LiveValue(TypedDict):
    """A value of the product that stands in a text."""

    v: str


_PLURAL_SCHEMA = {
    "type": "object",
    "required": ["p"],
    "properties": {"p": {"type": "string"}},
    "additionalProperties": {"anyOf": [{"type": "string"}, {"$ref": "#/components/schemas/WirePattern"}]},
}
# Words that depend on the count `p`: `=2` for a number, then the language's plural category.
PluralForms = Annotated[dict[str, Any], WithJsonSchema(_PLURAL_SCHEMA)]
# A text as the script fills it.
WirePattern = TypeAliasType("WirePattern", list[str | LiveValue | PluralForms])


class CompiledIcon(TypedDict):
    """`paths` hold the attributes of each SVG path; `box` is the view box."""

    paths: list[dict[str, str]]
    box: str
    side: str


class CompiledQuantity(TypedDict):
    least: int
    most: int
    step: int
    start: int
    # A release that was made before there were these has none.
    layout: NotRequired[str]
    # What screen readers call it and its keys, where that is not the usual in a language.
    names: NotRequired[dict[str, list[str]]]


class CompiledMessage(TypedDict):
    """What a press opens instead of filling the basket; what is not there is as usual.

    Every second part of `href` names what is filled in, `text` or `subject`. `hours` are days (0 is Monday) with the
    minutes, by the clock of `zone`, at which they begin and end; outside of them `closed` is said.
    """

    href: list[str]
    text: NotRequired[dict[str, WirePattern]]
    subject: NotRequired[dict[str, WirePattern]]
    tab: NotRequired[bool]
    hours: NotRequired[list[list[int]]]
    zone: NotRequired[str]
    closed: NotRequired[dict[str, WirePattern]]


class CompiledNotify(TypedDict):
    """Where a mail address is sent to, and by which names.

    `words` are what is asked and said by language, in the order of `NOTIFY_WORDS`, then what closes it, then the
    language that all of that is in.
    """

    path: str
    mail: str
    product: str
    words: NotRequired[dict[str, list[str]]]


class CompiledButton(TypedDict):
    """A button in the form that the script stands on a page; its words come beside it.

    `css` is the part of the style sheet that differs from button to button; `BASE_CSS` goes before it. Every value in
    it is a number, a parsed colour or a name from a list, so nothing of a designer's text can reach it. `high` is the
    height in pixels to reserve, or each device's own; `after` is where a press leads. `second` are the words of a
    second button by language; `spoken` is what one without words is called.
    """

    css: str
    icon: CompiledIcon | None
    wide: bool
    high: float | dict[str, float]
    shown: bool
    quantity: CompiledQuantity | None
    # A release that was made before there were these has none.
    second: NotRequired[dict[str, WirePattern] | None]
    spoken: NotRequired[dict[str, WirePattern] | None]
    after: str
    # Each only in its own placement.
    bar: NotRequired[CompiledBar]
    floating: NotRequired[CompiledHanging]
    over: NotRequired[CompiledOver]
    message: NotRequired[CompiledMessage]
    notify: NotRequired[CompiledNotify]
    # What opens after a press, and how that is drawn.
    sheet: NotRequired[CompiledSheet]
    show: NotRequired[CompiledShow]
    closer: NotRequired[CompiledCloser]
    # The second button opens a closer look.
    looks: NotRequired[bool]


def compile_button(document: ButtonDocument, kit: Kit, ground: Ground | None = None) -> CompiledButton:
    """Return a button compiled, without its words; with a ground, relative lengths become pixels on it.

    Raises:
        OutOfRange: The icon is not shipped.
    """
    bare = document.bare
    where = ground if bare.derived(is_relative) else None
    return bare.derived(_compile, kit, where)


def is_relative(document: ButtonDocument) -> bool:
    """Tell whether a length of a button depends on where it stands."""
    look, second = document.look, document.second
    pads = [look.padding, *([second.padding] if isinstance(second, SecondButton) else [])]
    lengths = [getattr(pad, side) for pad in pads for side in ("top", "right", "bottom", "left")]
    lengths += [getattr(look.size, name, None) for name in ("least", "most", "width")]
    corners = corners_of(look.radius)
    lengths += [corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left]
    return any(isinstance(length, str) for length in lengths)


def _compile(document: ButtonDocument, kit: Kit, ground: Ground | None) -> CompiledButton:
    stands, box, second = document.placement, document.quantity, document.second
    quantity: CompiledQuantity | None = None
    if isinstance(box, QuantityBox):
        quantity = {
            "least": box.least, "most": box.most, "step": box.step, "start": box.start, "layout": box.layout,
        }  # fmt: skip
        if box.names:
            quantity["names"] = {language: list(as_wire(names)) for language, names in box.names.items()}
    wire: CompiledButton = {
        "css": _css(document, kit, ground),
        "icon": _icon(document, kit),
        "wide": takes_row(document),
        "high": reserved_height(document, kit),
        "shown": stands.shown,
        "quantity": quantity,
        "second": _patterns(second.wording) if isinstance(second, SecondButton) else None,
        "spoken": _patterns(document.spoken) if document.is_wordless and document.spoken else None,
        "after": document.afterwards.kind,
    }
    if isinstance(document.afterwards, ToMessage):
        wire["message"] = _message(document.afterwards)
    if isinstance(document.afterwards, TellWhenBack):
        tells = document.afterwards
        wire["notify"] = {"path": tells.path, "mail": tells.mail_field, "product": tells.product_field}
    if sheet := compile_sheet(document):
        wire["sheet"] = sheet
    if (show := compile_show(document)) is not None:
        wire["show"] = show
    if (closer := compile_closer(document)) is not None:
        wire["closer"] = closer
    if has_closer(document):
        wire["looks"] = True
    return wire


# What stands for the choice until somebody has made it; no text of a designer holds it.
CHOICE = "\ue000"


def _message(message: ToMessage) -> CompiledMessage:
    wire: CompiledMessage = {"href": address_parts(message)}
    if message.text:
        wire["text"] = _chosen(message.text)
    if message.subject and message.way == "mail":
        wire["subject"] = _chosen(message.subject)
    if message.way == "chat":
        wire["tab"] = True
    if message.hours:
        wire["hours"] = [list(span) for span in open_spans(message.hours)]
        wire["closed"] = _chosen(message.closed)
    return wire


def _chosen(texts: Mapping[str, str]) -> dict[str, WirePattern]:
    return _patterns({language: text.replace("{choice}", CHOICE) for language, text in texts.items()})


def _tab_css(message: ToMessage) -> list[str]:
    """Return rules that tell screen readers of the new tab; what CSS puts there is part of a button's name."""
    languages = dict.fromkeys(["en", *(language.split("-")[0] for language in message.text)])
    known = [language for language in languages if language in TAB_WORDS]
    return [
        f"{'' if language == 'en' else f':host(:lang({language})) '}.n::after{{content:', {TAB_WORDS[language]}'}}"
        for language in known
    ]


def _patterns(texts: Mapping[str, str]) -> dict[str, WirePattern]:
    return {language: wire_pattern(parse_text(text)) for language, text in texts.items()}


# Heights are reserved before the window is known: what is relative to it is taken on a phone.
_RESERVED_ON = Ground(320, 375)


def reserved_height(document: ButtonDocument, kit: Kit) -> float:
    """Return the height of a button in pixels with words on one line, the same in every moment."""
    look = document.look
    pad, type_px = look.padding, look.type.size_px
    border = border_edges(look.border).along
    along = to_px(pad.top, _RESERVED_ON, type_px) + to_px(pad.bottom, _RESERVED_ON, type_px) + border
    if isinstance(look.size, FixedSize):
        return max(look.size.height, along)
    return max(look.size.least_height_px, along + _inner_height(document, kit))


def _inner_height(document: ButtonDocument, kit: Kit) -> float:
    look = document.look
    icon = icon_of(document.icon)
    line = 0.0 if document.is_wordless else set_words("", look.type, kit.fonts).line_height_px
    if icon and icon.side == "above":
        return icon.size_px + (icon.gap_px if line else 0) + line
    return max(icon.size_px if icon else 0.0, line)


def compile_words(layer: Json) -> dict[str, dict[str, WirePattern]]:
    """Return the texts that one layer sets, by moment and language, laid out as the script fills them.

    Plain runs are strings, live values `{"v": name}`, plurals `{"p": name, "=0": …, "one": …, "other": …}`.
    """
    return {
        moment: {language: wire_pattern(parse_text(text)) for language, text in texts.items()}
        for moment, texts in (layer.get("wording") or {}).items()
    }


def wire_pattern(pattern: Pattern) -> WirePattern:
    """Return a text as the script reads it: words as they are, live values by name, plurals by category."""
    return [_wire(part) for part in pattern]


def _wire(part: str | Live | Plural) -> Any:
    if isinstance(part, str):
        return part
    if isinstance(part, Live):
        return {"v": part.name}
    forms = [(f"={number}", inner) for number, inner in part.exact] + list(part.forms)
    return {"p": part.name} | {name: wire_pattern(inner) for name, inner in forms}


def _icon(document: ButtonDocument, kit: Kit) -> CompiledIcon | None:
    icon = icon_of(document.icon)
    if icon is None:
        return None
    glyph = kit.glyph(icon)
    side = "after" if icon.side == "after" else "before"
    return {"paths": [_path(s) for s in glyph.shapes], "box": f"0 0 {glyph.width:g} {glyph.height:g}", "side": side}


def _path(shape: Shape) -> dict[str, str]:
    attributes = {"d": shape.d}
    if shape.rule == "evenodd":
        attributes["fill-rule"] = "evenodd"
    if shape.stroke:
        attributes |= {"fill": "none", "stroke": "currentColor", "stroke-width": f"{shape.stroke:g}"}
        attributes |= {"stroke-linecap": shape.cap, "stroke-linejoin": shape.join}
    return attributes


# No rule of a theme for its own boxes may undo how ours stands, so the host insists on its display.
# Working is told by a tick that runs along the lower edge, not by a spinner; added by a mark that stands up once where
# one begins to read. A flex box has no line of text in it that could be higher than the button.
BASE_CSS = (
    ":host{all:initial;visibility:inherit;display:inline-flex!important;vertical-align:top;align-items:stretch;"
    f"gap:{QUANTITY_GAP_PX:g}px}}"
    ".b,.s{all:unset;flex:none;box-sizing:border-box;position:relative;overflow:visible;display:inline-flex;"
    "align-items:center;align-self:center;justify-content:center;cursor:pointer;white-space:nowrap;text-align:center;"
    "-webkit-tap-highlight-color:transparent;touch-action:manipulation}"
    ".b>*{flex:none}"
    ".b[aria-disabled=true]{cursor:not-allowed}"
    ".b[data-moment=working]{cursor:progress}"
    ".b::after{position:absolute;inset:0;border-radius:inherit;background:currentColor;pointer-events:none}"
    ":host([dir=rtl]) .b::after{transform:scaleX(-1)}"
    "@keyframes t{from{clip-path:inset(calc(100% - 3px) 100% 0 0)}to{clip-path:inset(calc(100% - 3px) 0 0)}}"
    "@keyframes m{from{clip-path:inset(100% calc(100% - 5px) 0 0)}to{clip-path:inset(0 calc(100% - 5px) 0 0)}}"
    "@keyframes r{from{box-shadow:0 0 0 0}to{box-shadow:0 0 0 9px transparent}}"
    "@keyframes f{50%{opacity:.35}}"
    "@media(prefers-reduced-motion:reduce){.b,.s,.b *,.b::after{animation:none!important;transition:none!important}}"
    "@media(forced-colors:active){.b,.s,.q{border:solid 1px ButtonText!important;background:ButtonFace!important}}"
    ".n{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}"
    "svg{fill:currentColor}"
    # As high as its row, however small that is; minus and plus are there in some layouts.
    ".q{flex:none;contain:size;display:inline-grid;box-sizing:border-box;text-align:center;background:#fff;color:#111;"
    "box-shadow:inset 0 0 0 1px #767676}"
    ".v{all:unset;min-width:0;min-height:0;grid-area:n}"
    ".k{all:unset;min-height:0;overflow:hidden;cursor:pointer;display:grid;place-items:center;line-height:1;"
    "touch-action:manipulation;user-select:none}.k[aria-disabled=true]{color:#767676;cursor:default}"
    ".q:focus-within{outline:3px solid #111;outline-offset:2px}"
)
_TELLS = {
    # Where nothing may move, a still line and a still mark tell the same.
    "tick": {
        "content": "''", "clip-path": "inset(calc(100% - 3px) 0 0)", "animation": "t 1.2s ease-in-out infinite",
    },
    "mark": {"content": "''", "clip-path": "inset(0 calc(100% - 5px) 0 0)", "animation": "m .3s ease-out"},
    "ring": {"content": "''", "background": "none", "animation": "r .5s ease-out"},
}  # fmt: skip


_STATES = {
    "hover": ":hover:not([aria-disabled=true]),[data-look=hover]",
    "focus": ":focus-visible,[data-look=focus]",
    "pressed": ":active:not([aria-disabled=true]),[data-look=pressed]",
    "working": "[data-moment=working]",
    "added": "[data-moment=added]",
    "disabled": "[data-moment=sold_out],[data-moment=choose_first][aria-disabled=true]",
}


def _css(document: ButtonDocument, kit: Kit, ground: Ground | None) -> str:
    look, second = document.look, document.second if isinstance(document.second, SecondButton) else None
    boxed = isinstance(document.quantity, QuantityBox)
    among = boxed or (second is not None and second.side == "beside")
    writer = css.CssWriter(kit.fonts, ground)
    rules_css = [":host{display:flex!important}"] if takes_row(document) else []
    if look.wrap != "none":
        rules_css.append(":host{max-width:100%}")
    rules_css += _row(document, second)
    declared = {**writer.size(look, among_others=among), **_body(look, writer), **css.inside(look, document.icon)}
    if second and second.side == "beside" and second.share and isinstance(look.size, FullSize):
        declared |= _share(document, second)
    if document.is_wordless:
        declared["gap"] = "0"
    if second and second.side == "under" and boxed and not isinstance(look.size, FullSize):
        declared["justify-self"] = "start"
    if second and second.side == "under" and not boxed:
        declared |= {"align-self": "stretch"}
        declared.pop("flex", None)
    rules_css.append(css.rule(".b", declared))
    icon = icon_of(document.icon)
    above = icon is not None and icon.side == "above"
    # Who asks may ask of what is sold out as well.
    asks = isinstance(document.afterwards, ToMessage | TellWhenBack)
    rules_css += _states(look, ".b", without=("disabled",) if asks else ())
    rules_css.append(css.rule(".w", css.words(look, kit.fonts, hidden=document.is_wordless, above=above)))
    rules_css += _tells(look)
    if icon:
        rules_css.append(css.rule("svg", css.icon_size(icon, kit.glyph(icon))))
        if icon.mirror:
            rules_css.append(":host([dir=rtl]) svg{transform:scaleX(-1)}")
    if isinstance(document.quantity, QuantityBox):
        rules_css.append(_quantity(document.quantity, look, writer))
    if second:
        rules_css += _second(document, second, writer)
    if isinstance(document.afterwards, ToMessage) and document.afterwards.way == "chat":
        rules_css += _tab_css(document.afterwards)
    return "".join(rules_css)


def _body(look: Look, writer: css.CssWriter) -> css.Declarations:
    return {
        **writer.padding(look.padding, look.type.size_px),
        **writer.corners(look.radius, look.type.size_px),
        **css.dress(dress_in(look, REST)),
        **writer.type(look.type),
        **declared(look, on_words=False),
        **({"text-shadow": css.text_shadows(look.text_shadows)} if look.text_shadows.list else {}),
        **({"transition": css.transition(look.motion)} if look.motion.duration_ms else {}),
    }


def _states(look: Look, selector: str, without: Sequence[str] = ()) -> list[str]:
    declared = css.states(look)
    states = ((name, on) for name, on in _STATES.items() if name not in without)
    return [css.rule(f"{selector}:where({on})", declared[name]) for name, on in states]


def _tells(look: Look) -> list[str]:
    rules_css = []
    if look.working.tell == "breath":
        rules_css.append(".b[data-moment=working]>*{animation:f 1.2s ease-in-out infinite}")
    elif look.working.tell == "tick":
        rules_css.append(css.rule(".b[data-moment=working]::after", _TELLS["tick"]))
    if look.added.tell != "none":
        rules_css.append(css.rule(".b[data-moment=added]::after", _TELLS[look.added.tell]))
    return rules_css


def _row(document: ButtonDocument, second: SecondButton | None) -> list[str]:
    """Return how what stands beside and under the button is set around it."""
    if second is None or second.side == "beside":
        return []
    if isinstance(document.quantity, QuantityBox):
        gaps = f"{css.px(second.gap_px)} {QUANTITY_GAP_PX:g}px"
        return [f":host{{display:grid!important;grid-template-columns:auto minmax(0,1fr);gap:{gaps}}}"]
    return [f":host{{flex-direction:column;gap:{css.px(second.gap_px)}}}"]


_AREAS = {
    "plain": "'n' minmax(0,1fr)/1fr",
    "sides": f"'m n p' minmax(0,1fr)/{KEY_PX:g}px 1fr {KEY_PX:g}px",
    "stacked": f"'n p' minmax(0,1fr) 'n m' minmax(0,1fr)/1fr {KEY_PX:g}px",
}


def _quantity(box: QuantityBox, look: Look, writer: css.CssWriter) -> str:
    whole = {
        "width": css.px(box.whole_width_px), **writer.corners(look.radius, look.type.size_px), **writer.type(look.type),
        **declared(look, on_words=False),
        "grid-template": _AREAS[box.layout],
    }  # fmt: skip
    return css.rule(".q", whole)


def _share(document: ButtonDocument, second: SecondButton) -> css.Declarations:
    """Return one half of what a quantity box and the gap leave of the row."""
    box = document.quantity
    taken = second.gap_px + (box.whole_width_px + QUANTITY_GAP_PX if isinstance(box, QuantityBox) else 0)
    return {"flex": "none", "width": f"calc(50% - {taken / 2:g}px)", "min-width": "0"}


def _second(document: ButtonDocument, second: SecondButton, writer: css.CssWriter) -> list[str]:
    look = second_look(document)
    declared = _body(look, writer)
    if second.side == "under":
        declared |= {"grid-column": "1/-1"} if isinstance(document.quantity, QuantityBox) else {"align-self": "stretch"}
    elif second.share and isinstance(document.look.size, FullSize):
        declared |= _share(document, second)
    if second.side == "beside" and second.gap_px != QUANTITY_GAP_PX:
        away = css.px(second.gap_px - QUANTITY_GAP_PX)
        declared["margin-inline-end" if second.first else "margin-inline-start"] = away
    # On the sheet that it opens it has no use, and is not shown.
    gone = [".s{display:var(--up-looks,inline-flex)}"] if second.kind == "closer" else []
    if second.first and second.side == "beside":
        # Tab order follows the page's order, so the keyboard meets the main one first all the same.
        declared["order"] = "-1"
        return [css.rule(".s", declared), ".q{order:-2}", *gone, *_states(look, ".s")]
    return [css.rule(".s", declared), *gone, *_states(look, ".s")]
