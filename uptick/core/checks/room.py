"""What fits where it stands, what a finger can hit, and what letters there are."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial

from uptick.core.button.document import ButtonDocument, Device, Moment, NoIcon, Placement, new_number
from uptick.core.button.lengths import Ground
from uptick.core.button.look import FixedSize
from uptick.core.button.merge import Json
from uptick.core.checks.finding import Finding, Fix, Found, Sighting, Weight, spots, where
from uptick.core.checks.width_fixes import LEAST_GAP_PX, SMALLEST_TYPE_PX, possible_document, width_fixes
from uptick.core.drawing.boxes import Fitting, Widths, fitting_of, lay_out
from uptick.core.drawing.drawing import Drawing
from uptick.core.drawing.kit import Kit
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.fitting.fill import WorstText, worst_of_class
from uptick.core.fitting.laid import laid
from uptick.core.resolved.classes import ButtonClass, ButtonKind, moments_of
from uptick.core.words.wording import language_name

_TARGET_PX = 24.0


_Sight = tuple[str, Device, Ground]


@dataclass(frozen=True, slots=True)
class _Seen:
    """One class in one language, in the narrowest container where that is met."""

    kind: ButtonKind
    language: str
    device: Device
    ground: Ground
    snapshot: Snapshot

    def laid(self, text: str) -> Drawing:
        """Return its button with a text, as it stands there; asked for by many classes that look alike."""
        return laid(self.snapshot, self.kind.document, text, self.ground, self.language)

    def fitting(self) -> Fitting:
        """Return its button on its ground, for words of any width."""
        look, kit = self.kind.look, self.snapshot.kit
        key = ("fitting", look.number, self.ground)
        return self.snapshot.tables.ask(Step.BOXES, key, lambda: fitting_of(look.document, kit, self.ground))

    def tried(self, document: ButtonDocument, text: str) -> Drawing:
        return lay_out(document, text, self.snapshot.kit, self.ground, language=self.language)


@dataclass(frozen=True, slots=True)
class _Issue:
    """What is wrong with a class in one language, before it is told: those of one placement with one key are one."""

    key: tuple[object, ...]
    tell: "Callable[[_Seen], Finding]"
    # Where this is known, the rest is told when somebody reads it.
    title: str = ""

    def found(self, seen: _Seen, kinds: Sequence[ButtonKind]) -> Found:
        buttons = spots(*kinds)
        if self.title:
            return Sighting("fit", Weight.MUST_FIX, buttons, self.title, partial(self.tell, seen))
        return replace(self.tell(seen), buttons=buttons)


def check_room(snapshot: Snapshot, kinds: Iterable[ButtonKind]) -> list[Found]:
    """Test every kind in every language that it is met in; what is the same in several is one finding."""
    by_subject: dict[tuple[object, ...], tuple[_Issue, _Seen, list[ButtonKind]]] = {}
    sights: dict[tuple[Placement, int], tuple[int, Sequence[_Sight]]] = {}
    ask = snapshot.tables.ask
    for kind in kinds:
        if kind.placement not in snapshot.store.surfaces or not kind.look.document.placement.shown:
            continue
        where_met = (kind.placement, kind.places)
        if where_met not in sights:
            sights[where_met] = _sights(kind, snapshot)
        number, here = sights[where_met]
        # An edit leaves most kinds alone, and what is wrong with them.
        key = ("room", kind.number, kind.look.number, kind.texts.number, number)
        for n, issue in ask(Step.FINDINGS, key, partial(_issues_in, snapshot, kind, here)):
            about = (kind.placement, *issue.key)
            if about not in by_subject:
                by_subject[about] = (issue, _Seen(kind, *here[n], snapshot), [])
            those = by_subject[about][2]
            # The languages of a kind come one after the other.
            if not those or those[-1] is not kind:
                those.append(kind)
    return [issue.found(seen, those) for issue, seen, those in by_subject.values()]


def _issues_in(snapshot: Snapshot, kind: ButtonKind, sights: Sequence[_Sight]) -> tuple[tuple[int, _Issue], ...]:
    """Return what is wrong with a kind, by the number of the language in which it is."""
    return tuple([(n, issue) for n, sight in enumerate(sights) for issue in _issues(_Seen(kind, *sight, snapshot))])


def _sights(kind: ButtonKind, snapshot: Snapshot) -> tuple[int, Sequence[_Sight]]:
    """Return the languages in which a kind is met, with the narrowest container in each, and a number for all that."""
    sights = tuple(_find_sights(kind, snapshot))
    own_px = snapshot.store.surfaces[kind.placement].own_height_px
    return snapshot.tables.same(Step.FINDINGS, ("sights", sights, own_px), new_number()), sights


def _find_sights(kind: ButtonKind, snapshot: Snapshot) -> Iterator[_Sight]:
    store = snapshot.store
    surface = store.surfaces[kind.placement]
    for language in snapshot.settings.languages:
        devices = [d for d in kind.devices(language) if d in surface.widths_px]
        if not devices and kind.places:
            continue
        # A plain class that nobody meets is still looked at where it would be tightest.
        device = min(devices, key=surface.width_px) if devices else surface.narrowest()[0]
        yield language, device, store.ground(kind.placement, device)


@dataclass(frozen=True, slots=True)
class _Worst:
    """The widest and the narrowest text of a class in one language, and the letters that its typeface has not.

    They depend on words and type, but on nothing else that is drawn.
    """

    moment: Moment
    widest: WorstText
    narrowest: WorstText
    missing: str


def _worst(seen: _Seen) -> _Worst | None:
    kind, snapshot = seen.kind, seen.snapshot
    first = snapshot.settings.language
    key = ("class", kind.texts.number, kind.look.type_key, seen.language, first, kind.batch_numbers)
    return snapshot.tables.ask(Step.WIDTHS, key, lambda: _find_worst(seen, first))


def _find_worst(seen: _Seen, first: str) -> _Worst | None:
    kind, kit = seen.kind, seen.snapshot.kit
    worst = {
        moment: worst_of_class(seen.snapshot.tables, kind, moment, seen.language, kit.fonts, first)
        for moment in _moments(kind)
    }
    if not worst:
        return None
    moment = max(worst, key=lambda m: worst[m].width_px)
    missing = "".join(sorted(set("".join(fonts_missing(kind, w, kit) for w in worst.values()))))
    return _Worst(moment, worst[moment], min(worst.values(), key=lambda w: w.width_px), missing)


def _issues(seen: _Seen) -> Iterator[_Issue]:
    worst = _worst(seen)
    if worst is None:
        return
    if seen.kind.look.is_plain:
        yield from _plain_room(seen, worst)
    else:
        yield from _laid_room(seen, worst)
    if _is_touching(seen.kind.look.document):
        yield _told(("touching",), _touching)
    if worst.missing:
        yield _told(
            ("glyph", worst.missing, seen.kind.look.document.look.type.family), partial(_missing, worst.missing)
        )


def _plain_room(seen: _Seen, worst: _Worst) -> Iterator[_Issue]:
    """Yield what is wrong with a button of one line: it need not be laid out anew for each text."""
    fitting = seen.fitting()
    empty, wide = fitting.empty, fitting.with_words(worst.widest.width_px)
    if wide.too_wide:
        yield _too_wide(wide, empty.container_px, worst)
    if empty.too_high_px:
        yield _told(("high", empty.too_high_px, empty.outer.height), partial(_too_high, worst.widest.text))
    yield from _sizes(seen, fitting.with_words(worst.narrowest.width_px).outer, empty.outer.height, worst)


def _laid_room(seen: _Seen, worst: _Worst) -> Iterator[_Issue]:
    widest = seen.laid(worst.widest.text)
    if widest.too_wide_px:
        wide = Widths(widest.needs_width_px, widest.outer.width, widest.too_wide_px)
        yield _too_wide(wide, widest.container_px, worst)
    if widest.too_high_px:
        yield _told(("high", widest.too_high_px, widest.outer.height), partial(_too_high, worst.widest.text))
    if widest.left_out:
        yield _told(("ellipsis", widest.text, widest.left_out), partial(_left_out, worst.widest.text))
    narrow = seen.laid(worst.narrowest.text)
    yield from _sizes(seen, narrow.outer.width, min(narrow.outer.height, widest.outer.height), worst)
    own_px = seen.snapshot.store.surfaces[seen.kind.placement].own_height_px
    if own_px and narrow.outer.height <= own_px < widest.outer.height:
        yield _told(("own", widest.outer.height), partial(_own_size, worst.widest.text))


def _sizes(seen: _Seen, width: float, height: float, worst: _Worst) -> Iterator[_Issue]:
    if width < _TARGET_PX or height < _TARGET_PX:
        yield _told(("target", width, height), partial(_target, worst.narrowest.text))
    own_px = seen.snapshot.store.surfaces[seen.kind.placement].own_height_px
    if own_px and height > own_px:
        yield _told(("own", height), partial(_own_size, worst.widest.text))


def _told(key: tuple[object, ...], tell: Callable[[_Seen], Finding]) -> _Issue:
    return _Issue(key, tell)


def _missing(letters: str, seen: _Seen) -> Finding:
    button = seen.kind
    return Finding(
        "glyph", Weight.LOOK_AGAIN, spots(button), "words",
        f"{button.document.look.type.family.capitalize()} has no {' '.join(letters)}",
        f"Shoppers see {'it' if len(letters) == 1 else 'them'} in another typeface {where(button)}.",
        len(letters), 0,
    )  # fmt: skip


def _own_size(text: str, seen: _Seen) -> Finding:
    own_px = seen.snapshot.store.surfaces[seen.kind.placement].own_height_px
    height = seen.laid(text).outer.height
    over = height - own_px
    return Finding(
        "own_size", Weight.LOOK_AGAIN, spots(seen.kind), "height",
        f"Taller than the shop's own button by {over:g} px",
        f"{height:g} against {own_px:g} px: the page moves by that much when ours stands, {where(seen.kind)}.",
        height, own_px,
    )  # fmt: skip


def _moments(button: ButtonClass) -> tuple[Moment, ...]:
    if not button.batches:
        return tuple(Moment)
    able = {moment for situation in button.situations for moment in moments_of(button.document, situation)}
    return tuple(moment for moment in Moment if moment in able)


def fonts_missing(button: ButtonClass, worst: WorstText, kit: Kit) -> str:
    """Return the letters of a worst text that the button's typeface and those beside it do not have."""
    kind = button.document.look.type
    return kit.fonts.measure(worst.text, kind.family, kind.size_px, kind.weight).missing


