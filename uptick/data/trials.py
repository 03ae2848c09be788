"""Trials of a store."""

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from sqlalchemy import Connection, Row, func, insert, select, update

from uptick.core.errors import NotFound, Stale
from uptick.core.rules.reach import Reach
from uptick.core.trial.plan import Plan
from uptick.core.trial.readout import Measure
from uptick.core.trial.record import Trial, TrialState
from uptick.data.tables import trials


class PgTrials:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

    def all(self) -> list[Trial]:
        rows = self._db.execute(select(trials).where(trials.c.store_id == self._store).order_by(trials.c.number.desc()))
        return [_trial(row) for row in rows]

    def get(self, number: int) -> Trial:
        row = self._db.execute(
            select(trials).where(trials.c.store_id == self._store, trials.c.number == number)
        ).one_or_none()
        if row is None:
            raise NotFound(f"There is no trial {number}.", trial=number)
        return _trial(row)

    def add(self, trial: Trial) -> Trial:
        newest = self._db.execute(
            select(func.coalesce(func.max(trials.c.number), 0)).where(trials.c.store_id == self._store)
        ).scalar_one()
        values = {**_values(trial), "number": newest + 1}
        self._db.execute(insert(trials).values(store_id=self._store, **values))
        return self.get(newest + 1)

    def freeze(self, number: int, products: Sequence[str]) -> None:
        """Keep the products that a trial counts from its start on, whatever becomes of the catalogue."""
        this = (trials.c.store_id == self._store, trials.c.number == number)
        self._db.execute(update(trials).where(*this).values(covered=list(products)))

    def save(self, trial: Trial) -> None:
        this = (trials.c.store_id == self._store, trials.c.number == trial.number, trials.c.version == trial.version)
        values = {**_values(trial), "version": trial.version + 1}
        # Two who change it at once have seen the same version; one of them is told.
        if self._db.execute(update(trials).where(*this).values(**values)).rowcount == 0:
            raise Stale(f"Trial {trial.number} was changed meanwhile.", version=self.get(trial.number).version)


def _values(trial: Trial) -> dict[str, Any]:
    values = {name: getattr(trial, name) for name in Trial.__slots__}
    values["reach"] = trial.reach.model_dump(mode="json")
    values["mixed_by"] = list(trial.mixed_by)
    values["plan"] = asdict(trial.plan) if trial.plan else None
    # As text, so that 0.1 stays 0.1.
    values["relative_difference"] = repr(trial.relative_difference)
    return values


def _trial(row: Row[Any]) -> Trial:
    return Trial(
        number=row.number,
        question=row.question,
        reach=Reach.model_validate(row.reach),
        layer=row.layer,
        decides=Measure(row.decides),
        relative_difference=float(row.relative_difference),
        window_days=row.window_days,
        state=TrialState(row.state),
        salt=row.salt,
        plan=Plan(**row.plan) if row.plan else None,
        started_at=row.started_at,
        closed_at=row.closed_at,
        kept=row.kept,
        record=row.record,
        version=row.version,
        mixed_by=tuple(row.mixed_by),
    )
