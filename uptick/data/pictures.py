"""Pictures that a store's buttons carry, kept once by their content."""

from collections.abc import Iterator, Mapping

from sqlalchemy import URL, Connection, Engine, select
from sqlalchemy.dialects.postgresql import insert

from uptick.core.formats.picture_file import pixels_of
from uptick.core.pictures import Picture
from uptick.data.tables import pictures
from uptick.usecases.ports import StoredPicture

# Content under a hash never changes, so what was read stays true. What a store owns is known as soon as it is put, also
# to whoever reads by another connection while that is not yet committed.
_read: dict[str, Picture] = {}
_owned: dict[tuple[URL, int], set[str]] = {}


class PgPictures:
    def __init__(self, connection: Connection, store_id: int) -> None:
        self._db = connection
        self._store = store_id

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
        _read.setdefault(picture.hash, pixels_of(content))
        _owned.setdefault((self._db.engine.url, self._store), set()).add(picture.hash)

    def content(self, digest: str) -> tuple[str, bytes] | None:
        query = select(pictures.c.media_type, pictures.c.content)
        row = self._db.execute(query.where(pictures.c.store_id == self._store, pictures.c.hash == digest)).one_or_none()
        return (row.media_type, row.content) if row else None


class StorePictures(Mapping[str, Picture]):
    """A store's pictures as pixels, read when they are first asked for."""

    def __init__(self, engine: Engine, store_id: int) -> None:
        self._engine = engine
        self._store = store_id
        self._own = _owned.setdefault((engine.url, store_id), set())

    def __getitem__(self, digest: str) -> Picture:
        if digest not in self._own:
            with self._engine.connect() as connection:
                found = PgPictures(connection, self._store).content(digest)
            if found is None:
                raise KeyError(digest)
            self._own.add(digest)
            if digest not in _read:
                _read[digest] = pixels_of(found[1])
        return _read[digest]

    def __iter__(self) -> Iterator[str]:
        with self._engine.connect() as connection:
            return iter(
                connection.execute(select(pictures.c.hash).where(pictures.c.store_id == self._store)).scalars().all()
            )

    def __len__(self) -> int:
        return sum(1 for _ in self)
