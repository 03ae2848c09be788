"""Words must be readable on their fill, in every state."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from uptick.core.checks.finding import Finding, Mend, Weight, spots, where_all
from uptick.core.classes import ButtonClass
from uptick.core.colour import contrast_ratio, nearest_passing, needed_ratio
from uptick.core.merge import Json, at_path
from uptick.core.resolve import clean_layers
from uptick.core.settings import Settings


@dataclass(frozen=True, slots=True)
class _Pair:
    """Words on a fill in one state, and the narrower of the layers that the two colours come from."""

    state: str
    fill: str
    words: str
    needed: float
    layer: str


_STATES = {"": "at rest", "hover": "when hovered", "focus": "when focused"}


def _pairs(settings: Settings, one: ButtonClass) -> Iterator[_Pair]:
    look = one.document.look
    needed = needed_ratio(look.type.size_px, look.type.weight)
    for state, (fill, words) in _colours(one).items():
        if contrast_ratio(words, fill) < needed:
            path = f"look.{state}" if state else "look"
            yield _Pair(state, fill, words, needed, _narrower(settings, one, f"{path}.fill", f"{path}.text_colour"))


def _colours(one: ButtonClass) -> dict[str, tuple[str, str]]:
    """Return fill and words by state; disabled is exempt from contrast."""
    look = one.document.look
    return {
        "": (look.fill.colour, look.text_colour),
        "hover": (look.hover.fill.colour, look.hover.text_colour),
        "focus": (look.focus.fill.colour, look.focus.text_colour),
    }


def _order(one: ButtonClass) -> list[str]:
    """Return the layers of a class, the widest first."""
    return ["baseline", f"place:{one.placement}", *(f"exception:{rule}" for rule in one.rules)]


def _setting(settings: Settings, one: ButtonClass, field: str) -> int:
    """Return the place, in the order of a class's layers, of the one that a field's value comes from."""
    layers = clean_layers(settings)
    order = _order(one)
    return next((n for n in range(len(order) - 1, -1, -1) if at_path(layers.get(order[n], {}), field) is not None), 0)


def _narrower(settings: Settings, one: ButtonClass, *fields: str) -> str:
    return _order(one)[max(_setting(settings, one, field) for field in fields)]


def check_contrast(settings: Settings, classes: Sequence[ButtonClass]) -> Iterator[Finding]:
    """Test words on fill in every state but disabled; buttons that take a pair from the same layers share a finding.

    Source:
        WCAG 2.2, 1.4.3 Contrast (Minimum); disabled controls are exempt there.
    """
    by_pair: dict[_Pair, list[ButtonClass]] = {}
    looks: dict[tuple[object, ...], list[_Pair]] = {}
    layers = clean_layers(settings)
    drawn = {layer for layer, content in layers.items() if "look" in content}
    for one in classes:
        # Texts do not change how they are read: classes with the same look layers are looked at once.
        key = (one.placement, *(rule for rule in one.rules if f"exception:{rule}" in drawn))
        if key not in looks:
            looks[key] = list(_pairs(settings, one))
        for pair in looks[key]:
            by_pair.setdefault(pair, []).append(one)
    for pair, buttons in by_pair.items():
        ratio = contrast_ratio(pair.words, pair.fill)
        yield Finding(
            rule="contrast",
            weight=Weight.MUST_FIX,
            buttons=spots(*buttons),
            spot=pair.state or "rest",
            title=f"Words {_STATES[pair.state]} {_cut(ratio)} : 1, {pair.needed:g} is needed",
            says=f"{pair.words} on {pair.fill} {where_all(buttons)}.",
            figure=ratio,
            allowed=pair.needed,
            mends=tuple(_contrast_mends(settings, classes, pair)),
        )


def _brings_no_other(settings: Settings, classes: Sequence[ButtonClass], pair: _Pair, field: str, colour: str) -> bool:
    """Tell whether a colour, set in the pair's layer, can be read in every button that would take it from there."""
    path = f"look.{pair.state}.{field}" if pair.state else f"look.{field}"
    for one in classes:
        order = _order(one)
        if pair.layer not in order:
            continue
        if _setting(settings, one, path) > order.index(pair.layer):
            continue
        fill, words = _colours(one)[pair.state]
        look = one.document.look
        other = fill if field == "text_colour" else words
        if contrast_ratio(colour, other) < needed_ratio(look.type.size_px, look.type.weight):
            return False
    return True


def _cut(ratio: float) -> str:
    # Cut, never rounded up: 4.499 must not read as 4.50.
    return f"{int(ratio * 100) / 100:.2f}"


def _contrast_mends(settings: Settings, classes: Sequence[ButtonClass], pair: _Pair) -> Iterator[Mend]:
    for field, now, against in (("fill", pair.fill, pair.words), ("text_colour", pair.words, pair.fill)):
        better = nearest_passing(now, against, pair.needed)
        if better and _brings_no_other(settings, classes, pair, field, better):
            value: Json | str = {"kind": "solid", "colour": better} if field == "fill" else better
            inner: Json = {field: value}
            name = "fill" if field == "fill" else "words"
            gives = _cut(contrast_ratio(better, against))
            patch: Json = {"look": {pair.state: inner} if pair.state else inner}
            yield Mend(f"{name} {better} gives {gives}", pair.layer, patch)
