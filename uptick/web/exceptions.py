"""Exceptions: made, changed, removed; what they reach and what they change."""

from fastapi import APIRouter

from uptick.core.rules.reach import Reach
from uptick.usecases import edit, views
from uptick.usecases.edit import Wish
from uptick.usecases.ports import Draft, Shop
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.views import ExceptionEffects, ExceptionView, ReachRead
from uptick.web.bodies import ExceptionChange, NewException, ReachWords
from uptick.web.parts import PartsDep, ShopDep, VersionDep, VisitorDep
from uptick.web.problems import IN_STORE, OF_VERSION

router = APIRouter(prefix="/api/stores/{store}", tags=["exceptions"], responses=IN_STORE)


def _state(shop: Shop, draft: Draft) -> DraftState:
    return draft_state(shop, draft)


def _reach(shop: Shop, words: str | None, reach: Reach) -> Reach:
    return views.view_reach(shop, words).reach if words else reach


@router.post("/reach", responses=OF_VERSION)
def read_reach(body: ReachWords, shop: ShopDep) -> ReachRead:
    """Return what a reach in words holds, as *Frames & wax, on phones, except brood frames*."""
    return views.view_reach(shop, body.text)


@router.get("/exceptions")
def exceptions(shop: ShopDep) -> tuple[ExceptionView, ...]:
    """Return every exception of the draft with what it covers."""
    return views.view_exceptions(shop)


@router.get("/exceptions/{rule}/effects")
def effects(rule: str, shop: ShopDep) -> ExceptionEffects:
    """Return exactly which buttons an exception changes, before and after."""
    return views.view_effects(shop, rule)


@router.post("/exceptions", responses=OF_VERSION)
def add_exception(
    body: NewException, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> DraftState:
    """Add an exception to the draft."""
    wish = Wish(body.name, body.note, _reach(shop, body.reach_words, body.reach), body.starts_on, body.ends_on)
    return _state(shop, edit.add_exception(shop, wish, body.layer, version, person, parts.clock()))


@router.patch("/exceptions/{rule}", responses=OF_VERSION)
def change_exception(
    rule: str, body: ExceptionChange, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> DraftState:
    """Change what an exception is: its name, note, reach, days, whether it is on."""
    changes = body.model_dump(include=body.model_fields_set - {"reach_words", "reach"})
    if body.reach_words or body.reach:
        changes["reach"] = _reach(shop, body.reach_words, body.reach or Reach())
    return _state(shop, edit.change_exception(shop, rule, changes, version, person, parts.clock()))


@router.delete("/exceptions/{rule}", responses=OF_VERSION)
def remove_exception(rule: str, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> DraftState:
    """Remove an exception from the draft."""
    return _state(shop, edit.remove_exception(shop, rule, version, person, parts.clock()))
