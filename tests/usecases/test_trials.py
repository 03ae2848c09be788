import json
from dataclasses import replace
from datetime import timedelta
from typing import Any

import jsonschema
import pytest

from tests.samples import NOW, PRODUCTS, exception, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.document import Device, Moment, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.errors import BadDocument, BadReach, OutOfRange, TooFewData, TrialUnderway, WrongTrialState
from uptick.core.rules.reach import Reach
from uptick.core.trial.plan import shoppers_per_version
from uptick.core.trial.readout import Measure, Tally
from uptick.usecases.ports import Pace, TrialCount
from uptick.usecases.publish import publish
from uptick.usecases.trials import (
    change_trial,
    close_trial,
    draw_trial,
    keep_b,
    read_numbers,
    start_trial,
    view_trial,
)
from uptick.usecases.written import schema_of, write_readout

PAGE = Reach(placements=(Placement.PRODUCT_PAGE,))
ROUND: Json = {"look": {"radius": 20}}


def drawn(reach: Reach = PAGE, layer: Json | None = None, **more: Any) -> FakeShop:
    made = fake_shop()
    publish(made.shop, "first", ADA, NOW)
    draw(made, reach, layer, **more)
    return made


def draw(made: FakeShop, reach: Reach = PAGE, layer: Json | None = None, **more: Any) -> None:
    wish = {"question": "Rounder?", "decides": Measure.ADDED, "relative_difference": 0.2, "window_days": 3, **more}
    draw_trial(made.shop, reach=reach, layer=ROUND if layer is None else layer, salt="salt", now=NOW, **wish)


def running(reach: Reach = PAGE) -> FakeShop:
    made = drawn(reach)
    start_trial(made.shop, 1, NOW)
    return made


def finish(made: FakeShop, added_a: int, added_b: int) -> None:
    """Let both versions reach the planned number."""
    plan = made.trials.get(1).plan
    assert plan is not None
    n = plan.per_version
    made.signals.counted = TrialCount(
        Tally("A", n, n, added_a + 9, added_a, 5), Tally("B", n, n, added_b + 9, added_b, 5), 12
    )


def test_a_drawn_trial_shows_both_versions_what_differs_and_its_plan() -> None:
    made = drawn()
    view = view_trial(made.shop, 1, NOW)
    assert "border-radius:4px" in view.a.button["css"]
    assert "border-radius:20px" in view.b.button["css"]
    assert [(f.field, f.before, f.after) for f in view.fields] == [("corner radius", "4", "20")]
    assert view.planned.plan is not None
    assert view.planned.plan.per_version == max(shoppers_per_version(0.2, 0.24), shoppers_per_version(0.2, 0.16))
    assert view.planned.curve
    assert view.readout is None


def test_a_trial_can_be_changed_until_it_starts_and_then_is_frozen() -> None:
    made = drawn()
    change_trial(made.shop, 1, NOW, patch={"wording": {"ready": {"en-GB": "Get it"}}}, relative_difference=0.3)
    change_trial(made.shop, 1, NOW, question="Rounder and shorter?", decides=Measure.ORDERED)
    trial = made.trials.get(1)
    assert trial.layer == {**ROUND, "wording": {"ready": {"en-GB": "Get it"}}}
    assert (trial.question, trial.decides, trial.relative_difference) == ("Rounder and shorter?", Measure.ORDERED, 0.3)
    with pytest.raises(BadDocument, match="radius"):
        change_trial(made.shop, 1, NOW, patch={"look": {"radius": -4}})
    start_trial(made.shop, 1, NOW)
    plan = made.trials.get(1).plan
    with pytest.raises(WrongTrialState, match="frozen"):
        change_trial(made.shop, 1, NOW, relative_difference=0.5)
    made.signals.now_pace = Pace(9999, 10, 9, 9)
    assert view_trial(made.shop, 1, NOW).planned.plan == plan


REFUSED: list[tuple[dict[str, Any], type[Exception], str]] = [
    ({"question": "  "}, OutOfRange, "question"),
    ({"reach": Reach()}, BadReach, "needs the placement"),
    ({"reach": Reach(placements=(Placement.PRODUCT_PAGE,), products=("Z9",))}, BadReach, "Z9"),
    ({"relative_difference": 0}, OutOfRange, "smallest difference"),
    ({"relative_difference": 2.5}, OutOfRange, "at most 200 %"),
    ({"window_days": 15}, OutOfRange, "from 1 to 14"),
    ({"layer": {"icon": {"name": "bag"}}}, BadDocument, "replaced whole"),
]


