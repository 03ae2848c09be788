"""The studio's API over the real database, by HTTP as a browser would speak it."""

import io
import json
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path
from threading import Barrier
from time import sleep
from typing import Any, cast

import jsonschema
import pytest
from PIL import Image
from pydantic import SecretStr
from sqlalchemy.pool import QueuePool
from starlette.testclient import TestClient

from scripts import openapi
from tests.conftest import EMAIL, PASSWORD
from tests.samples import BASELINE
from uptick.core import errors
from uptick.usecases import importing
from uptick.web import account
from uptick.web.app import create_app
from uptick.web.problems import STATUS
from uptick.wiring import Environment, Wiring

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


def lines(answer: Any) -> list[dict[str, Any]]:
    """Return the lines of an answer that tells progress."""
    return [json.loads(line) for line in answer.text.splitlines()]


def seen(client: TestClient, trial: int | None = None) -> dict[str, str]:
    """Return the header that says which version of the draft, or of a trial, is in sight."""
    if trial:
        version = client.get(f"/api/stores/sample/trials/{trial}").json()["trial"]["version"]
    else:
        version = client.get("/api/stores/sample/draft").json()["version"]
    return {"If-Match": f'"{version}"'}


def release(client: TestClient, **body: Any) -> Any:
    return client.post("/api/stores/sample/release", json=body, headers=seen(client))


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
    assert json.loads(openapi.TARGET.read_text()) == json.loads(json.dumps(openapi.described()))
    assert openapi.FACTS.read_text() == openapi.facts()
    assert json.loads(openapi.MANIFEST.read_text()) == json.loads(json.dumps(openapi.told_to_the_script()))
    assert openapi.SCRIPT_FACTS.read_text() == openapi.script_facts()
    assert openapi.LATER_FACTS.read_text() == openapi.later_facts()


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
    patch = {"look": {"radius": 9}}
    body = {"layer": "baseline", "patch": patch}
    problem(ada.patch("/api/stores/sample/draft", json=body), 412, "stale")
    done = edit(ada, "baseline", patch)
    assert done.status_code == 200
    assert done.json()["undo_label"] == "Store baseline: corner radius, 4 → 9"
    problem(edit(ada, "baseline", {"look": {"radius": 3}}, done.json()["version"] - 1), 412, "stale")
    assert ada.get("/api/stores/sample/draw/product_page").json()["document"]["look"]["radius"] == 9


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
    problem(ada.post("/api/stores/sample/catalogue/preview", content=b"\xff\xfe"), 422, "bad_catalogue")
    told = lines(ada.post("/api/stores/sample/catalogue", content=b"\xff\xfe"))[-1]["problem"]
    assert told["code"] == "bad_catalogue"


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
    assert "background:#eeeeee" in view["shown"]["button"]["css"]
    assert view["findings"][0]["rule"] == "contrast"
    fix = view["findings"][0]["fixes"][0]
    assert edit(ada, fix["layer"], fix["patch"]).status_code == 200
    assert ada.get("/api/stores/sample/draw/product_page").json()["findings"] == []


def test_an_edit_that_cannot_be_drawn_is_not_kept(ada: TestClient) -> None:
    before = ada.get("/api/stores/sample/draft").json()["version"]
    body = {"layer": "place:product_page", "patch": {"look": {"radius": 9}}}
    at = "/api/stores/sample/draw/product_page?layer=exception:e9"
    problem(ada.patch(at, json=body, headers=version_of(ada)), 404, "not_found")
    assert ada.get("/api/stores/sample/draft").json()["version"] == before


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
    for odd in ("wording.99999999999999999999", "wording."):
        answer = ada.get(f"/api/stores/sample/trace?placement=product_page&field={odd}")
        assert (answer.status_code, "ready, working" in answer.json()["detail"]) == (422, True), answer.text
    trace = ada.get("/api/stores/sample/trace?placement=product_page&field=look.radius").json()
    assert [line["of"]["layer"] for line in trace["lines"]] == ["baseline"]


