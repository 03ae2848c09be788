"""The texts of a store as gettext PO: one file a language, each text with where it stands.

Source:
    GNU gettext manual, "The Format of PO Files"; read and written by polib.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime

import polib

from uptick.core.button.document import Moment
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import Json, at_path
from uptick.core.engine.layers import clean_layers
from uptick.core.errors import BadTexts, BadWording
from uptick.core.formats.text_file import text_of
from uptick.core.resolved.resolve import place_title
from uptick.core.rules.settings import Settings
from uptick.core.words.wording import live_names, parse_text

MAX_BYTES = 5_000_000


@dataclass(frozen=True, slots=True)
class Place:
    """One text of the store: its layer and moment. In a file it is the context, `exception:e3/ready`."""

    layer: str
    moment: str

    @property
    def context(self) -> str:
        return f"{self.layer}/{self.moment}"


@dataclass(frozen=True, slots=True)
class TextChange:
    """A text that a file would change; `before` is empty where there was none."""

    layer: str
    moment: str
    title: str
    before: str
    after: str


@dataclass(frozen=True, slots=True)
class TextRefusal:
    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class TextsReading:
    changes: tuple[TextChange, ...]
    unchanged: int
    untranslated: int
    refused: tuple[TextRefusal, ...]


def places_of(settings: Settings) -> Iterator[tuple[Place, str]]:
    """Yield every text that the store's first language has, with its source, the widest layers first."""
    for layer, content in clean_layers(settings).items():
        for moment in Moment:
            source = at_path(content, f"wording.{moment}.{settings.language}")
            if source:
                yield Place(layer, moment.value), source


def _title(settings: Settings, layer: str) -> str:
    ref = LayerRef(layer)
    if ref.kind == "exception":
        rule = settings.exception(ref.name)
        return rule.name if rule else ref.name
    return place_title(ref.name) if ref.name else "Store baseline"


def write_po(settings: Settings, language: str, notes: Mapping[str, str], store_name: str, now: datetime) -> str:
    """Return the texts of one language for a translator.

    Args:
        notes: What a translator should know, by layer: where it stands and how much room there is.
    """
    file = polib.POFile(wrapwidth=0)
    file.metadata = {
        "Project-Id-Version": store_name,
        "POT-Creation-Date": f"{now:%Y-%m-%d %H:%M%z}",
        "Language": language.replace("-", "_"),
        "MIME-Version": "1.0",
        "Content-Type": "text/plain; charset=utf-8",
        "Content-Transfer-Encoding": "8bit",
    }
    layers = clean_layers(settings)
    for place, source in places_of(settings):
        said = (
            f"{_title(settings, place.layer)}: {place.moment.replace('_', ' ')}. {notes.get(place.layer, '')}".strip()
        )
        live = sorted(live_names(parse_text(source)))
        if live:
            said += f"\nLive values: {', '.join('{' + name + '}' for name in live)}. Plurals as in ICU messages."
        translated = at_path(layers[LayerRef(place.layer)], f"wording.{place.moment}.{language}") or ""
        file.append(polib.POEntry(msgctxt=place.context, msgid=source, msgstr=translated, comment=said))
    return str(file)


def read_po(content: bytes, settings: Settings, language: str) -> TextsReading:
    """Return what a file of translations would change.

    Raises:
        BadTexts: It cannot be read at all, or is in another language.
    """
    text = text_of(content, MAX_BYTES, BadTexts)
    if "msgid" not in text:
        raise BadTexts("The file holds no msgid: it is not a PO file.")
    try:
        file = polib.pofile(text)
    except (OSError, ValueError) as error:
        raise BadTexts(f"The file is not PO: {error}.") from error
    told = file.metadata.get("Language", "").replace("_", "-")
    if told and told.split("-")[0] != language.split("-")[0]:
        raise BadTexts(f"The file says that its language is {told}; texts for {language} are wanted.")
    return _compare(file, settings, language)


def _compare(file: polib.POFile, settings: Settings, language: str) -> TextsReading:
    sources = {place.context: (place, source) for place, source in places_of(settings)}
    layers = clean_layers(settings)
    changes: list[TextChange] = []
    refused: list[TextRefusal] = []
    unchanged = untranslated = 0
    for entry in file:
        known = sources.get(entry.msgctxt or "")
        if entry.obsolete:
            continue
        if known is None:
            refused.append(TextRefusal(entry.linenum, f"no text of this store has the context {entry.msgctxt!r}"))
            continue
        place, source = known
        if entry.fuzzy or not entry.msgstr.strip():
            untranslated += 1
            continue
        reason = _wrong(entry, source)
        if reason:
            refused.append(TextRefusal(entry.linenum, reason))
            continue
        before = at_path(layers[LayerRef(place.layer)], f"wording.{place.moment}.{language}") or ""
        if before == entry.msgstr:
            unchanged += 1
        else:
            title = _title(settings, place.layer)
            changes.append(TextChange(place.layer, place.moment, title, before, entry.msgstr))
    return TextsReading(tuple(changes), unchanged, untranslated, tuple(refused))


def _wrong(entry: polib.POEntry, source: str) -> str:
    if entry.msgid != source:
        return f"its source was {entry.msgid!r} and is {source!r} now: translate it again"
    if len(entry.msgstr) > 200:
        return f"the text has {len(entry.msgstr)} characters; at most 200 are taken"
    try:
        live = live_names(parse_text(entry.msgstr))
    except BadWording as error:
        return error.says
    lost = live_names(parse_text(source)) - live
    return f"it lacks {', '.join('{' + name + '}' for name in sorted(lost))} of the source" if lost else ""


def patches_of(changes: tuple[TextChange, ...], language: str) -> dict[str, Json]:
    """Return one patch for each layer that some changes touch."""
    patches: dict[str, Json] = {}
    for change in changes:
        wording = patches.setdefault(change.layer, {"wording": {}})["wording"]
        wording[change.moment] = {language: change.after}
    return patches
