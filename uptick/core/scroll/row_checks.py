"""Rows of cards whose buttons do not stand at one height, by how many pixels, and the rule of CSS that levels them."""

from collections.abc import Iterator, Sequence

from uptick.core.button.document import Device, Placement
from uptick.core.checks.finding import Weight
from uptick.core.scroll.along import in_reach, scene_of
from uptick.core.scroll.place_checks import DEVICE_NAMES, ScrollFinding
from uptick.core.scroll.survey import PageSurvey, SeenCard, SeenPlace

# A pixel is what rounding leaves.
_LEVEL_PX = 1.0
_CALLED = {Placement.LISTING_CARD: "cards", Placement.STRIP: "the strip"}
_Row = list[tuple[SeenPlace, SeenCard]]


def check_rows(survey: PageSurvey, device: Device) -> Iterator[ScrollFinding]:
    """Yield the placements whose buttons stand higher or lower than their neighbours'."""
    for placement, called in _CALLED.items():
        rows = list(_rows([place for place in survey.places if place.placement is placement]))
        ragged = [(_apart(row), row) for row in rows if _apart(row) > _LEVEL_PX]
        if not ragged:
            continue
        apart, worst = max(ragged, key=lambda one: one[0])
        lowest, card = max(worst, key=lambda one: one[0].box.y)
        yield ScrollFinding(
            "ragged",
            Weight.LOOK_AGAIN,
            device,
            f"Buttons of {called} stand up to {apart:.0f} px apart in a row",
            f"In {len(ragged)} of {len(rows)} rows on {DEVICE_NAMES[device]}. A rule of the shop’s own style sheet "
            f"levels them.",
            (placement.value,),
            in_reach(scene_of(survey), lowest),
            css=levelling_css(card.selector, is_stretched=_is_stretched(worst)),
        )


def _rows(places: Sequence[SeenPlace]) -> Iterator[_Row]:
    """Yield the cards that begin at one height, where there are several."""
    row: _Row = []
    for place, card in sorted(((p, p.card) for p in places if p.card), key=lambda one: (one[1].box.y, one[1].box.x)):
        if row and abs(card.box.y - row[0][1].box.y) > _LEVEL_PX:
            if len(row) > 1:
                yield row
            row = []
        row.append((place, card))
    if len(row) > 1:
        yield row


def _apart(row: _Row) -> float:
    tops = [place.box.y for place, _ in row]
    return max(tops) - min(tops)


def _is_stretched(row: _Row) -> bool:
    """Tell whether all cards of a row are equally high."""
    ends = [card.box.bottom for _, card in row]
    return max(ends) - min(ends) <= _LEVEL_PX


def levelling_css(card: str, *, is_stretched: bool) -> str:
    """Return the rule that sets the button's part of every card at the card’s end.

    Source:
        CSS Flexible Box Layout 1, section 8.1: an auto margin takes all the room that is left.
    """
    stretch = "" if is_stretched else f":has(> {card}) {{ align-items: stretch }}\n"
    return (
        f"{stretch}{card} {{ display: flex; flex-direction: column }}\n"
        f"{card} > :is([data-up-place], :has([data-up-place])) {{ margin-block-start: auto }}"
    )
