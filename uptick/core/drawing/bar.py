"""The sticky bar compiled: what it holds, and its own style sheet."""

from collections.abc import Iterable
from typing import NotRequired

from typing_extensions import TypedDict

from uptick.core.button.bar import Bar, BarPart
from uptick.core.button.document import Device
from uptick.core.drawing.hanging import CompiledHanging, on_device, say_when
from uptick.core.words.close_words import CLOSE_WORDS


class CompiledClose(TypedDict):
    """`hours` is how long a closed bar stays away, `names` what the key is called by language."""

    hours: int
    names: dict[str, str]


class CompiledBar(CompiledHanging):
    """A bar in the form that the script stands it."""

    parts: list[str]
    net: NotRequired[bool]
    heading: NotRequired[dict[str, str]]
    close: NotRequired[CompiledClose]


def compile_bar(bar: Bar, languages: Iterable[str] = ()) -> CompiledBar:
    """Return a bar compiled for a store that speaks some languages."""
    wire: CompiledBar = {"css": bar_css(bar), "parts": [part.value for part in bar.parts]}
    say_when(wire, bar, top=bar.edge == "top")
    if not bar.taxed:
        wire["net"] = True
    if BarPart.HEADING in bar.parts and bar.heading:
        wire["heading"] = dict(bar.heading)
    if bar.close_hours:
        names = {language: CLOSE_WORDS.get(language.split("-")[0], CLOSE_WORDS["en"]) for language in languages}
        wire["close"] = {"hours": bar.close_hours, "names": names}
    return wire


def bar_of_older(*, name: bool, price: bool) -> CompiledBar:
    """Return the bar of a release that was made before bars could be drawn."""
    shown = {BarPart.NAME: name, BarPart.PRICE: price, BarPart.BUTTON: True}
    return compile_bar(Bar(parts=tuple(part for part, stands in shown.items() if stands)))


PICTURE_PX = 40
GAP_PX = 16
# What every bar has, whatever is drawn of it; it goes with the script.
BAR_CSS = (
    ":host{all:initial;display:block}i{position:absolute;left:0;width:1px;height:1px}"
    ".r{position:fixed;z-index:2147483000;visibility:hidden;box-sizing:border-box;font:15px/1.3 system-ui,sans-serif}"
    ":host([data-in]) .r{visibility:visible;transform:none!important}"
    f".w{{display:flex;align-items:center;gap:{GAP_PX}px;max-width:1128px;margin:0 auto;padding:8px 16px;"
    "box-sizing:border-box}"
    ".t{min-width:0;overflow:hidden;text-overflow:ellipsis;white-space:nowrap}.price{flex:none}"
    f".name{{font-weight:600}}.picture{{flex:none;width:{PICTURE_PX}px;height:{PICTURE_PX}px;object-fit:cover}}"
    "slot{display:block;flex:0 1 auto}"
    ".x{all:unset;flex:none;width:32px;height:32px;text-align:center;font-size:20px;line-height:32px;cursor:pointer}"
    ".x:focus-visible{outline:3px solid;outline-offset:-3px}"
    "@media(prefers-reduced-motion:reduce){.r{transition:none!important}}@media print{:host{display:none}}"
)


def bar_css(bar: Bar) -> str:
    """Return what a bar has beside `BAR_CSS`.

    It slides by its own edge (0.3 s is common practice), casts its shadow away from that edge, puts no shade over the
    page and keeps clear of what a phone draws at its edges (`viewport-fit=cover`).
    """
    top = bar.edge == "top"
    shadow = f";box-shadow:0 {2 if top else -2}px 12px rgb(0 0 0/.18)" if bar.shadow else ""
    slide = f";transition:transform {bar.slide_ms}ms,visibility {bar.slide_ms}ms" if bar.slide_ms else ""
    inner = "env(safe-area-inset-top)" if top else "0"
    outer = "0" if top else "env(safe-area-inset-bottom)"
    middle = ".w{justify-content:center}" if bar.spread == "middle" else ""
    return (
        f".r{{inset:{'var(--up-under,0) 0 auto' if top else 'auto 0 0'};transform:translateY({'-' if top else ''}110%);"
        f"padding:{inner} env(safe-area-inset-right) {outer} env(safe-area-inset-left);"
        f"background:{bar.ground};color:{bar.ink}{shadow}{slide}}}"
        f"{middle}{''.join(_on_device(bar, device) for device in Device)}"
    )


def _on_device(bar: Bar, device: Device) -> str:
    """Return what is left out on a device, and where the room goes."""
    held = bar.holds(device)
    rules = [f".{part}{{display:none}}" for part in bar.without(device) if part in bar.parts]
    if held == (BarPart.BUTTON,):
        rules.append("slot{flex:1;text-align:center}")
    elif bar.spread == "apart":
        rules.append(f".{_second_group(held)}{{margin-inline-start:auto}}")
    if not rules:
        return ""
    return on_device(device, "".join(rules))


def _second_group(held: tuple[BarPart, ...]) -> BarPart:
    """Return the part that begins what stands at the far end: the button with the price before it, or all after it."""
    at = held.index(BarPart.BUTTON)
    first = at - 1 if at > 0 and held[at - 1] is BarPart.PRICE else at
    if first:
        return held[first]
    return held[at + 1] if at + 1 < len(held) else held[-1]
