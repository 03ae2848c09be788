"""The studio's API over the real database, by HTTP as a browser would speak it."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from scripts import openapi
from tests.conftest import EMAIL, PASSWORD
from tests.samples import BASELINE
from uptick.core import errors
from uptick.web import account
from uptick.web.app import create_app
from uptick.web.problems import STATUS
from uptick.wiring import Wiring

HERE = "http://studio.test"
CSV = Path("practice/catalogue.csv").read_bytes()


@pytest.fixture
def stranger(wiring: Wiring) -> Iterator[TestClient]:
    account._limiter.storage.reset()
    with TestClient(create_app(wiring.studio_parts()), base_url=HERE, headers={"Origin": HERE}) as client:
        yield client


@pytest.fixture
def ada(stranger: TestClient) -> TestClient:
    answer = stranger.post("/api/session", json={"email": EMAIL, "password": PASSWORD})
    assert answer.status_code == 200
    assert stranger.post("/api/stores/sample/catalogue", content=CSV).status_code == 200
    return stranger


def edit(client: TestClient, layer: str, patch: dict[str, Any], version: int | None = None) -> Any:
    version = version or client.get("/api/stores/sample/draft").json()["version"]
    body = {"layer": layer, "patch": patch}
    return client.patch("/api/stores/sample/draft", json=body, headers={"If-Match": f'"{version}"'})


def problem(answer: Any, status: int, code: str) -> dict[str, Any]:
    """Reference: RFC 9457: media type and members of a problem."""
    assert answer.status_code == status, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    told = dict(answer.json())
    assert {"type", "title", "status", "detail", "code"} <= set(told)
    assert (told["status"], told["code"]) == (status, code)
    assert told["type"] == f"urn:uptick:problem:{code}"
    return told


def test_every_error_has_a_status_and_a_code_of_its_own() -> None:
    def below(kind: type[errors.AppError]) -> set[type[errors.AppError]]:
        return {kind for child in kind.__subclasses__() for kind in {child, *below(child)}}

    kinds = below(errors.AppError)
    assert set(STATUS) == kinds
    assert len({kind.code for kind in kinds}) == len(kinds)


def test_the_described_api_is_the_one_that_types_are_made_from() -> None:
    import json

    assert json.loads(openapi.TARGET.read_text()) == json.loads(json.dumps(openapi.described()))


def test_signing_in_gives_an_http_only_same_site_cookie_and_signing_out_ends_it(stranger: TestClient) -> None:
    problem(stranger.get("/api/session"), 401, "not_signed_in")
    answer = stranger.post("/api/session", json={"email": EMAIL.upper(), "password": PASSWORD})
    cookie = answer.headers["set-cookie"].lower()
    assert "httponly" in cookie
    assert "samesite=strict" in cookie
    assert answer.json()["stores"] == ["sample"]
    kept = dict(stranger.cookies)
    assert stranger.get("/api/session").json()["name"] == "Ada"
    assert stranger.delete("/api/session").status_code == 204
    stranger.cookies.update(kept)
    problem(stranger.get("/api/session"), 401, "not_signed_in")


def test_a_forged_cookie_is_nobody(ada: TestClient) -> None:
    value = ada.cookies["uptick_session"]
    ada.cookies.clear()
    ada.cookies.set("uptick_session", value[:-3] + "abc")
    problem(ada.get("/api/session"), 401, "not_signed_in")


def test_guessing_is_slowed_down(stranger: TestClient) -> None:
    body = {"email": EMAIL, "password": "wrong"}
    for _ in range(8):
        problem(stranger.post("/api/session", json=body), 401, "wrong_password")
    problem(stranger.post("/api/session", json={**body, "password": PASSWORD}), 429, "slow_down")
    other = stranger.post("/api/session", json={"email": "bob@example.test", "password": "another"})
    assert other.status_code == 200


@pytest.mark.parametrize("origin", ["http://evil.test", "null", None])
def test_changes_from_another_page_are_refused(ada: TestClient, origin: str | None) -> None:
    ada.headers.pop("origin")
    headers = {"Origin": origin} if origin else {}
    problem(ada.post("/api/stores/sample/draft/undo", headers=headers), 403, "wrong_origin")


@pytest.mark.parametrize("path", ["", "/floor", "/draft", "/words", "/release", "/trials", "/trials/1", "/exceptions"])
def test_a_store_that_is_not_yours_is_as_if_it_were_not_there(ada: TestClient, path: str) -> None:
    foreign = problem(ada.get(f"/api/stores/other{path}"), 404, "not_found")
    unknown = problem(ada.get(f"/api/stores/no-such{path}"), 404, "not_found")
    assert foreign["detail"].replace("other", "no-such") == unknown["detail"]


def test_nothing_is_told_to_strangers(stranger: TestClient) -> None:
    problem(stranger.get("/api/stores/sample/floor"), 401, "not_signed_in")


def test_an_edit_needs_the_version_it_was_made_on(ada: TestClient) -> None:
    patch = {"look": {"radius_px": 9}}
    body = {"layer": "baseline", "patch": patch}
    problem(ada.patch("/api/stores/sample/draft", json=body), 412, "stale")
    done = edit(ada, "baseline", patch)
    assert done.status_code == 200
    assert done.json()["undo_label"] == "Store baseline: corner radius, 4 → 9"
    problem(edit(ada, "baseline", {"look": {"radius_px": 3}}, done.json()["version"] - 1), 412, "stale")
    assert ada.get("/api/stores/sample/draw/product_page").json()["document"]["look"]["radius_px"] == 9


def test_bad_input_is_refused_with_its_field_and_what_is_allowed(ada: TestClient) -> None:
    told = problem(edit(ada, "baseline", {"look": {"type": {"size_px": 4}}}), 422, "bad_document")
    assert told["field"] == "look.type.size_px"
    assert "greater than or equal to 8" in told["detail"]
    told = problem(edit(ada, "baseline", {"wording": {"ready": {"en-GB": "{cost}"}}}), 422, "bad_wording")
    assert "{price}" in told["detail"]
    problem(edit(ada, "exception:e9", {}), 404, "not_found")
    problem(ada.get("/api/stores/sample/draw/roof"), 422, "bad_request")
    problem(ada.post("/api/session", json={"email": EMAIL}), 422, "bad_request")
    problem(ada.get("/api/nowhere"), 404, "not_found")
    problem(ada.post("/api/stores/sample/catalogue", content=b"\xff\xfe"), 422, "bad_catalogue")


def test_undo_and_redo_over_the_api(ada: TestClient) -> None:
    problem(ada.post("/api/stores/sample/draft/undo"), 409, "nothing_to_undo")
    edit(ada, "place:product_page", {"look": {"size": {"kind": "full"}}})
    undone = ada.post("/api/stores/sample/draft/undo").json()
    assert undone["redo_label"] == "Product page: size, nothing → full width"
    assert ada.post("/api/stores/sample/draft/redo").json()["redo_label"] == ""
    history = ada.get("/api/stores/sample/draft/history").json()
    assert (history[0]["author"], history[0]["is_undone"]) == ("Ada", False)


def test_an_edit_of_a_drawing_answers_with_the_new_drawing(ada: TestClient) -> None:
    version = ada.get("/api/stores/sample/draft").json()["version"]
    body = {"layer": "place:product_page", "patch": {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}}}
    answer = ada.patch("/api/stores/sample/draw/product_page", json=body, headers={"If-Match": str(version)})
    view = answer.json()
    assert "background:#eeeeee" in view["button"]["css"]
    assert view["findings"][0]["rule"] == "contrast"
    mend = view["findings"][0]["mends"][0]
    assert edit(ada, mend["layer"], mend["patch"]).status_code == 200
    assert ada.get("/api/stores/sample/draw/product_page").json()["findings"] == []


def test_exceptions_come_and_go(ada: TestClient) -> None:
    version = ada.get("/api/stores/sample/draft").json()["version"]
    wish = {"name": "Jars", "note": "why", "reach": {"categories": ["Jars & labels"]}, "layer": {}}
    made = ada.post("/api/stores/sample/exceptions", json=wish, headers={"If-Match": str(version)})
    assert made.status_code == 200
    problem(
        ada.post("/api/stores/sample/exceptions", json={**wish, "reach": {"categories": ["Cheese"]}},
                 headers={"If-Match": str(version + 1)}), 422, "bad_reach",
    )  # fmt: skip
    (listed,) = ada.get("/api/stores/sample/exceptions").json()
    assert listed["reach_words"] == "Jars & labels"
    gone = ada.delete(f"/api/stores/sample/exceptions/{listed['id']}", headers={"If-Match": str(version + 1)})
    assert gone.status_code == 200
    trace = ada.get("/api/stores/sample/trace?placement=product_page&field=look.radius_px").json()
    assert [c["layer"] for c in trace["candidates"]] == ["baseline"]


def test_release_ledger_and_taking_back(ada: TestClient) -> None:
    assert ada.get("/api/stores/sample/release").json()["ledger"] == []
    assert ada.post("/api/stores/sample/release", json={"note": "first"}).json()["n"] == 1
    problem(ada.post("/api/stores/sample/release", json={}), 409, "nothing_to_release")
    edit(ada, "baseline", {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}})
    problem(ada.post("/api/stores/sample/release", json={}), 409, "findings_left")
    assert ada.post("/api/stores/sample/release", json={"despite": ["findings"]}).json()["n"] == 2
    assert ada.post("/api/stores/sample/release/1/take-back", json={}).json()["n"] == 3
    view = ada.get("/api/stores/sample/release").json()
    assert [r["n"] for r in view["ledger"]] == [3, 2, 1]
    assert view["draft"]["changed_buttons"] == 0
    assert ada.get("/api/stores/sample/draft/settings").json()["baseline"] == BASELINE


def test_a_trial_from_question_to_record(ada: TestClient) -> None:
    ada.post("/api/stores/sample/release", json={})
    wish = {"question": "Rounder?", "reach": {"placements": ["product_page"]}, "layer": {"look": {"radius_px": 20}}}
    drawn = ada.post("/api/stores/sample/trials", json=wish)
    assert drawn.status_code == 201
    changed = ada.patch("/api/stores/sample/trials/1", json={"patch": {"look": {"radius_px": 24}}}).json()
    assert changed["fields"][0]["after"] == "24"
    assert changed["planned"]["plan"] is None
    assert "No shopper has seen" in changed["planned"]["why_not"]
    problem(ada.post("/api/stores/sample/trials/1/start", json={}), 409, "too_few_data")
    problem(ada.post("/api/stores/sample/trials/1/keep-b"), 409, "trial_state")
    problem(ada.get("/api/stores/sample/trials/9"), 404, "not_found")
    assert [t["number"] for t in ada.get("/api/stores/sample/trials").json()] == [1]


def test_the_import_says_line_by_line_what_it_would_do_and_does_it_only_when_asked(ada: TestClient) -> None:
    changed = CSV.replace(b"64.50", b"65.00") + b"X,bad\n"
    tried = ada.post("/api/stores/sample/catalogue?dry_run=true", content=changed).json()
    assert (tried["applied"], tried["changed"][0]["fields"]) == (False, ["price_minor"])
    assert tried["refused"][0]["line"] == 14
    assert ada.post("/api/stores/sample/catalogue", content=CSV).json()["unchanged"] == 12


def test_pages_carry_the_headers_that_keep_others_out(stranger: TestClient) -> None:
    answer = stranger.get("/health")
    assert "default-src 'self'" in answer.headers["content-security-policy"]
    assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_files_outside_the_studio_are_not_served(stranger: TestClient) -> None:
    for path in ("/..%2f..%2fpyproject.toml", "/%2e%2e/%2e%2e/etc/passwd", "/assets/../../../pyproject.toml"):
        assert b"[project]" not in stranger.get(path).content
        assert b"root:" not in stranger.get(path).content
    assert stranger.get("/shop-fonts/nothing.woff2").status_code == 404


def test_the_store_tells_its_one_line_and_what_its_buttons_can_be_made_of(ada: TestClient) -> None:
    info = ada.get("/api/stores/sample").json()
    assert info["snippet"] == '<script async src="http://127.0.0.1:8801/s/sample/up.js"></script>'
    assert len(info["products"]) == 12
    assert len(info["icons"]) == 24
    assert {font["family"] for font in info["fonts"]} == {"figtree", "lora", "archivo"}
    file = info["font_files"][0]["file"]
    assert ada.get(f"/shop-fonts/{file}").content[:4] == b"wOF2"
    assert "properties" in ada.get("/api/stores/sample/schema").json()
