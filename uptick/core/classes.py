"""Classes: products that the same exceptions cover share one button document, and that is what is resolved."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from uptick.core.catalogue import Product
from uptick.core.document import ButtonDocument, Moment, Placement, Situation
from uptick.core.memo import remembered
from uptick.core.reach import Context, Reach
from uptick.core.resolve import VersionLayer, covering, resolve
from uptick.core.settings import Settings

MOMENTS_OF = {
    Situation.PLAIN: (Moment.READY, Moment.WORKING, Moment.ADDED, Moment.IN_BASKET),
    Situation.CHOICE: (Moment.CHOOSE_FIRST, Moment.READY, Moment.WORKING, Moment.ADDED, Moment.IN_BASKET),
    Situation.SOLD_OUT: (Moment.SOLD_OUT,),
}


@dataclass(frozen=True, slots=True)
class ButtonClass:
    """One document and the products that it serves now. `rules` are the ids of the covering exceptions."""

    placement: Placement
    rules: tuple[str, ...]
    document: ButtonDocument
    products: tuple[Product, ...]
    example: Context

    @property
    def key(self) -> str:
        return ",".join(self.rules)

    @property
    def top_layer(self) -> str:
        """Return the id of the layer that an edit of just this class belongs to."""
        return f"exception:{self.rules[-1]}" if self.rules else f"place:{self.placement}"


def context_of(placement: Placement, product: Product, situation: Situation | None = None) -> Context:
    return Context(placement, product.sku, product.category, situation or product.situation)


@remembered(32)
def classes_of(settings: Settings, products: Sequence[Product]) -> tuple[ButtonClass, ...]:
    """Return the distinct classes of a shop, every placement's plain class first.

    A product's other situations are looked at too, since stock changes between releases.
    """
    found: dict[tuple[Placement, tuple[str, ...]], tuple[Context, list[Product]]] = {}
    for placement in Placement:
        found[placement, ()] = (Context(placement, "", "", None), [])
        for product in products:
            for situation in Situation:
                context = context_of(placement, product, situation)
                rules = tuple(rule.id for rule in covering(settings, context))
                _, members = found.setdefault((placement, rules), (context, []))
                if situation is product.situation:
                    members.append(product)
    return tuple(
        ButtonClass(placement, rules, resolve(settings, context), tuple(members), context)
        for (placement, rules), (context, members) in found.items()
    )


def under_version(one: ButtonClass, settings: Settings, version: VersionLayer) -> ButtonClass:
    """Return a class as a version of a trial makes it, wherever the trial's reach covers its products."""
    everywhere = replace(version, reach=Reach())
    return replace(one, document=resolve(settings, one.example, [everywhere]))


def class_for(classes: Sequence[ButtonClass], settings: Settings, context: Context) -> ButtonClass:
    """Return the class that serves a context; a product outside the catalogue gets the placement's plain one."""
    rules = tuple(rule.id for rule in covering(settings, context))
    plain = None
    for one in classes:
        if one.placement is context.placement:
            if one.rules == rules:
                return one
            plain = one if not one.rules else plain
    assert plain is not None
    return plain
