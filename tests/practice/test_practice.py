"""The practice store by itself, and the model of its shoppers."""

import json
import re
from collections import Counter
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from scipy.stats import binomtest
from starlette.testclient import TestClient

from practice.app import create_app
from practice.goods import all_goods
from practice.shoppers import Rates, Wish, _covers, count_shoppers, deal, visits
from uptick.core.formats.catalogue_file import read_catalogue
from uptick.core.shop.signals import accept, parse_batch
from uptick.core.trial.assign import assign_version

START = datetime(2026, 2, 2, tzinfo=UTC)
RATES = {"A": Rates(0.4, 0.3, 0.1), "B": Rates(0.6, 0.5, 0.2)}
REACH = {"placements": ["product_page"], "products": [], "categories": [], "situations": []}
TRIAL: dict[str, Any] = {"id": "1", "running": True, "salt": "s", "shares": {"A": 5000, "B": 5000}, "reach": REACH}


def wish(days: float = 10, seed: int = 3, a_day: int = 80) -> Wish:
    return Wish(START, START + timedelta(days=days), a_day, seed, RATES)


@pytest.fixture
def shop() -> Iterator[TestClient]:
    with TestClient(create_app("http://edge.test", "thornmere", "http://shop.test", ":memory:")) as client:
        yield client


def schema_of(page: str) -> list[dict[str, Any]]:
    return [json.loads(s) for s in re.findall(r'<script type="application/ld\+json">(.*?)</script>', page, re.S)]


