"""The engine, held to working everything out anew: random shops, random edits, undo and imports."""

import random
from dataclasses import dataclass, field, replace
from typing import Any

import pytest

from tests.core.resolved.test_golden_shops import LANGUAGES, random_rule
from tests.core.resolved.test_golden_shops import PRODUCTS as GOLDEN
from tests.samples import NOW, PLACES, kit, product, settings, store
from uptick.core.button.document import Device, Moment, ShopperKind, Situation
from uptick.core.button.merge import Json, merge_layer, without_gaps
from uptick.core.checks import findings_of, seen_about
from uptick.core.engine.shops import CompiledShop
from uptick.core.engine.snapshot import Snapshot
from uptick.core.release import compile_release
from uptick.core.resolved.classes import class_for, classes_of, context_of
from uptick.core.resolved.differences import changes_between
from uptick.core.resolved.resolve import resolve
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product

TODAY = NOW.date()
FILLS = ("#14202b", "#8a8a8a", "#ffd34d", "#2f5d3a")


@dataclass
class Story:
    """A shop that is edited: its states so far, and the engine that follows it from one to the next."""

    rng: random.Random
    states: list[Settings]
    products: list[Product]
    shop: CompiledShop = field(default_factory=lambda: CompiledShop(lambda _: kit()))

    @property
    def now(self) -> Settings:
        return self.states[-1]

    def step(self) -> None:
        self.rng.choice([self.edit, self.edit, self.edit, self.reach, self.undo, self.take_in])()

    def edit(self) -> None:
        layers = ["baseline", "place:product_page", "place:strip", *(f"exception:{e.id}" for e in self.now.exceptions)]
        layer = self.rng.choice(layers)
        after = without_gaps(merge_layer(self.now.layer(layer) or {}, random_patch(self.rng)))
        self.states.append(self.now.with_layer(layer, after))

    def reach(self) -> None:
        rules = self.now.exceptions
        change = self.rng.randrange(4)
        if change == 0 or not rules:
            rules = (*rules, random_rule(self.rng, 50 + len(self.states)))
        elif change == 1:
            rules = rules[1:]
        elif change == 2:
            rules = tuple(r.model_copy(update={"on": not r.on}) if r is rules[-1] else r for r in rules)
        else:
            other = random_rule(self.rng, 99).reach
            rules = tuple(r.model_copy(update={"reach": other}) if r is rules[0] else r for r in rules)
        self.states.append(self.now.model_copy(update={"exceptions": rules}))

    def undo(self) -> None:
        self.states.append(self.states[-2] if len(self.states) > 1 else self.now)

    def take_in(self) -> None:
        known = list(self.products)
        n = self.rng.randrange(len(known))
        known[n] = replace(known[n], stock=self.rng.choice([0, 5]), price_minor=self.rng.choice([None, 99, 1_299_000]))
        known.append(product(f"X{len(self.states)}", self.rng.choice(["Tools", "Jars"])))
        self.products = known


def random_patch(rng: random.Random) -> Json:
    text = rng.choice(["Take it", "Only {price}", "{name}, now", "", "{count, plural, one {# piece} other {# pieces}}"])
    return rng.choice(
        [
            {"wording": {rng.choice(["ready", "sold_out", "in_basket"]): {rng.choice(LANGUAGES): text}}},
            {"look": {"padding": {rng.choice(["top", "left"]): rng.randrange(4, 60)}}},
            {"look": {"fill": {"kind": "solid", "colour": rng.choice(FILLS)}}},
            {"look": {"type": {"size_px": rng.randrange(10, 30)}, "wrap": rng.choice(["none", "lines"])}},
            {"look": {"size": rng.choice([{"kind": "natural"}, {"kind": "fixed", "width": 150, "height": 40}])}},
            {"placement": {"shown": rng.random() < 0.7}},
            {"look": {"hover": {"text_colour": rng.choice([None, "#777777"])}}},
        ]
    )


def all_of(snapshot: Snapshot, before: Snapshot) -> dict[str, Any]:
    """Return everything that is worked out of a state, in a form that can be compared."""
    classes = classes_of(snapshot)
    shown = snapshot.products[0]
    hung = [
        class_for(snapshot, context_of(place, shown, None, Device.PHONE, "en-GB", ShopperKind.NEW)) for place in PLACES
    ]
    return {
        "classes": {
            (c.placement, c.rules): (
                c.document, c.document.wider, {p.sku for p in c.products}, c.where
            )
            for c in classes
        },
        "findings": sorted(findings_of(snapshot), key=repr),
        "about": [finding.told() for finding in seen_about(snapshot, hung)],
        "release": compile_release(snapshot, TODAY),
        "changes": {
            (c.placement, c.fields, frozenset(p.sku for p in c.products)) for c in changes_between(before, snapshot)
        },
    }  # fmt: skip


def from_nothing(of: Settings, products: list[Product], in_store: Any) -> Snapshot:
    return CompiledShop(lambda _: kit()).at(of, list(products), in_store)


@pytest.mark.parametrize("seed", range(10))
def test_what_follows_from_edit_to_edit_equals_what_is_worked_out_from_nothing(seed: int) -> None:
    rng = random.Random(seed)
    rules = [random_rule(rng, n) for n in range(1, 6)]
    story = Story(rng, [settings(*rules, more=LANGUAGES[1:])], list(GOLDEN))
    of_one = store()
    for _ in range(12):
        story.step()
        earlier = story.states[max(0, len(story.states) - 3)]
        followed = story.shop.at(story.now, story.products, of_one)
        anew = from_nothing(story.now, story.products, of_one)
        before, before_anew = followed.beside(earlier), anew.beside(earlier)
        assert all_of(followed, before) == all_of(anew, before_anew)
        context = context_of(
            rng.choice(list(PLACES)), rng.choice(story.products), rng.choice(list(Situation)),
            rng.choice(list(Device)), rng.choice(LANGUAGES), rng.choice(list(ShopperKind)),
        )  # fmt: skip
        button, plainly = class_for(followed, context).document, resolve(story.now, context)
        assert button == plainly
        assert [button.texts(m, "en-GB") for m in Moment] == [plainly.texts(m, "en-GB") for m in Moment]
