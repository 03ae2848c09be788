"""Files of texts that we did not write, and plurals as other programs understand them."""

import gettext
import subprocess
from io import BytesIO
from pathlib import Path
from typing import Any

import django
import polib
import pytest

from tests.core.formats.test_formats import NOW
from tests.samples import exception, settings
from uptick.core.errors import BadTexts, BadWording, OutOfRange
from uptick.core.formats.po import patches_of, read_po, write_po
from uptick.core.formats.po_plurals import as_plural, read_forms
from uptick.core.words.wording import fill_text, parse_text

# Django 5's own translations, 100 languages; its wheel carries them.
LOCALES = Path(django.__file__).parent / "conf/locale"
ALL = sorted(LOCALES.glob("*/LC_MESSAGES/django.po"))
# CLDR does not know Udmurt's plurals: no store can speak it, and a test says what then happens.
FILES = [file for file in ALL if file.parts[-3] != "udm"]
SOURCE = parse_text("{count, plural, one {# month} other {# months}}")


def language_of(file: Path) -> str:
    kind, _, where = file.parts[-3].partition("_")
    # What Django names by script is of the language all the same.
    return f"{kind}-{where}" if len(where) == 2 else kind


def msgfmt(content: bytes) -> bool:
    """Tell whether GNU gettext takes a file."""
    done = subprocess.run(["msgfmt", "-o", "/dev/null", "-"], input=content, capture_output=True, check=False)
    return done.returncode == 0


@pytest.mark.parametrize("file", FILES, ids=lambda file: str(file.parts[-3]))
def test_a_file_of_another_program_is_read_whole_and_none_of_it_is_taken_for_ours(file: Path) -> None:
    """Reference: GNU gettext's msgfmt, which takes every one of these files."""
    content = file.read_bytes()
    language = language_of(file)
    assert msgfmt(content)
    found = read_po(content, settings(more=()), language)
    assert found.changes == ()
    assert len(found.refused) == len([entry for entry in polib.pofile(content.decode()) if not entry.obsolete])


def test_a_language_that_cldr_does_not_know_is_refused_by_name() -> None:
    (file,) = set(ALL) - set(FILES)
    with pytest.raises(OutOfRange, match="language must be a language of CLDR such as en-GB; it is udm"):
        read_po(file.read_bytes(), settings(more=()), language_of(file))


