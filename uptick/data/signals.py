"""Signals committed in groups, by COPY and set by set, each group in one transaction."""

from collections import Counter
from collections.abc import Collection, Sequence
from datetime import date, datetime
from uuid import UUID

from psycopg import OperationalError as PsycopgOperationalError
from psycopg.errors import UniqueViolation
from sqlalchemy import Connection, Engine, text
from sqlalchemy.exc import InterfaceError, OperationalError

from uptick.core.shop.signals import Signal, SignalKind
from uptick.core.trial.assign import assign_version
from uptick.core.trial.record import SHARES
from uptick.data.database import add_event_days
from uptick.usecases.serving import StoreBatch, TrialScope, Unavailable

_COLUMNS = (
    "store_id, id, day, kind, at, shopper, visit, release_n, place, product, order_no, line, quantity, value_minor, "
    "device, language, seen_as, situation, shopper_kind"
)
_TYPES = (
    "int4", "uuid", "date", "text", "timestamptz", "text", "text", "int4", "text", "text", "text", "text", "int4",
    "int8", "text", "text", "text", "text", "text",
)  # fmt: skip

# Each connection's own: tables made once and emptied by every commit.
_OWN = (
    f"CREATE TEMP TABLE IF NOT EXISTS incoming ON COMMIT DELETE ROWS AS SELECT {_COLUMNS} FROM events WITH NO DATA",
    "CREATE TEMP TABLE IF NOT EXISTS touched (store_id int4, trial int4, shopper text, letter text, for_days interval, "
    "kind text, at timestamptz) ON COMMIT DELETE ROWS",
    # Every join here looks a few shoppers up by their key. Before its tables are analysed the planner would rather
    # read them whole, and a group would cost the more the larger the trial is.
    "SET enable_hashjoin = off",
    "SET enable_mergejoin = off",
)

# An order line counts once for a shopper, however often a page tells of it; the first event that brought it keeps it.
_ORDERS = (
    "INSERT INTO order_lines (store_id, order_no, line, shopper, event_id) "
    "SELECT DISTINCT ON (store_id, order_no, line, shopper) store_id, order_no, line, shopper, id FROM incoming "
    "WHERE kind = 'ordered' ORDER BY store_id, order_no, line, shopper, id ON CONFLICT DO NOTHING",
    "DELETE FROM incoming i USING order_lines o WHERE i.kind = 'ordered' AND o.store_id = i.store_id "
    "AND o.order_no = i.order_no AND o.line = i.line AND o.shopper = i.shopper AND o.event_id <> i.id RETURNING i.id",
)

_EVENTS = f"""
WITH kept AS (
    INSERT INTO events ({_COLUMNS}) SELECT {_COLUMNS} FROM incoming
    ON CONFLICT DO NOTHING RETURNING store_id, day, place, seen_as, kind
), counted AS (
    INSERT INTO day_tallies (store_id, day, place, seen_as, kind, part, count)
    SELECT store_id, day, place, seen_as, kind, :part, count(*) FROM kept GROUP BY 1, 2, 3, 4, 5 ORDER BY 1, 2, 3, 4, 5
    ON CONFLICT (store_id, day, place, seen_as, kind, part) DO UPDATE SET count = day_tallies.count + excluded.count
)
SELECT count(*) FROM kept
"""

_TALLY = text("""
INSERT INTO day_tallies (store_id, day, place, seen_as, kind, part, count)
VALUES (:store, :day, :place, :seen_as, :kind, :part, :count)
ON CONFLICT (store_id, day, place, seen_as, kind, part) DO UPDATE SET count = day_tallies.count + excluded.count
""")

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
# Each LATERAL is one look at a shopper's own few rows by the key.
_FOLLOW = """
UPDATE trial_shoppers s
SET entered_at = n.entered_at, clicked_at = f.clicked_at, added_at = f.added_at, ordered_at = f.ordered_at
FROM (SELECT DISTINCT store_id, trial, shopper, for_days FROM touched) t
CROSS JOIN LATERAL (
    SELECT min(e.at) AS entered_at FROM trial_events e
    WHERE e.store_id = t.store_id AND e.trial = t.trial AND e.shopper = t.shopper AND e.kind = 'shown'
) n
CROSS JOIN LATERAL (
    SELECT min(e.at) FILTER (WHERE e.kind = 'clicked') AS clicked_at,
        min(e.at) FILTER (WHERE e.kind = 'added') AS added_at,
        min(e.at) FILTER (WHERE e.kind = 'ordered') AS ordered_at
    FROM trial_events e
    WHERE e.store_id = t.store_id AND e.trial = t.trial AND e.shopper = t.shopper
        AND e.kind <> 'shown' AND e.at >= n.entered_at AND e.at < n.entered_at + t.for_days
) f
WHERE s.store_id = t.store_id AND s.trial = t.trial AND s.shopper = t.shopper AND n.entered_at IS NOT NULL
"""

_REFUSED = text(
    "INSERT INTO refusals (store_id, day, reason, count) VALUES (:store, :day, :reason, :count) "
    "ON CONFLICT (store_id, day, reason) DO UPDATE SET count = refusals.count + excluded.count"
)


