"""One edit of a button, as the studio's API answers it, beside an empty call."""

import json
import time
from collections.abc import Callable
from http.client import HTTPConnection
from typing import Any
from urllib.parse import urlsplit

from ops import demo
from ops.bench.rows import Row, p95
from ops.bench.run import Run

EDITS, WARM = 400, 20


def measure(run: Run) -> list[Row]:
    studio = run.at.studio
    # The plainest client there is: what it takes itself would count as the server's.
    connection = HTTPConnection(urlsplit(studio).netloc)
    kept = {"Origin": studio, "Content-Type": "application/json"}

    def ask(method: str, path: str, body: Any = None, **headers: str) -> Any:
        connection.request(method, path, json.dumps(body) if body else None, {**kept, **headers})
        answer = connection.getresponse()
        content = answer.read()
        assert answer.status == 200, content
        if "set-cookie" in answer.headers:
            kept["Cookie"] = answer.headers["set-cookie"].split(";")[0]
        return content

    ask("POST", "/api/session", {"email": demo.EMAIL, "password": demo.PASSWORD})
    at = f"/api/stores/{demo.KEY}"
    version = json.loads(ask("GET", f"{at}/draft"))["version"]

    def edit(n: int) -> None:
        body = {"layer": "place:product_page", "patch": {"look": {"radius": n % 40}}}
        # Each edit counts the draft's version up by one.
        ask("PATCH", f"{at}/draw/product_page", body, **{"If-Match": f'"{version + n}"'})

    figure, baseline = (
        p95(_times(edit, run.times(EDITS))),
        p95(_times(lambda n: ask("GET", "/health"), run.times(EDITS))),
    )
    connection.close()
    return [Row("edit to new drawing, p95", figure, "ms", baseline, "empty API call", "≤ 25 ms", figure <= 25)]


def _times(call: Callable[[int], object], count: int) -> list[float]:
    taken = []
    for n in range(count + WARM):
        began = time.perf_counter()
        call(n)
        taken.append((time.perf_counter() - began) * 1000)
    # The first ones open connections and fill caches.
    return taken[WARM:]
