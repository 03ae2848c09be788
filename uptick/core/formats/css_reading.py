"""What a browser makes of a stylesheet for one button: the values that it has computed, in every state and width."""

from collections.abc import Iterable, Mapping
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from uptick.core.errors import BadCss

MOST_READING = 400_000
_Name = Annotated[str, StringConstraints(max_length=200)]
_Value = Annotated[str, StringConstraints(max_length=4_000)]
_Values = Annotated[dict[_Name, _Value], Field(max_length=1_000)]
_Names = Annotated[tuple[_Name, ...], Field(max_length=3_000)]
_State = Annotated[str, StringConstraints(pattern=r"^(hover|pressed|focus|disabled)$")]


class _Read(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Styled(_Read):
    """Computed values of the button and of the element that has its words: longhand properties as the browser says."""

    button: _Values
    words: _Values


class ComputedBox(_Read):
    """How it stands in the browser, in CSS pixels.

    `room` is the width that it stands in; `words_off_*` how far the middle of its words is from its own.
    """

    width: float
    height: float
    room: float
    words_off_y: float
    words_off_x: float
    overflows: bool


class AtWidth(_Read):
    """What is computed in a window of one width; states say what differs from rest."""

    window_px: Annotated[float, Field(gt=0, le=4000)]
    rest: Styled
    states: dict[_State, Styled]
    box: ComputedBox


class ComputedButton(_Read):
    """A button as a browser has computed it. Its JSON Schema is what the studio and the command line send.

    The first width is said whole, the others where they differ from it. `said` are the longhands that rules for the
    button set, `said_around` those of what it stands in and of what is in it, `said_in` those of each state alone.
    `told` is what the browser did not take, in words; `inner` says that the words stand in an element of their own.
    """

    selector: Annotated[str, StringConstraints(max_length=400)]
    tag: Annotated[str, StringConstraints(max_length=40)]
    inner: bool = False
    widths: Annotated[tuple[AtWidth, ...], Field(min_length=1, max_length=3)]
    said: _Names
    said_around: _Names
    said_in: dict[_State, _Names]
    told: Annotated[tuple[Annotated[str, StringConstraints(max_length=600)], ...], Field(max_length=400)]


# Properties by the direction of writing, and what they are where one writes from left to right and downward: so a
# stylesheet is read (CSS Logical Properties 1, sections 4 and 6).
_SIDES = {"block-start": "top", "block-end": "bottom", "inline-start": "left", "inline-end": "right"}
_CORNERS = {
    "start-start": "top-left", "start-end": "top-right", "end-end": "bottom-right", "end-start": "bottom-left",
}  # fmt: skip
_LOGICAL = {
    **{f"padding-{flow}": f"padding-{side}" for flow, side in _SIDES.items()},
    **{
        f"border-{flow}-{part}": f"border-{side}-{part}"
        for flow, side in _SIDES.items()
        for part in ("width", "style", "color")
    },
    **{f"border-{flow}-radius": f"border-{corner}-radius" for flow, corner in _CORNERS.items()},
    **{f"{kind}inline-size": f"{kind}width" for kind in ("", "min-", "max-")},
    **{f"{kind}block-size": f"{kind}height" for kind in ("", "min-", "max-")},
}


def by_side(names: Iterable[str]) -> tuple[str, ...]:
    """Return properties with those by the direction of writing as what they set."""
    return tuple(_LOGICAL.get(name, name) for name in names)


def parse_reading(text: str) -> ComputedButton:
    """Return a reading from its JSON.

    Raises:
        BadCss: It is none, or is larger than that of any button.
    """
    if len(text) > MOST_READING:
        raise BadCss(f"The reading has {len(text):,} characters; {MOST_READING:,} are the most.")
    try:
        read = ComputedButton.model_validate_json(text)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(step) for step in first["loc"])
        raise BadCss(f"That is no reading of a stylesheet: {where}: {first['msg']}.") from error
    said_in = {state: by_side(names) for state, names in read.said_in.items()}
    return read.model_copy(
        update={"said": by_side(read.said), "said_around": by_side(read.said_around), "said_in": said_in}
    )


def whole(reading: ComputedButton, n: int) -> AtWidth:
    """Return one width of a reading with all of its values."""
    first, css_width = reading.widths[0], reading.widths[n]
    rest = Styled(
        button=_over(first.rest.button, css_width.rest.button), words=_over(first.rest.words, css_width.rest.words)
    )  # fmt: skip
    return css_width.model_copy(update={"rest": rest})


def _over(base: Mapping[str, str], more: Mapping[str, str]) -> dict[str, str]:
    return {**base, **more}
