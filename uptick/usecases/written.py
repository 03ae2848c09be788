"""What is written out as JSON for other programs: a release and a readout, each with the schema that it keeps to."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from pydantic import TypeAdapter

from uptick.core.release import CompiledRelease, compile_release
from uptick.core.rules.settings import Settings
from uptick.core.trial.readout import Readout
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Shop
from uptick.usecases.trials import read_numbers

Kind = Literal["button", "release", "readout"]


@dataclass(frozen=True, slots=True)
class ReleaseFile:
    """One release: the settings that it was made of, and what the script is told of them."""

    format: Literal["uptick-release-1"]
    store: str
    n: int
    hash: str
    note: str
    author: str
    made_at: datetime
    settings: Settings
    compiled: CompiledRelease


@dataclass(frozen=True, slots=True)
class ReadoutFile:
    """One trial with its verdict; `reading` is there once it may be read, `counted` are tallies by version."""

    format: Literal["uptick-readout-1"]
    store: str
    written_at: datetime
    trial: Trial
    readout: Readout
    counted: dict[str, dict[str, int]]


_RELEASE: TypeAdapter[ReleaseFile] = TypeAdapter(ReleaseFile)
_READOUT: TypeAdapter[ReadoutFile] = TypeAdapter(ReadoutFile)


def schema_of(kind: Literal["release", "readout"]) -> dict[str, Any]:
    """Return the JSON Schema (2020-12) of a file that is written here."""
    adapter: TypeAdapter[Any] = _RELEASE if kind == "release" else _READOUT
    # What the script is told names its parts by where they stand in the API's description; they stand alike here.
    refs, parts = TypeAdapter.json_schemas(
        [(kind, "serialization", adapter)], ref_template="#/components/schemas/{model}"
    )
    whole = refs[(kind, "serialization")]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **whole,
        "components": {"schemas": parts.get("$defs", {})},
    }


def write_release(shop: Shop, n: int) -> str:
    """Return a release as JSON; the newest for 0.

    Raises:
        NotFound: There is no such release.
    """
    newest = shop.releases.newest()
    release = newest if n == 0 and newest else shop.releases.get(n)
    compiled = compile_release(shop.as_written(release.settings), shop.today)
    file = ReleaseFile(
        "uptick-release-1", shop.store.key, release.n, release.hash, release.note, release.author, release.made_at,
        release.settings, compiled,
    )  # fmt: skip
    return _RELEASE.dump_json(file, indent=1).decode() + "\n"


def write_readout(shop: Shop, number: int, now: datetime) -> str:
    """Return a trial's readout as JSON.

    Raises:
        NotFound: There is no such trial.
        BadState: It has not started.
    """
    readout, counted = read_numbers(shop, number, now)
    file = ReadoutFile("uptick-readout-1", shop.store.key, now, shop.trials.get(number), readout, counted)
    return _READOUT.dump_json(file, indent=1).decode() + "\n"
