"""The one file a store loads: the script with the store's release and trials in it."""

import gzip
import hashlib
from collections.abc import Iterator
from dataclasses import dataclass, fields
from pathlib import Path
from typing import Any

import brotli
import orjson

from uptick.core.button.merge import Json
from uptick.core.colour.fills import PICTURES
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
        "looks": [_as_now(look) for look in served.release["looks"]],
        "trials": [_trial_as_now(trial) for trial in served.trials["trials"]],
    }


def _as_now(look: Json) -> Json:
    """Return a look in the form that this script reads: an icon of an older release is one bare path."""
    icon = look["icon"]
    if not icon or "paths" in icon:
        return look
    box = f"0 0 {icon['box']} {icon['box']}"
    return {**look, "icon": {"paths": [{"d": icon["path"]}], "box": box, "side": icon["side"]}}


def _trial_as_now(trial: Json) -> Json:
    version = trial["B"]
    looks = {place: {key: _as_now(look) for key, look in made.items()} for place, made in version["looks"].items()}
    return {**trial, "B": {**version, "looks": looks}}


@dataclass(frozen=True, slots=True)
class ScriptCode:
    """The built script, and the pieces that only some stores need, read once."""

    main: str
    live: str
    bar: str
    deal: str
    quantity: str
    kind: str
    second: str
    frame: str

    @classmethod
    def read(cls, folder: Path) -> "ScriptCode":
        names = [one.name if one.name != "main" else "up" for one in fields(cls)]
        return cls(*((folder / f"{name}.js").read_text() for name in names))

    def for_store(self, manifest: Json) -> str:
        """Return the code that a manifest needs, and the pieces as they are handed to the start."""
        code, pieces = [self.main], []
        draft = bool(manifest.get("draft"))
        if draft or manifest.get("bar") or any(_has_live(pattern) for pattern in _patterns(manifest)):
            code.append(self.live)
            pieces.append("fillText:UpLive.fillText")
        if manifest.get("bar"):
            code.append(self.bar)
            pieces.append("standBar:UpBar.standBar")
        if manifest["trials"]:
            code.append(self.deal)
            pieces.append("dealVersions:UpDeal.dealVersions,forcedVersions:UpDeal.forcedVersions")
        if draft:
            # What is being drawn may come to need any piece.
            code.append(self.frame)
            pieces.append("frame:UpFrame.frame")
        if draft or any(look["quantity"] for look in _looks(manifest)):
            code.append(self.quantity)
            pieces.append("paintQuantity:UpQuantity.paintQuantity")
        if draft or any(look.get("second") for look in _looks(manifest)):
            code.append(self.second)
            pieces.append("paintSecond:UpSecond.paintSecond")
        if any("shoppers" in rule["reach"] for rule in (*manifest["rules"], *manifest["trials"])):
            code.append(self.kind)
            pieces.append("shopperKind:UpKind.shopperKind")
        return f"{';'.join(code)};const pieces={{{','.join(pieces)}}}"


def _patterns(manifest: Json) -> Iterator[list[Any]]:
    """Yield every text that a store's buttons may say."""
    layers = [manifest["words"], *(place["words"] for place in manifest["places"].values())]
    layers += [rule.get("words", {}) for rule in manifest["rules"]]
    layers += [trial["B"]["words"] for trial in manifest["trials"]]
    for layer in layers:
        for by_language in layer.values():
            yield from by_language.values()
    for look in _looks(manifest):
        yield from (look.get("second") or {}).values()
        yield from (look.get("spoken") or {}).values()


def _has_live(pattern: list[Any]) -> bool:
    return any(isinstance(part, dict) for part in pattern)


def _looks(manifest: Json) -> Iterator[Json]:
    yield from manifest["looks"]
    for trial in manifest["trials"]:
        for looks in trial["B"]["looks"].values():
            yield from looks.values()


def build_script(code: ScriptCode, served: Served, edge_origin: str) -> ScriptFile:
    """Return the file, compressed once."""
    plain = script_text(code, manifest_of(served, edge_origin), edge_origin).encode()
    return ScriptFile(
        etag=hashlib.sha256(plain).hexdigest()[:20],
        plain=plain,
        gzipped=gzip.compress(plain, 9, mtime=0),
        brotlied=brotli.compress(plain, quality=9),
    )


def script_text(code: ScriptCode, manifest: Json, edge_origin: str) -> str:
    """Return the script with what it is told. Nothing of it is a global name on the shop's page."""
    told = orjson.dumps(manifest).decode().replace(PICTURES, f"{edge_origin}/pictures/")
    # Two characters are line ends to older JavaScript but not to JSON.
    told = told.replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")
    return f"(function(){{{code.for_store(manifest)};UpTick({told},pieces)}})();\n"