@pytest.mark.parametrize("file", FILES[::2], ids=lambda file: str(file.parts[-3]))
def test_a_file_that_gettext_refuses_is_refused_with_its_line(file: Path) -> None:
    """Reference: GNU gettext's msgfmt, on files that were cut off, or had a quote taken out."""
    lines = file.read_text().splitlines()
    language = language_of(file)
    said = [n for n, line in enumerate(lines) if n > 25 and line.startswith("msgstr ") and len(line) > 14]
    spoiled = []
    for n in said[:: max(1, len(said) // 3)]:
        without_quote = [*lines[:n], lines[n].replace('"', "", 1), *lines[n + 1 :]]
        cut = [*lines[:n], lines[n][:-3]]
        bare = [*lines[:n], lines[n].replace('"', ""), *lines[n + 1 :]]
        spoiled += ["\n".join(broken).encode() for broken in (without_quote, cut, bare)]
    assert spoiled or language == "en"
    for content in spoiled:
        assert not msgfmt(content)
        with pytest.raises(BadTexts, match=r"Line \d+"):
            read_po(content, settings(more=()), language)


def test_plurals_choose_the_form_that_gettext_would_choose_for_every_number() -> None:
    """Reference: Python's gettext on the compiled files; where the two would differ, the text is refused by name."""
    compared = 0
    refused: list[str] = []
    for file in FILES:
        entry = next(
            (entry for entry in polib.pofile(str(file)) if entry.msgid.endswith("month") and entry.msgid_plural), None
        )
        if entry is None or not all(entry.msgstr_plural.values()):
            continue
        po = polib.pofile(str(file))
        compiled = gettext.GNUTranslations(BytesIO(po.to_binary()))
        language = language_of(file)
        forms = read_forms(po.metadata["Plural-Forms"], language)
        texts = [text.replace("%(num)d", "{count}") for text in entry.msgstr_plural.values()]
        if len(texts) != forms.count:
            continue
        try:
            pattern = parse_text(as_plural(texts, forms, SOURCE))
        except BadWording:
            refused.append(language)
            continue
        for number in range(200):
            theirs = compiled.ngettext(entry.msgid, entry.msgid_plural, number).replace("%(num)d", str(number))
            assert (
                fill_text(pattern, {"count": str(number)}, language).replace("\u2068", "").replace("\u2069", "")
                == theirs
            )
            compared += 1
    assert compared > 8_000
    # There the file's formula and CLDR's rule differ at nought.
    assert refused == ["lv", "pa"]


MANY = {"wording": {"in_basket": {"en-GB": "{count, plural, one {# jar in basket} other {# jars in basket}}"}}}


def in_polish(*forms: str, head: str = "") -> tuple[Any, bytes]:
    of = settings(exception(1, MANY, products=("B1",)), more=("pl-PL",))
    file = polib.pofile(write_po(of, "pl-PL", {}, "Sample", NOW))
    if head:
        file.metadata["Plural-Forms"] = head
    entry = next(entry for entry in file if entry.msgid_plural)
    entry.msgstr_plural = dict(enumerate(forms))
    return of, str(file).encode()


def test_a_plural_goes_out_and_comes_back_as_gettexts_own() -> None:
    of, content = in_polish("{count} słoik", "{count} słoiki", "{count} słoików")
    assert msgfmt(content)
    (entry,) = [entry for entry in polib.pofile(content.decode()) if entry.msgid_plural]
    assert (entry.msgid, entry.msgid_plural) == ("{count} jar in basket", "{count} jars in basket")
    (change,) = read_po(content, of, "pl-PL").changes
    shown = [fill_text(parse_text(change.after), {"count": str(n)}, "pl-PL") for n in (1, 3, 5, 22, 112)]
    assert [line.split()[-1] for line in shown] == ["słoik", "słoiki", "słoików", "słoiki", "słoików"]
    # What was taken is written as it came, and changes nothing when it is read again.
    taken = of.with_layer(
        "exception:e1", {"wording": {"in_basket": {**MANY["wording"]["in_basket"], "pl-PL": change.after}}}
    )
    again = write_po(taken, "pl-PL", {}, "Sample", NOW)
    assert [entry.msgstr_plural for entry in polib.pofile(again) if entry.msgid_plural] == [
        {0: "{count} słoik", 1: "{count} słoiki", 2: "{count} słoików"}
    ]
    assert read_po(again.encode(), taken, "pl-PL").changes == ()
    assert patches_of((change,), "pl-PL")["exception:e1"]["wording"]["in_basket"] == {"pl-PL": change.after}


@pytest.mark.parametrize(
    ("forms", "head", "says"),
    [
        (("{count} słoik", "{count} słoiki"), "", "2 of the 3 plural forms"),
        (("{count} słoik", "", "{count} słoików"), "", "2 of the 3 plural forms"),
        (("{count} słoik", "{cost} słoiki", "{count} słoików"), "", "no live value {cost}"),
        (("jeden", "kilka", "dużo"), "", "it lacks {count}"),
        (("{count} {price}", "{count} słoiki", "{count} słoików"), "", "{price}, which its source has not"),
        (
            ("{count} słoik", "{count} słoiki"),
            "nplurals=2; plural=(n > 1);",
            "its Plural-Forms are not those of pl-PL",
        ),
        (("{count} s{", "{count} słoiki", "{count} słoików"), "", "has no partner"),
    ],
)
def test_plural_forms_that_cannot_be_taken_are_told_by_line(forms: tuple[str, ...], head: str, says: str) -> None:
    of, content = in_polish(*forms, head=head)
    found = read_po(content, of, "pl-PL")
    assert found.changes == ()
    (only_refusal,) = [refusal for refusal in found.refused if refusal.line]
    assert says in only_refusal.reason
    assert b"jar in basket" in b"".join(content.splitlines()[only_refusal.line - 1 : only_refusal.line + 5])


def test_a_context_that_stands_twice_is_told_where_it_stood_first() -> None:
    of = settings(more=("de-DE",))
    text = write_po(of, "de-DE", {}, "Sample", NOW)
    text += '\nmsgctxt "baseline/ready"\nmsgid "Buy"\nmsgstr "Kaufen"\n'
    assert not msgfmt(text.encode())
    (refusal,) = read_po(text.encode(), of, "de-DE").refused
    assert "stands in line" in refusal.reason
