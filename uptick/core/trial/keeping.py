"""A winner put into the draft for those it won with, and what shows instead of it where something stands above it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime

from uptick.core.button.fields import field_title
from uptick.core.button.merge import Json, at_path, leaves, merge_layer
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.trial.record import Trial


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """An exception that would stand above a kept winner, which in the trial stood above it.

    Attributes:
        exception: Its name.
        fields: What of the winner's it says otherwise, as a designer calls it.
        products: How many products of the trial it covers.
        example: The name of one of them.
    """

    id: str
    exception: str
    fields: tuple[str, ...]
    products: int
    example: str


def is_whole(reach: Reach) -> bool:
    """Tell whether a reach narrows nothing but the placements: what won there is those placements' own from now on."""
    return reach.narrowed().keys() <= {"placements"}


def with_winner(settings: Settings, trial: Trial, rule_id: str, author: str, now: datetime) -> Settings:
    """Return settings in which B's values hold at the trial's own reach, and nowhere else.

    Args:
        rule_id: The id of the exception that a narrower reach is kept as.
    """
    if is_whole(trial.reach):
        for place in trial.reach.placements:
            layer = merge_layer(settings.placements.get(place, {}), trial.layer)
            settings = settings.with_layer(f"place:{place}", layer)
        return settings
    rule = ExceptionRule(
        id=rule_id,
        name=f"Winner of trial {trial.number}",
        note=f"{trial.question} B was kept.",
        author=author,
        made_at=now,
        reach=trial.reach,
        layer=trial.layer,
    )
    return settings.model_copy(update={"exceptions": (*settings.exceptions, rule)})


def shown_elsewhere(settings: Settings, trial: Trial, products: Sequence[Product]) -> tuple[Elsewhere, ...]:
    """Return the exceptions on whose buttons something else than B will show once it is kept.

    While it is tried a version stands above every exception; kept, it stands under those that are more particular.
    """
    whole = is_whole(trial.reach)
    covered = [product for product in products if trial.reach.covers_goods(product)]
    return tuple(
        Elsewhere(rule.id, rule.name, fields, len(both), both[0].name)
        for rule in settings.exceptions
        if rule.on
        and (whole or rule.reach.is_more_particular(trial.reach))
        and (fields := _said_otherwise(trial.layer, rule.layer))
        and rule.reach.intersection(trial.reach) is not None
        and (both := [product for product in covered if rule.reach.covers_goods(product)])
    )


def _said_otherwise(mine: Json, theirs: Json) -> tuple[str, ...]:
    """Return the fields of one layer that another one says otherwise."""
    paths = [path for path, _ in leaves(theirs)]
    return tuple(
        dict.fromkeys(
            "words" if path.startswith("wording.") else field_title(path)
            for path, value in leaves(mine)
            if _is_touched(path, paths) and at_path(theirs, path) != value
        )
    )


def _is_touched(path: str, others: Iterable[str]) -> bool:
    return any(path == other or path.startswith(f"{other}.") or other.startswith(f"{path}.") for other in others)
