"""Carrying a look from one button to another: all of it, or chosen parts."""

from collections.abc import Collection

from uptick.core.button.fields import PARTS
from uptick.core.button.look import STATES
from uptick.core.button.merge import Json, at_path, merge_layer, patch_at
from uptick.core.errors import OutOfRange


def part_of(path: str) -> str:
    """Return the part that a field belongs to, or nothing where it is not part of a look."""
    return next((part for part, roots in PARTS.items() if any(_is_under(path, root) for root in roots)), "")


def _is_under(path: str, root: str) -> bool:
    return path == root or path.startswith(f"{root}.")


def only_parts(layer: Json, parts: Collection[str]) -> Json:
    """Return what some parts of a look say in a layer.

    Raises:
        OutOfRange: There is no such part.
    """
    unknown = sorted(set(parts) - set(PARTS))
    if unknown:
        raise OutOfRange.of("a part", f"one of {', '.join(PARTS)}", unknown[0])
    taken: Json = {}
    for part in parts:
        for root in PARTS[part]:
            value = at_path(layer, root)
            if value is not None:
                taken = merge_layer(taken, patch_at(root, value))
    return taken


_RULED = ("fill", "border", "shadows")


def completed(look: Json) -> Json:
    """Return a whole look in which every state that leaves something to the rule says so.

    Without that, what a wider layer has set by hand for a state would shine through in a narrower one.
    """
    inner = dict(look.get("look") or {})
    inner["text_colour"] = inner.get("text_colour") or "rule"
    for state in STATES:
        own = {name: value for name, value in (inner.get(state) or {}).items() if value is not None}
        own.setdefault("text_colour", "rule")
        inner[state] = {**{part: {"kind": "rule"} for part in _RULED}, "opacity": inner.get("opacity", 1), **own}
    return {**look, "look": inner}
