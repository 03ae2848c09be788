"""Signals committed in groups: COPY into a temporary table, and from there set by set, in one transaction."""

from collections import Counter
from collections.abc import Sequence
from datetime import date, timedelta

from sqlalchemy import Connection, Engine, text

from uptick.core.signals import Kind, Signal
from uptick.core.trial.assign import assign_version
from uptick.core.trial.record import SHARES
from uptick.data.database import add_event_days
from uptick.usecases.serving import StoreBatch, TrialScope

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
    "CREATE TEMP TABLE IF NOT EXISTS touched (store_id int4, trial int4, shopper text, letter text) "
    "ON COMMIT DELETE ROWS",
    "CREATE TEMP TABLE IF NOT EXISTS scope (store_id int4, trial int4, places text[], products text[], "
    "started_at timestamptz, closed_at timestamptz, for_days interval) ON COMMIT DELETE ROWS",
)

# An order line counts once whatever way it comes; the first event that brought it keeps it.
_ORDERS = (
    "INSERT INTO order_lines (store_id, order_no, line, event_id) "
    "SELECT DISTINCT ON (store_id, order_no, line) store_id, order_no, line, id FROM incoming WHERE kind = 'ordered' "
    "ORDER BY store_id, order_no, line, id ON CONFLICT DO NOTHING",
    "DELETE FROM incoming i USING order_lines o WHERE i.kind = 'ordered' AND o.store_id = i.store_id "
    "AND o.order_no = i.order_no AND o.line = i.line AND o.event_id <> i.id RETURNING i.store_id, i.id, i.day",
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

# Worked out afresh from the events of the shoppers touched, so that the order of arrival cannot matter.
_FOLLOW = """
UPDATE trial_shoppers s
SET entered_at = f.entered_at, clicked_at = f.clicked_at, added_at = f.added_at, ordered_at = f.ordered_at
FROM (
    SELECT n.store_id, n.trial, n.shopper, n.entered_at,
        min(e.at) FILTER (WHERE e.kind = 'clicked' AND e.place = ANY(n.places)) AS clicked_at,
        min(e.at) FILTER (WHERE e.kind = 'added' AND e.place = ANY(n.places)) AS added_at,
        min(e.at) FILTER (WHERE e.kind = 'ordered') AS ordered_at
    FROM (
        SELECT t.store_id, t.trial, t.shopper, c.places, c.products, c.for_days, c.closed_at, min(e.at) AS entered_at
        FROM (SELECT DISTINCT store_id, trial, shopper FROM touched) t
        JOIN scope c USING (store_id, trial)
        JOIN events e ON e.store_id = t.store_id AND e.shopper = t.shopper AND e.kind = 'shown'
            AND e.place = ANY(c.places) AND (c.products IS NULL OR e.product = ANY(c.products))
            AND e.at >= c.started_at AND (c.closed_at IS NULL OR e.at < c.closed_at)
            AND e.day >= CAST(:first_day AS date)
        GROUP BY 1, 2, 3, 4, 5, 6, 7
    ) n
    LEFT JOIN events e ON e.store_id = n.store_id AND e.shopper = n.shopper AND e.kind <> 'shown'
        AND (n.products IS NULL OR e.product = ANY(n.products))
        AND e.at >= n.entered_at AND e.at < n.entered_at + n.for_days
        AND (n.closed_at IS NULL OR e.at < n.closed_at) AND e.day >= CAST(:first_day AS date)
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
            if signals:
                kept = self._write_events(db, signals)
                self._follow(db, batches)
            else:
                kept = 0
            self._count_refused(db, batches, today)
            return kept

    def _require_days(self, days: set[date]) -> None:
        lacking = days - self._days
        if lacking:
            with self._engine.begin() as db:
                add_event_days(db, lacking)
            self._days |= lacking

    def _write_events(self, db: Connection, signals: Sequence[tuple[StoreBatch, Signal]]) -> int:
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
        if any(signal.kind is Kind.ORDERED for _, signal in signals):
            db.exec_driver_sql(_ORDERS[0])
            db.exec_driver_sql(_ORDERS[1])
        return int(db.execute(text(_EVENTS), {"part": self._part}).scalar_one())

    def _follow(self, db: Connection, batches: Sequence[StoreBatch]) -> None:
        touched: set[tuple[int, int, str, str]] = set()
        scopes: dict[tuple[int, int], TrialScope] = {}
        for batch in batches:
            for scope in batch.trials:
                for signal in batch.signals:
                    if scope.concerns(signal):
                        letter = assign_version(scope.version_salt, signal.shopper, SHARES)
                        touched.add((batch.store_id, scope.number, signal.shopper, letter))
                        scopes[batch.store_id, scope.number] = scope
        if not touched:
            return
        db.execute(
            text("INSERT INTO scope VALUES (:store, :trial, :places, :products, :started, :closed, :window)"),
            [
                {
                    "store": store,
                    "trial": number,
                    "places": list(s.places),
                    "products": sorted(s.products) if s.products is not None else None,
                    "started": s.started_at,
                    "closed": s.closed_at,
                    "window": s.window,
                }
                for (store, number), s in scopes.items()
            ],
        )
        driver = db.connection.driver_connection
        assert driver is not None
        with driver.cursor().copy("COPY touched FROM STDIN (FORMAT BINARY)") as copy:
            copy.set_types(("int4", "int4", "text", "text"))
            for row in touched:
                copy.write_row(row)
        db.exec_driver_sql(_LOCK)
        first_day = min(s.started_at for s in scopes.values()).date() - timedelta(days=1)
        db.execute(text(_FOLLOW), {"first_day": first_day})

    def _count_refused(self, db: Connection, batches: Sequence[StoreBatch], today: date) -> None:
        counts: Counter[tuple[int, str]] = Counter()
        for batch in batches:
            for reason, count in batch.refused.items():
                counts[batch.store_id, reason] += count
        for (store, reason), count in sorted(counts.items()):
            db.execute(_REFUSED, {"store": store, "day": today, "reason": reason, "count": count})
