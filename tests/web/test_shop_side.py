"""The connection and the live pages through the studio's API."""

from starlette.testclient import TestClient

from tests.samples import store
from tests.web.conftest import STORE

CONNECTION = store().connection.model_dump(mode="json")


def test_a_shop_that_does_not_answer_is_told_so_and_nothing_is_proposed(full_store: TestClient) -> None:
    told = full_store.post(f"{STORE}/connection/read", json={"product": "A1"}).json()
    assert told["proposal"]["connection"] is None
    assert told["proposal"]["unsure"] == ["It could not be reached."]
    tried = full_store.post(f"{STORE}/connection/try", json={"connection": CONNECTION, "product": "A1"}).json()
    assert (tried["result"], tried["why"]) == ("refused", "It could not be reached.")
    assert [step["request"] for step in tried["steps"]] == [f"GET {told['page']}"]


def test_a_page_elsewhere_and_an_unknown_product_are_refused(full_store: TestClient) -> None:
    away = full_store.post(f"{STORE}/connection/read", json={"page": "https://elsewhere.example/p/1", "product": "A1"})
    assert away.status_code == 422
    assert "a path of the shop" in away.json()["detail"]
    assert full_store.post(f"{STORE}/connection/read", json={"product": "NO"}).status_code == 404


def test_a_connection_is_kept_only_instead_of_the_one_that_was_seen(full_store: TestClient) -> None:
    other = {**CONNECTION, "add_path": "/cart/add"}
    body = {"connection": other, "instead_of": CONNECTION}
    kept = full_store.put(f"{STORE}/connection", json=body)
    assert kept.json()["connection"]["add_path"] == "/cart/add"
    assert full_store.get(STORE).json()["store"]["connection"]["add_path"] == "/cart/add"
    again = full_store.put(f"{STORE}/connection", json=body)
    assert again.status_code == 412
    assert full_store.put(f"{STORE}/connection", json={"connection": CONNECTION, "instead_of": other}).is_success


def test_a_pattern_with_an_unknown_hole_is_refused_with_those_that_there_are(full_store: TestClient) -> None:
    link = {"kind": "basket_link", "add_path": "/take/{sku}"}
    told = full_store.put(f"{STORE}/connection", json={"connection": link, "instead_of": CONNECTION})
    assert told.status_code == 422
    assert "{sku} is not known. Allowed are {product}, {quantity}, {option}" in told.text


def test_a_look_at_the_pages_is_kept_and_stands_in_the_ledger(full_store: TestClient) -> None:
    made = full_store.post(f"{STORE}/pages", json={"moment": "after"}).json()["report"]
    assert made["release"] == 1
    assert made["live"] == 0
    assert made["sentence"].startswith(f"seen live on 0 of {len(made['pages'])} kinds of page at ")
    assert full_store.get(f"{STORE}/pages").json()["report"] == made
    assert full_store.get(f"{STORE}/release").json()["ledger"][0]["seen"] == made["sentence"]
    assert full_store.get(f"{STORE}/pages?release=9").json()["report"] is None
