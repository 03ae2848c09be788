"""Buttons without words need a name that screen readers can say."""

from collections.abc import Iterator, Sequence

from uptick.core.button.box_names import names_of
from uptick.core.button.document import Moment, QuantityBox
from uptick.core.checks.finding import Finding, Weight, spots, where_all
from uptick.core.engine.snapshot import Snapshot
from uptick.core.fitting.fill import template_of
from uptick.core.resolved.classes import ButtonClass
from uptick.core.resolved.reach_words import listed
from uptick.core.words.wording import language_name


def check_names(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Yield what is to be fixed where a button or a quantity box has no name that can be read out."""
    yield from _wordless(snapshot, classes)
    yield from _boxes(snapshot, classes)


def _boxes(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find quantity boxes that screen readers would call by an English name in another language.

    Source:
        WCAG 2.2, 3.1.2 Language of Parts and 4.1.2 Name, Role, Value.
    """
    alike: dict[tuple[str, ...], list[ButtonClass]] = {}
    for button in classes:
        box = button.document.quantity
        if isinstance(box, QuantityBox) and button.document.placement.shown:
            lacks = tuple(language for language in snapshot.settings.languages if not names_of(box, language))
            if lacks:
                alike.setdefault(lacks, []).append(button)
    for missing, buttons in alike.items():
        yield Finding(
            "box_name", Weight.LOOK_AGAIN, spots(*buttons), "quantity",
            f"The quantity box has no name in {listed(language_name(gap) for gap in missing)}",
            f"Screen readers call it “Quantity” {where_all(buttons)} until the specification says its names.",
            len(missing), 0,
        )  # fmt: skip


def _wordless(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Find what shows an icon or a picture only and has no name of its own: its ready words are read out meanwhile.

    Source:
        WCAG 2.2, 4.1.2 Name, Role, Value and 1.1.1 Non-text Content.
    """
    alike: dict[tuple[str, ...], list[ButtonClass]] = {}
    for button in classes:
        if button.document.is_wordless and button.document.placement.shown:
            lacks = tuple(
                language for language in snapshot.settings.languages if not button.document.spoken.get(language)
            )
            if lacks:
                alike.setdefault((button.placement, *lacks), []).append(button)
    for (_, *missing), buttons in alike.items():
        read = template_of(buttons[0].document, Moment.READY, missing[0], snapshot.settings.language)
        yield Finding(
            "name", Weight.LOOK_AGAIN, spots(*buttons), "words",
            f"No name for screen readers in {listed(language_name(gap) for gap in missing)}",
            f"No words are drawn {where_all(buttons)}; “{read}” is read out until it has a name.",
            len(missing), 0,
        )  # fmt: skip
