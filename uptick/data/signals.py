"""Signals committed in groups: COPY into a temporary table, and from there set by set, in one transaction."""

from collections import Counter
from collections.abc import Sequence
from datetime import date
from uuid import UUID

from sqlalchemy import Connection, Engine, text

from uptick.core.signals import Kind, Signal
from uptick.core.trial.assign import assign_version
from uptick.core.trial.record import SHARES
from uptick.data.database import add_event_days
from uptick.usecases.serving import StoreBatch

_COLUMNS = (
    "store_id, id, day, kind, at, shopper, visit, release_n, place, product, order_no, line, quantity, value_minor, "
    "device, language"
)
_TYPES = (
    "int4", "uuid", "date", "text", "timestamptz", "text", "text", "int4", "text", "text", "text", "text", "int4",
    "int8", "text", "text",
)  # fmt: skip

_PREPARE = (
    f"CREATE TEMP TABLE IF NOT EXISTS incoming ON COMMIT DELETE ROWS AS SELECT {_COLUMNS} FROM events WITH NO DATA",
    "CREATE TEMP TABLE IF NOT EXISTS touched (store_id int4, trial int4, shopper text, letter text, for_days interval, "
    "kind text, at timestamptz) ON COMMIT DELETE ROWS",
)

# An order line counts once whatever way it comes; the first event that brought it keeps it.
_ORDERS = (
    "INSERT INTO order_lines (store_id, order_no, line, event_id) "
    "SELECT DISTINCT ON (store_id, order_no, line) store_id, order_no, line, id FROM incoming WHERE kind = 'ordered' "
    "ORDER BY store_id, order_no, line, id ON CONFLICT DO NOTHING",
    "DELETE FROM incoming i USING order_lines o WHERE i.kind = 'ordered' AND o.store_id = i.store_id "
    "AND o.order_no = i.order_no AND o.line = i.line AND o.event_id <> i.id RETURNING i.id",
)

_EVENTS = f"""
WITH kept AS (
    INSERT INTO events ({_COLUMNS}) SELECT {_COLUMNS} FROM incoming
    ON CONFLICT DO NOTHING RETURNING store_id, day, place, kind
), counted AS (
    INSERT INTO day_tallies (store_id, day, place, kind, part, count)
    SELECT store_id, day, place, kind, :part, count(*) FROM kept GROUP BY 1, 2, 3, 4 ORDER BY 1, 2, 3, 4
    ON CONFLICT (store_id, day, place, kind, part) DO UPDATE SET count = day_tallies.count + excluded.count
)
SELECT count(*) FROM kept
"""

# Locked in sorted order before anything is read: of two edges that hold the same shopper the second waits here, and
# its next statement then sees what the first one committed.
_LOCK = """
INSERT INTO trial_shoppers (store_id, trial, shopper, letter)
SELECT DISTINCT store_id, trial, shopper, letter FROM touched ORDER BY store_id, trial, shopper
ON CONFLICT (store_id, trial, shopper) DO UPDATE SET letter = excluded.letter
"""

_TOLD = """
INSERT INTO trial_events (store_id, trial, shopper, kind, at)
SELECT store_id, trial, shopper, kind, at FROM touched ORDER BY 1, 2, 3, 4, 5 ON CONFLICT DO NOTHING
"""

# Worked out afresh from all that a touched shopper has done in the trial, so that the order of arrival cannot matter.
_FOLLOW = """
UPDATE trial_shoppers s
SET entered_at = f.entered_at, clicked_at = f.clicked_at, added_at = f.added_at, ordered_at = f.ordered_at
FROM (
    SELECT n.store_id, n.trial, n.shopper, n.entered_at,
        min(e.at) FILTER (WHERE e.kind = 'clicked') AS clicked_at,
        min(e.at) FILTER (WHERE e.kind = 'added') AS added_at,
        min(e.at) FILTER (WHERE e.kind = 'ordered') AS ordered_at
    FROM (
        SELECT t.store_id, t.trial, t.shopper, t.for_days, min(e.at) AS entered_at
        FROM (SELECT DISTINCT store_id, trial, shopper, for_days FROM touched) t
        JOIN trial_events e USING (store_id, trial, shopper)
        WHERE e.kind = 'shown'
        GROUP BY 1, 2, 3, 4
    ) n
    LEFT JOIN trial_events e ON e.store_id = n.store_id AND e.trial = n.trial AND e.shopper = n.shopper
        AND e.kind <> 'shown' AND e.at >= n.entered_at AND e.at < n.entered_at + n.for_days
    GROUP BY 1, 2, 3, 4
) f
WHERE s.store_id = f.store_id AND s.trial = f.trial AND s.shopper = f.shopper
"""

