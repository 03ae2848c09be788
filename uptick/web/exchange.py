"""Files in and out: the catalogue and the texts."""

from collections.abc import Iterator
from typing import Any, Literal

from fastapi import APIRouter, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import TypeAdapter

from uptick.core.errors import AppError
from uptick.core.formats.catalogue_file import write_csv
from uptick.core.formats.jsonld import write_jsonld
from uptick.usecases.importing import ImportReport, Progress, import_catalogue, import_steps, shortened
from uptick.usecases.ports import Person
from uptick.usecases.texts import TextsReport, export_texts, import_texts
from uptick.web.parts import Parts, PartsDep, ShopDep, VersionDep, VisitorDep

router = APIRouter(prefix="/api/stores/{store}", tags=["exchange"])
_LINE: TypeAdapter[Any] = TypeAdapter(dict[str, Progress | ImportReport | dict[str, Any]])


async def _content(request: Request) -> bytes:
    return await request.body()


@router.post("/catalogue/preview")
async def look_at_catalogue(request: Request, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> ImportReport:
    """Say what a CSV or JSON-LD file would do; nothing is changed."""
    report = import_catalogue(shop, await _content(request), person, parts.clock(), dry_run=True)
    return shortened(report)


@router.post("/catalogue", response_class=StreamingResponse)
async def take_catalogue(
    store: str, request: Request, shop: ShopDep, person: VisitorDep, parts: PartsDep, whole: bool = False
) -> StreamingResponse:
    """Take a catalogue in, telling progress line by line as JSON: `progress`, at the end `report` or `problem`.

    Whoever goes away before the end has changed nothing.
    """
    content = await _content(request)
    return StreamingResponse(_taking(store, content, whole, person, parts), media_type="application/x-ndjson")


def _taking(store: str, content: bytes, whole: bool, person: Person, parts: Parts) -> Iterator[bytes]:
    try:
        with parts.open_visit(store) as (_, open_shop):
            steps = import_steps(open_shop(person.id), content, person, parts.clock(), whole=whole)
            report = None
            while report is None:
                try:
                    yield _LINE.dump_json({"progress": next(steps)}) + b"\n"
                except StopIteration as end:
                    report = end.value
    except AppError as error:
        yield _LINE.dump_json({"problem": {"code": error.code, "detail": error.says}}) + b"\n"
        return
    # Only now is it committed.
    yield _LINE.dump_json({"report": shortened(report)}) + b"\n"


@router.get("/catalogue.{form}")
def give_catalogue(form: Literal["csv", "jsonld"], shop: ShopDep) -> Response:
    products = shop.catalogue.all()
    if form == "csv":
        return _file(write_csv(products), "text/csv", f"{shop.store.key}.csv")
    return _file(write_jsonld(products), "application/ld+json", f"{shop.store.key}.jsonld")


@router.get("/texts/{language}.po")
def give_texts(language: str, shop: ShopDep, parts: PartsDep) -> Response:
    """Return the texts of one language for a translator, as gettext PO."""
    return _file(export_texts(shop, language, parts.clock()), "text/x-gettext-translation", f"{language}.po")


@router.post("/texts/{language}")
async def take_texts(
    language: str,
    request: Request,
    shop: ShopDep,
    person: VisitorDep,
    version: VersionDep,
    parts: PartsDep,
    dry_run: bool = False,
) -> TextsReport:
    """Take translations in from gettext PO as one change, or with `dry_run` say what it would do."""
    content = await _content(request)
    return import_texts(shop, language, content, version, person, parts.clock(), dry_run=dry_run)


def _file(text: str, kind: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, media_type=f"{kind}; charset=utf-8", headers=headers)