def _touched(batch: StoreBatch, scope: TrialScope, twice: Collection[UUID]) -> list[tuple[object, ...]]:
    """Return what a trial has to know of a batch; of a shopper's showings only the first can matter."""
    letters: dict[str, str] = {}
    first_shown: dict[str, datetime] = {}
    rows: list[tuple[object, ...]] = []
    for signal in batch.signals:
        if signal.id in twice or not scope.concerns(signal):
            continue
        shopper, kind, at = signal.shopper, signal.kind, signal.at
        if shopper not in letters:
            letters[shopper] = assign_version(scope.version_salt, shopper, SHARES)
        if kind is SignalKind.SHOWN:
            first_shown[shopper] = min(at, first_shown.get(shopper, at))
        else:
            rows.append((batch.store_id, scope.number, shopper, letters[shopper], scope.window, kind.value, at))
    for shopper, at in first_shown.items():
        rows.append((batch.store_id, scope.number, shopper, letters[shopper], scope.window, SignalKind.SHOWN.value, at))
    return rows


Incoming = list[tuple[int, Signal]]


class SignalWriter:
    """Writes groups of signals. One a process; `part` spreads the tallies of several processes over rows."""

    def __init__(self, engine: Engine, part: int) -> None:
        self._engine = engine
        self._part = part
        self._days: set[date] = set()

    def write(self, batches: Sequence[StoreBatch], today: date) -> int:
        """Commit a group; return how many events were new. When this returns, they are committed.

        Raises:
            Unavailable: The database cannot be reached.
        """
        try:
            return self._write(batches, today)
        except (OperationalError, InterfaceError, PsycopgOperationalError) as error:
            raise Unavailable(type(error).__name__) from error

    def _write(self, batches: Sequence[StoreBatch], today: date) -> int:
        """Commit a group.

        Nearly always all are new, so they are copied straight in; only when one of them is there already does the group
        go through a temporary table, where those that are there are passed over. Orders go that way always.
        """
        signals = [(batch.store_id, signal) for batch in batches for signal in batch.signals]
        # In one order for every edge, so that two with the same events wait for each other and never in a circle.
        signals.sort(key=lambda pair: (pair[0], pair[1].id.int))
        self._require_days({signal.day for _, signal in signals})
        orders = [pair for pair in signals if pair[1].kind is SignalKind.ORDERED]
        others = [pair for pair in signals if pair[1].kind is not SignalKind.ORDERED] if orders else signals
        with self._engine.connect() as db:
            self._prepare(db)
            with db.begin():
                kept, twice = 0, set[UUID]()
                if others and not self._copy_new(db, others):
                    orders = signals
                else:
                    kept = len(others)
                if orders:
                    twice = self._copy_incoming(db, orders)
                    kept += int(db.execute(text(_EVENTS), {"part": self._part}).scalar_one())
                self._follow(db, batches, twice)
                self._count_refused(db, batches, today)
        return kept

    def _require_days(self, days: set[date]) -> None:
        lacking = days - self._days
        if lacking:
            with self._engine.begin() as db:
                add_event_days(db, lacking)
            self._days |= lacking

    def _prepare(self, db: Connection) -> None:
        if not db.info.get("is_prepared"):
            for statement in _OWN:
                db.exec_driver_sql(statement)
            db.commit()
            db.info["is_prepared"] = True

    def _copy_new(self, db: Connection, signals: Incoming) -> bool:
        """Copy events that are all new; say whether they were, and leave nothing of them if not."""
        try:
            with db.begin_nested():
                self._copy(db, "events", signals)
        except UniqueViolation:
            return False
        counts = Counter(
            (store, signal.day, signal.place, signal.seen_as, signal.kind.value) for store, signal in signals
        )
        names = ("store", "day", "place", "seen_as", "kind")
        rows = [
            {**dict(zip(names, key, strict=True)), "part": self._part, "count": n} for key, n in sorted(counts.items())
        ]
        db.execute(_TALLY, rows)
        return True

    def _copy_incoming(self, db: Connection, signals: Incoming) -> set[UUID]:
        """Copy into the temporary table; return the ids of order lines that had come before under another id."""
        self._copy(db, "incoming", signals)
        if not any(signal.kind is SignalKind.ORDERED for _, signal in signals):
            return set()
        db.exec_driver_sql(_ORDERS[0])
        return set(db.exec_driver_sql(_ORDERS[1]).scalars())

    def _copy(self, db: Connection, table: str, signals: Incoming) -> None:
        driver = db.connection.driver_connection
        assert driver is not None
        with driver.cursor().copy(f"COPY {table} ({_COLUMNS}) FROM STDIN (FORMAT BINARY)") as copy:
            copy.set_types(_TYPES)
            for store, s in signals:
                copy.write_row(
                    (
                        store, s.id, s.day, s.kind.value, s.at, s.shopper, s.visit, s.release, s.place, s.product,
                        s.order, s.line, s.quantity, s.value_minor, s.device, s.language, s.seen_as, s.situation,
                        s.shopper_kind,
                    )
                )  # fmt: skip

    def _follow(self, db: Connection, batches: Sequence[StoreBatch], twice: Collection[UUID]) -> None:
        touched = [row for batch in batches for scope in batch.trials for row in _touched(batch, scope, twice)]
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
