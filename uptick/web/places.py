"""Places that are chosen by pointing at the shop's pages."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import Field, StringConstraints

from uptick.core.button.document import Device, Placement
from uptick.core.rules.pointed import PointedPlace
from uptick.core.scroll import PageSurvey
from uptick.core.scroll.study import KeptStudy, Study
from uptick.usecases import pointing
from uptick.usecases import study as studying
from uptick.usecases.edit import changed_settings
from uptick.usecases.pointing import PageToLookAt, Pointing, Survey
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.views.along import AlongView, view_along
from uptick.usecases.views.standing import StandingView, view_standing
from uptick.web.bodies import Body, Edit
from uptick.web.looks import manifest_answer
from uptick.web.parts import DoorDep, PartsDep, ShopDep, VersionDep, VisitorDep, as_json
from uptick.web.problems import IN_STORE, OF_VERSION

router = APIRouter(prefix="/api/stores/{store}/places", tags=["places"], responses=IN_STORE)
Path = Annotated[str, StringConstraints(max_length=600)]
# What a page's outline may hold: elements and the attributes that tell, no texts.
Outline = Annotated[str, StringConstraints(max_length=3_000_000)]


class PageOutline(Body):
    path: Path
    html: Outline


class PointedAt(Body):
    """A page's outline, in which what was pointed at carries `data-up-pointed`, and other pages' outlines."""

    placement: Placement
    path: Path
    html: Outline
    pages: Annotated[list[PageOutline], Field(max_length=40)] = Field(default_factory=list)


class SurveyOf(Body):
    """A place, and the outlines of the pages on which it is tried."""

    place: PointedPlace
    pages: Annotated[list[PageOutline], Field(max_length=40)]


class OnePlace(Body):
    place: PointedPlace


class TriedPlace(Body):
    """A place as it would be; an empty id is a new one."""

    place: PointedPlace
    id: Annotated[str, StringConstraints(max_length=20)] = ""


class PageMeasured(Body):
    """A page as it was measured on some devices; with an edit, what it would be with that."""

    surveys: Annotated[dict[Device, PageSurvey], Field(min_length=1)]
    product: Annotated[str, StringConstraints(max_length=200)] = ""
    language: Annotated[str, StringConstraints(max_length=20)] = ""
    edit: Edit | None = None


@dataclass(frozen=True, slots=True)
class PlacesView:
    """The places of the draft by their ids, pages of the shop to try one on, and the placements that the draft has."""

    places: dict[str, PointedPlace]
    pages: tuple[PageToLookAt, ...]
    placements: tuple[Placement, ...]


@router.get("")
def places(shop: ShopDep, product: Annotated[str, Query(max_length=500)] = "") -> PlacesView:
    """Return the places that were pointed at, and pages to try one on: the product's own among them, if it has one."""
    pages = pointing.pages_to_look_at(shop, product)
    return PlacesView(shop.drafts.read().settings.pointed, pages, shop.store.places)


@router.post("/point")
def point(body: PointedAt, shop: ShopDep) -> Pointing:
    """Return selectors for an element, the most lasting first; nothing is kept."""
    others = [(page.path, page.html) for page in body.pages]
    return pointing.point(shop, body.html, body.path, body.placement, others)


@router.post("/survey")
def survey(body: SurveyOf, shop: ShopDep) -> Survey:
    """Return what a place comes to on some pages; nothing is kept."""
    return pointing.survey(shop, body.place, [(page.path, page.html) for page in body.pages])


@router.post("/along", response_model=AlongView)
def along(body: PageMeasured, door: DoorDep) -> Response:
    """Return what is seen of the buttons of a page along its scroll; nothing is kept."""
    with door.for_a_step() as visit:
        shop = visit.shop
        edit = body.edit
        tried = changed_settings(shop, shop.drafts.read().settings, edit.layer, edit.patch) if edit else None
        return as_json(view_along(shop, body.surveys, body.product or None, body.language or None, tried))


@router.get("/standing/{placement}")
def standing(placement: Placement, shop: ShopDep, device: Device, language: str = "") -> StandingView:
    """Return for how many products a placement stands, what hides it, and pages to step through."""
    return view_standing(shop, placement, device, language or None)


@dataclass(frozen=True, slots=True)
class StudyView:
    """The newest study of the whole shop; None where there was none."""

    kept: KeptStudy | None


@router.get("/study")
def study(shop: ShopDep) -> StudyView:
    """Return the newest study of the whole shop, and which version of the draft it is about."""
    return StudyView(shop.side.study())


@router.put("/study")
def keep_study(body: Study, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> StudyView:
    """Keep a study of the whole shop instead of the one before. It changes nothing of the draft."""
    return StudyView(studying.keep(shop, body, person, parts.clock()))


@router.post("/manifest", response_class=Response)
def manifest(body: TriedPlace, door: DoorDep, parts: PartsDep) -> Response:
    """Return the draft with a place as it would be, in the form in which the script stands it; nothing is kept."""
    with door.for_a_step() as visit:
        return manifest_answer(pointing.tried_place(visit.shop, body.id, body.place), parts)


@router.post("", responses=OF_VERSION)
def add(body: OnePlace, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Add a place that was pointed at."""
    return draft_state(shop, pointing.keep_place(shop, "", body.place, version, person, parts.clock()))


@router.put("/{place_id}", responses=OF_VERSION)
def change(
    place_id: str, body: OnePlace, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> DraftState:
    """Change a place that was pointed at."""
    return draft_state(shop, pointing.keep_place(shop, place_id, body.place, version, person, parts.clock()))


@router.delete("/{place_id}", responses=OF_VERSION)
def remove(place_id: str, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Remove a place that was pointed at."""
    return draft_state(shop, pointing.remove_place(shop, place_id, version, person, parts.clock()))
