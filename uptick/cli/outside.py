"""Buttons for pages and mails that are not the shop's, on the command line."""

import base64
import json
import re
import sys
from collections.abc import Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer
from pydantic import ValidationError

from uptick.cli.common import HERE, StoreKey, open_shop, require_code
from uptick.cli.say import AsJson
from uptick.core.errors import OutOfRange
from uptick.core.outside.handed import MOST_PRODUCTS, Order, OutsideKind
from uptick.usecases.outside import OutsideButton, make_outside
from uptick.wiring import Environment, clock

app = typer.Typer()
_SCALES = (1, 2, 3)


@app.command()
def outside(
    product: Annotated[list[str], typer.Option(help="A product's code; several stand as a sheet.")],
    kind: Annotated[
        OutsideKind,
        typer.Option("--as", help="What is made: a link, a form, a picture, HTML for pages or mails, a code."),
    ] = OutsideKind.WEB,
    across: Annotated[int, typer.Option(help="How many stand in a row, from 1 to 4.")] = 1,
    drawn: Annotated[str, typer.Option(help="as_drawn, filled or outlined.")] = "as_drawn",
    campaign: Annotated[str, typer.Option(help="What presses are counted by besides their place.")] = "",
    language: Annotated[str, typer.Option(help="A language of the buttons; else the store's first.")] = "",
    leads: Annotated[str, typer.Option(help="Where a press leads: page or basket.")] = "page",
    out: Annotated[Path | None, typer.Option(help="A folder for the pictures, as SVG and PNG.")] = None,
    store: StoreKey = "thornmere",
    as_json: AsJson = False,
) -> None:
    """Print the code of buttons for pages and mails that are not the shop's; their links lead from then on."""
    for code in product:
        require_code(code)
    try:
        order = Order.model_validate({
            "products": product, "kind": kind, "across": across, "drawn": drawn, "campaign": campaign,
            "language": language or None, "leads": leads,
        })  # fmt: skip
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        name = str(first["loc"][0]) if first["loc"] else "order"
        allowed = {
            "products": f"at most {MOST_PRODUCTS} codes", "across": "1, 2, 3 or 4", "leads": "page or basket",
            "drawn": "as_drawn, filled or outlined", "campaign": "at most 60 characters",
            "language": "a language's code, as en or en-GB",
        }.get(name, first["msg"])  # fmt: skip
        raise OutOfRange.of(
            f"--{'product' if name == 'products' else name}", allowed, str(first.get("input", ""))
        ) from error
    with open_shop(store) as shop:
        handed_out = make_outside(shop, order, Environment().edge_origin, HERE, clock(), copied=True)
    if as_json:
        print(json.dumps(asdict(handed_out), default=str, ensure_ascii=False))
        return
    print(handed_out.code)
    for note in handed_out.notes:
        print(note, file=sys.stderr)
    if out:
        _keep(handed_out.buttons, out)


def _keep(buttons: Sequence[OutsideButton], folder: Path) -> None:
    for button in buttons:
        picture = button.picture
        if picture is None:
            raise OutOfRange.of("--out", "used with --as picture", str(folder))
        folder.mkdir(parents=True, exist_ok=True)
        # A code may hold anything, a way out of the folder too.
        name = f"{re.sub(r'[^A-Za-z0-9_-]+', '-', button.product.sku)}-{button.id}"
        (folder / f"{name}.svg").write_text(picture.svg)
        for scale, content in zip(_SCALES, picture.png, strict=True):
            (folder / f"{name}@{scale}x.png").write_bytes(base64.b64decode(content))
        print(f"{folder}/{name}.svg, and @1x, @2x, @3x as PNG", file=sys.stderr)
