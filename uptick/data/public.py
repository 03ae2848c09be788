"""What the edge reads: a store by its public key, what it serves, and which trials count."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from typing import Any

from sqlalchemy import Connection, Engine, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeout

from uptick.core.rules.reach import Reach
from uptick.core.shop.store import Store
from uptick.usecases.serving import Served, TrialScope, Unavailable

_STAMP = text("""
SELECT s.id, s.profile, coalesce(r.n, 0) AS n, coalesce(r.hash, '') || '-' || coalesce(t.hash, '') || '-' ||
    coalesce(t.n, 0) || '-' || md5(s.profile::text) AS stamp
FROM stores s
LEFT JOIN LATERAL (SELECT n, hash FROM releases WHERE store_id = s.id ORDER BY n DESC LIMIT 1) r ON true
LEFT JOIN LATERAL (SELECT n, hash FROM trial_revisions WHERE store_id = s.id ORDER BY n DESC LIMIT 1) t ON true
WHERE s.key = :key
""")
_BODY = text("""
SELECT r.compiled,
    (SELECT compiled FROM trial_revisions WHERE store_id = :store ORDER BY n DESC LIMIT 1) AS trials
FROM releases r WHERE r.store_id = :store AND r.n = :n
""")
_SCOPES = text("""
SELECT number, salt, reach, covered, window_days, started_at, closed_at FROM trials
WHERE store_id = :store AND started_at IS NOT NULL
  AND (closed_at IS NULL OR closed_at > now() - interval '8 days' OR :all_closed)
""")

_PICTURE = text("""
SELECT media_type, content FROM pictures WHERE hash = :hash
UNION ALL SELECT media_type, content FROM outside_pictures WHERE hash = :hash LIMIT 1
""")


class PublicShelf:
    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._kept: dict[str, Served] = {}

    @contextmanager
    def _read(self) -> Iterator[Connection]:
        try:
            with self._engine.connect() as db:
                yield db
        except (DBAPIError, PoolTimeout) as error:
            raise Unavailable(str(error).splitlines()[0]) from error

    def served(self, key: str) -> Served | None:
        """Return what a store's pages get now; the body is read only when its stamp has changed.

        Raises:
            Unavailable: The database does not answer.
        """
        with self._read() as db:
            row = db.execute(_STAMP, {"key": key}).one_or_none()
            if row is None:
                return None
            kept = self._kept.get(key)
            if kept and kept.stamp == row.stamp:
                return kept
            body = db.execute(_BODY, {"store": row.id, "n": row.n}).one_or_none()
        release: Any = body.compiled if body else None
        served = Served(
            row.id,
            Store.model_validate(row.profile),
            row.n,
            release or {},
            (body.trials if body else None) or {"trials": []},
            row.stamp,
        )
        self._kept[key] = served
        return served

    def picture(self, digest: str) -> tuple[str, bytes] | None:
        """Return a picture by its content's hash, whichever store brought it."""
        with self._read() as db:
            row = db.execute(_PICTURE, {"hash": digest}).one_or_none()
        return (row.media_type, bytes(row.content)) if row else None

    def scopes(self, store_id: int, *, is_practice: bool) -> tuple[TrialScope, ...]:
        """Return the trials for which signals can still come in; a practice store's past is never over."""
        with self._read() as db:
            rows = db.execute(_SCOPES, {"store": store_id, "all_closed": is_practice}).all()
        return tuple(
            TrialScope(
                number=row.number,
                version_salt=f"{row.salt}:version",
                reach=Reach.model_validate(row.reach),
                products=None if row.covered is None else frozenset(row.covered),
                started_at=row.started_at,
                closed_at=row.closed_at,
                window=timedelta(days=row.window_days),
            )
            for row in rows
        )
