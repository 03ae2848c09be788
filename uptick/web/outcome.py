"""Release and Trials: what shoppers get, and which version sells."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Path, Response

from uptick.core.trial.record import Trial
from uptick.usecases import publish, trials
from uptick.usecases.publish import ReleaseView
from uptick.usecases.state import DraftState, draft_state
from uptick.usecases.trials import TrialView
from uptick.usecases.written import write_readout, write_release
from uptick.web.bodies import NewTrial, Publish, TrialChange, TrialStart
from uptick.web.parts import Number, PartsDep, ShopDep, VersionDep, VisitorDep, as_json
from uptick.web.problems import IN_STORE, OF_VERSION, problems

router = APIRouter(prefix="/api/stores/{store}", tags=["outcome"], responses=IN_STORE)


@dataclass(frozen=True, slots=True)
class ReleaseOutcome:
    n: int
    hash: str
    draft: DraftState


def _released(shop: ShopDep, n: int, digest: str) -> ReleaseOutcome:
    return ReleaseOutcome(n, digest, draft_state(shop, shop.drafts.read()))


@router.get("/release", response_model=ReleaseView)
def read(shop: ShopDep) -> Response:
    """Return the newest release, and how the draft differs from it."""
    return as_json(publish.view_release(shop))


@router.get("/release/{n}.json", response_class=Response)
def release_file(n: Annotated[int, Path(ge=0, le=2**31 - 1)], shop: ShopDep) -> Response:
    """Return a release as JSON; the newest for 0. Its schema is at /schema/release."""
    return _file(write_release(shop, n), f"{shop.store.key}-release-{n}.json")


@router.get("/trials/{number}/readout.json", response_class=Response, responses=problems(409))
def readout_file(number: Number, shop: ShopDep, parts: PartsDep) -> Response:
    """Return a trial's readout as JSON. Its schema is at /schema/readout."""
    return _file(write_readout(shop, number, parts.clock()), f"{shop.store.key}-trial-{number}.json")


def _file(text: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, media_type="application/json; charset=utf-8", headers=headers)


@router.post("/release", responses=OF_VERSION)
def release(body: Publish, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> ReleaseOutcome:
    """Release the draft as it was seen."""
    published = publish.publish(shop, body.note, person, parts.clock(), body.despite, version=version)
    return _released(shop, published.n, published.hash)


@router.post("/release/{n}/take-back", responses=OF_VERSION)
def take_back(
    n: Number, body: Publish, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> ReleaseOutcome:
    """Release an earlier release's settings again; the draft that was seen follows."""
    published = publish.take_back(shop, n, person, parts.clock(), body.despite, version=version)
    return _released(shop, published.n, published.hash)


@router.get("/trials")
def all_trials(shop: ShopDep) -> list[Trial]:
    """Return every trial of the store."""
    return shop.trials.all()


@router.post("/trials", status_code=201, responses=OF_VERSION)
def draw_trial(body: NewTrial, shop: ShopDep, person: VisitorDep, release: VersionDep, parts: PartsDep) -> Trial:
    """Draw a trial on the release whose number If-Match tells: its buttons are what A is."""
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
        release=release,
    )


@router.get("/trials/{number}")
def one_trial(number: Number, shop: ShopDep, parts: PartsDep) -> TrialView:
    """Return a trial with what it says now."""
    return trials.view_trial(shop, number, parts.clock())


@router.patch("/trials/{number}", responses=OF_VERSION)
def change_trial(
    number: Number, body: TrialChange, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> TrialView:
    """Change a trial that has not started."""
    now = parts.clock()
    trials.change_trial(
        shop,
        number,
        now,
        version=version,
        question=body.question,
        patch=body.patch,
        decides=body.decides,
        relative_difference=body.relative_difference,
    )
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/start", responses=OF_VERSION)
def start_trial(
    number: Number, body: TrialStart, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep
) -> TrialView:
    """Start a trial."""
    now = parts.clock()
    trials.start_trial(shop, number, now, version=version, days_ago=body.days_ago)
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/keep-b", responses=OF_VERSION)
def keep_b(number: Number, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> TrialView:
    """Keep version B: it becomes part of the draft."""
    now = parts.clock()
    trials.keep_b(shop, number, person, now, version=version)
    return trials.view_trial(shop, number, now)


@router.post("/trials/{number}/close", responses=OF_VERSION)
def close_trial(number: Number, shop: ShopDep, person: VisitorDep, version: VersionDep, parts: PartsDep) -> TrialView:
    """End a trial without keeping B."""
    now = parts.clock()
    trials.close_trial(shop, number, now, version=version)
    return trials.view_trial(shop, number, now)
