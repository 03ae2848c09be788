"""Writes uptick/assets/icons.json from the Phosphor icon package (MIT): what shops use, with words to find it."""

import json
import pathlib
import re
import subprocess

ROOT = pathlib.Path(__file__).resolve().parent.parent
PACKAGE = ROOT / "node_modules/@phosphor-icons/core"
# Names of our own, which documents use already.
OURS = {
    "shopping-cart-simple": "cart", "handbag": "hand bag", "tote": "tote bag", "plus-circle": "plus in a circle",
    "check": "tick", "check-circle": "tick in a circle", "arrow-right": "arrow", "caret-right": "caret",
    "tag": "price tag", "truck": "van", "calendar-check": "calendar", "sliders-horizontal": "sliders",
    "van": "minibus",
}  # fmt: skip
MORE = [
    "basket",
    "plus",
    "plus-circle",
    "plus-square",
    "minus",
    "x",
    "check",
    "check-circle",
    "checks",
    "check-fat",
    "arrow-right",
    "arrow-up-right",
    "arrow-circle-right",
    "arrow-fat-right",
    "arrow-down",
    "arrow-square-out",
    "arrow-u-up-left",
    "arrows-clockwise",
    "caret-right",
    "caret-double-right",
    "caret-down",
    "hand-pointing",
    "hand-tap",
    "cursor-click",
    "tag",
    "tag-chevron",
    "percent",
    "seal-percent",
    "seal-check",
    "gift",
    "heart",
    "heart-straight",
    "star",
    "star-four",
    "sparkle",
    "lightning",
    "fire",
    "crown",
    "crown-simple",
    "medal",
    "trophy",
    "rocket-launch",
    "package",
    "cube",
    "truck",
    "paper-plane-tilt",
    "airplane-tilt",
    "bicycle",
    "car-simple",
    "map-pin",
    "house",
    "storefront",
    "clock",
    "clock-countdown",
    "hourglass",
    "timer",
    "calendar",
    "calendar-check",
    "calendar-plus",
    "bell",
    "bell-ringing",
    "envelope",
    "phone",
    "chat-circle",
    "chats-circle",
    "question",
    "info",
    "warning",
    "ruler",
    "sliders-horizontal",
    "scissors",
    "palette",
    "paint-brush",
    "eye",
    "magnifying-glass",
    "drop",
    "flower",
    "flower-tulip",
    "leaf",
    "plant",
    "tree",
    "sun",
    "moon",
    "snowflake",
    "cloud",
    "umbrella",
    "hexagon",
    "circle",
    "square",
    "diamond",
    "thumbs-up",
    "smiley",
    "user",
    "users",
    "shield-check",
    "lock",
    "lock-simple",
    "key",
    "credit-card",
    "wallet",
    "coins",
    "piggy-bank",
    "receipt",
    "ticket",
    "bookmark-simple",
    "book-open",
    "music-note",
    "camera",
    "headphones",
    "game-controller",
    "laptop",
    "device-mobile",
    "watch",
    "eyeglasses",
    "t-shirt",
    "sneaker",
    "dress",
    "pants",
    "baby",
    "coffee",
    "wine",
    "pizza",
    "hamburger",
    "cookie",
    "cake",
    "carrot",
    "orange",
    "bread",
    "fish",
    "egg",
    "paw-print",
    "dog",
    "cat",
    "bone",
    "bed",
    "couch",
    "lamp",
    "armchair",
    "hammer",
    "wrench",
    "screwdriver",
    "paint-roller",
    "shovel",
    "broom",
    "trash",
    "recycle",
    "infinity",
    "download-simple",
    "share-network",
    "link",
    "megaphone",
    "confetti",
    "balloon",
    "repeat",
    "swap",
    "stack",
    "list",
    "grid-four",
]
LEFT_OUT = re.compile(r"logo|currency|copyright|copyleft|trademark|cigarette|nuclear|slash|letter|factory|crane")
BOLD = {"plus", "minus", "x", "check", "checks", "arrow-right", "caret-right", "clock", "ruler", "sliders-horizontal",
        "basket", "shopping-cart-simple", "percent", "infinity", "repeat", "swap", "list", "question"}  # fmt: skip
POINTS = re.compile(
    r"right|^truck|^van$|airplane|paper-plane|bicycle|car-simple|rocket|up-left|square-out|^baby-carriage"
)

listed = json.loads(
    subprocess.check_output(
        ["node", "-e", "console.log(JSON.stringify(require('@phosphor-icons/core').icons))"], cwd=ROOT, text=True
    )
)
wanted = set(MORE) | {icon["name"] for icon in listed if {"commerce", "nature"} & set(icon["categories"])}
icons = {}
for one in listed:
    source = one["name"]
    if source not in wanted or LEFT_OUT.search(source):
        continue
    bold = source in BOLD or source.startswith(("arrow", "caret"))
    svg = (PACKAGE / f"assets/{'bold' if bold else 'fill'}/{source}-{'bold' if bold else 'fill'}.svg").read_text()
    paths = re.findall(r'<path d="([^"]+)"', svg)
    if len(paths) != 1 or "<circle" in svg or "<rect" in svg:
        continue
    name = OURS.get(source, source.replace("-", " "))
    words = sorted({tag.lower() for tag in one["tags"] if re.fullmatch(r"[a-z ]+", tag.lower())} | {*name.split()})
    icons[name] = {"path": paths[0], "box": 256, "words": words}
    if POINTS.search(source):
        icons[name]["points"] = True
text = json.dumps(dict(sorted(icons.items())), ensure_ascii=False, separators=(",", ":"))
(ROOT / "uptick/assets/icons.json").write_text(text.replace('},"', '},\n"') + "\n")
print(len(icons), "icons")
