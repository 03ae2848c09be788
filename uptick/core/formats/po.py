"""The texts of a store as gettext PO: one file a language, each text with where it stands.

Source:
    GNU gettext manual, "The Format of PO Files"; read and written by polib.
"""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime

import polib

from uptick.core.button.document import Moment
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import Json, at_path
from uptick.core.button.plain_text import unfit_in
from uptick.core.engine.layers import clean_layers
from uptick.core.errors import BadTexts, BadWording
from uptick.core.formats.po_plurals import (
    PluralForms,
    as_plural,
    forms_of,
    is_plain_plural,
    live_in,
    read_forms,
    same_forms,
    written_form,
)
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
        """The `msgctxt` of its entries: layer and moment."""
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
    forms = forms_of(language)
    file = polib.POFile(wrapwidth=0)
    file.metadata = {
        "Project-Id-Version": store_name,
        "POT-Creation-Date": f"{now:%Y-%m-%d %H:%M%z}",
        "Language": language.replace("-", "_"),
        "MIME-Version": "1.0",
        "Content-Type": "text/plain; charset=utf-8",
        "Content-Transfer-Encoding": "8bit",
        "Plural-Forms": f"nplurals={forms.count}; plural={forms.formula};",
    }
    layers = clean_layers(settings)
    for place, source in places_of(settings):
        comment = (
            f"{_title(settings, place.layer)}: {place.moment.replace('_', ' ')}. {notes.get(place.layer, '')}".strip()
        )
        live = sorted(live_names(parse_text(source)))
        if live:
            comment += f"\nLive values: {', '.join('{' + name + '}' for name in live)}. Plurals as in ICU messages."
        translated = at_path(layers[LayerRef(place.layer)], f"wording.{place.moment}.{language}") or ""
        file.append(_entry(place, source, translated, comment, forms))
    return str(file)


def _entry(place: Place, source: str, translated: str, comment: str, forms: PluralForms) -> polib.POEntry:
    """Return one text; a plain plural as gettext has them, everything else as an ICU message."""
    pattern, theirs = parse_text(source), parse_text(translated)
    if not is_plain_plural(pattern) or (translated and not is_plain_plural(theirs)):
        return polib.POEntry(msgctxt=place.context, msgid=source, msgstr=translated, comment=comment)
    texts = {
        n: written_form(theirs, categories[0] if categories else "other") if translated else ""
        for n, categories in enumerate(forms.categories)
    }
    one, other = (written_form(pattern, category) for category in ("one", "other"))
    return polib.POEntry(
        msgctxt=place.context, msgid=one, msgid_plural=other, msgstr_plural=texts, comment=comment
    )  # fmt: skip


def read_po(content: bytes, settings: Settings, language: str) -> TextsReading:
    """Return what a file of translations would change.

    Raises:
        BadTexts: It cannot be read at all, or is in another language.
    """
    text = text_of(content, MAX_BYTES, BadTexts)
    if "msgid" not in text:
        raise BadTexts("The file holds no msgid: it is not a PO file.")
    _require_whole(text)
    try:
        file = polib.pofile(text)
    except (OSError, ValueError) as error:
        raise BadTexts(f"The file is not PO: {error}.") from error
    file_language = file.metadata.get("Language", "").replace("_", "-")
    # Some write the script after an @, as gettext's own names of locales do.
    if file_language and re.split("[-@]", file_language)[0] != language.split("-")[0]:
        raise BadTexts(f"The file says that its language is {file_language}; texts for {language} are wanted.")
    return _compare(file, settings, language)


_LINE = re.compile(r'(?:(?:msgctxt|msgid|msgid_plural|msgstr(?:\[\d+\])?)\s*)?"(?:[^"\\]|\\.)*"\s*')


