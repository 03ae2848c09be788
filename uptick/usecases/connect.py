"""Connecting a shop: its page is read, a connection proposed, and tried with one product."""

import json
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import quote

from uptick.core.errors import NotFound, OutOfRange
from uptick.core.pages import FormRead, PageRead, Proposal, Said, basket_addresses, json_read_of, plain_amount, propose
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketConnection, BasketJson, BasketLink, BasketPage, JsonCall
from uptick.core.shop.store import Store
from uptick.usecases.connect_verdict import Result, in_short, verdict
from uptick.usecases.visiting import Fetched, ShopRequest, ShopVisit

MOST_SCRIPTS = 12
MOST_JSON = 8
__all__ = [
    "BasketConnection",
    "Proposal",
    "Result",
    "Said",
    "Tried",
    "TriedStep",
    "example_of",
    "open_door",
    "page_of",
    "propose_connection",
    "trouble_of",
    "try_connection",
]
_OUT = re.compile(r"remove|empty|delete|clear|take out|leeren|entfernen|vider|supprimer|إفراغ", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class SentPart:
    """A field, a header or the body that was sent, as it may be shown."""

    name: str
    value: str


@dataclass(frozen=True, slots=True)
class TriedStep:
    """One request of a trial: what was asked, with what, and what came back."""

    what: str
    request: str
    sent: tuple[SentPart, ...]
    status: int
    answered: str
    took_ms: int


@dataclass(frozen=True, slots=True)
class Tried:
    """What came of putting one product into a basket. `why` and `to_do` are for people; None is an untold count.

    `better` is a way of reading the basket that tells its lines, where the tried one tells only how much is in it.
    """

    result: Result
    why: str
    to_do: str
    before: int | None
    after: int | None
    at_the_end: int | None
    steps: tuple[TriedStep, ...]
    better: BasketJson | None = None

    @property
    def was_taken_out(self) -> bool:
        return self.at_the_end is not None and self.at_the_end == self.before


def page_of(product: Product, store: Store) -> str:
    """Return the path of a product's page.

    Raises:
        OutOfRange: Its address is not one of the store's own.
    """
    url = product.url
    for origin in store.origins:
        if url.startswith(f"{origin}/"):
            return url[len(origin) :]
    if url.startswith("/"):
        return url
    # A catalogue may name the shop by another address than the one that it is reached at.
    path = re.sub(r"^https?://[^/]+", "", url)
    if not path.startswith("/"):
        raise OutOfRange.of("the product's address", f"a page of {store.origin}", url or "empty")
    return path


def example_of(products: Sequence[Product], code: str = "") -> Product:
    """Return the product to try with: the one that is named, else one in stock without a choice.

    Raises:
        NotFound: There is none.
    """
    if code:
        known = next((p for p in products if p.sku == code), None)
        if known is None:
            raise NotFound(f"There is no product {code!r} in the catalogue.", product=code)
        return known
    ready = [p for p in products if p.stock > 0 and p.price_minor is not None and p.url]
    for product in (*(p for p in ready if not p.option_values), *ready):
        return product
    raise NotFound("The catalogue has no product in stock to try with. Import a catalogue, or name a product.")


def propose_connection(visit: ShopVisit, path: str, codes: Sequence[str]) -> tuple[Proposal, Fetched]:
    """Read a product's page, its scripts and the basket's page, and return what they show."""
    page = visit.fetch(path)
    if not page.is_ok:
        return Proposal(None, (), (trouble_of(page),)), page
    read = PageRead(page.text)
    if read.has_password_form and not read.forms_that_buy:
        return Proposal(None, (), ("The page asks for a password. Open it, or give a page that is open.",)), page
    scripts = [*read.inline_scripts, *_scripts(visit, read)]
    link = read.basket_link
    basket = visit.fetch(link) if link.startswith("/") else None
    return propose(read, codes, scripts, PageRead(basket.text) if basket and basket.is_ok else None), page


def open_door(visit: ShopVisit, path: str, password: str) -> bool:
    """Send the password that a page asks for; tell whether the page is open now. A visit keeps it, and nobody else."""
    page = visit.fetch(path)
    form = next((f for f in PageRead(page.text).forms if any(g.kind == "password" for g in f.fields)), None)
    if form is None:
        return page.is_ok
    fields = tuple((f.name, password if f.kind == "password" else f.value) for f in form.fields)
    visit.send(ShopRequest(form.action or path, form.method.upper(), fields), "text/html")
    return visit.fetch(path).is_ok


def _scripts(visit: ShopVisit, read: PageRead) -> Iterator[str]:
    own = [src for src in read.scripts if src.startswith("/") and not src.startswith("//")]
    for src in own[:MOST_SCRIPTS]:
        answer = visit.fetch(src, "text/javascript, */*")
        if answer.is_ok:
            yield answer.text


def trouble_of(page: Fetched) -> str:
    """Return why a page could not be used, as a sentence."""
    if page.trouble:
        return page.says
    if page.status in {401, 403}:
        return f"The page is closed ({page.status}): it asks for a password or lets no visitor of ours in."
    return f"The page answered {page.status}."


@dataclass(slots=True)
class _Trial:
    visit: ShopVisit
    connection: BasketConnection
    steps: list[TriedStep] = field(default_factory=list)

    def fetch(self, what: str, path: str, accept: str = "text/html") -> Fetched:
        answer = self.visit.fetch(path, accept)
        self._note(what, f"GET {path}", (), answer)
        return answer

    def send(self, what: str, request: ShopRequest, accept: str) -> Fetched:
        answer = self.visit.send(request, accept)
        sent = [*request.fields, *request.headers.items()]
        if request.json is not None:
            sent.append(("body", json.dumps(request.json, ensure_ascii=False)))
        self._note(what, f"{request.method} {request.path}", tuple(sent), answer)
        return answer

    def _note(self, what: str, request: str, sent: tuple[tuple[str, str], ...], answer: Fetched) -> None:
        shown = tuple(SentPart(name, _masked(value)) for name, value in sent)
        says = answer.says if answer.trouble else in_short(answer)
        self.steps.append(TriedStep(what, request, shown, answer.status, says, answer.took_ms))

    def count(self, what: str) -> int | None:
        read = self.connection.read
        if read is None:
            return None
        if isinstance(read, BasketPage):
            page = self.fetch(what, read.path)
            parsed = PageRead(page.text).words_at(read.selector) if page.is_ok else None
            number = re.search(r"\d+", parsed or "")
            return int(number[0]) if number else None
        answer = self.fetch(what, read.path, "application/json")
        parsed = _json(answer.text) if answer.is_ok else None
        lines = _part(parsed, read.items)
        if not isinstance(lines, list):
            return None
        whole = _part(parsed, read.count) if read.count else sum(_number(_part(line, read.quantity)) for line in lines)
        return _number(whole)


def try_connection(visit: ShopVisit, connection: BasketConnection, path: str, code: str) -> Tried:
    """Put one product into a basket by a connection, see the count rise, and take it out again.

    Args:
        path: The product's page.
        code: The product's code.
    """
    trial = _Trial(visit, connection)
    page = trial.fetch("the product's page", path)
    if not page.is_ok:
        return Tried(
            Result.REFUSED, trouble_of(page), "Give a page that is open.", None, None, None, tuple(trial.steps)
        )
    read = PageRead(page.text)
    form = _form_of(read, connection)
    before = trial.count("the basket before")
    answer = trial.send("one into the basket", _request(visit, connection, read, form, code), _accept(connection))
    after = trial.count("the basket after")
    result, why, to_do = verdict(connection, form, answer, before, after)
    better = None
    if result is Result.ADDED and not isinstance(connection.read, BasketJson):
        better = _json_read(visit, connection, read, form, code)
    at_the_end = after
    if after and (before is None or after > before):
        at_the_end = _take_out(trial)
    return Tried(result, why, to_do, before, after, at_the_end, tuple(trial.steps), better)


def _json_read(
    visit: ShopVisit, connection: BasketConnection, read: PageRead, form: FormRead | None, code: str
) -> BasketJson | None:
    """Look whether some address tells the basket as JSON, with the product that lies in it now."""
    field = form.field(connection.product_field) if form and connection.product_field else None
    codes = {code, field.value} if field and field.value else {code}
    product = next((product for product in read.products if product.sku == code), None)
    name, price = (product.name, plain_amount(product.price)) if product else ("", None)
    named = basket_addresses([*read.inline_scripts, *_scripts(visit, read)])
    basket = connection.basket_path
    around = (path.rpartition("/")[0] for path in named if path.count("/") > 1)
    # That a page answers as JSON by its ending or when it is asked so is common practice.
    tried = dict.fromkeys((basket, f"{basket.rstrip('/')}.json", *named, *around))
    for path in list(tried)[:MOST_JSON]:
        answer = visit.fetch(path, "application/json")
        answered = _json(answer.text) if answer.is_ok else None
        if way_read := json_read_of(path, answered, codes, 1, name, price):
            return way_read
    return None


def _form_of(read: PageRead, connection: BasketConnection) -> FormRead | None:
    name = connection.product_field
    with_field = [form for form in read.forms if name and form.field(name)]
    at = [form for form in with_field if form.action.endswith(connection.add_path)]
    return next(iter((*at, *with_field)), None)


def _accept(connection: BasketConnection) -> str:
    return "text/html" if isinstance(connection.read, BasketPage) else "application/json"


def _values(form: FormRead | None) -> list[tuple[str, str]]:
    """Return what a form would send with the first of every choice."""
    if form is None:
        return []
    return [(f.name, f.values[0] if f.values else f.value) for f in form.fields if f.kind not in {"checkbox", "file"}]


def _request(
    visit: ShopVisit, connection: BasketConnection, read: PageRead, form: FormRead | None, code: str
) -> ShopRequest:
    values = dict(_values(form))
    own = values.get(connection.product_field, "") if connection.product_field else ""
    values_by_name = {
        "product": own or code,
        "quantity": "1",
        "option": " / ".join(values.get(n, "") for n in connection.option_fields),
    }
    token = _token(visit, connection, read)
    headers = {}
    if connection.token and connection.token.sent_as == "header":
        headers[connection.token.sent_name] = token
    if isinstance(connection, JsonCall):
        body = _filled(connection.body, values_by_name, values)
        return ShopRequest(connection.add_path, connection.method, json=body, headers=headers)
    if isinstance(connection, BasketLink):
        return ShopRequest(_fill(connection.add_path, values_by_name, values, quote_values=True), headers=headers)
    values[connection.product_field] = values_by_name["product"]
    if connection.quantity_field:
        values[connection.quantity_field] = "1"
    if connection.token and connection.token.sent_as == "field":
        values.setdefault(connection.token.sent_name, token)
    return ShopRequest(connection.add_path, "POST", tuple(values.items()), headers=headers)


def _token(visit: ShopVisit, connection: BasketConnection, read: PageRead) -> str:
    token = connection.token
    if token is None:
        return ""
    if token.source == "meta":
        return read.metas.get(token.source_name, "")
    if token.source == "cookie":
        return visit.cookie(token.source_name)
    return read.attribute(f'input[name="{token.source_name}"]', "value")


def _fill(text: str, filling: dict[str, str], values: dict[str, str], *, quote_values: bool = False) -> str:
    def value(hole: re.Match[str]) -> str:
        name = hole[1].removesuffix(":number").removesuffix(":text")
        told_value = filling.get(name) if name in filling else values.get(name.removeprefix("field "), "")
        return quote(told_value or "", safe="") if quote_values else told_value or ""

    return re.sub(r"\{([^{}]*)\}", value, text)


def _filled(value: Any, filling: dict[str, str], values: dict[str, str]) -> Any:
    if isinstance(value, dict):
        return {key: _filled(inner, filling, values) for key, inner in value.items()}
    if isinstance(value, list):
        return [_filled(inner, filling, values) for inner in value]
    if not isinstance(value, str):
        return value
    text = _fill(value, filling, values)
    is_number = re.fullmatch(r"\{(quantity|[^{}]*:number)\}", value)
    return _number(text) if is_number and re.fullmatch(r"\d+", text) else text


def _take_out(trial: _Trial) -> int | None:
    """Press what the basket's page offers to take things out, and return what is in it then."""
    path = trial.connection.basket_path
    page = trial.fetch("the basket's page", path)
    read = PageRead(page.text) if page.is_ok else PageRead("")
    form = next((f for f in read.forms if _OUT.search(f"{f.action} {f.words}")), None)
    link = next((a for a, words in read.links if _OUT.search(f"{a} {words}") and a.startswith("/")), "")
    if form:
        request = ShopRequest(form.action or path, form.method.upper(), tuple(_values(form)))
        trial.send("out of the basket", request, "text/html")
    elif link:
        trial.fetch("out of the basket", link)
    return trial.count("the basket at the end")


def _masked(value: str) -> str:
    """Return a value as it may be shown: a long random word only by its beginning."""
    return f"{value[:4]}… ({len(value)} characters)" if re.fullmatch(r"[A-Za-z0-9+/=_\-.]{16,}", value) else value


def _json(text: str) -> Any:
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return None


def _part(of: Any, name: str) -> Any:
    for key in name.split(".") if name else ():
        of = of.get(key) if isinstance(of, dict) else None
    return of


def _number(value: Any) -> int:
    try:
        return int(value)
    except (TypeError, ValueError):
        return 0