@pytest.mark.parametrize(("wish", "error", "says"), REFUSED)
def test_a_trial_that_cannot_be_is_refused(wish: dict[str, Any], error: type[Exception], says: str) -> None:
    with pytest.raises(error, match=says):
        drawn(**wish)


def test_a_trial_that_would_tell_nothing_does_not_start() -> None:
    with pytest.raises(WrongTrialState, match="B is the same as A"):
        start_trial(drawn(layer={"look": {"radius": 4}}).shop, 1, NOW)
    made = drawn()
    made.signals.now_pace = Pace(0, 0, 0, 0)
    with pytest.raises((TooFewData, OutOfRange)):
        start_trial(made.shop, 1, NOW)
    assert view_trial(made.shop, 1, NOW).planned.why_not
    bare = fake_shop()
    draw(bare)
    with pytest.raises(WrongTrialState, match="Release the draft first"):
        start_trial(bare.shop, 1, NOW)


def test_two_trials_on_the_same_buttons_do_not_run_at_once() -> None:
    made = running()
    draw(made, Reach(placements=(Placement.PRODUCT_PAGE,), products=("A1",)), {"look": {"radius": 1}})
    with pytest.raises(WrongTrialState, match="Trial 1 compares the same buttons"):
        start_trial(made.shop, 2, NOW)
    draw(made, Reach(placements=(Placement.LISTING_CARD,)), {"look": {"radius": 1}})
    assert start_trial(made.shop, 3, NOW).state == "running"


def test_it_is_said_on_which_buttons_two_trials_meet() -> None:
    made = running()
    draw(
        made,
        Reach(devices=(Device.PHONE,), placements=(Placement.PRODUCT_PAGE, Placement.STRIP)),
        {"look": {"radius": 1}},
    )
    with pytest.raises(
        WrongTrialState, match=r"some of the same buttons and still runs \(.* on the product page, on phones\)"
    ):
        start_trial(made.shop, 2, NOW)


def test_only_a_practice_store_has_a_past_to_start_in() -> None:
    made = drawn()
    assert start_trial(made.shop, 1, NOW, days_ago=30).started_at == NOW - timedelta(days=30)
    with pytest.raises(OutOfRange, match="from 0 to 120"):
        start_trial(drawn().shop, 1, NOW, days_ago=121)
    shop = drawn().shop
    real = replace(shop, store=shop.store.model_copy(update={"is_practice": False}))
    with pytest.raises(OutOfRange, match="only practice stores have a past"):
        start_trial(real, 1, NOW, days_ago=1)


def test_a_trial_that_started_cannot_start_again() -> None:
    with pytest.raises(WrongTrialState, match="has started before"):
        start_trial(running().shop, 1, NOW)


def test_before_its_end_a_trial_tells_no_rates_and_b_cannot_be_kept() -> None:
    made = running()
    made.signals.counted = TrialCount(Tally("A", 90, 50, 20, 10, 2), Tally("B", 95, 60, 30, 25, 4), 75)
    view = view_trial(made.shop, 1, NOW)
    assert view.readout is not None
    assert view.readout.reading is None
    assert view.readout.verdict.sentence.startswith("Not yet.")
    assert view.counted == {"A": {"entered": 90, "timed_up": 50}, "B": {"entered": 95, "timed_up": 60}}
    with pytest.raises(WrongTrialState, match="cannot be read: Not yet"):
        keep_b(made.shop, 1, ADA, NOW)
    with pytest.raises(WrongTrialState, match="has not started"):
        read_numbers(drawn().shop, 1, NOW)


def test_keeping_b_puts_its_change_into_the_placement_and_closes_with_the_record() -> None:
    made = running()
    finish(made, 200, 300)
    assert view_trial(made.shop, 1, NOW).counted["B"]["added"] == 300
    keep_b(made.shop, 1, ADA, NOW + timedelta(days=9))
    assert made.drafts.read().settings == settings(product_page=ROUND)
    assert made.drafts.history(1)[0].label == "Kept B of trial 1"
    closed = made.trials.get(1)
    assert (closed.state, closed.kept, closed.closed_at) == ("closed", "B", NOW + timedelta(days=9))
    assert closed.record is not None
    assert closed.record["verdict"]["sentence"].startswith("Keep B.")
    assert made.releases.trials[-1] == {"trials": []}
    with pytest.raises(WrongTrialState, match="does not run"):
        keep_b(made.shop, 1, ADA, NOW)


