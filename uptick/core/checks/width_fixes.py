"""What would make a button that is too wide fit: each tried by laying it out again."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import chain
from typing import Any

from uptick.core.button.document import ButtonDocument, NoIcon, parse_document
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.look import FixedSize
from uptick.core.button.merge import Json, merge_layer
from uptick.core.checks.finding import Fix
from uptick.core.drawing.drawing import Drawing
from uptick.core.errors import BadDocument

# Below these, words are hard to read, and hard to tell from the edge or from the icon (common practice).
SMALLEST_TYPE_PX = 12
_LEAST_PADDING_PX = 4
LEAST_GAP_PX = 4
# At most so many are offered.
_MOST = 3


@dataclass(frozen=True, slots=True)
class _Try:
    """One change: its kind, its name, the patch, and about how wide the button would then be, where that is known."""

    kind: str
    label: str
    patch: Json
    about_px: float = 0.0


def width_fixes(
    document: ButtonDocument, drawn: Drawing, layer: LayerRef, lay: Callable[[ButtonDocument, str], Drawing]
) -> Iterator[Fix]:
    """Yield at most three patches with which a button fits; where no single one is enough, some together.

    Args:
        drawn: The button as it is too wide, with the text that makes it so.
        lay: Lays a button out with a text on the same ground.
    """
    given: set[str] = set()
    # Letter spacing does not shrink with the type, so a width in proportion may be off by that.
    slack_px = 1 + len(drawn.text) * abs(document.look.type.letter_spacing_px)
    for fix in chain(_single(document, drawn), _joint(document, drawn)):
        if fix.kind in given or len(given) == _MOST or (fix.kind == "joint" and given):
            continue
        # What is plainly too wide still need not be laid out to be sure.
        if document.look.wrap == "none" and fix.about_px > drawn.container_px + slack_px:
            continue
        tried = _changed(document, fix.patch)
        if tried is None:
            continue
        after = lay(tried, drawn.text)
        if not after.too_wide_px and not after.too_high_px:
            given.add(fix.kind)
            yield Fix(fix.label, layer, fix.patch)


def possible_document(raw: Json, patch: Json) -> ButtonDocument | None:
    """Return the button that a patch would make, or None where that is beyond what a button may be."""
    try:
        return parse_document(merge_layer(raw, patch))
    except BadDocument:
        return None


def _changed(document: ButtonDocument, patch: Json) -> ButtonDocument | None:
    bare, inner = document.bare, patch.get("look", {})
    icon = {"icon": NoIcon()} if patch.get("icon") == {"kind": "none"} else {}
    if ("icon" in patch and not icon) or "size" in inner:
        return possible_document(bare.model_dump(mode="json"), patch)
    # Padding and type are within their limits by the way they are chosen, so they need not be checked again.
    parts: dict[str, Any] = {
        name: getattr(bare.look, name).model_copy(update=inner[name]) for name in ("padding", "type") if name in inner
    }
    return bare.model_copy(update={"look": bare.look.model_copy(update=parts), **icon})


def _single(document: ButtonDocument, drawn: Drawing) -> Iterator[_Try]:
    look, icon = document.look, document.icon
    if isinstance(look.size, FixedSize):
        wide = -(-drawn.needs_width_px // 1)
        size = {**look.size.model_dump(mode="json"), "width": wide}
        yield _Try("width", f"{wide:g} px wide", {"look": {"size": size}})
    if not isinstance(icon, NoIcon) and icon.side in ("before", "after"):
        gap = icon.gap_px - -(-drawn.too_wide_px // 1)
        if gap >= LEAST_GAP_PX:
            yield _Try("gap", f"gap {gap:g}", {"icon": {**icon.model_dump(mode="json"), "gap_px": gap}})
    spare = (drawn.too_wide_px + 1) // 2
    for step in (spare, spare + 1):
        left, right = drawn.padding.left - step, drawn.padding.right - step
        if min(left, right) >= _LEAST_PADDING_PX:
            yield _Try("padding", f"padding {left:g}", {"look": {"padding": {"left": left, "right": right}}})
    for px in range(int(look.type.size_px) - 1, SMALLEST_TYPE_PX - 1, -1):
        about = drawn.needs_width_px - drawn.words.width * (1 - px / look.type.size_px)
        yield _Try("type", f"type {px} px", {"look": {"type": {"size_px": px}}}, about)
    if not isinstance(icon, NoIcon):
        yield _Try("icon", "no icon", {"icon": {"kind": "none"}})


def _joint(document: ButtonDocument, drawn: Drawing) -> Iterator[_Try]:
    pad, size, icon = drawn.padding, document.look.type.size_px, document.icon
    steps = [p for p in (12, 8, 6, _LEAST_PADDING_PX) if p < min(pad.left, pad.right)]
    icons: list[tuple[str, Json, float]] = [("", {}, 0)]
    if not isinstance(icon, NoIcon):
        taken = 0.0 if icon.side == "above" else icon.size_px + drawn.gap_px
        icons.append((", no icon", {"icon": {"kind": "none"}}, taken))
    for without, no_icon, taken in icons:
        for px in range(int(size), SMALLEST_TYPE_PX - 1, -1):
            about = drawn.needs_width_px - drawn.words.width * (1 - px / size) - taken
            for p in steps:
                patch = {"look": {"padding": {"left": p, "right": p}, "type": {"size_px": px}}, **no_icon}
                yield _Try(
                    "joint", f"padding {p}, type {px} px{without}", patch, about - (pad.left + pad.right - 2 * p)
                )
