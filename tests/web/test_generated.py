"""The whole described API, walked with values that nobody chose: whatever comes, it is answered as it is described."""

import json
from functools import cache
from typing import Any
from urllib.parse import quote

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode
from starlette.testclient import TestClient

from tests.web.conftest import OTHER_ORIGIN, STORE, described, require_told, version_of
from uptick.wiring import Wiring


@cache
def operations() -> dict[str, Any]:
    """Reference: Schemathesis 4.32, which makes requests from an OpenAPI description."""
    schema = schemathesis.openapi.from_dict(described())
    return {
        f"{operation.ok().method.upper()} {operation.ok().path}": operation.ok()
        for operation in schema.get_all_operations()
    }


@pytest.mark.parametrize("name", operations())
def test_every_operation_answers_as_described_whatever_fits_its_description_or_not(
    full_store: TestClient, name: str
) -> None:
    operation = operations()[name]
    modes = [GenerationMode.POSITIVE, GenerationMode.NEGATIVE]

    @settings(max_examples=10, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck), database=None)
    @given(st.data())
    def walk(data: Any) -> None:
        case = data.draw(operation.as_strategy(generation_mode=data.draw(st.sampled_from(modes))))
        parameters = dict(case.path_parameters or {})
        if "store" in parameters:
            parameters["store"] = "sample"
        if "number" in parameters and data.draw(st.booleans()):
            parameters["number"] = 1
        path = operation.path
        for key, value in parameters.items():
            path = path.replace(f"{{{key}}}", quoted(value))
        headers = {"Content-Type": "application/json"}
        if case.headers and "if-match" in {key.lower() for key in case.headers}:
            headers["If-Match"] = version_of(full_store, operation.path)
        has_body = isinstance(case.body, dict | list | str | int | float | bool | None)
        body = {"content": json.dumps(case.body)} if has_body else {}
        if operation.path == "/api/session" and operation.method == "delete":
            return
        answer = full_store.request(operation.method, path, params=flat(case.query), headers=headers, **body)
        # An address that is quoted away from its own form is another address, or none.
        if answer.status_code not in (404, 405):
            require_told(answer, operation.path, operation.method, case.body)

    walk()


# The schema of the document is the same for every store and says nothing about any.
OF_A_STORE = [name for name in operations() if "{store}" in name and "/schema" not in name]


@pytest.mark.parametrize("name", OF_A_STORE)
def test_no_operation_reaches_into_a_store_of_somebody_elses(
    full_store: TestClient, wiring_of: Wiring, name: str
) -> None:
    operation = operations()[name]

    @settings(max_examples=3, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck), database=None)
    @given(st.data())
    def walk(data: Any) -> None:
        case = data.draw(operation.as_strategy(generation_mode=GenerationMode.POSITIVE))
        path = operation.path
        for key, value in {**dict(case.path_parameters or {}), "store": "other"}.items():
            path = path.replace(f"{{{key}}}", quoted(value))
        has_body = isinstance(case.body, dict | list | str | int | float | bool | None)
        body = {"content": json.dumps(case.body)} if has_body else {}
        headers = {"Content-Type": "application/json", "If-Match": '"1"'}
        answer = full_store.request(operation.method, path, params=flat(case.query), headers=headers, **body)
        assert answer.status_code in (404, 422), answer.text[:200]
        assert OTHER_ORIGIN not in answer.text

    walk()
    with wiring_of.open_shop("other") as shop:
        assert (shop.drafts.read().version, shop.catalogue.all(), shop.trials.all()) == (1, [], [])
        assert shop.releases.newest() is None


def quoted(value: object) -> str:
    return quote(str(value), safe="", errors="replace") or "-"


def flat(query: Any) -> dict[str, str]:
    return {str(key): str(value).encode("utf-8", "replace").decode() for key, value in (query or {}).items()}


@pytest.mark.parametrize(
    ("method", "path"),
    [
        ("GET", "/api/stores/%00/floor"),
        ("GET", "/api/stores/sample%00"),
        ("GET", f"{STORE}/pictures/%00"),
        ("GET", f"{STORE}/trace?placement=product_page&field=%00"),
        ("GET", f"{STORE}/trace?placement=product_page&field=wording.ready"),
        ("GET", f"{STORE}/trace?placement=product_page&field=wording"),
        ("GET", f"{STORE}/trace?placement=product_page&field=..."),
        ("GET", f"{STORE}/search?text=%00"),
        ("GET", f"{STORE}/search?text=%ED%A0%80"),
        ("GET", f"{STORE}/floor?language=%ff"),
        ("GET", f"{STORE}/draw/product_page?product=%00"),
        ("GET", f"{STORE}/draw/product_page?layer=exception:none"),
        ("GET", f"{STORE}/trials/99999999999999999999"),
        ("GET", f"{STORE}/trials/2147483648"),
        ("POST", f"{STORE}/release/99999999999/take-back"),
        ("POST", f"{STORE}/texts/%00"),
        ("DELETE", f"{STORE}/exceptions/%00"),
        ("DELETE", f"{STORE}/looks/%ff"),
        ("GET", f"{STORE}/exceptions/e99/effects"),
        ("GET", "/" + "a" * 20_000),
        ("GET", "/assets/" + "a" * 20_000),
        ("GET", f"{STORE}/looks/" + "a" * 20_000),
        ("GET", "/shop-fonts/" + "a" * 20_000),
    ],
)
def test_no_odd_address_is_a_fault(full_store: TestClient, method: str, path: str) -> None:
    answer = full_store.request(method, path, headers={"If-Match": '"2"'})
    assert 200 <= answer.status_code < 500, answer.text
    if answer.status_code >= 400:
        assert answer.headers["content-type"] == "application/problem+json"


@pytest.mark.parametrize("name", ["catalogue", "catalogue/preview", "texts/en-GB", "pictures"])
@pytest.mark.parametrize(
    "content",
    [
        b"", b"\0", b"\xff\xfe", b"sku\n\0\n", b"sku,name,category,url\nA\0,b,c,/d\n",
        b'{"@type":"Product","sku":"\\u0000"}',
        b'{"@type":"Product","sku":"\\ud800","name":"x","category":"c","url":"/"}', b"[" * 5000,
        b'msgid ""\nmsgstr ""\n\nmsgctxt "baseline/ready"\nmsgid "x"\nmsgstr "a\0b"\n', b"GIF89a" + b"\0" * 50,
        b"\x89PNG\r\n\x1a\n" + b"\0" * 64,
    ],
)  # fmt: skip
def test_no_odd_file_is_a_fault(full_store: TestClient, name: str, content: bytes) -> None:
    headers = {"If-Match": version_of(full_store, name), "Content-Type": "application/octet-stream"}
    answer = full_store.post(f"{STORE}/{name}", content=content, headers=headers)
    assert answer.status_code < 500, answer.text
    assert '"fault"' not in answer.text
