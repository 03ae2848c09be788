"""A row of tiles compiled: what the script brings, and its own style sheet."""

from typing import NotRequired

from typing_extensions import TypedDict

from uptick.core.button.document import Device
from uptick.core.button.row import Row
from uptick.core.drawing.hanging import on_device


class WireTile(TypedDict):
    """A product of a row; `focus` is the focal point of its picture as CSS writes it, where that is not the middle."""

    sku: str
    path: str
    focus: NotRequired[str]


class WireRow(TypedDict):
    """A row in the form that the script stands it; what is not there is as usual.

    `seen` is how many of the products that the browser saw last are shown. `price` is the live value that stands under
    a tile, and `bare` says that its name does not; with `over` the button lies on the picture.
    """

    css: str
    tiles: list[WireTile]
    seen: NotRequired[int]
    heading: NotRequired[dict[str, str]]
    bare: NotRequired[bool]
    price: NotRequired[str]
    over: NotRequired[bool]


def compile_row(row: Row) -> WireRow:
    """Return a row compiled."""
    tiles: list[WireTile] = []
    for tile in row.products:
        tile_wire: WireTile = {"sku": tile.sku, "path": tile.path}
        if (tile.across, tile.down) != (50, 50):
            tile_wire["focus"] = f"{tile.across:g}% {tile.down:g}%"
        tiles.append(tile_wire)
    wire: WireRow = {"css": row_css(row), "tiles": tiles}
    if row.seen:
        wire["seen"] = row.most
    if row.heading:
        wire["heading"] = dict(row.heading)
    if not row.name:
        wire["bare"] = True
    if row.price != "none":
        wire["price"] = "price" if row.price == "with_tax" else "price without tax"
    if row.anchor:
        wire["over"] = True
    return wire


# From what stands above and below.
SPACE_PX = 24
_SHADOW = "0 1px 2px rgb(0 0 0/.1),0 4px 14px rgb(0 0 0/.14)"


def row_css(row: Row) -> str:
    """Return the style sheet of a row.

    The room of every tile is set before its product is known, so that nothing moves when that comes: a picture has its
    ratio, name and price together three lines. Type and colours are the page's own.
    """
    shadow = f";box-shadow:{_SHADOW}" if row.shadow else ""
    return (
        f":host{{display:block;padding:{SPACE_PX}px 0}}"
        "h2{font:inherit;font-weight:600;font-size:1.25em;margin:0 0 12px}"
        f"ul{{display:grid;gap:{row.gap_px:g}px;list-style:none;margin:0;padding:0}}"
        "li{display:flex;flex-direction:column;gap:6px;min-width:0}a{color:inherit;text-decoration:none}"
        f".p{{position:relative;border-radius:{row.radius_px:g}px{shadow}}}"
        ".p a{display:block;border-radius:inherit;overflow:hidden}a:focus-visible{outline:2px solid;outline-offset:2px}"
        "img{display:block;width:100%;height:100%;object-fit:cover}"
        f".t{{min-height:{_lines(row)}lh}}"
        ".n{display:-webkit-box;-webkit-box-orient:vertical;-webkit-line-clamp:2;overflow:hidden}"
        ".n:hover{text-decoration:underline}.m{font-variant-numeric:tabular-nums}"
        f"slot{{display:block}}{_button_css(row)}{''.join(_on_device(row, device) for device in Device)}"
    )


def _lines(row: Row) -> int:
    return 2 * row.name + (row.price != "none")


def _on_device(row: Row, device: Device) -> str:
    line = row.line(device)
    columns = f"ul{{grid-template-columns:repeat({line.across},minmax(0,1fr))}}"
    return on_device(device, f"{columns}.p a{{aspect-ratio:{line.ratio:g}}}")


_ACROSS = {"start": "start", "end": "end"}


def _button_css(row: Row) -> str:
    """Return where the button of a tile lies: at the foot of the tile, or at its anchor on the picture."""
    if not row.anchor:
        return "slot{margin-top:auto}"
    down = "start" if row.anchor.startswith("top") else "end" if row.anchor.startswith("bottom") else "center"
    across = _ACROSS.get(row.anchor.rpartition("_")[2], "center")
    # What is not the button lets a press through to the picture.
    return (
        f".o{{position:absolute;inset:{row.inset_px:g}px;display:grid;align-items:{down};justify-items:{across};"
        "pointer-events:none}slot{pointer-events:auto;max-width:100%}"
    )