def test_release_ledger_and_taking_back(ada: TestClient) -> None:
    assert ada.get("/api/stores/sample/release").json()["ledger"] == []
    assert release(ada, note="first").json()["n"] == 1
    problem(release(ada), 409, "nothing_to_release")
    edit(ada, "baseline", {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}})
    problem(release(ada), 409, "findings_left")
    assert release(ada, despite=["findings"]).json()["n"] == 2
    assert ada.post("/api/stores/sample/release/1/take-back", json={}, headers=seen(ada)).json()["n"] == 3
    view = ada.get("/api/stores/sample/release").json()
    assert [r["n"] for r in view["ledger"]] == [3, 2, 1]
    assert view["draft"]["changes"] == 0
    assert ada.get("/api/stores/sample/draft/settings").json()["baseline"] == BASELINE


def test_a_release_is_written_as_json_that_keeps_to_its_published_schema(ada: TestClient) -> None:
    """Reference: the library jsonschema, JSON Schema 2020-12."""
    release(ada, note="first")
    schema = ada.get("/api/stores/sample/schema/release").json()
    jsonschema.Draft202012Validator.check_schema(schema)
    for n in (0, 1):
        answer = ada.get(f"/api/stores/sample/release/{n}.json")
        assert 'filename="sample-release-' in answer.headers["content-disposition"]
        jsonschema.validate(answer.json(), schema)
    file = answer.json()
    assert (file["format"], file["n"], file["note"], file["settings"]["baseline"]) == (
        "uptick-release-1", 1, "first", BASELINE,
    )  # fmt: skip
    assert file["compiled"]["looks"]
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate({**file, "n": "one"}, schema)
    problem(ada.get("/api/stores/sample/release/9.json"), 404, "not_found")
    jsonschema.Draft202012Validator.check_schema(ada.get("/api/stores/sample/schema/readout").json())


def test_a_trial_from_question_to_record(ada: TestClient) -> None:
    release(ada)
    wish = {"question": "Rounder?", "reach": {"placements": ["product_page"]}, "layer": {"look": {"radius": 20}}}
    drawn = ada.post("/api/stores/sample/trials", json=wish, headers={"If-Match": '"1"'})
    assert drawn.status_code == 201
    changed = ada.patch(
        "/api/stores/sample/trials/1", json={"patch": {"look": {"radius": 24}}}, headers=seen(ada, 1)
    ).json()
    assert changed["fields"][0]["after"] == "24"
    assert changed["planned"]["plan"] is None
    assert "No shopper has seen" in changed["planned"]["why_not"]
    problem(ada.post("/api/stores/sample/trials/1/start", json={}, headers=seen(ada, 1)), 409, "too_few_data")
    problem(ada.post("/api/stores/sample/trials/1/keep-b", headers=seen(ada, 1)), 409, "trial_state")
    problem(ada.get("/api/stores/sample/trials/9"), 404, "not_found")
    assert [t["number"] for t in ada.get("/api/stores/sample/trials").json()] == [1]


def test_the_import_says_line_by_line_what_it_would_do_and_does_it_only_when_asked(ada: TestClient) -> None:
    changed = CSV.replace(b"64.50", b"65.00") + b"X,bad\n"
    tried = ada.post("/api/stores/sample/catalogue/preview", content=changed).json()
    assert (tried["applied"], tried["changed"][0]["fields"]) == (False, ["price_minor"])
    assert tried["refused"][0]["line"] == 62
    *progress, last = lines(ada.post("/api/stores/sample/catalogue", content=CSV))
    assert last["report"]["counts"]["unchanged"] == 60
    assert progress[-1]["progress"] == {"done": 0, "of": 0}


def test_no_connection_to_the_database_is_held_while_a_catalogue_is_read(
    ada: TestClient, wiring: Wiring, monkeypatch: pytest.MonkeyPatch
) -> None:
    held: list[int] = []
    read = importing.read_catalogue

    def watched(*of: Any) -> Any:
        held.append(cast(QueuePool, wiring.engine.pool).checkedout())
        return read(*of)

    monkeypatch.setattr(importing, "read_catalogue", watched)
    assert ada.post("/api/stores/sample/catalogue/preview", content=CSV).status_code == 200
    assert lines(ada.post("/api/stores/sample/catalogue", content=CSV))[-1]["report"]["applied"]
    assert held == [0, 0]


