"""Release and Trials: what shoppers get, and which version sells."""

from dataclasses import dataclass

from fastapi import APIRouter

from uptick.core.trial.record import Trial
from uptick.usecases import publish, trials
from uptick.usecases.publish import ReleaseView
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.trials import TrialView
from uptick.web.bodies import NewTrial, Publish, Start, TrialChange
from uptick.web.parts import PartsDep, ShopDep, VisitorDep

router = APIRouter(prefix="/api/stores/{store}", tags=["outcome"])


@dataclass(frozen=True, slots=True)
class Released:
    n: int
    hash: str
    draft: DraftState


def _released(shop: ShopDep, n: int, digest: str) -> Released:
    return Released(n, digest, draft_state(shop, shop.drafts.read()))


@router.get("/release")
def read(shop: ShopDep) -> ReleaseView:
    return publish.view_release(shop)


@router.post("/release")
def release(body: Publish, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> Released:
    made = publish.publish(shop, body.note, person, parts.clock(), body.despite)
    return _released(shop, made.n, made.hash)


@router.post("/release/{n}/take-back")
def take_back(n: int, body: Publish, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> Released:
    made = publish.take_back(shop, n, person, parts.clock(), body.despite)
    return _released(shop, made.n, made.hash)


@router.get("/trials")
def all_trials(shop: ShopDep) -> list[Trial]:
    return shop.trials.all()


@router.post("/trials", status_code=201)
def draw_trial(body: NewTrial, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> Trial:
    return trials.draw_trial(
        shop,
        body.question,
        body.reach,
        body.layer,
        body.decides,
        body.relative_difference,
        body.window_days,
        parts.new_token()[:16],
        parts.clock(),
    )


@router.get("/trials/{number}")
def one_trial(number: int, shop: ShopDep, parts: PartsDep) -> TrialView:
    return trials.view_trial(shop, number, parts.clock())


@router.patch("/trials/{number}")
def change_trial(number: int, body: TrialChange, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> TrialView:
    now = parts.clock()
    trials.change_trial(
        shop,
        number,
        now,
        question=body.question,
        patch=body.patch,
        decides=body.decides,
        relative_difference=body.relative_difference,
    )
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/start")
def start_trial(number: int, body: Start, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> TrialView:
    now = parts.clock()
    trials.start_trial(shop, number, now, days_ago=body.days_ago)
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/keep-b")
def keep_b(number: int, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> TrialView:
    now = parts.clock()
    trials.keep_b(shop, number, person, now)
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/close")
def close_trial(number: int, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> TrialView:
    now = parts.clock()
    trials.close_trial(shop, number, now)
    return trials.view_trial(shop, number, now)
