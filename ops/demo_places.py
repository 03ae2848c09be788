"""The demo's places that its shop does not mark: a row on the page of bees, and what was looked at, on the basket's."""

from ops import demo_words as words
from uptick.core.button.document import Device, Placement
from uptick.core.button.merge import Json
from uptick.core.button.on_pages import OnPages, PageKind
from uptick.core.button.row import Row, RowLine, Tile
from uptick.core.rules.pointed import Pages, PointedPlace, Where

_MAIN_PX = {Device.PHONE: 343, Device.TABLET: 720, Device.DESKTOP: 1080}
_BEFORE_BEES = ("TL-SMOKER", "JV-VEIL", "FW-BROOD")

PLACES = (
    PointedPlace(
        placement=Placement.TILE,
        selector="main > .cards",
        where=Where.AFTER,
        pages=Pages(paths=("/c/bees",)),
        widths_px=_MAIN_PX,
        page_path="/c/bees",
        row=Row(
            products=tuple(Tile(sku=sku, path=f"/p/{sku}") for sku in _BEFORE_BEES),
            phone=RowLine(across=1, ratio=1.6),
            tablet=RowLine(across=3, ratio=1.2),
            desktop=RowLine(across=3, ratio=1.5),
            heading=words.BEFORE_BEES,
            radius_px=6,
        ),
    ),
    PointedPlace(
        placement=Placement.STRIP,
        selector="main",
        where=Where.INSIDE,
        pages=Pages(paths=("/basket",)),
        widths_px=_MAIN_PX,
        page_path="/basket",
        row=Row(
            seen=True,
            phone=RowLine(across=2, ratio=1.25),
            tablet=RowLine(across=4, ratio=1.25),
            desktop=RowLine(across=4, ratio=1.25),
            heading=words.LOOKED_AT,
            radius_px=6,
        ),
    ),
)

TILE: Json = {
    "look": {"padding": {"top": 10, "right": 14, "bottom": 10, "left": 14}, "type": {"size_px": 15}},
    "wording": words.TILE,
}

# One set for everybody who only looks around, until it is in the way of a page of its own.
FLOATING: Json = {
    "placement": {
        "product": "SS-FIRST",
        "pages": OnPages(kinds=(PageKind.LIST,), not_paths=("/c/starter-sets",)).model_dump(mode="json"),
    },
    "floating": {"comes": {"kind": "share", "share": 0.15}, "foot_px": 160},
    "look": {
        "padding": {"top": 12, "right": 18, "bottom": 12, "left": 18},
        "radius": 24,
        "fill": {"kind": "solid", "colour": "#2f5d3a"},
        "text_colour": "#fffdf6",
    },
    "wording": words.FLOATING,
}
