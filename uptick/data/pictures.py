"""Pictures that a store's buttons carry, kept once by their content."""

from collections.abc import Iterator, Mapping

from sqlalchemy import Connection, Engine, select
from sqlalchemy.dialects.postgresql import insert

from uptick.core.colour.pictures import Picture
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables
from uptick.core.formats.picture_file import pixels_of
from uptick.data.tables import pictures
from uptick.usecases.ports import StoredPicture


class PgPictures:
    def __init__(self, connection: Connection, store_id: int, tables: Tables) -> None:
        self._db = connection
        self._store = store_id
        self._tables = tables

    def all(self) -> list[StoredPicture]:
        c = pictures.c
        query = select(c.hash, c.name, c.media_type, c.width, c.height, c.author, c.made_at)
        rows = self._db.execute(query.where(c.store_id == self._store).order_by(c.made_at.desc()))
        return [StoredPicture(*row) for row in rows]

    def put(self, picture: StoredPicture, content: bytes) -> None:
        values = {
            "store_id": self._store, "hash": picture.hash, "name": picture.name, "media_type": picture.media_type,
            "width": picture.width, "height": picture.height, "content": content, "author": picture.author,
            "made_at": picture.made_at,
        }  # fmt: skip
        self._db.execute(insert(pictures).values(values).on_conflict_do_nothing())
        # Content under a hash never changes. It is known as soon as it is put, also to whoever reads by another
        # connection while that is not yet committed.
        self._tables.ask(Step.READ, ("picture", picture.hash), lambda: pixels_of(content))

    def content(self, digest: str) -> tuple[str, bytes] | None:
        query = select(pictures.c.media_type, pictures.c.content)
        row = self._db.execute(query.where(pictures.c.store_id == self._store, pictures.c.hash == digest)).one_or_none()
        return (row.media_type, row.content) if row else None


class StorePictures(Mapping[str, Picture]):
    """A store's pictures as pixels, read when they are first asked for."""

    def __init__(self, engine: Engine, store_id: int, tables: Tables) -> None:
        self._engine = engine
        self._store = store_id
        self._tables = tables

    def __getitem__(self, digest: str) -> Picture:
        return self._tables.ask(Step.READ, ("picture", digest), lambda: self._read(digest))

    def _read(self, digest: str) -> Picture:
        with self._engine.connect() as connection:
            picture = PgPictures(connection, self._store, self._tables).content(digest)
        if picture is None:
            raise KeyError(digest)
        return pixels_of(picture[1])

    def __iter__(self) -> Iterator[str]:
        with self._engine.connect() as connection:
            return iter(
                connection.execute(select(pictures.c.hash).where(pictures.c.store_id == self._store)).scalars().all()
            )

    def __len__(self) -> int:
        return sum(1 for _ in self)
