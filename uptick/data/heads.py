"""What is newest of a store: its profile, draft, catalogue and release, told in one trip to the database."""

from dataclasses import dataclass
from datetime import datetime
from typing import NamedTuple
from uuid import UUID

from sqlalchemy import Connection, text

from uptick.core.button.merge import Json

_READ = text("""
SELECT s.id, s.profile, s.catalogue_stamp, d.version, d.head, h.made_at AS head_made_at,
    r.n AS release_n, r.hash AS release_hash, r.made_at AS release_made_at
FROM stores s
JOIN drafts d ON d.store_id = s.id
JOIN draft_steps h ON h.store_id = s.id AND h.n = d.head
LEFT JOIN LATERAL (SELECT n, hash, made_at FROM releases WHERE store_id = s.id ORDER BY n DESC LIMIT 1) r ON true
WHERE s.key = :key
""")


class StepAt(NamedTuple):
    """A step of the draft. A restored database can count to the same number again, but not at the same time."""

    n: int
    made_at: datetime


class ReleaseAt(NamedTuple):
    n: int
    hash: str
    made_at: datetime


@dataclass(frozen=True, slots=True)
class Heads:
    """The newest of everything as a transaction found it; `version` is the draft's."""

    store_id: int
    profile: Json
    catalogue_stamp: UUID
    version: int
    step: StepAt
    release: ReleaseAt | None


# A lock of one store among all that the database keeps: any number that nothing else here uses.
_HOLD = text("SELECT pg_advisory_xact_lock(7142, :store)")


def hold_store(connection: Connection, store_id: int) -> None:
    """Wait until nobody else holds a store, and hold it until the transaction ends."""
    connection.execute(_HOLD, {"store": store_id})


def read_heads(connection: Connection, key: str) -> Heads | None:
    """Return the numbers of a store's newest versions, by one query; None where there is no such store."""
    row = connection.execute(_READ, {"key": key}).one_or_none()
    if row is None:
        return None
    release = None
    if row.release_n is not None:
        release = ReleaseAt(row.release_n, row.release_hash, row.release_made_at)
    return Heads(row.id, row.profile, row.catalogue_stamp, row.version, StepAt(row.head, row.head_made_at), release)
