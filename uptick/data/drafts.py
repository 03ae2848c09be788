"""The draft of a store, kept as a row of whole steps so that undo and redo only move a pointer."""

from datetime import datetime

from sqlalchemy import Connection, Row, bindparam, delete, select, text, update

from uptick.core.errors import NothingToUndo, Stale
from uptick.core.settings import Settings
from uptick.data.tables import draft_steps, drafts
from uptick.usecases.ports import Draft, Step

_READ = text("""
SELECT d.version, d.head, s.settings, s.label,
    (SELECT label FROM draft_steps WHERE store_id = d.store_id AND n = d.head + 1) AS redo_label
FROM drafts d JOIN draft_steps s ON s.store_id = d.store_id AND s.n = d.head WHERE d.store_id = :store
""").columns(settings=draft_steps.c.settings.type)


_APPEND = text("""
WITH step AS (
    INSERT INTO draft_steps (store_id, n, settings, label, author, made_at)
    VALUES (:store, :n, :settings, :label, :author, :now)
)
UPDATE drafts SET head = :n, newest = :n, version = version + 1 WHERE store_id = :store
""").bindparams(bindparam("settings", type_=draft_steps.c.settings.type))


class PgDrafts:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id
        self._now: Draft | None = None

    def read(self) -> Draft:
        """Return the draft; read once a transaction."""
        if self._now is None:
            row = self._db.execute(_READ, {"store": self._store}).one()
            undo = row.label if row.head > 0 else ""
            self._now = Draft(row.version, Settings.model_validate(row.settings), undo, row.redo_label or "")
        return self._now

    def append(self, base_version: int, settings: Settings, label: str, author: str, now: datetime) -> Draft:
        row = self._row(lock=True)
        if row.version != base_version:
            raise Stale(
                "The draft was changed meanwhile. Look at what is there now, then do it again.",
                version=row.version,
                base=base_version,
            )
        n = row.head + 1
        if row.newest > row.head:
            undone = draft_steps.c.n > row.head
            self._db.execute(delete(draft_steps).where(draft_steps.c.store_id == self._store, undone))
        step = {
            "store": self._store,
            "n": n,
            "settings": settings.model_dump(mode="json"),
            "label": label,
            "author": author,
            "now": now,
        }
        self._db.execute(_APPEND, step)
        self._now = Draft(row.version + 1, settings, label, "")
        return self._now

    def move(self, steps: int) -> Draft:
        row = self._row(lock=True)
        head = row.head + steps
        if not 0 <= head <= row.newest:
            raise NothingToUndo("There is nothing more to undo." if steps < 0 else "There is nothing to redo.")
        self._set(head=head, newest=row.newest, version=row.version + 1)
        self._now = None
        return self.read()

    def history(self, most: int) -> list[Step]:
        head = self._row(lock=False).head
        rows = self._db.execute(
            select(draft_steps.c.n, draft_steps.c.label, draft_steps.c.author, draft_steps.c.made_at)
            .where(draft_steps.c.store_id == self._store)
            .order_by(draft_steps.c.n.desc())
            .limit(most)
        )
        return [Step(r.n, r.label, r.author, r.made_at, r.n > head) for r in rows]

    def _row(self, *, lock: bool) -> Row[tuple[int, int, int, int]]:
        query = select(drafts).where(drafts.c.store_id == self._store)
        return self._db.execute(query.with_for_update() if lock else query).one()

    def _set(self, **values: int) -> None:
        self._db.execute(update(drafts).where(drafts.c.store_id == self._store).values(**values))