@pytest.mark.parametrize("path", ["/", "/c/everything", "/c/hives", "/p/HV-CEDAR", "/basket", "/checkout", "/shoppers"])
def test_every_page_stands_under_a_strict_policy(shop: TestClient, path: str) -> None:
    answer = shop.get(path)
    assert answer.status_code == 200
    policy = answer.headers["content-security-policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy


def test_up_tick_is_loaded_by_one_line_and_only_by_it(shop: TestClient) -> None:
    page = shop.get("/p/HV-NUC6").text
    assert page.count("edge.test") == 1
    assert '<script async src="http://edge.test/s/thornmere/up.js"></script>' in page
    assert "edge.test" not in shop.get("/p/HV-NUC6?without-snippet").text


def test_product_pages_describe_themselves_by_schema_org(shop: TestClient) -> None:
    for goods in all_goods().values():
        (page,) = schema_of(shop.get(f"/p/{goods.sku}").text)
        assert page["@context"] == "https://schema.org"
        told = page["@graph"][0]
        assert told["@type"] == ("ProductGroup" if goods.options else "Product")
        assert told["offers"].get("price") == (f"{goods.price:.2f}" if goods.price is not None else None)
        assert ("OutOfStock" in told["offers"]["availability"]) == goods.is_sold_out
        kinds = [kind["offers"] for kind in told.get("hasVariant", ())]
        assert [offer["price"] for offer in kinds] == [f"{goods.price_of(kind):.2f}" for kind in goods.options]
        gone = ["OutOfStock" in offer["availability"] for offer in kinds]
        assert gone == [goods.is_gone(kind) for kind in goods.options]


def test_a_line_is_kept_at_a_number_taken_out_and_put_back(shop: TestClient) -> None:
    shop.get("/")
    line = {"sku": "JV-SUIT", "option": "Extra large"}
    json_please = {"Accept": "application/json"}
    shop.post("/basket/add", data=line, headers=json_please)
    assert shop.post("/basket/set", data={**line, "qty": "3"}).json()["total"] == "312.00"
    assert shop.post("/basket/set", data={**line, "qty": "201"}).status_code == 409
    assert shop.post("/basket/set", data={**line, "qty": "0"}).json() == {"count": 0, "items": [], "total": "0.00"}
    assert shop.post("/basket/set", data={**line, "qty": "1"}).json()["count"] == 1
    gone = {"sku": "JV-JACKET", "option": "Small"}
    assert shop.post("/basket/add", data=gone, headers=json_please).status_code == 409


def test_a_shelf_runs_out_and_is_filled_again(shop: TestClient) -> None:
    line, json_please = {"sku": "TL-HOOK"}, {"Accept": "application/json"}
    shop.post("/shelf/TL-HOOK/empty")
    assert shop.post("/basket/add", data=line, headers=json_please).status_code == 409
    shop.post("/shelf/TL-HOOK/full")
    assert shop.post("/basket/add", data=line, headers=json_please).status_code == 200


def test_a_basket_becomes_an_order_whose_page_tells_its_lines(shop: TestClient) -> None:
    shop.get("/")
    accept_json = {"Accept": "application/json"}
    told = shop.post("/basket/add", data={"sku": "HV-NUC6", "qty": "2"}, headers=accept_json).json()
    (line,) = told.pop("items")
    assert told == {"count": 2, "total": "129.00"}
    assert (line["sku"], line["option"], line["quantity"], line["total"]) == ("HV-NUC6", "", 2, "129.00")
    assert (line["name"], line["page"]) == ("Six-frame nucleus box", "/p/HV-NUC6")
    assert shop.post("/basket/add", data={"sku": "TL-BRUSH"}, follow_redirects=False).headers["location"] == "/basket"
    assert shop.get("/basket", headers=accept_json).json()["count"] == 3
    thanks = shop.post("/checkout", data={"buyer": "A Shopper"})
    assert thanks.url.path.startswith("/thanks/")
    (order,) = schema_of(thanks.text)
    assert [o["itemOffered"]["sku"] for o in order["acceptedOffer"]] == ["HV-NUC6", "TL-BRUSH"]
    assert order["acceptedOffer"][0]["eligibleQuantity"]["value"] == 2
    assert shop.get("/basket", headers=accept_json).json()["count"] == 0
    shop.cookies.clear()
    assert shop.get(thanks.url.path).status_code == 404


@pytest.mark.parametrize("sku", ["NO-SUCH", "HV-CEDAR"])
def test_what_cannot_be_bought_is_refused(shop: TestClient, sku: str) -> None:
    shop.get("/")
    assert shop.post("/basket/add", data={"sku": sku}, headers={"Accept": "application/json"}).status_code == 409


def test_the_very_first_request_may_fill_a_basket_and_two_strangers_do_not_share_one(shop: TestClient) -> None:
    counts = []
    for _ in range(2):
        shop.cookies.clear()
        shop.post("/basket/add", data={"sku": "TL-SMOKER", "qty": "2"})
        counts.append(shop.get("/basket.json").json()["count"])
    assert counts == [2, 2]


def test_what_a_chat_sends_stands_in_the_shops_messages_as_text(shop: TestClient) -> None:
    sent = "About <b>A&B</b>\r\n100 %"
    assert "A&amp;B" in shop.get("/chat/442079460018", params={"text": sent}).text
    told = shop.get("/messages").text
    assert "To 442079460018" in told
    assert "About &lt;b&gt;A&amp;B&lt;/b&gt;" in told


def test_the_shops_catalogue_is_one_that_the_import_takes_whole() -> None:
    found = read_catalogue(Path("practice/catalogue.csv").read_bytes(), {}, "GBP").reading
    assert len(found.products) == 60
    assert found.refused == ()
    assert Counter(p.situation.value for p in found.products) == {
        "plain": 34, "choice": 10, "sold_out": 7, "set": 5, "pre_order": 4,
    }  # fmt: skip
    assert len({p.category for p in found.products}) == 8


def test_the_same_seed_gives_the_same_visits_and_another_seed_others() -> None:
    manifest = {"release": 3, "trials": [TRIAL]}
    one, again = list(visits(wish(), manifest)), list(visits(wish(), manifest))
    assert one == again
    assert one != list(visits(wish(seed=4), manifest))
    # Whoever neither looks at a list nor at a product sends nothing.
    assert 0.85 * count_shoppers(wish()) < len({v.shopper for v in one}) <= count_shoppers(wish())


def test_shoppers_do_what_the_true_rates_say_by_version() -> None:
    """Binomial tests at 0.001 with a fixed seed."""
    seen: dict[str, set[str]] = {"A": set(), "B": set()}
    did: dict[str, set[str]] = {"A": set(), "B": set()}
    for visit in visits(wish(60), {"trials": [TRIAL]}):
        letter = deal(TRIAL, visit.shopper)
        for event in visit.body["events"]:
            if event["place"] == "product_page" and event["kind"] == "shown":
                seen[letter].add(visit.shopper)
            if event["place"] == "product_page" and event["kind"] == "added":
                did[letter].add(visit.shopper)
    for letter, rate in (("A", 0.3), ("B", 0.5)):
        assert len(seen[letter]) > 1500
        assert binomtest(len(did[letter]), len(seen[letter]), rate).pvalue > 0.001, letter
    assert binomtest(len(seen["A"]), len(seen["A"]) + len(seen["B"])).pvalue > 0.001


def test_practice_shoppers_are_dealt_as_the_core_deals() -> None:
    for n in range(200):
        assert deal(TRIAL, f"ps-{n}") == assign_version("s", f"ps-{n}", {"A": 5000, "B": 5000})


def test_every_signal_of_theirs_is_believed() -> None:
    end = START + timedelta(days=10)
    for visit in visits(wish(), {"trials": []}):
        _, refused = accept(parse_batch(json.dumps(visit.body).encode()), end, is_practice=True)
        assert refused == []


def test_rates_that_do_not_fall_are_refused() -> None:
    with pytest.raises(ValueError, match="must fall"):
        Rates(0.2, 0.3, 0.1)


BAD_RUNS: list[tuple[dict[str, Any], str]] = [
    ({"end": START.isoformat()}, "end must come after"),
    ({"rates": {"A": {"clicked": 0.1, "added": 0.1, "ordered": 0.1}}}, "rates of A and of B"),
    ({"shoppers_per_day": 0}, "greater than or equal to 1"),
]


@pytest.mark.parametrize(("more", "says"), BAD_RUNS)
def test_a_run_that_cannot_be_says_why(shop: TestClient, more: dict[str, Any], says: str) -> None:
    rates = {"clicked": 0.4, "added": 0.3, "ordered": 0.1}
    body = {"start": START.isoformat(), "end": (START + timedelta(days=1)).isoformat(), "shoppers_per_day": 5,
            "seed": 1, "rates": {"A": rates, "B": rates}, **more}  # fmt: skip
    answer = shop.post("/shoppers/runs", json=body)
    assert answer.status_code == 422
    assert says in answer.text


def test_a_run_towards_an_edge_that_is_not_there_fails_by_name(shop: TestClient) -> None:
    rates = {"clicked": 0.4, "added": 0.3, "ordered": 0.1}
    body = {"start": START.isoformat(), "end": (START + timedelta(days=1)).isoformat(), "shoppers_per_day": 5,
            "seed": 1, "rates": {"A": rates, "B": rates}}  # fmt: skip
    number = shop.post("/shoppers/runs", json=body).json()["id"]
    for _ in range(200):
        told = shop.get(f"/shoppers/runs/{number}").json()
        if told["state"] != "running":
            break
    assert told["state"] == "failed"
    assert "did not answer" in told["says"]
    assert shop.get("/shoppers/runs/99").status_code == 404


@pytest.mark.parametrize(
    ("reach", "is_covered"),
    [
        ({}, True),
        ({"devices": ["phone"]}, True),
        ({"devices": ["desktop"]}, False),
        ({"situations": ["choice"]}, False),
        ({"languages": ["de-DE"]}, False),
        ({"shoppers": ["returning"]}, False),
        ({"not_products": ["TL-BRUSH"]}, False),
        ({"not_categories": ["Bees"]}, True),
    ],
)
def test_practice_shoppers_are_in_a_trial_where_the_scripts_would_be(
    reach: dict[str, list[str]], is_covered: bool
) -> None:
    assert _covers({"reach": reach}, "product_page", all_goods()["TL-BRUSH"], "phone") is is_covered
