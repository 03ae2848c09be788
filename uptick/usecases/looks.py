"""Looks kept and carried: named ones, starting points, other buttons, CSS and design tokens; the brand and pictures."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Literal

from pydantic import ValidationError

from uptick.core.button.document import ButtonDocument, Device, Placement, ShopperKind, parse_document
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import PARTS, field_title
from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import Json, at_path, leaves, merge_layer, patch_at, without_gaps
from uptick.core.colour.ramp import Brand, Seed
from uptick.core.drawing.match import matched
from uptick.core.engine.layers import USES
from uptick.core.errors import BadDocument, NotFound, OutOfRange
from uptick.core.formats.css_computed import look_of
from uptick.core.formats.css_in import read_css
from uptick.core.formats.css_out import write_css
from uptick.core.formats.css_reading import ComputedButton, parse_reading
from uptick.core.formats.picture_file import read_picture
from uptick.core.formats.svg_icon import ReadIcon
from uptick.core.formats.tokens import write_tokens
from uptick.core.formats.tokens_in import TokenValue, read_tokens
from uptick.core.looks.carry import completed, only_parts
from uptick.core.looks.sentences import specification
from uptick.core.looks.starts import starts
from uptick.core.resolved.classes import ButtonClass, class_for, context_of
from uptick.core.resolved.differences import FieldChange, field_changes_of
from uptick.core.rules.fresh_ids import fresh_id
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, NamedLook, Settings
from uptick.usecases.edit import changed_settings, layer_title, require_sound
from uptick.usecases.icon_apart import read_icon
from uptick.usecases.ports import Draft, Person, Shop, StoredPicture
from uptick.usecases.state import product_of


@dataclass(frozen=True, slots=True)
class Source:
    """Where a look is brought from; `value` names it, or is the text of a file."""

    kind: Literal["button", "start", "look", "css", "computed", "tokens"]
    value: str
    selector: str = ""
    # Which field each design token of another name is laid onto.
    laid: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Brought:
    """A look that was brought: its values, which parts it has, what of it was left out, and other selectors of CSS."""

    title: str
    layer: Json
    parts: tuple[str, ...]
    left_out: tuple[str, ...] = ()
    selectors: tuple[str, ...] = ()
    colours: tuple[Seed, ...] = ()
    by_device: Mapping[Device, Json] = field(default_factory=dict)
    values: tuple[TokenValue, ...] = ()


def bring(shop: Shop, source: Source) -> Brought:
    """Return a look from one of its sources, checked: what no button can have is left out and told.

    Raises:
        NotFound: There is no such button, starting point or look.
        BadCss, BadTokens: The text holds no look.
    """
    settings = shop.now().settings
    match source.kind:
        case "button":
            layer = whole_look(_button_at(shop, source.value).document)
            return _with_parts(source.value.partition("/")[0].replace("_", " "), layer)
        case "start":
            start = next((known for known in starts(settings.brand) if known.key == source.value), None)
            if start is None:
                raise NotFound(f"There is no starting point {source.value!r}.", start=source.value)
            return _with_parts(start.name, _in_language(start.layer, settings))
        case "look":
            look = settings.looks.get(source.value)
            if look is None:
                raise NotFound(f"There is no look {source.value!r}.", look=source.value)
            return _with_parts(look.name, look.layer)
        case "css":
            read = read_css(source.value, source.selector)
            layer, wrong = _sound_part(shop, settings, _with_its_states(read.layer))
            return _with_parts(read.selector, layer, (*read.left_out, *wrong), read.selectors)
        case "computed":
            return _computed(shop, settings, parse_reading(source.value))
        case "tokens":
            tokens = read_tokens(source.value, source.laid)
            layer, wrong = _sound_part(shop, settings, _with_its_states(tokens.layer))
            brought = _with_parts("design tokens", layer, (*tokens.left_out, *wrong), colours=tokens.colours)
            return replace(brought, values=tokens.values)


def _computed(shop: Shop, settings: Settings, reading: ComputedButton) -> Brought:
    """Return a look that a browser has computed, with what it is on devices where it differs."""
    computed = look_of(reading)
    layer, wrong = _sound_part(shop, settings, _with_its_states(computed.layer))
    by_device: dict[Device, Json] = {}
    notes = [*computed.left_out, *wrong]
    for device, patch in computed.by_device.items():
        sound, wrong = _sound_part(shop, settings, patch, layer)
        notes += [f"on the {device}: {line}" for line in wrong]
        if sound:
            by_device[device] = sound
    return replace(_with_parts(reading.selector, layer, notes), by_device=by_device)


def _with_its_states(layer: Json) -> Json:
    """Leave the states that a foreign look does not speak of to the rule, where it says a fill for them to follow."""
    return completed(layer) if "fill" in layer.get("look", {}) else layer


def _with_parts(
    title: str,
    layer: Json,
    left_out: Sequence[str] = (),
    selectors: Sequence[str] = (),
    colours: Sequence[Seed] = (),
) -> Brought:
    parts = tuple(part for part in PARTS if only_parts(layer, [part]))
    return Brought(title, layer, parts, tuple(left_out), tuple(selectors), tuple(colours))


def _button_at(shop: Shop, value: str) -> ButtonClass:
    """Return the class of `placement/product`, as copied from Draw."""
    place, _, sku = value.partition("/")
    if place not in shop.store.places:
        raise NotFound(f"The shop's pages have no {place.replace('_', ' ')}.", placement=place)
    snapshot = shop.now()
    product = product_of(snapshot, sku or None)
    placement = Placement(place)
    device, language = shop.store.surfaces[placement].narrowest()[0], snapshot.settings.language
    return class_for(snapshot, context_of(placement, product, None, device, language, ShopperKind.NEW))


def whole_look(document: ButtonDocument) -> Json:
    """Return all that is drawn of a button as a layer."""
    raw = document.model_dump(mode="json")
    return completed(without_gaps({name: raw[name] for name in ("look", "icon", "quantity", "second")}))


def _in_language(layer: Json, settings: Settings) -> Json:
    """Give the words of a starting point's second button to the store's own language."""
    second = layer.get("second") or {}
    if "wording" not in second:
        return layer
    return {**layer, "second": {**second, "wording": {settings.language: next(iter(second["wording"].values()))}}}


def _sound_part(shop: Shop, settings: Settings, layer: Json, on: Json | None = None) -> tuple[Json, list[str]]:
    """Return what of a layer makes a button on the store's baseline, and what does not, with why."""
    left_out: list[str] = []
    base: Json = merge_layer(settings.baseline, on or {})
    for _ in range(40):
        try:
            document = parse_document(merge_layer(base, layer))
        except BadDocument as error:
            field = str(error.facts.get("field", ""))
            path = next((p for p, _ in leaves(layer) if field.startswith(p) or p.startswith(field)), "")
            if not path:
                raise
            why = error.says.partition(": ")[2].removeprefix("Value error, ")
            left_out.append(f"{field_title(path)}: {value_text(at_path(layer, path))} ({why.rstrip('.')})")
            layer = without_gaps(merge_layer(layer, patch_at(path, None)))
            continue
        lightest, heaviest = shop.kit.fonts.weights(document.look.type.family)
        weight = document.look.type.weight
        if not lightest <= weight <= heaviest:
            fitted = min(heaviest, max(lightest, weight))
            left_out.append(f"weight {weight}: {document.look.type.family.capitalize()} goes to {fitted}")
            layer = merge_layer(layer, {"look": {"type": {"weight": fitted}}})
        break
    return layer, left_out


