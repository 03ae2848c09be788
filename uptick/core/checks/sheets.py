"""What opens after a press: whether it can be read, and whether the shop tells what it is to show."""

from collections.abc import Iterator, Sequence

from uptick.core.button.document import ButtonDocument, ShowBasket
from uptick.core.checks.finding import Finding, Weight, spots, where_all
from uptick.core.colour.colour import contrast_ratio
from uptick.core.drawing.sheet import compile_sheet
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass
from uptick.core.shop.connection import BasketConnection, BasketJson

# WCAG 2.2, 1.4.3 Contrast (Minimum), for words of ordinary size.
_NEEDED = 4.5


def check_sheets(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find sheets whose words are hard to read, and baskets shown of which the shop tells too little."""
    opens = [button for button in classes if button.document.placement.shown and compile_sheet(button.document)]
    by_colours: dict[tuple[str, str], list[ButtonClass]] = {}
    for shown in opens:
        sheet = shown.document.sheet
        by_colours.setdefault((sheet.ink, sheet.ground), []).append(shown)
    for (ink, ground), buttons in by_colours.items():
        ratio = contrast_ratio(ink, ground)
        if ratio < _NEEDED:
            yield Finding(
                "sheet", Weight.MUST_FIX, spots(*buttons), "sheet",
                f"Words on the sheet {int(ratio * 10) / 10} : 1, {_NEEDED:g} is needed",
                f"What a press opens {where_all(buttons)} is written in {ink} on {ground}.",
                ratio, _NEEDED,
            )  # fmt: skip
    shows = [shown for shown in opens if isinstance(shown.document.afterwards, ShowBasket)]
    if shows:
        yield from _told(snapshot.store.connection, shows)


def _told(connection: BasketConnection, shows: list[ButtonClass]) -> Iterator[Finding]:
    where = where_all(shows)
    read = connection.read
    if not isinstance(read, BasketJson):
        yield Finding(
            "basket", Weight.LOOK_AGAIN, spots(*shows), "afterwards",
            "The basket that is shown has no lines",
            f"A press shows the basket {where}, and the shop tells no lines of it as JSON. Only its count and the ways "
            "on are shown.",
            0, 1,
        )  # fmt: skip
        return
    lacks = [lacking for lacking, name in (("name", read.name), ("amount", read.amount)) if not name]
    if lacks:
        yield Finding(
            "basket", Weight.LOOK_AGAIN, spots(*shows), "afterwards",
            f"The lines of the basket that is shown have no {' and no '.join(lacks)}",
            f"A press shows the basket {where}. Say in the connection where the shop tells them, in {read.path}.",
            0, len(lacks),
        )  # fmt: skip
    if not read.sum and any(_free_from(show.document) for show in shows):
        yield Finding(
            "basket", Weight.LOOK_AGAIN, spots(*shows), "afterwards",
            "Nobody is told from when delivery is free",
            f"The basket that a press shows {where} has no sum. Say in the connection where the shop tells it, in "
            f"{read.path}.",
            0, 1,
        )  # fmt: skip
    if not connection.change:
        yield Finding(
            "basket", Weight.NOTE, spots(*shows), "afterwards",
            "The basket that is shown can only be looked at",
            f"A press shows the basket {where}. Say in the connection how the shop changes a line, and shoppers can "
            "change and take out what is in it.",
            0, 1,
        )  # fmt: skip


def _free_from(document: ButtonDocument) -> float | None:
    shows = document.afterwards
    return shows.free_from if isinstance(shows, ShowBasket) else None
