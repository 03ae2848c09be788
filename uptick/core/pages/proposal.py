"""A connection proposed from a product's page: its form, its link, or the call in its script."""

import json
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from uptick.core.pages.page_read import FormField, FormRead, PageRead
from uptick.core.shop.connection import (
    BasketConnection,
    BasketJson,
    BasketLink,
    BasketPage,
    BasketRead,
    FormPost,
    JsonCall,
    TokenSource,
)

# Words by which forms, fields and addresses of baskets are usually called; common practice.
_ADD = re.compile(r"add|buy|put|take|cart|basket|bag|korb|kauf|panier|cesta|carrello|koszyk|mand", re.IGNORECASE)
_QUANTITY = re.compile(r"qty|quant|amount|pieces|count|menge|anzahl|nombre|cantidad|aantal|ilosc", re.IGNORECASE)
_PRODUCT = re.compile(r"product|sku|item|variant|article|artikel|goods|(^|[_\-])id$|^id", re.IGNORECASE)
_TOKEN = re.compile(r"csrf|xsrf|token|nonce|authenticity|forge|word$|form_key|_key$", re.IGNORECASE)
_ELSEWHERE = re.compile(r"search|newsletter|subscribe|login|signin|coupon|comment|contact", re.IGNORECASE)
_FETCH = re.compile(r"fetch\(\s*(['\"`])(?P<path>/[^'\"`]*)\1\s*,\s*(?=\{)")
_HEADER = re.compile(r"['\"](X-[A-Za-z0-9-]+)['\"]\s*:")
_KEY = re.compile(r"([{,]\s*)([A-Za-z_$][\w$]*)\s*:")


@dataclass(frozen=True, slots=True)
class Said:
    """One thing that was found out, as a sentence, and where it was read."""

    sentence: str
    where: str


@dataclass(frozen=True, slots=True)
class Proposal:
    """A connection with the sentences that say why; `connection` is None where the page shows no way to buy."""

    connection: BasketConnection | None
    said: tuple[Said, ...]
    unsure: tuple[str, ...]


def propose(
    page: PageRead, codes: Sequence[str], scripts: Iterable[str] = (), basket: PageRead | None = None
) -> Proposal:
    """Return how a page's basket is probably told "one more of this".

    Args:
        page: A product's page.
        codes: What the product is called: its code first, then whatever else names it.
        scripts: The texts of the page's own scripts, its inline ones among them.
        basket: The shop's basket page, where there is one.
    """
    read = _read_of(page, basket)
    form = _best_form(page.forms_that_buy, codes)
    if form is not None:
        return _by_form(form, codes, read)
    # A link names this very product; a script may be one for every page of the shop.
    proposal = _by_link(page, codes, read) or _by_script(page, scripts, read)
    if proposal:
        return proposal
    says = "The page has no form, no link and no call in its scripts that puts a product into a basket."
    return Proposal(None, (), (says,))


def _score(form: FormRead, codes: Sequence[str]) -> int:
    if _ELSEWHERE.search(form.action):
        return -1
    named = sum(3 for field in form.fields if field.value and field.value in codes)
    product = any(_PRODUCT.search(field.name) and field.is_hidden for field in form.fields)
    return (
        named
        + 2 * bool(_ADD.search(form.action))
        + bool(_ADD.search(form.words))
        + product
        + any(_QUANTITY.search(field.name) for field in form.fields)
        + (form.method == "post")
    )


def _best_form(forms: Sequence[FormRead], codes: Sequence[str]) -> FormRead | None:
    scored = [(_score(form, codes), -n, form) for n, form in enumerate(forms)]
    best = max(scored, default=None, key=lambda entry: entry[:2])
    return best[2] if best and best[0] >= 3 else None


def _by_form(form: FormRead, codes: Sequence[str], read: BasketRead | None) -> Proposal:
    grounds = [Said(f"A form sends to {form.action or 'the page itself'} by {form.method.upper()}.", "form")]
    unsure: list[str] = []
    product = _product_field(form, codes)
    if product is None:
        return Proposal(None, tuple(grounds), ("No field of its form says which product it is.",))
    if product.value in codes[:1]:
        grounds.append(Said(f"Its field “{product.name}” holds the product's code, {product.value}.", "form"))
    else:
        grounds.append(Said(f"Its field “{product.name}” holds the shop's own number, {product.value}.", "form"))
    quantity = next((f for f in form.fields if f is not product and _QUANTITY.search(f.name)), None)
    if quantity:
        grounds.append(Said(f"Its field “{quantity.name}” holds how many.", "form"))
    options = [f for f in form.fields if f.kind in {"select", "radio"} and f is not quantity and len(f.values) > 1]
    grounds += [Said(f"“{f.name}” is to be chosen: {', '.join(f.values[:4])}.", "form") for f in options]
    tokens = [f for f in form.fields if f.is_hidden and f is not product and _TOKEN.search(f.name)]
    grounds += [
        Said(f"“{f.name}” is a word against forged requests; it goes along with the form.", "form") for f in tokens
    ]
    if not form.action.startswith("/") and "://" not in form.action:
        unsure.append("The form names no address, so it sends to the page that it stands on.")
    return Proposal(
        FormPost(
            add_path=_path(form.action) or "/",
            product_field=product.name,
            option_fields=tuple(f.name for f in options),
            quantity_field=quantity.name if quantity else "",
            read=read,
            **_pages(read),
        ),
        (*grounds, *_said_of_read(read)),
        (*unsure, *_unsure_of_read(read)),
    )