def carry_patch(brought: Brought, parts: Sequence[str]) -> Json:
    """Return the patch that gives a layer the chosen parts; all where none is chosen."""
    return only_parts(brought.layer, parts or brought.parts)


def changes_by(document: ButtonDocument, patch: Json) -> tuple[FieldChange, ...]:
    """Return what a patch would change in a button, in words."""
    old = document.model_dump(mode="json")
    return field_changes_of(old, parse_document(merge_layer(old, patch)).model_dump(mode="json"))


def carry(
    shop: Shop,
    layer: str,
    source: Source,
    parts: Sequence[str],
    base_version: int,
    person: Person,
    now: datetime,
    devices: Sequence[Device] = (),
) -> Draft:
    """Give a layer the chosen parts of a look that is brought.

    With `devices`, values that the look has on some devices only become exceptions for these, in the same step.
    """
    brought = bring(shop, source)
    patch = carry_patch(brought, parts)
    if not patch:
        raise OutOfRange.of("parts", f"some of {', '.join(brought.parts) or 'none, since it has none'}", parts)
    draft = shop.drafts.read()
    settings = draft.settings
    after = changed_settings(shop, settings, layer, patch)
    for device in devices:
        own = only_parts(brought.by_device.get(device, {}), parts or brought.parts)
        if own:
            after = _with_device(after, layer, device, own, brought.title, draft.version, person, now)
    require_sound(shop, after)
    added = len(after.exceptions) - len(settings.exceptions)
    more = f", and {added} exception{'s' if added > 1 else ''} for its devices" if added else ""
    label = f"{layer_title(after, layer)}: look of {brought.title}{more}"
    return shop.drafts.append(base_version, after, label, person, now)


