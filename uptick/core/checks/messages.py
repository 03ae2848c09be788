"""Messages that a press opens: what they say in every language that the buttons speak."""

from collections.abc import Iterator, Sequence

from uptick.core.button.message import ToMessage
from uptick.core.checks.finding import Finding, Weight, spots, where_all
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass
from uptick.core.resolved.reach_words import listed
from uptick.core.words.wording import language_name


def check_messages(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find messages that say nothing of the product, and those that a language lacks."""
    spoken, first = snapshot.settings.languages, snapshot.settings.language
    alike: dict[tuple[str, ...], list[ButtonClass]] = {}
    for one in classes:
        message = one.document.afterwards
        if not isinstance(message, ToMessage) or message.way == "phone" or not one.document.placement.shown:
            continue
        if lacks := tuple(language for language in spoken if not message.text.get(language)):
            alike.setdefault(lacks, []).append(one)
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
