"""Classes: what the same exceptions cover shares one button document, and that is what is resolved."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from uptick.core.button.document import (
    ButtonDocument,
    Device,
    Moment,
    Placement,
    ShopperKind,
    Situation,
    new_number,
    parse_document,
    wording_of,
)
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import merge_layer, without_gaps
from uptick.core.button.message import ToMessage
from uptick.core.engine.cover import Frame, Where, places_of
from uptick.core.engine.goods import Batch, products_in
from uptick.core.engine.snapshot import LookMade, PlaceStack, Snapshot, Texts
from uptick.core.engine.step import Step
from uptick.core.resolved.resolve import VersionLayer
from uptick.core.rules.reach import Context
from uptick.core.shop.catalogue import Product

_BOUGHT = (Moment.WORKING, Moment.ADDED, Moment.IN_BASKET)
MOMENTS_OF = {
    Situation.PLAIN: (Moment.READY, *_BOUGHT),
    Situation.CHOICE: (Moment.CHOOSE_FIRST, Moment.READY, *_BOUGHT),
    Situation.SET: (Moment.READY, *_BOUGHT),
    Situation.PRE_ORDER: (Moment.PRE_ORDER, *_BOUGHT),
    Situation.SOLD_OUT: (Moment.SOLD_OUT,),
}
LEADING = {situation: moments[0] for situation, moments in MOMENTS_OF.items()}


def opens_message(document: ButtonDocument) -> bool:
    """Tell whether a press opens a message."""
    return isinstance(document.afterwards, ToMessage)


def moments_of(document: ButtonDocument, situation: Situation) -> tuple[Moment, ...]:
    """Return the moments that a button comes into; one that opens a message fills no basket and is never sold out."""
    return (Moment.READY,) if opens_message(document) else MOMENTS_OF[situation]


# Told apart by identity: comparing documents would cost more than anything that is done with them.
@dataclass(frozen=True, eq=False)
class ButtonClass:
    """One document and what it serves now. `rules` are the ids of the covering exceptions, the least particular first.

    `batches` hold the products by situation; `where` the devices and languages in which the class is met. Documents
    that are equal are one object.
    """

    stack: PlaceStack
    bits: int
    rules: tuple[str, ...]
    batches: tuple[Batch, ...] = ()
    frame: Frame | None = None
    spoken: tuple[str, ...] = ()
    version: ButtonDocument | None = None

    @property
    def placement(self) -> Placement:
        return self.stack.placement

    @cached_property
    def document(self) -> ButtonDocument:
        """The button that they share."""
        return self.version or self.stack.document(self.bits)

    @cached_property
    def look(self) -> LookMade:
        """Return how it is drawn; less than the whole document, and sooner there."""
        return self.stack.look(self.bits)

    @cached_property
    def texts(self) -> Texts:
        """Return what it says."""
        return self.stack.texts(self.bits)

    @property
    def example(self) -> Context:
        """Return one context in which just these rules hold."""
        if self.frame is None or self.frame.example is None:
            return Context(self.placement, "", "", None)
        group, seer = self.frame.example
        return Context(self.placement, group.sku, group.category, *seer)

    @cached_property
    def key(self) -> str:
        """Ids of the exceptions that change it, as one text."""
        return ",".join(self.rules)

    @property
    def keys(self) -> tuple[str, ...]:
        """Its key, as kinds have several."""
        return (self.key,)

    @cached_property
    def products(self) -> tuple[Product, ...]:
        """The products that it stands for."""
        return products_in(self.batches)

    @property
    def batch_numbers(self) -> tuple[int, ...]:
        """Numbers of its batches, by which texts are kept."""
        return tuple([batch.number for batch in self.batches])

    @property
    def count(self) -> int:
        """How many products it stands for."""
        return sum(map(len, self.batches))

    @property
    def situations(self) -> tuple[Situation, ...]:
        """The situations in which its products are."""
        return tuple(dict.fromkeys([batch.situation for batch in self.batches]))

    @property
    def top_layer(self) -> LayerRef:
        """Return the reference of the layer that an edit of just this class belongs to."""
        return LayerRef.exception(self.rules[-1]) if self.rules else LayerRef.place(self.placement)

    @property
    def places(self) -> int:
        """Return where it is met, as bits over the crossing of devices and languages."""
        return self.frame.places if self.frame else 0

    @property
    def where(self) -> frozenset[Where]:
        """Devices and languages in which it stands."""
        return places_of(self.places, self.spoken)

    @property
    def languages(self) -> tuple[str, ...]:
        """Languages in which it stands."""
        return tuple(sorted({language for _, language in self.where}))

    def devices(self, language: str) -> tuple[Device, ...]:
        """Return the devices on which it stands in a language."""
        return tuple(device for device in Device if (device, language) in self.where)


@dataclass(frozen=True, eq=False)
class ButtonKind(ButtonClass):
    """Classes that have one document, seen as one: with the rules of the least narrowed, and the keys of all."""

    alike: "_Alike" = field(kw_only=True)

    @property
    def keys(self) -> tuple[str, ...]:
        return self.alike.keys

    @property
    def places(self) -> int:
        return self.alike.places

    @property
    def number(self) -> int:
        """Return a number for what it covers, for keys."""
        return self.alike.number

    # What does not depend on how they are drawn is worked out once, for every state of the settings.
    @property
    def batch_numbers(self) -> tuple[int, ...]:
        return self.alike.batch_numbers

    @property
    def where(self) -> frozenset[Where]:
        return self.alike.where

    @property
    def languages(self) -> tuple[str, ...]:
        return self.alike.languages


def context_of(
    placement: Placement,
    product: Product,
    situation: Situation | None = None,
    device: Device | None = None,
    language: str | None = None,
    shopper: ShopperKind | None = None,
) -> Context:
    """Return where a product's button stands and for whom; its own situation where none is named."""
    return Context(placement, product.sku, product.category, situation or product.situation, device, language, shopper)