def test_a_trial_outside_the_shop_is_refused_since_nobody_would_be_dealt_a_version() -> None:
    with pytest.raises(BadReach, match="Leave outside buttons out of the trial"):
        drawn(Reach(placements=(Placement.PRODUCT_PAGE, Placement.OUTSIDE)))


def test_a_narrower_trial_is_kept_as_an_exception_at_its_own_reach() -> None:
    reach = Reach(placements=(Placement.PRODUCT_PAGE,), categories=("Jars",))
    made = running(reach)
    finish(made, 200, 300)
    keep_b(made.shop, 1, ADA, NOW)
    (rule,) = made.drafts.read().settings.exceptions
    assert (rule.reach, rule.layer, rule.author) == (reach, ROUND, "Ada")
    assert rule.name == "Winner of trial 1"


@pytest.mark.parametrize(
    "narrower",
    [{"devices": (Device.PHONE,)}, {"shoppers": (ShopperKind.NEW,)}, {"languages": ("en-GB",)},
     {"not_categories": ("Jars",)}],
)  # fmt: skip
def test_b_is_kept_for_no_other_shoppers_than_it_won_with(narrower: dict[str, Any]) -> None:
    reach = Reach(placements=(Placement.PRODUCT_PAGE,), **narrower)
    made = running(reach)
    finish(made, 200, 300)
    keep_b(made.shop, 1, ADA, NOW)
    kept = made.drafts.read().settings
    assert kept.placements == settings().placements
    assert [(rule.reach, rule.layer) for rule in kept.exceptions] == [(reach, ROUND)]


def test_what_would_show_instead_of_b_is_told_before_it_is_kept() -> None:
    made = fake_shop(settings(exception(1, {"look": {"radius": 2}}, categories=("Jars",))))
    publish(made.shop, "first", ADA, NOW)
    draw(made)
    assert view_trial(made.shop, 1, NOW).elsewhere == ()
    start_trial(made.shop, 1, NOW)
    (found,) = view_trial(made.shop, 1, NOW).elsewhere
    assert (found.exception, found.products) == ("Exception 1", 2)


def test_versions_stay_as_shoppers_saw_them_and_releases_over_them_are_told() -> None:
    made = running()
    seen = view_trial(made.shop, 1, NOW)
    later = NOW + timedelta(days=1)
    for radius in (11, 12):
        draft = made.drafts.read()
        layer = {"look": {"radius": radius, "text_colour": "#ffff00"}}
        made.drafts.append(draft.version, settings(product_page=layer), "changed", ADA, later)
        with pytest.raises(TrialUnderway):
            publish(made.shop, "over it", ADA, later)
        publish(made.shop, "over it", ADA, later, {"trial"})
    # What is none of the trial's buttons mixes nothing.
    draft = made.drafts.read()
    other = draft.settings.with_layer("place:listing_card", {"look": {"radius": 1}})
    made.drafts.append(draft.version, other, "changed", ADA, later)
    publish(made.shop, "beside it", ADA, later)
    assert made.trials.get(1).mixed_by == (2, 3)
    finish(made, 200, 300)
    close_trial(made.shop, 1, later)
    view = view_trial(made.shop, 1, later)
    assert (view.a, view.b) == (seen.a, seen.b)
    assert view.trial.mixed_by == (2, 3)


def test_a_difference_of_nothing_is_refused_not_passed_over() -> None:
    made = drawn()
    with pytest.raises(OutOfRange, match="smallest difference"):
        change_trial(made.shop, 1, NOW, relative_difference=0)


def test_a_broken_split_keeps_nobody_from_staying_with_a_but_from_keeping_b() -> None:
    made = running()
    made.signals.counted = TrialCount(Tally("A", 9000, 9000, 9, 9, 5), Tally("B", 5000, 5000, 99, 99, 5), 0)
    with pytest.raises(WrongTrialState, match="split is broken"):
        keep_b(made.shop, 1, ADA, NOW)
    assert close_trial(made.shop, 1, NOW).kept == "A"
    assert made.drafts.read().settings == settings()