def test_what_the_file_lacks_goes_only_when_the_file_is_the_whole_catalogue(ada: TestClient) -> None:
    few = b"".join(CSV.splitlines(keepends=True)[:3])
    assert ada.post("/api/stores/sample/catalogue/preview", content=few).json()["counts"]["missing"] == 58
    ada.post("/api/stores/sample/catalogue", content=few)
    assert ada.get("/api/stores/sample").json()["product_count"] == 60
    (refused,) = lines(ada.post("/api/stores/sample/catalogue?whole=true", content=few))
    assert refused["problem"]["code"] == "needs_yes"
    assert refused["problem"]["warnings"][0].startswith("It would remove 58 of 60 products")
    assert ada.get("/api/stores/sample").json()["product_count"] == 60
    ada.post("/api/stores/sample/catalogue?whole=true&really=true", content=few)
    assert ada.get("/api/stores/sample").json()["product_count"] == 2


@pytest.mark.parametrize("form", ["csv", "jsonld"])
def test_the_catalogue_goes_out_and_comes_back_unchanged(ada: TestClient, form: str) -> None:
    out = ada.get(f"/api/stores/sample/catalogue.{form}")
    counts = ada.post("/api/stores/sample/catalogue/preview", content=out.content).json()["counts"]
    assert counts == {"new": 0, "changed": 0, "unchanged": 60, "missing": 0, "refused": 0}


def test_a_reach_in_words_is_read_or_refused_with_what_may_have_been_meant(ada: TestClient) -> None:
    read = ada.post("/api/stores/sample/reach", json={"text": "frames & wax, on phones, except brood frames"}).json()
    assert read["words"] == "Frames & wax, on phones, except Brood frames"
    assert read["products"] == 7
    told = problem(ada.post("/api/stores/sample/reach", json={"text": "Frames & waxx"}), 422, "bad_reach")
    assert "Frames & wax" in told["near"]


def test_an_exception_is_changed_step_by_step(ada: TestClient) -> None:
    def version() -> dict[str, str]:
        return {"If-Match": str(ada.get("/api/stores/sample/draft").json()["version"])}

    def change(**body: Any) -> Any:
        return ada.patch("/api/stores/sample/exceptions/e1", json=body, headers=version())

    wish = {"name": "Jars", "note": "why", "reach_words": "Jars & labels", "layer": {"look": {"radius": 9}}}
    assert ada.post("/api/stores/sample/exceptions", json=wish, headers=version()).status_code == 200
    assert change(reach_words="Jars & labels, on phones").json()["undo_label"] == (
        "Jars: Jars & labels → Jars & labels, on phones"
    )
    assert change(on=False).status_code == 200
    problem(change(starts_on="2026-05-02", ends_on="2026-05-01"), 422, "bad_document")
    assert change(ends_on="2001-01-01").status_code == 200
    (listed,) = ada.get("/api/stores/sample/exceptions").json()
    assert (listed["on"], listed["inactive"], listed["ends_on"]) == (False, "switched off", "2001-01-01")
    assert change(on=True, ends_on=None).status_code == 200
    effects = ada.get("/api/stores/sample/exceptions/e1/effects").json()
    assert (effects["products"], len(effects["changes"])) == (8, 4)
    assert effects["changes"][0]["fields"][0] == {
        "path": "look.radius", "field": "corner radius", "before": "4", "after": "9",
    }  # fmt: skip
    problem(ada.get("/api/stores/sample/exceptions/e7/effects"), 404, "not_found")


def test_texts_go_out_and_come_in_as_po(ada: TestClient) -> None:
    def version() -> dict[str, str]:
        return {"If-Match": str(ada.get("/api/stores/sample/draft").json()["version"])}

    problem(ada.get("/api/stores/sample/texts/de-DE.po"), 422, "out_of_range")
    assert ada.put("/api/stores/sample/languages", json={"more": ["de-DE"]}, headers=version()).status_code == 200
    problem(ada.put("/api/stores/sample/languages", json={"more": ["xx-QQ"]}, headers=version()), 422, "out_of_range")
    po = ada.get("/api/stores/sample/texts/de-DE.po").text
    done = po.replace('msgid "Buy"\nmsgstr ""', 'msgid "Buy"\nmsgstr "Kaufen"')
    at = "/api/stores/sample/texts/de-DE"
    tried = ada.post(f"{at}?dry_run=true", content=done.encode(), headers=version()).json()
    assert [(c["layer"], c["moment"], c["after"]) for c in tried["changes"]] == [("baseline", "ready", "Kaufen")]
    assert ada.post(at, content=done.encode(), headers=version()).json()["applied"] is True
    words = ada.get("/api/stores/sample/words?language=de-DE").json()
    assert words["rows"][0]["cells"][0]["text"] == "Kaufen"
    problem(ada.post(at, content=b"nothing", headers=version()), 422, "bad_texts")


