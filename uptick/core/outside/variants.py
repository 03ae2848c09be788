"""A look made filled or outlined: what a button from the shop is in another ground's company."""

from uptick.core.button.document import ButtonDocument
from uptick.core.button.look import LineBorder, NoFill, SolidFill
from uptick.core.colour.colour import nearest_passing, over, worst_contrast
from uptick.core.colour.dress import REST, base_colour, dress_in, words_on
from uptick.core.colour.fills import WHITE, colours_in
from uptick.core.outside.handed import Drawn

# WCAG 2.2, 1.4.3.
_READABLE = 4.5
_LINE_PX = 2.0


def drawn_as(document: ButtonDocument, drawn: Drawn) -> ButtonDocument:
    """Return a button filled or outlined in its own colour, or as it is.

    The colour is that of its fill, or of its words where it has none; an outline takes it as far as it reads on white.
    """
    look = document.look
    worn = dress_in(look, REST)
    if drawn == "outlined" and not isinstance(look.fill, NoFill):
        colour = nearest_passing(base_colour(worn.fill) or worn.text_colour, WHITE, _READABLE) or "#000000"
        border = LineBorder(width_px=_LINE_PX, colour=colour)
        return _with(document, fill=NoFill(), text_colour=colour, border=border)
    if drawn == "filled" and isinstance(look.fill, NoFill):
        fill = SolidFill(colour=over(worn.text_colour, WHITE))
        return _with(document, fill=fill, text_colour=words_on(fill))
    return document


def _with(document: ButtonDocument, **changes: object) -> ButtonDocument:
    return document.model_copy(update={"look": document.look.model_copy(update=changes)})


def contrast_on(document: ButtonDocument, ground: str) -> float:
    """Return the worst contrast of a button's words on a page of this colour; on its own picture fill, 21."""
    worn = dress_in(document.look, REST)
    met = (ground,) if isinstance(worn.fill, NoFill) else colours_in(worn.fill, ground)
    return worst_contrast(over(worn.text_colour, met[0]), met)[0] if met else 21.0
