"""What a designer can draw from: kept looks, starting points, the brand's shades, pictures."""

from collections.abc import Sequence
from dataclasses import dataclass

from uptick.core.button.document import ButtonDocument, Device, parse_document
from uptick.core.button.fields import PARTS
from uptick.core.button.merge import Json, merge_layer
from uptick.core.colour.ramp import Brand, Seed, Shade, ramp
from uptick.core.drawing.compile import CompiledButton, compile_button
from uptick.core.drawing.kit import Kit
from uptick.core.formats.tokens_in import TokenValue
from uptick.core.looks.carry import only_parts
from uptick.core.looks.starts import starts
from uptick.core.resolved.differences import FieldChange
from uptick.usecases.edit import layer_title
from uptick.usecases.looks import Source, bring, carry_patch, changes_by, users_of
from uptick.usecases.ports import Shop, StoredPicture
from uptick.usecases.views.drawing import DrawQuery, DrawView, document_at, try_edit


@dataclass(frozen=True, slots=True)
class LookShown:
    """A named look with what uses it, drawn on the store's baseline."""

    id: str
    name: str
    used_by: tuple[str, ...]
    button: CompiledButton


@dataclass(frozen=True, slots=True)
class StartShown:
    key: str
    name: str
    says: str
    button: CompiledButton


@dataclass(frozen=True, slots=True)
class Ramp:
    name: str
    colour: str
    shades: tuple[Shade, ...]


@dataclass(frozen=True, slots=True)
class LooksView:
    looks: tuple[LookShown, ...]
    starts: tuple[StartShown, ...]
    ramps: tuple[Ramp, ...]
    pictures: tuple[StoredPicture, ...]
    parts: tuple[str, ...]


def view_looks(shop: Shop) -> LooksView:
    """Return the kept looks of a store, each with what it changes."""
    settings = shop.now().settings
    return LooksView(
        looks=tuple(
            LookShown(
                look_id,
                look.name,
                tuple(layer_title(settings, layer) for layer in users_of(settings, look_id)),
                compile_button(_standing(settings.baseline, look.layer), shop.kit),
            )
            for look_id, look in settings.looks.items()
        ),
        starts=_starts(settings.brand, settings.baseline, shop.kit),
        ramps=tuple(Ramp(seed.name, seed.colour, ramp(seed)) for seed in settings.brand.seeds),
        pictures=tuple(shop.pictures.all()),
        parts=tuple(PARTS),
    )


def _starts(brand: Brand, baseline: Json, kit: Kit) -> tuple[StartShown, ...]:
    return tuple(
        StartShown(start.key, start.name, start.says, compile_button(_standing(baseline, start.layer), kit))
        for start in starts(brand)
    )


def _standing(baseline: Json, layer: Json) -> ButtonDocument:
    return parse_document(merge_layer({k: v for k, v in baseline.items() if k != "uses"}, layer))


@dataclass(frozen=True, slots=True)
class DeviceChanges:
    """What a look that is brought says otherwise on one device."""

    device: Device
    changes: tuple[FieldChange, ...]


@dataclass(frozen=True, slots=True)
class CarryView:
    """A look that is brought, before it is taken: what it has, what was left out, and what it would change here."""

    title: str
    parts: tuple[str, ...]
    left_out: tuple[str, ...]
    selectors: tuple[str, ...]
    colours: tuple[Seed, ...]
    changes: tuple[FieldChange, ...]
    after: DrawView | None
    by_device: tuple[DeviceChanges, ...] = ()
    values: tuple[TokenValue, ...] = ()


def view_carry(shop: Shop, query: DrawQuery, layer: str, source: Source, parts: Sequence[str]) -> CarryView:
    """Return what the chosen parts of a brought look would change in the button that is drawn."""
    brought = bring(shop, source)
    chosen = [part for part in parts if part in brought.parts] or list(brought.parts)
    patch = carry_patch(brought, chosen)
    changes = changes_by(document_at(shop, query), patch) if patch else ()
    after = try_edit(shop, query, layer, patch) if patch else None
    by_device = tuple(
        DeviceChanges(device, changes_by(after.document if after else document_at(shop, query), own))
        for device, whole in brought.by_device.items()
        if (own := only_parts(whole, chosen))
    )
    return CarryView(
        brought.title, brought.parts, brought.left_out, brought.selectors, brought.colours, changes, after, by_device,
        brought.values,
    )  # fmt: skip
