"""A large shop, drawn from a seed: 200 exceptions over tens of thousands of products, four languages, three devices."""

import random
from collections.abc import Sequence
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any

from ops import demo_words as words
from ops.demo import BASELINE
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product

EXCEPTIONS = 200
CATEGORIES = tuple(f"Category {n}" for n in range(40))
LANGUAGES = (words.DE, words.FR, words.AR)


def large_catalogue(count: int) -> list[Product]:
    rng = random.Random(5)
    return [
        Product(
            sku=f"P{n:05d}",
            name=f"Thing number {n} {'of the longer kind ' * (n % 3)}".strip(),
            category=CATEGORIES[n % len(CATEGORIES)],
            price_minor=rng.randrange(100, 200_000),
            currency="GBP",
            url=f"/p/P{n:05d}",
            picture="",
            stock=rng.choice([0, 3, 9, 40, 200]),
            option_name="size" if n % 5 == 0 else "",
            option_values=("S", "L") if n % 5 == 0 else (),
            tax_percent=Decimal(20),
        )
        for n in range(count)
    ]


def large_settings(count: int) -> Settings:
    return settings_over([f"P{n:05d}" for n in range(count)], CATEGORIES)


def settings_over(skus: Sequence[str], categories: Sequence[str]) -> Settings:
    """Return the same settings for any shop's products."""
    rng = random.Random(7)
    layers = {Placement.LISTING_CARD: words.LISTING, Placement.STICKY_BAR: words.BAR, Placement.STRIP: words.STRIP}
    return Settings(
        language=words.EN,
        currency="GBP",
        baseline=BASELINE,
        placements={place: {"wording": texts} for place, texts in layers.items()},
        exceptions=tuple(_rule(rng, n, skus, categories) for n in range(1, EXCEPTIONS + 1)),
        more_languages=LANGUAGES,
    )


def _rule(rng: random.Random, n: int, skus: Sequence[str], categories: Sequence[str]) -> ExceptionRule:
    reach: dict[str, Any] = {}
    if rng.random() < 0.5:
        reach["products"] = tuple(skus[rng.randrange(len(skus))] for _ in range(rng.choice([1, 1, 3, 20])))
    else:
        reach["categories"] = (rng.choice(list(categories)),)
    for name, chance, values in (
        ("placements", 0.3, list(Placement)),
        ("devices", 0.15, list(Device)),
        ("situations", 0.15, list(Situation)),
        ("languages", 0.1, list(LANGUAGES)),
        ("shoppers", 0.03, list(ShopperKind)),
    ):
        if rng.random() < chance:
            reach[name] = (rng.choice(values),)
    look: Json = {
        "look": {
            "radius": rng.randrange(20),
            "fill": {"kind": "solid", "colour": f"#{rng.randrange(1 << 24) & 0x3F3F3F:06x}"},
        }
    }
    text: Json = {"wording": {"ready": {words.EN: f"Take {n}", words.DE: f"Nimm {n}"}}}
    return ExceptionRule(
        id=f"e{n}",
        name=f"Exception {n}",
        note="drawn from a seed",
        author="bench",
        made_at=datetime(2026, 1, 1, tzinfo=UTC),
        reach=Reach(**reach),
        layer=text if rng.random() < 0.7 else look,
    )
