"""Which layer a value of a class comes from, so that a fix goes where it belongs."""

from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import at_path
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass


def order_of(button: ButtonClass) -> list[LayerRef]:
    """Return the layers of a class, the widest first."""
    return [BASELINE, LayerRef.place(button.placement), *map(LayerRef.exception, button.rules)]


def set_in(snapshot: Snapshot, button: ButtonClass, field: str) -> int:
    """Return the place, in the order of a class's layers, of the one that a field's value comes from; 0 of none."""
    layers, order = snapshot.layers, order_of(button)
    for n in range(len(order) - 1, -1, -1):
        layer = layers.get(order[n])
        if layer is not None and at_path(layer.content, field) is not None:
            return n
    return 0


def narrower(snapshot: Snapshot, button: ButtonClass, *fields: str) -> LayerRef:
    """Return the narrowest of the layers that some fields come from."""
    return order_of(button)[max(set_in(snapshot, button, field) for field in fields)]


def look_rules(snapshot: Snapshot, button: ButtonClass) -> tuple[object, ...]:
    """Return what stands for the layers that draw a class: those that have it in common are drawn alike."""
    drawn = snapshot.drawing_rules
    return (button.placement, *[rule for rule in button.rules if rule in drawn])
