"""A look in each state, whole: what a state does not say is derived from rest by rule."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

from uptick.core.button.look import (
    AnyBorder,
    ByRule,
    LayersFill,
    LinearFill,
    LineBorder,
    Look,
    Motion,
    NoBorder,
    PictureFill,
    RadialFill,
    Shadows,
    SidesBorder,
    SolidFill,
    StateLook,
    Stop,
)
from uptick.core.colour.colour import hex_of, nearest_passing, opaque, over, parse_colour, worst_contrast
from uptick.core.colour.fills import WHITE, AnyFill, colours_in

REST = "rest"
# Steps of OKLCH lightness that are seen at once but read as the same colour; tried by eye on the demo's brand.
_HOVER_STEP, _PRESSED_STEP, _BORDER_STEP = 0.06, 0.11, 0.12
_DARKEST, _LIGHTEST = 0.1, 0.97
# WCAG 2.2, 1.4.3.
_READABLE = 4.5


@dataclass(frozen=True, slots=True)
class Dress:
    """How a button is dressed in one state. `derived` names what nobody has set by hand."""

    fill: AnyFill
    text_colour: str
    border: AnyBorder
    shadows: Shadows
    opacity: float
    motion: Motion
    derived: frozenset[str] = frozenset()


def dress_in(look: Look, state: str) -> Dress:
    """Return how a look is dressed in one state.

    By rule, where nothing is set by hand: words are the lighter or the darker tint of the fill that reads better; hover
    and pressed move the fill away from the words in OKLCH lightness; disabled is a paler, greyer fill; a border is a
    shade of the fill; working, added and focus are as at rest.
    """
    return dresses(look)[state]


def dresses(look: Look) -> dict[str, Dress]:
    """Return how a look is dressed at rest and in each state."""
    return look.derived(_dresses)


def _dresses(look: Look) -> dict[str, Dress]:
    rest = _at_rest(look)
    return {state: dress(rest, look) for state, dress in _IN.items()}


def ring_colour(look: Look) -> str:
    """Return the focus ring's colour: by rule the fill, or the words where there is none, made to read on white."""
    if look.focus.ring_colour:
        return look.focus.ring_colour
    rest = dress_in(look, REST)
    return nearest_passing(base_colour(rest.fill) or over(rest.text_colour, WHITE), WHITE, 4.5) or "#000000"


