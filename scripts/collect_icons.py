"""Writes uptick/assets/icons.json from the Phosphor icon package (MIT): the chosen icons, each as one filled path."""

import json
import pathlib
import re

ROOT = pathlib.Path(__file__).resolve().parent.parent
PACKAGE = ROOT / "node_modules/@phosphor-icons/core"
CHOSEN = {
    "basket": "basket", "cart": "shopping-cart-simple", "hand bag": "handbag", "tote bag": "tote",
    "plus": "plus", "plus in a circle": "plus-circle", "tick": "check", "tick in a circle": "check-circle",
    "arrow": "arrow-right", "caret": "caret-right", "price tag": "tag", "gift": "gift",
    "heart": "heart", "lightning": "lightning", "package": "package", "van": "truck",
    "calendar": "calendar-check", "clock": "clock", "bell": "bell", "ruler": "ruler",
    "sliders": "sliders-horizontal", "drop": "drop", "flower": "flower", "hexagon": "hexagon",
}  # fmt: skip

icons = {}
for name, source in CHOSEN.items():
    svg = (PACKAGE / f"assets/fill/{source}-fill.svg").read_text()
    if name in {"plus", "tick", "arrow", "caret", "clock", "ruler", "sliders", "basket", "cart"}:
        svg = (PACKAGE / f"assets/bold/{source}-bold.svg").read_text()
    paths = re.findall(r'<path d="([^"]+)"', svg)
    assert len(paths) == 1, name
    icons[name] = {"path": paths[0], "box": 256}
(ROOT / "uptick/assets/icons.json").write_text(json.dumps(icons, indent=1) + "\n")
