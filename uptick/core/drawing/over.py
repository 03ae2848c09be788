"""A button over a picture, compiled: where the script lays it, and how it comes on hovering."""

from typing_extensions import TypedDict

from uptick.core.button.document import ButtonDocument, NoIcon
from uptick.core.button.over import Over


class CompiledOver(TypedDict):
    """`x` and `y` are shares of the way across and down; the others pixels, or a part of the picture as `4%`."""

    x: float
    y: float
    across: float | str
    down: float | str


def compile_over(document: ButtonDocument) -> CompiledOver:
    """Return where a button lies on its picture: shares of width and height, and from which corner."""
    over = document.over
    return {"x": over.share_across, "y": over.share_down, "across": over.across, "down": over.down}


def over_css(document: ButtonDocument) -> str:
    """Return what a button has over a picture: no room of its own, and what of it waits to be hovered or focused.

    Nothing waits where nothing can hover, so that it is never there by hovering only (WCAG 2.2, 2.1.1 and 1.4.13).
    """
    over = document.over
    css = ":host{position:absolute;z-index:1;visibility:hidden}:host([data-on]){visibility:inherit}"
    if over.reveal == "nothing":
        return css
    return f"{css}@media(hover:hover){{{_waiting(over, has_icon=not isinstance(document.icon, NoIcon))}}}"


def _waiting(over: Over, *, has_icon: bool) -> str:
    waits = ":host(:not([data-near],:focus-within))"
    comes = f"{over.reveal_ms}ms {over.curve}"
    # Without an icon nothing would be left of it.
    if over.reveal == "words" and has_icon:
        return (
            f".w{{max-width:24em;overflow:hidden;transition:max-width {comes},opacity {comes}}}"
            f"{waits} .b{{gap:0}}{waits} .w{{max-width:0;opacity:0}}"
        )
    still = "@media(prefers-reduced-motion:reduce){:host{transition:none}}"
    return f":host{{transition:opacity {comes}}}{waits}{{opacity:0}}{still}"
