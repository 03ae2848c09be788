"""The shop's own pages measured by an installed Chromium, each in a window of every device."""

import os
import shutil
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Error, Page, sync_playwright

from uptick.core.button.document import Device
from uptick.core.errors import OutOfRange
from uptick.core.scroll import PageSurvey
from uptick.core.shop.store import WINDOW_HEIGHTS_PX, WINDOWS_PX

MEASURE = Path(__file__).resolve().parents[2] / "storefront" / "dist" / "survey.js"
_PROGRAMS = ("chromium-headless-shell", "chromium", "chromium-browser", "google-chrome")
_TOUCHED = {"has_touch": True, "is_mobile": True}
# The windows that Place shows; fingers cannot hover.
_WINDOWS: Mapping[Device, dict[str, Any]] = {
    device: {
        "viewport": {"width": round(WINDOWS_PX[device]), "height": round(WINDOW_HEIGHTS_PX[device])},
        **({} if device is Device.DESKTOP else _TOUCHED),
    }
    for device in Device
}
_ANSWERS_MS = 8_000
# After a page that answered nowhere the next ones are given less.
_HURRIED_MS = 2_000
# A page has come to rest when it tells nothing new for so long; it has this long for it.
_QUIET_MS, _REST_MS = 500, 5_000
_BEGIN = """([answers, quiet, rest]) => {
  const standing = () => JSON.stringify({ ...UpSurvey.survey(), took_ms: 0 });
  const some = ms => new Promise(done => setTimeout(done, ms));
  UpSurvey.resting = (async () => {
    let began = performance.now();
    while (!document.querySelector('[data-up-stands],[data-up-kept]')) {
      if (performance.now() - began > answers) return null;
      await some(50);
    }
    began = performance.now();
    let last = standing(), since = performance.now();
    while (performance.now() - began < rest && performance.now() - since < quiet) {
      await some(100);
      const now = standing();
      if (now !== last) [last, since] = [now, performance.now()];
    }
    return JSON.parse(last);
  })();
}"""


class Windows:
    """One window of each device, in which one page after the other is opened."""

    def __init__(self, browser: Browser) -> None:
        self._pages = {device: self._open(browser, options) for device, options in _WINDOWS.items()}
        self._patience_ms = _ANSWERS_MS

    def _open(self, browser: Browser, options: dict[str, Any]) -> Page:
        context = browser.new_context(**options)
        context.set_default_timeout(_ANSWERS_MS)
        # Before the page's own scripts, so that what moves is told from the start.
        context.add_init_script(f"{MEASURE.read_text()};window.UpSurvey=UpSurvey")
        return context.new_page()

    def enter(self, address: str, password: str) -> None:
        """Give the password of a shop that is closed by one, as a shopper would.

        Raises:
            OutOfRange: The shop does not answer, or asks for none.
        """
        for page in self._pages.values():
            try:
                page.goto(address)
                field = page.locator("input[type=password]").first
                field.fill(password, timeout=_HURRIED_MS)
                field.press("Enter")
                page.wait_for_load_state()
            except Error as error:
                allowed = f"given only where {address} asks for one"
                raise OutOfRange.of("--password", allowed, _why(error)) from error

    def measure(self, address: str) -> tuple[dict[Device, PageSurvey], dict[Device, str]]:
        """Return a page measured on every device on which it answers, and why it does not on the others."""
        for page in self._pages.values():
            _try(partial(page.goto, address, wait_until="commit"))
        silent = {
            device: why
            for device, page in self._pages.items()
            if (why := _try(partial(_begin, page, self._patience_ms)))
        }
        surveys = {}
        for device, page in self._pages.items():
            if device in silent:
                continue
            try:
                survey = page.evaluate("UpSurvey.resting")
                if survey:
                    surveys[device] = PageSurvey.model_validate(survey)
                else:
                    silent[device] = f"No place of ours was there within {self._patience_ms / 1000:g} s."
            except Error as error:
                silent[device] = _why(error)
        self._patience_ms = _ANSWERS_MS if surveys else _HURRIED_MS
        return surveys, silent


def _begin(page: Page, patience_ms: int) -> None:
    """Let a page come to rest; it is asked for what it has come to once all of them have begun."""
    page.wait_for_load_state()
    page.evaluate(_BEGIN, [patience_ms, _QUIET_MS, _REST_MS])


def _why(error: Error) -> str:
    return error.message.splitlines()[0][:300]


def _try(work: Callable[[], object]) -> str:
    """Return why something could not be done, or nothing."""
    try:
        work()
    except Error as error:
        return _why(error)
    return ""


def find_chromium() -> str:
    """Return the Chromium of this machine.

    Raises:
        OutOfRange: There is none, or the script is not built.
    """
    program = next((path for name in _PROGRAMS if (path := shutil.which(name))), None)
    if program is None:
        raise OutOfRange.of("Chromium", "installed, as by apt-get install chromium", "missing")
    if not MEASURE.exists():
        raise OutOfRange.of("the script", "built, as by ./start", "missing")
    return program


@contextmanager
def windows() -> Iterator[Windows]:
    """Open a Chromium without a screen, with a window of each device.

    Raises:
        OutOfRange: There is no Chromium on this machine.
    """
    program = find_chromium()
    # As root Chromium has no sandbox of its own.
    flags = ["--disable-gpu", "--no-first-run", *(["--no-sandbox"] if os.getuid() == 0 else [])]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=program, args=flags)
        try:
            yield Windows(browser)
        finally:
            browser.close()
