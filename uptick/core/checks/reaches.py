"""Exceptions against each other and against the catalogue: conflicts, those that reach nothing, and dead values."""

from collections.abc import Iterator, Sequence
from itertools import combinations

from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import Json
from uptick.core.checks.finding import Finding, Fix, Weight
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.resolved.reach_words import listed, placement_words
from uptick.core.rules.places import FIXES
from uptick.core.rules.settings import ExceptionRule


def check_reaches(snapshot: Snapshot) -> Iterator[Finding]:
    """Yield exceptions that meet, reach nothing or change nothing."""
    yield from _conflicts(snapshot)
    yield from _nothing(snapshot)
    yield from _dead(snapshot)
    yield from _fixed(snapshot)


def _fixed(snapshot: Snapshot) -> Iterator[Finding]:
    """Find what stands for a product that has no page: shoppers would see nothing."""
    for place in FIXES:
        if place not in snapshot.store.places:
            continue
        sku = snapshot.at(place).document(0).placement.product
        product = snapshot.goods.product(sku) if sku else None
        if not sku or (product and snapshot.store.path_of(product.url)):
            continue
        name = product.name if product else sku
        says = "It has no page of the shop’s to be read from." if product else "The catalogue has no such product."
        follow = Fix("let it follow the page", LayerRef.place(place), {"placement": {"product": ""}})
        title = f"{placement_words(place).capitalize()} stands for {name}, and nowhere"
        yield Finding("reach", Weight.MUST_FIX, (), "reach", title, says, 0, 1, (follow,))


def fields_of(snapshot: Snapshot, rule_id: str) -> dict[str, object]:
    """Return what an exception sets, by the fields' paths."""
    return snapshot.layers[LayerRef.exception(rule_id)].fields


_Clash = tuple[str, str, tuple[str, ...], int]


def _conflicts(snapshot: Snapshot) -> Iterator[Finding]:
    """Find equally particular exceptions that set one field differently where both hold."""
    key = ("conflicts", snapshot.narrow_number)
    clashes = snapshot.tables.ask(Step.FINDINGS, key, lambda: tuple(_find_clashes(snapshot)))
    for one, other, fields, common in clashes:
        yield _conflict(snapshot, snapshot.rule(one), snapshot.rule(other), fields, common)


def _find_clashes(snapshot: Snapshot) -> Iterator[_Clash]:
    reached = [(group.bits[0], sum(map(len, group.batches))) for group in snapshot.cover.groups if group.batches]
    alike: dict[tuple[bool, ...], list[tuple[int, ExceptionRule]]] = {}
    for n, rule in enumerate(snapshot.index.rules):
        alike.setdefault(rule.reach.particularity(), []).append((n, rule))
    for rules in alike.values():
        for (n, first_rule), (m, other) in combinations(rules, 2):
            both = 1 << n | 1 << m
            mine, others = fields_of(snapshot, first_rule.id), fields_of(snapshot, other.id)
            clash = tuple(field for field in mine if field in others and others[field] != mine[field])
            if not clash or first_rule.reach.intersection(other.reach) is None:
                continue
            common = sum(count for bits, count in reached if bits & both == both)
            if common:
                yield first_rule.id, other.id, clash, common


def _conflict(
    snapshot: Snapshot, rule: ExceptionRule, other: ExceptionRule, clash: Sequence[str], common: int
) -> Finding:
    field = clash[0]
    more = f" and {len(clash) - 1} more" if len(clash) > 1 else ""
    mine, others = value_text(fields_of(snapshot, rule.id)[field]), value_text(fields_of(snapshot, other.id)[field])
    loser, winner = LayerRef.exception(rule.id), LayerRef.exception(other.id)
    without = _resetting(clash)
    return Finding(
        "conflict", Weight.MUST_FIX, (), "words" if field.startswith("wording.") else "look",
        f"“{rule.name}” and “{other.name}” disagree",
        f"{field_title(field)}{more}: {mine} against {others}, for {common:,} product{'' if common == 1 else 's'} that "
        f"both reach. They are equally particular, so the later wins: “{other.name}”.",
        common, 0,
        (
            Fix(f"only “{other.name}” says it", loser, without),
            Fix(f"only “{rule.name}” says it", winner, without),
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


def _nothing(snapshot: Snapshot) -> Iterator[Finding]:
    known = snapshot.goods.row_of
    reached = 0
    for group in snapshot.cover.groups:
        if group.batches:
            reached |= group.bits[0]
    for n, rule in enumerate(snapshot.rule(rule.id) for rule in snapshot.index.rules):
        gone = [sku for sku in rule.reach.products if sku not in known]
        nowhere = rule.reach.placements and not set(rule.reach.placements) & set(snapshot.store.surfaces)
        off = Fix("switch it off", LayerRef.exception(rule.id), {"on": False}, of_rule=True)
        if nowhere:
            says = f"The shop has no {listed((p.replace('_', ' ') for p in rule.reach.placements), 'or')}."
        elif reached >> n & 1:
            continue
        elif gone and len(gone) == len(rule.reach.products):
            says = (
                f"{listed(gone)} {'is' if len(gone) == 1 else 'are'} not in the catalogue. It is inactive until then."
            )
        else:
            says = "No product of the catalogue is in its reach."
        yield Finding("reach", Weight.LOOK_AGAIN, (), "reach", f"“{rule.name}” reaches nothing", says, 0, 1, (off,))


def dead_values(snapshot: Snapshot) -> dict[str, tuple[str, ...]]:
    """Return the fields of each exception that never win anywhere, by the exception's id."""
    return snapshot.tables.ask(Step.FINDINGS, ("dead", snapshot.narrow_number), lambda: _find_dead(snapshot))


def _find_dead(snapshot: Snapshot) -> dict[str, tuple[str, ...]]:
    fields = {rule.id: fields_of(snapshot, rule.id) for rule in snapshot.index.rules}
    alive: dict[str, set[str]] = {rule: set() for rule in fields}
    reached: set[str] = set()
    stacks = {
        frame.rules
        for frames in snapshot.cover.frames.values()
        for frame in frames
        if frame.batches or (frame.example and frame.example[0].sku)
    }
    for rules in stacks:
        claimed: set[str] = set()
        for rule in reversed(rules):
            reached.add(rule)
            own = fields[rule].keys() - claimed
            alive[rule] |= own
            claimed |= own
    # In the order in which the exceptions stand.
    return {
        rule: dead
        for rule in alive
        if rule in reached and (dead := tuple(field for field in fields[rule] if field not in alive[rule]))
    }


def _dead(snapshot: Snapshot) -> Iterator[Finding]:
    for rule_id, dead in dead_values(snapshot).items():
        rule = snapshot.settings.exception(rule_id)
        if rule is None or not rule.on:
            continue
        without = _resetting(dead)
        yield Finding(
            "dead", Weight.NOTE, (), "reach",
            f"“{rule.name}” has {'a value that never wins' if len(dead) == 1 else f'{len(dead)} that never win'}",
            f"{listed(field_title(path) for path in dead)}: a more particular exception is always closer.",
            len(dead), 0, (Fix("remove it", LayerRef.exception(rule_id), without),),
        )  # fmt: skip
