"""Questions about the draft: what holds, why, and what is wrong."""

import json
import sys
from dataclasses import asdict
from typing import Annotated

import typer
from rich.console import Console
from rich.table import Table

from uptick.cli.common import StoreKey, open_shop, require_code
from uptick.cli.say import AsJson
from uptick.core.button.document import Device, Placement, ShopperKind
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.button.merge import leaves
from uptick.core.resolved.classes import class_for, context_of
from uptick.usecases.state import language_of, product_of

app = typer.Typer()
Product_ = Annotated[str, typer.Option("--product", help="The product's code.")]
Place_ = Annotated[Placement, typer.Option("--place", help="Where the button stands.")]
Language_ = Annotated[str, typer.Option("--language", help="As de-DE; the store's first where none is given.")]
Device_ = Annotated[Device, typer.Option("--device")]
Shopper_ = Annotated[ShopperKind, typer.Option("--shopper")]


@app.command()
def resolve(
    product: Product_,
    place: Place_ = Placement.PRODUCT_PAGE,
    language: Language_ = "",
    device: Device_ = Device.PHONE,
    shopper: Shopper_ = ShopperKind.NEW,
    store: StoreKey = "thornmere",
    as_json: AsJson = False,
) -> None:
    """The whole button of a product in a place: what holds there today, and the exceptions that cover it."""
    with open_shop(store) as shop:
        snapshot = shop.now()
        spoken = language_of(snapshot.settings, language or None)
        asked = product_of(snapshot, require_code(product))
        context = context_of(place, asked, None, device, spoken, shopper)
        document = class_for(snapshot, context).document.model_dump(mode="json")
        rules = tuple(snapshot.index.named(snapshot.index.of(context)))
    if as_json:
        print(json.dumps({"document": document, "exceptions": [rule.id for rule in rules]}))
        return
    table = Table(show_header=False, box=None, pad_edge=False)
    for path, value in leaves(document):
        if not path.startswith("wording.") or path.endswith(f".{spoken}"):
            table.add_row(field_title(path), value_text(value))
    Console().print(table)
    print("exceptions: " + (", ".join(f"{rule.name} ({rule.id})" for rule in rules) or "none"))


@app.command()
def trace(
    field: Annotated[str, typer.Argument(help="As look.radius or wording.ready.en-GB.")],
    product: Product_,
    place: Place_ = Placement.PRODUCT_PAGE,
    language: Language_ = "",
    device: Device_ = Device.PHONE,
    shopper: Shopper_ = ShopperKind.NEW,
    store: StoreKey = "thornmere",
    as_json: AsJson = False,
) -> None:
    """Why a value holds: the winner first, what it beat, what sleeps. Exits 1 when no layer sets it."""
    from uptick.usecases.views.why import TraceQuery, view_trace

    with open_shop(store) as shop:
        query = TraceQuery(place, field, require_code(product), device, language or None, shopper)
        traced = view_trace(shop, query, with_products=False)
    if as_json:
        lines = [{**asdict(line.of), "reach": line.reach_words} for line in traced.lines]
        print(json.dumps({"field": field, "product": traced.product.sku, "candidates": lines}, default=str))
    else:
        for n, line in enumerate(traced.lines, 1):
            note = f"  {line.of.note} ({line.of.author})" if line.of.note else ""
            mark = "x" if line.of.inactive else str(n)
            says = line.of.inactive or ("wins" if line.of.wins else "overridden")
            print(f"{mark}  {line.of.title}: {line.value_words}  [{says}]{note}")
    if not traced.lines:
        print(f"uptick: no layer sets {field} there.", file=sys.stderr)
        raise typer.Exit(1)


@app.command()
def check(
    store: StoreKey = "thornmere",
    all_: Annotated[bool, typer.Option("--all", help="Notes too.")] = False,
    as_json: AsJson = False,
) -> None:
    """Everything the checks find. Exits 1 when something must be fixed: a gate for a shop's own CI."""
    from uptick.core.checks import Weight, findings_of

    with open_shop(store) as shop:
        findings = findings_of(shop.now())
    if as_json:
        print(json.dumps([asdict(finding) for finding in findings]))
    else:
        for finding in findings:
            if all_ or finding.weight is not Weight.NOTE:
                print(f"{finding.weight.replace('_', ' ')}: {finding.title}. {finding.says}")
        counts = [
            f"{sum(finding.weight is weight for finding in findings)} {weight.replace('_', ' ')}" for weight in Weight
        ]
        print(", ".join(counts))
    if any(finding.weight is Weight.MUST_FIX for finding in findings):
        raise typer.Exit(1)
