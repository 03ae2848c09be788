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
        option = self.options[0] if self.options else ""
        return (all_goods()[self.sku].price_of(option) or Decimal(0)) * self.quantity

    @property
    def number(self) -> str:
        """Return what the shop calls the line: its place is not told, since that moves."""
        return "~".join([self.sku, *self.options, self.said])


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
        if options and goods.is_gone(options[0]):
            raise ValueError(f"{goods.name}, {options[0]}, is sold out.")
        for line in self.lines:
            if (line.sku, line.options, line.said) == (sku, options, said):
                line.quantity += quantity
                return
        self.lines.append(RowLine(sku, options, said, quantity))

    def keep(self, number: str, quantity: int) -> None:
        """Have so many of a line; 0 takes it out for good.

        Raises:
            ValueError: There is no such line, or so many are not sold.
        """
        line = next((line for line in self.lines if line.number == number), None)
        if line is None:
            raise ValueError("That line is gone.")
        if not 0 <= quantity <= 99:
            raise ValueError("Take from 1 to 99.")
        line.quantity = quantity
        if not quantity:
            self.lines.remove(line)


class Sessions:
    def __init__(self) -> None:
        self._kept: dict[str, Session] = {}

    def of(self, name: str) -> Session:
        if name not in self._kept and len(self._kept) >= MOST_SESSIONS:
            self._kept.pop(next(iter(self._kept)))
        return self._kept.setdefault(name, Session())
