"""Exceptions against each other and against the catalogue: conflicts, those that reach nothing, and dead values."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations

from uptick.core.catalogue import Product
from uptick.core.checks.finding import Finding, Mend, Weight
from uptick.core.classes import classes_of, groups_of
from uptick.core.document import field_name, value_text
from uptick.core.memo import remembered
from uptick.core.merge import Json, leaves
from uptick.core.reach import Reach
from uptick.core.reach_words import listed
from uptick.core.resolve import clean_layers, index_of
from uptick.core.settings import ExceptionRule, Settings
from uptick.core.store import Store


def check_reaches(settings: Settings, products: Sequence[Product], store: Store) -> Iterator[Finding]:
    yield from _conflicts(settings, products)
    yield from _nothing(settings, products, store)
    yield from _dead(settings, products)


@remembered(32)
def fields_of(settings: Settings) -> dict[str, dict[str, object]]:
    """Return what each exception sets, by its id and the fields' paths."""
    layers = clean_layers(settings)
    return {rule.id: dict(leaves(layers[f"exception:{rule.id}"])) for rule in settings.exceptions}


def _conflicts(settings: Settings, products: Sequence[Product]) -> Iterator[Finding]:
    """Find equally particular exceptions that set one field differently where both hold."""
    index = index_of(settings)
    fields = fields_of(settings)
    reached = [(group.bits, group.by_situation) for group in groups_of(index, products) if group.by_situation]
    alike: dict[tuple[bool, ...], list[tuple[int, ExceptionRule]]] = {}
    for n, rule in enumerate(index.rules):
        alike.setdefault(rule.reach.particularity(), []).append((n, rule))
    for rules in alike.values():
        for (n, one), (m, other) in combinations(rules, 2):
            clash = [f for f, v in fields[one.id].items() if f in fields[other.id] and fields[other.id][f] != v]
            if not clash or not _meet(one.reach, other.reach):
                continue
            both = 1 << n | 1 << m
            common = sum(len(batch) for bits, members in reached if bits & both == both for batch in members.values())
            if common:
                yield _conflict(one, other, clash, fields, common)


def _conflict(
    one: ExceptionRule, other: ExceptionRule, clash: list[str], fields: Mapping[str, Mapping[str, object]], common: int
) -> Finding:
    field = clash[0]
    more = f" and {len(clash) - 1} more" if len(clash) > 1 else ""
    mine, others = value_text(fields[one.id][field]), value_text(fields[other.id][field])
    loser, winner = f"exception:{one.id}", f"exception:{other.id}"
    without = _resetting(clash)
    return Finding(
        "conflict", Weight.MUST_FIX, (), "words" if field.startswith("wording.") else "look",
        f"“{one.name}” and “{other.name}” disagree",
        f"{field_name(field)}{more}: {mine} against {others}, for {common:,} product{'' if common == 1 else 's'} that "
        f"both reach. They are equally particular, so the later wins: “{other.name}”.",
        common, 0,
        (
            Mend(f"only “{other.name}” says it", loser, without),
            Mend(f"only “{one.name}” says it", winner, without),
        ),
    )  # fmt: skip


def _resetting(paths: Sequence[str]) -> Json:
    """Return the patch that resets some fields; a plain merge, in which null is a value."""
    patch: Json = {}
    for path in paths:
        *steps, last = path.split(".")
        inner = patch
        for step in steps:
            inner = inner.setdefault(step, {})
        inner[last] = None
    return patch


def _meet(one: Reach, other: Reach) -> bool:
    """Tell whether some situation, place, device, language and shopper is in both reaches."""
    pairs = (
        (one.situations, other.situations), (one.placements, other.placements), (one.devices, other.devices),
        (one.languages, other.languages), (one.shoppers, other.shoppers),
    )  # fmt: skip
    return all(not a or not b or set(a) & set(b) for a, b in pairs)


def _nothing(settings: Settings, products: Sequence[Product], store: Store) -> Iterator[Finding]:
    index = index_of(settings)
    known = {product.sku for product in products}
    reached = 0
    for group in groups_of(index, products):
        if group.by_situation:
            reached |= group.bits
    for n, rule in enumerate(index.rules):
        gone = [sku for sku in rule.reach.products if sku not in known]
        nowhere = rule.reach.placements and not set(rule.reach.placements) & set(store.surfaces)
        off = Mend("switch it off", f"exception:{rule.id}", {"on": False}, of_rule=True)
        if nowhere:
            says = f"The shop has no {listed((p.replace('_', ' ') for p in rule.reach.placements), 'or')}."
        elif reached >> n & 1:
            continue
        elif gone and len(gone) == len(rule.reach.products):
            says = f"{listed(gone)} {'is' if len(gone) == 1 else 'are'} not in the catalogue. It sleeps until then."
        else:
            says = "No product of the catalogue is in its reach."
        yield Finding("reach", Weight.LOOK_AGAIN, (), "reach", f"“{rule.name}” reaches nothing", says, 0, 1, (off,))


@remembered(16)
def dead_values(settings: Settings, products: Sequence[Product]) -> dict[str, tuple[str, ...]]:
    """Return the fields of each exception that never win anywhere, by the exception's id."""
    fields = fields_of(settings)
    alive: dict[str, set[str]] = {rule.id: set() for rule in settings.exceptions}
    reached: set[str] = set()
    for one in classes_of(settings, products):
        if not one.example.product and not one.batches:
            continue
        claimed: set[str] = set()
        for rule in reversed(one.rules):
            reached.add(rule)
            own = fields[rule].keys() - claimed
            alive[rule] |= own
            claimed |= own
    return {
        rule: dead for rule in reached if (dead := tuple(field for field in fields[rule] if field not in alive[rule]))
    }


def _dead(settings: Settings, products: Sequence[Product]) -> Iterator[Finding]:
    for rule_id, dead in dead_values(settings, products).items():
        rule = settings.exception(rule_id)
        if rule is None or not rule.on:
            continue
        without = _resetting(dead)
        yield Finding(
            "dead", Weight.NOTE, (), "reach",
            f"“{rule.name}” has {'a value that never wins' if len(dead) == 1 else f'{len(dead)} that never win'}",
            f"{listed(field_name(path) for path in dead)}: a more particular exception is always closer.",
            len(dead), 0, (Mend("take it out", f"exception:{rule_id}", without),),
        )  # fmt: skip