def test_search_finds_products_exceptions_and_findings(ada: TestClient) -> None:
    edit(ada, "baseline", {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}})
    found = ada.get("/api/stores/sample/search?text=hive").json()
    assert {finding["kind"] for finding in found} == {"product"}
    assert found[0]["title"].startswith("Hive")
    assert [match["kind"] for match in ada.get("/api/stores/sample/search?text=words at rest").json()] == ["finding"]
    assert ada.get("/api/stores/sample/search?text= ").json() == []


def test_pages_carry_the_headers_that_keep_others_out(stranger: TestClient) -> None:
    answer = stranger.get("/health")
    assert "default-src 'self'" in answer.headers["content-security-policy"]
    assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_health_tells_how_full_the_engine_is(ada: TestClient, stranger: TestClient) -> None:
    assert ada.get("/api/stores/sample/findings").status_code == 200
    told = stranger.get("/health").json()["engine"]
    assert told["stores"] >= 1
    assert 0 < told["bytes"] <= told["most_bytes"]


def test_files_outside_the_studio_are_not_served(stranger: TestClient) -> None:
    for path in ("/..%2f..%2fpyproject.toml", "/%2e%2e/%2e%2e/etc/passwd", "/assets/../../../pyproject.toml"):
        assert b"[project]" not in stranger.get(path).content
        assert b"root:" not in stranger.get(path).content
    assert stranger.get("/shop-fonts/nothing.woff2").status_code == 404


def test_the_store_tells_its_one_line_and_what_its_buttons_can_be_made_of(ada: TestClient) -> None:
    info = ada.get("/api/stores/sample").json()
    edge = Environment().edge_origin
    assert info["snippet"] == f'<script async src="{edge}/s/sample/up.js"></script>'
    assert info["product_count"] == 60
    found = ada.get("/api/stores/sample/products", params={"text": "smoker"}).json()
    assert found["total"] == len(found["products"]) > 0
    assert ada.get("/api/stores/sample/products").json()["total"] == 60
    assert ada.get("/api/stores/sample/findings/progress").json() == {"done": 0, "of": 0}
    assert {font["family"] for font in info["fonts"]} == {"figtree", "lora", "archivo"}
    file = info["font_files"][0]["file"]
    assert ada.get(f"/shop-fonts/{file}").content[:4] == b"wOF2"
    assert "properties" in ada.get("/api/stores/sample/schema").json()


def version_of(client: TestClient) -> dict[str, str]:
    return {"If-Match": f'"{client.get("/api/stores/sample/draft").json()["version"]}"'}


def test_an_edit_is_tried_without_being_kept(ada: TestClient) -> None:
    at = "/api/stores/sample/draw/product_page"
    body = {"layer": "place:product_page", "patch": {"look": {"radius": 33}}}
    tried = ada.post(f"{at}/try", json=body)
    assert tried.json()["document"]["look"]["radius"] == 33
    assert ada.get(at).json()["document"]["look"]["radius"] == 4
    manifest = ada.post("/api/stores/sample/draft/manifest", json=body)
    assert "border-radius:33px" in manifest.text
    assert "border-radius:33px" not in ada.get("/api/stores/sample/draft/manifest").text
    assert "basket" not in manifest.json()
    wrong = {**body, "patch": {"look": {"radius": "wide"}}}
    problem(ada.post(f"{at}/try", json=wrong), 422, "bad_document")


