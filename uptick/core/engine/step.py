"""The steps in which a store is worked out, and which of them each one needs."""

from collections.abc import Mapping
from enum import StrEnum


class Step(StrEnum):
    """What is kept of a store, from what is read to what is shown."""

    # Read from outside.
    READ = "read"
    GOODS = "goods"
    # Of the settings alone.
    RULES = "rules"
    LOOKS = "looks"
    WORDINGS = "wordings"
    # Of settings and products together.
    COVER = "cover"
    DOCUMENTS = "documents"
    CLASSES = "classes"
    # Of what is drawn and said.
    WIDTHS = "widths"
    BOXES = "boxes"
    # Of the whole shop.
    SOUND = "sound"
    FINDINGS = "findings"
    RESERVES = "reserves"
    DIFFERENCE = "difference"


# A step may ask for these and for no other; whoever asks for more is stopped (see `Tables.ask`). An edit of texts
# changes the keys of WORDINGS and of what follows from them, an edit of a look those of LOOKS, one of a reach those of
# RULES: what follows from none of these is found where it was kept.
NEEDS: Mapping[Step, frozenset[Step]] = {
    Step.READ: frozenset(),
    Step.GOODS: frozenset(),
    Step.RULES: frozenset(),
    Step.LOOKS: frozenset(),
    Step.WORDINGS: frozenset(),
    Step.COVER: frozenset({Step.GOODS, Step.RULES}),
    Step.DOCUMENTS: frozenset({Step.LOOKS, Step.WORDINGS}),
    Step.CLASSES: frozenset({Step.COVER, Step.DOCUMENTS, Step.LOOKS, Step.WORDINGS, Step.RULES}),
    Step.WIDTHS: frozenset({Step.GOODS, Step.DOCUMENTS, Step.LOOKS, Step.WORDINGS}),
    Step.BOXES: frozenset(),
    Step.SOUND: frozenset({Step.READ, Step.CLASSES, Step.LOOKS, Step.WORDINGS, Step.RULES, Step.COVER}),
    Step.FINDINGS: frozenset(
        {Step.READ, Step.CLASSES, Step.DOCUMENTS, Step.WIDTHS, Step.BOXES, Step.RULES, Step.COVER, Step.GOODS}
    ),
    Step.RESERVES: frozenset({Step.WIDTHS, Step.BOXES}),
    Step.DIFFERENCE: frozenset({Step.DOCUMENTS, Step.LOOKS, Step.WORDINGS, Step.RULES, Step.COVER, Step.GOODS}),
}


def follows_from(step: Step) -> frozenset[Step]:
    """Return the steps that are worked out from one, directly or not."""
    steps = {step}
    while more := {later for later, needs in NEEDS.items() if needs & steps} - steps:
        steps |= more
    return frozenset(steps - {step})
