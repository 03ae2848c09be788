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


NEW = {
    "name": "Bees & Co.", "origin": "bees.example", "language": "de-DE", "currency": "EUR",
    "timezone": "Europe/Berlin", "says": "In den Korb",
}  # fmt: skip


def test_a_new_store_is_its_makers_own_and_can_be_drawn_at_once(full_store: TestClient) -> None:
    made = full_store.post("/api/stores", json=NEW)
    assert made.status_code == 201
    assert made.json()["origin"] == "https://bees.example"
    at = f"/api/stores/{made.json()['key']}"
    assert full_store.get(f"{at}/floor").is_success
    assert full_store.get(f"{at}/places").json() == {
        "places": {},
        "pages": [{"name": "front page", "path": "/", "product": ""}],
        "placements": ["product_page", "sticky_bar"],
    }
    assert made.json()["key"] in full_store.get("/api/session").json()["stores"]
    wrong = full_store.post("/api/stores", json={**NEW, "timezone": "Mars/Olympus"})
    assert wrong.status_code == 422
    assert "a time zone, as Europe/Berlin" in wrong.json()["detail"]


def test_further_addresses_are_kept_and_take_effect(full_store: TestClient) -> None:
    told = full_store.get(STORE).json()["store"]
    before = {
        "more_origins": told["more_origins"],
        "page_paths": {place: surface["page_path"] for place, surface in told["surfaces"].items()},
    }
    wish = {**before, "more_origins": ["m.shop.example"]}
    kept = full_store.put(f"{STORE}/addresses", json={"addresses": wish, "instead_of": before})
    assert kept.json()["more_origins"] == ["https://m.shop.example"]
    assert full_store.get(STORE).json()["store"]["more_origins"] == ["https://m.shop.example"]
    assert full_store.put(f"{STORE}/addresses", json={"addresses": wish, "instead_of": before}).status_code == 412


def test_a_shop_whose_sitemap_cannot_be_had_says_so_in_the_stream(full_store: TestClient) -> None:
    answer = full_store.post(f"{STORE}/catalogue/collect", json={})
    assert answer.is_success
    [line] = answer.text.splitlines()
    assert "has no sitemap" in line


def test_a_place_is_kept_told_and_taken_away_through_the_api(full_store: TestClient) -> None:
    version = full_store.get(f"{STORE}/draft").json()["version"]
    place = {"placement": "product_page", "selector": ".buy", "where": "after"}
    headers = {"If-Match": f'"{version}"'}
    kept = full_store.post(f"{STORE}/places", json={"place": place}, headers=headers)
    assert kept.is_success
    assert full_store.post(f"{STORE}/places", json={"place": place}, headers=headers).status_code == 412
    [(place_id, told)] = full_store.get(f"{STORE}/places").json()["places"].items()
    assert told["selector"] == ".buy"
    tried = full_store.post(f"{STORE}/places/manifest", json={"place": {**place, "where": "instead"}, "id": place_id})
    assert [place_kept["where"] for place_kept in tried.json()["pointed"]] == ["instead"]
    html = '<main><button class="buy" data-up-pointed>Buy</button></main>'
    asked = {"placement": "product_page", "path": "/p/x", "html": html}
    pointed = full_store.post(f"{STORE}/places/point", json=asked).json()
    assert pointed["choices"][0]["found"]["selector"] == ".buy"
    bad = full_store.post(f"{STORE}/places/survey", json={"place": {**place, "selector": "p["}, "pages": []})
    assert bad.is_success
    bad = full_store.post(
        f"{STORE}/places/survey", json={"place": {**place, "selector": "p["}, "pages": [{"path": "/", "html": html}]}
    )
    assert (bad.status_code, bad.json()["code"]) == (422, "bad_selector")
    gone = full_store.delete(f"{STORE}/places/{place_id}", headers={"If-Match": f'"{kept.json()["version"]}"'})
    assert gone.is_success


MEASURED = {
    "path": "/p/A1",
    "window": {"wide": 375, "high": 740},
    "page_high": 2000,
    "places": [
        {
            "placement": "product_page",
            "stands": True,
            "box": {"x": 16, "y": 500, "wide": 343, "high": 48},
            "room": {"x": 16, "y": 500, "wide": 343, "high": 48},
        }
    ],
    "stuck": [],
    "bar": {"high": 64},
}


