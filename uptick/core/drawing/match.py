"""Two buttons made alike: the second takes the first one's type and corners, and the padding that makes it as high."""

from uptick.core.button.document import ButtonDocument, NoSecond, SecondButton
from uptick.core.button.lengths import Ground
from uptick.core.drawing.beside import second_look
from uptick.core.drawing.compile import reserved_height
from uptick.core.drawing.drawing import border_edges, edges_of
from uptick.core.drawing.kit import Kit
from uptick.core.errors import BadDocument
from uptick.core.type.setting import set_words

_GROUND = Ground(320, 375)


def matched(document: ButtonDocument, kit: Kit) -> SecondButton:
    """Return the second button with the height, type and corners of the first.

    Raises:
        BadDocument: There is no second button.
    """
    if isinstance(document.second, NoSecond):
        raise BadDocument("second: there is no second button to match.", field="second")
    look = document.look
    alike = document.second.model_copy(
        update={"size_px": look.type.size_px, "weight": look.type.weight, "radius": look.radius}
    )
    own = second_look(document.model_copy(update={"second": alike}))
    line = set_words("", own.type, kit.fonts).line_height_px
    free = max(0.0, reserved_height(document, kit) - line - border_edges(own.border).along)
    sides = edges_of(alike.padding, _GROUND, look.type.size_px)
    padding = alike.padding.model_copy(
        update={"top": free / 2, "bottom": free / 2, "left": sides.left, "right": sides.right}
    )
    return alike.model_copy(update={"padding": padding})
