"""The row of small shops on real parts, and two engines that are not Chromium."""

import os
import tempfile
from collections.abc import Iterator
from pathlib import Path

import pytest

from ops import demo, demo_row
from ops.cluster import Cluster
from ops.parts import Addresses, prepare
from tests.conftest import PORTS, SECRET
from tests.engines.engines import ENGINES, Engine
from uptick.wiring import Environment, Wiring


@pytest.fixture(scope="session")
def at(server: Cluster) -> Iterator[Addresses]:
    """The row's stores, released, without the demo's long past."""
    with tempfile.TemporaryDirectory() as folder:
        parts = prepare(server, "engines", SECRET, Path(folder), PORTS + 40, f"{folder}/practice.db")
        before = dict(os.environ)
        os.environ.update(parts.environment)
        try:
            parts.start_all()
            wiring = Wiring(Environment())
            demo.begin(wiring, empty=True, say=lambda what: None)
            demo_row.fill(wiring, demo.ada(wiring), lambda what: None)
            yield parts.addresses
            wiring.engine.dispose()
        finally:
            parts.stop_all()
            os.environ.clear()
            os.environ.update(before)


@pytest.fixture(scope="session", params=ENGINES)
def engine(request: pytest.FixtureRequest) -> Iterator[Engine]:
    opened = ENGINES[request.param]()
    yield opened
    opened.close()
