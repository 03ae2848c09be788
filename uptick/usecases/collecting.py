"""Reading a catalogue off a shop's own pages: its sitemap is walked, politely, and what its pages tell is collected."""

import json
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import urlsplit
from urllib.robotparser import RobotFileParser

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from uptick.core.errors import NotFound
from uptick.core.pages import PageRead
from uptick.core.shop.store import Store
from uptick.usecases.visiting import ShopVisit

# What one sitemap may hold (sitemaps.org, protocol 0.9), and how many of them are read.
MOST_PAGES = 50_000
MOST_SITEMAPS = 50
PAUSE_S = 0.2
AGENT = "UpTick-PageCheck"


@dataclass(slots=True)
class Collected:
    """What has been read until now. `odd` are pages that could not be read, with why."""

    done: int = 0
    of: int = 0
    products: dict[str, dict[str, Any]] = field(default_factory=dict)
    odd: list[tuple[str, str]] = field(default_factory=list)
    skipped: int = 0
    # What the newest page has told.
    fresh: list[dict[str, Any]] = field(default_factory=list)

    def as_jsonld(self) -> str:
        """Return the products as a catalogue in schema.org's JSON-LD."""
        graph = {"@context": "https://schema.org", "@graph": list(self.products.values())}
        return json.dumps(graph, ensure_ascii=False, indent=1)


def collect(visit: ShopVisit, store: Store, pause: Callable[[float], None] = time.sleep) -> Iterator[Collected]:
    """Walk a store's sitemap page by page; whoever iterates may stop at any time and keep what there is.

    Raises:
        NotFound: The store has no sitemap that can be read.
    """
    robots = _robots(visit)
    collected = Collected()
    pages: list[str] = []
    for address in _addresses(visit, store, robots):
        if urlsplit(address).path and robots.can_fetch(AGENT, address):
            pages.append(address)
        else:
            collected.skipped += 1
    collected.of = len(pages)
    wait = max(PAUSE_S, min(float(robots.crawl_delay(AGENT) or 0), 10.0))
    yield collected
    for address in pages:
        _read(visit, address, collected)
        collected.done += 1
        yield collected
        if collected.done < collected.of:
            pause(wait)


def _robots(visit: ShopVisit) -> RobotFileParser:
    robots = visit.fetch("/robots.txt", "text/plain")
    parser = RobotFileParser()
    # No file allows everything (RFC 9309, 2.3.1.3); one that cannot be had forbids everything (2.3.1.4).
    parser.parse(robots.text.splitlines() if robots.is_ok else [] if robots.status in range(400, 500) else
                 ["User-agent: *", "Disallow: /"])  # fmt: skip
    return parser


def _addresses(visit: ShopVisit, store: Store, robots: RobotFileParser) -> Iterator[str]:
    """Yield the pages that the sitemaps name, each once, as far as they are the store's own."""
    waiting = list(robots.site_maps() or [f"{store.origin}/sitemap.xml"])
    seen: set[str] = set()
    read = 0
    while waiting and read < MOST_SITEMAPS and len(seen) < MOST_PAGES:
        at = waiting.pop(0)
        read += 1
        answer = visit.fetch(at, "application/xml, text/xml")
        if not answer.is_ok:
            if read == 1:
                raise NotFound(f"The store has no sitemap: {at} answered {answer.says or answer.status}.")
            continue
        kind, places = _sitemap(answer.text)
        if kind == "sitemapindex":
            waiting += places
            continue
        for place in places:
            if place not in seen and place.startswith(tuple(f"{origin}/" for origin in store.origins)):
                seen.add(place)
                yield place


def _sitemap(text: str) -> tuple[str, list[str]]:
    """Return what kind of file it is and the addresses that it names; none where it is no sitemap."""
    try:
        root = fromstring(text.encode())
    except (ValueError, SyntaxError, DefusedXmlException):
        return "", []
    locations = [(tag.text or "").strip() for tag in root.iter() if tag.tag.rpartition("}")[2] == "loc"]
    return root.tag.rpartition("}")[2], [place for place in locations if place]


def _read(visit: ShopVisit, address: str, collected: Collected) -> None:
    page = visit.fetch(address)
    collected.fresh = []
    if not page.is_ok:
        collected.odd.append((address, page.says or f"It answered {page.status}."))
        return
    read = PageRead(page.text)
    if read.broken_schema:
        collected.odd.append((address, f"{read.broken_schema} of its scripts of JSON-LD cannot be read."))
    nodes = [node for node in read.product_nodes if node.get("sku") or node.get("productGroupID")]
    # A page's own product is told best by itself: a list that names it in passing does not replace it.
    for node in nodes:
        key = str(node.get("sku") or node.get("productGroupID"))
        if key not in collected.products or len(nodes) == 1:
            collected.products[key] = {"url": address, **node} if len(nodes) == 1 else node
            collected.fresh.append(collected.products[key])
