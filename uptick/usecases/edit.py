"""Changing the draft. Every change is one step that can be undone."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import date, datetime
from typing import Any

from pydantic import ValidationError

from uptick.core.button.document import require_layer
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import WHOLE_FIELDS, field_title
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import Json, at_path, is_tagged, leaves, merge_layer, without_gaps
from uptick.core.engine.layers import USES
from uptick.core.errors import BadDocument, NotFound, OutOfRange
from uptick.core.release import turning_days
from uptick.core.resolved.reach_words import listed, say_reach, vocabulary_of
from uptick.core.resolved.resolve import place_title
from uptick.core.resolved.sound import require_makeable
from uptick.core.rules.fresh_ids import fresh_id
from uptick.core.rules.history import Mark, redoable, require_mark, revert, undoable
from uptick.core.rules.reach import Reach, require_known
from uptick.core.rules.settings import ADDED, ExceptionRule, Settings
from uptick.core.words.wording import is_rtl, language_name
from uptick.usecases.ports import Draft, Person, Shop


def change_layer(
    shop: Shop, layer_id: str, patch: Json, base_version: int, person: Person, now: datetime, *, label: str = ""
) -> Draft:
    """Apply a patch to one layer of the draft; null resets a field to the wider rule.

    Raises:
        NotFound: There is no such layer.
        BadDocument, BadWording, OutOfRange: The result would not make a button; the draft stays as it was.
        Stale: Somebody changed the draft meanwhile.
    """
    settings = shop.drafts.read().settings
    after = changed_settings(shop, settings, layer_id, patch)
    summary = (
        f"{layer_title(after, layer_id)}: {label}"
        if label
        else _label(after, layer_id, settings.layer(layer_id), patch)
    )
    return shop.drafts.append(base_version, after, summary, person, now)


def changed_settings(shop: Shop, settings: Settings, layer_id: str, patch: Json) -> Settings:
    """Return settings with a patch applied to one layer; nothing is kept.

    Raises:
        NotFound: There is no such layer.
        BadDocument, BadWording, OutOfRange: The result would not make a button.
    """
    after = patched(settings, layer_id, patch)
    require_sound(shop, after)
    return after


def patched(settings: Settings, layer_id: str, patch: Json) -> Settings:
    """Return settings with a patch applied to one layer, whether or not they make buttons.

    Raises:
        NotFound: There is no such layer.
        BadDocument: The patch changes a part of a tagged value.
    """
    layer = settings.layer(layer_id)
    if layer is None:
        raise NotFound(f"There is no layer {layer_id!r}.", layer=layer_id)
    require_whole_tags(patch)
    after = without_gaps(merge_layer(layer, patch))
    require_layer(after)
    return settings.with_layer(layer_id, after)


def require_whole_tags(patch: Json, path: str = "") -> None:
    """Refuse a patch that changes a part of a tagged value, which layers replace whole."""
    for key, value in patch.items():
        here = f"{path}{key}"
        if here in WHOLE_FIELDS:
            if isinstance(value, dict) and not is_tagged(value):
                raise BadDocument(f"{here} is replaced whole: give its kind and all that belongs to it.", field=here)
        elif isinstance(value, dict):
            require_whole_tags(value, here + ".")


def require_sound(shop: Shop, settings: Settings) -> None:
    """Refuse settings in which some button would not compile, today or on a day when other exceptions count."""
    for day in turning_days(settings, shop.today):
        require_makeable(shop.as_written(settings.on_day(day)))
    for raw in (settings.baseline, *settings.placements.values(), *(rule.layer for rule in settings.exceptions)):
        if (used := raw.get(USES)) and used not in settings.looks:
            raise BadDocument(f"uses: there is no look {used!r}.", field=USES)


# These placements are there once something is said of them.
_ADDED = {LayerRef.place(place) for place in ADDED}


def _label(settings: Settings, layer_id: str, before: Json | None, patch: Json) -> str:
    before = before or {}
    where = layer_title(settings, layer_id)
    if layer_id in _ADDED and bool(before) != bool(settings.layer(layer_id)):
        return f"{where}: {'taken away' if before else 'added'}"
    paths = [path for path, _ in leaves(patch)]
    if len(paths) != 1:
        names = ", ".join(field_title(path) for path in paths[:3])
        return f"{where}: {names}{' and more' if len(paths) > 3 else ''}"
    path = paths[0]
    new: Any = at_path(patch, path)
    now_says = value_text(new) if new not in (None, "") else "as the wider rule"
    return f"{where}: {field_title(path)}, {value_text(at_path(before, path))} → {now_says}"


def layer_title(settings: Settings, layer_id: str) -> str:
    """Return what a designer calls a layer."""
    ref = LayerRef(layer_id)
    name = ref.name
    if ref.kind == "look":
        return f"Look {settings.looks[name].name}" if name in settings.looks else name
    if ref.kind == "exception":
        return next((e.name for e in settings.exceptions if e.id == name), name)
    return place_title(name) if name else "Store baseline"


def undo(shop: Shop, person: Person, now: datetime) -> Draft:
    """Take back a person's own newest change, whatever others have done since.

    Raises:
        NothingToUndo: Nothing of theirs is left.
        Overtaken: Somebody has changed the same since.
    """
    mark = require_mark(undoable(shop.drafts.marks(), person.id), "undo")
    return _revert(shop, mark, f"Undone: {mark.label}", person, now)


def redo(shop: Shop, person: Person, now: datetime) -> Draft:
    """Do again what a person undid last.

    Raises:
        NothingToUndo: They undid nothing, or have changed something since.
        Overtaken: Somebody has changed the same since.
    """
    mark = require_mark(redoable(shop.drafts.marks(), person.id), "redo")
    return _revert(shop, mark, f"Redone: {mark.label.removeprefix('Undone: ')}", person, now)


def _revert(shop: Shop, mark: Mark, label: str, person: Person, now: datetime) -> Draft:
    draft = shop.drafts.read()
    before, after = shop.drafts.settings_at(mark.n - 1), shop.drafts.settings_at(mark.n)
    settings = revert(draft.settings, before, after)
    require_sound(shop, settings)
    return shop.drafts.append(draft.version, settings, label, person, now, reverts=mark.n)


@dataclass(frozen=True, slots=True)
class Wish:
    """What an exception shall be, besides its layer."""

    name: str
    note: str
    reach: Reach
    starts_on: date | None = None
    ends_on: date | None = None


def add_exception(shop: Shop, wish: Wish, layer: Json, base_version: int, person: Person, now: datetime) -> Draft:
    """Add a layer with a reach and a note to the draft.

    Raises:
        BadReach: It names a product, category or language that the shop has not.
        BadDocument: It would make no button, or its days are not in order.
    """
    draft = shop.drafts.read()
    require_reach(shop, wish.reach)
    require_whole_tags(layer)
    require_layer(without_gaps(layer))
    rule = _rule(
        id=next_rule_id(draft),
        author=person.name,
        made_at=now,
        layer=without_gaps(layer),
        **{f.name: getattr(wish, f.name) for f in fields(wish)},
    )
    after = draft.settings.model_copy(update={"exceptions": (*draft.settings.exceptions, rule)})
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, f"Exception made: {rule.name}", person, now)


def next_rule_id(draft: Draft) -> str:
    """Return an id that no exception of the draft has had."""
    return fresh_id("e", {rule.id for rule in draft.settings.exceptions}, draft.version)


def _rule(**values: Any) -> ExceptionRule:
    try:
        return ExceptionRule(**values)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False, include_context=False)[0]
        field = ".".join(str(step) for step in first["loc"])
        says = first["msg"].removeprefix("Value error, ")
        raise BadDocument(f"{field or 'exception'}: {says}.", field=field) from error


def require_reach(shop: Shop, reach: Reach) -> None:
    """Check that a reach names what the store has.

    Raises:
        BadReach: It names what the store does not have.
    """
    snapshot = shop.now()
    require_known(reach, snapshot.goods.row_of, snapshot.goods.by_category, snapshot.settings.languages)


CHANGEABLE = ("name", "note", "reach", "on", "starts_on", "ends_on", "meant")


def change_exception(
    shop: Shop, rule_id: str, changes: Mapping[str, Any], base_version: int, person: Person, now: datetime
) -> Draft:
    """Change what an exception is: its name, note, reach, days, whether it is on. Its values change as a layer's.

    Raises:
        NotFound: There is no such exception.
        BadReach, BadDocument: As for `add_exception`; names that it had before and that are gone may stay.
    """
    draft = shop.drafts.read()
    rule = _require_exception(draft.settings, rule_id)
    unknown = sorted(set(changes) - set(CHANGEABLE))
    if unknown:
        raise BadDocument(f"{unknown[0]} is none of {', '.join(CHANGEABLE)}.", field=unknown[0])
    changed = _rule(**{**rule.model_dump(), **changes})
    if changed.reach != rule.reach:
        require_reach(shop, _without_kept(changed.reach, rule.reach))
    after = draft.settings.with_exception(rule_id, **{name: getattr(changed, name) for name in CHANGEABLE})
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, _change_label(shop, rule, changed), person, now)


def _without_kept(reach: Reach, before: Reach) -> Reach:
    names = ("products", "categories", "not_products", "not_categories")
    kept = {name: tuple(v for v in getattr(reach, name) if v not in getattr(before, name)) for name in names}
    return reach.model_copy(update=kept)


def _change_label(shop: Shop, before: ExceptionRule, after: ExceptionRule) -> str:
    if before.on != after.on:
        return f"{after.name}: switched {'on' if after.on else 'off'}"
    if before.reach != after.reach:
        names = vocabulary_of(shop.now())
        return f"{after.name}: {say_reach(before.reach, names)} → {say_reach(after.reach, names)}"
    if (before.starts_on, before.ends_on) != (after.starts_on, after.ends_on):
        return f"{after.name}: {_days(after)}"
    if before.name != after.name:
        return f"{before.name}: called {after.name}"
    return f"{after.name}: {'its difference is meant' if after.meant and not before.meant else 'note'}"


def _days(rule: ExceptionRule) -> str:
    begins = f"from {rule.starts_on:%-d %B %Y}" if rule.starts_on else ""
    ends = f"until {rule.ends_on:%-d %B %Y}" if rule.ends_on else ""
    return " ".join(filter(None, (begins, ends))) or "on every day"


def _require_exception(settings: Settings, rule_id: str) -> ExceptionRule:
    rule = settings.exception(rule_id)
    if rule is None:
        raise NotFound(f"There is no exception {rule_id!r}.", exception=rule_id)
    return rule


def remove_exception(shop: Shop, rule_id: str, base_version: int, person: Person, now: datetime) -> Draft:
    """Take an exception out of the draft; what it covered falls back to the wider rule."""
    draft = shop.drafts.read()
    gone = _require_exception(draft.settings, rule_id)
    kept = tuple(rule for rule in draft.settings.exceptions if rule.id != rule_id)
    after = draft.settings.model_copy(update={"exceptions": kept})
    return shop.drafts.append(base_version, after, f"Exception removed: {gone.name}", person, now)


def set_languages(shop: Shop, more: Sequence[str], base_version: int, person: Person, now: datetime) -> Draft:
    """Say which languages the buttons speak besides the store's first; texts of others are kept unseen.

    Raises:
        OutOfRange: One of them is no language that CLDR knows.
    """
    for language in more:
        is_rtl(language)
    draft = shop.drafts.read()
    try:
        after = Settings.model_validate({**draft.settings.model_dump(mode="json"), "more_languages": list(more)})
    except ValidationError as error:
        raise OutOfRange.of("a language", "written as de or de-DE", more) from error
    require_sound(shop, after)
    names = listed(language_name(spoken) for spoken in after.languages)
    return shop.drafts.append(base_version, after, f"Languages: {names}", person, now)
