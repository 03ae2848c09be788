"""What every part of the benchmark measures with: the running parts, one browser, and how often it measures."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from playwright.sync_api import Browser, Page

from ops import demo
from ops.chromium import AGENT
from ops.cluster import Cluster
from ops.parts import Addresses, Parts
from uptick.core.rules.settings import Settings
from uptick.usecases.ports import Person
from uptick.usecases.publish import publish
from uptick.wiring import Wiring, clock

WINDOW = {"width": 1280, "height": 800}


@dataclass(frozen=True, slots=True)
class Run:
    """One run of the benchmark.

    With `once` every part runs a single time on little data: its figures say nothing, but that it still runs.
    """

    parts: Parts
    cluster: Cluster
    wiring: Wiring
    browser: Browser
    once: bool = False

    @property
    def at(self) -> Addresses:
        return self.parts.addresses

    def times(self, whole: int, least: int = 1) -> int:
        """Return how often something is done: `whole` times, or with `once` the least that makes sense."""
        return least if self.once else whole

    def page(self, *, signed_in: bool = False) -> Page:
        """Open a window of a usual size, with the demo's own person in it where that is asked for."""
        context = self.browser.new_context(viewport=WINDOW, user_agent=AGENT)  # type: ignore[arg-type]
        if signed_in:
            context.request.post(
                f"{self.at.studio}/api/session",
                data={"email": demo.EMAIL, "password": demo.PASSWORD},
                headers={"Origin": self.at.studio},
            )
        return context.new_page()

    @contextmanager
    def published(self, change: Callable[[Settings], Settings]) -> Iterator[None]:
        """Release the demo's store changed for what is measured within, and as it was afterwards."""
        with self.wiring.open_shop(demo.KEY) as shop:
            before = shop.drafts.read().settings
        self._publish(change(before))
        try:
            yield
        finally:
            self._publish(before)

    def _publish(self, settings: Settings) -> None:
        person = Person(1, demo.NAME, demo.EMAIL, (demo.KEY,))
        with self.wiring.open_shop(demo.KEY) as shop:
            shop.drafts.append(shop.drafts.read().version, settings, "for measuring", person, clock())
            publish(shop, "for measuring", person, clock(), ("findings", "trial"))
