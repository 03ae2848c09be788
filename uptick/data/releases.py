"""Releases, which never change, and the numbered revisions of running trials beside them."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from sqlalchemy import Column, Connection, Row, Select, case, func, insert, select

from uptick.core.button.merge import Json
from uptick.core.engine.tables import Tables
from uptick.core.errors import NotFound
from uptick.core.release import content_hash
from uptick.core.rules.settings import Settings
from uptick.data.heads import Heads, ReleaseAt
from uptick.data.tables import releases, trial_revisions
from uptick.usecases.ports import Release


class PgReleases:
    def __init__(self, connection: Connection, heads: Heads, tables: Tables) -> None:
        self._db = connection
        self._tables = tables
        self._store = heads.store_id
        self._newest = heads.release

    def refresh(self, heads: Heads) -> None:
        """Take what is newest now."""
        self._newest = heads.release

    def newest(self) -> Release | None:
        """Return the newest release; its content is read once, since it never changes."""
        if self._newest is None:
            return None
        n = self._newest.n
        return self._tables.newest("release", self._newest, lambda: self.get(n))

    def all(self) -> list[Release]:
        return [_release(row) for row in self._db.execute(self._query().order_by(releases.c.n.desc()))]

    def get(self, n: int) -> Release:
        row = self._db.execute(self._query().where(releases.c.n == n)).one_or_none()
        if row is None:
            raise NotFound(f"There is no release {n}.", release=n)
        return _release(row)

    def at(self, when: datetime) -> Release | None:
        """Return what shoppers got at a time: the newest release made by then, else the first of all."""
        n = self._db.execute(
            select(releases.c.n)
            .where(releases.c.store_id == self._store)
            .order_by(
                (releases.c.made_at <= when).desc(),
                case((releases.c.made_at <= when, -releases.c.n), else_=releases.c.n),
            )
            .limit(1)
        ).scalar_one_or_none()
        return None if n is None else self.get(n)

    def add(self, settings: Settings, compiled: Mapping[str, object], note: str, author: str, now: datetime) -> Release:
        n = self._next(releases.c.n, releases.c.store_id)
        raw = settings.model_dump(mode="json")
        digest = content_hash({"settings": raw, "compiled": compiled})
        self._db.execute(
            insert(releases).values(
                store_id=self._store, n=n, settings=raw, compiled=compiled, hash=digest, note=note, author=author,
                made_at=now,
            )
        )  # fmt: skip
        self._newest = ReleaseAt(n, digest, now)
        return Release(n, settings, digest, note, author, now)

    def set_trials(self, release_n: int, compiled: Json, now: datetime) -> None:
        self._db.execute(
            insert(trial_revisions).values(
                store_id=self._store,
                n=self._next(trial_revisions.c.n, trial_revisions.c.store_id),
                release_n=release_n,
                compiled=compiled,
                hash=content_hash(compiled),
                made_at=now,
            )
        )

    def _next(self, n: Column[int], store_id: Column[int]) -> int:
        newest = self._db.execute(select(func.coalesce(func.max(n), 0)).where(store_id == self._store)).scalar_one()
        return int(newest) + 1

    def _query(self) -> Select[Any]:
        c = releases.c
        return select(c.n, c.settings, c.hash, c.note, c.author, c.made_at).where(c.store_id == self._store)


def _release(row: Row[Any]) -> Release:
    return Release(row.n, Settings.model_validate(row.settings), row.hash, row.note, row.author, row.made_at)
