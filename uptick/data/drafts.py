"""The draft of a store: a row of whole steps that only grows, so that everybody can take back what is theirs."""

from datetime import datetime

from sqlalchemy import Connection, bindparam, select, text

from uptick.core.engine.tables import Tables
from uptick.core.errors import NotFound, Stale
from uptick.core.rules.history import Mark, cancelled, redoable, undoable
from uptick.core.rules.settings import Settings
from uptick.data.heads import Heads, StepAt
from uptick.data.tables import draft_steps
from uptick.usecases.ports import Draft, HistoryStep, Person

# How far back a person can undo.
_MARKS = 200

_READ_MARKS = text(
    "SELECT n, person_id, reverts, label FROM draft_steps WHERE store_id = :store AND n <= :head "
    "ORDER BY n DESC LIMIT :most"
)
# One trip: the row is locked, its version compared and the step added. Nothing comes back where it was changed since.
_APPEND = text("""
WITH moved AS (
    UPDATE drafts SET head = head + 1, version = version + 1 WHERE store_id = :store AND version = :base RETURNING head
)
INSERT INTO draft_steps (store_id, n, settings, label, author, made_at, person_id, reverts)
SELECT :store, head, CAST(:settings AS jsonb), :label, :author, :now, :person, :reverts FROM moved
RETURNING n
""")
_VERSION = text("SELECT version FROM drafts WHERE store_id = :store")
_MADE_AT = text("SELECT made_at FROM draft_steps WHERE store_id = :store AND n = :n")
_SETTINGS = select(draft_steps.c.settings).where(
    draft_steps.c.store_id == bindparam("store"), draft_steps.c.n == bindparam("n")
)


class PgDrafts:
    """The draft as one person sees it: undo and redo are their own."""

    def __init__(self, connection: Connection, heads: Heads, tables: Tables, person_id: int) -> None:
        self._db = connection
        self._tables = tables
        self._store = heads.store_id
        self._person = person_id
        self._version, self._step = heads.version, heads.step
        self._now: Draft | None = None

    def refresh(self, heads: Heads) -> None:
        """Take what is newest now."""
        if heads.step != self._step:
            self._version, self._step, self._now = heads.version, heads.step, None

    def read(self) -> Draft:
        """Return the draft as the transaction found it, or as it has changed it."""
        if self._now is None:
            self._now = self._draft(self._settings_of(self._step))
        return self._now

    def settings(self) -> Settings:
        """Return the draft's settings as the transaction found them."""
        return self._settings_of(self._step)

    def _draft(self, settings: Settings) -> Draft:
        return Draft(self._version, settings, *_labels(self.marks(), self._person))

    def marks(self) -> list[Mark]:
        """Return the newest steps' marks, the newest first."""
        # A step never changes, and neither do those that came before it.
        return self._tables.newest("marks", self._step, self._read_marks)

    def _read_marks(self) -> list[Mark]:
        rows = self._db.execute(_READ_MARKS, {"store": self._store, "head": self._step.n, "most": _MARKS})
        return [Mark(n, person, reverts, label) for n, person, reverts, label in rows]

    def settings_at(self, n: int) -> Settings:
        """Return the settings after a step.

        Raises:
            NotFound: There is no such step.
        """
        if n == self._step.n:
            return self._settings_of(self._step)
        made_at = self._db.execute(_MADE_AT, {"store": self._store, "n": n}).scalar_one_or_none()
        if made_at is None:
            raise NotFound(f"There is no step {n} in the history.", step=n)
        return self._settings_of(StepAt(n, made_at))

    def _settings_of(self, step: StepAt) -> Settings:
        if step != self._step:
            return self._read_settings(step)
        return self._tables.newest("draft", step, lambda: self._read_settings(step))

    def _read_settings(self, step: StepAt) -> Settings:
        raw = self._db.execute(_SETTINGS, {"store": self._store, "n": step.n}).scalar_one()
        return Settings.model_validate(raw)

    def append(
        self,
        base_version: int,
        settings: Settings,
        label: str,
        person: Person,
        now: datetime,
        reverts: int | None = None,
    ) -> Draft:
        step = {
            "store": self._store,
            "base": base_version,
            "settings": settings.model_dump_json(),
            "label": label,
            "author": person.name,
            "now": now,
            "person": person.id,
            "reverts": reverts,
        }
        n = self._db.execute(_APPEND, step).scalar_one_or_none()
        if n is None:
            raise Stale(
                "The draft was changed meanwhile. Look at what is there now, then do it again.",
                version=self._db.execute(_VERSION, {"store": self._store}).scalar_one(),
                base=base_version,
            )
        # Marks of another version than this one follows on are read anew.
        marks = self.marks() if base_version == self._version else None
        self._version, self._step = base_version + 1, StepAt(n, now)
        self._tables.newest("draft", self._step, lambda: settings)
        if marks is not None:
            self._tables.newest("marks", self._step, lambda: [Mark(n, person.id, reverts, label), *marks][:_MARKS])
        self._now = self._draft(settings)
        return self._now

    def history(self, most: int, before: int | None = None) -> list[HistoryStep]:
        """Return the newest steps before a number, the newest first; those that have been taken back are marked."""
        gone = cancelled(self.marks())
        c = draft_steps.c
        rows = self._db.execute(
            select(c.n, c.label, c.author, c.made_at, c.person_id)
            .where(c.store_id == self._store, *([c.n < before] if before else ()))
            .order_by(c.n.desc())
            .limit(most)
        )
        return [HistoryStep(r.n, r.label, r.author, r.made_at, r.n in gone, r.person_id == self._person) for r in rows]


def _labels(marks: list[Mark], person_id: int) -> tuple[str, str]:
    """Return what undo and redo would do for a person."""
    undo, redo = undoable(marks, person_id), redoable(marks, person_id)
    return undo.label if undo else "", redo.label.removeprefix("Undone: ") if redo else ""
