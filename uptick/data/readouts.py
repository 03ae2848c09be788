"""What the signals of a store add up to."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from typing import Any

from sqlalchemy import Connection, func, select, text

from uptick.core.rules.reach import Reach
from uptick.core.trial.readout import Tally
from uptick.core.trial.record import Trial
from uptick.data.tables import day_tallies, refusals
from uptick.usecases.ports import Pace, TrialCount
from uptick.usecases.serving import seen_in

_PACE_DAYS = 14

# Where something was seen, by all that a reach can narrow but the product; the reach itself says which of it counts.
_SEEN = text("""
SELECT DISTINCT place, situation, device, language, shopper_kind FROM events
WHERE store_id = :store AND kind IN ('shown', 'added') AND shopper <> '' AND day >= :look_back AND at < :now
""")

# First showings within the last weeks; a shopper who was there before them is no newcomer.
_PACE = text("""
WITH seen AS (
    SELECT * FROM unnest(CAST(:places AS text[]), CAST(:situations AS text[]), CAST(:devices AS text[]),
        CAST(:languages AS text[]), CAST(:kinds AS text[])) AS t(place, situation, device, language, shopper_kind)
), first AS (
    SELECT shopper, min(at) AS entered_at
    FROM events
    WHERE store_id = :store AND kind = 'shown' AND shopper <> ''
      AND (place, situation, device, language, shopper_kind) IN (SELECT * FROM seen)
      AND (CAST(:products AS text[]) IS NULL OR product = ANY(:products)) AND day >= :look_back AND at < :now
    GROUP BY shopper
), followed AS (
    SELECT f.shopper,
        EXISTS (SELECT FROM events e WHERE e.store_id = :store AND e.shopper = f.shopper AND e.kind = 'added'
            AND (e.place, e.situation, e.device, e.language, e.shopper_kind) IN (SELECT * FROM seen)
            AND (CAST(:products AS text[]) IS NULL OR e.product = ANY(:products)) AND e.day >= :look_back
            AND e.at >= f.entered_at AND e.at < f.entered_at + :window) AS added,
        EXISTS (SELECT FROM events e WHERE e.store_id = :store AND e.shopper = f.shopper AND e.kind = 'ordered'
            AND (CAST(:products AS text[]) IS NULL OR e.product = ANY(:products)) AND e.day >= :look_back
            AND e.at >= f.entered_at AND e.at < f.entered_at + :window) AS ordered
    FROM first f
    WHERE f.entered_at >= :pace_start - :window AND f.entered_at < :now - :window
)
SELECT (SELECT count(*) FROM first WHERE entered_at >= :pace_start) AS entering,
    (SELECT min(entered_at) FROM first) AS earliest,
    count(*) AS followed, count(*) FILTER (WHERE added) AS added, count(*) FILTER (WHERE ordered) AS ordered
FROM followed
""")

# The reading is of the planned number of shoppers, the first that came, so that reading late or twice changes nothing.
_CUTOFF = text("""
SELECT entered_at FROM trial_shoppers
WHERE store_id = :store AND trial = :trial AND entered_at < :up
ORDER BY entered_at OFFSET :planned - 1 LIMIT 1
""")

_COUNT = text("""
SELECT letter, count(*) AS entered,
    count(*) FILTER (WHERE entered_at >= :up) AS inside,
    count(*) FILTER (WHERE entered_at < :up AND entered_at <= :cutoff) AS timed_up,
    count(clicked_at) FILTER (WHERE entered_at < :up AND entered_at <= :cutoff) AS clicked,
    count(added_at) FILTER (WHERE entered_at < :up AND entered_at <= :cutoff) AS added,
    count(ordered_at) FILTER (WHERE entered_at < :up AND entered_at <= :cutoff) AS ordered
FROM trial_shoppers WHERE store_id = :store AND trial = :trial AND entered_at IS NOT NULL
GROUP BY letter
""")


class SignalReadouts:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

    def pace(self, reach: Reach, products: Sequence[str] | None, window_days: int, now: datetime) -> Pace:
        """Return the pace of what a reach covers, counted as a trial counts it."""
        start = now - timedelta(days=_PACE_DAYS)
        values: dict[str, Any] = {
            "store": self._store,
            "products": list(products) if products is not None else None,
            "window": timedelta(days=window_days),
            "now": now,
            "pace_start": start,
            "look_back": (start - timedelta(days=_PACE_DAYS + window_days)).date(),
        }
        seen = [tuple(row) for row in self._db.execute(_SEEN, values) if reach.covers_where(seen_in(*row))]
        columns: list[list[str]] = [list(column) for column in zip(*seen, strict=True)] or [[]] * 5
        names = ("places", "situations", "devices", "languages", "kinds")
        row = self._db.execute(_PACE, {**values, **dict(zip(names, columns, strict=True))}).one()
        # A shop whose signals began a few days ago is not divided by the whole fortnight.
        days = max(1.0, min(_PACE_DAYS, (now - row.earliest) / timedelta(days=1))) if row.earliest else _PACE_DAYS
        return Pace(row.entering / days, row.followed, row.added, row.ordered)

    def count(self, trial: Trial, now: datetime) -> TrialCount:
        end = min(now, trial.closed_at) if trial.closed_at else now
        values: dict[str, Any] = {
            "store": self._store,
            "trial": trial.number,
            "up": end - timedelta(days=trial.window_days),
            "planned": trial.plan.total if trial.plan else 1,
        }
        cutoff = self._db.execute(_CUTOFF, values).scalar_one_or_none()
        rows = self._db.execute(_COUNT, {**values, "cutoff": cutoff or end}).all()
        tallies = {r.letter: Tally(r.letter, r.entered, r.timed_up, r.clicked, r.added, r.ordered) for r in rows}
        inside = sum(r.inside for r in rows)
        return TrialCount(
            tallies.get("A", Tally("A", 0, 0, 0, 0, 0)), tallies.get("B", Tally("B", 0, 0, 0, 0, 0)), inside
        )

    def tallies(self, since: date) -> dict[tuple[str, str], dict[str, int]]:
        """Return counts by kind, by placement and column of the plan; orders have neither."""
        c = day_tallies.c
        rows = self._db.execute(
            select(c.place, c.seen_as, c.kind, func.sum(c.count).label("total"))
            .where(c.store_id == self._store, c.day >= since)
            .group_by(c.place, c.seen_as, c.kind)
        )
        counts: dict[tuple[str, str], dict[str, int]] = {}
        for row in rows:
            counts.setdefault((row.place, row.seen_as), {})[row.kind] = int(row.total)
        return counts

    def refusals(self, since: date) -> dict[str, int]:
        c = refusals.c
        rows = self._db.execute(
            select(c.reason, func.sum(c.count).label("total"))
            .where(c.store_id == self._store, c.day >= since)
            .group_by(c.reason)
        )
        return {row.reason: int(row.total) for row in rows}
