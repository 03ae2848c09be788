"""Baskets and orders, in a small SQLite file."""

import sqlite3
import threading
from dataclasses import dataclass
from decimal import Decimal
from pathlib import Path

from practice.goods import all_goods


@dataclass(frozen=True, slots=True)
class Line:
    sku: str
    option: str
    quantity: int

    @property
    def name(self) -> str:
        goods = all_goods()[self.sku]
        return f"{goods.name}, {self.option}" if self.option else goods.name

    @property
    def total(self) -> Decimal:
        return (all_goods()[self.sku].price_of(self.option) or Decimal(0)) * self.quantity


class Baskets:
    """One file, one connection, one lock: a small shop."""

    def __init__(self, path: Path | str) -> None:
        self._lock = threading.Lock()
        # What has run out since the catalogue was printed.
        self.gone: set[str] = set()
        self._db = sqlite3.connect(path, check_same_thread=False, isolation_level=None)
        self._db.executescript(
            """
            CREATE TABLE IF NOT EXISTS lines (
                basket TEXT, sku TEXT, option TEXT, quantity INTEGER, PRIMARY KEY (basket, sku, option));
            CREATE TABLE IF NOT EXISTS orders (number INTEGER PRIMARY KEY AUTOINCREMENT, basket TEXT, buyer TEXT);
            CREATE TABLE IF NOT EXISTS order_lines (
                number INTEGER, line INTEGER, sku TEXT, option TEXT, quantity INTEGER, PRIMARY KEY (number, line));
            """
        )

    def add(self, basket: str, sku: str, option: str, quantity: int) -> None:
        """Put goods into a basket.

        Raises:
            ValueError: Unknown or sold-out goods, an option that they do not have, or a wrong quantity.
        """
        goods = all_goods().get(sku)
        if goods is None:
            raise ValueError(f"We do not sell {sku!r}.")
        if goods.is_sold_out or sku in self.gone:
            raise ValueError(f"{goods.name} is sold out.")
        if goods.price is None:
            raise ValueError(f"Ask us about {goods.name}: it has no price.")
        if goods.options and option not in goods.options:
            raise ValueError(f"Choose the {goods.option_name.lower()} first: {', '.join(goods.options)}.")
        if goods.is_gone(option):
            raise ValueError(f"{goods.name}, {option}, is sold out.")
        if not 1 <= quantity <= 200:
            raise ValueError("Take from 1 to 200 of a thing.")
        with self._lock:
            self._db.execute(
                "INSERT INTO lines VALUES (?, ?, ?, ?) "
                "ON CONFLICT DO UPDATE SET quantity = quantity + excluded.quantity",
                (basket, sku, option if goods.options else "", quantity),
            )

    def keep(self, basket: str, sku: str, option: str, quantity: int) -> None:
        """Have so many of some goods in a basket; 0 takes them out.

        Raises:
            ValueError: As with `add`.
        """
        with self._lock:
            there = self._db.execute(
                "SELECT quantity FROM lines WHERE (basket, sku, option) = (?, ?, ?)", (basket, sku, option)
            ).fetchone()
        if quantity and not there:
            self.add(basket, sku, option, quantity)
            return
        if not 0 <= quantity <= 200:
            raise ValueError("Take from 1 to 200 of a thing.")
        with self._lock:
            if quantity:
                self._db.execute(
                    "UPDATE lines SET quantity = ? WHERE (basket, sku, option) = (?, ?, ?)",
                    (quantity, basket, sku, option),
                )
            else:
                self._db.execute("DELETE FROM lines WHERE (basket, sku, option) = (?, ?, ?)", (basket, sku, option))

    def empty(self, basket: str) -> None:
        with self._lock:
            self._db.execute("DELETE FROM lines WHERE basket = ?", (basket,))

    def lines(self, basket: str) -> list[Line]:
        with self._lock:
            rows = self._db.execute(
                "SELECT sku, option, quantity FROM lines WHERE basket = ? ORDER BY rowid", (basket,)
            )
            return [Line(*row) for row in rows]

    def order(self, basket: str, buyer: str) -> int:
        """Turn a basket into an order and return its number; no money is taken.

        Raises:
            ValueError: The basket is empty.
        """
        lines = self.lines(basket)
        if not lines:
            raise ValueError("The basket is empty.")
        with self._lock:
            cursor = self._db.execute("INSERT INTO orders (basket, buyer) VALUES (?, ?)", (basket, buyer))
            number = cursor.lastrowid
            assert number is not None
            self._db.executemany(
                "INSERT INTO order_lines VALUES (?, ?, ?, ?, ?)",
                [(number, n, line.sku, line.option, line.quantity) for n, line in enumerate(lines, 1)],
            )
            self._db.execute("DELETE FROM lines WHERE basket = ?", (basket,))
        return number

    def ordered(self, number: int, basket: str) -> list[Line]:
        """Return the lines of an order, to nobody but its own basket."""
        with self._lock:
            rows = self._db.execute(
                "SELECT l.sku, l.option, l.quantity FROM order_lines l JOIN orders o USING (number) "
                "WHERE number = ? AND o.basket = ? ORDER BY line",
                (number, basket),
            )
            return [Line(*row) for row in rows]
