import pytest

from tests.samples import NOW, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.merge import Json
from uptick.core.errors import FindingsLeft, NotFound, NothingToRelease, TrialUnderway
from uptick.core.rules.reach import Reach
from uptick.core.trial.readout import Measure
from uptick.usecases.edit import change_layer, undo
from uptick.usecases.publish import publish, take_back, view_release
from uptick.usecases.trials import draw_trial, start_trial

PAGE = "place:product_page"
PALE: Json = {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}}


def change(made: FakeShop, patch: Json, layer: str = PAGE) -> None:
    change_layer(made.shop, layer, patch, made.drafts.version, ADA, NOW)


def plain_css(made: FakeShop, n: int) -> str:
    compiled = made.releases.compiled[n]
    return str(compiled["looks"][compiled["places"]["product_page"]["looks"][""]]["css"])


def released() -> FakeShop:
    made = fake_shop()
    publish(made.shop, "first", ADA, NOW)
    return made


def test_releases_are_numbered_and_nothing_new_is_refused() -> None:
    made = released()
    with pytest.raises(NothingToRelease, match="since release 1"):
        publish(made.shop, "again", ADA, NOW)
    change(made, {"look": {"radius": 9}})
    assert publish(made.shop, "rounder", ADA, NOW).n == 2
    assert "border-radius:9px" in plain_css(made, 1)
    assert "border-radius:4px" in plain_css(made, 0)


def test_what_must_be_fixed_holds_a_release_back_until_somebody_insists() -> None:
    made = released()
    change(made, PALE)
    with pytest.raises(FindingsLeft, match="1 must be fixed first: Words at rest"):
        publish(made.shop, "", ADA, NOW)
    assert len(made.releases.made) == 1
    assert publish(made.shop, "", ADA, NOW, ["findings"]).n == 2


def test_what_changes_is_told_in_the_moment_and_state_that_show_it() -> None:
    made = released()
    added: Json = {"wording": {"added": {"en-GB": "It is yours"}}}
    hover: Json = {"look": {"hover": {"text_colour": "#fefefe"}}}
    cases: list[tuple[Json, str, str]] = [
        ({"look": {"radius": 9}}, "ready", "rest"),
        (hover, "ready", "hover"),
        ({"look": {"focus": {"text_colour": "#fefefe"}}}, "ready", "focus"),
        ({"look": {"disabled": {"text_colour": "#888888"}}}, "sold_out", "rest"),
        (added, "added", "rest"),
        ({**added, **hover}, "added", "rest"),
    ]
    for patch, moment, state in cases:
        change(made, patch)
        (told,) = view_release(made.shop).changes
        assert (told.after.moment, told.state) == (moment, state), patch
        assert told.products == 7
        undo(made.shop, ADA, NOW)
    assert view_release(made.shop).changes == ()


def test_an_earlier_release_is_taken_back_to_under_a_new_number() -> None:
    made = released()
    change(made, {"look": {"radius": 9}})
    publish(made.shop, "rounder", ADA, NOW)
    back = take_back(made.shop, 1, ADA, NOW)
    assert back.n == 3
    assert back.settings == settings()
    assert made.drafts.read().settings == settings()
    assert back.hash == made.releases.made[0].hash
    with pytest.raises(NothingToRelease, match="already shows what release 1 showed"):
        take_back(made.shop, 1, ADA, NOW)
    with pytest.raises(NotFound, match="no release 7"):
        take_back(made.shop, 7, ADA, NOW)


def test_a_button_under_trial_is_changed_only_by_somebody_who_insists() -> None:
    made = released()
    drawn = draw_trial(
        made.shop, "Rounder?", Reach(placements=("product_page",)), {"look": {"radius": 20}}, Measure.ADDED, 0.2, 3,
        "salt", NOW,
    )  # fmt: skip
    start_trial(made.shop, drawn.number, NOW)
    change(made, {"look": {"radius": 9}})
    assert view_release(made.shop).changes[0].under_trial == (1,)
    with pytest.raises(TrialUnderway, match="Trial 1 compares a button"):
        publish(made.shop, "", ADA, NOW)
    assert publish(made.shop, "", ADA, NOW, ["trial"]).n == 2
    with pytest.raises(TrialUnderway):
        take_back(made.shop, 1, ADA, NOW)
    change(made, {"look": {"radius": 2}}, "place:listing_card")
    assert publish(made.shop, "elsewhere", ADA, NOW).n == 3
    assert made.releases.trials[-1]["trials"][0]["running"] is True
