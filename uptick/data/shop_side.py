"""What is known of the shop's own side: its connection, and the looks at its live pages."""

from collections.abc import Mapping
from datetime import datetime

import orjson
from sqlalchemy import Connection, func, insert, select, text
from sqlalchemy.dialects import postgresql

from uptick.core.button.merge import Json
from uptick.core.scroll.study import KeptStudy, Study
from uptick.core.shop.connection import BasketConnection
from uptick.core.shop.store import Store
from uptick.data.tables import page_looks, stores, studies

_CONNECT = text("""
UPDATE stores SET profile = jsonb_set(profile, '{connection}', CAST(:connection AS jsonb)) WHERE id = :store
""")
_READDRESS = text("""
UPDATE stores SET profile = profile || jsonb_build_object(
    'more_origins', CAST(:more AS jsonb), 'surfaces', CAST(:surfaces AS jsonb)) WHERE id = :store
""")
# A ledger shows the newest look of each release; older ones are history that nobody asks for.
_KEPT_OF_A_RELEASE = 20


class PgShopSide:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

    def profile(self) -> Store:
        """Return the store as it is registered now."""
        query = select(stores.c.profile).where(stores.c.id == self._store)
        return Store.model_validate(self._db.execute(query).scalar_one())

    def connect(self, connection: BasketConnection) -> None:
        self._db.execute(_CONNECT, {"connection": connection.model_dump_json(), "store": self._store})

    def readdress(self, store: Store) -> None:
        """Keep a store's further addresses and the pages of its placements."""
        profile = store.model_dump(mode="json")
        more, surfaces = (orjson.dumps(profile[name]).decode() for name in ("more_origins", "surfaces"))
        self._db.execute(_READDRESS, {"more": more, "surfaces": surfaces, "store": self._store})

    def add_look(self, release: int, moment: str, report: Mapping[str, object], now: datetime) -> None:
        self._db.execute(
            insert(page_looks).values(
                store_id=self._store, release=release, moment=moment, made_at=now, report=dict(report)
            )
        )
        newest = (
            select(page_looks.c.id)
            .where(page_looks.c.store_id == self._store, page_looks.c.release == release)
            .order_by(page_looks.c.id.desc())
            .limit(_KEPT_OF_A_RELEASE)
        )
        self._db.execute(
            page_looks.delete().where(
                page_looks.c.store_id == self._store,
                page_looks.c.release == release,
                page_looks.c.id.not_in(newest.scalar_subquery()),
            )
        )

    def keep_study(self, kept: KeptStudy) -> None:
        """Keep a study instead of the one before."""
        values = {"made_at": kept.made_at, "author": kept.by, "study": kept.study.model_dump(mode="json")}
        adding = postgresql.insert(studies).values(store_id=self._store, **values)
        self._db.execute(adding.on_conflict_do_update(index_elements=[studies.c.store_id], set_=values))

    def study(self) -> KeptStudy | None:
        row = self._db.execute(select(studies).where(studies.c.store_id == self._store)).first()
        return KeptStudy(Study.model_validate(row.study), row.author, row.made_at) if row else None

    def looks(self) -> dict[int, Json]:
        """Return the newest look of each release, by its number."""
        newest = (
            select(func.max(page_looks.c.id)).where(page_looks.c.store_id == self._store).group_by(page_looks.c.release)
        )
        query = select(page_looks.c.release, page_looks.c.report).where(page_looks.c.id.in_(newest.scalar_subquery()))
        return {row.release: row.report for row in self._db.execute(query)}
