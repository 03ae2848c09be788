"""What fits where it stands, what a finger can hit, and what letters there are."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from uptick.core.boxes import Drawing, lay_out
from uptick.core.checks.finding import Finding, Mend, Spot, Weight, spots, where
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import ButtonDocument, Device, Moment, NoIcon, parse_document
from uptick.core.errors import BadDocument
from uptick.core.fill import WorstText, worst_of_class
from uptick.core.kit import Kit
from uptick.core.lengths import Ground
from uptick.core.look import FixedSize
from uptick.core.memo import Kept
from uptick.core.merge import Json, merge_layer
from uptick.core.store import Store, Surface
from uptick.core.wording import language_name

_TARGET_PX = 24.0


@dataclass(frozen=True, slots=True)
class _Seen:
    """One class in one language, in the narrowest container where that is met."""

    one: ButtonClass
    language: str
    device: Device
    ground: Ground


def check_room(classes: Sequence[ButtonClass], store: Store, languages: Sequence[str], kit: Kit) -> list[Finding]:
    """Test every class in every language that it is met in; what is the same in several is one finding."""
    found: dict[tuple[object, ...], tuple[Finding, dict[Spot, None]]] = {}
    for one in classes:
        if one.placement not in store.surfaces or not one.document.placement.shown:
            continue
        surface = store.surfaces[one.placement]
        for seen in _seen(one, store, languages):
            for finding in _kept_room(seen, surface, kit, languages[0]):
                key = (finding.rule, finding.spot, one.placement, finding.title, finding.figure, finding.allowed)
                _, buttons = found.setdefault(key, (finding, {}))
                buttons.update(dict.fromkeys(finding.buttons))
    return [replace(finding, buttons=tuple(buttons)) for finding, buttons in found.values()]


_kept: Kept[tuple[Finding, ...]] = Kept(16_384)


def _kept_room(seen: _Seen, surface: Surface, kit: Kit, first: str) -> tuple[Finding, ...]:
    """Return what is found of a class in one language; an edit that leaves its button alone asks for it again."""
    one = seen.one
    key = (
        id(one.document), one.rules, one.keys, tuple(map(id, one.batches)), seen.language, seen.device, seen.ground,
        surface.own_height_px, id(kit), first,
    )  # fmt: skip
    return _kept.get(key, (one, kit), lambda: tuple(_room(seen, surface, kit, first)))


def _seen(one: ButtonClass, store: Store, languages: Sequence[str]) -> Iterator[_Seen]:
    surface = store.surfaces[one.placement]
    for language in languages:
        devices = [d for d in one.devices(language) if d in surface.widths_px]
        if devices:
            device = min(devices, key=surface.width_px)
            yield _Seen(one, language, device, store.ground(one.placement, device))
        elif not one.where:
            # A plain class that nobody meets is still looked at where it would be tightest.
            device = surface.narrowest()[0]
            yield _Seen(one, language, device, store.ground(one.placement, device))


def _room(seen: _Seen, surface: Surface, kit: Kit, first: str) -> Iterator[Finding]:
    one = seen.one
    worst = {moment: worst_of_class(one, moment, seen.language, kit.fonts, first) for moment in _moments(one)}
    if not worst:
        return
    moment = max(worst, key=lambda m: worst[m].width_px)
    widest = _laid(seen, worst[moment].text, kit)
    if widest.too_wide_px:
        yield _too_wide(seen, widest, worst[moment], moment, kit, first)
    if widest.too_high_px:
        yield _too_high(seen, widest, kit)
    if widest.left_out:
        yield _left_out(seen, widest)
    yield from _touching(one)
    missing = "".join(sorted(set("".join(fonts_missing(one, w, kit) for w in worst.values()))))
    if missing:
        yield Finding(
            "glyph", Weight.LOOK_AGAIN, spots(one), "words",
            f"{one.document.look.type.family.capitalize()} has no {' '.join(missing)}",
            f"Shoppers see {'it' if len(missing) == 1 else 'them'} in another typeface {where(one)}.",
            len(missing), 0,
        )  # fmt: skip
    narrow = min(worst, key=lambda m: worst[m].width_px)
    yield from _target(one, _laid(seen, worst[narrow].text, kit))
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


def fonts_missing(one: ButtonClass, worst: WorstText, kit: Kit) -> str:
    kind = one.document.look.type
    return kit.fonts.measure(worst.text, kind.family, kind.size_px, kind.weight).missing


def _laid(seen: _Seen, text: str, kit: Kit, document: ButtonDocument | None = None) -> Drawing:
    return lay_out(document or seen.one.document, text, kit, seen.ground, language=seen.language)


def _too_wide(seen: _Seen, drawn: Drawing, worst: WorstText, moment: Moment, kit: Kit, first: str) -> Finding:
    one = seen.one
    about = f" for {worst.product.name}" if worst.product else ""
    spoken = "" if seen.language == first else f", {language_name(seen.language)}"
    mends = tuple(_width_mends(seen, worst.text, drawn, kit))
    way_out = "" if mends else " No type from 12 px fits: say it shorter."
    room = f"there are {drawn.container_px:.4g} px" if drawn.container_px > 0 else "what is beside it leaves no room"
    return Finding(
        rule="fit",
        weight=Weight.MUST_FIX,
        buttons=spots(one),
        spot="width",
        title=f"Too wide by {drawn.too_wide_px:.1f} px",
        says=f"“{worst.text}” ({moment.replace('_', ' ')}{spoken}){about} {where(one)}, "
        f"on a {seen.device}, where {room}.{way_out}",
        figure=drawn.needs_width_px,
        allowed=min(drawn.container_px, drawn.outer.width),
        mends=mends,
    )


def _possible(raw: Json, patch: Json) -> ButtonDocument | None:
    """Return the button that a mend would make, or None where that is beyond what a button may be."""
    try:
        return parse_document(merge_layer(raw, patch))
    except BadDocument:
        return None


def _fits(seen: _Seen, document: ButtonDocument, text: str, kit: Kit) -> bool:
    drawn = _laid(seen, text, kit, document)
    return not drawn.too_wide_px and not drawn.too_high_px


def _width_mends(seen: _Seen, text: str, drawn: Drawing, kit: Kit) -> Iterator[Mend]:
    """Offer at most three mends, each laid out again to be sure; where no single one is enough, some together."""
    one = seen.one
    raw = one.document.model_dump(mode="json")
    given: set[str] = set()
    for kind, label, patch in (*_single_mends(one, drawn), *_joint_mends(one, drawn)):
        if kind in given or len(given) == 3 or (kind == "joint" and given):
            continue
        tried = _possible(raw, patch)
        if tried and _fits(seen, tried, text, kit):
            given.add(kind)
            yield Mend(label, one.top_layer, patch)


_SMALLEST_TYPE = 12
_LEAST_PADDING = 4


_LEAST_GAP = 4


def _single_mends(one: ButtonClass, drawn: Drawing) -> Iterator[tuple[str, str, Json]]:
    look, icon = one.document.look, one.document.icon
    if isinstance(look.size, FixedSize):
        wide = -(-drawn.needs_width_px // 1)
        yield "width", f"{wide:g} px wide", {"look": {"size": {**look.size.model_dump(mode="json"), "width": wide}}}
    if not isinstance(icon, NoIcon) and icon.side in ("before", "after"):
        gap = icon.gap_px - -(-drawn.too_wide_px // 1)
        if gap >= _LEAST_GAP:
            yield "gap", f"gap {gap:g}", {"icon": {**icon.model_dump(mode="json"), "gap_px": gap}}
    spare = (drawn.too_wide_px + 1) // 2
    for step in (spare, spare + 1):
        left, right = drawn.padding.left - step, drawn.padding.right - step
        if min(left, right) >= _LEAST_PADDING:
            yield "padding", f"padding {left:g}", {"look": {"padding": {"left": left, "right": right}}}
    for px in range(int(look.type.size_px) - 1, _SMALLEST_TYPE - 1, -1):
        yield "type", f"type {px} px", {"look": {"type": {"size_px": px}}}
    if not isinstance(icon, NoIcon):
        yield "icon", "no icon", {"icon": {"kind": "none"}}


def _joint_mends(one: ButtonClass, drawn: Drawing) -> Iterator[tuple[str, str, Json]]:
    pad, size = drawn.padding, int(one.document.look.type.size_px)
    steps = [p for p in (12, 8, 6, _LEAST_PADDING) if p < min(pad.left, pad.right)]
    icons: list[tuple[str, Json]] = [("", {})]
    if not isinstance(one.document.icon, NoIcon):
        icons.append((", no icon", {"icon": {"kind": "none"}}))
    for said, icon in icons:
        for px in range(size, _SMALLEST_TYPE - 1, -1):
            for p in steps:
                look = {"padding": {"left": p, "right": p}, "type": {"size_px": px}}
                yield "joint", f"padding {p}, type {px} px{said}", {"look": look, **icon}


def _too_high(seen: _Seen, drawn: Drawing, kit: Kit) -> Finding:
    one = seen.one
    raw, size, pad = one.document.model_dump(mode="json"), one.document.look.size, drawn.padding
    tries: list[tuple[str, Json]] = []
    if isinstance(size, FixedSize):
        high = -(-drawn.needs_height_px // 1)
        tries.append((f"{high:g} px high", {"look": {"size": {**size.model_dump(mode="json"), "height": high}}}))
        spare = (drawn.too_high_px + 1) // 2
        if pad.top >= spare and pad.bottom >= spare:
            less = {"top": pad.top - spare, "bottom": pad.bottom - spare}
            tries.append((f"padding {less['top']:g} above", {"look": {"padding": less}}))
        for px in range(int(one.document.look.type.size_px) - 1, _SMALLEST_TYPE - 1, -1):
            tries.append((f"type {px} px", {"look": {"type": {"size_px": px}}}))
    given: dict[str, Mend] = {}
    for label, patch in tries:
        kind = label.split()[0]
        if kind not in given and len(given) < 3:
            possible = _possible(raw, patch)
            tried = _laid(seen, drawn.text, kit, possible) if possible else drawn
            if not tried.too_high_px and tried.too_wide_px <= drawn.too_wide_px:
                given[kind] = Mend(label, one.top_layer, patch)
    return Finding(
        "fit", Weight.MUST_FIX, spots(one), "height",
        f"Too high by {drawn.too_high_px:.4g} px",
        f"Words, icon and padding take {drawn.needs_height_px:g} px of {drawn.outer.height:g} {where(one)}.",
        drawn.needs_height_px, drawn.outer.height, tuple(given.values()),
    )  # fmt: skip


def _left_out(seen: _Seen, drawn: Drawing) -> Finding:
    """Tell what an ellipsis hides: a shopper may not read what the button does."""
    one = seen.one
    return Finding(
        "ellipsis", Weight.LOOK_AGAIN, spots(one), "words",
        f"An ellipsis hides “{drawn.left_out.strip()}”",
        f"“{drawn.text}” has {drawn.words.width:.0f} px {where(one)}, on a {seen.device}.",
        len(drawn.left_out), 0, (Mend("on several lines", one.top_layer, {"look": {"wrap": "lines"}}),),
    )  # fmt: skip


def _touching(one: ButtonClass) -> Iterator[Finding]:
    """Tell an icon from the words: less than this and they touch, as icons fill their box to the edge."""
    icon = one.document.icon
    if isinstance(icon, NoIcon) or one.document.is_wordless or icon.gap_px >= _LEAST_GAP:
        return
    patch: Json = {"icon": {**icon.model_dump(mode="json"), "gap_px": 6}}
    yield Finding(
        "touching", Weight.LOOK_AGAIN, spots(one), "gap",
        f"Icon and words stand {icon.gap_px:g} px apart",
        f"From {_LEAST_GAP} px on they are read as two things {where(one)}.",
        icon.gap_px, _LEAST_GAP, (Mend("gap 6", one.top_layer, patch),),
    )  # fmt: skip


def _target(one: ButtonClass, drawn: Drawing) -> Iterator[Finding]:
    """Test that a finger can hit the button.

    Source:
        WCAG 2.2, 2.5.8 Target Size (Minimum): 24 by 24 CSS pixels.
    """
    width, height = drawn.outer.width, drawn.outer.height
    if width >= _TARGET_PX and height >= _TARGET_PX:
        return
    pad, size = drawn.padding, one.document.look.size
    patch: Json
    if isinstance(size, FixedSize):
        wide = size.width if isinstance(size.width, str) and width >= _TARGET_PX else max(_TARGET_PX, width)
        larger = {"width": wide, "height": max(_TARGET_PX, size.height)}
        patch = {"look": {"size": {**size.model_dump(mode="json"), **larger}}}
    else:
        more_high, more_wide = -(-max(0.0, _TARGET_PX - height) // 2), -(-max(0.0, _TARGET_PX - width) // 2)
        patch = {
            "look": {
                "padding": {
                    "top": pad.top + more_high,
                    "bottom": pad.bottom + more_high,
                    "left": pad.left + more_wide,
                    "right": pad.right + more_wide,
                }
            }
        }
    makes = _possible(one.document.model_dump(mode="json"), patch)
    mends = (Mend("at least 24 × 24", one.top_layer, patch),) if makes else ()
    yield Finding(
        "target_size", Weight.MUST_FIX, spots(one), "height" if height < _TARGET_PX else "width",
        f"Small for a finger: {width:.0f} × {height:.0f} px",
        f"At least 24 × 24 px are needed {where(one)}.",
        min(width, height), _TARGET_PX, mends,
    )  # fmt: skip
