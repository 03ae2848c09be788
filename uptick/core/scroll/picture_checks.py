"""What is wrong with buttons over pictures: what they hide, and words that the pictures make hard to read."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from uptick.core.button.document import ButtonDocument, Device, Placement
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.look import NoFill
from uptick.core.button.over import Anchor, Over
from uptick.core.checks.finding import Fix, Weight
from uptick.core.colour.colour import contrast_ratio, needed_ratio, opaque
from uptick.core.colour.dress import REST, dress_in
from uptick.core.scroll.in_reach import in_reach
from uptick.core.scroll.pictures import ANCHORS, contrast_over, hidden_share, hides_focus, laid, spot_words
from uptick.core.scroll.place_checks import DEVICE_NAMES, ScrollFinding
from uptick.core.scroll.scene import scene_of
from uptick.core.scroll.survey import PageSurvey, SeenPicture, SeenPlace

# Our own measure: less than this of what a picture shows may lie under a button.
MOST_HIDDEN = 0.25
# The button of a place over its picture, and what its product is called; None where none stands.
DrawnFor = Callable[[SeenPlace], tuple[ButtonDocument, str] | None]


@dataclass(frozen=True, slots=True)
class _Lying:
    place: SeenPlace
    picture: SeenPicture
    document: ButtonDocument
    name: str

    @property
    def size(self) -> tuple[float, float]:
        return self.place.box.wide, self.place.box.high


def check_pictures(survey: PageSurvey, drawn_for: DrawnFor, device: Device) -> Iterator[ScrollFinding]:
    """Yield what is wrong with the buttons that lie on pictures of a page.

    Args:
        drawn_for: The button of a place with its spot on the picture, and the product's name; None where none stands.
    """
    lying: dict[Placement, list[_Lying]] = {}
    for place in survey.places:
        if place.picture and place.stands and (drawn := drawn_for(place)):
            lying.setdefault(place.placement, []).append(_Lying(place, place.picture, *drawn))
    for those in lying.values():
        yield from _hidden(survey, those, device)
        yield from _pale(survey, those, device)


def _cut(ratio: float) -> str:
    """Write a contrast, cut and never rounded up: 4.499 must not read as 4.50."""
    return f"{int(ratio * 100 + 1e-6) / 100:.2f}"


def _found(
    survey: PageSurvey,
    device: Device,
    worst: _Lying,
    rule: str,
    weight: Weight,
    words: tuple[str, str],
    fixes: Sequence[Fix],
) -> ScrollFinding:
    title, says = words
    spans = in_reach(scene_of(survey), worst.place)
    return ScrollFinding(rule, weight, device, title, says, (worst.place.placement.value,), spans, tuple(fixes))


def _hides(lying: _Lying, over: Over, *, rtl: bool) -> float:
    """Return how much of what its picture shows a button hides; more than all where it lies on the middle of that."""
    box = laid(over, lying.size, lying.picture.box, rtl=rtl)
    return hidden_share(box, lying.picture) + (1 if hides_focus(box, lying.picture) else 0)


def _hidden(survey: PageSurvey, lying: Sequence[_Lying], device: Device) -> Iterator[ScrollFinding]:
    shares = [hidden_share(laid_button.place.box, laid_button.picture) for laid_button in lying]
    on_focus = [hides_focus(laid_button.place.box, laid_button.picture) for laid_button in lying]
    bad = [n for n in range(len(lying)) if on_focus[n] or shares[n] > MOST_HIDDEN]
    if not bad:
        return
    worst = lying[max(bad, key=lambda n: (on_focus[n], shares[n]))]
    share = hidden_share(worst.place.box, worst.picture)
    over = worst.document.over
    focal = any(on_focus)
    what = "the middle of what is shown" if focal else "much of what is shown"
    of = f"on {len(bad)} of {len(lying)} pictures" if len(lying) > 1 else "on the picture"
    waits = over.reveal != "nothing" and device is Device.DESKTOP
    free = _free_spots(survey, lying, over)
    # Where a button lies on a tile is said by its row, beside the place itself.
    is_tile = worst.place.placement is not Placement.OVER_PICTURE
    better = f" Free is: {' or '.join(spot for _, spot in free)}." if is_tile and free else ""
    yield _found(
        survey,
        device,
        worst,
        "hides",
        Weight.MUST_FIX if focal and not waits else Weight.LOOK_AGAIN,
        (
            f"The button hides {what} {of}",
            f"Worst is {worst.name}: {share * 100:.0f} % of it lies under the button on {DEVICE_NAMES[device]}, "
            f"{MOST_HIDDEN * 100:.0f} % is our own measure.{better}",
        ),
        []
        if is_tile
        else [Fix(f"put it {spot}", _layer(worst), {"over": {"anchor": anchor}}) for anchor, spot in free],
    )


def _layer(lying: _Lying) -> LayerRef:
    return LayerRef.place(lying.place.placement)


def _free_spots(survey: PageSurvey, lying: Sequence[_Lying], over: Over) -> list[tuple[Anchor, str]]:
    """Return the two nearest anchors at which no picture of the page is hidden too much, and how they are said."""

    def far(anchor: Anchor) -> int:
        a, b = ANCHORS.index(over.anchor), ANCHORS.index(anchor)
        return abs(a // 3 - b // 3) + abs(a % 3 - b % 3)

    free = []
    for anchor in sorted(set(ANCHORS) - {over.anchor}, key=lambda spot: (far(spot), ANCHORS.index(spot))):
        tried = over.model_copy(update={"anchor": anchor})
        most = max(_hides(laid_button, tried, rtl=survey.rtl) for laid_button in lying)
        if most <= MOST_HIDDEN:
            free.append((anchor, f"{spot_words(anchor, rtl=survey.rtl)}: {most * 100:.0f} % at worst"))
    return free[:2]


def _pale(survey: PageSurvey, lying: Sequence[_Lying], device: Device) -> Iterator[ScrollFinding]:
    """Find words without a fill of their own that the pixels under them make hard to read.

    Source:
        WCAG 2.2, 1.4.3 (words) and 1.4.11 (an icon alone).
    """
    read = []
    for laid_button in lying:
        look = laid_button.document.look
        if not isinstance(look.fill, NoFill):
            continue
        words = opaque(dress_in(look, REST).text_colour)
        needed = 3.0 if laid_button.document.is_wordless else needed_ratio(look.type.size_px, look.type.weight)
        ratio = contrast_over(words, laid_button.place.box, laid_button.picture)
        if ratio is not None and ratio < needed:
            read.append((ratio, needed, words, laid_button))
    if not read:
        return
    ratio, needed, words, worst = min(read, key=lambda each: each[0])
    body = max(("#000000", "#ffffff"), key=lambda colour: contrast_ratio(words, colour))
    ratio_then = contrast_ratio(words, body)
    yield _found(
        survey,
        device,
        worst,
        "pale",
        Weight.MUST_FIX,
        (
            f"Words {_cut(ratio)} : 1 over the picture of {worst.name}, {needed:g} is needed",
            f"{words} without a fill, on {len(read)} of {len(lying)} pictures on {DEVICE_NAMES[device]}.",
        ),
        [
            Fix(
                f"fill {body} gives {_cut(ratio_then)}",
                _layer(worst),
                {"look": {"fill": {"kind": "solid", "colour": body}}},
            )
        ],
    )
