"""Looks in and out: from CSS and design tokens, and as sentences, CSS, tokens or JSON."""

import json
import sys
from dataclasses import asdict
from enum import StrEnum
from pathlib import Path
from typing import Annotated

import typer

from uptick.cli.chromium import computed_by, find_chromium
from uptick.cli.common import HERE, StoreKey, open_shop, read_file
from uptick.cli.say import AsJson
from uptick.core.button.document import Placement
from uptick.core.button.fields import PARTS
from uptick.core.errors import BadCss, OutOfRange
from uptick.core.formats.css_in import read_css
from uptick.usecases.looks import Source, carry, write_look
from uptick.usecases.views.drawing import DrawQuery, document_at
from uptick.usecases.views.looks import CarryView, view_carry
from uptick.wiring import clock

app = typer.Typer(no_args_is_help=True, help="Looks in and out: CSS, design tokens, JSON.")
Product_ = Annotated[str, typer.Option("--product", help="The product's code; a plain one where none is given.")]
Place_ = Annotated[Placement, typer.Option("--place", help="Where the button stands.")]


class Form(StrEnum):
    """How a look can be written."""

    TEXT = "text"
    CSS = "css"
    TOKENS = "tokens"
    JSON = "json"


@app.command()
def take(
    form: Annotated[Form, typer.Argument(help="As sentences, CSS, design tokens, or the values as JSON.")] = Form.TEXT,
    place: Place_ = Placement.PRODUCT_PAGE,
    product: Product_ = "",
    store: StoreKey = "thornmere",
) -> None:
    """Write the look of a button to standard output."""
    with open_shop(store) as shop:
        text = write_look(shop, document_at(shop, DrawQuery(place, product or None)), form.value)
    print(text.rstrip("\n"))


@app.command()
def bring(
    file: Annotated[Path, typer.Argument(help="A CSS file, or design tokens as JSON; - for CSS from standard input.")],
    place: Place_ = Placement.PRODUCT_PAGE,
    product: Product_ = "",
    layer: Annotated[str, typer.Option("--layer", help="Which layer takes it, as exception:e3; the placement's.")] = "",
    selector: Annotated[str, typer.Option("--selector", help="Which of the selectors of CSS is the button.")] = "",
    markup: Annotated[str, typer.Option("--markup", help="The button as the page writes it, for a browser.")] = "",
    browser: Annotated[
        bool, typer.Option(help="Let an installed Chromium compute the CSS, where there is one.")
    ] = True,
    only: Annotated[str, typer.Option("--only", help="Only these parts, as fill,type,padding; all it has.")] = "",
    dry_run: bool = False,
    store: StoreKey = "thornmere",
    as_json: AsJson = False,
) -> None:
    """Give a button the look of a file, saying what that changes. Exits 1 when something was not understood."""
    source = _source(file, selector, markup, browser)
    with open_shop(store) as shop:
        query = DrawQuery(place, product or None, layer=layer or f"place:{place}")
        parts = [part.strip() for part in only.split(",") if part.strip()]
        there_are = list(view_carry(shop, query, query.layer or "", source, ()).parts)
        if unknown := [part for part in parts if part not in PARTS]:
            raise OutOfRange.of("--only", f"one of {', '.join(PARTS)}", unknown[0])
        if absent := [part for part in parts if part not in there_are]:
            raise OutOfRange.of("--only", f"something that the file has: {', '.join(there_are)}", absent[0])
        view = view_carry(shop, query, query.layer or "", source, parts or there_are)
        if view.changes and not dry_run:
            carry(shop, query.layer or "", source, parts or there_are, shop.drafts.read().version, HERE, clock())
    if as_json:
        kept = ("title", "parts", "left_out", "selectors", "changes")
        print(json.dumps({name: value for name, value in asdict(view).items() if name in kept}))
    else:
        _print(view, dry_run)
    if view.left_out:
        raise typer.Exit(1)


def _source(file: Path, selector: str, markup: str, browser: bool) -> Source:
    text = _read(file)
    if file.suffix == ".json":
        return Source("tokens", text)
    program = find_chromium() if browser else None
    if program is None:
        print("There is no Chromium here: read without a browser, one selector's own rules only", file=sys.stderr)
        if markup:
            raise OutOfRange.of("--markup", "used where an installed Chromium computes the CSS", markup)
        return Source("css", text, selector)
    # Bare declarations are those of a button without a name.
    css = text if "{" in text else f".button{{{text}}}"
    try:
        reading, _ = computed_by(program, css, markup, selector)
    except BadCss:
        if markup or selector not in read_css(css, selector).selectors:
            raise
        # A selector that says more than one button does: its own rules are all that can be read.
        print(f"{selector} is no button by itself: read without a browser, its own rules only", file=sys.stderr)
        return Source("css", css, selector)
    return Source("computed", reading)


def _read(file: Path) -> str:
    try:
        return read_file(file).decode()
    except UnicodeDecodeError as error:
        raise OutOfRange.of("the file", "text in UTF-8", f"{file}: byte {error.start}") from error


def _print(view: CarryView, dry_run: bool) -> None:
    for change in view.changes:
        print(f"{change.field}: {change.before} → {change.after}")
    for line in view.left_out:
        print(f"not understood: {line}")
    many = "1 value" if len(view.changes) == 1 else f"{len(view.changes)} values"
    print(f"{view.title}: {many} {'would change' if dry_run else 'changed'}, {len(view.left_out)} not understood")
