"""Two buttons side by side: of one height, and told apart by everyone."""

from collections.abc import Iterator, Sequence

from uptick.core.button.document import Placement, SecondButton, Situation
from uptick.core.checks.finding import Finding, Fix, Weight, spots, where_all
from uptick.core.colour.colour import DEFICIENCIES, contrast_ratio, difference, seen_by
from uptick.core.colour.dress import REST, base_colour, dress_in
from uptick.core.drawing.beside import second_look
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.kit import Kit
from uptick.core.drawing.match import matched
from uptick.core.engine.snapshot import Snapshot
from uptick.core.fitting.fill import template_of
from uptick.core.resolved.classes import LEADING, ButtonClass
from uptick.core.shop.store import Store

# CIEDE2000: ten is plain at a glance (common practice); two buttons that differ in luminance by half differ in weight.
_APART, _WEIGHTS_APART = 10.0, 1.5


def check_pairs(snapshot: Snapshot, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Yield what is to be fixed where a second button and the first do not fit each other."""
    alike: dict[tuple[Placement, int, int], list[ButtonClass]] = {}
    for button in classes:
        if isinstance(button.document.second, SecondButton) and button.document.placement.shown:
            key = (button.placement, button.document.drawn_number, button.document.said_number)
            alike.setdefault(key, []).append(button)
    for buttons in alike.values():
        second = buttons[0].document.second
        # What leads to a closer look is meant to be less than what buys.
        if isinstance(second, SecondButton) and second.kind == "checkout":
            yield from _unmatched(buttons, snapshot.store, snapshot.kit)
        yield from _look_alikes(buttons, snapshot.store)


def _unmatched(buttons: Sequence[ButtonClass], store: Store, kit: Kit) -> Iterator[Finding]:
    button = buttons[0]
    second = button.document.second
    assert isinstance(second, SecondButton)
    ground = store.ground(button.placement, store.surfaces[button.placement].narrowest()[0])
    drawn = lay_out(button.document, template_of(button.document, LEADING[Situation.PLAIN], ""), kit, ground)
    assert drawn.second
    off = drawn.second.outer.height - drawn.outer.height
    sizes_differ = second.size_px != button.document.look.type.size_px
    if abs(off) < 0.5 and not sizes_differ:
        return
    patch = {"second": matched(button.document, kit).model_dump(mode="json")}
    what = (
        f"The checkout button is {abs(off):.4g} px {'taller' if off > 0 else 'lower'}"
        if abs(off) >= 0.5
        else f"{second.size_px:g} px type beside {button.document.look.type.size_px:g} px"
    )
    yield Finding(
        "neighbour", Weight.LOOK_AGAIN, spots(*buttons), "second",
        what,
        f"{drawn.second.outer.height:g} px high with type of {second.size_px:g}, the first {drawn.outer.height:g} with "
        f"{button.document.look.type.size_px:g}, {where_all(buttons)}.",
        drawn.second.outer.height, drawn.outer.height, (Fix("match the neighbour", button.top_layer, patch),),
    )  # fmt: skip


def _look_alikes(buttons: Sequence[ButtonClass], store: Store) -> Iterator[Finding]:
    """Find two buttons whose fills cannot be told apart, also by shoppers with a deficiency of colour vision."""
    button = buttons[0]
    page = store.surfaces[button.placement].page_colour
    first = base_colour(dress_in(button.document.look, REST).fill, page) or page
    other = base_colour(dress_in(second_look(button.document), REST).fill, page) or page
    eyes = {"everyone": difference(first, other)}
    eyes |= {eye: difference(seen_by(first, eye), seen_by(other, eye)) for eye in DEFICIENCIES}
    eye = min(eyes, key=lambda name: eyes[name])
    if eyes[eye] < _APART:
        who = "by nobody" if eyes["everyone"] < _APART else f"hardly by {_EYES[eye]} shoppers"
        yield Finding(
            "look_alike", Weight.LOOK_AGAIN, spots(*buttons), "second",
            f"Two fills told apart {who}",
            f"{first} and {other} are {eyes[eye]:.1f} apart for them, {_APART:g} is plain at a glance, "
            f"{where_all(buttons)}.",
            eyes[eye], _APART,
            (Fix("second without fill", button.top_layer, _without_fill(button)),),
        )  # fmt: skip
    elif contrast_ratio(first, other) < _WEIGHTS_APART:
        yield Finding(
            "look_alike", Weight.NOTE, spots(*buttons), "second",
            "Two buttons of one weight",
            f"{first} and {other} are equally heavy: by brightness alone neither leads, {where_all(buttons)}.",
            contrast_ratio(first, other), _WEIGHTS_APART,
        )  # fmt: skip


_EYES = {"protan": "red-blind", "deutan": "green-blind", "tritan": "blue-blind"}


def _without_fill(button: ButtonClass) -> dict[str, object]:
    second = button.document.second
    assert isinstance(second, SecondButton)
    return {"second": {**second.model_dump(mode="json"), "fill": {"kind": "none"}, "text_colour": None}}
