"""Texts that a language lacks, live values that a product lacks, and texts that differ from place to place."""

from collections.abc import Iterator, Sequence
from functools import partial
from itertools import product as crossing

from uptick.core.catalogue import Product
from uptick.core.checks.finding import Finding, Mend, Weight, said, spots, where
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import Moment, Placement
from uptick.core.fill import products_without, template_of, text_for
from uptick.core.memo import Kept
from uptick.core.merge import Json
from uptick.core.reach_words import listed
from uptick.core.resolve import clean_layers
from uptick.core.settings import Settings
from uptick.core.wider_texts import needed_by
from uptick.core.wording import language_name


def check_texts(settings: Settings, classes: Sequence[ButtonClass]) -> tuple[Finding, ...]:
    """Test what is said; nothing of it depends on how the buttons look, so that most edits find it already done."""
    said_by = tuple((one.placement, one.document.placement.shown, id(one.document.wording)) for one in classes)
    met = tuple((one.rules, one.keys, tuple(map(id, one.batches)), one.languages) for one in classes)
    exceptions = clean_layers(settings)
    texts = tuple(id(exceptions[f"exception:{rule.id}"].get("wording")) for rule in settings.exceptions)
    key = (said_by, met, id(settings.exceptions), texts, settings.languages)
    return _kept.get(key, (settings, tuple(classes), exceptions), lambda: tuple(_check(settings, classes)))


_kept: Kept[tuple[Finding, ...]] = Kept(64)


def _check(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    yield from _lacking(settings, classes)
    yield from _one_language(settings)
    yield from _valueless(settings, classes)
    yield from _differing(settings, classes)


def _lacking(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find texts for which the store's first language stands in, told once a language."""
    plain = [one for one in classes if not one.rules]
    for language in settings.languages[1:]:
        lacks = {
            moment: [
                one for one in plain if moment in one.document.wording and language not in one.document.wording[moment]
            ]
            for moment in Moment
        }
        moments = [moment for moment, where_lacking in lacks.items() if where_lacking]
        if moments:
            buttons = tuple(dict.fromkeys(one for those in lacks.values() for one in those))
            first = language_name(settings.language)
            yield Finding(
                "language", Weight.LOOK_AGAIN, spots(*buttons), "words",
                f"{language_name(language)} lacks {_many(len(moments), 'text')}",
                f"{listed(said(moment) for moment in moments)}: shoppers read {first} there.",
                len(moments), 0,
            )  # fmt: skip


def _one_language(settings: Settings) -> Iterator[Finding]:
    """Find exceptions that say something in some languages only: the others go on saying the wider text."""
    layers = clean_layers(settings)
    for rule in settings.exceptions:
        spoken = rule.reach.languages or settings.languages
        for moment, texts in (layers[f"exception:{rule.id}"].get("wording") or {}).items():
            lacks = [language for language in spoken if language not in texts]
            if rule.on and lacks:
                yield Finding(
                    "language", Weight.NOTE, (), "words",
                    f"“{rule.name}” says nothing in {listed(language_name(one) for one in lacks)}",
                    f"When {said(moment)}, shoppers who read that see the wider text.",
                    len(lacks), 0,
                )  # fmt: skip


def _valueless(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find live values that some product has not: it says something else than what was written."""
    told: dict[tuple[str, str], tuple[dict[str, Product], ButtonClass, str, Moment, str]] = {}
    for one in classes:
        if not one.document.placement.shown:
            continue
        key = (id(one.document), tuple(map(id, one.batches)), one.languages, settings.language)
        holes = _holes.get(key, (one,), partial(_find_holes, one, settings.language))
        for name, template, lacking, moment, language in holes:
            kept = told.setdefault((name, one.placement), ({}, one, template, moment, language))[0]
            kept.update((product.sku, product) for product in lacking)
    for (name, _), (lacking_products, one, template, moment, language) in told.items():
        n = len(lacking_products)
        example = next(iter(lacking_products.values()))
        instead = text_for(one.document, moment, language, example, first=settings.language)
        more = f" and {n - 1:,} more" if n > 1 else ""
        yield Finding(
            "live_value", Weight.MUST_FIX if name != "page" else Weight.LOOK_AGAIN, spots(one), "words",
            f"{{{name}}} has no value for {_many(n, 'product')}",
            f"“{template}” {where(one)}. {example.name}{more} would say “{instead}” instead.",
            n, 0,
        )  # fmt: skip


_Hole = tuple[str, str, Sequence[Product], Moment, str]
_holes: Kept[list[_Hole]] = Kept(8192)


def _find_holes(one: ButtonClass, first: str) -> list[_Hole]:
    """Return the live values of a class's texts that some of its products have not."""
    found: list[_Hole] = []
    for batch, language in crossing(one.batches, one.languages):
        for moment in MOMENTS_OF[batch[0].situation]:
            template = template_of(one.document, moment, language, first)
            for name in needed_by(template):
                if lacking := products_without(batch, frozenset({name})):
                    found.append((name, template, lacking, moment, language))
    return found


def _differing(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find a product's own text that stands in some places only, unless its exception says that this is meant."""
    layers = clean_layers(settings)
    places = list(dict.fromkeys(one.placement for one in classes))
    for rule in settings.exceptions:
        texts = (layers[f"exception:{rule.id}"].get("wording") or {}).get(Moment.READY)
        away = [place for place in places if rule.reach.placements and place not in rule.reach.placements]
        if not (rule.on and texts and rule.reach.products and away) or rule.meant:
            continue
        others = _says_elsewhere(classes, rule.reach.products, away, settings.language)
        if others:
            place, text, one = others
            own = texts.get(settings.language) or next(iter(texts.values()))
            wider: Json = {"reach": {**rule.reach.model_dump(mode="json"), "placements": []}}
            layer = f"exception:{rule.id}"
            yield Finding(
                "differs", Weight.LOOK_AGAIN, spots(one), "words",
                f"“{own}” and “{text}” for one product",
                f"“{rule.name}” speaks on the {listed(said(p) for p in rule.reach.placements)} only; "
                f"the {said(place)} says something else.",
                len(away), 0,
                (
                    Mend("say it everywhere", layer, wider, of_rule=True),
                    Mend("it is meant", layer, {"meant": True}, of_rule=True),
                ),
            )  # fmt: skip


def _says_elsewhere(
    classes: Sequence[ButtonClass], products: Sequence[str], away: Sequence[Placement], language: str
) -> tuple[Placement, str, ButtonClass] | None:
    wanted = set(products)
    for one in classes:
        here = one.placement in away and one.document.placement.shown
        if here and any(product.sku in wanted for batch in one.batches for product in batch):
            return one.placement, template_of(one.document, Moment.READY, language), one
    return None


def _many(n: int, thing: str) -> str:
    return f"{n:,} {thing}{'' if n == 1 else 's'}"
