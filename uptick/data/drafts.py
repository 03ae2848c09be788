"""The draft of a store: a row of whole steps that only grows, so that everybody can take back what is theirs."""

from collections import OrderedDict
from datetime import datetime

from sqlalchemy import URL, Connection, Row, select, text

from uptick.core.errors import NotFound, Stale
from uptick.core.history import Mark, cancelled, redoable, undoable
from uptick.core.settings import Settings
from uptick.data.tables import draft_steps, drafts
from uptick.usecases.ports import Draft, Person, Step

# How far back a person can undo.
_MARKS = 200

_HEAD = text("SELECT version, head FROM drafts WHERE store_id = :store")
_READ_MARKS = text(
    "SELECT n, person_id, reverts, label FROM draft_steps WHERE store_id = :store ORDER BY n DESC LIMIT :most"
)
_APPEND = text("""
WITH step AS (
    INSERT INTO draft_steps (store_id, n, settings, label, author, made_at, person_id, reverts)
    VALUES (:store, :n, CAST(:settings AS jsonb), :label, :author, :now, :person, :reverts)
)
UPDATE drafts SET head = :n, version = version + 1 WHERE store_id = :store
""")

# A step never changes: its settings are read once, and what was computed from them is found again by them.
_kept: OrderedDict[tuple[URL, int, int, datetime], Settings] = OrderedDict()
_MOST_KEPT = 64


class PgDrafts:
    """The draft as one person sees it: undo and redo are their own."""

    def __init__(self, connection: Connection, store_id: int, person_id: int) -> None:
        self._db = connection
        self._store = store_id
        self._person = person_id
        self._now: Draft | None = None
        self._marks: list[Mark] | None = None

    def read(self) -> Draft:
        """Return the draft; read once a transaction."""
        if self._now is None:
            row = self._db.execute(_HEAD, {"store": self._store}).one()
            self._now = self._draft(row.version, self.settings_at(row.head))
        return self._now

    def _draft(self, version: int, settings: Settings) -> Draft:
        marks = self.marks()
        undo, redo = undoable(marks, self._person), redoable(marks, self._person)
        return Draft(version, settings, undo.label if undo else "", redo.label.removeprefix("Undone: ") if redo else "")

    def marks(self) -> list[Mark]:
        """Return the newest steps' marks, the newest first; read once a transaction, and what is appended is added."""
        if self._marks is None:
            rows = self._db.execute(_READ_MARKS, {"store": self._store, "most": _MARKS})
            self._marks = [Mark(n, person, reverts, label) for n, person, reverts, label in rows]
        return self._marks

    def settings_at(self, n: int) -> Settings:
        """Return the settings after a step.

        Raises:
            NotFound: There is no such step.
        """
        c = draft_steps.c
        here = (c.store_id == self._store, c.n == n)
        made_at = self._db.execute(select(c.made_at).where(*here)).scalar_one_or_none()
        if made_at is None:
            raise NotFound(f"There is no step {n} in the history.", step=n)
        key = (self._db.engine.url, self._store, n, made_at)
        kept = _kept.get(key)
        if kept is None:
            kept = Settings.model_validate(self._db.execute(select(c.settings).where(*here)).scalar_one())
            _keep(key, kept)
        return kept

    def append(
        self,
        base_version: int,
        settings: Settings,
        label: str,
        person: Person,
        now: datetime,
        reverts: int | None = None,
    ) -> Draft:
        # What was read before the row was locked may be older than it.
        self._marks = None if self._now is None or self._now.version != base_version else self._marks
        row = self._row()
        if row.version != base_version:
            raise Stale(
                "The draft was changed meanwhile. Look at what is there now, then do it again.",
                version=row.version,
                base=base_version,
            )
        n = row.head + 1
        step = {
            "store": self._store,
            "n": n,
            "settings": settings.model_dump_json(),
            "label": label,
            "author": person.name,
            "now": now,
            "person": person.id,
            "reverts": reverts,
        }
        self._db.execute(_APPEND, step)
        _keep((self._db.engine.url, self._store, n, now), settings)
        if self._marks is not None:
            self._marks = [Mark(n, person.id, reverts, label), *self._marks][:_MARKS]
        self._now = self._draft(row.version + 1, settings)
        return self._now

    def history(self, most: int) -> list[Step]:
        """Return the newest steps, the newest first; those that have been taken back are marked."""
        gone = cancelled(self.marks())
        c = draft_steps.c
        rows = self._db.execute(
            select(c.n, c.label, c.author, c.made_at, c.person_id)
            .where(c.store_id == self._store)
            .order_by(c.n.desc())
            .limit(most)
        )
        return [Step(r.n, r.label, r.author, r.made_at, r.n in gone, r.person_id == self._person) for r in rows]

    def _row(self) -> Row[tuple[int, int, int]]:
        return self._db.execute(select(drafts).where(drafts.c.store_id == self._store).with_for_update()).one()


def _keep(key: tuple[URL, int, int, datetime], settings: Settings) -> None:
    _kept[key] = settings
    while len(_kept) > _MOST_KEPT:
        _kept.popitem(last=False)
