"""Search over products, exceptions and findings; commands are the screens' own."""

from dataclasses import dataclass
from typing import Literal

from uptick.core.checks import findings_of
from uptick.usecases.ports import Shop


@dataclass(frozen=True, slots=True)
class Found:
    """One thing that was found; `id` is a product's code, an exception's id, or a finding's rule and title."""

    kind: Literal["product", "exception", "finding"]
    id: str
    title: str
    says: str


MOST = 8


def search(shop: Shop, text: str) -> tuple[Found, ...]:
    """Return what contains every word of a text, names that begin with it first; at most eight of a kind."""
    words = text.casefold().split()
    if not words:
        return ()
    snapshot = shop.now()
    settings = snapshot.settings
    products = [
        Found("product", p.sku, p.name, f"{p.sku}, {p.category}")
        for p in shop.catalogue.all()
        if all(word in f"{p.name} {p.sku} {p.category}".casefold() for word in words)
    ]
    rules = [Found("exception", r.id, r.name, r.note) for r in settings.exceptions]
    findings = findings_of(snapshot)
    told = [Found("finding", f"{f.rule}/{f.title}", f.title, f.says) for f in findings]
    others = [one for one in (*rules, *told) if all(word in f"{one.title} {one.says}".casefold() for word in words)]
    products.sort(key=lambda one: (not one.title.casefold().startswith(words[0]), one.title))
    kinds = {kind: [one for one in others if one.kind == kind][:MOST] for kind in ("exception", "finding")}
    return (*products[:MOST], *kinds["exception"], *kinds["finding"])