def test_versions_are_shown_where_they_differ() -> None:
    """The ready words of a trial do not show on a product that needs a choice, or is sold out, first."""
    choice_first = sorted(PRODUCTS, key=lambda p: p.situation is not Situation.CHOICE)
    made = fake_shop(products=choice_first)
    publish(made.shop, "first", ADA, NOW)
    draw(made, layer={"wording": {"ready": {"en-GB": "Get it"}}})
    view = view_trial(made.shop, 1, NOW)
    assert (view.a.text, view.b.text, view.a.moment, view.differs) == ("Buy", "Get it", Moment.READY, True)


def test_a_trial_without_a_change_is_shown_on_the_plainest_product() -> None:
    made = fake_shop(products=sorted(PRODUCTS, key=lambda p: p.situation is Situation.PLAIN))
    publish(made.shop, "first", ADA, NOW)
    draw(made, layer={})
    view = view_trial(made.shop, 1, NOW)
    assert (view.a.text, view.a.moment, view.differs, view.fields) == ("Buy", Moment.READY, False, ())


@pytest.mark.parametrize(
    ("look", "moment", "state"),
    [
        ({"hover": {"opacity": 0.5}}, Moment.READY, "hover"),
        ({"pressed": {"opacity": 0.5}}, Moment.READY, "pressed"),
        ({"focus": {"ring_width_px": 5}}, Moment.READY, "focus"),
        ({"working": {"opacity": 0.5}}, Moment.WORKING, "rest"),
        ({"added": {"tell": "ring"}}, Moment.ADDED, "rest"),
        ({"disabled": {"opacity": 0.5}}, Moment.SOLD_OUT, "rest"),
    ],
)
def test_a_change_of_one_state_is_shown_in_that_state(look: Json, moment: Moment, state: str) -> None:
    made = drawn(layer={"look": look})
    view = view_trial(made.shop, 1, NOW)
    assert (view.a.moment, view.state, view.differs) == (moment, state, True)
    assert view.a.button != view.b.button


def test_a_trial_whose_versions_differ_on_none_of_its_products_says_so() -> None:
    made = drawn(
        reach=Reach(placements=(Placement.PRODUCT_PAGE,), products=("A1",)),
        layer={"wording": {"sold_out": {"en-GB": "Gone"}}},
    )
    view = view_trial(made.shop, 1, NOW)
    assert view.differs is False
    assert [field.after for field in view.fields] == ["“Gone”"]


def test_the_pace_is_asked_for_the_trials_own_reach_and_its_products_are_frozen() -> None:
    reach = Reach(placements=(Placement.PRODUCT_PAGE,), devices=(Device.PHONE,), not_categories=("Jars",))
    made = running(reach)
    inside = [p.sku for p in PRODUCTS if p.category != "Jars"]
    assert made.signals.asked[-1] == (reach, inside)
    assert made.trials.frozen == {1: tuple(inside)}
    assert running().trials.frozen == {}


@pytest.mark.parametrize(
    ("one", "other", "may"),
    [
        ({"devices": ("phone",)}, {"devices": ("desktop",)}, True),
        ({"devices": ("phone",)}, {"languages": ("en-GB",)}, False),
        ({"shoppers": ("new",)}, {"shoppers": ("returning",)}, True),
        ({"categories": ("Jars",)}, {"not_categories": ("Jars",)}, True),
    ],
)
def test_trials_run_at_once_where_nobody_is_in_both(one: dict[str, Any], other: dict[str, Any], may: bool) -> None:
    made = running(Reach(placements=(Placement.PRODUCT_PAGE,), **one))
    draw(made, Reach(placements=(Placement.PRODUCT_PAGE,), **other))
    if may:
        start_trial(made.shop, 2, NOW)
    else:
        with pytest.raises(WrongTrialState, match="Two at once"):
            start_trial(made.shop, 2, NOW)


def test_a_readout_is_written_as_json_that_keeps_to_its_published_schema() -> None:
    """Reference: the library jsonschema, JSON Schema 2020-12."""
    made = running()
    for _ in range(2):
        file = json.loads(write_readout(made.shop, 1, NOW))
        jsonschema.validate(file, schema_of("readout"))
        assert (file["format"], file["trial"]["number"]) == ("uptick-readout-1", 1)
        finish(made, 400, 500)
    assert file["readout"]["reading"]["rates"]
    assert file["counted"]
