"""What a picture shows, worked out from its own pixels, and how much of that a button over it hides."""

from base64 import b64decode
from dataclasses import dataclass
from functools import lru_cache
from typing import get_args

import numpy as np
from numpy.typing import NDArray

from uptick.core.button.over import Anchor, InsetLength, Over
from uptick.core.colour.pictures import Pixels, oklab, worst_contrast
from uptick.core.scroll.survey import DOTS, Rect, SeenPicture

# Nearer than this to the ground a dot is ground (OKLab; a just noticeable difference is about 0.02).
_GROUND_NEAR = 0.06
# Edges that differ among themselves by more are no ground: then the middle counts most.
_BUSY = 0.12


@dataclass(frozen=True, eq=False)
class Subject:
    """Where in a picture is what it shows.

    `weights` are `(DOTS, DOTS)`, row by row, and add up to 1; `focus` is their middle, as shares of width and height.
    """

    weights: NDArray[np.float64]
    focus: tuple[float, float]


def dots_of(picture: SeenPicture) -> Pixels | None:
    """Return the dots of a picture, `(DOTS * DOTS, 3)` in [0, 1]; None where the page could not read it."""
    return _dots(picture.dots) if picture.dots else None


@lru_cache(maxsize=512)
def _dots(written: str) -> Pixels:
    return np.frombuffer(b64decode(written), dtype=np.uint8).reshape(-1, 3) / 255


def subject_of(picture: SeenPicture) -> Subject | None:
    """Return what a picture shows; None where the page could not read it."""
    return _subject(picture.dots) if picture.dots else None


@lru_cache(maxsize=512)
def _subject(written: str) -> Subject:
    """Weigh every dot by how far its colour is from the ground's, which is that of the picture's edges.

    Our own measure: goods are mostly shown on a plain ground. Where there is none, or all is ground, nearness to the
    middle counts.
    """
    lab = oklab(_dots(written)).reshape(DOTS, DOTS, 3)
    edge = np.concatenate([lab[0], lab[-1], lab[1:-1, 0], lab[1:-1, -1]])
    ground = np.median(edge, axis=0)
    busy = float(np.median(np.linalg.norm(edge - ground, axis=1))) > _BUSY
    away = np.linalg.norm(lab - ground, axis=2)
    weights = np.where(away > _GROUND_NEAR, away, 0.0)
    if busy or not weights.any():
        weights = _middle()
    weights = weights / weights.sum()
    at = (np.arange(DOTS) + 0.5) / DOTS
    return Subject(weights, (float(weights.sum(axis=0) @ at), float(weights.sum(axis=1) @ at)))


@lru_cache(maxsize=1)
def _middle() -> NDArray[np.float64]:
    at = ((np.arange(DOTS) + 0.5) / DOTS - 0.5) / 0.25
    return np.exp(-(at[:, None] ** 2 + at[None, :] ** 2) / 2)


def _shares(box: Rect, on: Rect) -> tuple[float, float, float, float]:
    """Return the part of a picture that a box covers: left, top, right and bottom as shares of it."""
    return (
        max(0.0, (box.x - on.x) / on.wide),
        max(0.0, (box.y - on.y) / on.high),
        min(1.0, (box.right - on.x) / on.wide),
        min(1.0, (box.bottom - on.y) / on.high),
    )


def _covers(first: float, last: float) -> NDArray[np.float64]:
    """Return how much of each dot along one side lies between two shares of it."""
    edges = np.arange(DOTS + 1) / DOTS
    covered: NDArray[np.float64] = np.clip(np.minimum(edges[1:], last) - np.maximum(edges[:-1], first), 0, None) * DOTS
    return covered


def hidden_share(box: Rect, picture: SeenPicture) -> float:
    """Return how much of what a picture shows lies under a box, from 0 to 1."""
    subject = subject_of(picture)
    if subject is None or not picture.box.wide or not picture.box.high:
        return 0.0
    left, top, right, bottom = _shares(box, picture.box)
    return float(_covers(top, bottom) @ subject.weights @ _covers(left, right))


def hides_focus(box: Rect, picture: SeenPicture) -> bool:
    """Tell whether the middle of what a picture shows lies under a box."""
    subject = subject_of(picture)
    if subject is None or not picture.box.wide or not picture.box.high:
        return False
    left, top, right, bottom = _shares(box, picture.box)
    x, y = subject.focus
    return left <= x <= right and top <= y <= bottom


def contrast_over(words: str, box: Rect, picture: SeenPicture) -> float | None:
    """Return the contrast of words with the picture's pixels under a box, at worst; None where it cannot be read."""
    dots = dots_of(picture)
    if dots is None or not picture.box.wide or not picture.box.high:
        return None
    left, top, right, bottom = _shares(box, picture.box)
    if left >= right or top >= bottom:
        return None
    rows, columns = _covers(top, bottom) > 0, _covers(left, right) > 0
    return worst_contrast(words, dots.reshape(DOTS, DOTS, 3)[rows][:, columns].reshape(-1, 3))


def laid(over: Over, size: tuple[float, float], on: Rect, *, rtl: bool = False) -> Rect:
    """Return where a button of a size lies on a picture, as the script lays it."""
    wide, high = size
    across = 1 - over.share_across if rtl else over.share_across
    x = on.x + across * (on.wide - wide) + (1 - 2 * across) * _inset_px(over.across, on.wide)
    down = over.share_down
    y = on.y + down * (on.high - high) + (1 - 2 * down) * _inset_px(over.down, on.high)
    return Rect(x=x, y=y, wide=wide, high=high)


def _inset_px(inset: InsetLength, of: float) -> float:
    return float(inset[:-1]) / 100 * of if isinstance(inset, str) else float(inset)


# The anchors as they lie, three in a row.
ANCHORS: tuple[Anchor, ...] = get_args(Anchor)


def spot_words(spot: str, *, rtl: bool) -> str:
    """Return an anchor or a corner as one sees it: in the lower right corner, at the top, on the left."""
    down = "upper" if spot.startswith("top") else "lower" if spot.startswith("bottom") else ""
    is_side = spot.endswith(("start", "end"))
    side = "right" if spot.endswith("end") != rtl else "left"
    if down and is_side:
        return f"in the {down} {side} corner"
    if is_side:
        return f"on the {side}"
    return {"upper": "at the top", "lower": "at the bottom", "": "in the middle"}[down]
