"""Every part of the benchmark runs: it was broken unseen once. No figure is judged, since none is taken in earnest."""

import math

import pytest
from playwright.sync_api import Browser

from ops.bench.__main__ import PARTS
from ops.bench.run import Run
from ops.cluster import Cluster
from tests.browser.conftest import Stack

pytestmark = pytest.mark.browser


# Two of them publish, and what comes first has the demo as it was.
@pytest.mark.parametrize("part", PARTS)
def test_a_part_of_the_benchmark_runs_once(own_demo: Stack, server: Cluster, browser: Browser, part: str) -> None:
    rows = PARTS[part](Run(own_demo.parts, server, own_demo.wiring, browser, once=True))
    assert rows
    assert len({row.name for row in rows}) == len(rows)
    assert all(math.isfinite(row.figure) and math.isfinite(row.baseline) for row in rows)
