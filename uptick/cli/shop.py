"""A shop's own pages: connecting it, and looking whether what was released is live."""

import json
from collections.abc import Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Annotated
from urllib.parse import quote

import typer
from rich.console import Console
from rich.progress import Progress
from rich.table import Table

from uptick.cli.common import HERE, StoreKey, open_shop, visit_shop
from uptick.cli.say import AsJson
from uptick.core.button.document import Device
from uptick.core.checks.finding import Weight
from uptick.core.errors import OutOfRange
from uptick.core.scroll.study import Study, StudyLine
from uptick.usecases import connect as connecting
from uptick.usecases.collecting import collect as collect_pages
from uptick.usecases.page_checks import PageCheck, PagesReport, check_pages, released_kinds, released_of
from uptick.usecases.page_lines import LineWeight
from uptick.usecases.pointing import PageToLookAt, pages_to_look_at
from uptick.usecases.state import language_of
from uptick.usecases.study import keep, study_page, worst_first
from uptick.wiring import Wiring, clock

app = typer.Typer()
Password = Annotated[str, typer.Option(help="The password that closes the shop, where one does.")]


@app.command()
def connect(
    store: StoreKey = "thornmere",
    product: Annotated[str, typer.Option(help="The product to try with; one in stock where none is named.")] = "",
    page: Annotated[str, typer.Option(help="The product's page, where the catalogue does not know it.")] = "",
    password: Password = "",
    keep: Annotated[bool, typer.Option(help="Try the store's own connection instead of a proposed one.")] = False,
    as_json: AsJson = False,
) -> None:
    """Read how the shop's basket is told, try it with one product, and take that out again."""
    with open_shop(store) as shop:
        known = shop.catalogue.all()
        of, connection = shop.store, shop.store.connection
    example = connecting.example_of(known, product) if known and not (page and product) else None
    code = product or (example.sku if example else "")
    if not (path := page or (connecting.page_of(example, of) if example else "")):
        raise OutOfRange.of("--page", "the path of a product's page, as /p/HV-CEDAR", "empty")
    grounds: tuple[connecting.Said, ...] = ()
    unsure: tuple[str, ...] = ()
    if not keep:
        with visit_shop(of) as visit:
            if password:
                connecting.open_door(visit, path, password)
            proposal, _ = connecting.propose_connection(visit, path, [code])
        grounds, unsure = proposal.said, proposal.unsure
        if proposal.connection is None:
            _tell(None, grounds, unsure, None, as_json)
            raise typer.Exit(1)
        connection = proposal.connection
    with visit_shop(of) as visit:
        if password:
            connecting.open_door(visit, path, password)
        tried = connecting.try_connection(visit, connection, path, code)
    _tell(connection, grounds, unsure, tried, as_json)
    if tried.result is not connecting.Result.ADDED:
        raise typer.Exit(1)


def _tell(
    connection: connecting.BasketConnection | None,
    grounds: tuple[connecting.Said, ...],
    unsure: tuple[str, ...],
    tried: connecting.Tried | None,
    as_json: bool,
) -> None:
    if as_json:
        answer = {
            "connection": connection.model_dump(mode="json", exclude_none=True) if connection else None,
            "said": [asdict(line) for line in grounds],
            "unsure": list(unsure),
            "tried": _as_json(tried) if tried else None,
        }
        print(json.dumps(answer, ensure_ascii=False))
        return
    for line in grounds:
        print(line.sentence)
    for text in unsure:
        print(f"Not sure: {text}")
    if tried is None:
        return
    table = Table("step", "asked", "sent", "status", "answered", box=None, pad_edge=False)
    for step in tried.steps:
        sent = ", ".join(f"{part.name}={part.value}" for part in step.sent)
        table.add_row(step.what, step.request, sent, str(step.status or "–"), step.answered[:80])
    Console().print(table)
    print(f"{tried.result.value}: {tried.why} {tried.to_do}".rstrip())
    if tried.better:
        print(f"Its lines can be read as JSON at {tried.better.path}: {tried.better.items}, by {tried.better.product}.")
    if tried.result is connecting.Result.ADDED:
        left = "It was taken out again." if tried.was_taken_out else "It could not be taken out again."
        print(left)


def _as_json(tried: connecting.Tried) -> dict[str, object]:
    better = tried.better.model_dump(mode="json") if tried.better else None
    return {**asdict(tried), "better": better, "was_taken_out": tried.was_taken_out}


@app.command()
def pages(store: StoreKey = "thornmere", password: Password = "", as_json: AsJson = False) -> None:
    """Look at one live page of every kind: whether our line, the release, places and products are there."""
    report = look(store, password, "asked")
    if as_json:
        print(json.dumps(report.as_json(), ensure_ascii=False))
    else:
        _print(report)
    if report.live < len(report.pages):
        raise typer.Exit(1)


def look(store: str, password: str, moment: str) -> PagesReport:
    """Look at one live page of every kind, and keep what was seen."""
    wiring = Wiring()
    edge = wiring.environment.edge_origin
    try:
        with wiring.open_shop(store) as shop:
            of, kinds, released = shop.store, released_kinds(shop), released_of(shop)
        with wiring.visit_shop(of) as visit, wiring.visit_edge(of) as edge_visit:
            if password:
                connecting.open_door(visit, "/", password)
            report = check_pages(of, released, kinds, visit, edge_visit, edge, clock())
        with wiring.open_shop(store) as shop:
            shop.side.add_look(report.release, moment, report.as_json(), report.made_at)
    finally:
        wiring.engine.dispose()
    return report


