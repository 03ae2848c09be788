"""The command line, called in the test's own process on a real database."""

from typing import Any

import pytest

from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA
from uptick.cli import main
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception
from uptick.wiring import Wiring


@pytest.fixture
def run(capsys: pytest.CaptureFixture[str]) -> Any:
    def call(*arguments: str) -> tuple[int, str, str]:
        with pytest.raises(SystemExit) as ended:
            main(arguments)
        out, err = capsys.readouterr()
        return int(ended.value.code or 0), out, err

    return call


@pytest.fixture
def database(wiring: Wiring, monkeypatch: pytest.MonkeyPatch) -> Wiring:
    monkeypatch.setenv("UPTICK_DATABASE_URL", wiring.environment.database_url)
    return wiring


@pytest.fixture
def told(database: Wiring) -> Wiring:
    """A store with products, an exception for one of them, and a pale button."""
    with database.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        layer = {"wording": {"ready": {"en-GB": "Just this"}}, "look": {"radius": 9}}
        wish = Wish("Only A1", "asked for", Reach(products=("A1",)))
        add_exception(shop, wish, layer, shop.drafts.read().version, ADA, NOW)
    return database
