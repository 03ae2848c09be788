"""Texts that a language lacks, live values that a product lacks, and texts that differ from place to place."""

from collections.abc import Iterator, Mapping, Sequence

from uptick.core.button.document import Moment, Placement, ShopperKind
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import Json
from uptick.core.checks.finding import Finding, Fix, Weight, said, spots, where
from uptick.core.engine.goods import Batch
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.fitting.fill import products_without, some_lack, template_of, text_for
from uptick.core.resolved.classes import ButtonClass, bare_class, context_of, moments_of
from uptick.core.resolved.reach_words import listed
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.words.wider_texts import needed_by
from uptick.core.words.wording import language_name


def check_texts(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Test what is said; nothing of it depends on how the buttons look."""
    yield from _lacking(snapshot.settings, classes)
    yield from _valueless(snapshot, classes)
    yield from _differing(snapshot, classes)


def _lacking(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find texts for which the store's first language stands in, told once a language."""
    plain = [button for button in classes if not button.rules]
    for language in settings.languages[1:]:
        lacks = {
            moment: [
                kind
                for kind in plain
                if moment in kind.document.wording and language not in kind.document.wording[moment]
            ]
            for moment in Moment
        }
        moments = [moment for moment, where_lacking in lacks.items() if where_lacking]
        if moments:
            buttons = tuple(dict.fromkeys(kind for those in lacks.values() for kind in those))
            first = language_name(settings.language)
            yield Finding(
                "language", Weight.LOOK_AGAIN, spots(*buttons), "words",
                f"{language_name(language)} lacks {_many(len(moments), 'text')}",
                f"{listed(said(moment) for moment in moments)}: shoppers read {first} there.",
                len(moments), 0,
            )  # fmt: skip


def check_languages(snapshot: Snapshot) -> Iterator[Finding]:
    """Find exceptions that say something in some languages only: the others go on saying the wider text."""
    settings = snapshot.settings
    for rule in settings.exceptions:
        spoken = rule.reach.languages or settings.languages
        for moment, texts in _said_by(snapshot, rule).items():
            lacks = [language for language in spoken if language not in texts]
            if rule.on and lacks:
                yield Finding(
                    "language", Weight.NOTE, (), "words",
                    f"“{rule.name}” says nothing in {listed(language_name(lack) for lack in lacks)}",
                    f"When {said(moment)}, shoppers who read that see the wider text.",
                    len(lacks), 0,
                )  # fmt: skip


def _said_by(snapshot: Snapshot, rule: ExceptionRule) -> Json:
    return snapshot.layers[LayerRef.exception(rule.id)].content.get("wording") or {}


def _valueless(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find live values that some product has not: it says something else than what was written."""
    by_missing: dict[tuple[str, str], tuple[dict[str, Product], ButtonClass, str, Moment, str]] = {}
    for button in classes:
        if not button.document.placement.shown:
            continue
        holes = _holes(snapshot, button)
        for name, template, lacking, moment, language in holes:
            kept = by_missing.setdefault((name, button.placement), ({}, button, template, moment, language))[0]
            kept.update((product.sku, product) for product in lacking.products)
    for (name, _), (lacking_products, button, template, moment, language) in by_missing.items():
        n = len(lacking_products)
        example = next(iter(lacking_products.values()))
        instead = text_for(button.document, moment, language, example, first=snapshot.settings.language)
        more = f" and {n - 1:,} more" if n > 1 else ""
        yield Finding(
            "live_value", Weight.MUST_FIX if name != "page" else Weight.LOOK_AGAIN, spots(button), "words",
            f"{{{name}}} has no value for {_many(n, 'product')}",
            f"“{template}” {where(button)}. {example.name}{more} would say “{instead}” instead.",
            n, 0,
        )  # fmt: skip


_Hole = tuple[str, str, Batch, Moment, str]


def _holes(snapshot: Snapshot, button: ButtonClass) -> Sequence[_Hole]:
    """Return the live values of a class's texts that some of its products have not."""
    first = snapshot.settings.language
    key = ("holes", button.texts.number, button.batch_numbers, button.languages, first)
    return snapshot.tables.ask(Step.FINDINGS, key, lambda: tuple(_find_holes(snapshot, button, first)))


def _find_holes(snapshot: Snapshot, button: ButtonClass, first: str) -> Iterator[_Hole]:
    tables, goods = snapshot.tables, snapshot.goods
    for language in button.languages:
        needs = {
            moment: [
                name
                for name in needed_by(template_of(button.document, moment, language, first))
                if some_lack(tables, goods, name)
            ]
            for moment in Moment
        }
        if not any(needs.values()):
            continue
        for batch in button.batches:
            for moment in moments_of(button.document, batch.situation):
                for name in needs[moment]:
                    if lacking := products_without(tables, batch, frozenset({name})):
                        template = template_of(button.document, moment, language, first)
                        yield name, template, lacking, moment, language


def _differing(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find a product's own text that stands in some places only, unless its exception says that this is meant."""
    settings = snapshot.settings
    wanted = {(button.placement, key): button for button in classes for key in button.keys}
    for rule_id, elsewhere in _elsewhere(snapshot).items():
        rule = settings.exception(rule_id)
        if rule is None or rule.meant:
            continue
        away = [place for place in snapshot.store.places if place not in rule.reach.placements]
        others = _says_elsewhere(snapshot, elsewhere)
        if others and (others[0], others[2].key) in wanted:
            texts = _said_by(snapshot, rule)[Moment.READY]
            place, text, seen_button = others
            own = texts.get(settings.language) or next(iter(texts.values()))
            wider: Json = {"reach": {**rule.reach.model_dump(mode="json"), "placements": []}}
            layer = LayerRef.exception(rule.id)
            yield Finding(
                "differs", Weight.LOOK_AGAIN, spots(seen_button), "words",
                f"“{own}” and “{text}” for one product",
                f"“{rule.name}” speaks on the {listed(said(p) for p in rule.reach.placements)} only; "
                f"the {said(place)} says something else.",
                len(away), 0,
                (
                    Fix("say it everywhere", layer, wider, of_rule=True),
                    Fix("it is meant", layer, {"meant": True}, of_rule=True),
                ),
            )  # fmt: skip


Elsewhere = tuple[Placement, int]


def _elsewhere(snapshot: Snapshot) -> Mapping[str, Sequence[Elsewhere]]:
    """Return where else the products stand that an exception gives words of their own in some places only.

    By the exception's id, as placements and the bits of the class that serves a product there.
    """
    return snapshot.tables.ask(Step.FINDINGS, ("elsewhere", snapshot.narrow_number), lambda: _find_elsewhere(snapshot))


def _find_elsewhere(snapshot: Snapshot) -> dict[str, tuple[Elsewhere, ...]]:
    elsewhere_of: dict[str, tuple[Elsewhere, ...]] = {}
    goods, surfaces, language = snapshot.goods, snapshot.store.surfaces, snapshot.settings.language
    for rule in snapshot.index.rules:
        stands, texts = rule.reach.placements, _said_by(snapshot, rule)
        if stands and rule.reach.products and Moment.READY in texts:
            contexts = [
                context_of(place, product, None, surfaces[place].narrowest()[0], language, ShopperKind.NEW)
                for place in snapshot.store.places if place not in stands
                for product in map(goods.product, rule.reach.products) if product
            ]  # fmt: skip
            elsewhere_of[rule.id] = tuple(
                dict.fromkeys((context.placement, snapshot.index.of(context)) for context in contexts)
            )
    return elsewhere_of


def _says_elsewhere(snapshot: Snapshot, elsewhere: Sequence[Elsewhere]) -> tuple[Placement, str, ButtonClass] | None:
    """Return what the first button that stands there says."""
    for place, bits in elsewhere:
        button = bare_class(snapshot, place, bits)
        if button.document.placement.shown:
            return place, template_of(button.document, Moment.READY, snapshot.settings.language), button
    return None


def _many(n: int, thing: str) -> str:
    return f"{n:,} {thing}{'' if n == 1 else 's'}"
