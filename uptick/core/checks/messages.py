"""Messages that a press opens: what they say in every language that the buttons speak."""

from collections.abc import Iterator, Sequence

from uptick.core.button.document import ShippedIcon
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.message import ToMessage
from uptick.core.checks.finding import Finding, Fix, Weight, spots, where_all
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass, context_of, opens_message
from uptick.core.resolved.reach_words import listed
from uptick.core.resolved.resolve import trace
from uptick.core.words.wording import language_name


def check_messages(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find messages that say nothing of the product, and those that a language lacks."""
    spoken, first = snapshot.settings.languages, snapshot.settings.language
    yield from _words_of_others(snapshot, classes, first)
    alike: dict[tuple[str, ...], list[ButtonClass]] = {}
    for button in classes:
        message = button.document.afterwards
        if not isinstance(message, ToMessage) or message.way == "phone" or not button.document.placement.shown:
            continue
        if lacks := tuple(language for language in spoken if not message.text.get(language)):
            alike.setdefault(lacks, []).append(button)
    for lacks, buttons in alike.items():
        if first in lacks:
            yield Finding(
                "message", Weight.LOOK_AGAIN, spots(*buttons), "afterwards",
                "The message says nothing",
                f"What a press opens {where_all(buttons)} names no product. Say {{name}}, {{code}} and {{page}} in it.",
                len(lacks), 0,
            )  # fmt: skip
            continue
        yield Finding(
            "message", Weight.LOOK_AGAIN, spots(*buttons), "afterwards",
            f"The message is not told in {listed(language_name(language) for language in lacks)}",
            f"What a press opens {where_all(buttons)} is in {language_name(first)} there until it is told.",
            len(lacks), 0,
        )  # fmt: skip


# Of the icons that are shipped, those that say "into the basket".
_OF_BASKETS = ("basket", "cart", "bag")


def _words_of_others(snapshot: Snapshot, classes: Sequence[ButtonClass], first: str) -> Iterator[Finding]:
    """Find buttons that open a message and look or read like those that buy."""
    alike: dict[str, list[ButtonClass]] = {}
    under: dict[LayerRef, list[ButtonClass]] = {}
    for button in classes:
        if not opens_message(button.document) or not button.document.placement.shown or not button.batches:
            continue
        context = context_of(button.placement, button.batches[0].first)
        rules = snapshot.index.named(snapshot.index.of(context))
        order = [LayerRef.place(button.placement), *(LayerRef.exception(rule.id) for rule in rules)]
        place = {ref: n for n, ref in enumerate(order, 1)}
        opens, says = (trace(snapshot, context, field) for field in ("afterwards", f"wording.ready.{first}"))
        # What stands in neither is of the baseline, which all others have in common.
        if opens and says and place.get(says[0].layer, 0) < place.get(opens[0].layer, 0):
            alike.setdefault(str(says[0].value), []).append(button)
        icon = button.document.icon
        if opens and isinstance(icon, ShippedIcon) and any(word in icon.name.split() for word in _OF_BASKETS):
            under.setdefault(opens[0].layer, []).append(button)
    for text, buttons in alike.items():
        yield Finding(
            "message_words", Weight.LOOK_AGAIN, spots(*buttons), "words",
            f"It opens a message and says “{text}”, as a button that buys does",
            f"What a press opens {where_all(buttons)} fills no basket. Give it words of its own beside the message, "
            "as “Ask about this”.",
            len(buttons), 0,
        )  # fmt: skip
    for layer, buttons in under.items():
        yield Finding(
            "message_icon", Weight.LOOK_AGAIN, spots(*buttons), "icon",
            "It opens a message under a basket",
            f"What a press opens {where_all(buttons)} fills no basket; its icon says that it does.",
            len(buttons), 0, (Fix("take the icon away there", layer, {"icon": {"kind": "none"}}),),
        )  # fmt: skip
