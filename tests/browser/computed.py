"""A stylesheet brought through the studio's own reader, and what of it our button has, property by property."""

import json
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from coloraide import Color
from playwright.sync_api import Page

from tests.samples import kit
from tests.usecases.fakes import fake_shop
from uptick.core.button.document import ButtonDocument, parse_document
from uptick.core.button.merge import merge_layer
from uptick.core.drawing.compile import BASE_CSS, compile_button
from uptick.core.formats.css_reading import by_side
from uptick.usecases.looks import Source, bring

Json = dict[str, Any]
_SIDES = ("top", "right", "bottom", "left")
BOX = (
    *(f"padding-{side}" for side in _SIDES),
    *(f"border-{side}-{part}" for side in _SIDES for part in ("width", "style", "color")),
    *(f"border-{up}-{side}-radius" for up in ("top", "bottom") for side in ("left", "right")),
    "background-color", "background-image", "box-shadow", "opacity", "min-height",
)  # fmt: skip
WORDS = (
    "color", "font-size", "font-weight", "font-style", "line-height", "letter-spacing", "text-transform", "text-shadow",
    "text-decoration-line",
)  # fmt: skip
# What a designer is told a property by, where it is not by its own name.
_TITLES = {
    "line-height": "line height", "letter-spacing": "letter spacing", "font-weight": "weight", "font-size": "type size",
    "background-color": "fill", "background-image": "background-", "text-transform": "capitals",
    "min-height": "height",
}  # fmt: skip

# Our button as a shop's page has it, and its computed values in each state; nothing moves meanwhile.
STAND = """({ css, states }) => {
  const host = document.createElement('div'); document.body.append(host);
  const root = host.attachShadow({ mode: 'open' });
  const style = document.createElement('style');
  style.textContent = css + '*,*::before,*::after{transition:none!important;animation:none!important}';
  const button = document.createElement('button'); button.className = 'b';
  const words = document.createElement('span'); words.className = 'w'; words.textContent = 'Add to basket';
  button.append(words); root.append(style, button);
  const all = (one, only = /./) => {
    const s = getComputedStyle(one);
    return Object.fromEntries([...s].filter((n) => only.test(n)).map((n) => [n, s.getPropertyValue(n)]));
  };
  const lines = (one) => {
    one.style.zoom = 64; one.style.display = 'none';
    const found = all(one, /^border-.*-width$/);
    one.style.zoom = ''; one.style.display = ''; return found;
  };
  const found = {};
  for (const state of states) {
    delete button.dataset.look; delete button.dataset.moment;
    if (state === 'disabled') button.dataset.moment = 'sold_out';
    else if (state !== 'rest') button.dataset.look = state;
    found[state] = { button: { ...all(button), ...lines(button) }, words: all(words) };
  }
  host.remove();
  return found;
}"""


@dataclass(frozen=True)
class Compared:
    """One property in one state: as the source has it, as ours has it, and whether its difference was told."""

    state: str
    name: str
    theirs: str
    ours: str
    told: bool

    @property
    def is_alike(self) -> bool:
        return self.theirs == self.ours


def read(page: Page, css: str, markup: str = "", name: str = "") -> Json:
    """Return what the reader says of a stylesheet: `reading` and `likely`."""
    asked = {"css": css, **({"markup": markup} if markup else {}), **({"name": name} if name else {})}
    found: Json = page.evaluate("(asked) => UpCss.readCss(asked)", asked)
    return found


def brought(reading: Json) -> tuple[ButtonDocument, Sequence[str]]:
    """Return the button that a reading makes of the sample shop's, and what was told."""
    shop = fake_shop().shop
    found = bring(shop, Source("computed", json.dumps(reading)))
    return parse_document(merge_layer(shop.now().settings.baseline, found.layer)), found.left_out


def seen(page: Page, document: ButtonDocument) -> Json:
    """Return how our button is drawn in every state: the values of what a look says, in one spelling."""
    css = BASE_CSS + compile_button(document, kit())["css"]
    found = page.evaluate(STAND, {"css": css, "states": ["rest", "hover", "pressed", "focus", "disabled"]})
    return {
        f"{state} {name}": _plain(name, style[part][name])
        for state, style in found.items()
        for part, names in (("button", (*BOX, "outline-color", "outline-width")), ("words", WORDS))
        for name in names
        if not _is_moot(name, style[part])
    }


def compare(page: Page, reading: Json) -> Iterator[Compared]:
    """Yield every property that the stylesheet sets, in every state that it speaks of, against our own button's."""
    document, told = brought(reading)
    states = ["rest", *(state for state in ("hover", "pressed", "focus", "disabled") if reading["said_in"].get(state))]
    css = BASE_CSS + compile_button(document, kit())["css"]
    ours = page.evaluate(STAND, {"css": css, "states": states})
    rest = reading["widths"][0]["rest"]
    for state in states:
        differs = reading["widths"][0]["states"].get(state, {"button": {}, "words": {}})
        said = {*by_side(reading["said"]), *by_side(reading["said_in"].get(state, ()))}
        for part, names in (("button", BOX), ("words", WORDS)):
            theirs = {**rest[part], **differs[part]}
            around = set(reading["said_around"]) if part == "words" else set()
            for name in names:
                if name in said | around and not _is_moot(name, theirs):
                    mine = _plain(name, ours[state][part][name])
                    if name == "line-height" and document.look.type.line == 0:
                        mine = "normal"
                    yield Compared(state, name, _plain(name, theirs[name]), mine, _is_told(name, told))


def _is_moot(name: str, style: Json) -> bool:
    """Tell whether a property draws nothing: a line without a width has neither colour nor style."""
    if not name.startswith("border-") or name.endswith("radius"):
        return name == "min-height" and style["box-sizing"] == "content-box"
    side = name.split("-")[1]
    return style[f"border-{side}-style"] in ("none", "hidden") or style[f"border-{side}-width"] == "0px"


def _plain(name: str, value: str) -> str:
    """Return a value in one spelling."""
    if name.endswith("color"):
        shade = Color(value).convert("srgb")
        return str(shade.to_string(hex=True)) if shade.alpha() else "transparent"
    # Browsers write five digits, we write four.
    value = re.sub(r"(-?\d+\.\d{4,})px", lambda found: f"{round(float(found[1]), 3):g}px", value)
    if name == "letter-spacing" and value == "normal":
        return "0px"
    if name == "font-style" and value.startswith("oblique"):
        return "italic"
    if name == "background-image":
        turned = re.sub(r"(-[\d.]+)deg", lambda found: f"{float(found[1]) + 360:g}deg", value)
        return turned.replace(", none", "").replace(" in srgb", "")
    if name.endswith("radius") and value.endswith("px"):
        # Beyond the half of any button all are one.
        return f"{min(400, float(value.split('px')[0])):g}px"
    return value


def _is_told(name: str, told: Sequence[str]) -> bool:
    title = _TITLES.get(name, name)
    stem = "-".join(name.split("-")[:2])
    return any(name in word or title in word.lower() or stem in word for word in told)
