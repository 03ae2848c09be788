"""What a designer should know of a code before it is handed out: what differs, what grows old, what cannot be read."""

from collections.abc import Sequence

from uptick.core.button.document import SecondButton, Situation
from uptick.core.fitting.fill import template_of
from uptick.core.outside.handed import Order, OutsideKind
from uptick.core.outside.html import GAP_PX, MAIL_PX, left_out_of_mail
from uptick.core.outside.variants import contrast_on
from uptick.core.resolved.reach_words import listed
from uptick.core.shop.connection import FormPost
from uptick.core.words.wording import live_names, parse_text
from uptick.usecases.outside.make import MadeButton, moment_of
from uptick.usecases.ports import Shop

# The two grounds on which code is shown: a white page, and one that is nearly black.
LIGHT, DARK = "#ffffff", "#14181c"
# WCAG 2.2, 1.4.3.
_READABLE = 4.5


def notes_of(shop: Shop, order: Order, buttons: Sequence[MadeButton]) -> list[str]:
    """Return what a designer should know of this code, in sentences."""
    notes = []
    documents = [button.piece.document for button in buttons]
    if order.kind not in {OutsideKind.LINK, OutsideKind.PRINT}:
        dark = min(contrast_on(document, DARK) for document in documents)
        light = min(contrast_on(document, LIGHT) for document in documents)
        for worst, ground in ((light, "a light"), (dark, "a dark")):
            if worst < _READABLE:
                notes.append(f"On {ground} page its words have {worst:.1f}:1; to be read they need {_READABLE}:1.")
        notes += _too_wide(order, buttons)
    left = list(dict.fromkeys(part for document in documents for part in left_out_of_mail(document)))
    if left and order.kind is OutsideKind.MAIL:
        notes.append(f"Many mail programs do not draw {listed(left, 'or')}; what they draw reads as well without.")
    if order.kind in {OutsideKind.MAIL, OutsideKind.WEB, OutsideKind.FORM}:
        notes.append("Where the typeface is not there, the next one of the list is taken, and the width is another.")
    if order.kind in {OutsideKind.WEB, OutsideKind.FORM}:
        notes.append("What comes on hovering and pressing needs a style sheet, so it is not in this code.")
    if order.kind is OutsideKind.FORM and isinstance(shop.store.connection, FormPost):
        # RFC 6265bis, SameSite: what another site posts comes without the shop's cookie.
        notes.append("Most browsers keep the shop’s cookie from a form elsewhere: a shopper’s basket may begin anew.")
    if any(isinstance(document.second, SecondButton) for document in documents):
        notes.append(
            "The button straight to the checkout stays away: a link does one thing, and fills no basket first."
        )
    if order.kind is not OutsideKind.PRINT and (dated := _dated(shop, buttons)):
        notes.append(f"{dated} as it is today, and does not follow.")
    if sold := [
        button.piece.product.name for button in buttons if button.piece.product.situation is Situation.SOLD_OUT
    ]:
        notes.append(f"{listed(sold[:3])} {'is' if len(sold) == 1 else 'are'} sold out: the button says so.")
    return notes


def _too_wide(order: Order, buttons: Sequence[MadeButton]) -> list[str]:
    """Return which buttons do not fit their columns, by how much, and with how many in a row they would."""
    over = [button for button in buttons if button.too_wide_px]
    if not over:
        return []
    worst = max(over, key=lambda button: button.too_wide_px)
    room = worst.piece.ground.container_px
    fits = next((n for n in range(order.across, 0, -1) if (MAIL_PX - GAP_PX * (n - 1)) / n >= worst.drawn_px), 0)
    mend = f"With {fits} in a row it fits." if fits and fits < order.across else "Say it shorter."
    others = f" So are {len(over) - 1} more." if len(over) > 1 else ""
    sentence = f"“{worst.piece.text}” is too wide by {worst.too_wide_px:.0f} px for a column of {room:.0f}. {mend}"
    return [sentence + others]


def _dated(shop: Shop, buttons: Sequence[MadeButton]) -> str:
    """Return what of a code grows old: values that its words or its sheet hold."""
    first = shop.store.language
    names: dict[str, None] = {}
    for button in buttons:
        piece = button.piece
        text = template_of(piece.document, moment_of(piece.product, button.handed.kind), button.handed.language, first)
        names |= dict.fromkeys(sorted(live_names(parse_text(text)) - {"name", "code", "page"}))
    if (
        len(buttons) > 1
        and any(button.piece.price for button in buttons)
        and button.handed.kind in {OutsideKind.WEB, OutsideKind.MAIL}
    ):
        names["price"] = None
    return f"The code holds the {listed(names)}" if names else ""
