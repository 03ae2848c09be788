"""People, sessions and stores."""

from datetime import datetime

from sqlalchemy import Connection, bindparam, delete, func, insert, select, text
from sqlalchemy.dialects.postgresql import insert as upsert

from uptick.core.rules.settings import Settings
from uptick.core.shop.store import Store
from uptick.data.tables import draft_steps, drafts, members, sessions, stores, users
from uptick.usecases.ports import Person, StoreLine

_STORES = func.array(
    select(stores.c.key)
    .join(members, members.c.store_id == stores.c.id)
    .where(members.c.user_id == users.c.id)
    .order_by(stores.c.id)
    .correlate(users)
    .scalar_subquery()
).label("stores")

# Asked at every request, so it is built once.
_SESSION = (
    select(users.c.id, users.c.name, users.c.email, _STORES)
    .join(sessions, sessions.c.user_id == users.c.id)
    .where(sessions.c.token_hash == bindparam("token"), sessions.c.ends_at > bindparam("now"))
)


_KEYS = text("SELECT pg_advisory_xact_lock(7143)")


class PgAccounts:
    def __init__(self, connection: Connection) -> None:
        self._db = connection

    def find(self, email: str) -> tuple[Person, str] | None:
        query = select(users, _STORES).where(users.c.email == email.strip().lower())
        row = self._db.execute(query).one_or_none()
        return (Person(row.id, row.name, row.email, tuple(row.stores)), row.password_hash) if row else None

    def start_session(self, user_id: int, token_hash: str, now: datetime, ends_at: datetime) -> None:
        self._db.execute(delete(sessions).where(sessions.c.ends_at < now))
        self._db.execute(
            insert(sessions).values(token_hash=token_hash, user_id=user_id, started_at=now, ends_at=ends_at)
        )

    def session(self, token_hash: str, now: datetime) -> Person | None:
        row = self._db.execute(_SESSION, {"token": token_hash, "now": now}).one_or_none()
        return Person(row.id, row.name, row.email, tuple(row.stores)) if row else None

    def end_session(self, token_hash: str) -> None:
        self._db.execute(delete(sessions).where(sessions.c.token_hash == token_hash))

    def add_person(self, email: str, name: str, password_hash: str) -> int:
        statement = upsert(users).values(email=email.strip().lower(), name=name, password_hash=password_hash)
        statement = statement.on_conflict_do_update(
            index_elements=["email"], set_={"name": name, "password_hash": password_hash}
        )
        return int(self._db.execute(statement.returning(users.c.id)).scalar_one())

    def add_store(self, store: Store, settings: Settings, owner: int, now: datetime) -> None:
        store_id = self._db.execute(
            insert(stores).values(key=store.key, profile=store.model_dump(mode="json")).returning(stores.c.id)
        ).scalar_one()
        self._db.execute(insert(members).values(store_id=store_id, user_id=owner, role="owner"))
        self._db.execute(insert(drafts).values(store_id=store_id, head=0, version=1))
        self._db.execute(
            insert(draft_steps).values(
                store_id=store_id,
                n=0,
                settings=settings.model_dump(mode="json"),
                label="store made",
                author="",
                made_at=now,
            )
        )

    def store_keys(self) -> list[str]:
        """Return every store's key. Nobody else asks until the transaction ends: a new key must be free."""
        self._db.execute(_KEYS)
        return list(self._db.execute(select(stores.c.key).order_by(stores.c.id)).scalars())

    def stores_of(self, person: Person) -> tuple[StoreLine, ...]:
        name, origin = stores.c.profile["name"].astext, stores.c.profile["origin"].astext
        query = (
            select(stores.c.key, name.label("name"), origin.label("origin"))
            .join(members, members.c.store_id == stores.c.id)
            .where(members.c.user_id == person.id)
            .order_by(stores.c.id)
        )
        return tuple(StoreLine(row.key, row.name, row.origin) for row in self._db.execute(query))
