"""A winner is kept for those it won with, and whatever else would show instead is named before."""

from dataclasses import replace
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.samples import NOW, PLACES, PRODUCTS, exception, settings, snapshot
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.resolved.classes import class_for, context_of, under_version
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule
from uptick.core.trial.keeping import shown_elsewhere, with_winner
from uptick.core.trial.readout import Measure
from uptick.core.trial.record import Trial, TrialState

B: Json = {"look": {"radius": 20}}
LANGUAGES = ("en-GB", "de-DE")
SOME = {
    "products": [p.sku for p in PRODUCTS],
    "categories": ["Tools", "Jars", "Hives"],
    "situations": [*Situation],
    "devices": [*Device],
    "languages": [*LANGUAGES],
    "shoppers": [*ShopperKind],
    "not_products": [p.sku for p in PRODUCTS],
    "not_categories": ["Tools", "Jars"],
}


def some_of(values: list[Any]) -> st.SearchStrategy[tuple[Any, ...]]:
    # Most dimensions of most reaches say nothing.
    return st.just(()) | st.lists(st.sampled_from(values), unique=True, max_size=2).map(tuple)


reaches = st.fixed_dictionaries({name: some_of(values) for name, values in SOME.items()})
layers = st.sampled_from([{"look": {"radius": 2}}, {"look": {"radius": 20}}, {"look": {"border": {"kind": "none"}}}])


def trial(reach: Reach, layer: Json = B) -> Trial:
    return Trial(
        3, "Rounder?", reach, layer, Measure.ADDED, 0.2, 3, TrialState.RUNNING, "salt", None, None, None, None, None
    )


def rule(n: int, reach: dict[str, Any], layer: Json, placements: tuple[Placement, ...]) -> ExceptionRule:
    return exception(n, layer, placements=placements, **reach)


@given(
    reaches,
    st.lists(st.sampled_from([Placement.PRODUCT_PAGE, Placement.STRIP]), min_size=1, unique=True).map(tuple),
    st.lists(st.tuples(reaches, layers, some_of([*PLACES])), max_size=3),
)
def test_b_shows_to_those_it_won_with_and_to_nobody_else(
    of: dict[str, Any], places: tuple[Placement, ...], others: list[tuple[dict[str, Any], Json, Any]]
) -> None:
    before = settings(*(rule(n, *other) for n, other in enumerate(others, 1)), more=("de-DE",))
    tried = trial(Reach(placements=places, **of))
    kept = snapshot(with_winner(before, tried, "e99", "Ada", NOW))
    base = snapshot(before)
    named = {found.id for found in shown_elsewhere(before, tried, PRODUCTS)}
    for place in PLACES:
        for product in PRODUCTS:
            for device in Device:
                context = replace(
                    context_of(place, product, device=device, language="de-DE", shopper=ShopperKind.RETURNING)
                )
                was, now = class_for(base, context), class_for(kept, context)
                if not tried.reach.covers(context):
                    assert now.document.look == was.document.look
                elif now.document.look != under_version(was, tried.version_b).document.look:
                    over = {known.id for known in before.exceptions if known.reach.covers(context)}
                    assert named & over, (context, named)


def test_an_exception_that_would_show_instead_is_named_with_what_it_says_and_how_many() -> None:
    before = settings(exception(1, {"look": {"radius": 2}}, categories=("Jars",)))
    (found,) = shown_elsewhere(before, trial(Reach(placements=(Placement.PRODUCT_PAGE,))), PRODUCTS)
    assert (found.exception, found.fields, found.products) == ("Exception 1", ("corner radius",), 2)
    # What says the same, or something else, or somewhere else, does not stand in the way.
    for layer, reach in (
        ({"look": {"radius": 20}}, {"categories": ("Jars",)}),
        ({"look": {"border": {"kind": "none"}}}, {"categories": ("Jars",)}),
        ({"look": {"radius": 2}}, {"placements": (Placement.STRIP,)}),
    ):
        other = settings(exception(1, layer, **reach))
        assert shown_elsewhere(other, trial(Reach(placements=(Placement.PRODUCT_PAGE,))), PRODUCTS) == ()
