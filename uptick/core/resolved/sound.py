"""Whether all buttons of a shop can be made."""

from collections.abc import Iterable
from functools import partial

from uptick.core.button.document import ButtonDocument
from uptick.core.button.look import PictureFill
from uptick.core.drawing.kit import Kit
from uptick.core.engine.snapshot import PlaceStack, Snapshot
from uptick.core.engine.step import Step
from uptick.core.errors import BadDocument
from uptick.core.words.wording import parse_text


def require_makeable(snapshot: Snapshot) -> None:
    """Refuse a shop in which some button could not be made. What was makeable is not looked at again.

    Raises:
        BadDocument: The layers of some button do not make one, or name what the shop does not have.
        BadWording: A text has a live value that there is not.
    """
    ask = snapshot.tables.ask
    for placement in snapshot.store.places:
        stack = snapshot.at(placement)
        key = (snapshot.narrow_number, stack.wide_key)
        ask(Step.SOUND, key, partial(_require_stack, snapshot, stack))
    for layer in snapshot.layers.values():
        if layer.words_key:
            ask(Step.SOUND, layer.words_key, partial(_require_patterns, layer.texts.values()))


def _require_stack(snapshot: Snapshot, stack: PlaceStack) -> bool:
    frames = snapshot.cover.frames[stack.placement]
    for bits in {stack.narrow_look(bits): bits for bits in {frame.bits & stack.look_bits for frame in frames}}.values():
        stack.look(bits).document.derived(_require_drawable, snapshot.kit)
    # The plain button says least: every other one says that and more.
    stack.texts(0)
    return True


def _require_patterns(texts: Iterable[str]) -> bool:
    for text in texts:
        parse_text(text)
    return True


def _require_drawable(document: ButtonDocument, kit: Kit) -> bool:
    font, icon = document.look.type, document.icon
    lightest, heaviest = kit.fonts.weights(font.family)
    if not lightest <= font.weight <= heaviest:
        raise BadDocument(
            f"look.type.weight: {font.family.capitalize()} has {lightest} to {heaviest}; it is {font.weight}.",
            field="look.type.weight",
        )
    if isinstance(fill := document.look.fill, PictureFill) and fill.picture not in kit.pictures:
        raise BadDocument(
            f"look.fill.picture: there is no picture {fill.picture!r}. Bring it in first.", field="look.fill"
        )
    if icon.kind == "shipped" and icon.name not in kit.icons:
        raise BadDocument(f"icon.name: there is no icon {icon.name!r}.", field="icon.name")
    return True
