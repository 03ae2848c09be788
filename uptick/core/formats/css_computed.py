"""A look from the values that a browser has computed: each is brought as it is, or told."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from uptick.core.button.document import Device
from uptick.core.button.fields import BY_PATH
from uptick.core.button.merge import Json, at_path, leaves, merge_layer, patch_at
from uptick.core.formats import css_values as values
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_groups import ALL_READ, GROUPS, SIDES, TOLD, PropertyGroup, Values, tokens_of
from uptick.core.formats.css_ignored import is_of_place, is_old_spelling, is_silent
from uptick.core.formats.css_reading import AtWidth, ComputedBox, ComputedButton, Styled, whole
from uptick.core.formats.css_size import SIZES, size_of

_WHEN = {"hover": "when hovered", "pressed": "while pressed", "focus": "when focused", "disabled": "when disabled"}
_PAINTED = ("fill", "text_colour", "border", "shadows", "opacity", "motion")


@dataclass(frozen=True, slots=True)
class Computed:
    """A look as a layer, what else the devices have, and what could not be taken.

    `by_device` is there for devices on which the stylesheet gives other values than on the widest.
    """

    layer: Json
    by_device: Mapping[Device, Json]
    left_out: tuple[str, ...]


def look_of(reading: ComputedButton) -> Computed:
    """Return the look that a browser has computed.

    What no rule sets is not brought: it stays as the button has it. A state that no rule speaks of is left to the rule.
    """
    widths = _with_shares([whole(reading, n) for n in range(len(reading.widths))])
    notes = [note for note in reading.told if not is_old_spelling(note)]
    layers = []
    for n, sized in enumerate(widths):
        reader = _Reader(reading, sized, notes if n == 0 else [])
        layers.append(reader.look())
    by_device = {}
    for sized, layer in zip(widths[1:], layers[1:], strict=True):
        difference = _difference(layer, layers[0])
        if difference:
            by_device[_device_at(sized.window_px)] = difference
    return Computed(layers[0], by_device, tuple(dict.fromkeys(notes)))


def _device_at(window_px: float) -> Device:
    return Device.PHONE if window_px < 600 else Device.TABLET if window_px < 1024 else Device.DESKTOP


def _difference(other: Json, first: Json) -> Json:
    """Return what a layer says otherwise than the first; a value of a kind is carried whole."""
    difference: Json = {}
    for path in _fields(other):
        mine, theirs = at_path(other, path), at_path(first, path)
        if mine != theirs:
            difference = merge_layer(difference, patch_at(path, mine))
    return difference


def _fields(layer: Json) -> Iterator[str]:
    for path, _ in leaves(layer):
        yield next((name for name in BY_PATH if path == name or path.startswith(f"{name}.")), path)


# Lengths that a designer may have written as a share of the window: pixels alone tell that in no single width.
_SHARES = re.compile(r"^(padding-\w+|border-\w+-\w+-radius|(?:min-|max-)?width)$")
_PX = re.compile(r"^(\d+(?:\.\d+)?)px$")


def _with_shares(widths: Sequence[AtWidth]) -> list[AtWidth]:
    """Return the widths with lengths in vw where all of them follow the window."""
    if len({width.window_px for width in widths}) < 2:
        return list(widths)
    shares_of: dict[str, str] = {}
    for name in widths[0].rest.button:
        if _SHARES.match(name) and (share := _share([width.rest.button[name] for width in widths], widths)):
            shares_of[name] = share
    return [
        width.model_copy(update={"rest": Styled(button={**width.rest.button, **shares_of}, words=width.rest.words)})
        for width in widths
    ]


def _share(written: Sequence[str], widths: Sequence[AtWidth]) -> str:
    matches = [_PX.match(text) for text in written]
    if not all(matches):
        return ""
    shares = [float(match[1]) / width.window_px * 100 for match, width in zip(matches, widths, strict=True) if match]
    # Browsers round what they lay out to 64ths of a pixel.
    return f"{shares[0]:.4g}vw" if shares[0] > 0 and max(shares) - min(shares) < 0.005 else ""


class _Reader:
    """Reads one width."""

    def __init__(self, reading: ComputedButton, at: AtWidth, notes: list[str]) -> None:
        self._reading = reading
        self._at = at
        self._told = notes
        self._said = set(reading.said)
        self._said_of_words = self._said | set(reading.said_around)

    def look(self) -> Json:
        rest = self._at.rest
        layer: Json = {}
        for group in GROUPS:
            given = self._said_of_words if group.of_words else self._said
            if given.isdisjoint(group.names):
                continue
            layer = merge_layer(layer, self._taken(group, rest.words if group.of_words else rest.button, ""))
        layer = merge_layer(layer, self._size())
        for state in _WHEN:
            if self._reading.said_in.get(state):
                layer = merge_layer(layer, self._state(state, layer))
        self._tell_rest(rest)
        # Our own stylesheets say so how words are centred; CSS has no word for it.
        if (centring := rest.button.get("--centring")) in ("line", "caps"):
            layer = merge_layer(layer, {"look": {"centring": centring}})
        return layer

    def _taken(self, group: PropertyGroup, style: Values, state: str) -> Json:
        """Return what a group of properties gives, or tell its values."""
        layer: Json = {}
        try:
            for path, value in group.read(style):
                if path == TOLD:
                    self._tell(value, state)
                    continue
                layer = merge_layer(layer, patch_at(path, value))
        except NotUnderstood as why:
            listed = "; ".join(f"{name}: {style[name][:80]}" for name in group.told(style))
            self._tell(f"{listed} ({why})" if str(why) else listed, state)
        return layer

    def _tell(self, line: str, state: str) -> None:
        self._told.append(f"{_WHEN[state]}: {line}" if state else line)

    def _size(self) -> Json:
        style = self._at.rest.button
        if self._said.isdisjoint(SIZES):
            return {}
        try:
            size = size_of(style, self._at.box, self._reading.tag, self._said, self._told)
        except NotUnderstood as why:
            listed = "; ".join(f"{name}: {style[name]}" for name in SIZES[:5] if style.get(name) not in _NO_SIZE)
            self._told.append(f"{listed} ({why})")
            return {}
        return {"look": {"size": size}} if size else {}

    def _state(self, state: str, rest_layer: Json) -> Json:
        """Return how a state that rules speak of differs; it is said in full, so that nothing of it is derived."""
        rest, said_in = self._at.rest, self._reading.said_in[state]
        differs = self._at.states.get(state, Styled(button={}, words={}))
        style = Styled(button={**rest.button, **differs.button}, words={**rest.words, **differs.words})
        patch: Json = {}
        read: set[str] = set()
        for group in GROUPS:
            part = group.path.removeprefix("look.")
            if part not in _PAINTED:
                continue
            own = differs.words if group.of_words else differs.button
            if (
                not group.names.isdisjoint(said_in)
                or not group.names.isdisjoint(own)
                or part in rest_layer.get("look", {})
            ):
                read |= group.names
                if part == "border":
                    self._tell_widths(state, rest, own)
                taken = self._taken(group, style.words if group.of_words else style.button, state)
                value = at_path(taken, group.path)
                if value is not None:
                    patch = merge_layer(patch, patch_at(f"look.{state}.{part}", value))
        if state == "focus":
            patch = merge_layer(patch, self._ring(style.button, set(said_in) | self._said))
        elif any(name in differs.button for name in _RING):
            self._tell_ring(style.button, state)
        self._tell_others(state, differs, read)
        return patch

    def _tell_widths(self, state: str, rest: Styled, own: Values) -> None:
        names = [name for name in _BORDER_WIDTHS if own.get(name, rest.button[name]) != rest.button[name]]
        if names:
            listed = ", ".join(f"{name}: {own[name]}" for name in names)
            self._tell(f"{listed} (a state keeps the width of rest, so that nothing moves)", state)

    def _ring(self, style: Values, given: set[str]) -> Json:
        if given.isdisjoint(_RING):
            return {}
        kind, width = style["outline-style"], style["outline-width"]
        if kind == "none" or width == "0px":
            self._tell(f"outline: {kind} (a ring stays: without it the keyboard's place is not seen)", "focus")
            return {}
        if kind != "solid":
            self._tell(f"outline-style: {kind} (the ring is solid)", "focus")
            if kind == "auto":
                return {}
        ring: Json = {}
        try:
            ring["ring_width_px"] = values.in_px(tokens_of(width), 16)
            ring["ring_colour"] = values.colour(tokens_of(style["outline-color"]))
            ring["ring_offset_px"] = values.in_px(tokens_of(style["outline-offset"]), 16, least=-100)
        except NotUnderstood as why:
            self._tell(f"outline: {width} {style['outline-color']} {style['outline-offset']} ({why})", "focus")
            return {}
        return {"look": {"focus": ring}}

    def _tell_ring(self, style: Values, state: str = "") -> None:
        if style["outline-style"] != "none" and style["outline-width"] != "0px":
            ring = " ".join(style[name] for name in _RING)
            self._tell(f"outline: {ring} (a ring is drawn only when focused)", state)

    def _tell_others(self, state: str, differs: Styled, read: set[str]) -> None:
        for style, rest in ((differs.button, self._at.rest.button), (differs.words, self._at.rest.words)):
            colour = style.get("color", rest["color"])
            sizes = []
            for name, value in style.items():
                if name in read or name.startswith("outline-") or is_silent(name, value, colour):
                    continue
                line = f"{name}: {value[:80]}"
                if name in ALL_READ:
                    sizes.append(line)
                else:
                    self._tell(line, state)
            if sizes:
                self._tell(f"{', '.join(sizes)} (a state changes colours, not sizes)", state)

    def _tell_rest(self, rest: Styled) -> None:
        """Tell what the stylesheet has changed and no field stands for."""
        places = []
        for style in (rest.button, rest.words):
            for name, value in style.items():
                if name in ALL_READ or name == "--centring" or is_silent(name, value, style["color"]):
                    continue
                if is_of_place(name):
                    places.append(f"{name}: {value[:40]}")
                elif not name.startswith("outline-"):
                    self._told.append(f"{name}: {value[:80]}")
        if "outline-style" in self._said:
            self._tell_ring(rest.button)
        if places:
            self._told.append(f"{', '.join(dict.fromkeys(places))}: where it stands is said by its placement")
        self._told += _off_centre(self._at.box)
        if self._reading.inner:
            self._told += _of_inner_box(rest)


def _off_centre(box: ComputedBox) -> Iterator[str]:
    """Tell where the words do not stand in the middle, as ours always do."""
    if abs(box.words_off_y) > 1.5:
        where = "below" if box.words_off_y > 0 else "above"
        yield f"the words stand {abs(box.words_off_y):.4g} px {where} the middle; ours stand in it"
    if abs(box.words_off_x) > 1.5:
        where = "right" if box.words_off_x > 0 else "left"
        yield f"the words stand {abs(box.words_off_x):.4g} px to the {where} of the middle; ours stand in it"


def _of_inner_box(rest: Styled) -> Iterator[str]:
    """Tell a box of the words' own, inside of the button's."""
    inner = rest.words
    own = [
        f"{name}: {inner[name]}"
        for name in ("padding-top", "padding-right", "padding-bottom", "padding-left", *_BORDER_WIDTHS)
        if inner.get(name, "0px") != "0px"
    ]
    if own:
        yield f"{', '.join(own)}: of a box around the words, inside of the button's"


_NO_SIZE = (None, "auto", "none", "0px")
_RING = ("outline-width", "outline-style", "outline-color", "outline-offset")
_BORDER_WIDTHS = tuple(f"border-{side}-width" for side in SIDES)
