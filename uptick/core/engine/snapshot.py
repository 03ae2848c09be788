"""A store as one state of its settings makes it: what every station, check and release is worked out from."""

from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, ClassVar, NamedTuple, TypeVar

import orjson

from uptick.core.button.document import ButtonDocument, Moment, Placement, Wider, new_number, parse_document
from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import Json, merge_layer
from uptick.core.drawing.boxes import is_plain
from uptick.core.drawing.kit import Kit
from uptick.core.engine.cover import Cover, cover
from uptick.core.engine.goods import Goods
from uptick.core.engine.layers import Cell, Layer, layers_of
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables
from uptick.core.errors import BadDocument
from uptick.core.rules.places import held_products
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.shop.store import Store
from uptick.core.words.wider_texts import needed_by, overridden

R = TypeVar("R")


@dataclass(frozen=True, eq=False)
class LookMade:
    """What a stack of layers draws, as a document without texts. Equal ones have one number."""

    number: int
    document: ButtonDocument

    @cached_property
    def is_plain(self) -> bool:
        """Tell whether it is no more than the baseline."""
        return is_plain(self.document)

    @cached_property
    def type_key(self) -> str:
        """Return what stands for its type, on which the widths of words depend."""
        return self.document.look.type.model_dump_json()


class Texts(NamedTuple):
    """What a stack of layers says, and the texts of wider layers that it overrides. Equal ones have one number."""

    number: int
    wording: dict[Moment, dict[str, str]]
    wider: Wider


@dataclass(frozen=True, eq=False)
class Snapshot:
    """One state of the settings on one day, over one catalogue.

    Two of equal settings find the same in the tables, so that trying an edit and keeping it are one computation.
    """

    counted_elsewhere: ClassVar[bool] = True

    settings: Settings
    goods: Goods
    store: Store
    kit: Kit
    tables: Tables

    @cached_property
    def layers(self) -> Mapping[LayerRef, Layer]:
        """Every layer of the settings by its name."""
        return layers_of(self.settings)

    # Numbers stand for what would be long keys: equal content has an equal number.
    @cached_property
    def number(self) -> int:
        """Return a number for all of it: equal settings over the same products have equal ones."""
        layers = tuple([(ref, layer.look_key, layer.words_key) for ref, layer in self.layers.items()])
        key = ("all", self.rules_number, self.settings.languages, self._shown, layers, self.goods.number)
        return self.tables.same(Step.RULES, key, new_number())

    @cached_property
    def rules_number(self) -> int:
        """Return a number for what the exceptions that are on cover."""
        key = tuple([(rule.id, rule.reach.derived(_content)) for rule in self.settings.exceptions if rule.on])
        return self.tables.same(Step.RULES, key, new_number())

    @cached_property
    def index(self) -> RuleIndex:
        """The exceptions that are on, by what they cover."""
        key = ("index", self.rules_number)
        return self.tables.ask(Step.RULES, key, lambda: RuleIndex(self.settings.exceptions))

    @cached_property
    def cover(self) -> Cover:
        """Which exceptions hold where, for every product and placement."""
        index, languages, places = self.index, self.settings.languages, self.store.places
        only = held_products(self.settings)
        key = ("cover", self.rules_number, languages, self._shown, self.goods.number)
        return self.tables.ask(Step.COVER, key, lambda: cover(self.tables, index, languages, self.goods, places, only))

    @cached_property
    def _shown(self) -> Hashable:
        """Return what stands for the placements and for the products that they may show."""
        return self.store.places, frozenset(held_products(self.settings).items())

    @property
    def products(self) -> Sequence[Product]:
        """The whole catalogue."""
        return self.goods.products

    def seen(self, key: Hashable, work: Callable[[], R]) -> R:
        """Return a view of just this state, kept as long as the state itself is."""
        if key not in self._views:
            self._views[key] = work()
        view: R = self._views[key]
        return view

    @cached_property
    def _views(self) -> dict[Hashable, Any]:
        return {}

    @cached_property
    def narrow_layers(self) -> tuple[Layer, ...]:
        """Return the layers of the exceptions that are on, in the order in which they apply."""
        return tuple([self.layers[LayerRef.exception(rule.id)] for rule in self.index.rules])

    @cached_property
    def narrow_number(self) -> int:
        """Return a number for all that exceptions draw and say, and for what they cover."""
        narrow = tuple([(layer.look_key, layer.words_key) for layer in self.narrow_layers])
        key = ("narrow", self.rules_number, self.settings.languages, self._shown, self.goods.number, narrow)
        return self.tables.same(Step.RULES, key, new_number())

    @cached_property
    def look_bits(self) -> int:
        """The layers that change looks, as bits."""
        return sum(1 << n for n, layer in enumerate(self.narrow_layers) if layer.look_key)

    @cached_property
    def word_bits(self) -> int:
        """The layers that change words, as bits."""
        return sum(1 << n for n, layer in enumerate(self.narrow_layers) if layer.words_key)

    @cached_property
    def drawing_rules(self) -> frozenset[str]:
        """Return the ids of the exceptions that draw."""
        rules = zip(self.index.rules, self.narrow_layers, strict=True)
        return frozenset([rule.id for rule, layer in rules if layer.look_key])

    def rule(self, rule_id: str) -> ExceptionRule:
        """Return an exception as it stands in these settings; the index may hold it with an earlier name or note."""
        return self._rules[rule_id]

    @cached_property
    def _rules(self) -> dict[str, ExceptionRule]:
        return {rule.id: rule for rule in self.settings.exceptions}

    def beside(self, settings: Settings) -> "Snapshot":
        """Return the same store as other settings make it, for looking at both at once."""
        return self if settings is self.settings else replace(self, settings=settings)

    def at(self, placement: Placement) -> "PlaceStack":
        """Return one placement with its layers, made once."""
        stack = self._places.get(placement)
        if stack is None:
            stack = self._places[placement] = PlaceStack(self, placement)
        return stack

    @cached_property
    def _places(self) -> "dict[Placement, PlaceStack]":
        return {}


