"""The stations of the draft: Floor, Draw, Words, and the changes made there."""

from dataclasses import dataclass
from datetime import timedelta
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Query, Response

from uptick.core.button.document import ButtonDocument, Device, Placement, ShopperKind
from uptick.core.drawing.compile import BASE_CSS
from uptick.core.release import WireFont, compile_fonts
from uptick.core.rules.settings import Settings
from uptick.core.shop.store import Store
from uptick.usecases import edit, views
from uptick.usecases.ports import Draft, HistoryStep
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.views import DrawView, FindingsView, FloorView, Found, ProductsView, TraceView, WordsView
from uptick.usecases.views.drawing import DrawQuery, try_edit
from uptick.usecases.views.why import TraceQuery
from uptick.usecases.views.words import Spoken, spoken_of
from uptick.usecases.written import schema_of
from uptick.web.bodies import Edit, Languages
from uptick.web.parts import DoorDep, PartsDep, ShopDep, VersionDep, VisitorDep, as_json
from uptick.web.problems import IN_STORE, OF_VERSION

router = APIRouter(prefix="/api/stores/{store}", tags=["workshop"], responses=IN_STORE)
FLOOR_DAYS = 14


@dataclass(frozen=True, slots=True)
class FontOption:
    family: str
    name: str
    lightest: int
    heaviest: int


@dataclass(frozen=True, slots=True)
class StoreInfo:
    """The store, and what its buttons can be made of. `marked` are the placements of its own code alone."""

    store: Store
    marked: tuple[Placement, ...]
    product_count: int
    categories: tuple[str, ...]
    spoken: tuple[Spoken, ...]
    base_css: str
    fonts: tuple[FontOption, ...]
    font_files: tuple[WireFont, ...]
    edge_origin: str
    snippet: str
    preview: str
    last_import: dict[str, Any] | None


@router.get("")
def info(shop: ShopDep, parts: PartsDep) -> StoreInfo:
    """Return what every station needs to know of a store: places, languages, categories, fonts, its line."""
    products = shop.catalogue.all()
    files = [f for f in shop.kit.fonts.files if not f.stands_in]
    families = {f.family: FontOption(f.family, f.name, f.lightest, f.heaviest) for f in files}
    return StoreInfo(
        store=shop.store,
        marked=shop.registered.places,
        product_count=len(products),
        spoken=spoken_of(shop.drafts.read().settings),
        base_css=BASE_CSS,
        categories=tuple(dict.fromkeys(p.category for p in products)),
        fonts=tuple(families.values()),
        font_files=tuple(compile_fonts(shop.kit, (*families, *shop.kit.fonts.stand_ins))),
        edge_origin=parts.edge_origin,
        snippet=f'<script async src="{parts.edge_origin}/s/{shop.store.key}/up.js"></script>',
        preview=parts.preview_token(shop.store.key),
        last_import=shop.catalogue.last_import(),
    )


@router.get("/floor", response_model=FloorView)
def floor(shop: ShopDep, parts: PartsDep, device: Device | None = None, language: str | None = None) -> Response:
    """Return where buttons stand in the shop with what shoppers did there."""
    now = parts.clock()
    since = (now - timedelta(days=FLOOR_DAYS)).date()
    return as_json(views.view_floor(shop, since, FLOOR_DAYS, now, device, language))


@router.get("/findings", response_model=FindingsView)
def findings(
    shop: ShopDep,
    device: Device | None = None,
    language: str | None = None,
    most: Annotated[int, Query(ge=1, le=5000, description="How many findings are told, of the worst.")] = 60,
) -> Response:
    """Return what the checks find in the whole shop, worst first."""
    return as_json(views.view_findings(shop, device, language, most))


@dataclass(frozen=True, slots=True)
class CheckingProgress:
    """How many kinds of button have been checked, of how many; 0 of 0 while nothing is checked."""

    done: int
    of: int


@router.get("/findings/progress")
def findings_progress(shop: ShopDep) -> CheckingProgress:
    """Return how far the checks have come that somebody waits for."""
    return CheckingProgress(*(shop.compiled.progress or (0, 0)))


@router.get("/products")
def products(shop: ShopDep, text: Annotated[str, Query(max_length=120)] = "") -> ProductsView:
    """Return the first products that contain every word of a text, and how many there are."""
    return views.view_products(shop, text)


