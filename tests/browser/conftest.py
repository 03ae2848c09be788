"""The whole product on real parts: PostgreSQL, three servers on three origins, and headless Chromium."""

import os
import shutil
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Page, expect, sync_playwright

from ops import cluster, demo
from ops.chromium import AGENT, FLAGS, PROGRAM
from ops.cluster import Cluster
from ops.parts import Addresses, Parts, prepare
from tests.browser.strange import Strange
from tests.conftest import FOLDER, PORTS, SECRET, WORKER, administer, alone, is_there
from tests.samples import kit
from uptick.core.rules.settings import Settings
from uptick.core.trial.record import TrialState
from uptick.usecases.ports import Person
from uptick.wiring import Environment, Wiring, clock

# What is awaited comes or it does not: how fast is what ./bench measures, not a test on a busy machine.
PATIENCE_MS = int(os.environ.get("UPTICK_PATIENCE_MS", "45000"))
expect.set_options(timeout=PATIENCE_MS)


@dataclass
class Stack:
    """Everything that runs, and a wiring to look at the database with."""

    parts: Parts
    wiring: Wiring

    @property
    def at(self) -> Addresses:
        return self.parts.addresses


@contextmanager
def _running(server: Cluster, name: str, first_port: int, practice_db: Path, *, empty: bool = False) -> Iterator[Stack]:
    """Run all parts on a database of that name; where the demo is in it already, only its addresses change."""
    with tempfile.TemporaryDirectory() as folder:
        parts = prepare(server, name, SECRET, Path(folder), first_port, str(practice_db))
        before = dict(os.environ)
        os.environ.update(parts.environment)
        try:
            parts.start_all()
            wiring = Wiring(Environment())
            demo.begin(wiring, empty=empty, say=lambda what: None, row=not empty)
            yield Stack(parts, wiring)
            wiring.engine.dispose()
        finally:
            parts.stop_all()
            os.environ.clear()
            os.environ.update(before)


@pytest.fixture(scope="session")
def demo_template(server: Cluster) -> str:
    """The demo as `./start` shows it, made once a run, to be copied."""
    with alone("demo"):
        if not is_there(server, "demo_template"):
            administer(server, "DROP DATABASE IF EXISTS demo_in_work")
            with _running(server, "demo_in_work", PORTS + 40, FOLDER / "practice.db"):
                pass
            # Under this name it is whole.
            administer(server, "ALTER DATABASE demo_in_work RENAME TO demo_template")
    return "demo_template"


