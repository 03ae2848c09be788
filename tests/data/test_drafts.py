import json
import threading

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import Engine, text

from tests.samples import NOW, PRODUCTS, product, settings
from uptick.core.errors import NotFound, Stale
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.trial.plan import Plan
from uptick.core.trial.readout import Measure
from uptick.core.trial.record import Trial, TrialState
from uptick.data.database import migrate, migration_config
from uptick.data.tables import metadata
from uptick.usecases.edit import redo, undo
from uptick.usecases.ports import Person
from uptick.wiring import Wiring


def round_corners(radius: int) -> Settings:
    return settings(product_page={"look": {"radius": radius}})


def test_migrating_gives_the_tables_that_the_code_knows(engine: Engine) -> None:
    """Reference: Alembic 1.20, compare_metadata; daily partitions are made when signals come."""
    migrate(engine)
    with engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        assert compare_metadata(context, metadata) == []


def test_a_migration_can_be_stepped_back_and_made_again_with_its_counts_kept(wiring: Wiring) -> None:
    """Reference: Alembic 1.20, downgrade, upgrade and compare_metadata."""
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put([product("A1"), product("A2", price_minor=None)])
        shop.drafts.append(shop.drafts.read().version, round_corners(5), "radius 5", Person(1, "Ada", "", ()), NOW)
    with wiring.engine.begin() as db:
        tally = "INSERT INTO day_tallies (store_id, day, place, seen_as, kind, part, count) VALUES "
        db.execute(
            text(
                tally
                + "(1, '2026-03-02', 'strip', 'set', 'shown', 0, 3), (1, '2026-03-02', 'strip', '', 'shown', 0, 4)"
            )
        )
        config = migration_config()
        config.attributes["connection"] = db
        command.downgrade(config, "0001")
        assert db.execute(text("SELECT count FROM day_tallies")).scalars().all() == [7]
        assert db.execute(text("SELECT newest FROM drafts WHERE store_id = 1")).scalar_one() == 1
        assert sorted(db.execute(text("SELECT price_minor FROM products")).scalars()) == [0, 1250]
        command.upgrade(config, "head")
        context = MigrationContext.configure(db, opts={"compare_type": True})
        assert compare_metadata(context, metadata) == []


def test_lengths_keep_their_values_under_their_new_names_and_back(wiring: Wiring) -> None:
    old = {"look": {"radius_px": 7, "padding": {"top_px": 3, "left_px": 9},
                    "size": {"kind": "fixed", "width_px": 130, "height_px": 39}}}  # fmt: skip
    new = {
        "look": {"radius": 7, "padding": {"top": 3, "left": 9}, "size": {"kind": "fixed", "width": 130, "height": 39}}
    }
    with wiring.open_shop("sample") as shop:
        shop.drafts.append(
            shop.drafts.read().version, settings(product_page=new), "drawn", Person(1, "Ada", "", ()), NOW
        )
    at = "SELECT settings->'placements'->'product_page' FROM draft_steps WHERE n = 1"
    with wiring.engine.begin() as db:
        config = migration_config()
        config.attributes["connection"] = db
        command.downgrade(config, "0002")
        assert db.execute(text(at)).scalar_one() == old
        command.upgrade(config, "head")
        assert db.execute(text(at)).scalar_one() == new


def test_what_stood_beside_a_bar_is_what_the_bar_holds(wiring: Wiring) -> None:
    old = {"placement": {"price": False, "shown": True}, "look": {"radius": 3}}
    new = {"placement": {"shown": True}, "look": {"radius": 3}, "bar": {"parts": ["name", "button"]}}
    with wiring.open_shop("sample") as shop:
        kept = settings().with_layer("place:sticky_bar", new)
        shop.drafts.append(shop.drafts.read().version, kept, "drawn", Person(1, "Ada", "", ()), NOW)
    at = "SELECT settings->'placements'->'sticky_bar' FROM draft_steps WHERE n = 1"
    with wiring.engine.begin() as db:
        config = migration_config()
        config.attributes["connection"] = db
        command.downgrade(config, "0005")
        before = db.execute(text(at)).scalar_one()
        assert before == {**old, "placement": {"shown": True, "name": True, "price": False}}
        command.upgrade(config, "head")
        assert db.execute(text(at)).scalar_one() == new


