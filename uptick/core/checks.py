"""The checks: what is wrong with a button, by how much, and what would mend it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from uptick.core.boxes import Drawing, lay_out
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.colour import contrast_ratio, nearest_passing, needed_ratio
from uptick.core.document import ButtonDocument, FixedSize, Moment, Placement, ShippedIcon, parse_document
from uptick.core.fill import WorstText, text_for, worst_of_class
from uptick.core.merge import Json, merge_layer
from uptick.core.resolve import trace
from uptick.core.settings import Settings
from uptick.core.store import Store, Surface
from uptick.core.type.fontbook import FontBook


class Weight(StrEnum):
    """How much a finding matters, worst first."""

    MUST_FIX = "must_fix"
    LOOK_AGAIN = "look_again"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Mend:
    """A patch for a layer that has been computed to remove the finding."""

    label: str
    layer: str
    patch: Json


@dataclass(frozen=True, slots=True)
class Spot:
    """One class of buttons, as a finding names it."""

    placement: Placement
    class_key: str


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check found, and in which buttons. `spot` says which part of the drawing it points at."""

    rule: str
    weight: Weight
    buttons: tuple[Spot, ...]
    spot: str
    title: str
    says: str
    figure: float
    allowed: float
    mends: tuple[Mend, ...] = ()

    def is_about(self, one: ButtonClass) -> bool:
        return Spot(one.placement, one.key) in self.buttons


_TARGET_PX = 24.0
_ORDER = {Weight.MUST_FIX: 0, Weight.LOOK_AGAIN: 1, Weight.NOTE: 2}


def findings_of(
    settings: Settings, classes: Sequence[ButtonClass], store: Store, fonts: FontBook
) -> tuple[Finding, ...]:
    """Return everything the checks find in a shop, the worst first."""
    seen = [one for one in classes if one.products or not one.rules]
    found = list(_contrast(settings, seen))
    for one in seen:
        found += _room(one, store.surfaces[one.placement], fonts, store.language)
    return tuple(sorted(found, key=lambda f: (_ORDER[f.weight], f.rule, f.buttons[0].placement)))


def _spot(one: ButtonClass) -> tuple[Spot, ...]:
    return (Spot(one.placement, one.key),)


def _where(one: ButtonClass) -> str:
    """Say which buttons a finding is about."""
    place = one.placement.replace("_", " ")
    if not one.rules:
        return f"on the {place}"
    names = sorted({p.category for p in one.products}) if len(one.products) > 1 else [p.name for p in one.products]
    return f"on the {place}, {', '.join(names)}"


@dataclass(frozen=True, slots=True)
class _Pair:
    """Words on a fill in one state, and the narrower of the layers that the two colours come from."""

    state: str
    fill: str
    words: str
    needed: float
    layer: str


_STATES = {"": "at rest", "hover": "when hovered", "focus": "when focused"}


def _pairs(settings: Settings, one: ButtonClass) -> Iterator[_Pair]:
    look = one.document.look
    needed = needed_ratio(look.type.size_px, look.type.weight)
    for state, (fill, words) in _colours(one).items():
        if contrast_ratio(words, fill) < needed:
            path = f"look.{state}" if state else "look"
            yield _Pair(state, fill, words, needed, _narrower(settings, one, f"{path}.fill", f"{path}.text_colour"))


def _colours(one: ButtonClass) -> dict[str, tuple[str, str]]:
    """Return fill and words by state; disabled is exempt from contrast."""
    look = one.document.look
    return {
        "": (look.fill.colour, look.text_colour),
        "hover": (look.hover.fill.colour, look.hover.text_colour),
        "focus": (look.focus.fill.colour, look.focus.text_colour),
    }


def _order(one: ButtonClass) -> list[str]:
    """Return the layers of a class, the widest first."""
    return ["baseline", f"place:{one.placement}", *(f"exception:{rule}" for rule in one.rules)]


