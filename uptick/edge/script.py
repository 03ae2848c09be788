"""The one file a store loads: the script with the store's release and trials in it."""

import gzip
import hashlib
from dataclasses import dataclass

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


def manifest_of(served: Served, edge_origin: str) -> Json:
    """Return what the script is told about its store."""
    return {
        "edge": edge_origin,
        "key": served.store.key,
        "release": served.release_n,
        **served.release,
        "trials": served.trials["trials"],
    }


def build_script(code: str, served: Served, edge_origin: str) -> ScriptFile:
    """Return the file, compressed once. Nothing of it is a global name on the shop's page."""
    told = orjson.dumps(manifest_of(served, edge_origin)).decode()
    # Two characters are line ends to older JavaScript but not to JSON.
    told = told.replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")
    plain = f"(function(){{{code};UpTick.start({told})}})();\n".encode()
    return ScriptFile(
        etag=hashlib.sha256(plain).hexdigest()[:20],
        plain=plain,
        gzipped=gzip.compress(plain, 9, mtime=0),
        brotlied=brotli.compress(plain, quality=9),
    )