class PlaceStack:
    """The layers of one placement in the order in which they apply, and what any of its stacks draws and says.

    What exceptions set together is told apart from the baseline and the placement under them: an edit of these leaves
    it as it is, so that which classes share a button is not worked out again.
    """

    counted_elsewhere = True

    def __init__(self, snapshot: Snapshot, placement: Placement) -> None:
        self.placement = placement
        self._tables = snapshot.tables
        wide = [snapshot.layers[BASELINE], snapshot.layers.get(LayerRef.place(placement), _NO_LAYER)]
        self._wide = [layer for layer in wide if layer.look_key or layer.words_key]
        self._narrow = snapshot.narrow_layers
        self.look_bits, self.word_bits = snapshot.look_bits, snapshot.word_bits
        self._wide_look = tuple([layer.look_key for layer in self._wide if layer.look_key])
        self._wide_words = tuple([layer.words_key for layer in self._wide if layer.words_key])
        self._looks: dict[int, LookMade] = {}
        self._texts: dict[int, Texts] = {}
        self._documents: dict[int, ButtonDocument] = {}

    @property
    def wide_key(self) -> Hashable:
        """Return what stands for the baseline and the placement's own layer."""
        return (self.placement, self._wide_look, self._wide_words)

    def _stack(self, bits: int) -> list[Layer]:
        columns = []
        while bits:
            lowest = bits & -bits
            columns.append(self._narrow[lowest.bit_length() - 1])
            bits ^= lowest
        return columns

    def narrow_look(self, bits: int) -> int:
        """Return a number for what the exceptions of some bits draw together; equal ones have one number."""
        stack = self._stack(bits & self.look_bits)
        if not stack:
            return 0
        return self._tables.ask(Step.LOOKS, tuple([layer.look_key for layer in stack]), lambda: self._number(stack))

    def _number(self, stack: Sequence[Layer]) -> int:
        merged: Json = {}
        for layer in stack:
            merged = merge_layer(merged, layer.look)
        return self._tables.same(Step.LOOKS, orjson.dumps(merged, option=orjson.OPT_SORT_KEYS), new_number())

    def narrow_words(self, bits: int) -> int:
        """Return a number for what the exceptions of some bits say together; equal ones have one number."""
        stack = self._stack(bits & self.word_bits)
        if not stack:
            return 0
        key = tuple([layer.words_key for layer in stack])
        return self._tables.ask(
            Step.WORDINGS, key, lambda: self._tables.same(Step.WORDINGS, _said(stack), new_number())
        )

    def look(self, bits: int) -> LookMade:
        """Return what the exceptions of some bits draw here.

        Raises:
            BadDocument: The layers together do not make a button.
        """
        bits &= self.look_bits
        layer = self._looks.get(bits)
        if layer is None:
            key = ("look", self._wide_look, self.narrow_look(bits))
            layer = self._looks[bits] = self._tables.ask(Step.LOOKS, key, lambda: self._draw(bits))
        return layer

    @cached_property
    def _wide_drawn(self) -> Json:
        merged: Json = {}
        for layer in self._wide:
            merged = merge_layer(merged, layer.look)
        return merged

    def _draw(self, bits: int) -> LookMade:
        merged = self._wide_drawn
        for layer in self._stack(bits):
            merged = merge_layer(merged, layer.look)
        key = ("made", orjson.dumps(merged, option=orjson.OPT_SORT_KEYS))
        return self._tables.ask(
            Step.LOOKS, key, lambda: LookMade(new_number(), parse_document({**merged, "wording": {}}))
        )

    def texts(self, bits: int) -> Texts:
        """Return what the exceptions of some bits say here.

        Raises:
            BadDocument: Nothing is said at all.
        """
        bits &= self.word_bits
        texts_of = self._texts.get(bits)
        if texts_of is None:
            key = ("texts", self._wide_words, self.narrow_words(bits))
            texts_of = self._texts[bits] = self._tables.ask(Step.WORDINGS, key, lambda: self._say(bits))
        return texts_of

    def _say(self, bits: int) -> Texts:
        layers = [layer.texts for layer in (*self._wide, *self._stack(bits)) if layer.texts]
        by_cell: dict[Cell, str] = {}
        for texts in layers:
            by_cell |= texts
        if not by_cell:
            raise BadDocument("wording: a button needs words, at least for the ready moment.", field="wording")
        wider: Wider = {}
        for cell, text in by_cell.items() if len(layers) > 1 else ():
            layer_texts = [texts[cell] for texts in reversed(layers) if cell in texts] if needed_by(text) else []
            if others := overridden(text, layer_texts):
                wider[cell] = others
        wording: dict[Moment, dict[str, str]] = {}
        for (moment, language), text in by_cell.items():
            wording.setdefault(moment, {})[language] = text
        key = (frozenset(by_cell.items()), frozenset(wider.items()))
        return self._tables.same(Step.WORDINGS, key, Texts(new_number(), wording, wider))

    def document(self, bits: int) -> ButtonDocument:
        """Return the button of the exceptions of some bits; equal ones are one object."""
        document = self._documents.get(bits)
        if document is None:
            look, texts = self.look(bits), self.texts(bits)
            document = self._documents[bits] = self._tables.ask(
                Step.DOCUMENTS,
                (look.number, texts.number),
                lambda: look.document.with_texts(texts.wording, texts.wider, texts.number),
            )
        return document


def _content(reach: Reach) -> bytes:
    return orjson.dumps(reach.model_dump(mode="json"))


def _said(stack: Sequence[Layer]) -> Hashable:
    """Return what stands for the texts of some layers, with all that narrower ones override."""
    by_cell: dict[Cell, tuple[str, ...]] = {}
    for layer in stack:
        for cell, text in layer.texts.items():
            before = by_cell.get(cell, ())
            # Only texts with a value that some product lacks let the wider ones through.
            by_cell[cell] = (*before, text) if needed_by(text) else (text,)
    return frozenset(by_cell.items())


_NO_LAYER = Layer({}, {}, {}, b"", b"")
