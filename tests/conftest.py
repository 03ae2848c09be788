"""What tests share: a throw-away PostgreSQL cluster, and one migrated database for each test that asks for it."""

import itertools
import os
from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings
from pydantic import SecretStr
from sqlalchemy import Engine, create_engine, text

from ops import cluster
from tests.samples import NOW, settings, store
from uptick.data.database import make_engine, migrate
from uptick.wiring import Environment, Wiring, hash_password

hypothesis_settings.register_profile(
    "test", max_examples=60, deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
hypothesis_settings.load_profile("test")

SECRET = "secret-of-tests-that-is-long-enough"
EMAIL, PASSWORD = "ada@example.test", "a-password-for-tests"
_numbers = itertools.count(1)
# Processes that run side by side look for free ports in places of their own.
WORKER = os.environ.get("PYTEST_XDIST_WORKER", "gw0")
PORTS = 8900 + 60 * int(WORKER.removeprefix("gw"))


@pytest.fixture(scope="session")
def server() -> Iterator[cluster.Cluster]:
    """A cluster of this test process's own, deleted afterwards."""
    folder = cluster.place_for(f"test-{WORKER}")
    cluster.remove(folder)
    running = cluster.start(folder, PORTS)
    yield running
    cluster.stop(running)
    cluster.remove(folder)


def _administer(server: cluster.Cluster, statement: str) -> None:
    engine = create_engine(server.url("postgres"), isolation_level="AUTOCOMMIT")
    with engine.connect() as connection:
        connection.execute(text(statement))
    engine.dispose()


@pytest.fixture(scope="session")
def template(server: cluster.Cluster) -> str:
    """A migrated database that others are copied from, which is quicker than migrating each."""
    _administer(server, "CREATE DATABASE sample_template")
    engine = make_engine(server.url("sample_template"))
    migrate(engine)
    engine.dispose()
    return "sample_template"


@pytest.fixture
def database_url(server: cluster.Cluster, template: str) -> Iterator[str]:
    with fresh_database(server, template) as url:
        yield url


@contextmanager
def fresh_database(server: cluster.Cluster, template: str) -> Iterator[str]:
    """A copy of the migrated database, deleted afterwards."""
    name = f"test_{next(_numbers)}"
    _administer(server, f"CREATE DATABASE {name} TEMPLATE {template}")
    yield server.url(name)
    _administer(server, f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture
def engine(database_url: str) -> Iterator[Engine]:
    made = make_engine(database_url)
    yield made
    made.dispose()


@pytest.fixture
def wiring(database_url: str) -> Iterator[Wiring]:
    with wired(database_url) as made:
        yield made


@contextmanager
def wired(database_url: str) -> Iterator[Wiring]:
    """A wired database with Ada, her store `sample`, and a store `other` that is not hers."""
    made = Wiring(
        Environment(database_url=database_url, secret=SecretStr(SECRET), practice_origin="http://localhost:1")
    )
    with made.open_accounts() as accounts:
        ada = accounts.add_person(EMAIL, "Ada", hash_password(PASSWORD))
        bob = accounts.add_person("bob@example.test", "Bob", hash_password("another"))
        accounts.add_store(store("sample", "http://shop.test"), settings(), ada, NOW)
        accounts.add_store(store("other", "http://other.test"), settings(), bob, NOW)
    yield made
    made.engine.dispose()