def _product_field(form: FormRead, codes: Sequence[str]) -> FormField | None:
    hidden = [field for field in form.fields if field.value and (field.is_hidden or field.kind in {"text", "number"})]
    for code in codes:
        for field in hidden:
            if field.value == code:
                return field
    named = [f for f in hidden if f.is_hidden and _PRODUCT.search(f.name) and not _TOKEN.search(f.name)]
    return named[0] if named else None


def _by_link(page: PageRead, codes: Sequence[str], read: BasketRead | None) -> Proposal | None:
    for address, words in page.links:
        path = _path(address)
        code = next((code for code in codes if code and code in path), None)
        if code and _ADD.search(f"{path.replace(code, '')} {words}") and not path.endswith(f"/p/{code}"):
            pattern = path.replace(code, "{product}", 1)
            pattern = re.sub(r"([?&](?:n|qty|quantity|amount|count)=)\d+", r"\1{quantity}", pattern)
            grounds = (Said(f"A link, {path}, puts the product into the basket.", "link"), *_said_of_read(read))
            return Proposal(BasketLink(add_path=pattern, read=read, **_pages(read)), grounds, _unsure_of_read(read))
    return None


def _by_script(page: PageRead, scripts: Iterable[str], read: BasketRead | None) -> Proposal | None:
    for text in scripts:
        for fetch_call in _FETCH.finditer(text):
            options = _braces(text, fetch_call.end())
            body = _body_of(options)
            if body is None or (
                not _ADD.search(f"{fetch_call['path']} {json.dumps(body)}") and "{product}" not in json.dumps(body)
            ):
                continue
            grounds = [Said(f"A script sends JSON to {fetch_call['path']}.", "script")]
            token = _token_of(page, options)
            if token:
                grounds.append(
                    Said(f"It sends the page's “{token.source_name}” back as the header {token.sent_name}.", "script")
                )
            method = re.search(r"method\s*:\s*['\"](\w+)", options)
            call = JsonCall(
                add_path=fetch_call["path"],
                method=method[1].upper() if method and method[1].upper() in {"PUT", "PATCH"} else "POST",
                body=body,
                token=token,
                read=read,
                **_pages(read),
            )
            return Proposal(call, (*grounds, *_said_of_read(read)), _unsure_of_read(read))
    return None


def _braces(text: str, start: int) -> str:
    """Return what stands between the braces that open at a place, they among it; at most 2,000 characters."""
    depth = 0
    for at in range(start, min(len(text), start + 2000)):
        depth += {"{": 1, "}": -1}.get(text[at], 0)
        if depth == 0:
            return text[start : at + 1]
    return ""


def _body_of(options: str) -> dict[str, Any] | None:
    """Return a call's body as a pattern: a number becomes the quantity, what is worked out becomes the product."""
    at = options.find("JSON.stringify(")
    if at < 0:
        return None
    literal = _braces(options, options.index("{", at)) if "{" in options[at:] else ""
    quoted = _KEY.sub(r'\1"\2":', literal)
    quoted = re.sub(r":\s*([A-Za-z_$][\w$.?()\[\]]*)(?=\s*[,}\]])", lambda m: f': "{_hole(m[1])}"', quoted)
    quoted = re.sub(r":\s*(\d+)(?=\s*[,}\]])", ': "{quantity}"', quoted).replace("'", '"')
    try:
        body_read = json.loads(quoted)
    except ValueError:
        return None
    return body_read if isinstance(body_read, dict) and "{product}" in json.dumps(body_read) else None


def _hole(name: str) -> str:
    return "{quantity}" if _QUANTITY.search(name) else "{product}"


def _token_of(page: PageRead, options: str) -> TokenSource | None:
    header = _HEADER.search(options)
    meta = next((name for name in page.metas if _TOKEN.search(name)), None)
    if not header or not meta:
        return None
    return TokenSource(source="meta", source_name=meta, sent_as="header", sent_name=header[1])


def _path(address: str) -> str:
    return re.sub(r"^https?://[^/]+", "", address)


def _read_of(page: PageRead, basket: PageRead | None) -> BasketRead | None:
    path = page.basket_link
    if not path.startswith("/") or basket is None:
        return None
    selector = count_selector(basket)
    return BasketPage(path=path, selector=selector) if selector else None


_COUNTS = (
    "[data-basket-count]", "[data-cart-count]", ".basket-count", ".cart-count", ".bag-count", ".tally",
    "[class*=cart i] [class*=count i]", "[class*=basket i] [class*=count i]", "a[href*=basket] b", "a[href*=cart] b",
    "a[href*=cart] span", "a[href*=basket] span", "a[href*=bag] span", "a[href*=basket]", "a[href*=cart]",
)  # fmt: skip


def count_selector(page: PageRead) -> str:
    """Return a selector of the element that tells how much is in the basket; empty where none tells a number."""
    for selector in _COUNTS:
        if re.search(r"\d", page.words_at(selector) or ""):
            return selector
    return ""


def _pages(read: BasketRead | None) -> dict[str, Any]:
    return {"basket_path": read.path} if isinstance(read, BasketPage) else {}


def _said_of_read(read: BasketRead | None) -> tuple[Said, ...]:
    if isinstance(read, BasketPage):
        return (Said(f"The page {read.path} tells how much is in the basket, in “{read.selector}”.", "basket"),)
    if isinstance(read, BasketJson):
        return (Said(f"{read.path} tells as JSON what is in the basket.", "basket"),)
    return ()


def _unsure_of_read(read: BasketRead | None) -> tuple[str, ...]:
    if read is None:
        return ("No page tells how much is in the basket. Without that nobody can see whether a press came through.",)
    return ()
