"""A catalogue as a file: CSV or schema.org JSON-LD, in and out."""

import csv
import io
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from uptick.core.errors import BadCatalogue
from uptick.core.formats.jsonld import products_from_jsonld
from uptick.core.formats.product_fields import COLUMNS, column_of, product_from, row_of
from uptick.core.formats.text_file import text_of
from uptick.core.shop.catalogue import Line, Product, Reading, compare_catalogue

MAX_BYTES = 60_000_000


@dataclass(frozen=True, slots=True)
class CatalogueFile:
    """A file and what it would change. `columns` are read; `ignored` are headings that mean nothing here."""

    reading: Reading
    columns: tuple[str, ...]
    ignored: tuple[str, ...]


def read_catalogue(content: bytes, known: Mapping[str, Product], currency: str) -> CatalogueFile:
    """Return what a file holds, line by line, against the products that are `known` by code.

    The file is UTF-8: CSV with a header, in which lists are divided by `|`, or JSON-LD. A column that is not there
    changes nothing.

    Raises:
        BadCatalogue: The file as a whole cannot be read: its size, encoding, form or columns.
    """
    text = text_of(content, MAX_BYTES, BadCatalogue)
    if text.lstrip()[:1] in {"{", "["}:
        return CatalogueFile(compare_catalogue(products_from_jsonld(text, known, currency), known), (), ())
    records = _records(text)
    headings = next(records, (0, []))[1]
    columns = _columns(headings)
    reading = compare_catalogue(_from_csv(records, columns, known, currency), known)
    ignored = tuple(heading.strip() for heading, column in zip(headings, columns, strict=True) if column is None)
    return CatalogueFile(reading, tuple(column for column in columns if column), ignored)


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


def _records(text: str) -> Iterator[tuple[int, list[str]]]:
    """Yield the records that are not empty, each with the number of its last line."""
    reader = csv.reader(io.StringIO(text, newline=""), strict=True)
    try:
        for cells in reader:
            if cells:
                yield reader.line_num, cells
    except csv.Error as error:
        raise BadCatalogue(f"Line {reader.line_num + 1} is not CSV: {error}.") from error


def _from_csv(
    records: Iterator[tuple[int, list[str]]], columns: Sequence[str | None], known: Mapping[str, Product], currency: str
) -> Iterator[Line]:
    for number, cells in records:
        told = {column: cell.strip() for column, cell in zip(columns, cells, strict=False) if column}
        sku = told.get("sku", "")
        if len(cells) > len(columns):
            yield Line(number, sku, "more fields than columns; put texts with commas in double quotes")
        elif len(cells) < len(columns):
            yield Line(number, sku, f"{len(cells)} fields where the first line has {len(columns)}")
        else:
            yield _line(number, told, known.get(sku), currency)


def _line(number: int, told: Mapping[str, str], before: Product | None, currency: str) -> Line:
    try:
        return Line(number, told.get("sku", ""), product_from(told, currency, before))
    except ValueError as error:
        return Line(number, told.get("sku", ""), str(error))


def write_csv(products: Sequence[Product]) -> str:
    """Return a catalogue as CSV; reading it back changes nothing."""
    out = io.StringIO(newline="")
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    writer.writerows(row_of(product) for product in products)
    return out.getvalue()
