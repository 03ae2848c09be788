"""What the edge hears of changes, also after its line to the database was cut."""

import time
from collections.abc import Iterator

import pytest
from sqlalchemy import text

from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA
from tests.waits import until
from uptick.data import changes as module
from uptick.data.changes import NAME, ServedChanges
from uptick.usecases.edit import change_layer
from uptick.usecases.publish import publish
from uptick.wiring import Wiring


@pytest.fixture
def heard(wiring: Wiring, monkeypatch: pytest.MonkeyPatch) -> Iterator[tuple[ServedChanges, list[str | None]]]:
    monkeypatch.setattr(module, "_AGAIN_S", 0.3)
    told: list[str | None] = []
    listening = ServedChanges(wiring.engine)
    listening.start(told.append)
    until(lambda: listening.hears)
    yield listening, told
    listening.stop()


def test_a_release_and_a_new_connection_are_heard_by_the_stores_key(
    wiring: Wiring, heard: tuple[ServedChanges, list[str | None]]
) -> None:
    _, told = heard
    told.clear()
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        publish(shop, "first", ADA, NOW)
    until(lambda: "sample" in told)
    told.clear()
    with wiring.open_shop("sample") as shop:
        change_layer(shop, "baseline", {"look": {"radius": 9}}, shop.drafts.read().version, ADA, NOW)
    # A change of the draft changes nothing that is served.
    time.sleep(0.4)
    assert told == []
    with wiring.open_shop("sample") as shop:
        shop.side.connect(shop.store.connection)
    until(lambda: told == ["sample"])


def test_after_the_line_was_cut_nothing_is_trusted_and_it_is_heard_again(
    wiring: Wiring, heard: tuple[ServedChanges, list[str | None]]
) -> None:
    listening, told = heard
    told.clear()
    cut = text("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = :name")
    with wiring.engine.begin() as db:
        assert db.execute(cut, {"name": NAME}).all()
    until(lambda: None in told)
    until(lambda: listening.hears)
    told.clear()
    with wiring.open_shop("sample") as shop:
        shop.side.connect(shop.store.connection)
    until(lambda: "sample" in told)
