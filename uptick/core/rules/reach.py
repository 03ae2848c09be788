"""What an exception covers, and which of two is the more particular."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import Annotated

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
        return replace(self, device=device, language=language, shopper=shopper or self.shopper)


Names = Annotated[tuple[str, ...], Field(max_length=500)]
# The order in which particularity is compared, left to right, as the specificity of CSS selectors is.
DIMENSIONS = ("products", "categories", "situations", "placements", "devices", "languages", "shoppers")


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
        return (
            (not self.products or product in self.products)
            and (not self.categories or category in self.categories)
            and product not in self.not_products
            and category not in self.not_categories
        )

    @property
    def narrows_products(self) -> bool:
        return bool(self.products or self.categories or self.not_products or self.not_categories)

    def meets_where(self, other: "Reach") -> bool:
        """Tell whether some context is covered by both, as far as products and categories are left out."""
        pairs = ((getattr(self, name), getattr(other, name)) for name in DIMENSIONS[2:])
        return all(not mine or not theirs or set(mine) & set(theirs) for mine, theirs in pairs)

    def particularity(self) -> tuple[bool, ...]:
        """Return which dimensions are narrowed, in the order of `DIMENSIONS`; the larger tuple is more particular."""
        return (
            bool(self.products), bool(self.categories), bool(self.situations), bool(self.placements),
            bool(self.devices), bool(self.languages), bool(self.shoppers),
        )  # fmt: skip

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