def _with_device(
    settings: Settings, layer: str, device: Device, own: Json, title: str, version: int, person: Person, now: datetime
) -> Settings:
    """Return settings with an exception for one device in the reach of a layer.

    Raises:
        OutOfRange: The layer is a kept look, whose reach is that of all who use it.
    """
    ref = LayerRef(layer)
    rule = settings.exception(ref.name) if ref.kind == "exception" else None
    if ref.kind == "look":
        raise OutOfRange.of("devices", "none for a kept look, which has no reach of its own", device)
    reach = rule.reach if rule else Reach(placements=(Placement(ref.name),) if ref.kind == "place" else ())
    exception = ExceptionRule(
        id=fresh_id("e", {rule.id for rule in settings.exceptions}, version),
        name=f"{title[:50]} on the {device}",
        note=f"The stylesheet that {title[:200]} was brought from has other values on the {device}.",
        author=person.name,
        made_at=now,
        reach=reach.model_copy(update={"devices": (device,)}),
        layer=own,
    )
    return settings.model_copy(update={"exceptions": (*settings.exceptions, exception)})


def keep_look(
    shop: Shop, name: str, layer: Json, used_by: str, base_version: int, person: Person, now: datetime
) -> Draft:
    """Keep a look under a name. With `used_by` that layer uses it from then on, and its own drawn values give way.

    Raises:
        BadDocument: The name is empty or taken.
    """
    draft = shop.drafts.read()
    settings = draft.settings
    if any(look.name.casefold() == name.strip().casefold() for look in settings.looks.values()):
        raise BadDocument(f"name: there is a look {name.strip()!r} already.", field="name")
    try:
        look = NamedLook(name=name, layer=only_parts(layer, list(PARTS)))
    except ValidationError as error:
        raise BadDocument(f"name: {error.errors()[0]['msg']}.", field="name") from error
    look_id = _free_id(look.name, settings)
    after = settings.model_copy(update={"looks": {**settings.looks, look_id: look}})
    if used_by:
        own = after.layer(used_by)
        if own is None:
            raise NotFound(f"There is no layer {used_by!r}.", layer=used_by)
        after = after.with_layer(used_by, {**_without_parts(own), USES: look_id})
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, f"Look saved: {look.name}", person, now)


def _free_id(name: str, settings: Settings) -> str:
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "look"
    free_id, n = plain[:40], 2
    while free_id in settings.looks:
        free_id, n = f"{plain[:36]}-{n}", n + 1
    return free_id


def _without_parts(layer: Json) -> Json:
    bare = layer
    for roots in PARTS.values():
        for root in roots:
            bare = merge_layer(bare, patch_at(root, None))
    return without_gaps(bare)


