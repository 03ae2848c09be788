"""Changing the draft. Every change is one step that can be undone."""

from datetime import datetime
from typing import Any

from uptick.core.classes import classes_of
from uptick.core.document import field_name, value_text
from uptick.core.errors import BadDocument, NotFound
from uptick.core.merge import Json, at_path, is_tagged, leaves, merge_layer, without_gaps
from uptick.core.reach import Reach, require_known
from uptick.core.settings import ExceptionRule, Settings
from uptick.core.wording import parse_text
from uptick.usecases.ports import Draft, Person, Shop


def change_layer(shop: Shop, layer_id: str, patch: Json, base_version: int, person: Person, now: datetime) -> Draft:
    """Apply a patch to one layer of the draft; null resets a field to the wider rule.

    Raises:
        NotFound: There is no such layer.
        BadDocument, BadWording, OutOfRange: The result would not make a button; the draft stays as it was.
        Stale: Somebody changed the draft meanwhile.
    """
    settings = shop.drafts.read().settings
    layer = settings.layer(layer_id)
    if layer is None:
        raise NotFound(f"There is no layer {layer_id!r}.", layer=layer_id)
    require_whole_tags(patch)
    changed = without_gaps(merge_layer(layer, patch))
    after = settings.with_layer(layer_id, changed)
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, _label(after, layer_id, layer, patch), person.name, now)


def require_whole_tags(patch: Json, path: str = "") -> None:
    """Refuse a patch that changes a part of a tagged value, which layers replace whole."""
    for key, value in patch.items():
        here = f"{path}{key}"
        if here in {"look.size", "look.fill", "icon", "look.hover.fill", "look.focus.fill", "look.disabled.fill"}:
            if value is not None and not is_tagged(value):
                raise BadDocument(f"{here} is replaced whole: give its kind and all that belongs to it.", field=here)
        elif isinstance(value, dict):
            require_whole_tags(value, here + ".")


def require_sound(shop: Shop, settings: Settings) -> None:
    """Refuse settings in which some button would not compile."""
    for one in classes_of(settings, shop.catalogue.all()):
        kind, icon = one.document.look.type, one.document.icon
        lightest, heaviest = shop.kit.fonts.weights(kind.family)
        if not lightest <= kind.weight <= heaviest:
            raise BadDocument(
                f"look.type.weight: {kind.family.capitalize()} has {lightest} to {heaviest}; it is {kind.weight}.",
                field="look.type.weight",
            )
        if icon.kind == "shipped" and icon.name not in shop.kit.icons:
            raise BadDocument(f"icon.name: there is no icon {icon.name!r}.", field="icon.name")
        for texts in one.document.wording.values():
            for text in texts.values():
                parse_text(text)


def _label(settings: Settings, layer_id: str, before: Json, patch: Json) -> str:
    where = layer_title(settings, layer_id)
    paths = [path for path, _ in leaves(patch)]
    if len(paths) != 1:
        names = ", ".join(field_name(path) for path in paths[:3])
        return f"{where}: {names}{' and more' if len(paths) > 3 else ''}"
    path = paths[0]
    new: Any = at_path(patch, path)
    now_says = value_text(new) if new not in (None, "") else "as the wider rule"
    return f"{where}: {field_name(path)}, {value_text(at_path(before, path))} → {now_says}"


def layer_title(settings: Settings, layer_id: str) -> str:
    """Return what a designer calls a layer."""
    kind, _, name = layer_id.partition(":")
    if kind == "exception":
        return next((e.name for e in settings.exceptions if e.id == name), name)
    return name.replace("_", " ").capitalize() if name else "Store baseline"


def undo(shop: Shop) -> Draft:
    return shop.drafts.move(-1)


def redo(shop: Shop) -> Draft:
    return shop.drafts.move(+1)


def add_exception(
    shop: Shop, name: str, note: str, reach: Reach, layer: Json, base_version: int, person: Person, now: datetime
) -> Draft:
    """Add a layer with a reach and a note to the draft.

    Raises:
        BadReach: It names a product or category that is not in the catalogue, or nothing at all.
    """
    draft = shop.drafts.read()
    require_reach(shop, reach)
    require_whole_tags(layer)
    taken = {int(rule.id.removeprefix("e")) for rule in draft.settings.exceptions}
    rule = ExceptionRule(
        id=f"e{max(taken, default=0) + 1}",
        name=name,
        note=note,
        author=person.name,
        made_at=now,
        reach=reach,
        layer=without_gaps(layer),
    )
    after = draft.settings.model_copy(update={"exceptions": (*draft.settings.exceptions, rule)})
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, f"Exception made: {name}", person.name, now)


def require_reach(shop: Shop, reach: Reach) -> None:
    products = shop.catalogue.all()
    require_known(reach, (p.sku for p in products), (p.category for p in products))


def remove_exception(shop: Shop, rule_id: str, base_version: int, person: Person, now: datetime) -> Draft:
    """Take an exception out of the draft; what it covered falls back to the wider rule."""
    draft = shop.drafts.read()
    gone = next((rule for rule in draft.settings.exceptions if rule.id == rule_id), None)
    if gone is None:
        raise NotFound(f"There is no exception {rule_id!r}.", exception=rule_id)
    kept = tuple(rule for rule in draft.settings.exceptions if rule.id != rule_id)
    after = draft.settings.model_copy(update={"exceptions": kept})
    return shop.drafts.append(base_version, after, f"Exception removed: {gone.name}", person.name, now)
