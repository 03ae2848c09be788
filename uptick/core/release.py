"""Releases: the draft compiled into what the edge serves, and what differs between two drafts."""

import hashlib
import json
from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from uptick.core.catalogue import Product
from uptick.core.classes import ButtonClass, class_for, classes_of, context_of, under_version
from uptick.core.compile import Kit, compile_button, font_family
from uptick.core.document import Placement, field_name, value_text
from uptick.core.merge import Json, at_path, leaves
from uptick.core.reach import Context
from uptick.core.resolve import VersionLayer
from uptick.core.settings import Settings
from uptick.core.store import Store
from uptick.core.wording import money_rule


@dataclass(frozen=True, slots=True)
class FieldChange:
    """One field of the document that differs: its path, what a designer calls it, and both values in words."""

    path: str
    field: str
    before: str
    after: str


@dataclass(frozen=True, slots=True)
class ButtonChange:
    """One kind of button that a release would change, before and after."""

    placement: Placement
    products: tuple[Product, ...]
    before: ButtonClass
    after: ButtonClass
    fields: tuple[FieldChange, ...]


def compile_release(settings: Settings, store: Store, products: Sequence[Product], kit: Kit) -> Json:
    """Return the compiled form of a draft, without its number."""
    classes = classes_of(settings, products)
    languages = (store.language,)
    used = sorted({one.document.look.type.family for one in classes})
    return {
        "language": store.language,
        "money": {language: asdict(money_rule(language, store.currency)) for language in languages},
        "basket": store.connection.model_dump(mode="json"),
        "fonts": compile_fonts(kit, used),
        "rules": [
            {"id": rule.id, "reach": rule.reach.model_dump(mode="json"), "rank": rule.reach.particularity()}
            for rule in settings.exceptions
            if rule.on
        ],
        "places": {
            placement.value: {
                one.key: compile_button(one.document, kit, languages) for one in classes if one.placement is placement
            }
            for placement in Placement
        },
    }


def compile_fonts(kit: Kit, families: Iterable[str]) -> list[Json]:
    return [
        {
            "family": font_family(file.family),
            "weight": f"{file.lightest} {file.heaviest}",
            "range": ",".join(f"U+{a:X}-{b:X}" if a != b else f"U+{a:X}" for a, b in file.ranges),
            "file": f"{hashlib.sha256(file.content).hexdigest()[:16]}.woff2",
        }
        for file in kit.fonts.files
        if file.family in set(families)
    ]


def compile_version(
    settings: Settings, store: Store, products: Sequence[Product], kit: Kit, version: VersionLayer
) -> Json:
    """Return the buttons of one version of a trial, by placement and class, on the settings of a release.

    Who is in its reach is decided where it is shown: a class may hold products that are and others that are not.
    """
    compiled: Json = {}
    for one in classes_of(settings, products):
        if not version.reach.placements or one.placement in version.reach.placements:
            made = compile_button(under_version(one, settings, version).document, kit, (store.language,))
            compiled.setdefault(one.placement.value, {})[one.key] = made
    return compiled


def content_hash(content: Json) -> str:
    """Return the name of some content by its own bytes: equal content, equal name."""
    text = json.dumps(content, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def changes_between(before: Settings, after: Settings, products: Sequence[Product]) -> tuple[ButtonChange, ...]:
    """Return the buttons that differ, grouped so that products changed in the same way stand together."""
    return tuple(
        ButtonChange(was.placement, members, was, now, field_changes(was, now))
        for was, now, members in differing_classes(before, after, products)
    )


def differing_classes(
    before: Settings, after: Settings, products: Sequence[Product]
) -> list[tuple[ButtonClass, ButtonClass, tuple[Product, ...]]]:
    """Return pairs of classes, as they were and are, whose buttons differ for the products told with them."""
    old, new = classes_of(before, products), classes_of(after, products)
    groups: dict[tuple[Placement, str, str], tuple[ButtonClass, ButtonClass, list[Product]]] = {}
    for placement in Placement:
        for product in products:
            context = context_of(placement, product)
            was, now = class_for(old, before, context), class_for(new, after, context)
            groups.setdefault((placement, was.key, now.key), (was, now, []))[2].append(product)
    return [(was, now, tuple(members)) for was, now, members in groups.values() if was.document != now.document]


def field_changes(was: ButtonClass, now: ButtonClass) -> tuple[FieldChange, ...]:
    old: dict[str, Any] = was.document.model_dump(mode="json")
    new: dict[str, Any] = now.document.model_dump(mode="json")
    paths = dict.fromkeys([path for path, _ in leaves(old)] + [path for path, _ in leaves(new)])
    return tuple(
        FieldChange(path, field_name(path), value_text(at_path(old, path)), value_text(at_path(new, path)))
        for path in paths
        if at_path(old, path) != at_path(new, path)
    )


def touches(changes: Sequence[ButtonChange], version: VersionLayer) -> bool:
    """Tell whether any change is to a button that a trial compares."""
    return any(
        version.reach.covers(Context(c.placement, p.sku, p.category, p.situation)) for c in changes for p in c.products
    )