def use_look(shop: Shop, layer: str, look_id: str, base_version: int, person: Person, now: datetime) -> Draft:
    """Let a layer use a named look, or none; its own drawn values give way to the look."""
    draft = shop.drafts.read()
    own = draft.settings.layer(layer)
    if own is None or layer.startswith("look:"):
        raise NotFound(f"There is no layer {layer!r} that could use a look.", layer=layer)
    if look_id and look_id not in draft.settings.looks:
        raise NotFound(f"There is no look {look_id!r}.", look=look_id)
    changed = {**_without_parts(own), USES: look_id} if look_id else {k: v for k, v in own.items() if k != USES}
    after = draft.settings.with_layer(layer, changed)
    require_sound(shop, after)
    label = f"uses the look {draft.settings.looks[look_id].name}" if look_id else "uses no named look"
    return shop.drafts.append(
        base_version, after, f"{layer.rpartition(':')[2].replace('_', ' ')}: {label}", person, now
    )


def drop_look(shop: Shop, look_id: str, base_version: int, person: Person, now: datetime) -> Draft:
    """Give up a named look; what used it keeps its values as its own."""
    draft = shop.drafts.read()
    settings = draft.settings
    look = settings.looks.get(look_id)
    if look is None:
        raise NotFound(f"There is no look {look_id!r}.", look=look_id)
    after = settings
    for layer in users_of(settings, look_id):
        own = {key: value for key, value in (settings.layer(layer) or {}).items() if key != USES}
        after = after.with_layer(layer, merge_layer(look.layer, own))
    after = after.model_copy(update={"looks": {k: v for k, v in settings.looks.items() if k != look_id}})
    require_sound(shop, after)
    return shop.drafts.append(base_version, after, f"Look deleted: {look.name}", person, now)


def users_of(settings: Settings, look_id: str) -> tuple[str, ...]:
    """Return the layers that use a named look."""
    layers = {BASELINE: settings.baseline}
    layers |= {LayerRef.place(place): settings.placements.get(place, {}) for place in Placement}
    layers |= {LayerRef.exception(rule.id): rule.layer for rule in settings.exceptions}
    return tuple(name for name, layer in layers.items() if layer.get(USES) == look_id)


def set_brand(shop: Shop, seeds: Sequence[Json], base_version: int, person: Person, now: datetime) -> Draft:
    """Say the brand's colours, from one to three; none takes them away."""
    draft = shop.drafts.read()
    try:
        brand = Brand(seeds=tuple(Seed.model_validate(seed) for seed in seeds))
    except ValidationError as error:
        first = error.errors()[0]
        raise BadDocument(f"brand: {first['msg']}; up to three colours with a name each.", field="brand") from error
    after = draft.settings.model_copy(update={"brand": brand})
    colours = ", ".join(f"{seed.name} {seed.colour}" for seed in brand.seeds) or "no colours"
    return shop.drafts.append(base_version, after, f"Brand: {colours}", person, now)


def match_neighbour(shop: Shop, layer: str, document: ButtonDocument) -> Json:
    """Return the patch that makes the second button as high as the first, in its type and corners."""
    return {"second": matched(document, shop.kit).model_dump(mode="json")}


def bring_icon(content: bytes, name: str) -> ReadIcon:
    """Return an icon from an SVG, cleaned."""
    return read_icon(content, name)


def bring_picture(shop: Shop, content: bytes, name: str, person: Person, now: datetime) -> StoredPicture:
    """Keep a picture for buttons.

    Raises:
        BadPicture: It cannot be read or is too large.
    """
    picture = read_picture(content)
    plain_name = re.sub(r"\s+", " ", name).strip()[:80] or "picture"
    stored = StoredPicture(
        picture.hash, plain_name, picture.media_type, picture.width, picture.height, person.name, now
    )
    shop.pictures.put(stored, picture.content)
    return stored


def write_look(shop: Shop, document: ButtonDocument, form: Literal["text", "css", "tokens", "json"]) -> str:
    """Return a button's look to take away: as sentences, CSS, design tokens, or our own JSON."""
    if form == "css":
        return write_css(document.look, shop.kit)
    if form == "tokens":
        seeds = {seed.name: seed.colour for seed in shop.drafts.read().settings.brand.seeds}
        return write_tokens(document.look, seeds)
    if form == "json":
        return document.model_dump_json(indent=2) + "\n"
    return specification(document)
