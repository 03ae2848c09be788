"""What hangs at the window, compiled: when it comes and goes, as the script is told it, and a floating button."""

from typing import NotRequired

from typing_extensions import TypedDict

from uptick.core.button.bar import AfterDistance, AfterShare, Hanging
from uptick.core.button.document import DEVICE_FROM_PX, Device
from uptick.core.button.floating import Floating


class CompiledHanging(TypedDict):
    """What comes and goes, in the form that the script stands it; what is not there is as usual.

    `share` or `px` is when it comes, neither that it comes once the page's own button has left. With `stays` it does
    not go when that button is back; `foot` is how many pixels before the page's end it goes. `top` stands at the upper
    edge.
    """

    css: str
    top: NotRequired[bool]
    share: NotRequired[float]
    px: NotRequired[float]
    up: NotRequired[bool]
    stays: NotRequired[bool]
    foot: NotRequired[float]


def say_when(wire: CompiledHanging, hanging: Hanging, *, top: bool) -> None:
    """Say when something comes and goes."""
    if top:
        wire["top"] = True
    match hanging.comes:
        case AfterShare(share=share):
            wire["share"] = share
        case AfterDistance(px=px):
            wire["px"] = px
    if hanging.only_up:
        wire["up"] = True
    if not hanging.returns:
        wire["stays"] = True
    if hanging.foot_px:
        wire["foot"] = hanging.foot_px


def compile_floating(floating: Floating) -> CompiledHanging:
    """Return a floating button compiled."""
    wire: CompiledHanging = {"css": floating_css(floating)}
    say_when(wire, floating, top=floating.is_top)
    return wire


def floating_css(floating: Floating) -> str:
    """Return what a floating button has beside what everything has that hangs.

    It is below a bar, where both are at once; it keeps clear of what a phone draws at the window's edges, and where
    one begins to read on the right its corner is the other one.
    """
    appear = f";transition:opacity {floating.appear_ms}ms,visibility {floating.appear_ms}ms"
    return (
        f".r{{z-index:2147482999;opacity:0{appear if floating.appear_ms else ''}}}:host([data-in]) .r{{opacity:1}}"
        f"{''.join(_at(floating, device) for device in Device)}"
    )


def _at(floating: Floating, device: Device) -> str:
    inset = floating.inset(device)
    block, side = floating.corner.split("_")
    left = "left" if side == "start" else "right"
    under = "var(--up-under,0px) + " if block == "top" else ""
    return on_device(
        device,
        f".r{{inset-block-{'start' if block == 'top' else 'end'}:"
        f"calc({under}{inset.edge_px:g}px + env(safe-area-inset-{block}));"
        f"inset-inline-{side}:calc({inset.side_px:g}px + env(safe-area-inset-{left}))}}",
    )


def on_device(device: Device, rules: str) -> str:
    """Return rules for one device's windows."""
    after = [px for other, px in DEVICE_FROM_PX.items() if px > DEVICE_FROM_PX[device]]
    least = f"(min-width:{DEVICE_FROM_PX[device]}px)" if DEVICE_FROM_PX[device] else ""
    most = f"(max-width:{min(after) - 1}px)" if after else ""
    return f"@media{' and '.join(filter(None, (least, most)))}{{{rules}}}"
