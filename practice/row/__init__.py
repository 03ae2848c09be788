"""A row of small shops beside the practice store, each on an address of its own and made in another way."""

from practice.row.app import create_row
from practice.row.shops import ROW, RowShop

__all__ = ["ROW", "RowShop", "create_row"]
