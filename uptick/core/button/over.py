"""A button over a picture: at which of nine anchors, how far inside, and whether it shows at once."""

import re
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, WithJsonSchema

from uptick.core.button.look import Part

Anchor = Literal[
    "top_start", "top", "top_end", "start", "middle", "end", "bottom_start", "bottom", "bottom_end"
]  # fmt: skip
_PERCENT = re.compile(r"^(\d{1,2}(?:\.\d{1,2})?)%$")
MOST_INSET_PX = 400


def _read_inset(value: Any) -> float | str:
    if isinstance(value, str):
        match = _PERCENT.match(value.strip())
        if match and float(match[1]) <= 50:
            return f"{float(match[1]):g}%"
    elif not isinstance(value, bool) and isinstance(value, int | float) and 0 <= value <= MOST_INSET_PX:
        return float(value)
    raise ValueError(f"must be from 0 to {MOST_INSET_PX} px, or from 0% to 50% of the picture, such as 12 or 4%")


# Pixels, or a share of the picture's width or height.
InsetLength = Annotated[
    float | str,
    BeforeValidator(_read_inset),
    WithJsonSchema(
        {
            "anyOf": [
                {"type": "number", "minimum": 0, "maximum": MOST_INSET_PX},
                {"type": "string", "pattern": r"^\d{1,2}(\.\d{1,2})?%$"},
            ]
        }
    ),
]


class Over(Part):
    """Where a button lies on a picture.

    `across` and `down` are its distances from the edges that the anchor names; from the middle there is none.
    `reveal` is what comes on hovering and on focus: nothing, since all of it is there; the whole button; its words,
    beside an icon that is there. Fingers cannot hover, and see all of it (300–600 ms are common practice).
    """

    anchor: Anchor = "bottom_end"
    across: InsetLength = 12.0
    down: InsetLength = 12.0
    reveal: Literal["nothing", "button", "words"] = "nothing"
    reveal_ms: Annotated[int, Field(ge=0, le=2000)] = 400
    curve: Literal["linear", "ease", "ease-in", "ease-out", "ease-in-out"] = "ease-out"

    @property
    def share_across(self) -> float:
        """Return where on the way across the anchor is: 0 at the start, 1 at the end."""
        return 0.0 if self.anchor.endswith("start") else 1.0 if self.anchor.endswith("end") else 0.5

    @property
    def share_down(self) -> float:
        """Return where on the way down the anchor is: 0 at the top, 1 at the bottom."""
        return 0.0 if self.anchor.startswith("top") else 1.0 if self.anchor.startswith("bottom") else 0.5
