"""How high a button's row is on each device, which is kept free on the page before the button stands there."""

from collections.abc import Sequence

from uptick.core.button.document import ButtonDocument, Moment, NoQuantity, NoSecond
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.compile import reserved_height
from uptick.core.drawing.drawing import Drawing
from uptick.core.drawing.kit import Kit
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.fitting.fill import worst_of_class
from uptick.core.resolved.classes import ButtonClass, moments_of
from uptick.core.shop.store import Store

# One height for every device, or each device's own.
Reserved = float | dict[str, float]


def reserve(snapshot: Snapshot, document: ButtonDocument, met: Sequence[ButtonClass]) -> Reserved:
    """Return the height in pixels that a look's row takes at most, whatever stands in it.

    Args:
        document: The look; its placement is that of the classes.
        met: The classes that have this look: their texts are what may go on several lines.
    """
    if _is_steady(document):
        return document.bare.derived(reserved_height, snapshot.kit)
    place, store = met[0].placement, snapshot.store
    texts = _texts(snapshot, document, met)
    grounds = tuple(store.ground(place, device) for device in store.surfaces[place].widths_px)
    key = (document.drawn_number, place, grounds, texts)
    return snapshot.tables.ask(Step.RESERVES, key, lambda: _reserved(document, met[0], texts, store, snapshot.kit))


def _is_steady(document: ButtonDocument) -> bool:
    """Tell whether one line of words says all: no lengths of the page's, nothing beside or under it."""
    look = document.look
    alone = isinstance(document.second, NoSecond) and isinstance(document.quantity, NoQuantity)
    of_the_page = any(
        isinstance(padding, str) and not padding.endswith("em") for padding in (look.padding.top, look.padding.bottom)
    )
    return alone and not of_the_page and not may_wrap(document)


def may_wrap(document: ButtonDocument) -> bool:
    """Tell whether words of a button can come to several lines."""
    return document.look.wrap == "lines" and not document.is_wordless


def _texts(snapshot: Snapshot, document: ButtonDocument, met: Sequence[ButtonClass]) -> tuple[tuple[str, str], ...]:
    """Return the widest text of every moment that can come, with its language; where nothing wraps one is enough."""
    languages, fonts = snapshot.settings.languages, snapshot.kit.fonts
    if not may_wrap(document):
        return (("", languages[0]),)
    texts = {
        (worst_of_class(snapshot.tables, button, moment, language, fonts, languages[0]).text, language)
        for button in met
        for moment in _moments(button)
        for language in languages
    }
    return tuple(sorted(texts))


def _moments(button: ButtonClass) -> set[Moment]:
    able = {moment for situation in button.situations for moment in moments_of(button.document, situation)}
    return able or set(Moment)


def _reserved(
    document: ButtonDocument, button: ButtonClass, texts: Sequence[tuple[str, str]], store: Store, kit: Kit
) -> Reserved:
    heights: dict[str, float] = {}
    for device in store.surfaces[button.placement].widths_px:
        ground = store.ground(button.placement, device)
        drawn = (lay_out(document, text, kit, ground, language=language) for text, language in texts)
        heights[device.value] = max(map(row_height, drawn))
    return next(iter(heights.values())) if len(set(heights.values())) == 1 else heights


def row_height(drawn: Drawing) -> float:
    """Return the height of a button's whole row: with its quantity box and its second button."""
    boxes = [box for box in (drawn.outer, drawn.quantity, drawn.second and drawn.second.outer) if box]
    return round(max(box.y + box.height for box in boxes) - min(box.y for box in boxes), 3)
