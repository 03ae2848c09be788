"""A page as it was measured: where its places, its stuck things and its contents stand, in CSS pixels."""

from base64 import b64decode
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, field_validator, model_validator

from uptick.core.button.document import Placement
from uptick.core.button.look import Part

# No page that anybody scrolls is larger; what is, was measured wrong.
_MOST_PX = 4_000_000
# So many dots across and down stand for a picture.
DOTS = 32
Position = Annotated[float, Field(ge=-_MOST_PX, le=_MOST_PX, allow_inf_nan=False)]
Extent = Annotated[float, Field(ge=0, le=_MOST_PX, allow_inf_nan=False)]
Called = Annotated[str, StringConstraints(max_length=200)]


class Rect(Part):
    """A box; `y` counts down from the top of the page, or of the window for what is fixed to it."""

    x: Position
    y: Position
    wide: Extent
    high: Extent

    @property
    def right(self) -> float:
        return self.x + self.wide

    @property
    def bottom(self) -> float:
        return self.y + self.high


class Window(Part):
    wide: Annotated[float, Field(ge=1, le=20_000)]
    high: Annotated[float, Field(ge=1, le=20_000)]


class Stuck(Part):
    """Something of the shop's that does not simply move with the page.

    What is sticky has the box that it would have without, the edge of the window that it sticks to, how far from it,
    and between which heights of the page it may move.
    """

    name: Called
    kind: Literal["fixed", "sticky"]
    box: Rect
    edge: Literal["top", "bottom"] = "top"
    inset: Position = 0
    least: Position = 0
    most: Position = _MOST_PX


class SeenPicture(Part):
    """A picture under a button, with its colours as a square of `DOTS` by `DOTS` dots, row by row, as it is shown.

    `dots` are three bytes each, in Base64; empty where the page may not read the picture.
    """

    box: Rect
    dots: Annotated[str, StringConstraints(max_length=DOTS * DOTS * 4)] = ""

    @field_validator("dots")
    @classmethod
    def _is_a_square(cls, dots: str) -> str:
        try:
            size = len(b64decode(dots, validate=True))
        except ValueError as error:
            raise ValueError("dots must be Base64") from error
        if size not in (0, DOTS * DOTS * 3):
            raise ValueError(f"dots must be {DOTS} × {DOTS} of three bytes each; they are {size} bytes")
        return dots


class SeenCard(Part):
    """What of a page belongs to one place alone, and what a rule of CSS would call it."""

    box: Rect
    selector: Called


class SeenPlace(Part):
    """A place with the button in it: ours where `stands`, else the shop's own.

    `room` is the place itself, `clip` what of the page it can be seen in, `holder` the stuck thing that it lies in.
    """

    placement: Placement
    stands: bool
    kept: Called = ""
    box: Rect
    room: Rect
    clip: Rect | None = None
    holder: Annotated[int, Field(ge=-1, le=1000)] = -1
    product: Called = ""
    card: SeenCard | None = None
    picture: SeenPicture | None = None


class CutPart(Part):
    """A text in the bar that does not fit."""

    part: Annotated[str, StringConstraints(max_length=20)]
    wide: Extent
    needs: Extent


class SeenBar(Part):
    high: Extent
    cut: Annotated[tuple[CutPart, ...], Field(max_length=10)] = ()


class Block(Part):
    """Something of the page's content, as the strip draws it."""

    kind: Literal["picture", "heading", "text"]
    box: Rect
    src: Annotated[str, StringConstraints(max_length=4000)] = ""


class PageSurvey(Part):
    """One measuring of a page in one window.

    `floating` is where a floating button lies in the window once it has come; with `rtl` one reads from right to left.
    `shift` is the layout shift that the browser told while buttons came.
    """

    path: Annotated[str, StringConstraints(max_length=600)]
    window: Window
    page_high: Extent
    places: Annotated[tuple[SeenPlace, ...], Field(max_length=2000)]
    stuck: Annotated[tuple[Stuck, ...], Field(max_length=200)]
    bar: SeenBar | None = None
    floating: Rect | None = None
    rtl: bool = False
    blocks: Annotated[tuple[Block, ...], Field(max_length=400)] = ()
    ground: Annotated[str, StringConstraints(max_length=80)] = ""
    ink: Annotated[str, StringConstraints(max_length=80)] = ""
    shift: Annotated[float, Field(ge=0, le=1000)] = 0
    took_ms: Annotated[float, Field(ge=0)] = 0

    @model_validator(mode="after")
    def _holders_are_there(self) -> "PageSurvey":
        for place in self.places:
            if place.holder >= len(self.stuck):
                raise ValueError(f"holder must be from -1 to {len(self.stuck) - 1}; it is {place.holder}")
        return self

    @property
    def way_px(self) -> float:
        """Return how far the page can be scrolled."""
        return max(0.0, self.page_high - self.window.high)
