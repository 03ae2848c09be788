"""Bringing the catalogue in."""

from dataclasses import asdict, dataclass
from datetime import datetime

from uptick.core.catalogue import Change, Refusal, read_catalogue
from uptick.usecases.ports import Person, Shop


@dataclass(frozen=True, slots=True)
class ImportReport:
    """What an import took, changed and refused, line by line. `missing` are known products that the file lacks."""

    new: tuple[Change, ...]
    changed: tuple[Change, ...]
    unchanged: int
    missing: tuple[str, ...]
    refused: tuple[Refusal, ...]
    applied: bool


def import_catalogue(
    shop: Shop, content: bytes, person: Person, now: datetime, *, dry_run: bool = False
) -> ImportReport:
    """Read a CSV file into the catalogue; products that it lacks stay as they are.

    Raises:
        BadCatalogue: The file as a whole cannot be read; nothing is changed.
    """
    known = {product.sku: product for product in shop.catalogue.all()}
    reading = read_catalogue(content, known, shop.store.currency)
    touched = {change.sku for change in (*reading.new, *reading.changed)}
    report = ImportReport(
        reading.new, reading.changed, reading.unchanged, reading.missing, reading.refused, not dry_run
    )
    if not dry_run:
        shop.catalogue.put([product for product in reading.products if product.sku in touched])
        shop.catalogue.note_import(asdict(report), person.name, now)
    return report
