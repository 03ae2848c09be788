"""What an exception covers, and which of two is the more particular."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import Annotated, Protocol

from pydantic import Field

from uptick.core.button.document import Device, Language, Placement, ShopperKind, Situation
from uptick.core.button.look import Part
from uptick.core.errors import BadReach


@dataclass(frozen=True, slots=True)
class Context:
    """Where a button stands, for what and for whom: the question that resolution answers.

    What is not known is empty or None, and no reach that narrows it covers the context: a product that nobody knows has
    neither code nor category nor, for a reach, a situation.
    """

    placement: Placement
    product: str
    category: str
    situation: Situation | None
    device: Device | None = None
    language: str | None = None
    shopper: ShopperKind | None = None

    def seen(self, device: Device | None, language: str | None, shopper: ShopperKind | None = None) -> "Context":
        """Return the same place as seen on a device, in a language, by a kind of shopper."""
        return replace(self, device=device, language=language, shopper=shopper or self.shopper)


Names = Annotated[tuple[str, ...], Field(max_length=500)]
# The order in which particularity is compared, left to right, as the specificity of CSS selectors is.
DIMENSIONS = ("products", "categories", "situations", "placements", "devices", "languages", "shoppers")
# Two of them also say what is not covered.
_TAKEN_AWAY = {"products": "not_products", "categories": "not_categories"}


class Goods(Protocol):
    """What a reach has to know of a product."""

    @property
    def sku(self) -> str: ...
    @property
    def category(self) -> str: ...
    @property
    def situation(self) -> Situation: ...


def _is_part(some: Collection[str], of: Collection[str]) -> bool:
    """Tell whether one list of a dimension covers no more than another; an empty one covers everything."""
    return not of or (bool(some) and set(some) <= set(of))


class Reach(Part):
    """The contexts that a layer covers. An empty list narrows nothing; `not_…` takes some of it away again."""

    products: Names = ()
    categories: Names = ()
    situations: tuple[Situation, ...] = ()
    placements: tuple[Placement, ...] = ()
    devices: tuple[Device, ...] = ()
    languages: tuple[Language, ...] = ()
    shoppers: tuple[ShopperKind, ...] = ()
    not_products: Names = ()
    not_categories: Names = ()

    def covers(self, context: Context) -> bool:
        """Tell whether it covers a button: this product at this place, in this situation, as this shopper sees it."""
        return self.covers_product(context.product, context.category) and self.covers_where(context)

    def covers_where(self, context: Context) -> bool:
        """Tell whether it covers a context as far as product and category are left out."""
        return (
            (not self.situations or context.situation in self.situations)
            and (not self.placements or context.placement in self.placements)
            and (not self.devices or context.device in self.devices)
            and (not self.languages or context.language in self.languages)
            and (not self.shoppers or context.shopper in self.shoppers)
        )

    def covers_product(self, product: str, category: str) -> bool:
        """Tell whether it covers a product, in whatever situation that is."""
        return (
            (not self.products or product in self.products)
            and (not self.categories or category in self.categories)
            and product not in self.not_products
            and category not in self.not_categories
        )

    def covers_goods(self, goods: Goods) -> bool:
        """Tell whether it covers a product in the situation that it is in now."""
        return (not self.situations or goods.situation in self.situations) and self.covers_product(
            goods.sku, goods.category
        )

    @property
    def narrows_products(self) -> bool:
        """Tell whether it leaves out products."""
        return bool(self.products or self.categories or self.not_products or self.not_categories)

    def any_situation(self) -> "Reach":
        """Return the same reach for a product whatever becomes of its stock and price."""
        return self.model_copy(update={"situations": ()})

    def intersection(self, other: "Reach") -> "Reach | None":
        """Return the reach that covers what both cover, or None where nothing is covered by both.

        Products are taken for free to be in any category: only a catalogue tells that a product is in another one.
        """
        lists: dict[str, tuple[str, ...]] = {
            name: tuple(dict.fromkeys((*getattr(self, name), *getattr(other, name)))) for name in _TAKEN_AWAY.values()
        }
        for name in DIMENSIONS:
            mine, theirs = getattr(self, name), getattr(other, name)
            both = tuple(value for value in mine if value in theirs) if mine and theirs else mine or theirs
            left = tuple(value for value in both if value not in lists.get(_TAKEN_AWAY.get(name, ""), ()))
            if (mine or theirs) and not left:
                return None
            lists[name] = left
        return self.model_copy(update=lists)

    def overlaps(self, other: "Reach", goods: Iterable[Goods]) -> bool:
        """Tell whether some button is covered by both, for products that a shop has or for one that nobody knows.

        Situations of products change; only that no situation is in both reaches tells them apart for good.
        """
        both = self.intersection(other)
        return both is not None and (
            both.covers_product("", "") or any(both.covers_product(item.sku, item.category) for item in goods)
        )

    def is_within(self, other: "Reach") -> bool:
        """Tell whether the other reach covers all that this one covers, whatever products there are."""
        mine = self.intersection(self)
        if mine is None:
            return True
        return all(_is_part(getattr(mine, name), getattr(other, name)) for name in DIMENSIONS) and not any(
            value not in getattr(mine, away) and (not getattr(mine, name) or value in getattr(mine, name))
            for name, away in _TAKEN_AWAY.items()
            for value in getattr(other, away)
        )

    def is_more_particular(self, other: "Reach") -> bool:
        """Tell whether a layer at this reach stands above one at the other, wherever both hold."""
        return self.particularity() > other.particularity()

    def particularity(self) -> tuple[bool, ...]:
        """Return which dimensions are narrowed, in the order of `DIMENSIONS`; the larger tuple is more particular."""
        return tuple(bool(getattr(self, name)) for name in DIMENSIONS)

    def narrowed(self) -> dict[str, list[str]]:
        """Return only the lists that say something, as JSON."""
        return {name: list(values) for name, values in self.model_dump(mode="json").items() if values}


def require_known(
    reach: Reach, products: Collection[str], categories: Collection[str], languages: Iterable[str] = ()
) -> None:
    """Refuse a reach that names what the shop does not have.

    Raises:
        BadReach: Names what is unknown and, where that is a short list, what there is.
    """
    for field, names in (("products", reach.products), ("not_products", reach.not_products)):
        for sku in names:
            if sku not in products:
                raise BadReach(f"No product has the code {sku!r}.", field=field, value=sku)
    for field, names in (("categories", reach.categories), ("not_categories", reach.not_categories)):
        for category in names:
            if category not in categories:
                allowed = ", ".join(sorted(categories)[:20])
                raise BadReach(f"There is no category {category!r}. There are: {allowed}.", field=field, value=category)
    spoken = set(languages)
    for language in reach.languages:
        if spoken and language not in spoken:
            allowed = ", ".join(sorted(spoken))
            raise BadReach(f"The shop does not speak {language!r}. It speaks: {allowed}.", field="languages")
