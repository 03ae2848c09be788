"""Rows of cards whose buttons do not stand at one height, by how many pixels, and the rule of CSS that levels them."""

from collections.abc import Iterator, Sequence

from uptick.core.button.document import Device, Placement, Standing
from uptick.core.button.layer_ref import LayerRef
from uptick.core.checks.finding import Fix, Weight
from uptick.core.drawing.level import levelling_css
from uptick.core.scroll.in_reach import in_reach
from uptick.core.scroll.place_checks import DEVICE_NAMES, ScrollFinding
from uptick.core.scroll.scene import scene_of
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
        apart, worst = max(ragged, key=lambda spread_of: spread_of[0])
        lowest, card = max(worst, key=lambda pair: pair[0].box.y)
        levels = {"level": card.selector, "stretch": not _is_stretched(worst)}
        yield ScrollFinding(
            "ragged",
            Weight.LOOK_AGAIN,
            device,
            f"Buttons of {called} stand up to {apart:.0f} px apart in a row",
            f"In {len(ragged)} of {len(rows)} rows on {DEVICE_NAMES[device]}. One rule levels them: our script sets "
            "it, or the shop’s own style sheet.",
            (placement.value,),
            in_reach(scene_of(survey), lowest),
            (Fix("Level them", LayerRef.place(placement), {"placement": levels}),),
            levelling_css(Standing.model_validate(levels)),
        )


def _rows(places: Sequence[SeenPlace]) -> Iterator[_Row]:
    """Yield the cards that begin at one height, where there are several."""
    row: _Row = []
    for place, card in sorted(((p, p.card) for p in places if p.card), key=lambda pair: (pair[1].box.y, pair[1].box.x)):
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
