"""The stations of the draft: Floor, Draw, Words, and the changes made there."""

from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from fastapi import APIRouter, Request, Response

from uptick.core.catalogue import Product
from uptick.core.document import ButtonDocument, Device, Placement
from uptick.core.release import compile_fonts
from uptick.core.settings import Settings
from uptick.core.store import Store
from uptick.usecases import edit, views
from uptick.usecases.importing import ImportReport, import_catalogue
from uptick.usecases.ports import Draft, Step
from uptick.usecases.views import DraftState, DrawView, ExceptionView, FloorView, TraceView, WordsView
from uptick.web.bodies import Edit, NewException
from uptick.web.parts import PartsDep, ShopDep, VersionDep, VisitorDep, as_json

router = APIRouter(prefix="/api/stores/{store}", tags=["workshop"])
FLOOR_DAYS = 14


@dataclass(frozen=True, slots=True)
class FontOption:
    family: str
    name: str
    lightest: int
    heaviest: int


@dataclass(frozen=True, slots=True)
class StoreInfo:
    """The store, and what its buttons can be made of."""

    store: Store
    products: tuple[Product, ...]
    categories: tuple[str, ...]
    fonts: tuple[FontOption, ...]
    font_files: tuple[dict[str, Any], ...]
    icons: dict[str, str]
    edge_origin: str
    snippet: str
    preview: str
    last_import: dict[str, Any] | None


@router.get("")
def info(shop: ShopDep, parts: PartsDep) -> StoreInfo:
    products = tuple(shop.catalogue.all())
    families = {f.family: FontOption(f.family, f.name, f.lightest, f.heaviest) for f in shop.kit.fonts.files}
    return StoreInfo(
        store=shop.store,
        products=products,
        categories=tuple(dict.fromkeys(p.category for p in products)),
        fonts=tuple(families.values()),
        font_files=tuple(compile_fonts(shop.kit, families)),
        icons={name: shape.path for name, shape in shop.kit.icons.items()},
        edge_origin=parts.edge_origin,
        snippet=f'<script async src="{parts.edge_origin}/s/{shop.store.key}/up.js"></script>',
        preview=parts.preview_token(shop.store.key),
        last_import=shop.catalogue.last_import(),
    )


@router.get("/floor", response_model=FloorView)
def floor(shop: ShopDep, parts: PartsDep) -> Response:
    now = parts.clock()
    return as_json(views.view_floor(shop, (now - timedelta(days=FLOOR_DAYS)).date(), FLOOR_DAYS, now))


@router.get("/draw/{placement}", response_model=DrawView)
def draw(shop: ShopDep, placement: Placement, product: str | None = None, device: Device | None = None) -> Response:
    return as_json(views.view_drawing(shop, placement, product, device))


@router.get("/words", response_model=WordsView)
def words(shop: ShopDep) -> Response:
    return as_json(views.view_words(shop))


@router.get("/trace")
def trace(
    shop: ShopDep, placement: Placement, field: str, product: str | None = None, exception: str = ""
) -> TraceView:
    return views.view_trace(shop, placement, product, field, exception)


@router.get("/draft")
def draft(shop: ShopDep) -> DraftState:
    return _state(shop, shop.drafts.read())


@router.get("/draft/settings")
def settings(shop: ShopDep) -> Settings:
    return shop.drafts.read().settings


@router.get("/draft/history")
def history(shop: ShopDep) -> list[Step]:
    return shop.drafts.history(50)


def _state(shop: ShopDep, draft: Draft) -> DraftState:
    return views.draft_state(shop, draft, shop.catalogue.all())


@router.patch("/draft")
def change(body: Edit, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Change one layer of the draft."""
    return _state(shop, edit.change_layer(shop, body.layer, body.patch, version, person, parts.clock()))


@router.patch("/draw/{placement}", response_model=DrawView)
def change_drawing(
    body: Edit,
    placement: Placement,
    shop: ShopDep,
    person: VisitorDep,
    version: VersionDep,
    parts: PartsDep,
    product: str | None = None,
    device: Device | None = None,
) -> Response:
    """Change one layer and return the drawing that comes of it, in one answer."""
    edit.change_layer(shop, body.layer, body.patch, version, person, parts.clock())
    return as_json(views.view_drawing(shop, placement, product, device))


@router.post("/draft/undo")
def undo(shop: ShopDep) -> DraftState:
    return _state(shop, edit.undo(shop))


@router.post("/draft/redo")
def redo(shop: ShopDep) -> DraftState:
    return _state(shop, edit.redo(shop))


@router.get("/exceptions")
def exceptions(shop: ShopDep) -> tuple[ExceptionView, ...]:
    return views.view_exceptions(shop)


@router.post("/exceptions")
def add_exception(
    body: NewException, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> DraftState:
    made = edit.add_exception(shop, body.name, body.note, body.reach, body.layer, version, person, parts.clock())
    return _state(shop, made)


@router.delete("/exceptions/{rule}")
def remove_exception(rule: str, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    return _state(shop, edit.remove_exception(shop, rule, version, person, parts.clock()))


@router.post("/catalogue")
async def take_catalogue(
    request: Request, shop: ShopDep, person: VisitorDep, parts: PartsDep, dry_run: bool = False
) -> ImportReport:
    """Take a catalogue as the bytes of a CSV file."""
    return import_catalogue(shop, await request.body(), person, parts.clock(), dry_run=dry_run)


@router.get("/schema", tags=["schema"])
def schema() -> dict[str, Any]:
    """Return the JSON Schema of the button document."""
    return ButtonDocument.model_json_schema()