_REFUSED = text(
    "INSERT INTO refusals (store_id, day, reason, count) VALUES (:store, :day, :reason, :count) "
    "ON CONFLICT (store_id, day, reason) DO UPDATE SET count = refusals.count + excluded.count"
)


class SignalWriter:
    """Writes groups of signals. One a process; `part` spreads the tallies of several processes over rows."""

    def __init__(self, engine: Engine, part: int) -> None:
        self._engine = engine
        self._part = part
        self._days: set[date] = set()

    def write(self, batches: Sequence[StoreBatch], today: date) -> int:
        """Commit a group; return how many events were new. When this returns, they are committed."""
        signals = [(batch, signal) for batch in batches for signal in batch.signals]
        self._require_days({signal.day.date() for _, signal in signals})
        with self._engine.begin() as db:
            kept = 0
            if signals:
                twice = self._write_incoming(db, signals)
                kept = int(db.execute(text(_EVENTS), {"part": self._part}).scalar_one())
                self._follow(db, batches, twice)
            self._count_refused(db, batches, today)
            return kept

    def _require_days(self, days: set[date]) -> None:
        lacking = days - self._days
        if lacking:
            with self._engine.begin() as db:
                add_event_days(db, lacking)
            self._days |= lacking

    def _write_incoming(self, db: Connection, signals: Sequence[tuple[StoreBatch, Signal]]) -> set[UUID]:
        """Copy the group in; return the ids of order lines that had come before under another id."""
        for statement in _PREPARE:
            db.exec_driver_sql(statement)
        driver = db.connection.driver_connection
        assert driver is not None
        with driver.cursor().copy(f"COPY incoming ({_COLUMNS}) FROM STDIN (FORMAT BINARY)") as copy:
            copy.set_types(_TYPES)
            for batch, s in signals:
                copy.write_row(
                    (
                        batch.store_id, s.id, s.day.date(), s.kind.value, s.at, s.shopper, s.visit, s.release, s.place,
                        s.product, s.order, s.line, s.quantity, s.value_minor, s.device, s.language,
                    )
                )  # fmt: skip
        if not any(signal.kind is Kind.ORDERED for _, signal in signals):
            return set()
        db.exec_driver_sql(_ORDERS[0])
        return set(db.exec_driver_sql(_ORDERS[1]).scalars())

    def _follow(self, db: Connection, batches: Sequence[StoreBatch], twice: set[UUID]) -> None:
        touched = [
            (
                batch.store_id, scope.number, signal.shopper,
                assign_version(scope.version_salt, signal.shopper, SHARES), scope.window, signal.kind.value, signal.at,
            )
            for batch in batches
            for scope in batch.trials
            for signal in batch.signals
            if scope.concerns(signal) and signal.id not in twice
        ]  # fmt: skip
        if not touched:
            return
        driver = db.connection.driver_connection
        assert driver is not None
        with driver.cursor().copy("COPY touched FROM STDIN (FORMAT BINARY)") as copy:
            copy.set_types(("int4", "int4", "text", "text", "interval", "text", "timestamptz"))
            for row in touched:
                copy.write_row(row)
        for statement in (_LOCK, _TOLD, _FOLLOW):
            db.exec_driver_sql(statement)

    def _count_refused(self, db: Connection, batches: Sequence[StoreBatch], today: date) -> None:
        counts: Counter[tuple[int, str]] = Counter()
        for batch in batches:
            for reason, count in batch.refused.items():
                counts[batch.store_id, reason] += count
        for (store, reason), count in sorted(counts.items()):
            db.execute(_REFUSED, {"store": store, "day": today, "reason": reason, "count": count})
