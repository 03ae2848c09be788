"""What every part of the benchmark measures with: the running parts, one browser, and how often it measures."""

from dataclasses import dataclass

from playwright.sync_api import Browser, Page

from ops import demo
from ops.chromium import AGENT
from ops.cluster import Cluster
from ops.parts import Addresses, Parts
from uptick.wiring import Wiring

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
