"""A stylesheet computed by an installed Chromium, for the command line."""

import json
import os
import re
import shutil
import subprocess
from html import unescape
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from uptick.core.errors import BadCss

READER = Path(__file__).resolve().parents[2] / "studio" / "dist" / "reader" / "css.js"
_PROGRAMS = ("chromium-headless-shell", "chromium", "chromium-browser", "google-chrome")
_FLAGS = (
    "--headless", "--disable-gpu", "--no-first-run", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--hide-scrollbars", "--dump-dom", "--timeout=20000",
)  # fmt: skip
_SECONDS = 40
_ANSWER = re.compile(r'<pre id="answer">(.*?)</pre>', re.DOTALL)
# The reader is ours and runs; the stylesheet stands in a frame of it, in which no script runs.
_PAGE = """<!doctype html><meta charset="utf-8">
<meta http-equiv="Content-Security-Policy"
  content="default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'">
<body><pre id="answer"></pre><script>{reader}</script><script id="asked" type="application/json">{asked}</script>
<script>
const say = (told) => (document.getElementById("answer").textContent = JSON.stringify(told));
UpCss.readCss(JSON.parse(document.getElementById("asked").textContent)).then(say, (e) => say({{ error: String(e) }}));
</script>"""


def find_chromium() -> str | None:
    """Return the Chromium of this machine, or None where there is none, or where the reader is not built."""
    program = next((path for name in _PROGRAMS if (path := shutil.which(name))), None)
    return program if READER.exists() else None


def computed_by(program: str, css: str, markup: str = "", name: str = "") -> tuple[str, list[str]]:
    """Return what a browser computes of a stylesheet, as the JSON of a reading, and the buttons that it seems to have.

    Args:
        program: Where Chromium is.
        css: The stylesheet.
        markup: The button as the page writes it; else one is made from the stylesheet's own selectors.
        name: Which of the buttons that the stylesheet seems to have; the plainest one where it is empty.

    Raises:
        BadCss: There is no button in it, not the one that was named, or the browser did not answer.
    """
    asked = {"css": css, **({"markup": markup} if markup else {}), **({"name": name} if name else {})}
    page = _PAGE.format(reader=READER.read_text(), asked=json.dumps(asked).replace("<", "\\u003c"))
    with TemporaryDirectory() as folder:
        file = Path(folder) / "page.html"
        file.write_text(page)
        # As root Chromium has no sandbox of its own; the page has nothing in it that could run but our reader.
        root = ("--no-sandbox",) if os.getuid() == 0 else ()
        command = (program, *_FLAGS, *root, f"--user-data-dir={folder}/profile", file.as_uri())
        try:
            output = subprocess.run(command, capture_output=True, text=True, timeout=_SECONDS, check=False).stdout
        except subprocess.TimeoutExpired as error:
            raise BadCss(f"Chromium did not answer within {_SECONDS} s.") from error
    match = _ANSWER.search(output)
    answer: Any = json.loads(unescape(match[1])) if match and match[1] else {"error": "it said nothing"}
    if "error" in answer:
        raise BadCss(f"Chromium could not read the stylesheet: {answer['error']}.")
    likely = [rule["name"] for rule in answer["likely"]]
    if name and not markup and name not in likely:
        raise BadCss(f"There is no button {name!r} in it. There are: {', '.join(likely[:8]) or 'none'}.", selector=name)
    if answer["reading"] is None:
        says = "The stylesheet has no rule that looks like a button's. Say how the page writes it, with --markup."
        raise BadCss(says)
    return json.dumps(answer["reading"]), likely
