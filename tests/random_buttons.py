"""Buttons drawn at random over everything that can be drawn, for what must hold of each."""

import random
from typing import Any

from tests.samples import kit
from uptick.core.button.merge import Json


def _length(rng: random.Random, most: int) -> float | str:
    return rng.choice([rng.randint(0, most), rng.randint(0, most) + 0.5, f"{rng.randint(0, 6)}%", "0.7em", "1.2vw"])


def _corners(rng: random.Random) -> Any:
    names = ("top_left", "top_right", "bottom_right", "bottom_left")
    return rng.choice([8, "50%", {"kind": "corners", **{name: rng.randint(0, 30) for name in names}}])


def _random_look(rng: random.Random) -> Json:
    size: Json = rng.choice([
        {"kind": "natural"},
        {"kind": "natural", "least": rng.randint(0, 200), "most": rng.choice([None, rng.randint(60, 300), "60%"])},
        {"kind": "full", "most": rng.choice([None, rng.randint(120, 300)])},
        {"kind": rng.choice(["natural", "full"]), "least_height_px": rng.choice([20, 44.5, 90])},
        {"kind": "fixed", "width": rng.choice([rng.randint(16, 400), "80%", "12em"]), "height": rng.randint(16, 90)},
    ])  # fmt: skip
    widths = (1, 1.5, 2, 3.5, 0.4, 6)
    border: Json = {"kind": "line", "width_px": rng.choice(widths), "colour": "#123456"}
    sides: Json = {
        "kind": "sides",
        **{
            side: {"width_px": rng.choice((0, *widths)), "colour": "#123456"}
            for side in ("top", "right", "bottom", "left")
        },
    }
    return {
        "size": size,
        "padding": {side: _length(rng, 30) for side in ("top", "right", "bottom", "left")},
        "radius": _corners(rng),
        "border": rng.choice([{"kind": "none"}, border, sides]),
        "type": {
            "family": rng.choice(kit().fonts.families),
            "size_px": rng.randint(16, 80) / 2,
            "weight": rng.choice([400, 600, 700]),
            "line": rng.choice([0, 0, 1, 1.35]),
            "letter_spacing_px": rng.choice([0, 0, 0.5, -0.3]),
            "slant": rng.choice(["upright", "upright", "italic"]),
            "case": rng.choice(["as_written", "as_written", "upper"]),
        },
        "centring": rng.choice(["line", "caps"]),
        "wrap": rng.choice(["none", "lines", "ellipsis"]),
    }


def random_button(rng: random.Random) -> Json:
    icon: Json = rng.choice([
        {"kind": "none"},
        {"kind": "shipped", "name": "basket", "side": rng.choice(["before", "after", "above", "alone"]),
         "size_px": rng.randint(8, 44), "gap_px": rng.randint(0, 20)},
    ])  # fmt: skip
    quantity: Json = {"kind": "none"}
    if rng.random() < 0.35:
        quantity = {
            "kind": "box", "width_px": rng.randint(40, 90), "layout": rng.choice(["plain", "sides", "stacked"]),
        }  # fmt: skip
    second: Json = {"kind": "none"}
    if rng.random() < 0.35:
        second = {
            "kind": "checkout", "side": rng.choice(["beside", "under"]), "first": rng.random() < 0.4,
            "share": rng.random() < 0.4, "gap_px": rng.randint(0, 20), "wording": {"en-GB": "Straight to the till"},
            "padding": {side: rng.randint(0, 24) for side in ("top", "right", "bottom", "left")},
            "radius": 4, "size_px": rng.randint(20, 40) / 2, "border": {"kind": "line", "width_px": 2},
        }  # fmt: skip
    return {"look": _random_look(rng), "icon": icon, "quantity": quantity, "second": second}
