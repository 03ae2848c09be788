"""CSS math: sums, products and comparisons of lengths, as far as they come to one unit."""

from collections.abc import Callable, Sequence

from tinycss2.ast import (
    DimensionToken,
    FunctionBlock,
    LiteralToken,
    Node,
    NumberToken,
    ParenthesesBlock,
    PercentageToken,
    WhitespaceToken,
)

from uptick.core.formats.css_errors import NotUnderstood

PX = {"px": 1.0, "pt": 96 / 72, "rem": 16.0, "cm": 96 / 2.54, "mm": 96 / 25.4, "in": 96.0, "pc": 16.0, "q": 96 / 101.6}
# Amounts by unit; a plain number has none. Units that are a fixed number of pixels are pixels.
Terms = dict[str, float]


def is_math(token: Node) -> bool:
    """Tell whether a value is a math function (CSS Values 4, 10)."""
    return isinstance(token, FunctionBlock) and token.lower_name in _FUNCTIONS


def computed(token: FunctionBlock) -> tuple[float, str]:
    """Return what a math function comes to, and in which unit (px, %, em, vw, or none).

    Raises:
        NotUnderstood: It mixes units that only a page could add up, or is no sum at all.

    Source:
        CSS Values 4, 10.1 (`calc()`), 10.2 (`min()`, `max()`, `clamp()`) and 10.8 (the grammar).
    """
    result = _single(_FUNCTIONS[token.lower_name](token.arguments))
    return round(result[0], 4), result[1]


def _single(terms: Terms) -> tuple[float, str]:
    kept = {unit: amount for unit, amount in terms.items() if amount}
    if len(kept) > 1:
        raise NotUnderstood(f"a sum of {' and '.join(unit or 'a number' for unit in kept)}")
    unit, amount = next(iter(kept.items()), (next(iter(terms), "px"), 0.0))
    return amount, unit


def _value(token: Node) -> Terms:
    if isinstance(token, NumberToken):
        return {"": float(token.value)}
    if isinstance(token, PercentageToken):
        return {"%": float(token.value)}
    if isinstance(token, DimensionToken):
        unit = token.lower_unit
        if unit in PX:
            return {"px": float(token.value) * PX[unit]}
        if unit in ("em", "vw"):
            return {unit: float(token.value)}
        raise NotUnderstood(f"the unit {unit}")
    if isinstance(token, ParenthesesBlock):
        return _sum(token.content)
    if isinstance(token, FunctionBlock) and token.lower_name in _FUNCTIONS:
        return _FUNCTIONS[token.lower_name](token.arguments)
    raise NotUnderstood("no sum")


def _sum(tokens: Sequence[Node]) -> Terms:
    """Add up; `+` and `-` stand between spaces, or they would be signs."""
    total: Terms = {}
    sign, pending = 1.0, list[Node]()
    for n, token in enumerate(tokens):
        spaced = 0 < n < len(tokens) - 1 and all(isinstance(tokens[i], WhitespaceToken) for i in (n - 1, n + 1))
        if isinstance(token, LiteralToken) and token.value in ("+", "-") and spaced:
            _add(total, _product(pending), sign)
            sign, pending = (1.0 if token.value == "+" else -1.0), []
        else:
            pending.append(token)
    _add(total, _product(pending), sign)
    return total


def _add(total: Terms, terms: Terms, sign: float) -> None:
    for unit, amount in terms.items():
        total[unit] = total.get(unit, 0.0) + sign * amount


def _product(tokens: Sequence[Node]) -> Terms:
    parts = [token for token in tokens if not isinstance(token, WhitespaceToken)]
    if len(parts) % 2 == 0:
        raise NotUnderstood("no sum")
    product = _value(parts[0])
    for operator, token in zip(parts[1::2], parts[2::2], strict=True):
        product = _times(product, _value(token), operator)
    return product


def _times(left: Terms, right: Terms, operator: Node) -> Terms:
    how = operator.value if isinstance(operator, LiteralToken) else ""
    if how == "*" and set(left) == {""}:
        left, right = right, left
    if how not in ("*", "/") or set(right) != {""} or (how == "/" and not right[""]):
        raise NotUnderstood("no product of a length and a number")
    by = right[""] if how == "*" else 1 / right[""]
    return {unit: amount * by for unit, amount in left.items()}


def _compared(tokens: Sequence[Node]) -> tuple[list[float], str]:
    pieces: list[list[Node]] = [[]]
    for token in tokens:
        if isinstance(token, LiteralToken) and token.value == ",":
            pieces.append([])
        else:
            pieces[-1].append(token)
    operands = [_single(_sum(piece)) for piece in pieces]
    units = {unit for amount, unit in operands if amount} or {operands[0][1]}
    if len(units) > 1:
        raise NotUnderstood(f"a choice between {' and '.join(sorted(units))}")
    return [amount for amount, _ in operands], units.pop()


def _least(tokens: Sequence[Node]) -> Terms:
    amounts, unit = _compared(tokens)
    return {unit: min(amounts)}


def _most(tokens: Sequence[Node]) -> Terms:
    amounts, unit = _compared(tokens)
    return {unit: max(amounts)}


def _clamped(tokens: Sequence[Node]) -> Terms:
    amounts, unit = _compared(tokens)
    if len(amounts) != 3:
        raise NotUnderstood("clamp takes three")
    least, wished, most = amounts
    return {unit: max(least, min(wished, most))}


_FUNCTIONS: dict[str, Callable[[Sequence[Node]], Terms]] = {
    "calc": _sum,
    "min": _least,
    "max": _most,
    "clamp": _clamped,
}