def _too_wide(wide: Widths, container_px: float, worst: _Worst) -> _Issue:
    # How it could be fixed is looked for once, for all that are too wide by as much.
    about = (round(wide.needs, 6), round(min(container_px, wide.outer), 6))
    return _Issue(("fit", *about), partial(_tell_too_wide, wide, container_px, worst), _too_wide_title(wide))


def _too_wide_title(wide: Widths) -> str:
    return f"Too wide by {wide.too_wide:.1f} px"


def _tell_too_wide(wide: Widths, container_px: float, worst: _Worst, seen: _Seen) -> Finding:
    kind, text = seen.kind, worst.widest.text
    about = f" for {worst.widest.product.name}" if worst.widest.product else ""
    spoken = "" if seen.language == seen.snapshot.settings.language else f", {language_name(seen.language)}"
    document, drawn = kind.document, seen.laid(text)
    key = ("width fixes", document.drawn_number, seen.ground, text, seen.language, kind.top_layer)
    fixes = seen.snapshot.tables.ask(
        Step.FINDINGS, key, lambda: tuple(width_fixes(document, drawn, kind.top_layer, seen.tried))
    )
    way_out = "" if fixes else " No type from 12 px fits: say it shorter."
    room = f"there are {container_px:.4g} px" if container_px > 0 else "what is beside it leaves no room"
    says = (
        f"“{text}” ({worst.moment.replace('_', ' ')}{spoken}){about} {where(kind)}, on a {seen.device}, "
        f"where {room}.{way_out}"
    )
    return Finding(
        "fit", Weight.MUST_FIX, spots(kind), "width", _too_wide_title(wide), says, wide.needs,
        min(container_px, wide.outer), fixes,
    )  # fmt: skip


