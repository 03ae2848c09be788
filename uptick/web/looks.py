"""Looks: kept, carried, brought in and taken away; icons, pictures and the brand's colours."""

from typing import Annotated, Any, Literal

import orjson
from fastapi import APIRouter, Body, Query, Response

from uptick.core.colour.fills import PICTURES
from uptick.core.drawing.icon_search import find_icons
from uptick.core.errors import NotFound
from uptick.core.formats.svg_icon import ReadIcon
from uptick.core.release import CompiledRelease
from uptick.usecases import edit, looks, views
from uptick.usecases.looks import Source
from uptick.usecases.ports import StoredPicture
from uptick.usecases.publish import draft_manifest
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.views import DrawView
from uptick.usecases.views.drawing import document_at, try_edit
from uptick.usecases.views.looks import CarryView, LooksView, view_carry, view_looks
from uptick.web.bodies import BrandColours, Bring, Edit, IconFile, KeepLook, UseLook
from uptick.web.parts import DoorDep, PartsDep, ShopDep, VersionDep, VisitorDep, as_json
from uptick.web.problems import IN_STORE, OF_VERSION
from uptick.web.workshop import DrawDep

router = APIRouter(prefix="/api/stores/{store}", tags=["looks"], responses=IN_STORE)


@router.get("/looks", response_model=LooksView)
def kept(shop: ShopDep) -> Response:
    """Return kept looks, starting points, the brand's shades and pictures."""
    return as_json(view_looks(shop))


@router.post("/draw/{placement}/try", response_model=DrawView, responses=OF_VERSION)
def try_drawing(body: Edit, query: DrawDep, door: DoorDep) -> Response:
    """Return the drawing that an edit would give; nothing is kept."""
    with door.for_a_step() as visit:
        return as_json(try_edit(visit.shop, query, body.layer, body.patch))


@router.post("/draw/{placement}/bring", response_model=CarryView, responses=OF_VERSION)
def bring(body: Bring, query: DrawDep, shop: ShopDep, person: VisitorDep) -> Response:
    """Return what a look that is brought would change in the button that is drawn; nothing is kept."""
    return as_json(view_carry(shop, query, body.layer, _source(body), body.parts))


@router.post("/draw/{placement}/carry", response_model=DrawView, responses=OF_VERSION)
def carry(
    body: Bring, query: DrawDep, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> Response:
    """Give a layer the chosen parts of a look that is brought, and return the drawing."""
    looks.carry(shop, body.layer, _source(body), body.parts, version, person, parts.clock(), body.devices)
    return as_json(views.view_drawing(shop, query))


def _source(body: Bring) -> Source:
    return Source(body.kind, body.value, body.selector, body.laid)


@router.post("/draw/{placement}/keep", responses=OF_VERSION)
def keep(
    body: KeepLook, query: DrawDep, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> DraftState:
    """Keep the look that is drawn under a name; the layer that takes the edits uses it from then on."""
    layer = looks.whole_look(document_at(shop, query))
    draft = looks.keep_look(shop, body.name, layer, body.used_by, version, person, parts.clock())
    return draft_state(shop, draft)


@router.put("/looks/used", responses=OF_VERSION)
def use(body: UseLook, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Let a layer use a kept look, or none."""
    return draft_state(shop, looks.use_look(shop, body.layer, body.look, version, person, parts.clock()))


@router.delete("/looks/{look}", responses=OF_VERSION)
def drop(look: str, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Give up a kept look; what used it keeps its values."""
    return draft_state(shop, looks.drop_look(shop, look, version, person, parts.clock()))


@router.put("/brand", responses=OF_VERSION)
def brand(body: BrandColours, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Say the brand's colours, from one to three."""
    seeds = [seed.model_dump() for seed in body.seeds]
    return draft_state(shop, looks.set_brand(shop, seeds, version, person, parts.clock()))


@router.get("/draw/{placement}/match")
def match(query: DrawDep, shop: ShopDep) -> dict[str, Any]:
    """Return the patch that makes the second button as high as the first, in its type and corners."""
    return looks.match_neighbour(shop, "", document_at(shop, query))


@router.get("/draw/{placement}/written", response_class=Response)
def written(query: DrawDep, shop: ShopDep, form: Literal["text", "css", "tokens", "json"] = "text") -> Response:
    """Return the look to take away: as sentences, CSS, design tokens or JSON."""
    kinds = {"css": "text/css", "tokens": "application/design-tokens+json", "json": "application/json"}
    kind = kinds.get(form, "text/plain")
    return Response(looks.write_look(shop, document_at(shop, query), form), media_type=f"{kind}; charset=utf-8")


@router.get("/icons")
def icons(shop: ShopDep, text: Annotated[str, Query(max_length=80)] = "") -> list[dict[str, Any]]:
    """Return shipped icons that fit some words, the best first."""
    names = find_icons(shop.kit.icons, text)
    shapes = shop.kit.icons
    return [{"name": name, "path": shapes[name].path, "points": shapes[name].points} for name in names]


@router.post("/icons", responses=OF_VERSION)
def own_icon(body: IconFile, door: DoorDep) -> ReadIcon:
    """Return an icon made from an SVG, cleaned, with what was left out. It is kept once a button uses it."""
    # Whoever may come in is let in first: another process works on the icon, and no connection waits for that.
    with door.for_a_step():
        pass
    return looks.bring_icon(body.svg.encode(), body.name)


@router.post("/pictures", responses=OF_VERSION)
def picture(
    shop: ShopDep,
    person: VisitorDep,
    parts: PartsDep,
    content: Annotated[bytes, Body(media_type="application/octet-stream", max_length=8_000_001)],
    name: Annotated[str, Query(max_length=120)] = "picture",
) -> StoredPicture:
    """Keep a picture for buttons."""
    return looks.bring_picture(shop, content, name, person, parts.clock())


@router.get("/draft/manifest", response_class=Response)
def manifest(shop: ShopDep, parts: PartsDep) -> Response:
    """Return the draft in the form in which the script stands it, for a page in the studio's frame."""
    return manifest_answer(draft_manifest(shop), parts)


@router.post("/draft/manifest", response_class=Response, responses=OF_VERSION)
def tried_manifest(body: Edit, door: DoorDep, parts: PartsDep) -> Response:
    """Return the draft as an edit would make it, in the form in which the script stands it; nothing is kept."""
    with door.for_a_step() as visit:
        # Compiling it says what makes no button; nothing is kept of it.
        tried = edit.patched(visit.shop.drafts.read().settings, body.layer, body.patch)
        return manifest_answer(draft_manifest(visit.shop, tried), parts)


def manifest_answer(content: CompiledRelease, parts: PartsDep) -> Response:
    """Return what a page in the studio's frame needs of a draft."""
    shared_parts = ("looks", "places", "pointed", "css", "words", "rules", "base", "languages")
    # What a draft no longer has is told as well, since a page keeps what it was not told of.
    kept = {"pointed": [], **{name: part for name, part in content.items() if name in shared_parts}}
    written = orjson.dumps(kept).replace(PICTURES.encode(), f"{parts.edge_origin}/pictures/".encode())
    return Response(written, media_type="application/json")


@router.get("/pictures/{digest}", response_class=Response)
def picture_file(digest: str, shop: ShopDep) -> Response:
    """Return a picture of the store's by its content's hash."""
    shelved = shop.pictures.content(digest)
    if shelved is None:
        raise NotFound(f"There is no picture {digest!r}.", picture=digest)
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "X-Content-Type-Options": "nosniff"}
    return Response(shelved[1], media_type=shelved[0], headers=headers)
