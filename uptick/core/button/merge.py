"""Layers: JSON Merge Patch with our rules for texts and tagged values."""

from collections.abc import Iterator, Mapping
from typing import Any

# Plain dicts throughout: asking for the abstract Mapping costs ten times as much, and this runs at every edit.
Json = dict[str, Any]


def merge_patch(target: Any, patch: Any) -> Any:
    """Return `target` with `patch` applied; neither is changed.

    Source:
        RFC 7396, section 2 (the pseudo code `MergePatch`).
    """
    if not isinstance(patch, dict):
        return patch
    merged: Json = dict(target) if isinstance(target, dict) else {}
    for key, value in patch.items():
        if value is None:
            merged.pop(key, None)
        else:
            merged[key] = merge_patch(merged.get(key), value)
    return merged


def is_tagged(value: Any) -> bool:
    """Tell whether a value names its own kind, as a fill or an icon does."""
    return isinstance(value, dict) and "kind" in value


def merge_layer(target: Any, patch: Any) -> Any:
    """Return `target` narrowed by a layer: a merge patch in which a tagged value is replaced whole."""
    if not isinstance(patch, dict):
        return patch
    if is_tagged(patch):
        return dict(patch)
    merged: Json = dict(target) if isinstance(target, dict) else {}
    for key, value in patch.items():
        if value is None:
            merged.pop(key, None)
        else:
            merged[key] = merge_layer(merged.get(key), value)
    return merged


def without_gaps(layer: Json) -> Json:
    """Return the layer without empty texts, nulls and branches that say nothing, so that each falls back."""
    kept: Json = {}
    for key, value in layer.items():
        clean = value
        if isinstance(value, str) and not value.strip():
            clean = None
        elif isinstance(value, dict):
            clean = without_gaps(value) or None
        if clean is not None:
            kept[key] = clean
    return kept


def leaves(document: Mapping[str, Any], prefix: str = "") -> Iterator[tuple[str, Any]]:
    """Yield `(path, value)` of every field; a tagged value is one field. Paths are joined by dots."""
    for key, value in document.items():
        path = f"{prefix}{key}"
        if isinstance(value, dict) and not is_tagged(value):
            yield from leaves(value, path + ".")
        else:
            yield path, value


def at_path(document: Mapping[str, Any], path: str) -> Any:
    """Return the value at a dotted path, or None where the document says nothing."""
    value: Any = document
    for key in path.split("."):
        if not isinstance(value, dict) or key not in value:
            return None
        value = value[key]
    return value


def patch_at(path: str, value: Any) -> Json:
    """Return the smallest patch that sets one field (or resets it, with None)."""
    patch: Any = value
    for key in reversed(path.split(".")):
        patch = {key: patch}
    return dict(patch)