def _require_whole(text: str) -> None:
    """Refuse a file with a line that is no line of PO: the reader would go on as if it were not there.

    Raises:
        BadTexts: With the line.
    """
    for number, line in enumerate(text.splitlines(), 1):
        rest = line.strip().removeprefix("#~").strip() if line.lstrip().startswith("#~ ") else line.strip()
        if not rest or rest.startswith("#") or _LINE.fullmatch(rest):
            continue
        why = "a text that does not end" if rest.count('"') % 2 else "texts stand in double quotes, after a keyword"
        raise BadTexts(f"Line {number} of the file is no PO: {rest[:60]} ({why}).", line=number)


def _compare(file: polib.POFile, settings: Settings, language: str) -> TextsReading:
    sources = {place.context: (place, source) for place, source in places_of(settings)}
    forms = read_forms(file.metadata.get("Plural-Forms", ""), language)
    seen: dict[str, int] = {}
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
        first = seen.setdefault(place.context, entry.linenum)
        if first != entry.linenum:
            refused.append(TextRefusal(entry.linenum, f"its context stands in line {first} already"))
            continue
        texts = entry.msgstr_plural or {0: entry.msgstr}
        if entry.fuzzy or not any(text.strip() for text in texts.values()):
            untranslated += 1
            continue
        try:
            after = _text_of(entry, source, forms)
        except BadWording as error:
            refused.append(TextRefusal(entry.linenum, error.says))
            continue
        before = at_path(layers[LayerRef(place.layer)], f"wording.{place.moment}.{language}") or ""
        categories = [name for those in forms.categories for name in those]
        if before == after or (before and same_forms(before, after, categories)):
            unchanged += 1
        else:
            changes.append(TextChange(place.layer, place.moment, _title(settings, place.layer), before, after))
    return TextsReading(tuple(changes), unchanged, untranslated, tuple(refused))


def _text_of(entry: polib.POEntry, source: str, forms: PluralForms) -> str:
    """Return the text that an entry says.

    Raises:
        BadWording: It cannot be taken, with why.
    """
    pattern = parse_text(source)
    plain = is_plain_plural(pattern)
    texts = {int(n): text for n, text in entry.msgstr_plural.items()}
    if texts and not plain:
        raise BadWording("it has plural forms; its source has none that gettext can say: write it as an ICU message")
    ids = {entry.msgid, entry.msgid_plural} if texts else {entry.msgid}
    if ids != ({written_form(pattern, name) for name in ("one", "other")} if texts else {source}):
        raise BadWording(f"its source was {entry.msgid!r} and is {source!r} now: translate it again")
    if texts:
        there = [n for n in range(forms.count) if texts.get(n, "").strip()]
        if len(there) < forms.count or len(texts) != forms.count:
            raise BadWording(f"it has {len(there)} of the {forms.count} plural forms of the language")
    for n, form in (texts or {0: entry.msgstr}).items():
        if unfit := unfit_in(form):
            raise BadWording(f"{f'its form {n}' if texts else 'it'} holds {unfit}; such characters cannot be stored")
    after = as_plural([texts[n] for n in range(forms.count)], forms, pattern) if texts else entry.msgstr
    if len(after) > 200:
        raise BadWording(f"the text has {len(after)} characters; at most 200 are taken")
    wanted, live = live_names(pattern), live_names(parse_text(after))
    lost = wanted - (live_in(texts) if texts else live)
    if lost:
        raise BadWording(f"it lacks {', '.join('{' + name + '}' for name in sorted(lost))} of the source")
    if more := live - wanted:
        raise BadWording(f"it has {', '.join('{' + name + '}' for name in sorted(more))}, which its source has not")
    return after


def patches_of(changes: tuple[TextChange, ...], language: str) -> dict[str, Json]:
    """Return one patch for each layer that some changes touch."""
    patches: dict[str, Json] = {}
    for change in changes:
        wording = patches.setdefault(change.layer, {"wording": {}})["wording"]
        wording[change.moment] = {language: change.after}
    return patches
