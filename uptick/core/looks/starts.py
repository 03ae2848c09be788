"""Starting points: buttons that differ in how they are built, drawn in the brand's own colours."""

from collections.abc import Callable
from dataclasses import dataclass

from uptick.core.button.merge import Json
from uptick.core.colour.colour import nearest_passing
from uptick.core.colour.ramp import Brand, Seed, ramp
from uptick.core.looks.carry import completed


@dataclass(frozen=True, slots=True)
class StartingLook:
    """A starting point: its name, what is particular in how it is built, and its values as a layer."""

    key: str
    name: str
    says: str
    layer: Json


@dataclass(frozen=True, slots=True)
class _Ink:
    main: str
    pale: str
    dark: str
    other: str


_PLAIN = Seed(name="ink", colour="#22313f")


def starts(brand: Brand) -> tuple[StartingLook, ...]:
    """Return every starting point in the colours of a brand; without one they are drawn in a plain dark blue."""
    seeds = brand.seeds or (_PLAIN,)
    shades = {shade.step: shade.colour for shade in ramp(seeds[0])}
    main = nearest_passing(seeds[0].colour, "#ffffff", 4.5) or seeds[0].colour
    ink = _Ink(main, shades[10], shades[80], seeds[-1].colour if len(seeds) > 1 else shades[50])
    return tuple(StartingLook(key, name, says, completed(build(ink))) for key, name, says, build in _STARTS)


def _padding(across: float, along: float) -> Json:
    return {"top": along, "bottom": along, "left": across, "right": across}


def _look(*, fill: Json, **more: object) -> Json:
    """Return a whole look: what it does not say itself is said plainly, so that nothing else shines through."""
    return {
        "size": {"kind": "natural"}, "padding": _padding(22, 13), "radius": 4, "border": {"kind": "none"},
        "shadows": {"kind": "cast", "list": []}, "opacity": 1, "centring": "caps", "wrap": "none", "fill": fill,
        "motion": {"kind": "motion", "duration_ms": 150, "delay_ms": 0, "curve": "ease-out"},
        **more,
    }  # fmt: skip


def _solid(colour: str) -> Json:
    return {"kind": "solid", "colour": colour}


def _icon(name: str, side: str = "before", size: float = 18, gap: float = 9, *, mirror: bool = False) -> Json:
    return {"kind": "shipped", "name": name, "side": side, "size_px": size, "gap_px": gap, "mirror": mirror}


def _type(size: float = 16, weight: int = 650, spacing: float = 0, case: str = "as_written") -> Json:
    return {"size_px": size, "weight": weight, "letter_spacing_px": spacing, "case": case, "line": 0}


def _shadow(y: float, blur: float, colour: str, opacity: float, *, inner: bool = False, x: float = 0) -> Json:
    return {"x_px": x, "y_px": y, "blur_px": blur, "spread_px": 0, "colour": colour, "opacity": opacity, "inner": inner}


def _cast(*those: Json) -> Json:
    return {"kind": "cast", "list": list(those)}


def _no(*names: str) -> Json:
    return {name: {"kind": "none"} for name in names}


def _plank(ink: _Ink) -> Json:
    return {"look": _look(fill=_solid(ink.main), type=_type()), "icon": _icon("basket"), **_no("quantity", "second")}


def _seam(ink: _Ink) -> Json:
    line = {"kind": "line", "width_px": 2, "style": "solid", "colour": ink.main}
    hover = {"fill": _solid(ink.main), "text_colour": "#ffffff"}
    look = _look(
        fill={"kind": "none"},
        text_colour=ink.main,
        border=line,
        radius=0,
        type=_type(14, 700, 1.2, "upper"),
        hover=hover,
    )
    return {"look": look, **_no("icon", "quantity", "second")}


def _whisper(ink: _Ink) -> Json:
    look = _look(
        fill={"kind": "none"}, text_colour=ink.main, padding=_padding(6, 10), type=_type(17, 600), radius=2,
        hover={"text_colour": ink.dark},
    )  # fmt: skip
    return {"look": look, "icon": _icon("arrow", "after", 16, 8, mirror=True), **_no("quantity", "second")}


def _ledge(ink: _Ink) -> Json:
    still = _cast(_shadow(4, 0, ink.dark, 1))
    pressed = {"shadows": _cast(_shadow(1, 0, ink.dark, 1))}
    look = _look(fill=_solid(ink.main), radius=6, shadows=still, pressed=pressed, type=_type(17, 700))
    return {"look": look, "icon": _icon("plus", "before", 16, 8), **_no("quantity", "second")}


