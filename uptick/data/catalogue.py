"""The products of a store."""

from collections.abc import Sequence
from dataclasses import asdict
from datetime import date, datetime
from typing import Any
from uuid import uuid4

from sqlalchemy import Connection, delete, func, insert, select, update
from sqlalchemy.dialects.postgresql import insert as upsert

from uptick.core.button.merge import Json
from uptick.core.engine.tables import Tables
from uptick.core.shop.catalogue import Product
from uptick.data.heads import Heads
from uptick.data.tables import imports, products, stores

_READ = """
SELECT sku, name, category, price_minor, currency, url, picture, stock, option_name, option_values, tax_percent,
    was_minor, pre_order, available_from, set_of
FROM products WHERE store_id = %s ORDER BY position, sku
"""


class PgCatalogue:
    """Pre-orders whose day has come by `today` are plain products."""

    def __init__(self, connection: Connection, heads: Heads, tables: Tables, today: date) -> None:
        self._db = connection
        self._tables = tables
        self._store = heads.store_id
        self._stamp = heads.catalogue_stamp
        self._today = today
        self._now: list[Product] | None = None

    def refresh(self, heads: Heads) -> None:
        """Take what is newest now."""
        if heads.catalogue_stamp != self._stamp:
            self._stamp, self._now = heads.catalogue_stamp, None

    def all(self) -> list[Product]:
        """Return the products; the same list as last time while nothing has changed."""
        if self._now is None:
            # Nobody changes the list.
            self._now = self._tables.newest("products", (self._stamp, self._today), self._read)
        return self._now

    def _read(self) -> list[Product]:
        # Straight from psycopg: for fifty thousand rows SQLAlchemy's own way takes twice as long.
        driver = self._db.connection.driver_connection
        assert driver is not None
        rows: list[Any] = driver.execute(_READ, (self._store,)).fetchall()
        return [
            Product(
                r[0], r[1], r[2], r[3], r[4], r[5], r[6], r[7], r[8], tuple(r[9]), r[10], r[11],
                self._is_pre_order(r[12], r[13]), r[13], tuple(r[14]),
            )
            for r in rows
        ]  # fmt: skip

    def _is_pre_order(self, is_pre_order: bool, available_from: date | None) -> bool:
        return is_pre_order and (available_from is None or available_from > self._today)

    def put(self, changed: Sequence[Product]) -> None:
        if not changed:
            return
        self._change()
        last = self._db.execute(
            select(func.coalesce(func.max(products.c.position), -1)).where(products.c.store_id == self._store)
        ).scalar_one()
        rows = [
            {
                **asdict(p), "option_values": list(p.option_values), "set_of": list(p.set_of), "store_id": self._store,
                "position": last + 1 + i,
            }
            for i, p in enumerate(changed)
        ]  # fmt: skip
        statement = upsert(products)
        kept = {c.name: statement.excluded[c.name] for c in products.c if c.name not in {"store_id", "sku", "position"}}
        self._db.execute(statement.on_conflict_do_update(index_elements=["store_id", "sku"], set_=kept), rows)

    def remove(self, skus: Sequence[str]) -> None:
        self._change()
        gone = products.c.sku == func.any(list(skus))
        self._db.execute(delete(products).where(products.c.store_id == self._store, gone))

    def _change(self) -> None:
        self._now = None
        self._stamp = uuid4()
        self._db.execute(update(stores).where(stores.c.id == self._store).values(catalogue_stamp=self._stamp))

    def note_import(self, report: Json, author: str, now: datetime) -> None:
        self._db.execute(
            insert(imports).values(store_id=self._store, made_at=now, author=author, report=report, applied=True)
        )

    def last_import(self) -> Json | None:
        row = self._db.execute(
            select(imports).where(imports.c.store_id == self._store).order_by(imports.c.id.desc()).limit(1)
        ).one_or_none()
        return {**row.report, "made_at": row.made_at, "author": row.author} if row else None
