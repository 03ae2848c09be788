"""Button documents, put together from a look and a wording that are each resolved once, and kept across edits."""

from collections.abc import Callable, Sequence
from typing import Any, NamedTuple

from uptick.core.document import ButtonDocument, Moment, Placement, Wider, parse_document, wording_of
from uptick.core.errors import BadDocument
from uptick.core.memo import Kept, remembered
from uptick.core.merge import Json, merge_layer
from uptick.core.resolve import RuleIndex, clean_layers, index_of, sets_look, sets_texts
from uptick.core.settings import Settings
from uptick.core.wider_texts import wider_texts

Wording = dict[Moment, dict[str, str]]


class Texts(NamedTuple):
    """A wording, and the texts of wider rules that it overrides."""

    wording: Wording
    wider: Wider


@remembered(32)
def documents_of(settings: Settings) -> "Documents":
    return Documents(settings, index_of(settings))


_NO_LAYER: Json = {}
_Look = tuple[str, ButtonDocument]
# Across edits: what an edit leaves alone is not resolved again, and stays the same object.
_looks: Kept[_Look] = Kept(8192)
_wordings: Kept[tuple[object, Texts]] = Kept(32_768)
_same_words: Kept[Texts] = Kept(32_768)
_documents: Kept[ButtonDocument] = Kept(32_768)
_same: Kept[Any] = Kept(32_768)
_stacks: Kept[tuple[Json, ...]] = Kept(64)


@remembered(8192)
def _texts_of(texts: Json) -> Wording:
    return wording_of({"wording": texts})


class Documents:
    """The documents of a shop by placement; those of a placement stay the same object while an edit is elsewhere."""

    def __init__(self, settings: Settings, index: RuleIndex) -> None:
        layers = clean_layers(settings)
        narrow = tuple([layers[f"exception:{rule.id}"] for rule in index.rules])
        narrow = _stacks.get(tuple(map(id, narrow)), narrow, lambda: narrow)
        self.at = {
            place: _documents_at(place, layers["baseline"], layers.get(f"place:{place}", _NO_LAYER), narrow, index)
            for place in Placement
        }


@remembered(256)
def _bits_of(layers: tuple[Json, ...], sets: Callable[[Json], bool]) -> int:
    return sum(1 << n for n, layer in enumerate(layers) if sets(layer))


class DocumentsAt:
    """Documents of one placement, from a look and a wording that are each resolved once; equal ones are one object."""

    def __init__(self, place: Placement, wide: tuple[Json, Json], narrow: tuple[Json, ...], index: RuleIndex) -> None:
        self._place = place
        self._wide = wide
        self._narrow = narrow
        self._index = index
        self._look_bits = _bits_of(narrow, sets_look)
        self._word_bits = _bits_of(narrow, sets_texts)
        self._by_look: dict[int, ButtonDocument] = {}
        self._by_words: dict[int, Texts] = {}

    def of(self, bits: int) -> ButtonDocument:
        look = self._look(bits & self._look_bits)
        texts = self._texts(bits & self._word_bits)
        return _documents.get(
            (id(look), id(texts)),
            (look, texts),
            lambda: look.with_texts(texts.wording, texts.wider),
        )

    def rules(self, bits: int) -> tuple[str, ...]:
        return tuple([rule.id for rule in self._index.named(bits)])

    def _stack(self, bits: int) -> list[Json]:
        return [*self._wide, *(layer for n, layer in enumerate(self._narrow) if bits >> n & 1)]

    def _look(self, bits: int) -> ButtonDocument:
        kept = self._by_look.get(bits)
        if kept is None:
            stack = [_without_texts(layer) for layer in self._stack(bits)]
            key, look = _looks.get(tuple(map(id, stack)), tuple(stack), lambda: _resolved(stack))
            # The placement is part of it: two buttons that look alike do not stand alike.
            kept = self._by_look[bits] = _same.get((self._place, key), (), lambda: look)
        return kept

    def _texts(self, bits: int) -> Texts:
        kept = self._by_words.get(bits)
        if kept is None:
            # An edit of a look leaves the texts of its layer the same objects.
            stack = [layer["wording"] for layer in self._stack(bits) if layer.get("wording")]
            key, merged = _wordings.get(tuple(map(id, stack)), tuple(stack), lambda: _merged(stack))
            kept = self._by_words[bits] = _same_words.get(key, (), lambda: merged)
        return kept


@remembered(256)
def _documents_at(
    place: Placement, baseline: Json, layer: Json, narrow: tuple[Json, ...], index: RuleIndex
) -> DocumentsAt:
    return DocumentsAt(place, (baseline, layer), narrow, index)


@remembered(4096)
def _without_texts(layer: Json) -> Json:
    """Return what a layer sets besides texts, which are the most of it and which no look depends on."""
    return {key: value for key, value in layer.items() if key != "wording"}


@remembered(4096)
def _on(wider: Json, layer: Json) -> Json:
    merged: Json = merge_layer(wider, layer)
    return merged


def _resolved(stack: Sequence[Json]) -> _Look:
    # Baseline and placement are the same for all that narrow them.
    merged = _on(stack[0], stack[1])
    for layer in stack[2:]:
        merged = merge_layer(merged, layer)
    look = parse_document({**merged, "wording": {}})
    return look.model_dump_json(), look


def _merged(stack: Sequence[Json]) -> tuple[object, Texts]:
    """Return the texts of some layers together, and a key that is equal for equal texts."""
    wording: Wording = {}
    layers = [_texts_of(texts) for texts in stack]
    for texts in layers:
        for moment, by_language in texts.items():
            wording[moment] = {**wording.get(moment, {}), **by_language}
    if not wording:
        raise BadDocument("wording: a button needs words, at least for the ready moment.", field="wording")
    wider = wider_texts(layers)
    told = tuple((moment, tuple(sorted(by_language.items()))) for moment, by_language in sorted(wording.items()))
    return (told, tuple(sorted(wider.items()))), Texts(wording, wider)
