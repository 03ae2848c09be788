"""The one file a store loads: the script with the store's release and trials in it."""

import gzip
import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import brotli
import orjson

from uptick.core.merge import Json
from uptick.usecases.serving import Served


@dataclass(frozen=True, slots=True)
class ScriptFile:
    etag: str
    plain: bytes
    gzipped: bytes
    brotlied: bytes


def is_current(release: Json) -> bool:
    """Tell whether a release has the form that this script reads; older ones wait for the next release."""
    return "looks" in release


def manifest_of(served: Served, edge_origin: str) -> Json:
    """Return what the script is told about its store."""
    return {
        "edge": edge_origin,
        "key": served.store.key,
        "release": served.release_n,
        **served.release,
        "trials": served.trials["trials"],
    }


@dataclass(frozen=True, slots=True)
class ScriptCode:
    """The built script, and the pieces that only some stores need, read once."""

    main: str
    bar: str
    deal: str
    quantity: str
    kind: str

    @classmethod
    def read(cls, folder: Path) -> "ScriptCode":
        return cls(*((folder / f"{name}.js").read_text() for name in ("up", "bar", "deal", "quantity", "kind")))

    def for_store(self, manifest: Json) -> str:
        """Return the code that a manifest needs, and the pieces as they are handed to the start."""
        code, pieces = [self.main], []
        if manifest.get("bar"):
            code.append(self.bar)
            pieces.append("standBar:UpBar.standBar")
        if any(trial["running"] for trial in manifest["trials"]):
            code.append(self.deal)
            pieces.append("deal:UpDeal.assignVersion")
        if any(look["quantity"] for look in _looks(manifest)):
            code.append(self.quantity)
            pieces.append("paintQuantity:UpQuantity.paintQuantity")
        if any("shoppers" in rule["reach"] for rule in (*manifest["rules"], *manifest["trials"])):
            code.append(self.kind)
            pieces.append("shopperKind:UpKind.shopperKind")
        return f"{';'.join(code)};const pieces={{{','.join(pieces)}}}"


def _looks(manifest: Json) -> Iterator[Json]:
    yield from manifest["looks"]
    for trial in manifest["trials"]:
        for looks in trial["B"]["looks"].values():
            yield from looks.values()


def build_script(code: ScriptCode, served: Served, edge_origin: str) -> ScriptFile:
    """Return the file, compressed once. Nothing of it is a global name on the shop's page."""
    manifest = manifest_of(served, edge_origin)
    told = orjson.dumps(manifest).decode()
    # Two characters are line ends to older JavaScript but not to JSON.
    told = told.replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")
    plain = f"(function(){{{code.for_store(manifest)};UpTick({told},pieces)}})();\n".encode()
    return ScriptFile(
        etag=hashlib.sha256(plain).hexdigest()[:20],
        plain=plain,
        gzipped=gzip.compress(plain, 9, mtime=0),
        brotlied=brotli.compress(plain, quality=9),
    )
