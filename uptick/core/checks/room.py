"""What fits where it stands, what a finger can hit, and what letters there are."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from uptick.core.boxes import Drawing, lay_out
from uptick.core.checks.finding import Finding, Mend, Spot, Weight, spots, where
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import ButtonDocument, Device, FixedSize, Moment, ShippedIcon, parse_document
from uptick.core.fill import WorstText, worst_of_class
from uptick.core.memo import Kept
from uptick.core.merge import Json, merge_layer
from uptick.core.store import Store, Surface
from uptick.core.type.fontbook import FontBook
from uptick.core.wording import language_name

_TARGET_PX = 24.0


@dataclass(frozen=True, slots=True)
class _Seen:
    """One class in one language, in the narrowest container where that is met."""

    one: ButtonClass
    language: str
    device: Device
    room_px: float


def check_room(
    classes: Sequence[ButtonClass], store: Store, languages: Sequence[str], fonts: FontBook
) -> list[Finding]:
    """Test every class in every language that it is met in; what is the same in several is one finding."""
    found: dict[tuple[object, ...], tuple[Finding, dict[Spot, None]]] = {}
    for one in classes:
        if one.placement not in store.surfaces or not one.document.placement.shown:
            continue
        surface = store.surfaces[one.placement]
        for seen in _seen(one, surface, languages):
            for finding in _kept_room(seen, surface, fonts, languages[0]):
                key = (finding.rule, finding.spot, one.placement, finding.title, finding.figure, finding.allowed)
                _, buttons = found.setdefault(key, (finding, {}))
                buttons.update(dict.fromkeys(finding.buttons))
    return [replace(finding, buttons=tuple(buttons)) for finding, buttons in found.values()]


_kept: Kept[tuple[Finding, ...]] = Kept(16_384)


def _kept_room(seen: _Seen, surface: Surface, fonts: FontBook, first: str) -> tuple[Finding, ...]:
    """Return what is found of a class in one language; an edit that leaves its button alone asks for it again."""
    one = seen.one
    named = spots(one)
    key = (
        id(one.document), one.rules, named, tuple(map(id, one.batches)), seen.language, seen.device, seen.room_px,
        surface.own_height_px, id(fonts), first,
    )  # fmt: skip
    return _kept.get(key, (one, fonts), lambda: tuple(_room(seen, surface, fonts, first)))


def _seen(one: ButtonClass, surface: Surface, languages: Sequence[str]) -> Iterator[_Seen]:
    for language in languages:
        devices = [d for d in one.devices(language) if d in surface.widths_px]
        if devices:
            device = min(devices, key=lambda d: surface.widths_px[d])
            yield _Seen(one, language, device, surface.widths_px[device])
        elif not one.where:
            # A plain class that nobody meets is still looked at where it would be tightest.
            yield _Seen(one, language, *surface.narrowest())


def _room(seen: _Seen, surface: Surface, fonts: FontBook, first: str) -> Iterator[Finding]:
    one = seen.one
    worst = {moment: worst_of_class(one, moment, seen.language, fonts, first) for moment in _moments(one)}
    if not worst:
        return
    moment = max(worst, key=lambda m: worst[m].width_px)
    widest = lay_out(one.document, worst[moment].text, fonts, seen.room_px)
    if widest.too_wide_px:
        yield _too_wide(seen, widest, worst[moment], moment, fonts, first)
    if widest.too_high_px:
        yield _too_high(one, widest, fonts)
    missing = "".join(sorted(set("".join(fonts_missing(one, w, fonts) for w in worst.values()))))
    if missing:
        yield Finding(
            "glyph", Weight.LOOK_AGAIN, spots(one), "words",
            f"{one.document.look.type.family.capitalize()} has no {' '.join(missing)}",
            f"Shoppers see {'it' if len(missing) == 1 else 'them'} in another typeface {where(one)}.",
            len(missing), 0,
        )  # fmt: skip
    narrow = min(worst, key=lambda m: worst[m].width_px)
    yield from _target(one, lay_out(one.document, worst[narrow].text, fonts, seen.room_px))
    height = widest.outer.height
    if surface.own_height_px and height > surface.own_height_px:
        over = height - surface.own_height_px
        yield Finding(
            "own_size", Weight.LOOK_AGAIN, spots(one), "height",
            f"Taller than the shop's own button by {over:g} px",
            f"{height:g} against {surface.own_height_px:g} px: the page moves by that much when ours stands, "
            f"{where(one)}.",
            height, surface.own_height_px,
        )  # fmt: skip


def _moments(one: ButtonClass) -> tuple[Moment, ...]:
    if not one.batches:
        return tuple(Moment)
    able = {moment for situation in one.situations for moment in MOMENTS_OF[situation]}
    return tuple(moment for moment in Moment if moment in able)


def fonts_missing(one: ButtonClass, worst: WorstText, fonts: FontBook) -> str:
    kind = one.document.look.type
    return fonts.measure(worst.text, kind.family, kind.size_px, kind.weight).missing


def _too_wide(seen: _Seen, drawn: Drawing, worst: WorstText, moment: Moment, fonts: FontBook, first: str) -> Finding:
    one = seen.one
    about = f" for {worst.product.name}" if worst.product else ""
    spoken = "" if seen.language == first else f", {language_name(seen.language)}"
    mends = tuple(_width_mends(one, worst.text, drawn, fonts, seen.room_px))
    way_out = "" if mends else " No type from 12 px fits: say it shorter."
    return Finding(
        rule="fit",
        weight=Weight.MUST_FIX,
        buttons=spots(one),
        spot="width",
        title=f"Too wide by {drawn.too_wide_px:.1f} px",
        says=f"“{worst.text}” ({moment.replace('_', ' ')}{spoken}){about} {where(one)}, "
        f"on a {seen.device}, where there are {drawn.container_px:g} px.{way_out}",
        figure=drawn.needs_width_px,
        allowed=min(drawn.container_px, drawn.outer.width),
        mends=mends,
    )


def _fits(document: ButtonDocument, text: str, fonts: FontBook, container: float) -> bool:
    drawn = lay_out(document, text, fonts, container)
    return not drawn.too_wide_px and not drawn.too_high_px


def _width_mends(one: ButtonClass, text: str, drawn: Drawing, fonts: FontBook, room_px: float) -> Iterator[Mend]:
    """Offer at most three mends, each laid out again to be sure; where no single one is enough, some together."""
    raw = one.document.model_dump(mode="json")
    given: set[str] = set()
    for kind, label, patch in (*_single_mends(one, drawn), *_joint_mends(one)):
        if kind in given or len(given) == 3 or (kind == "joint" and given):
            continue
        if _fits(parse_document(merge_layer(raw, patch)), text, fonts, room_px):
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
        "fit", Weight.MUST_FIX, spots(one), "height",
        f"Too high by {drawn.too_high_px:g} px",
        f"Words, icon and padding take {drawn.needs_height_px:g} px of {drawn.outer.height:g} {where(one)}.",
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
        "target_size", Weight.MUST_FIX, spots(one), "height" if height < _TARGET_PX else "width",
        f"Small for a finger: {width:.0f} × {height:.0f} px",
        f"At least 24 × 24 px are needed {where(one)}.",
        min(width, height), _TARGET_PX, (Mend("at least 24 × 24", one.top_layer, patch),),
    )  # fmt: skip
