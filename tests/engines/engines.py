"""Two other engines behind one small interface: Firefox by WebDriver BiDi, WebKitGTK by Selenium."""

import itertools
import json
import os
import socket
import subprocess
import tempfile
import time
from pathlib import Path
from typing import Any, Protocol

import websocket
from selenium.webdriver import ActionChains, Remote
from selenium.webdriver.common.actions.pointer_input import PointerInput
from selenium.webdriver.remote.client_config import ClientConfig
from selenium.webdriver.remote.remote_connection import RemoteConnection
from selenium.webdriver.webkitgtk.options import Options

FIREFOX = "/usr/bin/firefox-esr"
DRIVER = "/usr/bin/WebKitWebDriver"
WAIT_S = 30.0
# Where the middle of an element is, also of one in a shadow root that `>>` leads into.
MIDDLE = """
(path => {
  let at = document;
  for (const step of path.split(' >> ')) at = (at.shadowRoot ?? at).querySelector(step);
  at.scrollIntoView({block: 'center'});
  const box = at.getBoundingClientRect();
  return [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2)];
})
"""


class Engine(Protocol):
    """A browser with one page in it."""

    name: str

    def goto(self, url: str) -> None: ...
    def evaluate(self, script: str) -> Any: ...
    def press(self, at: tuple[int, int]) -> None: ...
    def close(self) -> None: ...


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def wait_for(port: int, process: "subprocess.Popen[bytes]", what: str) -> None:
    """Wait until somebody listens.

    Raises:
        RuntimeError: The process ended, or did not come up in time.
    """
    ends = time.monotonic() + WAIT_S
    while time.monotonic() < ends and process.poll() is None:
        try:
            socket.create_connection(("127.0.0.1", port), 1).close()
            return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError(f"{what} did not start (exit code {process.poll()}).")


class Firefox:
    """Reference: WebDriver BiDi (W3C), spoken over a socket of Firefox's own."""

    name = "firefox"

    def __init__(self) -> None:
        self._profile = tempfile.TemporaryDirectory()
        port = free_port()
        command = [FIREFOX, "--headless", "--no-remote", "--profile", self._profile.name]
        self._process = subprocess.Popen(
            [*command, f"--remote-debugging-port={port}", "--width", "1280", "--height", "800"],
            env={**os.environ, "HOME": self._profile.name, "MOZ_CRASHREPORTER_DISABLE": "1"},
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        wait_for(port, self._process, "Firefox")
        self._ids = itertools.count(1)
        self._socket = websocket.create_connection(
            f"ws://127.0.0.1:{port}/session", timeout=WAIT_S, suppress_origin=True
        )
        self._ask("session.new", {"capabilities": {}})
        self._page = self._ask("browsingContext.getTree", {})["contexts"][0]["context"]

    def _ask(self, method: str, params: dict[str, Any]) -> Any:
        number = next(self._ids)
        self._socket.send(json.dumps({"id": number, "method": method, "params": params}))
        while True:
            told = json.loads(self._socket.recv())
            if told.get("id") == number:
                if told["type"] == "error":
                    raise RuntimeError(f"{method}: {told['message']}")
                return told["result"]

    def goto(self, url: str) -> None:
        self._ask("browsingContext.navigate", {"context": self._page, "url": url, "wait": "complete"})

    def evaluate(self, script: str) -> Any:
        told = self._ask(
            "script.evaluate",
            {
                "expression": f"(async () => JSON.stringify((await ({script})) ?? null))()",
                "target": {"context": self._page},
                "awaitPromise": True,
            },
        )
        if told["type"] != "success":
            raise RuntimeError(told["exceptionDetails"]["text"])
        return json.loads(told["result"]["value"])

    def press(self, at: tuple[int, int]) -> None:
        steps = [
            {"type": "pointerMove", "x": at[0], "y": at[1]},
            {"type": "pointerDown", "button": 0},
            {"type": "pointerUp", "button": 0},
        ]
        pointer = {"type": "pointer", "id": "mouse", "parameters": {"pointerType": "mouse"}, "actions": steps}
        self._ask("input.performActions", {"context": self._page, "actions": [pointer]})

    def close(self) -> None:
        self._socket.close()
        self._process.terminate()
        self._process.wait(10)
        self._profile.cleanup()


class WebKit:
    """Reference: WebDriver (W3C), as Selenium speaks it with WebKitGTK's own driver."""

    name = "webkit"

    def __init__(self) -> None:
        display = f":{free_port() % 500 + 100}"
        self._screen = subprocess.Popen(
            ["Xvfb", display, "-screen", "0", "1280x900x24", "-nolisten", "tcp"],
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        port = free_port()
        self._home = tempfile.TemporaryDirectory()
        self._process = subprocess.Popen(
            [DRIVER, f"--port={port}"],
            env={
                **os.environ, "DISPLAY": display, "HOME": self._home.name, "GDK_BACKEND": "x11",
                "WEBKIT_DISABLE_COMPOSITING_MODE": "1", "LIBGL_ALWAYS_SOFTWARE": "1", "NO_AT_BRIDGE": "1",
            },
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )  # fmt: skip
        wait_for(port, self._process, "WebKitGTK's driver")
        options = Options()
        options.binary_location = str(next(Path("/usr/lib").glob("*/webkit2gtk-4.*/MiniBrowser")))
        options.add_argument("--automation")
        where = f"http://127.0.0.1:{port}"
        connection = RemoteConnection(client_config=ClientConfig(remote_server_addr=where))
        self._driver = Remote(connection, options=options)
        self._driver.set_script_timeout(WAIT_S)
        self._driver.set_window_size(1280, 800)

    def goto(self, url: str) -> None:
        self._driver.get(url)

    def evaluate(self, script: str) -> Any:
        told = self._driver.execute_async_script(
            f"const done = arguments[0]; (async () => JSON.stringify((await ({script})) ?? null))()"
            ".then(done, error => done(JSON.stringify({failed: String(error)})));"
        )
        found = json.loads(told)
        if isinstance(found, dict) and "failed" in found:
            raise RuntimeError(found["failed"])
        return found

    def press(self, at: tuple[int, int]) -> None:
        chain = ActionChains(self._driver, devices=[PointerInput("mouse", "mouse")])
        chain.w3c_actions.pointer_action.move_to_location(*at)
        chain.w3c_actions.pointer_action.click()
        chain.w3c_actions.perform()

    def close(self) -> None:
        self._driver.quit()
        for process in (self._process, self._screen):
            process.terminate()
            process.wait(10)
        self._home.cleanup()


ENGINES = {"firefox": Firefox, "webkit": WebKit}