def _too_high(text: str, seen: _Seen) -> Finding:
    stands, drawn = seen.kind, seen.laid(text)
    raw, size, pad = stands.document.model_dump(mode="json"), stands.document.look.size, drawn.padding
    tries: list[tuple[str, Json]] = []
    if isinstance(size, FixedSize):
        high = -(-drawn.needs_height_px // 1)
        tries.append((f"{high:g} px high", {"look": {"size": {**size.model_dump(mode="json"), "height": high}}}))
        spare = (drawn.too_high_px + 1) // 2
        if pad.top >= spare and pad.bottom >= spare:
            less = {"top": pad.top - spare, "bottom": pad.bottom - spare}
            tries.append((f"padding {less['top']:g} above", {"look": {"padding": less}}))
        for px in range(int(stands.document.look.type.size_px) - 1, SMALLEST_TYPE_PX - 1, -1):
            tries.append((f"type {px} px", {"look": {"type": {"size_px": px}}}))
    given: dict[str, Fix] = {}
    for label, patch in tries:
        kind = label.split()[0]
        if kind not in given and len(given) < 3:
            possible = possible_document(raw, patch)
            tried = seen.tried(possible, drawn.text) if possible else drawn
            if not tried.too_high_px and tried.too_wide_px <= drawn.too_wide_px:
                given[kind] = Fix(label, stands.top_layer, patch)
    return Finding(
        "fit", Weight.MUST_FIX, spots(stands), "height",
        f"Too high by {drawn.too_high_px:.4g} px",
        f"Words, icon and padding take {drawn.needs_height_px:g} px of {drawn.outer.height:g} {where(stands)}.",
        drawn.needs_height_px, drawn.outer.height, tuple(given.values()),
    )  # fmt: skip


def _left_out(text: str, seen: _Seen) -> Finding:
    """Tell what an ellipsis hides: a shopper may not read what the button does."""
    kind, drawn = seen.kind, seen.laid(text)
    return Finding(
        "ellipsis", Weight.LOOK_AGAIN, spots(kind), "words",
        f"An ellipsis hides “{drawn.left_out.strip()}”",
        f"“{drawn.text}” has {drawn.words.width:.0f} px {where(kind)}, on a {seen.device}.",
        len(drawn.left_out), 0, (Fix("on several lines", kind.top_layer, {"look": {"wrap": "lines"}}),),
    )  # fmt: skip


def _is_touching(document: ButtonDocument) -> bool:
    icon = document.icon
    return not (isinstance(icon, NoIcon) or icon.gap_px >= LEAST_GAP_PX or document.is_wordless)


def _touching(seen: _Seen) -> Finding:
    """Tell an icon from the words: less than this and they touch, as icons fill their box to the edge."""
    kind, icon = seen.kind, seen.kind.document.icon
    assert not isinstance(icon, NoIcon)
    patch: Json = {"icon": {**icon.model_dump(mode="json"), "gap_px": 6}}
    return Finding(
        "touching", Weight.LOOK_AGAIN, spots(kind), "gap",
        f"Icon and words stand {icon.gap_px:g} px apart",
        f"From {LEAST_GAP_PX} px on they are read as two things {where(kind)}.",
        icon.gap_px, LEAST_GAP_PX, (Fix("gap 6", kind.top_layer, patch),),
    )  # fmt: skip


def _target(text: str, seen: _Seen) -> Finding:
    """Test that a finger can hit the button.

    Source:
        WCAG 2.2, 2.5.8 Target Size (Minimum): 24 by 24 CSS pixels.
    """
    kind, drawn = seen.kind, seen.laid(text)
    width, height = drawn.outer.width, drawn.outer.height
    pad, size = drawn.padding, kind.document.look.size
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
    makes = possible_document(kind.document.model_dump(mode="json"), patch)
    fixes = (Fix("at least 24 × 24", kind.top_layer, patch),) if makes else ()
    return Finding(
        "target_size", Weight.MUST_FIX, spots(kind), "height" if height < _TARGET_PX else "width",
        f"Small for a finger: {width:.0f} × {height:.0f} px",
        f"At least 24 × 24 px are needed {where(kind)}.",
        min(width, height), _TARGET_PX, fixes,
    )  # fmt: skip
