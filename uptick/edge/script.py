"""The one file a store loads: the script with the store's release and trials in it."""

import base64
import gzip
import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import brotli
import orjson

from uptick.core.button.merge import Json
from uptick.core.colour.fills import PICTURES
from uptick.core.drawing.bar import bar_of_older
from uptick.core.release.manifest import HANGS_ANYWHERE, WireLater, wire_basket
from uptick.core.shop.connection import BasketJson
from uptick.core.words.outcome_words import outcome_words
from uptick.usecases.serving import Served


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
    looks = {place: {key: _as_now(look) for key, look in made.items()} for place, made in version["looks"].items()}
    return {**trial, "B": {**version, "looks": looks}}


# What only one placement needs is loaded by itself.
_FILE_OF = {"sticky_bar": "bar", "floating": "floating", "over_picture": "over"}
_ROW, _RECENT, _FIXED = "row", "recent", "fixed"
# What a press opens is loaded where some look has it.
_OPENED = ("message", "sheet", "notify", "show", "closer")


@dataclass(frozen=True, slots=True)
class ScriptCode:
    """The built script, and the pieces that only some stores need, read once."""

    main: str
    live: str
    deal: str
    quantity: str
    kind: str
    second: str
    frame: str
    options: str
    rules: str
    icon: str
    reads: str
    find: str
    later: Later
    bar: Later
    floating: Later
    over: Later
    row: Later
    recent: Later
    fixed: Later
    message: Later
    notify: Later
    sheet: Later
    show: Later
    closer: Later
    choices: Later
    find_later: Later

    @classmethod
    def read(cls, folder: Path) -> "ScriptCode":
        def text(name: str) -> str:
            return (folder / f"{name}.js").read_text()

        names = ("live", "deal", "quantity", "kind", "second", "frame", "options", "rules", "icon", "reads", "find")

        def file(name: str) -> Later:
            return Later.of((folder / f"{name}.js").read_bytes())

        return cls(
            main=text("up"),
            later=file("later"),
            bar=file("bar"),
            floating=file("floating"),
            over=file("over"),
            row=file(_ROW),
            recent=file(_RECENT),
            fixed=file(_FIXED),
            message=file("message"),
            notify=file("notify"),
            sheet=file("sheet"),
            show=file("show"),
            closer=file("closer"),
            choices=file("choices"),
            find_later=file("find_later"),
            **{name: text(name) for name in names},
        )

    def files_for(self, release: Json) -> Json:
        """Return the files that a release's script may load, as it is told them. A draft may come to need any."""
        draft = release.get("draft")
        needed = [name for place, name in _FILE_OF.items() if draft or place in release["places"]]
        if draft or [*_rows(release)]:
            needed.append(_ROW)
        if draft or any("seen" in row for row in _rows(release)):
            needed.append(_RECENT)
        if draft or any("fixed" in place for place in release["places"].values()):
            needed.append(_FIXED)
        needed += [name for name in _OPENED if draft or any(name in look for look in _looks(release))]
        needed += ["choices"] if "closer" in needed else []
        more = {name: getattr(self, name).told for name in needed}
        if not draft and release.get("pointed") and not _has_places(release):
            more["find"] = self.find_later.told
        # What comes later is looked for on pages that have no button yet.
        soon = {"soon": True} if "find" in more or release.get("bar") == HANGS_ANYWHERE else {}
        return {"later": self.later.told, "more": more, **soon}

    def file(self, name: str) -> Later | None:
        """Return what is loaded by this name, or None."""
        known = (
            self.later,
            self.row,
            self.recent,
            self.fixed,
            self.find_later,
            self.choices,
            *(getattr(self, each) for each in (*_FILE_OF.values(), *_OPENED)),
        )
        return next((file for file in known if file.name == name), None)

    def for_store(self, manifest: Json) -> str:
        """Return the code that a manifest needs, and the pieces as they are handed to the start."""
        code, pieces = [self.main], []
        draft = bool(manifest.get("draft"))
        looks = [*_looks(manifest)]
        for needed, text, handed in (
            (
                draft
                or manifest.get("bar")
                or any(row.get("price") for row in _rows(manifest))
                or any("show" in look or "closer" in look for look in looks)
                or any(_has_live(pattern) for pattern in _patterns(manifest)),
                self.live,
                "fillText:UpLive.fillText,readAmounts:UpLive.readAmounts",
            ),
            (
                bool(manifest["trials"]),
                self.deal,
                "dealVersions:UpDeal.dealVersions,forcedVersions:UpDeal.forcedVersions",
            ),
            # What is being drawn may come to need any piece.
            (draft, self.frame, "frame:UpFrame.frame"),
            (draft or any(look["quantity"] for look in looks), self.quantity, "paintQuantity:UpQuantity.paintQuantity"),
            (draft or any(look.get("second") for look in looks), self.second, "paintSecond:UpSecond.paintSecond"),
            (
                any("shoppers" in rule["reach"] for rule in (*manifest["rules"], *manifest["trials"])),
                self.kind,
                "shopperKind:UpKind.shopperKind",
            ),
            (draft or _has_places(manifest), self.find, "findPlaces:UpFind.finder"),
            (draft or any(look.get("icon") for look in looks), self.icon, "drawIcon:UpIcon.drawIcon"),
            (draft or bool(manifest["rules"]), self.rules, "covering:UpRules.covering"),
            (bool(manifest["basket"].get("option_fields")), self.options, "options:UpOptions"),
            (_reads_in_its_own_way(manifest["basket"]), self.reads, "reads:UpReads"),
        ):
            if needed:
                code.append(text)
                pieces.append(handed)
        return f"{';'.join(code)};const pieces={{{','.join(pieces)}}}"


# What only a basket that is shown asks for is found in the answer itself.
_USUAL = BasketJson(path="/").model_dump(exclude={"path"}, exclude_none=True)


def _reads_in_its_own_way(basket: Json) -> bool:
    """Tell whether a basket says what is in it otherwise than as JSON under the usual names."""
    read: Json = basket.get("read") or {}
    return bool(read) and any(read.get(name) != usual for name, usual in _USUAL.items())


def _has_places(release: Json) -> bool:
    """Tell whether some button stands where somebody pointed; rows alone can be found later."""
    return any("row" not in place for place in release.get("pointed", []))


def _rows(release: Json) -> Iterator[Json]:
    """Yield the rows that places bring."""
    yield from (place["row"] for place in release.get("pointed", []) if "row" in place)


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
        message = look.get("message") or {}
        for name in ("text", "subject", "closed"):
            yield from message.get(name, {}).values()


def _has_live(pattern: list[Any]) -> bool:
    return any(isinstance(part, dict) for part in pattern)


def _looks(manifest: Json) -> Iterator[Json]:
    yield from manifest.get("looks", ())
    for trial in manifest.get("trials", ()):
        for looks in trial["B"]["looks"].values():
            yield from looks.values()


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
    told = orjson.dumps(manifest).decode().replace(PICTURES, f"{edge_origin}/pictures/")
    text = told.replace("\\", "\\\\").replace("'", "\\'")
    # Two characters are line ends to older JavaScript but not to JSON.
    text = text.replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")
    return f"(function(){{{code.for_store(manifest)};UpTick(JSON.parse('{text}'),pieces)}})();\n"
