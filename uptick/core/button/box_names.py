"""What screen readers call a quantity box and its keys."""

from uptick.core.button.document import BoxNames, QuantityBox

# The words of the trade in each language, from memory; a box can say its own.
_KNOWN = {
    "ar": ("الكمية", "أقل", "أكثر"),
    "cs": ("Množství", "Méně", "Více"),
    "da": ("Antal", "Færre", "Flere"),
    "de": ("Menge", "Weniger", "Mehr"),
    "el": ("Ποσότητα", "Λιγότερα", "Περισσότερα"),
    "en": ("Quantity", "Fewer", "More"),
    "es": ("Cantidad", "Menos", "Más"),
    "fi": ("Määrä", "Vähemmän", "Enemmän"),
    "fr": ("Quantité", "Moins", "Plus"),
    "he": ("כמות", "פחות", "יותר"),
    "hu": ("Mennyiség", "Kevesebb", "Több"),
    "it": ("Quantità", "Meno", "Più"),
    "ja": ("数量", "減らす", "増やす"),
    "nb": ("Antall", "Færre", "Flere"),
    "nl": ("Aantal", "Minder", "Meer"),
    "pl": ("Ilość", "Mniej", "Więcej"),
    "pt": ("Quantidade", "Menos", "Mais"),
    "ro": ("Cantitate", "Mai puțin", "Mai mult"),
    "sv": ("Antal", "Färre", "Fler"),
    "tr": ("Adet", "Azalt", "Artır"),
}


def known_names(language: str) -> BoxNames | None:
    """Return the usual names in a language, or None where it is not among those that ship."""
    known = _KNOWN.get(language.partition("-")[0])
    return BoxNames(quantity=known[0], fewer=known[1], more=known[2]) if known else None


def names_of(box: QuantityBox, language: str) -> BoxNames | None:
    """Return what a box is called in a language: its own names, or the usual ones."""
    return box.names.get(language) or known_names(language)


def as_wire(names: BoxNames) -> tuple[str, str, str]:
    """Return the names in the order in which the script has them."""
    return names.quantity, names.fewer, names.more
