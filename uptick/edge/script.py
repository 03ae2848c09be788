"""The one file a store loads: the script with the store's release and trials in it."""

import base64
import gzip
import hashlib
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

import brotli
import orjson

from uptick.core.button.merge import Json
from uptick.core.colour.fills import PICTURES
from uptick.core.drawing.bar import bar_of_older
from uptick.core.release.manifest import WireLater, wire_basket
from uptick.core.words.outcome_words import outcome_words
from uptick.edge.needs import INLINE, LOADED, looks_soon
from uptick.usecases.serving import Served

# Asks the browser to compile every function with the file, which it does beside the page's main thread, instead of each
# at its first call (V8, "Explicit compile hints"). To other browsers it is a comment.
COMPILE_AT_ONCE = "//# allFunctionsCalledOnLoad\n"


@dataclass(frozen=True, slots=True)
class ScriptFile:
    etag: str
    plain: bytes
    gzipped: bytes
    brotlied: bytes


@dataclass(frozen=True, slots=True)
class Later:
    """What every store's script loads once the buttons stand: the same file for all, kept for ever by its own hash."""

    name: str
    integrity: str
    plain: bytes
    gzipped: bytes
    brotlied: bytes

    @classmethod
    def of(cls, code: bytes) -> "Later":
        digest = hashlib.sha256(code).digest()
        return cls(
            name=f"{digest.hex()[:16]}.js",
            integrity=f"sha256-{base64.b64encode(digest).decode()}",
            plain=code,
            gzipped=gzip.compress(code, 9, mtime=0),
            brotlied=brotli.compress(code),
        )

    @property
    def told(self) -> WireLater:
        return {"file": self.name, "integrity": self.integrity}


def is_current(release: Json) -> bool:
    """Tell whether a release has the form that this script reads; older ones wait for the next release."""
    return "looks" in release


def manifest_of(served: Served, edge_origin: str, code: "ScriptCode") -> Json:
    """Return what the script is told about its store."""
    return {
        "edge": edge_origin,
        "key": served.store.key,
        "release": served.release_n,
        # An older release has none.
        "css": "",
        **served.release,
        "basket": wire_basket(served.store.connection),
        "outcomes": {language: outcome_words(language) for language in served.release.get("languages", ())},
        # A version may open what the release does not.
        **code.files_for({**served.release, "trials": served.trials["trials"]}),
        "looks": [_as_now(look) for look in served.release["looks"]],
        "trials": [_trial_as_now(trial) for trial in served.trials["trials"]],
    }


def _as_now(look: Json) -> Json:
    """Return a look in the form that this script reads.

    An icon of an older release is one bare path, and its bar holds a name and a price or not.
    """
    if "price" in look:
        look = {**look, "bar": bar_of_older(name=look["name"], price=look["price"])}
    icon = look["icon"]
    if not icon or "paths" in icon:
        return look
    box = f"0 0 {icon['box']} {icon['box']}"
    return {**look, "icon": {"paths": [{"d": icon["path"]}], "box": box, "side": icon["side"]}}


def _trial_as_now(trial: Json) -> Json:
    version = trial["B"]
    looks = {
        place: {key: _as_now(look) for key, look in looks_of.items()} for place, looks_of in version["looks"].items()
    }
    return {**trial, "B": {**version, "looks": looks}}


@dataclass(frozen=True, slots=True)
class ScriptCode:
    """The built script and its pieces by their files, read once.

    Attributes:
        main: What every store's file has.
        later: What every page loads once buttons stand.
        inline: Pieces as text.
        files: Pieces as files of their own.
    """

    main: str
    later: Later
    inline: Mapping[str, str]
    files: Mapping[str, Later]

    @classmethod
    def read(cls, folder: Path) -> "ScriptCode":
        def path(name: str) -> Path:
            return folder / f"{name}.js"

        def loaded(name: str) -> Later:
            return Later.of(COMPILE_AT_ONCE.encode() + path(name).read_bytes())

        return cls(
            main=path("up").read_text(),
            later=loaded("later"),
            inline={piece.file: path(piece.file).read_text() for piece in INLINE},
            files={piece.file: loaded(piece.file) for piece in LOADED},
        )

    def files_for(self, release: Json) -> Json:
        """Return the files that a release's script may load, as it is told them."""
        more = {piece.known_as: self.files[piece.file].told for piece in LOADED if piece.needed(release)}
        return {"later": self.later.told, "more": more, **({"soon": True} if looks_soon(release) else {})}

    def file(self, name: str) -> Later | None:
        """Return what is loaded by this name, or None."""
        return next((file for file in (self.later, *self.files.values()) if file.name == name), None)

    def for_store(self, manifest: Json) -> str:
        """Return the code that a manifest needs, and the pieces as they are handed to the start."""
        pieces = [piece for piece in INLINE if piece.needed(manifest)]
        code = ";".join((self.main, *(self.inline[piece.file] for piece in pieces)))
        return f"{code};const pieces={{{','.join(piece.handed for piece in pieces)}}}"


def build_script(code: ScriptCode, served: Served, edge_origin: str) -> ScriptFile:
    """Return the file, compressed once."""
    plain = script_text(code, manifest_of(served, edge_origin, code), edge_origin).encode()
    return ScriptFile(
        etag=hashlib.sha256(plain).hexdigest()[:20],
        plain=plain,
        gzipped=gzip.compress(plain, 9, mtime=0),
        brotlied=brotli.compress(plain),
    )


def script_text(code: ScriptCode, manifest: Json, edge_origin: str) -> str:
    """Return the script with what it is told. Nothing of it is a global name on the shop's page.

    A browser reads JSON in a text twice as fast as the same thing written as code.
    """
    data = orjson.dumps(manifest).decode().replace(PICTURES, f"{edge_origin}/pictures/")
    text = data.replace("\\", "\\\\").replace("'", "\\'")
    # Two characters are line ends to older JavaScript but not to JSON.
    text = text.replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")
    return f"{COMPILE_AT_ONCE}(function(){{{code.for_store(manifest)};UpTick(JSON.parse('{text}'),pieces)}})();\n"
