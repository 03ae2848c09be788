"""A catalogue as a file: CSV or schema.org JSON-LD, in and out."""

import csv
import io
from collections.abc import Iterator, Mapping, Sequence

from uptick.core.catalogue import Product, Reading, compare_catalogue
from uptick.core.errors import BadCatalogue
from uptick.core.formats.jsonld import products_from_jsonld
from uptick.core.formats.product_fields import COLUMNS, REQUIRED, product_from, row_of
from uptick.core.formats.text_file import text_of

MAX_BYTES = 60_000_000


def read_catalogue(content: bytes, known: Mapping[str, Product], currency: str) -> Reading:
    """Return what a file holds, line by line, against the products that are `known` by code.

    The file is UTF-8: CSV with a header, in which lists are divided by `|`, or JSON-LD.

    Raises:
        BadCatalogue: The file as a whole cannot be read: its size, encoding, form or columns.
    """
    text = text_of(content, MAX_BYTES, BadCatalogue)
    is_json = text.lstrip()[:1] in {"{", "["}
    return compare_catalogue(products_from_jsonld(text, currency) if is_json else _from_csv(text, currency), known)


def _from_csv(text: str, currency: str) -> Iterator[tuple[int, Product | str]]:
    reader = csv.DictReader(io.StringIO(text, newline=""), strict=True)
    lacking = [name for name in REQUIRED if name not in (reader.fieldnames or ())]
    if lacking:
        raise BadCatalogue(f"The first line lacks {', '.join(lacking)}. The columns are: {', '.join(COLUMNS)}.")
    try:
        for row in reader:
            if None in row:
                yield reader.line_num, "more fields than columns; put texts with commas in double quotes"
                continue
            try:
                yield reader.line_num, product_from({k: (v or "").strip() for k, v in row.items()}, currency)
            except ValueError as error:
                yield reader.line_num, str(error)
    except csv.Error as error:
        raise BadCatalogue(f"Line {reader.line_num + 1} is not CSV: {error}.") from error


def write_csv(products: Sequence[Product]) -> str:
    """Return a catalogue as CSV; reading it back changes nothing."""
    out = io.StringIO(newline="")
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    writer.writerows(row_of(product) for product in products)
    return out.getvalue()
