"""Finding an icon by what a shopper would understand by it."""

from collections.abc import Mapping

from uptick.core.drawing.kit import IconShape

# What people ask for, in the words that the icons are tagged with.
_ALSO = {
    "buy": ("shopping", "buying"), "add": ("plus",), "more": ("plus",), "fast": ("lightning", "rocket"),
    "quick": ("lightning", "rocket"), "delivery": ("package", "van", "shipping"), "post": ("package", "envelope"),
    "ship": ("shipping", "package", "van"), "save": ("percent", "piggy"), "sale": ("percent", "tag", "discount"),
    "cheap": ("percent", "tag"), "done": ("tick",), "ok": ("tick",), "yes": ("tick",), "reserve": ("calendar", "clock"),
    "wait": ("clock", "hourglass"), "later": ("calendar", "clock"), "ask": ("question", "chat"), "like": ("heart",),
    "favourite": ("heart", "star"), "present": ("gift",), "secure": ("lock", "shield"), "bee": ("hexagon", "flower"),
    "next": ("arrow", "caret"), "go": ("arrow", "caret"), "new": ("sparkle", "star"),
    "pay": ("card", "wallet", "coins"),
}  # fmt: skip


def find_icons(icons: Mapping[str, IconShape], asked: str, most: int = 60) -> tuple[str, ...]:
    """Return icons that fit some words, the best first; all, the shops' own first, where nothing is asked."""
    words = [word for word in asked.lower().split() if word]
    if not words:
        bought = [name for name, shape in icons.items() if {"shopping", "ecommerce", "commerce"} & set(shape.words)]
        return tuple(dict.fromkeys((*bought, *icons)))[:most]
    scored = ((sum(_score(word, name, shape) for word in words), name) for name, shape in icons.items())
    scored_names = [(score, name) for score, name in scored if score > 0]
    return tuple(
        name
        for _, name in sorted(
            scored_names, key=lambda scored_name: (-scored_name[0], len(scored_name[1]), scored_name[1])
        )
    )[:most]


def _score(word: str, name: str, shape: IconShape) -> float:
    if name == word:
        return 10
    parts = name.split()
    if word in parts:
        return 6
    if any(part.startswith(word) for part in parts):
        return 4
    if any(also in parts or also in shape.words for also in _ALSO.get(word, ())):
        return 3.5
    if word in shape.words:
        return 3
    return 2 if any(known.startswith(word) for known in shape.words) else 0
