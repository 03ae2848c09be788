"""Bringing the catalogue in: looked at first, then applied piece by piece in one transaction."""

from collections.abc import Generator, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime

from uptick.core.errors import NeedsYes
from uptick.core.formats.catalogue_file import CatalogueFile, Heading, read_catalogue
from uptick.core.formats.csv_dialect import Dialect, ReadAs
from uptick.core.shop.catalogue import Change, ImportPreview, Product, Refusal
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

    `removed` says whether those were taken out of the catalogue; `columns` are those that were read, `ignored` the
    headings that mean nothing here. `dialect` and `headings` say how a CSV file was read, `sample` are its first ten
    products, `notes` what was chosen where a line said several things. `warnings` are sentences that somebody has to
    agree to before it is applied. A shortened report has its counts in full.
    """

    counts: Counts

    new: tuple[Change, ...]
    changed: tuple[Change, ...]
    missing: tuple[str, ...]
    refused: tuple[Refusal, ...]
    applied: bool
    removed: bool = False
    columns: tuple[str, ...] = ()
    ignored: tuple[str, ...] = ()
    warnings: tuple[str, ...] = ()
    dialect: Dialect | None = None
    headings: tuple[Heading, ...] = ()
    sample: tuple[dict[str, str], ...] = ()
    notes: tuple[Refusal, ...] = ()


@dataclass(frozen=True, slots=True)
class ImportProgress:
    """How many products of how many have been taken in so far."""

    done: int
    of: int


# A file that takes out more than this share of a catalogue is more often a broken export than a wish.
MOST_REMOVED = 0.1


@dataclass(frozen=True, slots=True)
class ReadAhead:
    """A file that was read against the products there were, while no connection to the database was held."""

    known: Sequence[Product]
    file: CatalogueFile


FOUND_OUT = ReadAs()


def read_ahead(content: bytes, known: Sequence[Product], currency: str, read_as: ReadAs = FOUND_OUT) -> ReadAhead:
    """Read a file; `import_steps` reads it again where the products have changed meanwhile.

    Raises:
        BadCatalogue: The file as a whole cannot be read.
    """
    return ReadAhead(known, read_catalogue(content, {product.sku: product for product in known}, currency, read_as))


def import_steps(
    shop: Shop,
    content: bytes,
    person: Person,
    now: datetime,
    *,
    dry_run: bool = False,
    whole: bool = False,
    really: bool = False,
    ahead: ReadAhead | None = None,
    read_as: ReadAs = FOUND_OUT,
) -> Generator[ImportProgress, None, ImportReport]:
    """Read a file into the catalogue, yielding progress; the report is what it returns.

    Whoever stops in between rolls the transaction back, and nothing has happened.

    Args:
        whole: The file is the whole catalogue: what it lacks is taken out. Exceptions for such products are kept and
            sleep. Without it they stay as they are.
        really: Somebody has read the warnings and wants it all the same.
        ahead: The file as it was read before.
        read_as: How the file is written, where somebody says it.

    Raises:
        BadCatalogue: The file as a whole cannot be read; nothing is changed.
        NeedsYes: It would do something that is rarely meant; `warnings` says what. Nothing is changed.
    """
    if not dry_run:
        shop.hold()
    known = shop.catalogue.all()
    if ahead is None or ahead.known is not known:
        ahead = read_ahead(content, known, shop.store.currency, read_as)
    file, reading = ahead.file, ahead.file.reading
    touched = {change.sku for change in (*reading.new, *reading.changed)}
    new, changed, missing, refused = reading.new, reading.changed, reading.missing, reading.refused
    counts = Counts(len(new), len(changed), reading.unchanged, len(missing), len(refused))
    guesses = file.dialect.guesses if file.dialect else ()
    warnings = (*guesses, *_warnings(reading, len(known), whole=whole))
    report = ImportReport(
        counts, new, changed, missing, refused, not dry_run, whole, file.columns, file.ignored, warnings,
        file.dialect, file.headings, file.sample, reading.notes,
    )  # fmt: skip
    if dry_run:
        return report
    if warnings and not really:
        raise NeedsYes(" ".join(warnings), warnings=list(warnings))
    taken = [product for product in reading.products if product.sku in touched]
    for begin in range(0, len(taken), PIECE):
        yield ImportProgress(begin, len(taken))
        shop.catalogue.put(taken[begin : begin + PIECE])
    if whole and reading.missing:
        shop.catalogue.remove(reading.missing)
    yield ImportProgress(len(taken), len(taken))
    shop.catalogue.note_import(asdict(shortened(report)), person.name, now)
    # Read once here, so that whoever opens the floor next does not wait for it.
    shop.catalogue.all()
    return report


_FIELD_NAMES = {"price_minor": "price", "was_minor": "former price", "tax_percent": "tax"}


def _warnings(reading: ImportPreview, known: int, *, whole: bool) -> Iterator[str]:
    gone = len(reading.missing)
    if whole and gone > known * MOST_REMOVED:
        yield f"It would remove {gone:,} of {known:,} products, since the file does not name them."
    for field, count in reading.emptied:
        name = _FIELD_NAMES.get(field, field.replace("_", " "))
        many = f"{count:,} product{'' if count == 1 else 's'}"
        what = f"sell out {many}" if field == "stock" else f"empty the {name} of {many}"
        yield f"It would {what}: the file has none."


def shortened(report: ImportReport) -> ImportReport:
    """Return a report to show or remember: the counts of tens of thousands of lines, the first hundreds themselves."""
    most = _REMEMBERED
    return replace(
        report,
        new=report.new[:most],
        changed=report.changed[:most],
        missing=report.missing[:most],
        refused=report.refused[:most],
        notes=report.notes[:most],
    )


def import_catalogue(
    shop: Shop,
    content: bytes,
    person: Person,
    now: datetime,
    *,
    dry_run: bool = False,
    whole: bool = False,
    really: bool = False,
    ahead: ReadAhead | None = None,
    read_as: ReadAs = FOUND_OUT,
) -> ImportReport:
    """Read a file into the catalogue in one go.

    Raises:
        BadCatalogue: As for `import_steps`.
        NeedsYes: As for `import_steps`.
    """
    steps = import_steps(
        shop, content, person, now, dry_run=dry_run, whole=whole, really=really, ahead=ahead, read_as=read_as
    )
    return finish(steps)


def finish(steps: Iterator[ImportProgress]) -> ImportReport:
    """Return the report at the end of an import's steps."""
    while True:
        try:
            next(steps)
        except StopIteration as end:
            report: ImportReport = end.value
            return report