def bare_class(snapshot: Snapshot, placement: Placement, bits: int) -> ButtonClass:
    """Return the class in which some rules hold, without its products."""
    rules = tuple([rule.id for rule in snapshot.index.named(bits)])
    return ButtonClass(snapshot.at(placement), bits, rules)


def _class_of(snapshot: Snapshot, stack: PlaceStack, frame: Frame) -> ButtonClass:
    return ButtonClass(stack, frame.bits, frame.rules, frame.batches, frame, snapshot.settings.languages)


def classes_at(snapshot: Snapshot, placement: Placement) -> tuple[ButtonClass, ...]:
    """Return the distinct classes of one placement, the plain one first.

    A product's other situations are looked at too, since stock changes between releases. The cost grows with the number
    of distinct classes, not with that of products.
    """
    stack = snapshot.at(placement)
    return tuple([_class_of(snapshot, stack, frame) for frame in snapshot.cover.frames[placement]])


def classes_of(snapshot: Snapshot) -> tuple[ButtonClass, ...]:
    """Return the distinct classes of a shop, every placement's plain class first."""
    return tuple([button for placement in snapshot.store.places for button in classes_at(snapshot, placement)])


@dataclass(frozen=True, eq=False)
class _Alike:
    """Frames that have one button; `frame` is the least narrowed, products and places are those of all."""

    frame: Frame
    frames: Sequence[Frame]
    batches: tuple[Batch, ...]
    places: int
    spoken: tuple[str, ...]
    number: int = field(default_factory=new_number)

    @cached_property
    def batch_numbers(self) -> tuple[int, ...]:
        return tuple([batch.number for batch in self.batches])

    @cached_property
    def where(self) -> frozenset[Where]:
        return places_of(self.places, self.spoken)

    @cached_property
    def languages(self) -> tuple[str, ...]:
        return tuple(sorted({language for _, language in self.where}))

    @cached_property
    def keys(self) -> tuple[str, ...]:
        return tuple([frame.key for frame in self.frames])


