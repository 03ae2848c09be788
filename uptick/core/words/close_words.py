"""What the key that closes something of ours is called, by language. English stands in for all others."""

# From memory, the everyday word on such a key.
CLOSE_WORDS = {
    "ar": "إغلاق", "cs": "Zavřít", "da": "Luk", "de": "Schließen", "el": "Κλείσιμο", "en": "Close", "es": "Cerrar",
    "fi": "Sulje", "fr": "Fermer", "he": "סגירה", "hu": "Bezárás", "it": "Chiudi", "ja": "閉じる", "nb": "Lukk",
    "nl": "Sluiten", "pl": "Zamknij", "pt": "Fechar", "ro": "Închide", "sv": "Stäng", "tr": "Kapat",
}  # fmt: skip
