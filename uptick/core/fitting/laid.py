"""Buttons laid out where they stand, each once for all that look alike and say the same."""

from uptick.core.button.document import ButtonDocument
from uptick.core.button.lengths import Ground
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.drawing import Drawing
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step


def laid(
    snapshot: Snapshot, document: ButtonDocument, text: str, ground: Ground, language: str, *, rtl: bool = False
) -> Drawing:
    """Return a button laid out with a text on a ground, kept for the next who asks the same."""
    key = (document.drawn_number, ground, text, language, rtl)
    return snapshot.tables.ask(
        Step.BOXES, key, lambda: lay_out(document, text, snapshot.kit, ground, rtl=rtl, language=language)
    )
