"""The specification of a button as sentences, in the order in which a designer would say it."""

from collections.abc import Iterator

from uptick.core.button.document import ButtonDocument, NoIcon, QuantityBox, SecondButton
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import say_fields
from uptick.core.button.look import (
    FixedSize,
    FullSize,
    LineBorder,
    Look,
    NoBorder,
    NoFill,
    PictureFill,
    SidesBorder,
    SolidFill,
    corners_of,
)
from uptick.core.colour.dress import REST, Dress, dress_in, dresses, ring_colour

_WHEN = {
    "hover": "When hovered",
    "pressed": "While pressed",
    "focus": "When focused",
    "disabled": "When it cannot be pressed",
    "working": "While working",
    "added": "Once added",
}


def specification(document: ButtonDocument) -> str:
    """Return a button in plain sentences: a paragraph each for body, words, icon, states and what stands beside it."""
    look = document.look
    parts = [
        [_body(look), _padding(look), *_edge(look)],
        [*_words(look)],
        [*_icon(document)],
        [*_states(look)],
        [*_beside(document)],
    ]
    return "\n\n".join(" ".join(sentences) for sentences in parts if sentences) + "\n"


def _length(value: float | str) -> str:
    return value if isinstance(value, str) else f"{value:g} px"


def kind_of_body(look: Look) -> str:
    """Return what a designer calls the body: filled, outlined, words only or a picture."""
    if isinstance(look.fill, PictureFill):
        return "picture"
    if isinstance(look.fill, NoFill):
        return "words only" if isinstance(look.border, NoBorder) else "outlined"
    return "filled"


def _body(look: Look) -> str:
    size = look.size
    if isinstance(size, FixedSize):
        wide = f"{_length(size.width)} wide and {size.height:g} px high"
    elif isinstance(size, FullSize):
        wide = "as wide as its container"
    else:
        wide = "as wide as its words"
        if size.least:
            wide += f", at least {_length(size.least)}"
    most = getattr(size, "most", None)
    wide += f", at most {_length(most)}" if most is not None else ""
    least_high = getattr(size, "least_height_px", 0)
    wide += f", at least {least_high:g} px high" if least_high else ""
    corners = corners_of(look.radius)
    four = [corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left]
    round_ = _length(four[0]) if len(set(map(str, four))) == 1 else " ".join(_length(length) for length in four)
    return f"A button, {kind_of_body(look)}, {wide}, corners {round_}, {_fill(look)}."


def _fill(look: Look) -> str:
    if isinstance(look.fill, SolidFill):
        return f"in {look.fill.colour}"
    if isinstance(look.fill, NoFill):
        return "the page showing through"
    return f"with a {value_text(look.fill.model_dump(mode='json'))}"


def _padding(look: Look) -> str:
    pad = look.padding
    sides = [_length(side) for side in (pad.top, pad.right, pad.bottom, pad.left)]
    if len(set(sides)) == 1:
        return f"Padding {sides[0]} all around."
    if sides[0] == sides[2] and sides[1] == sides[3]:
        return f"Padding {sides[0]} above and below, {sides[1]} at the sides."
    return f"Padding {sides[0]} above, {sides[1]} at the end, {sides[2]} below, {sides[3]} at the start."


def _edge(look: Look) -> Iterator[str]:
    rest = dress_in(look, REST)
    if isinstance(rest.border, LineBorder):
        yield f"A border of {rest.border.width_px:g} px, {rest.border.style}, {rest.border.colour}."
    elif isinstance(rest.border, SidesBorder):
        yield f"A border of its own at each side: {value_text(rest.border.model_dump(mode='json'))}."
    for shadow in look.shadows.list:
        where = "inside" if shadow.inner else "outside"
        yield (
            f"A shadow {where}, {shadow.x_px:g} px across and {shadow.y_px:g} px down, blurred {shadow.blur_px:g} px, "
            f"spread {shadow.spread_px:g} px, {shadow.colour} at {shadow.opacity * 100:g} %."
        )
    if look.opacity < 1:
        yield f"Seen at {look.opacity * 100:g} %."