@app.command()
def collect(
    store: StoreKey = "thornmere",
    to: Annotated[Path, typer.Option(help="The file to write, - for the output.")] = Path("-"),
    password: Password = "",
) -> None:
    """Read the catalogue off the shop's own pages, by its sitemap, into a JSON-LD file that `uptick import` takes."""
    with open_shop(store) as shop:
        of = shop.store
    stderr = Console(stderr=True)
    collected = None
    with visit_shop(of) as visit, Progress(console=stderr) as progress:
        if password:
            connecting.open_door(visit, "/", password)
        task = progress.add_task("pages", total=None)
        try:
            for collected in collect_pages(visit, of):
                progress.update(task, completed=collected.done, total=collected.of)
        except KeyboardInterrupt:
            stderr.print("Stopped. What was read until here is written.")
    if collected is None:
        return
    text = collected.as_jsonld()
    print(text) if str(to) == "-" else to.write_text(text + "\n")
    for address, why in collected.odd[:20]:
        stderr.print(f"{address}: {why}")
    skipped = f", {collected.skipped} left out as its robots.txt asks" if collected.skipped else ""
    stderr.print(f"{len(collected.products)} products on {collected.done} of {collected.of} pages{skipped}.")
    if not collected.products:
        raise typer.Exit(1)


@app.command()
def study(
    store: StoreKey = "thornmere",
    language: Annotated[
        str, typer.Option(help="The language of the buttons; the store's first where none is said.")
    ] = "",
    password: Password = "",
    page: Annotated[
        list[str] | None, typer.Option(help="Only this page, by its path; may be given again. It is told, not kept.")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """Measure the draft along the shop's pages on a phone, a tablet and a desktop, and say what is wrong there."""
    from uptick.cli.measuring import windows

    wiring = Wiring()
    began = clock()
    lines: list[StudyLine] = []
    try:
        with wiring.open_shop(store) as shop:
            of, version, pages = shop.store, shop.drafts.read().version, _chosen(pages_to_look_at(shop), page)
            spoken = language_of(shop.drafts.read().settings, language or None)
        more = f"lang={quote(spoken)}&up-draft={quote(wiring.preview_token(store))}"
        with windows() as opened, Progress(console=Console(stderr=True)) as progress:
            if password:
                opened.enter(f"{of.origin}{pages[0].path}", password)
            for at in progress.track(pages, description="pages"):
                surveys, silent = opened.measure(f"{of.origin}{at.path}{'&' if '?' in at.path else '?'}{more}")
                with wiring.open_shop(store) as shop:
                    lines += study_page(shop, at, surveys, spoken, silent)
        took = (clock() - began).total_seconds() * 1000
        whole_study = Study(version=version, language=spoken, took_ms=took, lines=worst_first(lines))
        # What is kept is of the whole shop.
        if not page:
            with wiring.open_shop(store) as shop:
                keep(shop, whole_study, HERE, clock())
    finally:
        wiring.engine.dispose()
    if as_json:
        print(json.dumps(whole_study.model_dump(mode="json"), ensure_ascii=False))
    else:
        _print_study(whole_study)
    if any(line.rank <= 1 for line in whole_study.lines):
        raise typer.Exit(1)


def _chosen(pages: Sequence[PageToLookAt], paths: Sequence[str] | None) -> Sequence[PageToLookAt]:
    """Return the pages of some paths, or all where none is named.

    Raises:
        OutOfRange: A path is none of them; says which there are.
    """
    known = {page.path: page for page in pages}
    for path in paths or ():
        if path not in known:
            raise OutOfRange.of("--page", f"one of {', '.join(known)}", path)
    return [known[path] for path in paths] if paths else pages


def _print_study(whole: Study) -> None:
    table = Table("page", *Device, "what is wrong")
    for path in dict.fromkeys(line.path for line in whole.lines):
        those = {line.device: line for line in whole.lines if line.path == path}
        lines = [those[device] for device in Device]
        wrong = [f"{sign} on a {line.device}: {says}" for line in lines for sign, says in _wrong(line)]
        reach = [f"{line.reach * 100:.1f} %" if line.findings is not None else "?" for line in lines]
        table.add_row(lines[0].name, *reach, "\n".join(wrong) or "–")
    Console().print(table)
    silent = sum(line.findings is None for line in whole.lines)
    must = sum(line.rank == 1 for line in whole.lines)
    again = sum(line.rank == 2 for line in whole.lines)
    no_answer = f", {silent} do not answer" if silent else ""
    print(f"Shares are of scrolling with a button in reach. Of {len(whole.lines)} views {must} must be fixed, {again} "
          f"looked at again{no_answer}; {whole.took_ms / 1000:.0f} s.")  # fmt: skip


def _wrong(line: StudyLine) -> list[tuple[str, str]]:
    if line.findings is None:
        return [("▲", f"does not answer. {line.why}".strip())]
    return [(_WEIGHTS[finding.weight], finding.title) for finding in line.findings]


_WEIGHTS = {Weight.MUST_FIX: "▲", Weight.LOOK_AGAIN: "◇", Weight.NOTE: "–"}
_MARKS = {LineWeight.WELL: "·", LineWeight.NOTE: "–", LineWeight.BROKEN: "▲"}


def _print(report: PagesReport) -> None:
    for page in report.pages:
        _print_page(page)
    print(f"Release {report.release}: {report.sentence}.")


def _print_page(page: PageCheck) -> None:
    print(f"{page.kind}  {page.path}")
    for line in page.lines:
        print(f"  {_MARKS[line.weight]} {line.says} {line.to_do}".rstrip())
