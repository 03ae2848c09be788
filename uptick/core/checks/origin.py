"""Which layer a value of a class comes from, so that a mend goes where it belongs."""

from uptick.core.classes import ButtonClass
from uptick.core.merge import at_path
from uptick.core.resolve import clean_layers
from uptick.core.settings import Settings


def order_of(one: ButtonClass) -> list[str]:
    """Return the layers of a class, the widest first."""
    return ["baseline", f"place:{one.placement}", *(f"exception:{rule}" for rule in one.rules)]


def set_in(settings: Settings, one: ButtonClass, field: str) -> int:
    """Return the place, in the order of a class's layers, of the one that a field's value comes from; 0 of none."""
    layers, order = clean_layers(settings), order_of(one)
    return next((n for n in range(len(order) - 1, -1, -1) if at_path(layers.get(order[n], {}), field) is not None), 0)


def narrower(settings: Settings, one: ButtonClass, *fields: str) -> str:
    """Return the narrowest of the layers that some fields come from."""
    return order_of(one)[max(set_in(settings, one, field) for field in fields)]
