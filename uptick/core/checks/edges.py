"""A button against its page: where it ends, and where the keyboard's focus is."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from uptick.core.button.document import Placement
from uptick.core.button.look import AnyBorder, PictureFill, lines_of
from uptick.core.checks.contrast import cut
from uptick.core.checks.finding import Finding, Fix, Weight, spots, where_all
from uptick.core.checks.origin import look_rules, narrower
from uptick.core.colour.colour import contrast_ratio, nearest_passing, over, worst_contrast
from uptick.core.colour.dress import REST, dress_in, ring_colour
from uptick.core.colour.fills import colours_in
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.resolved.classes import ButtonClass

# WCAG 2.2, 1.4.11 Non-text Contrast.
_NEEDED = 3.0
# WCAG 2.2, 2.4.13 Focus Appearance: at least as large as a perimeter 2 CSS pixels thick.
_RING_PX = 2.0


def check_edges(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Yield what is to be fixed of how buttons and their focus rings stand out, once for all that look alike."""
    alike: dict[tuple[object, ...], list[ButtonClass]] = {}
    for button in classes:
        if button.document.placement.shown:
            alike.setdefault(look_rules(snapshot, button), []).append(button)
    by_subject: dict[tuple[object, ...], tuple[Finding, list[ButtonClass]]] = {}
    for those in alike.values():
        for finding in _seen_alone(snapshot, those[0]):
            layer = narrower(snapshot, those[0], "look.focus.ring_colour") if finding.fixes else ""
            fixes = tuple(replace(fix, layer=layer) for fix in finding.fixes)
            about = (finding.rule, finding.title, layer)
            by_subject.setdefault(about, (replace(finding, fixes=fixes), []))[1].extend(those)
    for finding, buttons in by_subject.values():
        yield _about(finding, buttons)


def _seen_alone(snapshot: Snapshot, button: ButtonClass) -> tuple[Finding, ...]:
    """Return what is found of how a button is drawn; which layer a fix goes to is not yet said."""
    page = snapshot.store.surfaces[button.placement].page_colour
    if button.placement is Placement.OVER_PICTURE:
        # It lies on pictures; the page's colour is not what is around it.
        return ()
    key = ("edges", button.document.drawn_number, page)
    return snapshot.tables.ask(Step.FINDINGS, key, lambda: (*_words_alone(button, page), *_ring(button, page)))


def _about(finding: Finding, buttons: Sequence[ButtonClass]) -> Finding:
    return Finding(
        finding.rule, finding.weight, spots(*buttons), finding.spot, finding.title,
        f"{finding.says} {where_all(buttons)}.", finding.figure, finding.allowed, finding.fixes,
    )  # fmt: skip


def _words_alone(button: ButtonClass, page: str) -> Iterator[Finding]:
    """Note where a button's edge is not seen: its words alone say where it is, which WCAG 1.4.11 allows."""
    rest = dress_in(button.document.look, REST)
    if isinstance(rest.fill, PictureFill):
        return
    fills = [over(colour, page, rest.opacity) for colour in colours_in(rest.fill, page)]
    edge = max((worst_contrast(page, fills)[0] if fills else 1.0, _line_contrast(rest.border, page)))
    if edge < _NEEDED:
        yield Finding(
            "words_alone", Weight.NOTE, (), "fill",
            f"{'The icon' if button.document.is_wordless else 'Words'} alone "
            f"{'carries' if button.document.is_wordless else 'carry'} it: its edge has {cut(edge)} : 1",
            f"A fill or border of {_NEEDED:g} : 1 against the page {page} would show where it can be pressed,",
            edge, _NEEDED,
        )  # fmt: skip


def _line_contrast(border: AnyBorder, page: str) -> float:
    """Return the contrast of a border with the page; of sides that differ the least, so that none is missed."""
    lines = [line for line in lines_of(border) if line.width_px and line.colour]
    if len(lines) < 4:
        return 1.0
    return min(contrast_ratio(over(line.colour, page), page) for line in lines if line.colour)


def _ring(button: ButtonClass, page: str) -> Iterator[Finding]:
    """Test that the focus ring is seen.

    Source:
        WCAG 2.2, 1.4.11 (3 : 1 against what is beside it) and 2.4.13 (2 px thick).
    """
    look = button.document.look
    ring, fill = over(ring_colour(look), page), dress_in(look, "focus").fill
    against = contrast_ratio(ring, page)
    if against < _NEEDED:
        better = nearest_passing(ring, page, _NEEDED)
        fixes = (Fix(f"ring {better}", "", {"look": {"focus": {"ring_colour": better}}}),) if better else ()
        yield Finding(
            "focus_ring", Weight.MUST_FIX, (), "focus",
            f"Focus ring {cut(against)} : 1 on the page, {_NEEDED:g} is needed",
            f"{ring} on {page}: whoever uses the keyboard does not see where they are,",
            against, _NEEDED, fixes,
        )  # fmt: skip
    met = colours_in(fill, page)
    if met and look.focus.ring_offset_px <= 0 and worst_contrast(ring, met)[0] < _NEEDED:
        away: Fix = Fix("2 px away", "", {"look": {"focus": {"ring_offset_px": 2}}})
        yield Finding(
            "focus_ring", Weight.LOOK_AGAIN, (), "focus",
            f"Focus ring {cut(worst_contrast(ring, met)[0])} : 1 on the fill that it touches",
            "Two pixels of page between them keep them apart,", worst_contrast(ring, met)[0], _NEEDED, (away,),
        )  # fmt: skip
    if look.focus.ring_width_px < _RING_PX:
        patch = {"look": {"focus": {"ring_width_px": _RING_PX}}}
        yield Finding(
            "focus_ring", Weight.LOOK_AGAIN, (), "focus",
            f"Focus ring {look.focus.ring_width_px:g} px thin",
            f"From {_RING_PX:g} px on it is hard to miss,", look.focus.ring_width_px, _RING_PX,
            (Fix("2 px thick", "", patch),),
        )  # fmt: skip