def base_colour(fill: AnyFill, page: str = WHITE) -> str | None:
    """Return the colour that stands for a fill, or None where only the page is seen."""
    if isinstance(fill, PictureFill):
        return fill.scrim.colour
    colours = colours_in(fill, page)
    return colours[len(colours) // 2] if colours else None


def _at_rest(look: Look) -> Dress:
    derived = set()
    words = by_hand(look.text_colour)
    if words is None:
        derived.add("text_colour")
        words = words_on(look.fill)
    border = _coloured(look.border, look.fill, words)
    if border != look.border:
        derived.add("border")
    return Dress(look.fill, words, border, look.shadows, look.opacity, look.motion, frozenset(derived))


@lru_cache(maxsize=2048)
def words_on(fill: AnyFill) -> str:
    """Return the tint for words on a fill: of its hue, light or dark, whichever has the better worst contrast."""
    base = base_colour(fill)
    if base is None:
        return "#1b1b1b"
    hue = parse_colour(base).convert("oklch")
    chroma = float(hue["chroma"])
    tints = [
        hex_of(hue.clone().set({"lightness": lightness, "chroma": min(chroma, most)}))
        for lightness, most in ((0.985, 0.02), (0.2, 0.05))
    ]
    met = colours_in(fill) or (base,)

    def worst(tint: str) -> float:
        return worst_contrast(tint, met)[0]

    best = max(tints, key=worst)
    # A tint can fall just short where white or black does not.
    return best if worst(best) >= _READABLE else max((best, "#ffffff", "#000000"), key=worst)


def _coloured(border: AnyBorder, fill: AnyFill, words: str) -> AnyBorder:
    if isinstance(border, NoBorder) or (isinstance(border, LineBorder) and border.colour):
        return border
    base = base_colour(fill)
    colour = shifted(base, -_BORDER_STEP) if base else words
    if isinstance(border, LineBorder):
        return LineBorder(width_px=border.width_px, style=border.style, colour=colour)
    names = zip(("top", "right", "bottom", "left"), border.lines, strict=True)
    return SidesBorder(**{
        name: line if line.colour else line.model_copy(update={"colour": colour}) for name, line in names
    })  # fmt: skip


@lru_cache(maxsize=8192)
def shifted(colour: str, step: float) -> str:
    """Return a colour moved in OKLCH lightness, turned about where it would leave what can be told apart.

    What it lets through stays.
    """
    moved = parse_colour(opaque(colour)).convert("oklch")
    lightness = float(moved["lightness"])
    goal = lightness + step
    if not _DARKEST <= goal <= _LIGHTEST:
        goal = lightness - step
    return hex_of(moved.set("lightness", min(1.0, max(0.0, goal)))) + colour[7:]


@lru_cache(maxsize=8192)
def _lightness(colour: str) -> float:
    return float(parse_colour(colour).convert("oklch")["lightness"])


def _moved(rest: Dress, step: float) -> AnyFill:
    fill, base = rest.fill, base_colour(rest.fill)
    if base is None:
        return fill
    way = -step if _lightness(opaque(rest.text_colour)) >= _lightness(base) else step
    if isinstance(fill, SolidFill):
        return SolidFill(colour=shifted(fill.colour, way))
    if isinstance(fill, LinearFill | RadialFill):
        return _shifted_gradient(fill, way)
    if isinstance(fill, LayersFill):
        # What lies on a colour, as a sheen does, stays; the colour moves.
        if fill.ground:
            return fill.model_copy(update={"ground": shifted(fill.ground, way)})
        return fill.model_copy(update={"list": tuple(_shifted_gradient(fill_layer, way) for fill_layer in fill.list)})
    assert isinstance(fill, PictureFill)
    veil = fill.scrim.model_copy(update={"opacity": min(1.0, fill.scrim.opacity + 2 * step)})
    return fill.model_copy(update={"scrim": veil})


def _shifted_gradient(fill: LinearFill | RadialFill, step: float) -> LinearFill | RadialFill:
    stops = tuple(Stop(at=stop.at, colour=shifted(stop.colour, step)) for stop in fill.stops)
    return fill.model_copy(update={"stops": stops})


def _in_state(rest: Dress, look: Look, state: StateLook, by_rule: AnyFill) -> Dress:
    derived = set()
    own = None if isinstance(state.fill, ByRule) else state.fill
    fill: AnyFill = own or by_rule
    if own is None:
        derived.add("fill")
    words = by_hand(state.text_colour)
    if words is None:
        derived.add("text_colour")
        words = _words_in(rest, look, state, fill, by_rule=own is None)
    line = None if isinstance(state.border, ByRule) else state.border
    border = _coloured(line or look.border, fill, words)
    if line is None:
        derived.add("border")
    cast = None if isinstance(state.shadows, ByRule) else state.shadows
    return Dress(
        fill,
        words,
        border,
        cast or rest.shadows,
        rest.opacity if state.opacity is None else state.opacity,
        state.motion or rest.motion,
        frozenset(derived),
    )


def by_hand(colour: str | None) -> str | None:
    """Return a colour that is set by hand, or None where it is left to the rule."""
    return None if colour == "rule" else colour


def _words_in(rest: Dress, look: Look, state: StateLook, fill: AnyFill, *, by_rule: bool) -> str:
    own = by_hand(look.text_colour)
    if own and base_colour(fill) is None and (state is look.hover or state is look.pressed):
        # Where there is no fill to move, the words themselves answer.
        return shifted(rest.text_colour, _PRESSED_STEP)
    if own or by_rule:
        return rest.text_colour
    return words_on(fill)


def _disabled(rest: Dress, look: Look) -> Dress:
    state, base = look.disabled, base_colour(rest.fill)
    fill: AnyFill = rest.fill
    if base is not None:
        fill = SolidFill(colour=_paled(base, 0.92, 0.02))
    dressed = _in_state(rest, look, state, fill)
    if by_hand(state.text_colour) is not None:
        return dressed
    ground = base_colour(dressed.fill) or "#ffffff"
    words = nearest_passing(_paled(base or opaque(rest.text_colour), 0.6, 0.03), ground, 3.0) or "#767676"
    return replace(dressed, text_colour=words, border=_coloured(_line_of(state, look), dressed.fill, words))


def _line_of(state: StateLook, look: Look) -> AnyBorder:
    return look.border if state.border is None or isinstance(state.border, ByRule) else state.border


@lru_cache(maxsize=8192)
def _paled(colour: str, lightness: float, most_chroma: float) -> str:
    pale = parse_colour(colour).convert("oklch")
    return hex_of(pale.set({"lightness": lightness, "chroma": min(float(pale["chroma"]), most_chroma)}))


_IN: dict[str, Callable[[Dress, Look], Dress]] = {
    REST: lambda rest, look: rest,
    "hover": lambda rest, look: _in_state(rest, look, look.hover, _moved(rest, _HOVER_STEP)),
    "pressed": lambda rest, look: _in_state(rest, look, look.pressed, _moved(rest, _PRESSED_STEP)),
    "focus": lambda rest, look: _in_state(rest, look, look.focus, rest.fill),
    "disabled": lambda rest, look: _disabled(rest, look),
    "working": lambda rest, look: _in_state(rest, look, look.working, rest.fill),
    "added": lambda rest, look: _in_state(rest, look, look.added, rest.fill),
}