@dataclass(frozen=True, slots=True, eq=False)
class _Partition:
    """The frames of a placement that some product is in now, and the plain one, by what exceptions make of them."""

    alike: tuple[_Alike, ...]
    by_bits: Mapping[int, int]

    @property
    def about_bytes(self) -> int:
        """Return about how much memory it takes, with what is worked out of it."""
        return 3_600 * len(self.alike) + 100 * len(self.by_bits)


def _partition(snapshot: Snapshot, placement: Placement) -> _Partition:
    key = (snapshot.narrow_number, placement)
    return snapshot.tables.ask(Step.CLASSES, key, lambda: _part(snapshot, snapshot.at(placement)))


def _part(snapshot: Snapshot, stack: PlaceStack) -> _Partition:
    frames_of: dict[tuple[int, int], list[Frame]] = {}
    for frame in snapshot.cover.frames[stack.placement]:
        if frame.batches or not frame.bits:
            frames_of.setdefault((stack.narrow_look(frame.bits), stack.narrow_words(frame.bits)), []).append(frame)
    alike = tuple([_joined(frames, snapshot.settings.languages) for frames in frames_of.values()])
    by_bits = {frame.bits: n for n, frames in enumerate(frames_of.values()) for frame in frames}
    return _Partition(alike, by_bits)


def _joined(frames: Sequence[Frame], spoken: tuple[str, ...]) -> _Alike:
    first = min(frames, key=lambda frame: frame.bits.bit_count())
    batches, places = first.batches, first.places
    if len(frames) > 1:
        batches = tuple({batch.number: batch for frame in frames for batch in frame.batches}.values())
        for frame in frames:
            places |= frame.places
    return _Alike(first, frames, batches, places, spoken)


def _kind(snapshot: Snapshot, stack: PlaceStack, alike: _Alike) -> ButtonKind:
    frame = alike.frame
    return ButtonKind(stack, frame.bits, frame.rules, alike.batches, frame, alike.spoken, alike=alike)


def kinds_at(snapshot: Snapshot, placement: Placement) -> tuple[ButtonKind, ...]:
    """Return the classes of a placement that some product is in now, and the plain one, those drawn alike as one."""
    stack = snapshot.at(placement)
    return tuple([_kind(snapshot, stack, alike) for alike in _partition(snapshot, placement).alike])


def kind_of(snapshot: Snapshot, button: ButtonClass) -> ButtonKind | None:
    """Return the kind that a class belongs to, or None of a class that no product is in now."""
    partition = _partition(snapshot, button.placement)
    n = partition.by_bits.get(button.frame.bits) if button.frame else None
    return None if n is None else _kind(snapshot, snapshot.at(button.placement), partition.alike[n])


def kinds_of(snapshot: Snapshot) -> tuple[ButtonKind, ...]:
    """Return every kind of button of a shop, by placement."""
    return tuple([kind for placement in snapshot.store.places for kind in kinds_at(snapshot, placement)])


def under_version(button: ButtonClass, version: VersionLayer) -> ButtonClass:
    """Return a class as a version of a trial makes it, wherever the trial's reach covers its products."""
    layer = without_gaps(version.layer)
    document = parse_document(merge_layer(button.document.model_dump(mode="json"), layer))
    narrowed = {
        (moment, language): button.document.texts(moment, language)
        for moment, by_language in wording_of(layer).items()
        for language in by_language
    }
    versioned = document.with_texts(document.wording, {**button.document.wider, **narrowed})
    return replace(button, version=versioned)


def class_for(snapshot: Snapshot, context: Context) -> ButtonClass:
    """Return the class that serves a context; where nobody meets it, one without products."""
    bits = snapshot.index.of(context)
    frame = snapshot.cover.by_bits.get(context.placement, {}).get(bits)
    if frame is None:
        return bare_class(snapshot, context.placement, bits)
    return _class_of(snapshot, snapshot.at(context.placement), frame)
