"""What is said of one page: how much it matters, and what a pointed place comes to there."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum

from uptick.core.button.document import Placement
from uptick.core.button.on_pages import PageKind
from uptick.core.button.row import Row
from uptick.core.pages import OnPage
from uptick.core.rules.pointed import PointedPlace
from uptick.core.shop.catalogue import Product


class LineWeight(StrEnum):
    """How much a line matters: `broken` means that shoppers do not get what was released."""

    WELL = "well"
    NOTE = "note"
    BROKEN = "broken"


@dataclass(frozen=True, slots=True)
class PageLine:
    """What a place comes to on one page, as a sentence; `count` is how many buttons it makes there."""

    path: str
    kind: PageKind
    weight: LineWeight
    count: int
    says: str
    to_do: str = ""


def _row_line(line: Callable[..., PageLine], look: OnPage, row: Row, known: Mapping[str, Product]) -> PageLine:
    """Say what a row of tiles comes to on a page."""
    if gone := [code for code in look.codes if code not in known]:
        says = f"The catalogue no longer has {', '.join(gone[:3])}: a tile whose page does not tell it is left out."
        return line(LineWeight.NOTE, says, "Choose another product for the row.")
    if look.troubles:
        return line(LineWeight.NOTE, look.troubles[0].says, look.troubles[0].to_do)
    what = (
        f"A row of what the browser saw last, {row.most} at most"
        if row.seen
        else f"A row of {_tiles(len(row.products))}"
    )
    if look.count > 1:
        return line(LineWeight.NOTE, f"{what}, at the first of {look.count} elements that are found.")
    return line(LineWeight.WELL, f"{what}.")


def _tiles(count: int) -> str:
    return "one tile" if count == 1 else f"{count} tiles"


def line_of(look: OnPage, place: PointedPlace, known: Mapping[str, Product]) -> PageLine:
    """Say what a place comes to on one page."""

    def line(weight: LineWeight, says: str, to_do: str = "") -> PageLine:
        return PageLine(look.path, look.kind, weight, look.count, says, to_do)

    if not look.is_meant:
        return line(LineWeight.WELL, "Not meant.")
    if not look.count and look.marked:
        return line(LineWeight.WELL, "The shop's code marks the place already; that counts.")
    is_own = place.placement is Placement.PRODUCT_PAGE
    if not look.count:
        says = f"“{place.selector}” finds nothing here."
        if is_own or place.pages.paths or place.pages.kinds:
            return line(LineWeight.BROKEN, says, "Choose another selector, or say that this page is not meant.")
        return line(LineWeight.WELL, says)
    if sure := next((problem for problem in look.troubles if problem.is_sure), None):
        return line(LineWeight.BROKEN, sure.says, sure.to_do)
    if is_own and look.count > 1:
        says = f"It finds {look.count} here, where one product has one button."
        return line(LineWeight.BROKEN, says, "Choose a selector that leads to one.")
    if place.row:
        return _row_line(line, look, place.row, known)
    if unknown := [code for code in look.codes if code not in known]:
        unknown_codes = ", ".join(filter(None, unknown[:3]))
        if unknown_codes:
            says = f"{len(unknown)} of {look.count} tell a product that the catalogue has not: {unknown_codes}."
            return line(
                LineWeight.NOTE, says, "Import the catalogue again; until then the shop's own button stays there."
            )
        says = f"{len(unknown)} of {look.count} do not tell which product they are of."
        return line(LineWeight.BROKEN, says, "Mark them with data-up-product, or choose another way of telling.")
    if trouble := next(iter(look.troubles), None):
        return line(LineWeight.NOTE, trouble.says, trouble.to_do)
    named = known[look.codes[0]].name if len(look.codes) == 1 else ""
    return line(
        LineWeight.WELL, f"One place, for {named}." if named else f"{look.count} places, each with its product."
    )
