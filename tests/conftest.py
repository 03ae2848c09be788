"""What tests share: a throw-away PostgreSQL cluster, and one migrated database for each test that asks for it."""

import fcntl
import itertools
import os
from collections import Counter
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from functools import cache
from pathlib import Path

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


# The first process of a run names it, and the others that it starts inherit the name.
RUN = os.environ.setdefault("UPTICK_TEST_RUN", str(os.getpid()))
FOLDER = cluster.place_for(f"test-{RUN}")


def is_alive(process: int) -> bool:
    """Tell whether a process of that number runs."""
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def pytest_configure(config: pytest.Config) -> None:
    """Delete what a run that was killed has left, and what one with this number may have."""
    if str(os.getpid()) != RUN:
        return
    for folder in FOLDER.parent.glob(FOLDER.name.removesuffix(RUN) + "*"):
        number = folder.name.rpartition("-")[2]
        if number == RUN or (number.isdigit() and not is_alive(int(number))):
            cluster.remove(folder)


def pytest_unconfigure(config: pytest.Config) -> None:
    """Delete the run's cluster once every process of it is done."""
    if str(os.getpid()) == RUN:
        cluster.remove(FOLDER)


# What waits for one module waits with one processor. The share is what tells a slow module from a slow machine, and
# stands for something only where everything runs. It is to come down to 6 % as the largest are parted.
SLOW_SECONDS, SLOW_SHARE, WHOLE_RUN = 60, 0.25, 2_000
_seconds_of: Counter[str] = Counter()
_tests = itertools.count()


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    _seconds_of[report.nodeid.partition("::")[0]] += report.duration
    if report.when == "call":
        next(_tests)


def slow_modules(seconds_of: Mapping[str, float], tests: int) -> list[str]:
    """Return the modules that take too much of a whole run, with their seconds."""
    whole = sum(seconds_of.values())
    return [
        f"{module}: {seconds:.0f} s of {whole:.0f} s"
        for module, seconds in sorted(seconds_of.items(), key=lambda item: -item[1])
        if tests >= WHOLE_RUN and seconds > max(SLOW_SECONDS, SLOW_SHARE * whole)
    ]


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with the browser's tests, which take longest, and let the second process wait for no demo meanwhile."""
    folders = {id(item): item.path.relative_to(Path(__file__).parent).parts[0] for item in items}
    browsers = [item for item in items if folders[id(item)] == "browser"]
    first = [item for item in browsers if item.path == browsers[0].path]
    # These take about as long as the demo takes to be made.
    second = [item for item in items if folders[id(item)] == "web"]
    rest = [item for item in items if folders[id(item)] not in ("browser", "web")]
    items[:] = [*first, *second, *browsers[len(first) :], *rest]


def pytest_sessionfinish(session: pytest.Session) -> None:
    slow = slow_modules(_seconds_of, next(_tests))
    if slow and "PYTEST_XDIST_WORKER" not in os.environ:
        print(f"\nToo slow for one module, which must be split or made quicker:\n  {'; '.join(slow)}")
        session.exitstatus = session.exitstatus or 1


@contextmanager
def alone(making: str) -> Iterator[None]:
    """Keep the run's other processes waiting that want the same, since it is made once for all of them."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with (FOLDER / f"{making}.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        yield


@pytest.fixture(scope="session")
def server() -> cluster.Cluster:
    """The run's one cluster, which every process of it uses and the first one deletes afterwards."""
    with alone("cluster"):
        return cluster.start(FOLDER, PORTS, lasting=False)


def administer(server: cluster.Cluster, statement: str) -> None:
    """Run a statement that no transaction can hold."""
    engine = create_engine(server.url("postgres"), isolation_level="AUTOCOMMIT")
    with engine.connect() as connection:
        connection.execute(text(statement))
    engine.dispose()


def is_there(server: cluster.Cluster, database: str) -> bool:
    """Tell whether the cluster has a database of that name."""
    engine = create_engine(server.url("postgres"))
    with engine.connect() as connection:
        known = connection.execute(text("SELECT 1 FROM pg_database WHERE datname = :name"), {"name": database}).first()
    engine.dispose()
    return known is not None


@pytest.fixture(scope="session")
def template(server: cluster.Cluster) -> str:
    """A migrated database that others are copied from, which is quicker than migrating each."""
    with alone("sample"):
        if not is_there(server, "sample_template"):
            administer(server, "DROP DATABASE IF EXISTS sample_in_work")
            administer(server, "CREATE DATABASE sample_in_work")
            engine = make_engine(server.url("sample_in_work"))
            migrate(engine)
            engine.dispose()
            # Under this name it is whole.
            administer(server, "ALTER DATABASE sample_in_work RENAME TO sample_template")
    return "sample_template"


@pytest.fixture
def database_url(server: cluster.Cluster, template: str) -> Iterator[str]:
    with fresh_database(server, template) as url:
        yield url


@contextmanager
def fresh_database(server: cluster.Cluster, template: str) -> Iterator[str]:
    """A copy of the migrated database, deleted afterwards."""
    name = f"test_{WORKER}_{next(_numbers)}"
    administer(server, f"CREATE DATABASE {name} TEMPLATE {template}")
    yield server.url(name)
    administer(server, f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture
def engine(database_url: str) -> Iterator[Engine]:
    made = make_engine(database_url)
    yield made
    made.dispose()


@pytest.fixture
def wiring(database_url: str) -> Iterator[Wiring]:
    with wired(database_url) as made:
        yield made


@cache
def hashed(password: str) -> str:
    """Return a password's hash, worked out once: that takes its time on purpose."""
    return hash_password(password)


@contextmanager
def wired(database_url: str) -> Iterator[Wiring]:
    """A wired database with Ada, her store `sample`, and a store `other` that is not hers."""
    made = Wiring(
        Environment(database_url=database_url, secret=SecretStr(SECRET), practice_origin="http://localhost:1")
    )
    with made.open_accounts() as accounts:
        ada = accounts.add_person(EMAIL, "Ada", hashed(PASSWORD))
        bob = accounts.add_person("bob@example.test", "Bob", hashed("another"))
        accounts.add_store(store("sample", "http://shop.test"), settings(), ada, NOW)
        accounts.add_store(store("other", "http://other.test"), settings(), bob, NOW)
    yield made
    made.engine.dispose()
