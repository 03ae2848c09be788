from itertools import permutations
from itertools import product as crossing

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import BASELINE, PLACES, PRODUCTS, exception, settings, snapshot
from uptick.core.button.document import Device, Moment, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.errors import BadDocument, BadReach
from uptick.core.resolved.classes import class_for, classes_of, context_of
from uptick.core.resolved.resolve import VersionLayer, resolve, trace
from uptick.core.rules.reach import Context, Reach, require_known
from uptick.core.rules.settings import ExceptionRule, Settings

PAGE, CARD = Placement.PRODUCT_PAGE, Placement.LISTING_CARD
HERE = Context(PAGE, "A1", "Tools", Situation.PLAIN)


def says(text: str) -> Json:
    return {"wording": {"ready": {"en-GB": text}}}


def ready(of: Settings, context: Context = HERE) -> str:
    return resolve(of, context).wording[Moment.READY]["en-GB"]


def test_the_more_particular_exception_wins_whatever_the_order_they_were_made_in() -> None:
    rules = [
        exception(1, says("this product"), products=("A1",)),
        exception(2, says("the category"), categories=("Tools",)),
        exception(3, says("the situation"), situations=(Situation.PLAIN,)),
        exception(4, says("the placement"), placements=(PAGE,)),
    ]
    for order in permutations(rules):
        assert ready(settings(*order)) == "this product"
        assert class_for(snapshot(settings(*order)), HERE).rules == ("e4", "e3", "e2", "e1")


def test_of_equally_particular_exceptions_the_later_wins() -> None:
    first, second = (exception(n, says(f"number {n}"), categories=("Tools",)) for n in (1, 2))
    assert ready(settings(first, second)) == "number 2"
    assert ready(settings(second, first)) == "number 1"


def test_a_product_outweighs_any_number_of_wider_conditions() -> None:
    wide = exception(1, says("wide"), categories=("Tools",), situations=(Situation.PLAIN,), placements=(PAGE,))
    narrow = exception(2, says("narrow"), products=("A1",))
    assert ready(settings(narrow, wide)) == "narrow"


def test_an_exception_that_is_off_is_as_if_it_were_not_there() -> None:
    rule = exception(1, says("off"), products=("A1",))
    off = settings(rule.model_copy(update={"on": False}))
    assert resolve(off, HERE) == resolve(settings(), HERE)


def test_an_emptied_text_falls_back_to_the_wider_rule() -> None:
    made = settings(exception(1, says(""), products=("A1",)), product_page=says("on the page"))
    assert ready(made) == "on the page"


def test_a_version_under_trial_comes_after_every_exception() -> None:
    made = settings(exception(1, says("exception"), products=("A1",)))
    version = VersionLayer("1", "B", Reach(placements=(PAGE,)), says("version B"))
    assert resolve(made, HERE, [version]).wording[Moment.READY]["en-GB"] == "version B"
    elsewhere = Context(CARD, "A1", "Tools", Situation.PLAIN)
    assert resolve(made, elsewhere, [version]).wording[Moment.READY]["en-GB"] == "exception"


def test_a_trace_lists_every_layer_that_sets_the_field_the_winner_first() -> None:
    made = settings(
        exception(1, says("narrow"), products=("A1",)),
        exception(2, {"look": {"radius": 9}}, products=("A1",)),
        product_page=says("page"),
    )
    told = trace(snapshot(made), HERE, "wording.ready.en-GB")
    assert [(c.layer, c.value, c.wins) for c in told] == [
        ("exception:e1", "narrow", True),
        ("place:product_page", "page", False),
        ("baseline", "Buy", False),
    ]
    assert told[0].note == "a reason"
    assert told[0].reach == Reach(products=("A1",))
    assert trace(snapshot(made), HERE, "look.no_such_field") == ()


def test_layers_that_make_no_button_are_refused_by_field() -> None:
    with pytest.raises(BadDocument, match=r"look\.type\.size_px") as refused:
        resolve(settings(product_page={"look": {"type": {"size_px": 700}}}), HERE)
    assert refused.value.facts["field"] == "look.type.size_px"