@contextmanager
def _copied(server: Cluster, name: str, first_port: int, folder: Path) -> Iterator[Stack]:
    administer(server, f"CREATE DATABASE {name} TEMPLATE demo_template")
    practice_db = shutil.copy(FOLDER / "practice.db", folder / f"{name}.db")
    with _running(server, name, first_port, Path(practice_db)) as stack:
        yield stack
    administer(server, f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture(scope="module")
def empty_shop(
    server: Cluster, request: pytest.FixtureRequest, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Stack]:
    """A store without products, releases or signals, of a module's own."""
    name = f"empty_{request.module.__name__.rpartition('.')[2]}"
    practice_db = tmp_path_factory.mktemp(name) / "practice.db"
    with _running(server, name, PORTS + 10, practice_db, empty=True) as stack:
        yield stack


@pytest.fixture(scope="session")
def demo_shop(server: Cluster, demo_template: str, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Stack]:
    """The demo as `./start` shows it; who changes it puts it back."""
    with _copied(server, f"demo_{WORKER}", PORTS + 20, tmp_path_factory.mktemp("demo")) as stack:
        yield stack


@pytest.fixture(scope="module")
def own_demo(
    server: Cluster, demo_template: str, request: pytest.FixtureRequest, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Stack]:
    """A demo of a module's own, to change at will: another module must not find what this one has changed."""
    name = f"own_{request.module.__name__.rpartition('.')[2]}"
    with _copied(server, name, PORTS + 30, tmp_path_factory.mktemp(name)) as stack:
        yield stack


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    if not Path(PROGRAM).exists():
        raise cluster.CannotStart(f"{PROGRAM} is missing. ./test installs it, as Debian's chromium-headless-shell.")
    with sync_playwright() as playwright:
        launched = playwright.chromium.launch(executable_path=PROGRAM, args=FLAGS)
        yield launched
        launched.close()


@dataclass
class Tab:
    """A page that remembers every error that it or its console told."""

    page: Page
    context: BrowserContext
    told: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.page.on("pageerror", lambda error: self.told.append(str(error)))
        self.page.on("console", self._hear)

    def _hear(self, message: ConsoleMessage) -> None:
        if message.type == "error":
            self.told.append(f"{message.text} {message.location.get('url', '')}")


def open_tab(browser: Browser, **options: Any) -> Tab:
    context = browser.new_context(**{"viewport": {"width": 1280, "height": 800}, "user_agent": AGENT, **options})
    context.set_default_timeout(PATIENCE_MS)
    return Tab(context.new_page(), context)


def load_faces(page: Page) -> None:
    """Give a page the shops' faces, as the script loads them."""
    faces = [
        {"family": f"up-{f.family}", "weight": f"{f.lightest} {f.heaviest}", "data": list(f.content),
         "range": ",".join(f"U+{a:X}-{b:X}" for a, b in f.ranges)}
        for f in kit().fonts.files
    ]  # fmt: skip
    page.evaluate(
        """async faces => { for (const f of faces) {
            const face = new FontFace(f.family, new Uint8Array(f.data), { weight: f.weight, unicodeRange: f.range });
            document.fonts.add(await face.load()); } }""",
        faces,
    )


# The demo's own person, in whose name tests change a draft.
ADA = Person(1, demo.NAME, demo.EMAIL, (demo.KEY,))
Drafted = Callable[..., Page]


@pytest.fixture
def drafted(demo_shop: Stack, browser: Browser) -> Iterator[Drafted]:
    """Return what changes a shop's draft and opens a page with it; every draft comes back as it was."""
    before: list[tuple[str, Settings]] = []
    tabs: list[Tab] = []

    def open_drafted(key: str, change: Callable[[Settings], Settings], path: str, **options: Any) -> Page:
        tab = open_tab(browser, **options)
        tabs.append(tab)
        sign_in(tab, demo_shop)
        with demo_shop.wiring.open_shop(key) as shop:
            now = shop.drafts.read()
            before.append((key, now.settings))
            shop.drafts.append(now.version, change(now.settings), "changed by a test", ADA, clock())
        told = tab.page.request.get(f"{demo_shop.at.studio}/api/stores/{key}").json()
        tab.page.goto(f"{told['store']['origin']}{path}?up-draft={told['preview']}")
        return tab.page

    yield open_drafted
    for key, settings in reversed(before):
        with demo_shop.wiring.open_shop(key) as shop:
            shop.drafts.append(shop.drafts.read().version, settings, "as it was", ADA, clock())
    for tab in tabs:
        tab.context.close()


@pytest.fixture
def tab(browser: Browser) -> Iterator[Tab]:
    opened = open_tab(browser)
    yield opened
    opened.context.close()


def barriers(page: Page) -> list[str]:
    """Every rule that the page breaks, at any level, and targets smaller than 24 px.

    Reference: axe-core, rules for WCAG 2.2 A and AA and its best practices; target size is WCAG 2.2, 2.5.8.
    """
    options = {"rules": {"target-size": {"enabled": True}}}
    violations = Axe().run(page, options=options).response["violations"]
    return [f"{rule['id']}: {node['html'][:160]}" for rule in violations for node in rule["nodes"]]


def sign_in(tab: Tab, stack: Stack) -> None:
    """Sign in without the form, as a test of something else would."""
    answer = tab.context.request.post(
        f"{stack.at.studio}/api/session",
        data={"email": demo.EMAIL, "password": demo.PASSWORD},
        headers={"Origin": stack.at.studio},
    )
    assert answer.ok, answer.text()


@pytest.fixture
def strange(demo_shop: Stack, tab: Tab) -> Iterator[Strange]:
    with demo_shop.wiring.open_shop("thornmere") as shop:
        running = next(trial for trial in shop.trials.all() if trial.state is TrialState.RUNNING)
    # Version B says the price; whoever only looks sends no signal.
    made = Strange(tab.page, demo_shop.at.practice, "thornmere", demo_shop.at.edge, f"?up-show={running.number}.B")
    yield made
    # Nothing but what the shop itself answered stands in its console.
    expected = ("Failed to load resource", *made.forgives)
    assert all(any(words in told for words in expected) for told in tab.told), tab.told