def test_looks_are_kept_used_brought_and_given_up(ada: TestClient) -> None:
    at = "/api/stores/sample"
    kept = ada.post(f"{at}/draw/product_page/keep", json={"name": "Plain", "used_by": "place:product_page"},
                    headers=version_of(ada))  # fmt: skip
    assert kept.status_code == 200, kept.text
    assert ada.get(f"{at}/looks").json()["looks"][0]["used_by"] == ["Product page"]
    bring = {"kind": "start", "value": "coin", "layer": "place:strip", "parts": ["icon"]}
    shown = ada.post(f"{at}/draw/strip/bring", json=bring).json()
    assert [change["path"] for change in shown["changes"]] == ["icon"]
    done = ada.post(f"{at}/draw/strip/carry", json=bring, headers=version_of(ada))
    assert done.json()["document"]["icon"]["side"] == "alone"
    used = ada.put(f"{at}/looks/used", json={"layer": "place:strip", "look": "plain"}, headers=version_of(ada))
    assert used.status_code == 200
    assert ada.delete(f"{at}/looks/plain", headers=version_of(ada)).status_code == 200
    problem(ada.delete(f"{at}/looks/plain", headers=version_of(ada)), 404, "not_found")
    css = {"kind": "css", "value": "nothing", "layer": "place:strip"}
    problem(ada.post(f"{at}/draw/strip/bring", json=css), 422, "bad_css")
    tokens = {**css, "kind": "tokens"}
    problem(ada.post(f"{at}/draw/strip/bring", json=tokens), 422, "bad_tokens")


def test_icons_are_found_and_brought_cleaned(ada: TestClient) -> None:
    at = "/api/stores/sample"
    assert ada.get(f"{at}/icons", params={"text": "gift"}).json()[0]["name"] == "gift"
    svg = "<svg viewBox='0 0 24 24' onload='x()'><path d='M0 0h9v9z'/></svg>"
    read = ada.post(f"{at}/icons", json={"svg": svg, "name": "hook"}).json()
    assert read["left_out"] == ["the handler onload"]
    icon = {**read["icon"], "side": "before", "size_px": 20, "gap_px": 8}
    assert edit(ada, "baseline", {"icon": icon}).status_code == 200
    assert ada.get(f"{at}/draw/product_page").json()["shown"]["button"]["icon"]["paths"] == [
        {"d": "M0,0 L96,0 L96,96 Z"}
    ]
    problem(ada.post(f"{at}/icons", json={"svg": "<html/>"}), 422, "bad_icon")


def test_a_picture_is_kept_and_served_only_where_it_belongs(ada: TestClient, wiring: Wiring) -> None:
    out = io.BytesIO()
    Image.new("RGB", (40, 20), "#222222").save(out, "PNG")
    at = "/api/stores/sample"
    octets = {"Content-Type": "application/octet-stream"}
    kept = ada.post(f"{at}/pictures", content=out.getvalue(), params={"name": "night"}, headers=octets)
    assert kept.status_code == 200, kept.text
    digest = kept.json()["hash"]
    served = ada.get(f"{at}/pictures/{digest}")
    assert (served.headers["content-type"], "immutable" in served.headers["cache-control"]) == ("image/png", True)
    assert ada.get(f"{at}/looks").json()["pictures"][0]["name"] == "night"
    fill = {"kind": "picture", "picture": digest, "scrim": {"colour": "#000000", "opacity": 0.6}}
    assert edit(ada, "baseline", {"look": {"fill": fill}}).status_code == 200
    problem(ada.get(f"{at}/pictures/{'0' * 16}"), 404, "not_found")
    problem(ada.post(f"{at}/pictures", content=b"no picture", headers=octets), 422, "bad_picture")


def test_the_brand_and_the_written_look(ada: TestClient) -> None:
    at = "/api/stores/sample"
    seeds = {"seeds": [{"name": "honey", "colour": "#d99a2b"}]}
    assert ada.put(f"{at}/brand", json=seeds, headers=version_of(ada)).status_code == 200
    assert ada.get(f"{at}/looks").json()["ramps"][0]["name"] == "honey"
    tokens = ada.get(f"{at}/draw/product_page/written", params={"form": "tokens"})
    assert tokens.headers["content-type"].startswith("application/design-tokens+json")
    assert tokens.json()["brand"]["honey"]["$value"]["hex"] == "#d99a2b"
    assert ada.get(f"{at}/draw/product_page/written").text.startswith("A button, filled")
    problem(ada.get(f"{at}/draw/product_page/match"), 422, "bad_document")