def _dusk(ink: _Ink) -> Json:
    stops = [{"at": 0, "colour": ink.main}, {"at": 100, "colour": ink.dark}]
    look = _look(
        fill={"kind": "linear", "angle_deg": 160, "space": "oklch", "stops": stops}, radius="50%",
        padding=_padding(28, 15), text_colour="#ffffff",
    )  # fmt: skip
    look["type"] = _type()
    return {"look": {**look, "radius": 26}, "icon": _icon("hand bag"), **_no("quantity", "second")}


def _dogear(ink: _Ink) -> Json:
    corners = {"kind": "corners", "top_left": 0, "top_right": 18, "bottom_right": 0, "bottom_left": 18}
    look = _look(fill=_solid(ink.main), radius=corners, padding=_padding(26, 14), type=_type(16, 700))
    return {"look": look, "icon": _icon("price tag", "after"), **_no("quantity", "second")}


def _tower(ink: _Ink) -> Json:
    line = {"kind": "line", "width_px": 1, "style": "solid", "colour": ink.main}
    look = _look(
        fill=_solid(ink.pale),
        text_colour=ink.dark,
        border=line,
        radius=10,
        padding=_padding(18, 12),
        type=_type(14, 600),
    )
    return {"look": look, "icon": _icon("basket", "above", 26, 5), **_no("quantity", "second")}


def _well(ink: _Ink) -> Json:
    line = {"kind": "line", "width_px": 1, "style": "solid", "colour": ink.main}
    dent = _cast(_shadow(2, 5, ink.main, 0.35, inner=True))
    look = _look(fill=_solid(ink.pale), text_colour=ink.dark, border=line, shadows=dent, radius=8, type=_type(16, 650))
    return {"look": look, **_no("icon", "quantity", "second")}


def _coin(ink: _Ink) -> Json:
    size = {"kind": "fixed", "width": 52, "height": 52}
    look = _look(fill=_solid(ink.main), size=size, radius=26, padding=_padding(0, 0), type=_type())
    icon = {**_icon("plus", "alone", 24, 0), "centring": "mass"}
    return {"look": look, "icon": icon, **_no("quantity", "second")}


def _counter(ink: _Ink) -> Json:
    box = {"kind": "box", "layout": "sides", "least": 1, "most": 99, "step": 1, "start": 1, "width_px": 48}
    look = _look(fill=_solid(ink.main), size={"kind": "full"}, radius=3, type=_type())
    return {"look": look, "icon": _icon("basket"), "quantity": box, **_no("second")}


def _pair(ink: _Ink) -> Json:
    second = {
        "kind": "checkout", "side": "beside", "gap_px": 10, "wording": {"en-GB": "Buy now"}, "fill": {"kind": "none"},
        "text_colour": ink.main, "border": {"kind": "line", "width_px": 2, "style": "solid", "colour": ink.main},
        "padding": _padding(20, 11), "radius": 4, "size_px": 16, "weight": 650,
    }  # fmt: skip
    look = _look(fill=_solid(ink.main), size={"kind": "full"}, type=_type())
    return {"look": look, "second": second, **_no("icon", "quantity")}


def _rail(ink: _Ink) -> Json:
    look = _look(
        fill=_solid(ink.dark), size={"kind": "full"}, radius=0, padding=_padding(20, 18), wrap="lines",
        type={**_type(18, 700), "line": 1.2}, shadows=_cast(_shadow(-4, 0, ink.other, 1, inner=True)),
    )  # fmt: skip
    return {"look": look, **_no("icon", "quantity", "second")}


_STARTS: tuple[tuple[str, str, str, Callable[[_Ink], Json]], ...] = (
    ("plank", "Plank", "one solid piece, basket before the words", _plank),
    ("seam", "Seam", "a line and capitals; fills when the pointer comes", _seam),
    ("whisper", "Whisper", "words and an arrow, no body at all", _whisper),
    ("ledge", "Ledge", "stands on a hard edge and goes down when pressed", _ledge),
    ("dusk", "Dusk", "round ends, a gradient in even steps of light", _dusk),
    ("dog-ear", "Dog-ear", "two corners turned, tag after the words", _dogear),
    ("tower", "Tower", "icon above the words, for narrow places", _tower),
    ("well", "Well", "pale and sunk in, with a shadow inside", _well),
    ("coin", "Coin", "an icon alone in a circle; needs a name to be read out", _coin),
    ("counter", "Counter", "with minus, number and plus before it", _counter),
    ("pair", "Pair", "with a second one straight to the checkout", _pair),
    ("rail", "Rail", "as wide as there is room, words on two lines if need be", _rail),
)
