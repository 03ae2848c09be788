"""Two people in one store in the same second, on a real database: one of them is told, and nothing is lost."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from threading import Event
from typing import Any

import pytest
from sqlalchemy import text

from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA
from uptick.core.button.document import Placement
from uptick.core.button.merge import merge_layer
from uptick.core.errors import NothingToRelease, Stale, WrongTrialState
from uptick.core.rules.reach import Reach
from uptick.core.shop.connection import FormPost
from uptick.core.trial.readout import Measure
from uptick.usecases.importing import import_catalogue
from uptick.usecases.ports import Shop
from uptick.usecases.publish import publish
from uptick.usecases.stores import NewStore, ShopAddresses, addresses_of, connect_shop, make_store, readdress
from uptick.usecases.trials import draw_trial, start_trial
from uptick.usecases.trials import plan as planning
from uptick.wiring import Wiring

Act = Callable[[Shop], Any]


def at_once(wiring: Wiring, first: Act, second: Act) -> list[object]:
    """Let two people do something in transactions that have both begun before either ends; return what came of each.

    The second one begins while the first has done its part and has not yet committed.
    """
    has_looked, may_end = Event(), Event()

    def one() -> object:
        with wiring.open_shop("sample") as shop:
            assert has_looked.wait(10)
            done = first(shop)
            may_end.wait(0.4)
            return done

    def other() -> object:
        # Both have read the same state before either changes it.
        with wiring.open_shop("sample") as shop:
            shop.drafts.read(), shop.catalogue.all(), shop.releases.newest()
            has_looked.set()
            may_end.wait(0.2)
            return second(shop)

    def outcome(act: Callable[[], object]) -> object:
        try:
            return act()
        except Exception as error:
            return error

    with ThreadPoolExecutor(2) as threads:
        both = [threads.submit(outcome, act) for act in (one, other)]
        return [each.result(20) for each in both]


@pytest.fixture
def stocked(wiring: Wiring) -> Wiring:
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        publish(shop, "first", ADA, NOW)
    return wiring


def draw(shop: Shop) -> Any:
    return draw_trial(
        shop, "Rounder?", Reach(placements=(Placement.PRODUCT_PAGE,)), {"look": {"radius": 20}}, Measure.ADDED, 0.2, 3,
        "salt", NOW,
    )  # fmt: skip


def errors(outcomes: list[object]) -> list[type]:
    return [type(outcome) for outcome in outcomes if isinstance(outcome, Exception)]


def test_two_releases_of_one_draft_are_one(stocked: Wiring) -> None:
    with stocked.open_shop("sample") as shop:
        draft = shop.drafts.read()
        changed = draft.settings.with_layer("baseline", merge_layer(draft.settings.baseline, {"look": {"radius": 9}}))
        shop.drafts.append(draft.version, changed, "a box", ADA, NOW)
    outcomes = at_once(stocked, lambda shop: publish(shop, "a", ADA, NOW), lambda shop: publish(shop, "b", ADA, NOW))
    assert errors(outcomes) == [NothingToRelease]
    with stocked.open_shop("sample") as shop:
        assert [release.n for release in shop.releases.all()] == [2, 1]


def test_two_trials_that_are_drawn_are_both_there(stocked: Wiring) -> None:
    outcomes = at_once(stocked, draw, draw)
    assert errors(outcomes) == []
    with stocked.open_shop("sample") as shop:
        assert sorted(trial.number for trial in shop.trials.all()) == [1, 2]
    with stocked.engine.connect() as db:
        # Every change of a trial is a revision of its own.
        assert db.execute(text("SELECT count(*), max(n) FROM trial_revisions")).one() == (3, 3)


def test_of_two_overlapping_trials_one_starts(stocked: Wiring, monkeypatch: pytest.MonkeyPatch) -> None:
    from uptick.usecases.ports import Pace

    monkeypatch.setattr(planning, "pace_of", lambda *_: Pace(500.0, 10_000, 800, 600))
    with stocked.open_shop("sample") as shop:
        draw(shop)
    with stocked.open_shop("sample") as shop:
        draw(shop)
    outcomes = at_once(stocked, lambda shop: start_trial(shop, 1, NOW), lambda shop: start_trial(shop, 2, NOW))
    assert errors(outcomes) == [WrongTrialState], outcomes
    with stocked.open_shop("sample") as shop:
        assert sum(trial.state.value == "running" for trial in shop.trials.all()) == 1


def test_of_two_connections_the_second_person_is_told(wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        known = shop.registered.connection
    made = [FormPost(add_path=f"/{name}", product_field="sku", quantity_field="qty") for name in ("a", "b")]
    first, second = ((lambda shop, to=to: connect_shop(shop, to, known)) for to in made)
    outcomes = at_once(wiring, first, second)
    assert errors(outcomes) == [Stale]
    with wiring.open_shop("sample") as shop:
        assert shop.registered.connection in made


def test_of_two_changes_of_addresses_the_second_person_is_told(wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        known = addresses_of(shop.registered)

    def to(origin: str) -> Act:
        return lambda shop: readdress(shop, ShopAddresses((origin,), known.page_paths), known)

    assert errors(at_once(wiring, to("http://a.test"), to("http://b.test"))) == [Stale]


def test_two_whole_imports_leave_one_file_whole(wiring: Wiring) -> None:
    def file(*codes: str) -> bytes:
        rows = "".join(f"{code},Thing {code},1.00,GBP,Things,/p/{code}\n" for code in codes)
        return f"sku,name,price,currency,category,url\n{rows}".encode()

    def bring(content: bytes) -> Act:
        return lambda shop: import_catalogue(shop, content, ADA, NOW, whole=True, really=True)

    outcomes = at_once(wiring, bring(file("A1", "A2", "A3")), bring(file("B1", "B2")))
    assert errors(outcomes) == []
    with wiring.open_shop("sample") as shop:
        assert {product.sku for product in shop.catalogue.all()} in ({"A1", "A2", "A3"}, {"B1", "B2"})


def test_two_shops_of_one_name_get_two_keys(wiring: Wiring) -> None:
    wish = NewStore("Wren & Co", "https://wren.test", "en-GB", "GBP", "Europe/London", "Add")

    def make(_: int) -> str:
        with wiring.open_accounts() as accounts:
            return make_store(accounts, ADA, wish, NOW).key

    with ThreadPoolExecutor(4) as threads:
        assert sorted(threads.map(make, range(4))) == ["wren-co", "wren-co-2", "wren-co-3", "wren-co-4"]