def test_the_studio_may_frame_shops_and_nobody_frames_the_studio(stranger: TestClient, wiring: Wiring) -> None:
    policy = stranger.get("/health").headers["content-security-policy"]
    assert f"frame-src 'self' https: {wiring.environment.practice_origin}" in policy
    assert "frame-ancestors 'none'" in policy


WRITES = [
    ("post", "/release", {}),
    ("post", "/release/1/take-back", {}),
    ("post", "/trials", {"question": "Rounder?", "reach": {"placements": ["product_page"]}}),
    ("patch", "/trials/1", {"question": "Rounder still?"}),
    ("post", "/trials/1/start", {}),
    ("post", "/trials/1/keep-b", None),
    ("post", "/trials/1/close", None),
]


@pytest.mark.parametrize(("method", "path", "body"), WRITES)
def test_nothing_is_released_or_tried_that_nobody_has_seen(
    ada: TestClient, method: str, path: str, body: dict[str, Any] | None
) -> None:
    release(ada)
    wish = {"question": "Rounder?", "reach": {"placements": ["product_page"]}, "layer": {"look": {"radius": 20}}}
    assert ada.post("/api/stores/sample/trials", json=wish, headers={"If-Match": '"1"'}).status_code == 201
    # Bob's changes have come between.
    edit(ada, "baseline", {"look": {"radius": 9}})
    change = {"question": "Rounder, really?"}
    assert ada.patch("/api/stores/sample/trials/1", json=change, headers=seen(ada, 1)).status_code == 200
    for stale in ({"If-Match": '"99"'}, {"If-Match": "*"}, {"If-Match": '"٣"'.encode()}, {}):
        problem(ada.request(method, f"/api/stores/sample{path}", json=body, headers=stale), 412, "stale")
    assert [r["n"] for r in ada.get("/api/stores/sample/release").json()["ledger"]] == [1]
    assert ada.get("/api/stores/sample/trials/1").json()["trial"]["question"] == "Rounder, really?"


def test_every_change_of_a_store_asks_which_version_was_seen() -> None:
    """Uploads, readings and looks compare nothing; undo and redo take back one's own step, whatever others have done.

    A connection is compared by what it was.
    """
    free = {
        "/catalogue", "/catalogue/preview", "/draft/undo", "/draft/redo", "/draft/manifest", "/icons", "/pictures",
        "/reach", "/draw/{placement}/try", "/draw/{placement}/bring",
        "/connection/read", "/connection/try", "/connection", "/pages",
        "/places/point", "/places/survey", "/places/along", "/places/manifest", "/places/study", "/addresses",
        "/catalogue/collect", "/outside",
    }  # fmt: skip
    lacking = [
        f"{method} {path}"
        for path, operations in openapi.described()["paths"].items()
        for method, operation in operations.items()
        if path.startswith("/api/stores/") and method != "get"
        and path.removeprefix("/api/stores/{store}") not in free
        and not any(p["name"].lower() == "if-match" for p in operation.get("parameters", ()))
    ]  # fmt: skip
    assert lacking == []


@pytest.mark.parametrize(
    ("origin", "host"),
    [
        # The studio's address as it was set, whatever the proxy asks for.
        ("https://buttons.example", "10.0.0.7:8800"),
        # The host that was asked; the proxy that ends TLS has changed the scheme only.
        ("https://studio.test", "studio.test"),
    ],
)
def test_a_change_is_taken_behind_a_proxy_that_ends_tls(wiring: Wiring, origin: str, host: str) -> None:
    account._limiter.storage.reset()
    parts = replace(wiring.studio_parts(), studio_origin="https://buttons.example")
    with TestClient(
        create_app(parts), base_url="http://inside.test", headers={"Origin": origin, "Host": host}
    ) as client:
        answer = client.post("/api/session", json={"email": EMAIL, "password": PASSWORD})
        assert answer.status_code == 200
        assert "secure" in answer.headers["set-cookie"].lower()
        problem(client.post("/api/session", json={}, headers={"Origin": "https://evil.test"}), 403, "wrong_origin")


