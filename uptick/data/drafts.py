"""The draft of a store, kept as a row of whole steps so that undo and redo only move a pointer."""

from datetime import datetime

from sqlalchemy import Connection, Row, delete, insert, select, update

from uptick.core.errors import NothingToUndo, Stale
from uptick.core.settings import Settings
from uptick.data.tables import draft_steps, drafts
from uptick.usecases.ports import Draft, Step


class PgDrafts:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

    def read(self) -> Draft:
        return self._draft(self._row(lock=False))

    def append(self, base_version: int, settings: Settings, label: str, author: str, now: datetime) -> Draft:
        row = self._row(lock=True)
        if row.version != base_version:
            raise Stale(
                "The draft was changed meanwhile. Look at what is there now, then do it again.",
                version=row.version,
                base=base_version,
            )
        steps = draft_steps.c
        self._db.execute(delete(draft_steps).where(steps.store_id == self._store, steps.n > row.head))
        n = row.head + 1
        self._db.execute(
            insert(draft_steps).values(
                store_id=self._store,
                n=n,
                settings=settings.model_dump(mode="json"),
                label=label,
                author=author,
                made_at=now,
            )
        )
        self._set(head=n, newest=n, version=row.version + 1)
        return self.read()

    def move(self, steps: int) -> Draft:
        row = self._row(lock=True)
        head = row.head + steps
        if not 0 <= head <= row.newest:
            raise NothingToUndo("There is nothing more to undo." if steps < 0 else "There is nothing to redo.")
        self._set(head=head, newest=row.newest, version=row.version + 1)
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

    def _draft(self, row: Row[tuple[int, int, int, int]]) -> Draft:
        around = self._db.execute(
            select(draft_steps.c.n, draft_steps.c.label)
            .where(draft_steps.c.store_id == self._store, draft_steps.c.n.in_([row.head, row.head + 1]))
            .order_by(draft_steps.c.n)
        ).all()
        settings = self._db.execute(
            select(draft_steps.c.settings).where(draft_steps.c.store_id == self._store, draft_steps.c.n == row.head)
        ).scalar_one()
        labels = {step.n: step.label for step in around}
        return Draft(
            version=row.version,
            settings=Settings.model_validate(settings),
            undo_label=labels[row.head] if row.head > 0 else "",
            redo_label=labels.get(row.head + 1, ""),
        )
