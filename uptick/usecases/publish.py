"""Releasing the draft, and taking a release back."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from uptick.core.button.document import Placement
from uptick.core.button.merge import Json
from uptick.core.checks import Found, Weight, seen_in
from uptick.core.errors import FindingsLeft, NothingToRelease, Stale, TrialUnderway
from uptick.core.release import CompiledRelease, compile_release, compile_version
from uptick.core.resolved.differences import ButtonChange, FieldChange, changes_between, touches
from uptick.core.rules.pointed import PointedPlace
from uptick.core.rules.settings import Settings
from uptick.core.trial.record import SHARES, Trial, TrialState
from uptick.usecases.ports import Draft, Person, Release, Shop
from uptick.usecases.state import DraftState, Shown, State, draft_state, show, telling_language, telling_moment


@dataclass(frozen=True, slots=True)
class ChangeView:
    """One kind of button that the release would change, both ways rendered, in the state where it shows."""

    placement: Placement
    products: int
    example: str
    before: Shown
    after: Shown
    state: State
    fields: tuple[FieldChange, ...]
    under_trial: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class LedgerLine:
    """A release without what it holds; `seen` says on how many kinds of page it was seen live, once looked at."""

    n: int
    hash: str
    note: str
    author: str
    made_at: datetime
    seen: str


@dataclass(frozen=True, slots=True)
class PlaceChange:
    """A place that was pointed at and that the release would add, take away or change; None where there is none."""

    before: PointedPlace | None
    after: PointedPlace | None


@dataclass(frozen=True, slots=True)
class ReleaseView:
    """What a release would change; with `is_other` it would change something, whether or not that can be drawn."""

    draft: DraftState
    is_other: bool
    changes: tuple[ChangeView, ...]
    places: tuple[PlaceChange, ...]
    must_fix: int
    ledger: tuple[LedgerLine, ...]


def view_release(shop: Shop) -> ReleaseView:
    """Return what has changed since the newest release, what must be fixed, and the ledger."""
    draft = shop.drafts.read()
    looks = shop.side.looks()
    newest = shop.releases.newest()
    changes = changes_between(shop.at(newest.settings), shop.at(draft.settings)) if newest else ()
    return ReleaseView(
        draft=draft_state(shop, draft),
        is_other=not newest or newest.settings != draft.settings,
        places=_place_changes(newest.settings.pointed if newest else {}, draft.settings.pointed),
        changes=tuple(_change(shop, change) for change in changes),
        must_fix=len(_must_fix(shop, draft)),
        ledger=tuple(
            LedgerLine(r.n, r.hash, r.note, r.author, r.made_at, str(looks.get(r.n, {}).get("sentence", "")))
            for r in shop.releases.all()
        ),
    )


def _place_changes(before: Mapping[str, PointedPlace], after: Mapping[str, PointedPlace]) -> tuple[PlaceChange, ...]:
    both = {**before, **after}
    pairs = ((before.get(name), after.get(name)) for name in both)
    return tuple(PlaceChange(was, now) for was, now in pairs if was != now)


def _must_fix(shop: Shop, draft: Draft) -> list[Found]:
    return [finding for finding in seen_in(shop.at(draft.settings)) if finding.weight is Weight.MUST_FIX]


def _change(shop: Shop, change: ButtonChange) -> ChangeView:
    example = change.products[0]
    moment, state = telling_moment(change.fields, example)
    language = telling_language([f.path for f in change.fields], shop.store.language)
    running = [t for t in shop.trials.all() if t.state is TrialState.RUNNING]
    return ChangeView(
        placement=change.placement,
        products=len(change.products),
        example=example.name,
        before=show(shop, change.before, moment, example, language),
        after=show(shop, change.after, moment, example, language),
        state=state,
        fields=change.fields,
        under_trial=tuple(t.number for t in running if touches([change], t.version_b)),
    )


def require_seen(seen: int | None, now: int, what: str) -> None:
    """Refuse a step that was taken in sight of another version; None is the command line, which looks at nothing.

    Raises:
        Stale: It has changed meanwhile.
    """
    if seen is not None and seen != now:
        raise Stale(
            f"{what} was changed meanwhile. Look at what is there now, then do it again.", version=now, base=seen
        )


def publish(
    shop: Shop, note: str, person: Person, now: datetime, despite: Collection[str] = (), *, version: int | None = None
) -> Release:
    """Release the draft under the next number.

    Args:
        version: The draft's version that was seen.
        despite: What to go on in spite of: `findings`, `trial`.

    Raises:
        Stale: The draft was changed meanwhile.
        NothingToRelease: The draft equals the newest release.
        FindingsLeft: Something must be fixed and `findings` is not in `despite`.
        TrialUnderway: A button under trial would change and `trial` is not in `despite`.
    """
    shop.hold()
    draft = shop.drafts.read()
    require_seen(version, draft.version, "The draft")
    newest = shop.releases.newest()
    if newest and newest.settings == draft.settings:
        raise NothingToRelease(f"Nothing has changed since release {newest.n}.", release=newest.n)
    mixed = _trials_mixed(shop, draft.settings, despite)
    must = _must_fix(shop, draft)
    if must and "findings" not in despite:
        raise FindingsLeft(f"{len(must)} must be fixed first: {must[0].title}.", findings=len(must))
    compiled = compile_release(shop.as_written(draft.settings), shop.today)
    release = shop.releases.add(draft.settings, compiled, note, person.name, now)
    _note_mixed(shop, mixed, release.n)
    serve_trials(shop, now)
    return release


def _trials_mixed(shop: Shop, settings: Settings, despite: Collection[str]) -> list[Trial]:
    """Return the running trials over whose buttons other settings would be released.

    Raises:
        TrialUnderway: There is one, and `trial` is not in `despite`.
    """
    newest = shop.releases.newest()
    if newest is None:
        return []
    running = [trial for trial in shop.trials.all() if trial.state is TrialState.RUNNING]
    changes = changes_between(shop.at(newest.settings), shop.at(settings)) if running else ()
    mixed = [trial for trial in running if touches(changes, trial.version_b)]
    if mixed and "trial" not in despite:
        raise TrialUnderway(
            f"Trial {mixed[0].number} compares a button that this release changes. Its numbers would mix two buttons.",
            trial=mixed[0].number,
        )
    return mixed


def _note_mixed(shop: Shop, trials: Sequence[Trial], release: int) -> None:
    """Keep with every trial that a release changed its buttons, so that its verdict can say so."""
    for trial in trials:
        shop.trials.save(replace(trial, mixed_by=(*trial.mixed_by, release)))


def take_back(
    shop: Shop, n: int, person: Person, now: datetime, despite: Collection[str] = (), *, version: int | None = None
) -> Release:
    """Release the settings of an earlier release again, under a new number; the draft follows.

    Raises:
        NotFound: There is no such release.
        NothingToRelease: It is the newest one.
        Stale, TrialUnderway: As for `publish`.
    """
    shop.hold()
    require_seen(version, shop.drafts.read().version, "The draft")
    earlier, newest = shop.releases.get(n), shop.releases.newest()
    if newest and newest.settings == earlier.settings:
        raise NothingToRelease(f"The shop already shows what release {n} showed.", release=n)
    mixed = _trials_mixed(shop, earlier.settings, despite)
    draft = shop.drafts.read()
    shop.drafts.append(draft.version, earlier.settings, f"Rolled back to release {n}", person, now)
    compiled = compile_release(shop.as_written(earlier.settings), shop.today)
    release = shop.releases.add(earlier.settings, compiled, f"Rolled back to release {n}", person.name, now)
    _note_mixed(shop, mixed, release.n)
    serve_trials(shop, now)
    return release


def serve_trials(shop: Shop, now: datetime) -> None:
    """Compile every trial that is not closed on the newest release, as the next revision beside it.

    Drawn ones go along so that a link can force their version B; the script deals only running ones.
    """
    newest = shop.releases.newest()
    if newest is None:
        return
    snapshot = shop.as_written(newest.settings)
    compiled: list[Json] = []
    for trial in reversed(shop.trials.all()):
        if trial.state is TrialState.CLOSED:
            continue
        compiled.append(
            {
                "id": str(trial.number),
                "running": trial.state is TrialState.RUNNING,
                "salt": trial.version_salt,
                "shares": SHARES,
                "reach": trial.reach.narrowed(),
                "B": compile_version(snapshot, trial.version_b, shop.today),
            }
        )
    shop.releases.set_trials(newest.n, {"trials": compiled}, now)


def draft_manifest(shop: Shop, tried: Settings | None = None) -> CompiledRelease:
    """Return the draft, or settings that are tried, in compiled form, for looking at them on the shop's own pages."""
    return compile_release(shop.as_written(tried or shop.drafts.read().settings), shop.today)