def test_one_person_is_not_guessed_at_from_many_places_nor_many_from_one(wiring: Wiring) -> None:
    def tries(of: list[tuple[str, str]]) -> list[int]:
        account._limiter.storage.reset()
        app = create_app(replace(wiring.studio_parts(), verify=lambda password, stored: False))
        answers = []
        for caller, email in of:
            with TestClient(app, base_url=HERE, headers={"Origin": HERE}, client=(caller, 1)) as client:
                answers.append(client.post("/api/session", json={"email": email, "password": "x"}).status_code)
        return answers

    assert tries([(f"10.0.0.{n}", EMAIL) for n in range(61)])[-2:] == [401, 429]
    assert tries([("10.0.0.1", f"p{n}@example.test") for n in range(41)])[-2:] == [401, 429]


def test_guesses_that_are_looked_at_side_by_side_have_no_more_room_than_one_after_the_other(wiring: Wiring) -> None:
    account._limiter.storage.reset()
    many = 24
    together = Barrier(many)
    looked_at: list[str] = []

    def verify(password: str, stored: str) -> bool:
        looked_at.append(password)
        # Long enough that all others have come.
        sleep(0.3)
        return False

    def guess(_: int) -> int:
        with TestClient(app, base_url=HERE, headers={"Origin": HERE}, client=("10.0.0.1", 1)) as client:
            together.wait(20)
            return client.post("/api/session", json={"email": EMAIL, "password": "x"}).status_code

    app = create_app(replace(wiring.studio_parts(), verify=verify))
    with ThreadPoolExecutor(many) as threads:
        answers = Counter(threads.map(guess, range(many)))
    assert answers == {401: 8, 429: many - 8}
    assert len(looked_at) == 8
    assert not account._under_way


def test_a_body_is_refused_as_soon_as_it_is_too_large(ada: TestClient) -> None:
    read = 0

    def endless() -> Iterator[bytes]:
        nonlocal read
        for _ in range(500):
            read += 1
            yield b" " * 100_000

    # Claimed, and not claimed: no more is read than is taken.
    problem(ada.post("/api/stores/sample/reach", content=b" " * 1_000_001), 413, "too_large")
    problem(ada.post("/api/stores/sample/reach", content=endless()), 413, "too_large")
    too_much = b"x" * 8_000_001
    problem(ada.post("/api/stores/sample/pictures", content=too_much), 413, "too_large")


def test_a_file_is_read_before_a_store_is_opened_and_only_from_who_may(
    wiring: Wiring, monkeypatch: pytest.MonkeyPatch
) -> None:
    account._limiter.storage.reset()
    opened: list[str] = []
    parts = wiring.studio_parts()

    @contextmanager
    def told(store: str) -> Iterator[Any]:
        opened.append("store")
        with parts.open_visit(store) as visit:
            yield visit

    def slow() -> Iterator[bytes]:
        for _ in range(3):
            opened.append("piece")
            yield b"sku,name\n"

    app = create_app(replace(parts, open_visit=told))
    with TestClient(app, base_url=HERE, headers={"Origin": HERE}) as client:
        problem(client.post("/api/stores/sample/catalogue", content=b"x"), 401, "not_signed_in")
        assert opened == []
        client.post("/api/session", json={"email": EMAIL, "password": PASSWORD})
        client.post("/api/stores/sample/catalogue/preview", content=slow())
        # Once for the products that there are, once for what the file would do.
        assert opened == ["piece"] * 3 + ["store"] * 2


def test_a_fault_is_a_plain_problem_whose_id_is_in_the_log(wiring: Wiring, capsys: pytest.CaptureFixture[str]) -> None:
    @contextmanager
    def broken() -> Iterator[Any]:
        raise RuntimeError("out of shelves " * 100)
        yield

    app = create_app(replace(wiring.studio_parts(), open_accounts=broken))
    with TestClient(app, base_url=HERE, headers={"Origin": HERE}) as client:
        told = problem(client.get("/api/session"), 500, "fault")
    log = capsys.readouterr().out
    assert told["id"] in log
    assert "Traceback" not in log
    assert len(log) < 1000


def test_what_signs_cookies_must_be_there_and_hard_to_guess() -> None:
    with pytest.raises(errors.NotSetUp, match="at least 32 characters"):
        Wiring(Environment(secret=SecretStr(""))).studio_parts()
    with pytest.raises(errors.NotSetUp, match="it has 5"):
        Wiring(Environment(secret=SecretStr("short"))).edge_parts()
    assert "short" not in repr(Environment(secret=SecretStr("short")))