def _narrower(settings: Settings, one: ButtonClass, *fields: str) -> str:
    order = _order(one)
    winners = [told[0].layer for field in fields if (told := trace(settings, one.example, field))]
    return max(winners, key=lambda layer: order.index(layer) if layer in order else 0, default=one.top_layer)


def _contrast(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Test words on fill in every state but disabled; buttons that take a pair from the same layers share a finding.

    Source:
        WCAG 2.2, 1.4.3 Contrast (Minimum); disabled controls are exempt there.
    """
    by_pair: dict[_Pair, list[ButtonClass]] = {}
    for one in classes:
        for pair in _pairs(settings, one):
            by_pair.setdefault(pair, []).append(one)
    for pair, buttons in by_pair.items():
        ratio = contrast_ratio(pair.words, pair.fill)
        yield Finding(
            rule="contrast",
            weight=Weight.MUST_FIX,
            buttons=tuple(Spot(one.placement, one.key) for one in buttons),
            spot=pair.state or "rest",
            title=f"Words {_STATES[pair.state]} {_cut(ratio)} : 1, {pair.needed:g} is needed",
            says=f"{pair.words} on {pair.fill} {_where_all(buttons)}.",
            figure=ratio,
            allowed=pair.needed,
            mends=tuple(_contrast_mends(settings, classes, pair)),
        )


def _brings_no_other(settings: Settings, classes: Sequence[ButtonClass], pair: _Pair, field: str, colour: str) -> bool:
    """Tell whether a colour, set in the pair's layer, can be read in every button that would take it from there."""
    path = f"look.{pair.state}.{field}" if pair.state else f"look.{field}"
    for one in classes:
        order = _order(one)
        if pair.layer not in order:
            continue
        told = trace(settings, one.example, path)
        if told and order.index(told[0].layer) > order.index(pair.layer):
            continue
        fill, words = _colours(one)[pair.state]
        look = one.document.look
        other = fill if field == "text_colour" else words
        if contrast_ratio(colour, other) < needed_ratio(look.type.size_px, look.type.weight):
            return False
    return True


def _cut(ratio: float) -> str:
    # Cut, never rounded up: 4.499 must not read as 4.50.
    return f"{int(ratio * 100) / 100:.2f}"


def _where_all(buttons: Sequence[ButtonClass]) -> str:
    if len(buttons) == 1:
        return _where(buttons[0])
    return "on the " + " and the ".join(dict.fromkeys(one.placement.replace("_", " ") for one in buttons))


def _contrast_mends(settings: Settings, classes: Sequence[ButtonClass], pair: _Pair) -> Iterator[Mend]:
    for field, now, against in (("fill", pair.fill, pair.words), ("text_colour", pair.words, pair.fill)):
        better = nearest_passing(now, against, pair.needed)
        if better and _brings_no_other(settings, classes, pair, field, better):
            value: Json | str = {"kind": "solid", "colour": better} if field == "fill" else better
            inner: Json = {field: value}
            name = "fill" if field == "fill" else "words"
            gives = _cut(contrast_ratio(better, against))
            patch: Json = {"look": {pair.state: inner} if pair.state else inner}
            yield Mend(f"{name} {better} gives {gives}", pair.layer, patch)


def _room(one: ButtonClass, surface: Surface, fonts: FontBook, language: str) -> Iterator[Finding]:
    """Test what fits in the narrowest container, and whether a finger can hit it."""
    device, narrowest = surface.narrowest()
    worst = {moment: worst_of_class(one, moment, language, fonts) for moment in _moments(one)}
    if not worst:
        return
    moment = max(worst, key=lambda m: worst[m].width_px)
    widest = lay_out(one.document, worst[moment].text, fonts, narrowest)
    if widest.too_wide_px:
        yield _too_wide(one, widest, worst[moment], moment, f"{device}, where there are {narrowest:g} px", fonts)
    if widest.too_high_px:
        yield _too_high(one, widest, fonts)
    missing = "".join(sorted(set("".join(fonts_missing(one, w, fonts) for w in worst.values()))))
    if missing:
        yield Finding(
            "glyph", Weight.LOOK_AGAIN, _spot(one), "words",
            f"{one.document.look.type.family.capitalize()} has no {' '.join(missing)}",
            f"Shoppers see {'it' if len(missing) == 1 else 'them'} in another typeface {_where(one)}.",
            len(missing), 0,
        )  # fmt: skip
    narrow = min(worst, key=lambda m: worst[m].width_px)
    yield from _target(one, lay_out(one.document, worst[narrow].text, fonts, narrowest))
    height = widest.outer.height
    if surface.own_height_px and height > surface.own_height_px:
        over = height - surface.own_height_px
        yield Finding(
            "own_size", Weight.LOOK_AGAIN, _spot(one), "height",
            f"Taller than the shop's own button by {over:g} px",
            f"{height:g} against {surface.own_height_px:g} px: the page moves by that much when ours stands, "
            f"{_where(one)}.",
            height, surface.own_height_px,
        )  # fmt: skip


def _moments(one: ButtonClass) -> tuple[Moment, ...]:
    if not one.products:
        return tuple(Moment)
    able = {moment for product in one.products for moment in MOMENTS_OF[product.situation]}
    return tuple(moment for moment in Moment if moment in able)


def fonts_missing(one: ButtonClass, worst: WorstText, fonts: FontBook) -> str:
    kind = one.document.look.type
    return fonts.measure(worst.text, kind.family, kind.size_px, kind.weight).missing


def _too_wide(
    one: ButtonClass, drawn: Drawing, worst: WorstText, moment: Moment, where: str, fonts: FontBook
) -> Finding:
    about = f" for {worst.product.name}" if worst.product else ""
    mends = tuple(_width_mends(one, worst.text, drawn, fonts))
    way_out = "" if mends else " No type from 12 px fits: say it shorter."
    return Finding(
        rule="fit",
        weight=Weight.MUST_FIX,
        buttons=_spot(one),
        spot="width",
        title=f"Too wide by {drawn.too_wide_px:.1f} px",
        says=f"“{worst.text}” ({moment.replace('_', ' ')}){about} {_where(one)}, on a {where}.{way_out}",
        figure=drawn.needs_width_px,
        allowed=min(drawn.container_px, drawn.outer.width),
        mends=mends,
    )


def _fits(document: ButtonDocument, text: str, fonts: FontBook, container: float) -> bool:
    drawn = lay_out(document, text, fonts, container)
    return not drawn.too_wide_px and not drawn.too_high_px


def _width_mends(one: ButtonClass, text: str, drawn: Drawing, fonts: FontBook) -> Iterator[Mend]:
    """Offer at most three mends, each laid out again to be sure; where no single one is enough, some together."""
    raw = one.document.model_dump(mode="json")
    given: set[str] = set()
    for kind, label, patch in (*_single_mends(one, drawn), *_joint_mends(one)):
        if kind in given or len(given) == 3 or (kind == "joint" and given):
            continue
        if _fits(parse_document(merge_layer(raw, patch)), text, fonts, drawn.container_px):
            given.add(kind)
            yield Mend(label, one.top_layer, patch)


_SMALLEST_TYPE = 12
_LEAST_PADDING = 4


def _single_mends(one: ButtonClass, drawn: Drawing) -> Iterator[tuple[str, str, Json]]:
    look = one.document.look
    if isinstance(look.size, FixedSize):
        wide = -(-drawn.needs_width_px // 1)
        yield "width", f"{wide:g} px wide", {"look": {"size": {**look.size.model_dump(), "width_px": wide}}}
    spare = (drawn.too_wide_px + 1) // 2
    for step in (spare, spare + 1):
        left, right = look.padding.left_px - step, look.padding.right_px - step
        if min(left, right) >= _LEAST_PADDING:
            yield "padding", f"padding {left:g}", {"look": {"padding": {"left_px": left, "right_px": right}}}
    for px in range(int(look.type.size_px) - 1, _SMALLEST_TYPE - 1, -1):
        yield "type", f"type {px} px", {"look": {"type": {"size_px": px}}}
    if isinstance(one.document.icon, ShippedIcon):
        yield "icon", "no icon", {"icon": {"kind": "none"}}


def _joint_mends(one: ButtonClass) -> Iterator[tuple[str, str, Json]]:
    pad, size = one.document.look.padding, int(one.document.look.type.size_px)
    steps = [p for p in (12, 8, 6, _LEAST_PADDING) if p < min(pad.left_px, pad.right_px)]
    icons: list[tuple[str, Json]] = [("", {})]
    if isinstance(one.document.icon, ShippedIcon):
        icons.append((", no icon", {"icon": {"kind": "none"}}))
    for said, icon in icons:
        for px in range(size, _SMALLEST_TYPE - 1, -1):
            for p in steps:
                look = {"padding": {"left_px": p, "right_px": p}, "type": {"size_px": px}}
                yield "joint", f"padding {p}, type {px} px{said}", {"look": look, **icon}


def _too_high(one: ButtonClass, drawn: Drawing, fonts: FontBook) -> Finding:
    size = one.document.look.size
    mends = []
    if isinstance(size, FixedSize):
        high = -(-drawn.needs_height_px // 1)
        patch = {"look": {"size": {**size.model_dump(), "height_px": high}}}
        mends.append(Mend(f"{high:g} px high", one.top_layer, patch))
        spare = (drawn.too_high_px + 1) // 2
        pad = one.document.look.padding
        if pad.top_px >= spare and pad.bottom_px >= spare:
            less = {"top_px": pad.top_px - spare, "bottom_px": pad.bottom_px - spare}
            tried = parse_document(merge_layer(one.document.model_dump(mode="json"), {"look": {"padding": less}}))
            if not lay_out(tried, drawn.text, fonts, drawn.container_px).too_high_px:
                mends.append(Mend(f"padding {less['top_px']:g} above", one.top_layer, {"look": {"padding": less}}))
    return Finding(
        "fit", Weight.MUST_FIX, _spot(one), "height",
        f"Too high by {drawn.too_high_px:g} px",
        f"Words, icon and padding take {drawn.needs_height_px:g} px of {drawn.outer.height:g} {_where(one)}.",
        drawn.needs_height_px, drawn.outer.height, tuple(mends),
    )  # fmt: skip


def _target(one: ButtonClass, drawn: Drawing) -> Iterator[Finding]:
    """Test that a finger can hit the button.

    Source:
        WCAG 2.2, 2.5.8 Target Size (Minimum): 24 by 24 CSS pixels.
    """
    width, height = drawn.outer.width, drawn.outer.height
    if width >= _TARGET_PX and height >= _TARGET_PX:
        return
    pad, size = one.document.look.padding, one.document.look.size
    patch: Json
    if isinstance(size, FixedSize):
        larger = {"width_px": max(_TARGET_PX, size.width_px), "height_px": max(_TARGET_PX, size.height_px)}
        patch = {"look": {"size": {**size.model_dump(), **larger}}}
    else:
        more_high, more_wide = -(-max(0.0, _TARGET_PX - height) // 2), -(-max(0.0, _TARGET_PX - width) // 2)
        patch = {
            "look": {
                "padding": {
                    "top_px": pad.top_px + more_high,
                    "bottom_px": pad.bottom_px + more_high,
                    "left_px": pad.left_px + more_wide,
                    "right_px": pad.right_px + more_wide,
                }
            }
        }
    yield Finding(
        "target_size", Weight.MUST_FIX, _spot(one), "height" if height < _TARGET_PX else "width",
        f"Small for a finger: {width:.0f} × {height:.0f} px",
        f"At least 24 × 24 px are needed {_where(one)}.",
        min(width, height), _TARGET_PX, (Mend("at least 24 × 24", one.top_layer, patch),),
    )  # fmt: skip


def example_text(one: ButtonClass, moment: Moment, language: str) -> str:
    """Return a moment's text for the first product of a class, for showing."""
    return text_for(one.document, moment, language, one.products[0] if one.products else None)
