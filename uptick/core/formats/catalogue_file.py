"""A catalogue as a file: CSV or schema.org JSON-LD, in and out."""

import csv
import io
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice

from babel.numbers import get_currency_precision

from uptick.core.errors import BadCatalogue
from uptick.core.formats.csv_dialect import Dialect, ReadAs, decimal_of, decoded, plain_number, records, separator_of
from uptick.core.formats.jsonld import products_from_jsonld
from uptick.core.formats.product_fields import COLUMNS, column_of, product_from, row_of
from uptick.core.shop.catalogue import CatalogueLine, ImportPreview, Product, compare_catalogue

MAX_BYTES = 60_000_000


@dataclass(frozen=True, slots=True)
class Heading:
    """A heading of a file, and the column that it was taken for; None where it means nothing here."""

    heading: str
    column: str | None


@dataclass(frozen=True, slots=True)
class CatalogueFile:
    """A file and what it would change.

    `dialect` and `headings` say how a CSV file was read, `sample` are its first ten products as they were read.
    """

    reading: ImportPreview
    dialect: Dialect | None = None
    headings: tuple[Heading, ...] = ()
    sample: tuple[dict[str, str], ...] = ()

    @property
    def columns(self) -> tuple[str, ...]:
        """The columns of ours that headings were understood as."""
        return tuple(heading.column for heading in self.headings if heading.column)

    @property
    def ignored(self) -> tuple[str, ...]:
        """The headings that are none of ours."""
        return tuple(heading.heading for heading in self.headings if heading.column is None)


_SAMPLE = 10
_NUMBERS = ("price", "was", "tax")
# So many rows say how a file writes its numbers.
_LOOKED_AT = 5_000


_FOUND_OUT = ReadAs()


def read_catalogue(
    content: bytes, known: Mapping[str, Product], currency: str, read_as: ReadAs = _FOUND_OUT
) -> CatalogueFile:
    """Return what a file holds, line by line, against the products that are `known` by code.

    CSV has a header; its encoding, its separator and its decimal sign are found out where `read_as` leaves them open,
    and told. Lists are divided by `|`.
    JSON-LD is schema.org's. A column that is not there changes nothing.

    Raises:
        BadCatalogue: The file as a whole cannot be read: its size, encoding, form or columns.
    """
    read = decoded(content, MAX_BYTES, read_as.encoding)
    text = read.text
    if text.lstrip()[:1] in {"{", "["}:
        reading = compare_catalogue(products_from_jsonld(text, known, currency), known)
        return CatalogueFile(reading, sample=_sample(reading))
    separator = separator_of(text.lstrip("\r\n").partition("\n")[0])
    headings = next(records(text, separator), (0, []))[1]
    columns = _columns(headings)
    decimal, unclear = decimal_of(_numbers(text, separator, columns), get_currency_precision(currency), read_as.decimal)
    guesses = tuple(filter(None, (read.guess, unclear)))
    lines = _from_csv(_after_first(text, separator), columns, known, currency, decimal)
    reading = compare_catalogue(lines, known)
    return CatalogueFile(
        reading,
        Dialect(read.encoding, separator, decimal, guesses),
        tuple(Heading(heading.strip(), column) for heading, column in zip(headings, columns, strict=True)),
        _sample(reading),
    )


def _after_first(text: str, separator: str) -> Iterator[tuple[int, list[str]]]:
    rows = records(text, separator)
    next(rows, None)
    return rows


def _numbers(text: str, separator: str, columns: Sequence[str | None]) -> list[str]:
    places = [n for n, column in enumerate(columns) if column in _NUMBERS]
    rows = islice(_after_first(text, separator), _LOOKED_AT)
    return [cells[n].strip() for _, cells in rows for n in places if n < len(cells)]


def _sample(reading: ImportPreview) -> tuple[dict[str, str], ...]:
    return tuple(
        {name: value for name, value in row_of(product).items() if value} for product in reading.products[:_SAMPLE]
    )


def _columns(headings: Sequence[str]) -> list[str | None]:
    columns = [column_of(heading) for heading in headings]
    if "sku" not in columns:
        raise BadCatalogue(
            f"The first line lacks the column sku, the product's code. Columns are: {', '.join(COLUMNS)}."
        )
    for column in set(columns) - {None}:
        twice = [heading.strip() for heading, of in zip(headings, columns, strict=True) if of == column]
        if len(twice) > 1:
            raise BadCatalogue(f"The first line names {column} twice: {' and '.join(twice)}. Leave one of them out.")
    return columns


def _from_csv(
    rows: Iterator[tuple[int, list[str]]],
    columns: Sequence[str | None],
    known: Mapping[str, Product],
    currency: str,
    decimal: str,
) -> Iterator[CatalogueLine]:
    for number, cells in rows:
        cells_by = {column: cell.strip() for column, cell in zip(columns, cells, strict=False) if column}
        sku = cells_by.get("sku", "")
        if len(cells) > len(columns):
            yield CatalogueLine(number, sku, "more fields than columns; put texts with commas in double quotes")
        elif len(cells) < len(columns):
            yield CatalogueLine(number, sku, f"{len(cells)} fields where the first line has {len(columns)}")
        else:
            cells_by |= {name: plain_number(cells_by[name], decimal) for name in _NUMBERS if name in cells_by}
            yield _line(number, cells_by, known.get(sku), currency)


def _line(number: int, cells_by: Mapping[str, str], before: Product | None, currency: str) -> CatalogueLine:
    try:
        return CatalogueLine(number, cells_by.get("sku", ""), product_from(cells_by, currency, before))
    except ValueError as error:
        return CatalogueLine(number, cells_by.get("sku", ""), str(error))


def write_csv(products: Sequence[Product]) -> str:
    """Return a catalogue as CSV; reading it back changes nothing."""
    out = io.StringIO(newline="")
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    writer.writerows(row_of(product) for product in products)
    return out.getvalue()