def _words(look: Look) -> Iterator[str]:
    kind, rest = look.type, dress_in(look, REST)
    line = f", lines {kind.line:g} apart" if kind.line else ""
    more = say_fields(look, "look.type.")
    own = " by rule" if "text_colour" in rest.derived else ""
    yield (
        f"Words in {kind.family.capitalize()} {kind.size_px:g} px, weight {kind.weight}{line}{more}, "
        f"{rest.text_colour}{own}, centred on {'their capitals' if look.centring == 'caps' else 'their line'}."
    )
    for shadow in look.text_shadows.list:
        yield (
            f"The words cast a shadow, {shadow.x_px:g} px across and {shadow.y_px:g} px down, "
            f"blurred {shadow.blur_px:g} px, {shadow.colour} at {shadow.opacity * 100:g} %."
        )
    if look.wrap == "lines":
        yield "Where they are too long they go on on another line."
    elif look.wrap == "ellipsis":
        yield "Where they are too long they end in an ellipsis."


def _icon(document: ButtonDocument) -> Iterator[str]:
    icon = document.icon
    if isinstance(icon, NoIcon):
        return
    where = "stands alone, the words read out only" if icon.side == "alone" else f"stands {icon.side} them"
    gap = "" if icon.side == "alone" else f", {icon.gap_px:g} px apart"
    turned = ", turned about from right to left" if icon.mirror else ""
    yield f"An icon, {icon.name}, {where}, {icon.size_px:g} px{gap}{turned}."


def _states(look: Look) -> Iterator[str]:
    worn = dresses(look)
    for state, when in _WHEN.items():
        parts = list(_difference(worn[state], worn[REST]))
        if state == "focus":
            ring = look.focus
            parts.append(f"a ring of {ring.ring_width_px:g} px in {ring_colour(look)}, {ring.ring_offset_px:g} px away")
        tell = {"working": look.working.tell, "added": look.added.tell}.get(state, "none")
        if tell != "none":
            parts.append(_TELLS[tell])
        if parts:
            yield f"{when}: {', '.join(parts)}."
    if look.motion.duration_ms:
        yield f"Each comes in {value_text(look.motion.model_dump(mode='json'))}."


_TELLS = {
    "tick": "a tick runs along the lower edge",
    "breath": "the words fade in and out",
    "mark": "a mark stands up where one begins to read",
    "ring": "a ring goes out",
}


def _difference(state: Dress, rest: Dress) -> Iterator[str]:
    def rule(part: str) -> str:
        return " by rule" if part in state.derived else ""

    if state.fill != rest.fill:
        yield f"fill {value_text(state.fill.model_dump(mode='json'))}{rule('fill')}"
    if state.text_colour != rest.text_colour:
        yield f"words {state.text_colour}{rule('text_colour')}"
    if state.border != rest.border:
        yield f"border {value_text(state.border.model_dump(mode='json'))}"
    if state.shadows != rest.shadows:
        yield f"shadows {value_text(state.shadows.model_dump(mode='json'))}"
    if state.opacity != rest.opacity:
        yield f"seen at {state.opacity * 100:g} %"


def _beside(document: ButtonDocument) -> Iterator[str]:
    box, second = document.quantity, document.second
    if isinstance(box, QuantityBox):
        keys = {"plain": "", "sides": " with minus and plus at its sides", "stacked": " with both keys at its end"}
        yield (
            f"Before it a number of {box.width_px:g} px{keys[box.layout]}, {box.least} to {box.most} in steps of "
            f"{box.step}, {box.start} at first."
        )
    if isinstance(second, SecondButton):
        second_words = next(iter(second.wording.values()), "")
        goes = "goes straight to the checkout" if second.kind == "checkout" else "opens a closer look"
        yield f"{second.side.capitalize()} it, {second.gap_px:g} px apart, “{second_words}” {goes}."
