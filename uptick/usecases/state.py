"""What every station shows of the draft: its state in the corner, and buttons as they stand."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from uptick.core.button.document import Device, Moment, Placement, SecondButton, Situation, TellWhenBack
from uptick.core.button.message import ToMessage
from uptick.core.drawing.beside import second_text
from uptick.core.drawing.compile import CompiledButton, compile_button
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import NotFound, OutOfRange
from uptick.core.fitting.fill import text_for
from uptick.core.resolved.classes import LEADING, ButtonClass
from uptick.core.resolved.differences import FieldChange, count_changes
from uptick.core.resolved.reach_words import listed
from uptick.core.rules.places import held_products
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import is_rtl
from uptick.usecases.ports import Draft, Shop


@dataclass(frozen=True, slots=True)
class DraftState:
    """What stands in the corner of every station; `changes` are things changed since the newest release."""

    version: int
    undo_label: str
    redo_label: str
    changes: int
    release: int


@dataclass(frozen=True, slots=True)
class Shown:
    """A button as it stands somewhere: compiled, in one moment, with its words filled in.

    An inactive one cannot be pressed then.
    """

    button: CompiledButton
    moment: Moment
    text: str
    rtl: bool
    inactive: bool
    second: str = ""


# On a product's own page its choice is there too.
_WITH_ITS_CHOICE = {Placement.PRODUCT_PAGE, Placement.STICKY_BAR, Placement.FLOATING}


def is_inactive(placement: Placement, moment: Moment) -> bool:
    """Tell whether a button waits: where the choice is on the page, it does until that is made."""
    waits = placement in _WITH_ITS_CHOICE and moment is Moment.CHOOSE_FIRST
    return waits or moment in {Moment.SOLD_OUT, Moment.WORKING}


def draft_state(shop: Shop, draft: Draft) -> DraftState:
    """Return what every station shows of a draft: its version, what can be undone, how far it is from the release."""
    newest = shop.releases.newest()
    if newest is None:
        return DraftState(draft.version, draft.undo_label, draft.redo_label, 1, 0)
    changes = count_changes(shop.as_written(newest.settings), shop.as_written(draft.settings))
    return DraftState(draft.version, draft.undo_label, draft.redo_label, changes, newest.n)


def show(
    shop: Shop,
    button: ButtonClass,
    moment: Moment,
    product: Product | None,
    language: str,
    count: int = 2,
    device: Device | None = None,
) -> Shown:
    """Return a button as it stands on a device; on the one with the narrowest container where none is said."""
    surface = shop.store.surfaces.get(button.placement)
    ground = shop.store.ground(button.placement, device or surface.narrowest()[0]) if surface else None
    afterwards = button.document.afterwards
    if isinstance(afterwards, ToMessage):
        # It says the same whatever is in the basket or in stock.
        moment = Moment.READY
    text = text_for(button.document, moment, language, product, count, shop.store.language)
    asks = isinstance(afterwards, ToMessage) or (isinstance(afterwards, TellWhenBack) and moment is Moment.SOLD_OUT)
    inactive = is_inactive(button.placement, moment) and not asks
    second = button.document.second
    second_says = second_text(second, language) if isinstance(second, SecondButton) else ""
    return Shown(
        compile_button(button.document, shop.kit, ground), moment, text, is_rtl(language), inactive, second_says
    )


def product_of(snapshot: Snapshot, sku: str | None) -> Product:
    """Return a product by its code, or the first plain one."""
    products = snapshot.products
    if not products:
        raise NotFound("The catalogue is empty. Import the shop's products first.")
    if sku:
        product = snapshot.goods.product(sku)
        if product is None:
            raise NotFound(f"No product has the code {sku!r}.", product=sku)
        return product
    return next((p for p in products if p.situation is Situation.PLAIN), products[0])


def products_of(snapshot: Snapshot, placement: Placement) -> tuple[Product, ...]:
    """Return the products that a placement shows where those are chosen; nothing where it shows all of them."""
    held = held_products(snapshot.settings).get(placement, frozenset())
    return tuple(product for sku in sorted(held) if (product := snapshot.goods.product(sku)))


def product_at(snapshot: Snapshot, placement: Placement, product: Product) -> Product:
    """Return a product as far as a placement shows it, else the first that it shows."""
    chosen = products_of(snapshot, placement)
    return product if product in chosen or not chosen else chosen[0]


def telling_language(paths: Sequence[str], first: str) -> str:
    """Return a language in which changed texts can be seen: the store's first where it is among them."""
    spoken = [path.split(".")[2] for path in paths if path.startswith("wording.")]
    return first if first in spoken or not spoken else spoken[0]


State = Literal["rest", "hover", "focus", "pressed"]
# A part of a look that shows in one state or moment only.
_SHOWS: dict[str, tuple[Moment, State]] = {
    "look.hover.": (Moment.READY, "hover"),
    "look.focus.": (Moment.READY, "focus"),
    "look.pressed.": (Moment.READY, "pressed"),
    "look.working.": (Moment.WORKING, "rest"),
    "look.added.": (Moment.ADDED, "rest"),
    "look.disabled.": (Moment.SOLD_OUT, "rest"),
}


def telling_moment(fields: Sequence[FieldChange], example: Product) -> tuple[Moment, State]:
    """Return the moment and the state in which a change can best be seen."""
    paths = [field.path for field in fields]
    passing = [shown for path in paths for begin, shown in _SHOWS.items() if path.startswith(begin)]
    words = [path for path in paths if path.startswith("wording.")]
    if len(passing) + len(words) < len(paths) or not paths:
        return LEADING[example.situation], "rest"
    if words:
        return Moment(words[0].split(".")[1]), "rest"
    return passing[0]


def language_of(settings: Settings, language: str | None) -> str:
    """Return a language that the buttons speak; the store's first one where none is asked for.

    Raises:
        OutOfRange: They do not speak it.
    """
    if language and language not in settings.languages:
        raise OutOfRange.of("language", f"one of {listed(settings.languages, 'or')}", language)
    return language or settings.language
