"""What a check says: a finding with its number, and fixes that have been computed."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from uptick.core.button.document import Placement
from uptick.core.button.merge import Json
from uptick.core.resolved.classes import ButtonClass
from uptick.core.resolved.reach_words import listed


class Weight(StrEnum):
    """How much a finding matters, worst first."""

    MUST_FIX = "must_fix"
    LOOK_AGAIN = "look_again"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Fix:
    """A patch for a layer that has been computed to remove the finding.

    With `of_rule` the patch is for the exception itself: whether it is on, its reach, its days.
    """

    label: str
    layer: str
    patch: Json
    of_rule: bool = False


@dataclass(frozen=True, slots=True)
class Spot:
    """One class of buttons, as a finding names it."""

    placement: Placement
    class_key: str


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check found, and in which buttons. `spot` says which part of the drawing it points at."""

    rule: str
    weight: Weight
    buttons: tuple[Spot, ...]
    spot: str
    title: str
    says: str
    figure: float
    allowed: float
    fixes: tuple[Fix, ...] = ()

    def is_about(self, button: ButtonClass) -> bool:
        """Tell whether it is about a class of buttons."""
        return Spot(button.placement, button.key) in self.buttons

    def told(self) -> "Finding":
        """Return the finding itself: it is told as it was found."""
        return self


@dataclass(frozen=True, slots=True)
class Sighting:
    """A finding before its sentence and its fixes are worked out, which takes longer than to see that it is there."""

    rule: str
    weight: Weight
    buttons: tuple[Spot, ...]
    title: str
    tell: Callable[[], Finding]

    def is_about(self, button: ButtonClass) -> bool:
        """Tell whether it is about a class of buttons."""
        return Spot(button.placement, button.key) in self.buttons

    def told(self) -> Finding:
        """Return the whole finding."""
        return replace(self.tell(), buttons=self.buttons)


Found = Finding | Sighting


def spots(*buttons: ButtonClass) -> tuple[Spot, ...]:
    """Return the spots of some classes: their placement with each of their keys."""
    return tuple(Spot(button.placement, key) for button in buttons for key in button.keys)


def said(name: str) -> str:
    """Return a code's name as words."""
    return name.replace("_", " ")


_PLACES = {
    Placement.OVER_PICTURE: "picture",
    Placement.FLOATING: "floating button",
    Placement.TILE: "tiles",
    Placement.OUTSIDE: "outside button",
}


def _placed(button: ButtonClass) -> str:
    """Return what stands after "on the"."""
    return _PLACES.get(button.placement, said(button.placement))


def where(button: ButtonClass) -> str:
    """Say which buttons a finding is about."""
    place = _placed(button)
    if not button.rules or not button.count:
        return f"on the {place}"
    first = button.batches[0].first
    names = [first.name]
    if button.count > 1:
        names = sorted({p.category for batch in button.batches for p in batch.some(200)})
    some = ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")
    return f"on the {place}, {some}"


def where_all(buttons: Sequence[ButtonClass]) -> str:
    """Return where some buttons are, as words that end a sentence."""
    if len(buttons) == 1:
        return where(buttons[0])
    return "on " + listed(dict.fromkeys(f"the {_placed(button)}" for button in buttons))
