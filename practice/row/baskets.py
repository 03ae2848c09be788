"""The row's baskets, kept for as long as the process runs: nobody orders here."""

import secrets
from dataclasses import dataclass, field
from decimal import Decimal

from practice.goods import all_goods
from practice.row.shops import RowShop

MOST_SESSIONS = 5_000


@dataclass(slots=True)
class RowLine:
    sku: str
    options: tuple[str, ...]
    said: str
    quantity: int

    @property
    def name(self) -> str:
        return ", ".join([all_goods()[self.sku].name, *self.options, *([f"“{self.said}”"] if self.said else [])])

    @property
    def total(self) -> Decimal:
        return (all_goods()[self.sku].price or Decimal(0)) * self.quantity


@dataclass(slots=True)
class Session:
    """One visitor of one shop. The word must come back with every press and is another one in every session."""

    word: str = field(default_factory=lambda: secrets.token_hex(12))
    lines: list[RowLine] = field(default_factory=list)
    is_let_in: bool = False

    @property
    def count(self) -> int:
        return sum(line.quantity for line in self.lines)

    def add(self, shop: RowShop, sku: str, quantity: int, options: tuple[str, ...] = (), said: str = "") -> None:
        """Put goods into the basket.

        Raises:
            ValueError: The shop does not sell them so.
        """
        goods = next((g for g in shop.goods if g.sku == sku), None)
        if goods is None:
            raise ValueError(f"We do not sell {sku!r}.")
        if goods.is_sold_out:
            raise ValueError(f"{goods.name} is sold out.")
        if not 1 <= quantity <= 99:
            raise ValueError("Take from 1 to 99.")
        if goods.options and (not options or options[0] not in goods.options or not all(options)):
            raise ValueError(f"Choose first: {', '.join(goods.options)}.")
        for line in self.lines:
            if (line.sku, line.options, line.said) == (sku, options, said):
                line.quantity += quantity
                return
        self.lines.append(RowLine(sku, options, said, quantity))


class Sessions:
    def __init__(self) -> None:
        self._kept: dict[str, Session] = {}

    def of(self, name: str) -> Session:
        if name not in self._kept and len(self._kept) >= MOST_SESSIONS:
            self._kept.pop(next(iter(self._kept)))
        return self._kept.setdefault(name, Session())
