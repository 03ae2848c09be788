"""Files in and out: the catalogue and the texts."""

from collections.abc import Iterator
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Response
from fastapi.responses import StreamingResponse
from pydantic import TypeAdapter

from uptick.core.errors import AppError
from uptick.core.formats.catalogue_file import write_csv
from uptick.core.formats.csv_dialect import EncodingName, ReadAs
from uptick.core.formats.jsonld import write_jsonld
from uptick.usecases.importing import (
    ImportProgress,
    ImportReport,
    ReadAhead,
    import_catalogue,
    import_steps,
    read_ahead,
    shortened,
)
from uptick.usecases.ports import Person
from uptick.usecases.texts import TextsReport, export_texts, import_texts
from uptick.web.parts import Door, DoorDep, PartsDep, PersonDep, ShopDep, VersionDep, body_of
from uptick.web.problems import IN_STORE, OF_VERSION, problems

router = APIRouter(prefix="/api/stores/{store}", tags=["exchange"])
_LINE: TypeAdapter[Any] = TypeAdapter(dict[str, ImportProgress | ImportReport | dict[str, Any]])


# Whoever sends is known before anything is read, and the store is opened only once all has been read. What is then
# computed runs in a thread, so that nobody else waits for it; a catalogue is read without a connection to the database.
BodyDep = Annotated[bytes, Depends(body_of)]


def _read_as(encoding: EncodingName | None = None, decimal: Literal[".", ","] | None = None) -> ReadAs:
    """How a file is written, where somebody says it."""
    return ReadAs(encoding, decimal)


ReadAsDep = Annotated[ReadAs, Depends(_read_as)]


@router.post("/catalogue/preview", responses=problems(401, 403, 404, 413))
def look_at_catalogue(
    sender: PersonDep, content: BodyDep, door: DoorDep, parts: PartsDep, read_as: ReadAsDep, whole: bool = False
) -> ImportReport:
    """Say what a CSV or JSON-LD file would do; nothing is changed."""
    ahead = _read_ahead(content, door, read_as)
    with door.opened(parts.open_visit) as visit:
        now = parts.clock()
        report = import_catalogue(
            visit.shop, content, sender, now, dry_run=True, whole=whole, ahead=ahead, read_as=read_as
        )
    return shortened(report)


def _read_ahead(content: bytes, door: Door, read_as: ReadAs) -> ReadAhead:
    with door.opened(door.parts.open_visit) as visit:
        known, currency = visit.shop.catalogue.all(), visit.shop.store.currency
    return read_ahead(content, known, currency, read_as)


@router.post("/catalogue", response_class=StreamingResponse, responses=problems(401, 403, 404, 413))
def take_catalogue(
    sender: PersonDep,
    content: BodyDep,
    door: DoorDep,
    parts: PartsDep,
    read_as: ReadAsDep,
    whole: bool = False,
    really: bool = False,
) -> StreamingResponse:
    """Take a catalogue in, telling progress line by line as JSON: `progress`, at the end `report` or `problem`.

    With `really` a file is taken although it removes or empties much. Whoever goes away before the end has changed
    nothing.
    """
    with door.opened(parts.open_visit):
        # Whoever may not come in is told before anything is answered.
        pass
    taking = _taking(content, sender, door, read_as, whole=whole, really=really)
    return StreamingResponse(taking, media_type="application/x-ndjson")


def _taking(
    content: bytes, person: Person, door: Door, read_as: ReadAs, *, whole: bool, really: bool
) -> Iterator[bytes]:
    now = door.parts.clock()
    try:
        ahead = _read_ahead(content, door, read_as)
        with door.opened(door.parts.open_visit) as visit:
            steps = import_steps(
                visit.shop, content, person, now, whole=whole, really=really, ahead=ahead, read_as=read_as
            )
            report = None
            while report is None:
                try:
                    yield _LINE.dump_json({"progress": next(steps)}) + b"\n"
                except StopIteration as end:
                    report = end.value
    except AppError as error:
        yield _LINE.dump_json({"problem": {**error.facts, "code": error.code, "detail": error.says}}) + b"\n"
        return
    # Only now is it committed.
    yield _LINE.dump_json({"report": shortened(report)}) + b"\n"


@router.get("/catalogue.{form}", responses=IN_STORE)
def give_catalogue(form: Literal["csv", "jsonld"], shop: ShopDep) -> Response:
    """Return the catalogue as a file: CSV or schema.org's JSON-LD."""
    products = shop.catalogue.all()
    if form == "csv":
        return _file(write_csv(products), "text/csv", f"{shop.store.key}.csv")
    return _file(write_jsonld(products), "application/ld+json", f"{shop.store.key}.jsonld")


@router.get("/texts/{language}.po", responses=IN_STORE)
def give_texts(language: str, shop: ShopDep, parts: PartsDep) -> Response:
    """Return the texts of one language for a translator, as gettext PO."""
    return _file(export_texts(shop, language, parts.clock()), "text/x-gettext-translation", f"{language}.po")


@router.post("/texts/{language}", responses=OF_VERSION)
def take_texts(
    language: str,
    sender: PersonDep,
    content: BodyDep,
    shop: ShopDep,
    version: VersionDep,
    parts: PartsDep,
    dry_run: bool = False,
) -> TextsReport:
    """Take translations in from gettext PO as one change, or with `dry_run` say what it would do."""
    return import_texts(shop, language, content, version, sender, parts.clock(), dry_run=dry_run)


def _file(text: str, kind: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, media_type=f"{kind}; charset=utf-8", headers=headers)
