"""Texts out to translators and back in, as gettext PO."""

from dataclasses import dataclass
from datetime import datetime

from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import merge_layer, without_gaps
from uptick.core.errors import OutOfRange
from uptick.core.formats.po import TextChange, TextRefusal, TextsReading, patches_of, read_po, write_po
from uptick.core.resolved.reach_words import listed, say_reach, vocabulary_of
from uptick.core.words.wording import language_name
from uptick.usecases.edit import require_sound
from uptick.usecases.ports import Person, Shop


@dataclass(frozen=True, slots=True)
class TextsReport:
    """What a file of translations changed, or would."""

    language: str
    changes: tuple[TextChange, ...]
    unchanged: int
    untranslated: int
    refused: tuple[TextRefusal, ...]
    applied: bool


def export_texts(shop: Shop, language: str, now: datetime) -> str:
    """Return the texts of one language as PO, with the source and a note on where each stands.

    Raises:
        OutOfRange: The buttons do not speak that language.
    """
    _require_spoken(shop, language)
    settings = shop.drafts.read().settings
    return write_po(settings, language, _notes(shop), shop.store.name, now)


def _notes(shop: Shop) -> dict[str, str]:
    snapshot = shop.now()
    names = vocabulary_of(snapshot)
    rooms = {place: shop.store.surfaces[place].narrowest() for place in shop.store.places}
    notes: dict[str, str] = {
        LayerRef.place(place): f"At most {room:g} px wide, on a {device}." for place, (device, room) in rooms.items()
    }
    device, room = min(rooms.values(), key=lambda of_device: of_device[1])
    notes[BASELINE] = f"Wherever nothing narrower is said; at most {room:g} px wide, on a {device}."
    for rule in snapshot.settings.exceptions:
        notes[LayerRef.exception(rule.id)] = f"For {say_reach(rule.reach, names)}: {rule.note}"
    return notes


def import_texts(
    shop: Shop,
    language: str,
    content: bytes,
    base_version: int,
    person: Person,
    now: datetime,
    *,
    dry_run: bool = False,
) -> TextsReport:
    """Read translations into the draft as one change that can be undone; with `dry_run` only say what it would do.

    Raises:
        BadTexts: The file cannot be read at all; nothing is changed.
        OutOfRange: The buttons do not speak that language.
        Stale: Somebody changed the draft meanwhile.
    """
    _require_spoken(shop, language)
    draft = shop.drafts.read()
    reading = read_po(content, draft.settings, language)
    apply = bool(reading.changes) and not dry_run
    if apply:
        after = draft.settings
        for layer_id, patch in patches_of(reading.changes, language).items():
            after = after.with_layer(layer_id, without_gaps(merge_layer(after.layer(layer_id) or {}, patch)))
        require_sound(shop, after)
        n = len(reading.changes)
        label = f"Texts from a file, {language_name(language)}: {n} changed"
        shop.drafts.append(base_version, after, label, person, now)
    return _report(language, reading, applied=apply)


def _report(language: str, reading: TextsReading, *, applied: bool) -> TextsReport:
    return TextsReport(
        language, reading.changes, reading.unchanged, reading.untranslated, reading.refused, applied=applied
    )


def _require_spoken(shop: Shop, language: str) -> None:
    spoken = shop.drafts.read().settings.languages
    if language not in spoken:
        raise OutOfRange.of("language", f"one of {listed(spoken, 'or')}", language)
