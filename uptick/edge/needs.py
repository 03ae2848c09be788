"""Which pieces of the script a store's release needs, beside the part that every store has."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from uptick.core.button.merge import Json
from uptick.core.release.manifest import HANGS_ANYWHERE
from uptick.core.shop.connection import BasketJson

Needed = Callable[[Json], bool]


@dataclass(frozen=True, slots=True)
class Inline:
    """A piece that is written into a store's file where it is needed.

    `handed` are the names under which the start gets it, as JavaScript writes them.
    """

    file: str
    handed: str
    needed: Needed


@dataclass(frozen=True, slots=True)
class Loaded:
    """A piece that pages load by themselves, each kept for ever by its own hash."""

    file: str
    needed: Needed
    # Known to the script under another name than its file has.
    name: str = ""

    @property
    def known_as(self) -> str:
        return self.name or self.file


def is_draft(release: Json) -> bool:
    """Tell whether it is a draft: what is being drawn may come to need any piece."""
    return bool(release.get("draft"))


def _some_look(*names: str) -> Needed:
    return lambda release: is_draft(release) or any(look.get(name) for look in looks_of(release) for name in names)


def _opens(name: str) -> Needed:
    return lambda release: is_draft(release) or any(name in look for look in looks_of(release))


def _stands_at(place: str) -> Needed:
    return lambda release: is_draft(release) or place in release["places"]


def _says_live(release: Json) -> bool:
    return bool(
        is_draft(release)
        or release.get("bar")
        or any(row.get("price") for row in rows_of(release))
        or any("show" in look or "closer" in look for look in looks_of(release))
        or any(has_live(pattern) for pattern in patterns_of(release))
    )


def _tells_shoppers_apart(release: Json) -> bool:
    return any("shoppers" in rule["reach"] for rule in (*release["rules"], *release["trials"]))


def _finds_places(release: Json) -> bool:
    return is_draft(release) or has_places(release)


def _finds_rows_later(release: Json) -> bool:
    return bool(not is_draft(release) and release.get("pointed") and not has_places(release))


def _has_row(release: Json) -> bool:
    return is_draft(release) or any(True for _ in rows_of(release))


def _has_recent(release: Json) -> bool:
    return is_draft(release) or any("seen" in row for row in rows_of(release))


def _has_fixed(release: Json) -> bool:
    return is_draft(release) or any("fixed" in place for place in release["places"].values())


def _has_options(release: Json) -> bool:
    return bool(release["basket"].get("option_fields"))


def _has_fonts(release: Json) -> bool:
    return is_draft(release) or bool(release.get("fonts"))


def _tells_basket(release: Json) -> bool:
    return bool(release["basket"].get("read"))


def _depends_on_shopper(release: Json) -> bool:
    return bool(release["trials"]) or _tells_shoppers_apart(release)


def _reads_otherwise(release: Json) -> bool:
    return reads_in_its_own_way(release["basket"])


# In the order in which they stand in the file.
INLINE = (
    Inline("live", "fillText:UpLive.fillText,readAmounts:UpLive.readAmounts", _says_live),
    Inline(
        "deal",
        "dealVersions:UpDeal.dealVersions,forcedVersions:UpDeal.forcedVersions",
        lambda release: bool(release["trials"]),
    ),
    Inline("frame", "frame:UpFrame.frame", is_draft),
    Inline("quantity", "paintQuantity:UpQuantity.paintQuantity", _some_look("quantity")),
    Inline("second", "paintSecond:UpSecond.paintSecond", _some_look("second")),
    Inline("fonts", "loadFonts:UpFonts.loadFonts", _has_fonts),
    Inline("first", "readBasket:UpFirst.readBasket", _tells_basket),
    Inline("shopper", "shopperId:UpShopper.shopperId", _depends_on_shopper),
    Inline("kind", "shopperKind:UpKind.shopperKind", _tells_shoppers_apart),
    Inline("find", "findPlaces:UpFind.finder", _finds_places),
    Inline("icon", "drawIcon:UpIcon.drawIcon", _some_look("icon")),
    Inline("rules", "covering:UpRules.covering", lambda release: is_draft(release) or bool(release["rules"])),
    Inline("options", "options:UpOptions", _has_options),
    Inline("reads", "reads:UpReads", _reads_otherwise),
)
LOADED = (
    Loaded("bar", _stands_at("sticky_bar")),
    Loaded("floating", _stands_at("floating")),
    Loaded("over", _stands_at("over_picture")),
    Loaded("row", _has_row),
    Loaded("recent", _has_recent),
    Loaded("fixed", _has_fixed),
    *(Loaded(name, _opens(name)) for name in ("message", "sheet", "notify", "show", "closer")),
    # A product on a sheet may need a choice.
    Loaded("choices", _opens("closer")),
    Loaded("find_later", _finds_rows_later, "find"),
)


def looks_soon(release: Json) -> bool:
    """Tell whether pages that have no button yet are looked at later."""
    return _finds_rows_later(release) or release.get("bar") == HANGS_ANYWHERE


# What only a basket that is shown asks for is found in the answer itself.
_USUAL = BasketJson(path="/").model_dump(exclude={"path"}, exclude_none=True)


def reads_in_its_own_way(basket: Json) -> bool:
    """Tell whether a basket says what is in it otherwise than as JSON under the usual names."""
    read: Json = basket.get("read") or {}
    return bool(read) and any(read.get(name) != usual for name, usual in _USUAL.items())


def has_places(release: Json) -> bool:
    """Tell whether some button stands where somebody pointed; rows alone can be found later."""
    return any("row" not in place for place in release.get("pointed", []))


def rows_of(release: Json) -> Iterator[Json]:
    """Yield the rows that places bring."""
    yield from (place["row"] for place in release.get("pointed", []) if "row" in place)


def patterns_of(manifest: Json) -> Iterator[list[Any]]:
    """Yield every text that a store's buttons may say."""
    layers = [manifest["words"], *(place["words"] for place in manifest["places"].values())]
    layers += [rule.get("words", {}) for rule in manifest["rules"]]
    layers += [trial["B"]["words"] for trial in manifest["trials"]]
    for layer in layers:
        for by_language in layer.values():
            yield from by_language.values()
    for look in looks_of(manifest):
        yield from (look.get("second") or {}).values()
        yield from (look.get("spoken") or {}).values()
        message = look.get("message") or {}
        for name in ("text", "subject", "closed"):
            yield from message.get(name, {}).values()


def has_live(pattern: list[Any]) -> bool:
    """Tell whether a text has a live value in it."""
    return any(isinstance(part, dict) for part in pattern)


def looks_of(manifest: Json) -> Iterator[Json]:
    """Yield every look of a release and of the versions under trial."""
    yield from manifest.get("looks", ())
    for trial in manifest.get("trials", ()):
        for looks in trial["B"]["looks"].values():
            yield from looks.values()
