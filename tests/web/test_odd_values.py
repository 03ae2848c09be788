"""Bodies that were right, with one value at a time replaced by something that nobody would send."""

import json
from collections.abc import Iterator
from typing import Any

import pytest
from starlette.testclient import TestClient

from tests.web.conftest import STORE, require_told, version_of

EDIT = {
    "layer": "baseline",
    "patch": {
        "look": {"radius": 9, "padding": {"top": 4}, "fill": {"kind": "solid", "colour": "#112233"}},
        "wording": {"ready": {"en-GB": "Buy"}},
    },
}
REACH = {"placements": ["product_page"], "products": ["A1"], "languages": ["en-GB"]}
TEXTS = {"layer": "place:strip", "patch": {"wording": {"pre_order": {"en-GB": "Reserve"}}}}
BODIES: list[tuple[str, str, Any]] = [
    ("PATCH", "/draft", EDIT),
    ("PATCH", "/draft", TEXTS),
    ("PATCH", "/draft", {"layer": "exception:e1", "patch": {"wording": {"ready": {"en-GB": "Mine"}}}}),
    ("PATCH", "/draw/{placement}", EDIT),
    ("POST", "/draw/{placement}/try", EDIT),
    ("POST", "/draft/manifest", EDIT),
    ("POST", "/draw/{placement}/bring", {
        "kind": "css", "value": ".b{color:red}", "selector": ".b", "parts": ["fill"], "layer": "place:product_page",
    }),
    ("POST", "/draw/{placement}/carry", {
        "kind": "tokens", "value": "{}", "parts": ["fill"], "layer": "place:product_page",
    }),
    ("POST", "/draw/{placement}/keep", {"name": "Mine", "used_by": "place:product_page"}),
    ("PUT", "/looks/used", {"layer": "place:product_page", "look": "l1"}),
    ("PUT", "/brand", {"seeds": [{"name": "ink", "colour": "#112233"}]}),
    ("PUT", "/languages", {"more": ["de-DE"]}),
    ("POST", "/icons", {"svg": "<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0h9'/></svg>", "name": "mine"}),
    ("POST", "/reach", {"text": "on phones"}),
    ("POST", "/exceptions", {
        "name": "x", "note": "y", "reach": REACH, "layer": EDIT["patch"], "starts_on": "2026-01-01",
    }),
    ("PATCH", "/exceptions/e1", {"name": "x", "note": "y", "reach": REACH, "on": False, "ends_on": "2026-01-01"}),
    ("POST", "/release", {"note": "x", "despite": ["findings", "trial"]}),
    ("POST", "/trials", {
        "question": "Why?", "reach": REACH, "layer": EDIT["patch"], "decides": "added", "relative_difference": 0.2,
        "window_days": 3,
    }),
    ("PATCH", "/trials/1", {"question": "Why?", "patch": EDIT["patch"], "relative_difference": 0.2}),
    ("POST", "/trials/1/start", {"days_ago": 0}),
]  # fmt: skip
NASTY = [
    "a\0b", "\ud800", "", "x" * 3000, "{count, plural, other {", "½", None, True, [], {}, [None], {"kind": "solid"}, -1,
    2**31, 10**30, 1e308, float("nan"),
]  # fmt: skip
DEEP: Any = {}
for _ in range(300):
    DEEP = {"a": DEEP}
NASTY.append(DEEP)


def mutated(value: Any, nasty: Any) -> Iterator[Any]:
    """Yield a body with each of its values in turn replaced, its names in turn changed."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from ({**value, key: other} for other in mutated(inner, nasty))
            if isinstance(nasty, str):
                yield {**{k: v for k, v in value.items() if k != key}, nasty: inner}
    elif isinstance(value, list):
        yield from ([other] for inner in value for other in mutated(inner, nasty))
    yield nasty


@pytest.mark.parametrize(("method", "path", "body"), BODIES)
def test_no_odd_value_anywhere_in_a_body_is_a_fault(full_store: TestClient, method: str, path: str, body: Any) -> None:
    at = f"{STORE}{path}".replace("{placement}", "product_page")
    described_at = f"/api/stores/{{store}}{path}".replace("/e1", "/{rule}").replace("/1", "/{number}")
    version = version_of(full_store, path)
    headers = {"If-Match": version, "Content-Type": "application/json"}
    right = full_store.request(method, at, content=json.dumps(body), headers=headers)
    assert right.status_code < 500
    require_told(right, described_at, method, body)
    if right.status_code < 300:
        version = version_of(full_store, path)
    for nasty in NASTY:
        for odd in mutated(body, nasty):
            headers = {"If-Match": version, "Content-Type": "application/json"}
            answer = full_store.request(method, at, content=json.dumps(odd), headers=headers)
            require_told(answer, described_at, method, odd)
            if answer.status_code < 300:
                version = version_of(full_store, path)
    # And after all of it the shop can still be drawn, checked and released.
    for look in ("/floor", "/findings", "/words", "/draw/product_page", "/exceptions", "/release", "/trials/1"):
        assert full_store.get(f"{STORE}{look}").status_code == 200
