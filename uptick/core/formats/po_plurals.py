"""Plurals as gettext has them, by number of a form, and as our texts have them, by category of CLDR."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from gettext import c2py

from babel.messages.plurals import get_plural

from uptick.core.errors import BadTexts, BadWording
from uptick.core.words.wording import CATEGORIES, Live, Pattern, Plural, parse_text, plural_category

# Beyond two hundred CLDR's rules for whole numbers repeat (see `plural_table`); a million is where French differs.
_NUMBERS = (*range(200), 1_000_000)


@dataclass(frozen=True, slots=True)
class PluralForms:
    """The plural forms of one language in a file: how many, and which category each is of.

    `formula` is gettext's own, as it stands in the file's head.
    """

    language: str
    count: int
    formula: str
    categories: tuple[tuple[str, ...], ...]


@lru_cache(maxsize=64)
def forms_of(language: str) -> PluralForms:
    """Return the forms that gettext usually has for a language.

    Source:
        Babel's table of gettext plural formulas, from CLDR's and the gettext manual, "Plural forms".
    """
    plural = get_plural(language.replace("-", "_"))
    return _forms(plural.num_plurals, plural.plural_expr, language)


def read_forms(header: str, language: str) -> PluralForms:
    """Return the forms that a file says it has, `nplurals=2; plural=(n != 1);`.

    Raises:
        BadTexts: That is no formula.
    """
    if not header.strip():
        return forms_of(language)
    match = re.fullmatch(r"\s*nplurals\s*=\s*(\d+)\s*;\s*plural\s*=\s*([^;]+);?\s*", header)
    if match is None or not 1 <= int(match[1]) <= 6:
        raise BadTexts(f"The file's Plural-Forms are {header[:80]!r}; they are written nplurals=2; plural=(n != 1);")
    try:
        return _forms(int(match[1]), match[2].strip(), language)
    except (ValueError, RecursionError, ZeroDivisionError, OverflowError) as error:
        raise BadTexts(f"The file's Plural-Forms cannot be worked out: {match[2][:80]!r}.") from error


def _forms(count: int, formula: str, language: str) -> PluralForms:
    index = c2py(formula)
    meant: list[Counter[str]] = [Counter() for _ in range(count)]
    for number in _NUMBERS:
        form = int(index(number))
        if not 0 <= form < count:
            raise ValueError(formula)
        meant[form][plural_category(language, number)] += 1
    return PluralForms(
        language, count, formula, tuple(tuple(name for name, _ in counted.most_common()) for counted in meant)
    )


def is_plain_plural(pattern: Pattern) -> bool:
    """Tell whether a text has one plural, with no number that has a form of its own: what gettext can say."""
    plurals = [part for part in pattern if isinstance(part, Plural)]
    if len(plurals) != 1 or plurals[0].exact:
        return False
    return not any(isinstance(part, Plural) for _, inner in plurals[0].forms for part in inner)


def written_form(pattern: Pattern, category: str) -> str:
    """Return a plain plural's text in one category, with its live values in braces."""
    pieces = []
    for part in pattern:
        if isinstance(part, Plural):
            forms = dict(part.forms)
            pieces.append(written_form(forms.get(category, forms["other"]), category))
        else:
            pieces.append(part if isinstance(part, str) else f"{{{part.name}}}")
    return "".join(pieces)


def as_plural(texts: Sequence[str], forms: PluralForms, source: Pattern) -> str:
    """Return the text of ours that gettext's forms say.

    Args:
        texts: One for each form of the file, in its order.
        forms: What the file's forms are of.
        source: The text in the first language, which says what is counted.

    Raises:
        BadWording: A form has a live value that there is not, or a brace without its partner.
    """
    counted = next(part.name for part in source if isinstance(part, Plural))
    by_category: dict[str, str] = {}
    for text, categories in zip(texts, forms.categories, strict=True):
        parse_text(text)
        for category in categories:
            by_category.setdefault(category, text)
    by_category.setdefault("other", texts[-1])
    _require_same_choice(texts, forms, by_category)
    # A category whose text is that of the rest needs no words.
    kept = {name: text for name, text in by_category.items() if name == "other" or text != by_category["other"]}
    order = sorted(kept, key=CATEGORIES.index)
    return "{" + counted + ", plural, " + " ".join(f"{name} {{{kept[name]}}}" for name in order) + "}"


def _require_same_choice(texts: Sequence[str], forms: PluralForms, by_category: Mapping[str, str]) -> None:
    """Refuse forms that the file tells apart by other numbers than the language does, where that is seen.

    Raises:
        BadWording: With a number that would get another form.
    """
    index = c2py(forms.formula)
    for number in _NUMBERS:
        wanted = texts[int(index(number))]
        got = by_category.get(plural_category(forms.language, number), by_category["other"])
        if got != wanted:
            raise BadWording(
                f"for {number} the file's formula says “{wanted[:40]}”, the language's own rule “{got[:40]}”: "
                f"its Plural-Forms are not those of {forms.language}"
            )


def same_forms(one: str, other: str, categories: Sequence[str]) -> bool:
    """Tell whether two texts say the same in every category, however they are written."""
    patterns = [parse_text(text) for text in (one, other)]
    if not all(is_plain_plural(pattern) for pattern in patterns):
        return one == other
    first, second = patterns
    return all(written_form(first, name) == written_form(second, name) for name in (*categories, "other"))


def live_in(texts: Mapping[int, str]) -> frozenset[str]:
    """Return the live values that some form has."""
    names: set[str] = set()
    for text in texts.values():
        names |= {part.name for part in parse_text(text) if isinstance(part, Live)}
    return frozenset(names)