async def _draw_query(
    placement: Placement,
    product: str | None = None,
    device: Device | None = None,
    language: str | None = None,
    layer: Annotated[str | None, Query(max_length=80)] = None,
) -> DrawQuery:
    return DrawQuery(placement, product, device, language, layer)


DrawDep = Annotated[DrawQuery, Depends(_draw_query)]


@router.get("/draw/{placement}", response_model=DrawView)
def draw(door: DoorDep, query: DrawDep) -> Response:
    """Return everything that Draw shows of one placement."""
    with door.for_a_step() as visit:
        return as_json(views.view_drawing(visit.shop, query))


@router.get("/words", response_model=WordsView)
def words(shop: ShopDep, language: str | None = None) -> Response:
    """Return every text in every language with its room."""
    return as_json(views.view_words(shop, language))


@router.put("/languages", responses=OF_VERSION)
def languages(body: Languages, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Say which languages the buttons speak besides the store's first."""
    return _state(shop, edit.set_languages(shop, body.more, version, person, parts.clock()))


@router.get("/trace")
def trace(
    shop: ShopDep,
    placement: Placement,
    field: Annotated[str, Query(max_length=120)],
    product: str | None = None,
    device: Device | None = None,
    language: str | None = None,
    shopper: ShopperKind = ShopperKind.NEW,
    exception: str = "",
) -> TraceView:
    """Return why a value holds: the winner, what it beat, in order, and what sleeps."""
    query = TraceQuery(placement, field, product, device, language, shopper, exception)
    return views.view_trace(shop, query)


@router.get("/search")
def search(shop: ShopDep, text: Annotated[str, Query(max_length=120)] = "") -> tuple[Found, ...]:
    """Return products, exceptions and findings that contain every word."""
    return views.search(shop, text)


@router.get("/draft")
def draft(shop: ShopDep) -> DraftState:
    """Return the state of the draft."""
    return _state(shop, shop.drafts.read())


@router.get("/draft/settings")
def settings(shop: ShopDep) -> Settings:
    """Return the whole draft."""
    return shop.drafts.read().settings


@router.get("/draft/history")
def history(
    shop: ShopDep, before: Annotated[int | None, Query(ge=1, le=2**31 - 1, description="Only steps before it.")] = None
) -> list[HistoryStep]:
    """Return the newest steps, the newest first, at most 60: the older ones come before the last of these."""
    return shop.drafts.history(60, before)


def _state(shop: ShopDep, draft: Draft) -> DraftState:
    return draft_state(shop, draft)


@router.patch("/draft", responses=OF_VERSION)
def change(body: Edit, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Change one layer of the draft."""
    return _state(shop, edit.change_layer(shop, body.layer, body.patch, version, person, parts.clock()))


@router.patch("/draw/{placement}", response_model=DrawView, responses=OF_VERSION)
def change_drawing(body: Edit, query: DrawDep, door: DoorDep, version: VersionDep, parts: PartsDep) -> Response:
    """Change one layer and return the drawing that comes of it, in one answer."""
    with door.for_a_step() as visit:
        # What cannot be drawn is not kept; what is computed for that is found again below.
        try_edit(visit.shop, query, body.layer, body.patch)
        edit.change_layer(visit.shop, body.layer, body.patch, version, visit.person, parts.clock())
        return as_json(views.view_drawing(visit.shop, query))


@router.post("/draft/undo", responses=OF_VERSION)
def undo(shop: ShopDep, person: VisitorDep, parts: PartsDep) -> DraftState:
    """Take back the person's own newest change."""
    return _state(shop, edit.undo(shop, person, parts.clock()))


@router.post("/draft/redo", responses=OF_VERSION)
def redo(shop: ShopDep, person: VisitorDep, parts: PartsDep) -> DraftState:
    """Do again what was undone last."""
    return _state(shop, edit.redo(shop, person, parts.clock()))


@router.get("/schema", tags=["schema"])
def schema() -> dict[str, Any]:
    """Return the JSON Schema of the button document."""
    return ButtonDocument.model_json_schema()


@router.get("/schema/{kind}", tags=["schema"])
def schema_of_file(kind: Literal["release", "readout"]) -> dict[str, Any]:
    """Return the JSON Schema of a file that is written out."""
    return schema_of(kind)