def test_amounts_trials_and_orders_of_before_come_along(wiring: Wiring) -> None:
    """Reference: ISO 4217, minor units: JPY 0, KWD 3. What was kept in hundredths becomes what was meant."""
    with wiring.engine.begin() as db:
        config = migration_config()
        config.attributes["connection"] = db
        command.downgrade(config, "0003")
        goods = "INSERT INTO products (store_id, sku, position, name, category, price_minor, was_minor, currency, url, "
        goods += "picture, stock, option_name, option_values) VALUES "
        rest = "'/p', '', 3, '', '{}')"
        db.execute(text(goods + f"(1, 'J', 0, 'j', 'Jars', 120000, 130000, 'JPY', {rest}, "
                        f"(1, 'K', 1, 'k', 'Jars', 1250, NULL, 'KWD', {rest}, "
                        f"(1, 'G', 2, 'g', 'Tools', 1250, NULL, 'GBP', {rest}"))  # fmt: skip
        names = "store_id, number, question, reach, layer, decides, relative_difference, window_days, state, salt, "
        names += "started_at"
        for number, reach, state, started in (
            (1, {"not_categories": ["Tools"]}, "running", NOW),
            (2, {"placements": ["strip"]}, "running", NOW),
            (3, {"products": ["G"]}, "drawn", None),
        ):
            values = {"n": number, "reach": json.dumps(reach), "state": state, "at": started}
            made = (
                f"INSERT INTO trials ({names}) VALUES (1, :n, 'q', :reach, '{{}}', 'added', '0.2', 3, :state, 's', :at)"
            )
            db.execute(text(made), values)
        command.upgrade(config, "head")
        prices = dict(db.execute(text("SELECT sku, price_minor FROM products")).all())
        assert prices == {"J": 1200, "K": 12500, "G": 1250}
        assert db.execute(text("SELECT was_minor FROM products WHERE sku = 'J'")).scalar_one() == 1300
        frozen = dict(db.execute(text("SELECT number, covered FROM trials")).all())
        assert {n: covered and sorted(covered) for n, covered in frozen.items()} == {1: ["J", "K"], 2: None, 3: None}
        assert db.execute(text("SELECT DISTINCT version FROM trials")).scalars().all() == [1]
        command.downgrade(config, "0003")
        assert dict(db.execute(text("SELECT sku, price_minor FROM products")).all())["J"] == 120000
        command.upgrade(config, "head")


ADA, BOB = Person(1, "Ada", "ada@example.test", ("sample",)), Person(2, "Bob", "bob@example.test", ("sample",))


def test_each_change_is_a_step_and_so_is_taking_it_back(wiring: Wiring) -> None:
    with wiring.open_visit("sample") as (_, open_shop):
        shop = open_shop(ADA.id)
        for radius in (5, 6):
            shop.drafts.append(shop.drafts.read().version, round_corners(radius), f"radius {radius}", ADA, NOW)
        back = undo(shop, ADA, NOW)
        assert back.settings == round_corners(5)
        assert (back.undo_label, back.redo_label) == ("radius 5", "radius 6")
        assert redo(shop, ADA, NOW).settings == round_corners(6)
        assert [(s.label, s.is_undone, s.is_own) for s in shop.drafts.history(9)] == [
            ("Redone: radius 6", False, True), ("Undone: radius 6", True, True), ("radius 6", False, True),
            ("radius 5", False, True), ("store made", False, False),
        ]  # fmt: skip
        newest = shop.drafts.history(2)
        assert [step.label for step in shop.drafts.history(2, newest[-1].n)] == ["radius 6", "radius 5"]
    with wiring.open_visit("sample") as (_, open_shop):
        assert (open_shop(ADA.id).drafts.read().undo_label, open_shop(BOB.id).drafts.read().undo_label) == (
            "radius 6",
            "",
        )
        assert open_shop(ADA.id).drafts.read().settings is open_shop(BOB.id).drafts.read().settings


def test_of_two_changes_on_the_same_draft_the_second_is_refused(wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        base = shop.drafts.read().version
    outcomes: list[str] = []

    def change(radius: int) -> None:
        try:
            with wiring.open_shop("sample") as shop:
                shop.drafts.append(base, round_corners(radius), "race", ADA, NOW)
            outcomes.append("taken")
        except Stale:
            outcomes.append("stale")

    threads = [threading.Thread(target=change, args=(n,)) for n in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcomes) == ["stale", "stale", "stale", "taken"]


def test_what_a_store_holds_no_other_store_can_see(wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        shop.releases.add(settings(), {}, "first", "Ada", NOW)
        trial = Trial(
            0, "Why?", Reach(), {}, Measure.ADDED, 0.2, 3, TrialState.DRAWN, "s", None, None, None, None, None
        )
        assert shop.trials.add(trial).number == 1
    with wiring.open_shop("other") as shop:
        assert shop.catalogue.all() == []
        assert shop.releases.newest() is None
        assert shop.trials.all() == []
        with pytest.raises(NotFound, match="no release 1"):
            shop.releases.get(1)
        with pytest.raises(NotFound, match="no trial 1"):
            shop.trials.get(1)
    with pytest.raises(NotFound, match="no store 'third'"), wiring.open_shop("third"):
        pass


def test_products_and_trials_come_back_as_they_went_in(wiring: Wiring) -> None:
    plan = Plan(0.2, 0.04, 100, 200, 14, 33.25)
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        assert sorted(shop.catalogue.all(), key=lambda p: p.sku) == sorted(PRODUCTS, key=lambda p: p.sku)
        drawn = Trial(
            0, "Why?", Reach(products=("A1",)), {"icon": {"kind": "none"}}, Measure.ORDERED, 0.1, 5,
            TrialState.RUNNING, "salt", plan, NOW, None, None, {"sentence": "–"},
        )  # fmt: skip
        kept = shop.trials.add(drawn)
        assert shop.trials.get(kept.number) == kept
        assert (kept.reach, kept.plan, kept.relative_difference) == (drawn.reach, plan, 0.1)


def test_a_block_that_fails_leaves_nothing_behind(wiring: Wiring) -> None:
    def fail() -> None:
        with wiring.open_shop("sample") as shop:
            shop.catalogue.put(PRODUCTS)
            raise RuntimeError

    with pytest.raises(RuntimeError):
        fail()
    with wiring.open_shop("sample") as shop:
        assert shop.catalogue.all() == []
