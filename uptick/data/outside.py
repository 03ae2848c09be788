"""Buttons handed out for outside: what was made, and for the edge where each leads and how often it was pressed."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from datetime import date

from sqlalchemy import Connection, Engine, func, select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.exc import DBAPIError

from uptick.core.outside.handed import Handed, OutsideKind
from uptick.core.shop.catalogue import Product
from uptick.data.tables import outside_buttons, outside_pictures, outside_presses
from uptick.usecases.ports import HandedOut
from uptick.usecases.serving import Unavailable

_LEADS = text("""
SELECT o.sku, o.kind, o.drawn, o.campaign, o.language, o.leads, p.sku AS known, p.name, p.category, p.price_minor,
    p.currency, p.url, p.picture, p.stock, p.option_name, p.option_values, p.pre_order, p.available_from, p.set_of
FROM outside_buttons o LEFT JOIN products p ON p.store_id = o.store_id AND p.sku = o.sku
WHERE o.store_id = :store AND o.id = :id
""")
_COUNT = text("""
INSERT INTO outside_presses (store_id, id, day, presses) VALUES (:store, :id, :day, 1)
ON CONFLICT (store_id, id, day) DO UPDATE SET presses = outside_presses.presses + 1
""")


class PgOutside:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

    def all(self) -> list[HandedOut]:
        """Return what was copied or pressed, the newest first."""
        o, p = outside_buttons.c, outside_presses.c
        sums = (
            select(p.id, func.sum(p.presses).label("presses"))
            .where(p.store_id == self._store)
            .group_by(p.id)
            .subquery()
        )
        presses = func.coalesce(sums.c.presses, 0)
        query = (
            select(outside_buttons, presses.label("presses"))
            .outerjoin(sums, sums.c.id == o.id)
            .where(o.store_id == self._store, o.copied_at.is_not(None) | (presses > 0))
            .order_by(func.coalesce(o.copied_at, o.made_at).desc(), o.id)
        )
        return [
            HandedOut(
                Handed(row.sku, OutsideKind(row.kind), row.drawn, row.campaign, row.language, row.leads),
                row.across, row.words, row.looks, row.author, row.made_at, row.copied_at, row.presses,
            )
            for row in self._db.execute(query)
        ]  # fmt: skip

    def put(self, buttons: Sequence[HandedOut]) -> None:
        """Keep buttons; one that is known already is as it was, unless it is copied now."""
        for button in buttons:
            of = button.of
            values = {
                "store_id": self._store, "id": of.id, "sku": of.sku, "kind": of.kind.value, "drawn": of.drawn,
                "campaign": of.campaign, "language": of.language, "leads": of.leads, "across": button.across,
                "words": button.words,
                "looks": button.looks, "author": button.author, "made_at": button.made_at,
                "copied_at": button.copied_at,
            }  # fmt: skip
            adding = insert(outside_buttons).values(values)
            if button.copied_at is None:
                self._db.execute(adding.on_conflict_do_nothing())
                continue
            newer = {name: values[name] for name in ("across", "words", "looks", "author", "copied_at")}
            self._db.execute(adding.on_conflict_do_update(index_elements=["store_id", "id"], set_=newer))

    def put_picture(self, digest: str, media_type: str, content: bytes) -> None:
        values = {"hash": digest, "media_type": media_type, "content": content}
        self._db.execute(insert(outside_pictures).values(values).on_conflict_do_nothing())


@contextmanager
def _reached(engine: Engine) -> Iterator[Connection]:
    try:
        with engine.begin() as connection:
            yield connection
    except DBAPIError as error:
        raise Unavailable(str(error.orig)) from error


class OutsideShelf:
    """What the edge asks for a link: where it leads today, whatever was released since it was handed out."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def handed(self, store_id: int, handed: str, today: date) -> tuple[Handed, Product | None] | None:
        """Return what was handed out under an id, and its product; None for the product where it is gone."""
        with _reached(self._engine) as db:
            row = db.execute(_LEADS, {"store": store_id, "id": handed}).one_or_none()
        if row is None:
            return None
        of = Handed(row.sku, OutsideKind(row.kind), row.drawn, row.campaign, row.language, row.leads)
        if row.known is None:
            return of, None
        waits = row.pre_order and (row.available_from is None or row.available_from > today)
        product = Product(
            row.sku, row.name, row.category, row.price_minor, row.currency, row.url, row.picture, row.stock,
            row.option_name, tuple(row.option_values), pre_order=waits, available_from=row.available_from,
            set_of=tuple(row.set_of),
        )  # fmt: skip
        return of, product

    def count(self, store_id: int, handed: str, day: date) -> None:
        with _reached(self._engine) as db:
            db.execute(_COUNT, {"store": store_id, "id": handed, "day": day})