def test_a_measured_page_is_worked_out_with_the_draft_and_with_an_edit(full_store: TestClient) -> None:
    at = f"{STORE}/places/along"
    sku = full_store.get(f"{STORE}/products").json()["products"][0]["sku"]
    asked = {"surveys": {"phone": MEASURED}, "product": sku}
    [phone] = full_store.post(at, json=asked).json()["devices"]
    assert [(lane["kind"], lane["spans"]) for lane in phone["along"]["lanes"]] == [
        ("own", [[0, 524]]),
        ("bar", [[548, 1260]]),
    ]
    edit = {"layer": "place:sticky_bar", "patch": {"bar": {"foot_px": 260}}}
    [tried] = full_store.post(at, json={**asked, "edit": edit}).json()["devices"]
    assert tried["along"]["lanes"][1]["spans"] == [[548, 1000]]
    # Nothing of it is kept, and without a product no bar stands.
    [again] = full_store.post(at, json={"surveys": {"phone": MEASURED}}).json()["devices"]
    assert [lane["kind"] for lane in again["along"]["lanes"]] == ["own"]
    refused = [
        ({"surveys": {}}, 422),
        ({"surveys": {"watch": MEASURED}}, 422),
        ({"surveys": {"phone": {**MEASURED, "page_high": -1}}}, 422),
        ({**asked, "product": "nothing"}, 404),
        ({**asked, "language": "tlh"}, 422),
        ({**asked, "edit": {"layer": "place:sticky_bar", "patch": {"bar": {"parts": ["name"]}}}}, 422),
    ]
    for body, status in refused:
        answer = full_store.post(at, json=body)
        assert answer.status_code == status, (body, answer.text)
        assert answer.json()["detail"]


def test_a_floating_button_is_added_by_its_layer_and_taken_away_with_it(full_store: TestClient) -> None:
    def change(patch: dict[str, object]) -> None:
        version = full_store.get(f"{STORE}/draft").json()["version"]
        headers = {"If-Match": f'"{version}"'}
        body = {"layer": "place:floating", "patch": patch}
        assert full_store.patch(f"{STORE}/draft", json=body, headers=headers).is_success

    def placements() -> list[str]:
        told: list[str] = full_store.get(f"{STORE}/places").json()["placements"]
        return told

    before = placements()
    assert full_store.get(f"{STORE}/draw/floating").status_code == 404
    change({"floating": {"corner": "top_end"}})
    assert placements() == [*before, "floating"]
    drawn = full_store.get(f"{STORE}/draw/floating").json()
    assert drawn["document"]["floating"]["corner"] == "top_end"
    floor = full_store.get(f"{STORE}/floor").json()
    assert [row["placement"] for row in floor["rows"]] == [*before, "floating"]
    manifest = full_store.get(f"{STORE}/draft/manifest").json()
    assert manifest["looks"][manifest["places"]["floating"]["looks"][""]]["floating"]["top"] is True
    change({"floating": None})
    assert placements() == before
    # Undone, it floats again.
    full_store.post(f"{STORE}/draft/undo")
    assert placements() == [*before, "floating"]


def test_a_study_is_kept_for_everybody_with_the_version_that_it_is_about(full_store: TestClient) -> None:
    assert full_store.get(f"{STORE}/places/study").json() == {"kept": None}
    line = {"name": "product page", "path": "/p/A1", "product": "A1", "device": "phone", "reach": 0.5, "findings": []}
    study = {"version": 1, "language": "en-GB", "took_ms": 12.5, "lines": [line]}
    made = full_store.put(f"{STORE}/places/study", json=study).json()["kept"]
    assert full_store.get(f"{STORE}/places/study").json()["kept"] == made
    assert made["study"]["lines"] == [{**line, "why": ""}]
    refused = full_store.put(f"{STORE}/places/study", json={**study, "lines": [{**line, "reach": 2}]})
    assert refused.status_code == 422
    assert full_store.put(f"{STORE}/places/study", json={**study, "lines": []}).status_code == 422