reaches = st.builds(
    Reach,
    products=st.sampled_from([(), ("A1",), ("A2", "B1"), ("B2", "C1")]),
    categories=st.sampled_from([(), ("Tools",), ("Jars", "Hives")]),
    situations=st.sampled_from([(), (Situation.PLAIN,), (Situation.CHOICE, Situation.SOLD_OUT)]),
    placements=st.sampled_from([(), (PAGE,), (CARD,)]),
    devices=st.sampled_from([(), (Device.PHONE,), (Device.TABLET, Device.DESKTOP)]),
    languages=st.sampled_from([(), ("en-GB",), ("de-DE",)]),
    shoppers=st.sampled_from([(), (ShopperKind.NEW,), (ShopperKind.RETURNING, ShopperKind.SIGNED_IN)]),
    not_products=st.sampled_from([(), (), ("A1",), ("B1", "C1")]),
    not_categories=st.sampled_from([(), (), ("Jars",)]),
)
contents = st.sampled_from([says("x"), says("y"), says(""), {"look": {"radius": 9}}, {"icon": {"kind": "none"}}])


def rule_of(n: int, reach: Reach, layer: Json) -> ExceptionRule:
    return exception(n, layer).model_copy(update={"reach": reach})


@given(st.lists(st.tuples(reaches, contents), max_size=5))
def test_resolving_by_classes_equals_resolving_product_by_product(drawn: list[tuple[Reach, Json]]) -> None:
    made = settings(*(rule_of(n, reach, layer) for n, (reach, layer) in enumerate(drawn, 1)), more=("de-DE",))
    shop = snapshot(made)
    keys = {(button.placement, button.key) for button in classes_of(shop)}
    for placement, product, device, language, shopper in crossing(
        PLACES, PRODUCTS, Device, made.languages, ShopperKind
    ):
        context = context_of(placement, product, None, device, language, shopper)
        found = class_for(shop, context)
        assert found.document == resolve(made, context)
        assert found.document.wider == resolve(made, context).wider
        assert (placement, found.key) in keys
        assert product in found.products
        assert (device, language) in found.where
        rules = [rule.id for rule in made.exceptions if rule.reach.covers(context)]
        assert sorted(found.rules) == sorted(rules)


@given(reaches, contents)
def test_an_exception_that_is_made_twice_changes_nothing_more(reach: Reach, layer: Json) -> None:
    once, twice = settings(rule_of(1, reach, layer)), settings(rule_of(1, reach, layer), rule_of(2, reach, layer))
    for placement, product in crossing(PLACES, PRODUCTS):
        context = context_of(placement, product, None, Device.PHONE, "en-GB", ShopperKind.NEW)
        assert resolve(once, context) == resolve(twice, context)


@given(st.lists(st.tuples(reaches, contents), max_size=4))
def test_what_is_switched_off_is_as_if_it_were_not_there_in_every_class(drawn: list[tuple[Reach, Json]]) -> None:
    rules = [rule_of(n, reach, layer) for n, (reach, layer) in enumerate(drawn, 1)]
    off = [rule.model_copy(update={"on": False}) if rule.id in {"e1", "e3"} else rule for rule in rules]
    kept = [rule for rule in rules if rule.id not in {"e1", "e3"}]
    one, other = classes_of(snapshot(settings(*off))), classes_of(snapshot(settings(*kept)))
    assert [(c.placement, c.rules, c.document) for c in one] == [(c.placement, c.rules, c.document) for c in other]


def test_a_reach_that_names_nothing_known_is_refused() -> None:
    with pytest.raises(BadReach, match="Z9"):
        require_known(Reach(products=("Z9",)), ["A1"], ["Tools"])
    with pytest.raises(BadReach, match="There are: Jars, Tools"):
        require_known(Reach(categories=("Cheese",)), ["A1"], ["Tools", "Jars"])


def test_layers_are_found_and_set_by_their_ids() -> None:
    made = settings(exception(1, says("x"), products=("A1",)), product_page=says("page"))
    assert made.layer("baseline") == BASELINE
    assert made.layer("place:product_page") == says("page")
    assert made.layer("place:listing_card") == {}
    assert made.layer("exception:e1") == says("x")
    assert made.layer("exception:e9") is None
    assert made.layer("place:roof") is None
    for layer in ("baseline", "place:listing_card", "exception:e1"):
        assert made.with_layer(layer, says("new")).layer(layer) == says("new")
