"""The few words of the shop itself in the languages that it speaks; its goods keep their English names."""

LANGUAGES = {"en-GB": "English", "de-DE": "Deutsch", "fr-FR": "Français", "ar": "العربية"}

_WORDS = {
    "add": ("Add to basket", "In den Warenkorb", "Ajouter au panier", "أضف إلى السلة"),
    "choose": ("Choose", "Auswählen", "Choisir", "اختر"),
    "sold_out": ("Sold out", "Ausverkauft", "Épuisé", "نفد"),
    "pre_order": ("Pre-order", "Vorbestellen", "Précommander", "احجز مسبقا"),
    "ask": ("Ask us", "Fragen Sie uns", "Demandez-nous", "اسألنا"),
    "goes_with": ("Goes with it", "Passt dazu", "Va avec", "يناسبه"),
    "everything": ("Everything", "Alles", "Tout", "كل شيء"),
    "skep": ("Your skep", "Ihr Bienenkorb", "Votre ruche", "سلتك"),
}


def words(language: str) -> dict[str, str]:
    """Return the shop's own words; English where a language is not spoken."""
    column = list(LANGUAGES).index(language) if language in LANGUAGES else 0
    return {key: texts[column] for key, texts in _WORDS.items()}
