"""Whole shops as the script gets them, with what Python says that every context shows; Vitest holds the script to it.

`UPTICK_WRITE_GOLDEN=1 pytest tests/core/resolved/test_golden_shops.py` writes the file anew; read every difference.
"""

import json
import os
import random
from datetime import date
from decimal import Decimal
from pathlib import Path
from typing import Any

from tests.samples import PLACES, exception, kit, product, release, settings
from tests.samples import PRODUCTS as OTHERS
from uptick.core.button.document import Device, Moment, Placement, ShopperKind, Situation
from uptick.core.drawing.bar import compile_bar
from uptick.core.drawing.compile import compile_button
from uptick.core.fitting.fill import text_for
from uptick.core.resolved.classes import LEADING, context_of
from uptick.core.resolved.resolve import resolve
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, Settings

FILE = Path(__file__).parents[3] / "golden" / "shops.json"
LANGUAGES = ("en-GB", "de-DE", "ar")
PRODUCTS = [*OTHERS, product("N1", price_minor=None), product("N2", "Jars", price_minor=None)]
TODAY = date(2026, 3, 2)
MANY = "{count, plural, =0 {none} one {# one} two {# two} few {# few} other {# of {name}}}"


def some(rng: random.Random, values: Any, chance: float) -> tuple[Any, ...]:
    return tuple(rng.sample(list(values), rng.choice([1, 1, 2]))) if rng.random() < chance else ()


def random_rule(rng: random.Random, n: int) -> ExceptionRule:
    skus, categories = [p.sku for p in PRODUCTS], sorted({p.category for p in PRODUCTS})
    reach = Reach(
        products=some(rng, skus, 0.35),
        categories=some(rng, categories, 0.35),
        situations=some(rng, Situation, 0.25),
        placements=some(rng, Placement, 0.3),
        devices=some(rng, Device, 0.25),
        languages=some(rng, LANGUAGES, 0.2),
        shoppers=some(rng, ShopperKind, 0.2),
        not_products=some(rng, skus, 0.2),
        not_categories=some(rng, categories, 0.1),
    )
    layer: dict[str, Any] = {}
    if rng.random() < 0.7:
        moment = rng.choice(["ready", "in_basket", "choose_first", "pre_order", "sold_out"])
        text = rng.choice(
            [
                "{name} now",
                "{price}",
                "Take it · {price}",
                "Save {saving}",
                "{price without tax} net",
                "{left} left, {code}",
                MANY,
                "",
            ]
        )
        layer["wording"] = {moment: dict.fromkeys(some(rng, LANGUAGES, 0.9), text)}
    if rng.random() < 0.5:
        layer["look"] = {"radius": rng.randrange(20)}
    return exception(n, layer).model_copy(update={"reach": reach})


def shop(seed: int) -> Settings:
    rng = random.Random(seed)
    return settings(*(random_rule(rng, n) for n in range(1, 9)), more=LANGUAGES[1:])


def expected(of: Settings, rng: random.Random, looks: list[Any]) -> dict[str, Any]:
    product, placement = rng.choice(PRODUCTS), rng.choice(list(PLACES))
    device, language, shopper = rng.choice(list(Device)), rng.choice(LANGUAGES), rng.choice(list(ShopperKind))
    document = resolve(of, context_of(placement, product, None, device, language, shopper))
    moment = rng.choice([LEADING[product.situation], Moment.IN_BASKET, Moment.ADDED])
    count = rng.choice([0, 1, 2, 3, 11, 100, 103])
    compiled = compile_button(document, kit())
    if placement is Placement.STICKY_BAR:
        compiled = {**compiled, "bar": compile_bar(document.bar, of.languages)}
    return {
        "given": {
            "sku": product.sku, "placement": placement, "device": device, "language": language, "shopper": shopper,
            "moment": moment, "count": count,
        },
        "expect": {
            "look": looks.index(json.loads(json.dumps(compiled))),
            "text": text_for(document, moment, language, product, count, of.language),
        },
    }  # fmt: skip


def plain(amount: Decimal | None) -> str:
    return "" if amount is None else f"{amount:.2f}"


def page_product(n: int) -> dict[str, Any]:
    """Return a product as the script reads it from a page."""
    goods = PRODUCTS[n]
    return {
        "sku": goods.sku, "name": goods.name, "category": goods.category, "price": plain(goods.price),
        "code": goods.sku, "net": plain(goods.price_without_tax), "was": "", "left": str(goods.stock),
        "currency": goods.currency,
        "url": goods.url, "situation": goods.situation, "needsChoice": bool(goods.option_values),
    }  # fmt: skip


def golden() -> dict[str, Any]:
    shops = []
    for seed in range(6):
        of = shop(seed)
        manifest = json.loads(json.dumps(release(of, PRODUCTS, TODAY)))
        rng = random.Random(1000 + seed)
        manifest |= {"trials": [], "base": "", "bar": False}
        cases = [expected(of, rng, manifest["looks"]) for _ in range(60)]
        for look in manifest["looks"]:
            look["css"] = look["css"].split("border-radius:")[1].split(";")[0]
            look["icon"] = None
        shops.append({"why": f"eight exceptions drawn from seed {seed}", "manifest": manifest, "cases": cases})
    return {"products": [page_product(n) for n in range(len(PRODUCTS))], "shops": shops}


def test_what_the_script_is_held_to_is_what_python_says() -> None:
    made = golden()
    if os.environ.get("UPTICK_WRITE_GOLDEN"):
        FILE.write_text(json.dumps(made, ensure_ascii=False, indent=1) + "\n")
    assert json.loads(FILE.read_text()) == json.loads(json.dumps(made))
