"""Words must be readable on their fill, in every state: on the worst of a gradient and on a picture's pixels."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from uptick.core.button.document import ButtonDocument, Moment, NoIcon, Placement
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.look import LinearFill, NoFill, PictureFill, RadialFill, SolidFill
from uptick.core.button.merge import Json
from uptick.core.checks.finding import Finding, Fix, Weight, spots, where_all
from uptick.core.checks.origin import look_rules, narrower, order_of, set_in
from uptick.core.colour.colour import (
    contrast_ratio,
    nearest_passing,
    needed_ratio,
    opacity_of,
    opaque,
    over,
    worst_contrast,
    worst_seen,
)
from uptick.core.colour.dress import REST, Dress, by_hand, dress_in, shifted
from uptick.core.colour.fills import AnyFill, colours_in
from uptick.core.colour.pictures import under
from uptick.core.colour.pictures import worst_contrast as worst_on_pixels
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.kit import Kit
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.fitting.fill import template_of
from uptick.core.resolved.classes import ButtonClass
from uptick.core.shop.store import Store

# WCAG 2.2, 1.4.11: what is needed to understand a picture of an icon.
_ICON_NEEDED = 3.0
_STATES = {
    REST: "at rest",
    "hover": "when hovered",
    "pressed": "while pressed",
    "focus": "when focused",
    "working": "while working",
    "added": "once added",
}


@dataclass(frozen=True, slots=True)
class _Read:
    """Words on a fill in one state that are hard to read, and the worst colour that they meet."""

    state: str
    fill: AnyFill
    words: str
    met: str
    ratio: float
    needed: float
    by_hand: frozenset[str]


@dataclass(frozen=True, slots=True)
class _Pair:
    """What is hard to read, with the narrower of the layers that it comes from."""

    read: _Read
    layer: LayerRef


def check_contrast(
    snapshot: Snapshot, classes: Sequence[ButtonClass], every: Callable[[], Sequence[ButtonClass]]
) -> Iterator[Finding]:
    """Test words, or an icon that stands alone, on fill in every state but disabled.

    Buttons that take a pair from the same layers share a finding. A fix must spoil no other button: it is tried on
    `every` one, not only on those that are tested.

    Source:
        WCAG 2.2, 1.4.3 Contrast (Minimum) and 1.4.11 Non-text Contrast; disabled controls are exempt there.
    """
    by_pair: dict[_Pair, list[ButtonClass]] = {}
    looks: dict[tuple[object, ...], list[_Pair]] = {}
    for button in classes:
        # Texts do not change how they are read: classes with the same look layers are looked at once.
        key = look_rules(snapshot, button)
        if key not in looks:
            looks[key] = [_Pair(read, _layer(snapshot, button, read)) for read in _hard_to_read(snapshot, button)]
        for pair in looks[key]:
            by_pair.setdefault(pair, []).append(button)
    others = list(_drawn_once(snapshot, every())) if by_pair else []
    for pair, buttons in by_pair.items():
        read = pair.read
        what = "The icon" if buttons[0].document.is_wordless else "Words"
        yield Finding(
            rule="contrast",
            weight=Weight.MUST_FIX,
            buttons=spots(*buttons),
            spot=read.state,
            title=f"{what} {_STATES[read.state]} {cut(read.ratio)} : 1, {read.needed:g} is needed",
            says=f"{read.words} on {read.met} {where_all(buttons)}.",
            figure=read.ratio,
            allowed=read.needed,
            fixes=tuple(_fixes(snapshot, others, pair, buttons[0])),
        )


def _drawn_once(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[ButtonClass]:
    """Yield one class for each set of layers that draw."""
    seen: set[tuple[object, ...]] = set()
    for button in classes:
        key = look_rules(snapshot, button)
        if key not in seen:
            seen.add(key)
            yield button


def _hard_to_read(snapshot: Snapshot, button: ButtonClass) -> tuple[_Read, ...]:
    page = snapshot.store.surfaces[button.placement].page_colour
    key = ("contrast", button.document.drawn_number, button.placement, page)
    return snapshot.tables.ask(Step.FINDINGS, key, lambda: tuple(_reads(button, snapshot.store, snapshot.kit)))


def _reads(button: ButtonClass, store: Store, kit: Kit) -> Iterator[_Read]:
    document, look = button.document, button.document.look
    if document.is_wordless and isinstance(document.icon, NoIcon):
        return
    if button.placement is Placement.OVER_PICTURE and isinstance(look.fill, NoFill):
        # It lies on pictures, and their pixels are looked at along the page.
        return
    needed = _needed(document)
    rest = dress_in(look, REST)
    rest_fails = False
    # Outside nothing but its rest is drawn.
    for state in (REST,) if button.placement is Placement.OUTSIDE else _STATES:
        dress = dress_in(look, state)
        if state != REST and _seen(dress) == _seen(rest):
            continue
        ratio, met = _worst(button, dress, store, kit)
        if state == REST:
            rest_fails = ratio < needed
        elif rest_fails and {"fill", "text_colour"} <= dress.derived:
            # What is derived is fixed with what it comes from.
            continue
        if ratio < needed:
            own = frozenset({"fill", "text_colour"} - dress.derived)
            yield _Read(state, dress.fill, dress.text_colour, met, ratio, needed, own)


def _needed(document: ButtonDocument) -> float:
    kind = document.look.type
    return _ICON_NEEDED if document.is_wordless else needed_ratio(kind.size_px, kind.weight)


def _seen(dress: Dress) -> tuple[AnyFill, str, float]:
    return dress.fill, dress.text_colour, dress.opacity


def _layer(snapshot: Snapshot, button: ButtonClass, read: _Read) -> LayerRef:
    """Return the layer that the worse half comes from; what is derived comes from where rest is set."""
    fields = []
    for part in ("fill", "text_colour"):
        own = read.state != REST and part in read.by_hand
        fields.append(f"look.{read.state}.{part}" if own else f"look.{part}")
    return narrower(snapshot, button, *fields)


def _worst(button: ButtonClass, dress: Dress, store: Store, kit: Kit) -> tuple[float, str]:
    """Return the least contrast of a state's words, and with what: what is see-through lies on the placement's page."""
    page = store.surfaces[button.placement].page_colour
    if isinstance(dress.fill, PictureFill):
        words = over(dress.text_colour, page, dress.opacity)
        return _worst_on_picture(button, dress.fill, words, store, kit), "its picture"
    met = colours_in(dress.fill, page) or (page,)
    if dress.opacity >= 1:
        return worst_seen(dress.text_colour, met)
    # Words lie on the fill first; the page shines through both of them together.
    seen = {ground: over(over(dress.text_colour, ground), page, dress.opacity) for ground in met}
    pairs = ((contrast_ratio(words, over(ground, page, dress.opacity)), ground) for ground, words in seen.items())
    ratio, ground = min(pairs)
    return ratio, over(ground, page, dress.opacity)


def _worst_on_picture(button: ButtonClass, fill: PictureFill, words: str, store: Store, kit: Kit) -> float:
    picture = kit.pictures.get(fill.picture)
    if picture is None:
        return contrast_ratio(words, fill.scrim.colour)
    ground = store.ground(button.placement, store.surfaces[button.placement].narrowest()[0])
    drawn = lay_out(button.document, template_of(button.document, Moment.READY, ""), kit, ground)
    part = (drawn.words.x, drawn.words.y, drawn.words.width, drawn.words.height)
    return worst_on_pixels(words, under(picture, fill, (drawn.outer.width, drawn.outer.height), part))


def cut(ratio: float) -> str:
    """Return a contrast ratio with two decimals (WCAG 2.2, 1.4.3), never more than it is."""
    # Cut, never rounded up: 4.499 must not read as 4.50.
    return f"{int(ratio * 100) / 100:.2f}"


def _path(state: str, part: str) -> str:
    return f"look.{part}" if state == REST else f"look.{state}.{part}"


def _patch(state: str, part: str, value: Json | str) -> Json:
    inner: Json = {part: value}
    return {"look": inner if state == REST else {state: inner}}


def _fixes(snapshot: Snapshot, classes: Sequence[ButtonClass], pair: _Pair, button: ButtonClass) -> Iterator[Fix]:
    read = pair.read
    fill = read.fill
    page = snapshot.store.surfaces[button.placement].page_colour
    if opacity_of(read.words) < 1:
        # Whatever lies behind them: words that let nothing through are what can be relied on.
        better = nearest_passing(opaque(read.words), colours_in(fill, page) or (page,), read.needed)
        if better:
            gives = cut(worst_contrast(better, colours_in(fill, page) or (page,))[0])
            yield Fix(f"words {better} gives {gives}", pair.layer, _patch(read.state, "text_colour", better))
        return
    if isinstance(fill, SolidFill) and opacity_of(fill.colour) >= 1:
        better = nearest_passing(fill.colour, read.words, read.needed)
        if better and _brings_no_other(snapshot, classes, pair, "fill", better):
            gives = cut(contrast_ratio(better, read.words))
            value = {"kind": "solid", "colour": better}
            yield Fix(f"fill {better} gives {gives}", pair.layer, _patch(read.state, "fill", value))
    elif isinstance(fill, LinearFill | RadialFill):
        yield from _gradient_fix(pair, fill, page)
    elif isinstance(fill, PictureFill):
        yield from _scrim_fix(pair, fill, button, snapshot.store, snapshot.kit)
        return
    met = colours_in(fill, page) or (page,)
    better = nearest_passing(read.words, met, read.needed)
    if better and _brings_no_other(snapshot, classes, pair, "text_colour", better):
        gives = cut(worst_contrast(better, met)[0])
        part = "icon" if button.document.is_wordless else "words"
        yield Fix(f"{part} {better} gives {gives}", pair.layer, _patch(read.state, "text_colour", better))


def _gradient_fix(pair: _Pair, fill: LinearFill | RadialFill, page: str) -> Iterator[Fix]:
    """Offer the gradient moved in lightness as a whole, by the least that passes."""
    for percent in range(1, 61):
        for way in (-1, 1):
            moved = tuple(
                stop.model_copy(update={"colour": shifted(stop.colour, way * percent / 100)}) for stop in fill.stops
            )
            tried = fill.model_copy(update={"stops": moved})
            ratio = worst_contrast(pair.read.words, colours_in(tried, page))[0]
            if ratio >= pair.read.needed:
                label = f"gradient {percent} % {'darker' if way < 0 else 'lighter'} gives {cut(ratio)}"
                yield Fix(label, pair.layer, _patch(pair.read.state, "fill", tried.model_dump(mode="json")))
                return


def _scrim_fix(pair: _Pair, fill: PictureFill, button: ButtonClass, store: Store, kit: Kit) -> Iterator[Fix]:
    """Offer the thinnest veil over a picture through which its words can be read."""
    for percent in range(round(fill.scrim.opacity * 100) + 1, 101):
        veil = fill.scrim.model_copy(update={"opacity": percent / 100})
        tried = fill.model_copy(update={"scrim": veil})
        ratio = _worst_on_picture(button, tried, pair.read.words, store, kit)
        if ratio >= pair.read.needed:
            patch = _patch(pair.read.state, "fill", tried.model_dump(mode="json"))
            yield Fix(f"overlay {percent} % gives {cut(ratio)}", pair.layer, patch)
            return


def _brings_no_other(snapshot: Snapshot, classes: Sequence[ButtonClass], pair: _Pair, part: str, colour: str) -> bool:
    """Tell whether a colour, set in the pair's layer, can be read in every button that would take it from there."""
    path = _path(pair.read.state, part)
    for button in classes:
        order = order_of(button)
        if pair.layer not in order or set_in(snapshot, button, path) > order.index(pair.layer):
            continue
        look = button.document.look
        if part == "fill" and by_hand(look.text_colour) is None:
            # Words that are derived follow the fill.
            continue
        dress = dress_in(look, pair.read.state)
        page = snapshot.store.surfaces[button.placement].page_colour
        met = (colour,) if part == "fill" else colours_in(dress.fill, page)
        words = dress.text_colour if part == "fill" else colour
        if met and worst_seen(words, met)[0] < _needed(button.document):
            return False
    return True
