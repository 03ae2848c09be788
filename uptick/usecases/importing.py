"""Bringing the catalogue in: looked at first, then applied piece by piece in one transaction."""

from collections.abc import Generator, Iterator
from dataclasses import asdict, dataclass, replace
from datetime import datetime

from uptick.core.catalogue import Change, Refusal
from uptick.core.formats.catalogue_file import read_catalogue
from uptick.usecases.ports import Person, Shop

PIECE = 2_000
_REMEMBERED = 500


@dataclass(frozen=True, slots=True)
class Counts:
    new: int
    changed: int
    unchanged: int
    missing: int
    refused: int


@dataclass(frozen=True, slots=True)
class ImportReport:
    """What an import took, changed and refused, line by line. `missing` are known products that the file lacks.

    `removed` says whether those were taken out of the catalogue. A shortened report has its counts in full.
    """

    counts: Counts

    new: tuple[Change, ...]
    changed: tuple[Change, ...]
    missing: tuple[str, ...]
    refused: tuple[Refusal, ...]
    applied: bool
    removed: bool = False


@dataclass(frozen=True, slots=True)
class Progress:
    """How many products of how many have been taken in so far."""

    done: int
    of: int


def import_steps(
    shop: Shop, content: bytes, person: Person, now: datetime, *, dry_run: bool = False, whole: bool = False
) -> Generator[Progress, None, ImportReport]:
    """Read a file into the catalogue, yielding progress; the report is what it returns.

    Whoever stops in between rolls the transaction back, and nothing has happened.

    Args:
        whole: The file is the whole catalogue: what it lacks is taken out. Exceptions for such products are kept and
            sleep. Without it they stay as they are.

    Raises:
        BadCatalogue: The file as a whole cannot be read; nothing is changed.
    """
    known = {product.sku: product for product in shop.catalogue.all()}
    reading = read_catalogue(content, known, shop.store.currency)
    touched = {change.sku for change in (*reading.new, *reading.changed)}
    new, changed, missing, refused = reading.new, reading.changed, reading.missing, reading.refused
    counts = Counts(len(new), len(changed), reading.unchanged, len(missing), len(refused))
    report = ImportReport(counts, new, changed, missing, refused, not dry_run, whole)
    if dry_run:
        return report
    taken = [product for product in reading.products if product.sku in touched]
    for begin in range(0, len(taken), PIECE):
        yield Progress(begin, len(taken))
        shop.catalogue.put(taken[begin : begin + PIECE])
    if whole and reading.missing:
        shop.catalogue.remove(reading.missing)
    yield Progress(len(taken), len(taken))
    shop.catalogue.note_import(asdict(shortened(report)), person.name, now)
    # Read once here, so that whoever opens the floor next does not wait for it.
    shop.catalogue.all()
    return report


def shortened(report: ImportReport) -> ImportReport:
    """Return a report to show or remember: the counts of tens of thousands of lines, the first hundreds themselves."""
    most = _REMEMBERED
    return replace(
        report,
        new=report.new[:most],
        changed=report.changed[:most],
        missing=report.missing[:most],
        refused=report.refused[:most],
    )


def import_catalogue(
    shop: Shop, content: bytes, person: Person, now: datetime, *, dry_run: bool = False, whole: bool = False
) -> ImportReport:
    """Read a file into the catalogue in one go.

    Raises:
        BadCatalogue: As for `import_steps`.
    """
    steps = import_steps(shop, content, person, now, dry_run=dry_run, whole=whole)
    return finish(steps)


def finish(steps: Iterator[Progress]) -> ImportReport:
    """Return the report at the end of an import's steps."""
    while True:
        try:
            next(steps)
        except StopIteration as end:
            report: ImportReport = end.value
            return report
