"""The placements that a store has: those of its own code, those that were pointed at, and those of the draft."""

from uptick.core.button.document import Device, Placement
from uptick.core.rules.pointed import PointedPlace
from uptick.core.rules.settings import ADDED, Settings
from uptick.core.shop.store import Store, Surface

# What a window leaves to a button in its corner; a wider one would be a bar (our own measure).
_FLOATING = Surface(widths_px={Device.PHONE: 343, Device.TABLET: 480, Device.DESKTOP: 480}, own_height_px=0)
# The room that a mail's text has on a phone, and in a window of its own (common practice: 600 px with 20 px beside it).
OUTSIDE_PX = {Device.PHONE: 280.0, Device.TABLET: 560.0, Device.DESKTOP: 560.0}
_OUTSIDE = Surface(widths_px=OUTSIDE_PX, own_height_px=0)


# What hangs at the window may stand for one product on every page.
FIXES = (Placement.STICKY_BAR, Placement.FLOATING)


def held_products(settings: Settings) -> dict[Placement, frozenset[str]]:
    """Return the codes of the products that a placement may show, of those that do not show all of them."""
    held = {place: frozenset([sku]) for place in FIXES if (sku := _fixed(settings, place))}
    return held | _on_tiles(settings)


def _fixed(settings: Settings, place: Placement) -> str:
    """Return the code of the product that a placement stands for; empty where it follows the page."""
    layers = (settings.baseline, settings.placements.get(place) or {})
    codes = [(layer.get("placement") or {}).get("product") for layer in layers]
    return next((code for code in reversed(codes) if isinstance(code, str)), "")


def _on_tiles(settings: Settings) -> dict[Placement, frozenset[str]]:
    rows = [place.row for place in settings.pointed.values() if place.placement is Placement.TILE and place.row]
    if not rows or any(row.seen for row in rows):
        return {}
    return {Placement.TILE: frozenset(tile.sku for row in rows for tile in row.products)}


def has_places(settings: Settings) -> bool:
    """Tell whether settings give a store placements besides those of its own code."""
    return bool(settings.pointed) or any(settings.placements.get(place) for place in ADDED)


def with_places(store: Store, settings: Settings) -> Store:
    """Return a store whose containers are also those that the settings add, the narrower one counting."""
    surfaces = dict(store.surfaces)
    for place in settings.pointed.values():
        if place.widths_px:
            surfaces[place.placement] = _narrower(surfaces.get(place.placement), place)
    if settings.placements.get(Placement.FLOATING):
        surfaces.setdefault(Placement.FLOATING, _FLOATING)
    if settings.placements.get(Placement.OUTSIDE):
        surfaces.setdefault(Placement.OUTSIDE, _OUTSIDE)
    return store if surfaces == store.surfaces else store.model_copy(update={"surfaces": surfaces})


def _narrower(known: Surface | None, place: PointedPlace) -> Surface:
    here = {device: place.button_px(device) for device in place.widths_px}
    if known is None:
        return Surface(widths_px=here, own_height_px=place.own_height_px, page_path=place.page_path)
    narrower = {d: min(known.widths_px.get(d, 4000), here.get(d, 4000)) for d in {**known.widths_px, **here}}
    high = max(known.own_height_px, place.own_height_px)
    return known.model_copy(update={"widths_px": narrower, "own_height_px": high})
