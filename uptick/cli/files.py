"""Files in and out."""

import json
import sys
from collections.abc import Generator
from dataclasses import asdict
from enum import StrEnum
from pathlib import Path
from typing import Annotated, Literal

import typer
from rich.console import Console
from rich.progress import BarColumn, Progress, TextColumn

from uptick.cli.common import HERE, StoreKey, open_shop, read_file
from uptick.cli.say import AsJson
from uptick.core.formats.catalogue_file import write_csv
from uptick.core.formats.csv_dialect import SEPARATORS, EncodingName, ReadAs
from uptick.core.formats.jsonld import write_jsonld
from uptick.usecases import importing
from uptick.usecases.texts import export_texts, import_texts
from uptick.usecases.written import schema_of, write_readout, write_release
from uptick.wiring import clock

app = typer.Typer()
Language_ = Annotated[str, typer.Option("--language", help="As de-DE; the store's first where none is given.")]


@app.command("import")
def import_(
    file: Annotated[Path, typer.Argument(help="A CSV, JSON-LD or PO file, or - for standard input.")],
    store: StoreKey = "thornmere",
    dry_run: bool = False,
    whole: Annotated[bool, typer.Option("--whole", help="What a catalogue lacks is taken out.")] = False,
    really: Annotated[
        bool, typer.Option("--really", help="Also where it removes over a tenth of the products or empties a column.")
    ] = False,
    language: Annotated[str, typer.Option("--language", help="The file holds texts of this language, as PO.")] = "",
    encoding: Annotated[
        EncodingName | None, typer.Option("--encoding", help="In which a CSV file is; found out where none is given.")
    ] = None,
    decimal: Annotated[
        Literal[".", ","] | None, typer.Option("--decimal", help="What its prices have before the decimals.")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """Take a catalogue or translations in, saying what changed. Exits 1 when a line was refused."""
    content = read_file(file)
    if language:
        _import_texts(store, content, language, dry_run, as_json)
        return
    with open_shop(store) as shop:
        steps = importing.import_steps(
            shop, content, HERE, clock(), dry_run=dry_run, whole=whole, really=really, read_as=ReadAs(encoding, decimal)
        )
        report = importing.finish(_shown(steps, quiet=as_json or not sys.stderr.isatty()))
    if as_json:
        print(json.dumps(asdict(report)))
    else:
        _print_report(report, dry_run)
    if report.refused:
        raise typer.Exit(1)


def _shown(
    steps: Generator[importing.ImportProgress, None, importing.ImportReport], *, quiet: bool
) -> Generator[importing.ImportProgress, None, importing.ImportReport]:
    """Pass an import's steps on, drawn as a bar."""
    with Progress(TextColumn("products"), BarColumn(), console=Console(stderr=True), disable=quiet) as bar:
        task = bar.add_task("", total=1)
        while True:
            try:
                step = next(steps)
            except StopIteration as end:
                report: importing.ImportReport = end.value
                return report
            bar.update(task, completed=step.done, total=max(1, step.of))
            yield step


def _print_report(report: importing.ImportReport, dry_run: bool) -> None:
    if report.dialect:
        read = report.dialect
        print(f"read as {read.encoding}, divided by {SEPARATORS[read.separator]}, decimals after {read.decimal}")
    if report.columns:
        print(f"columns read: {', '.join(report.columns)}")
    for heading in report.ignored:
        print(f"column not understood, left out: {heading}")
    for warning in report.warnings:
        print(f"warning: {warning}{' It needs --really.' if dry_run else ''}")
    for change in report.new:
        print(f"line {change.line}: new {change.sku}")
    for change in report.changed:
        print(f"line {change.line}: changed {change.sku} ({', '.join(change.fields)})")
    for sku in report.missing:
        print(f"{'gone' if report.removed else 'not in the file'}: {sku}")
    for note in report.notes:
        print(f"line {note.line}: {note.reason}")
    for refusal in report.refused:
        print(f"line {refusal.line}: refused, {refusal.reason}")
    print(
        f"{report.counts.new} new, {report.counts.changed} changed, {report.counts.unchanged} unchanged, "
        f"{report.counts.missing} not in the file, {report.counts.refused} refused"
        + (" (nothing applied)" if dry_run else "")
    )


def _import_texts(store: str, content: bytes, language: str, dry_run: bool, as_json: bool) -> None:
    with open_shop(store) as shop:
        version = shop.drafts.read().version
        report = import_texts(shop, language, content, version, HERE, clock(), dry_run=dry_run)
    if as_json:
        print(json.dumps(asdict(report)))
    else:
        for change in report.changes:
            print(f"{change.title}, {change.moment}: {change.before or 'nothing'} → {change.after}")
        for refusal in report.refused:
            print(f"line {refusal.line}: refused, {refusal.reason}")
        print(f"{len(report.changes)} changed, {report.unchanged} unchanged, {len(report.refused)} refused")
    if report.refused:
        raise typer.Exit(1)


class Export(StrEnum):
    """What can be written out."""

    CSV = "csv"
    JSONLD = "jsonld"
    PO = "po"
    SETTINGS = "settings"
    RELEASE = "release"
    READOUT = "readout"
    SCHEMA = "schema"


@app.command()
def export(
    what: Annotated[
        Export,
        typer.Argument(
            help="csv or jsonld: the catalogue; po: texts; settings: the draft; release, readout, schema: as JSON."
        ),
    ],
    number: Annotated[int, typer.Argument(help="Of the release (the newest for 0) or of the trial.", min=0)] = 0,
    store: StoreKey = "thornmere",
    language: Language_ = "",
) -> None:
    """Write the catalogue, texts, settings, a release or a readout to standard output."""
    if what is Export.SCHEMA:
        print(json.dumps({"release": schema_of("release"), "readout": schema_of("readout")}, indent=1))
        return
    with open_shop(store) as shop:
        match what:
            case Export.CSV:
                text = write_csv(shop.catalogue.all())
            case Export.JSONLD:
                text = write_jsonld(shop.catalogue.all())
            case Export.PO:
                text = export_texts(shop, language or shop.store.language, clock())
            case Export.SETTINGS:
                text = shop.drafts.read().settings.model_dump_json(indent=1)
            case Export.RELEASE:
                text = write_release(shop, number)
            case _:
                text = write_readout(shop, number, clock())
    print(text.rstrip("\n"))
