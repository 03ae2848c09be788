"""What a shopper is told when a press did not end in the basket, by language. English stands in for all others."""

# From memory, plain words of everyday shopping: the press was refused; nobody knows what came of it; the link to look.
OUTCOME_WORDS: dict[str, tuple[str, str, str]] = {
    "ar": ("لم تتم الإضافة. يمكنك استخدام زر المتجر.", "لا نعرف إن كانت الإضافة قد تمت.", "انظر في السلة"),
    "cs": ("Nebylo přidáno. Použijte prosím toto tlačítko.", "Nevíme, zda bylo přidáno.", "Podívejte se do košíku"),
    "da": ("Ikke tilføjet. Brug venligst denne knap.", "Vi ved ikke, om den blev tilføjet.", "Se i kurven"),
    "de": ("Nicht hinzugefügt. Bitte diesen Knopf nehmen.", "Ob es hinzugefügt wurde, ist unklar.", "Zum Warenkorb"),
    "el": ("Δεν προστέθηκε. Χρησιμοποιήστε αυτό το κουμπί.", "Δεν ξέρουμε αν προστέθηκε.", "Δείτε το καλάθι"),
    "en": ("It was not added. Please use this button.", "We cannot tell whether it was added.", "Look in your basket"),
    "es": ("No se ha añadido. Use este botón, por favor.", "No sabemos si se ha añadido.", "Mire en su cesta"),
    "fi": ("Ei lisätty. Käytä tätä painiketta.", "Emme tiedä, lisättiinkö se.", "Katso ostoskoria"),
    "fr": ("Non ajouté. Veuillez utiliser ce bouton.", "Nous ne savons pas s’il a été ajouté.", "Voir le panier"),
    "he": ("לא נוסף. נא להשתמש בכפתור הזה.", "לא ידוע אם נוסף.", "לצפייה בסל"),
    "hu": ("Nem került be. Kérjük, használja ezt a gombot.", "Nem tudjuk, bekerült-e.", "Nézze meg a kosarat"),
    "it": ("Non aggiunto. Usi questo pulsante.", "Non sappiamo se sia stato aggiunto.", "Guardi nel carrello"),
    "ja": ("追加されませんでした。このボタンをお使いください。", "追加されたかどうか確認できません。", "カゴを見る"),
    "nb": ("Ikke lagt til. Bruk denne knappen.", "Vi vet ikke om den ble lagt til.", "Se i handlekurven"),
    "nl": ("Niet toegevoegd. Gebruik deze knop.", "We weten niet of het is toegevoegd.", "Kijk in uw winkelmand"),
    "pl": ("Nie dodano. Proszę użyć tego przycisku.", "Nie wiadomo, czy dodano.", "Zajrzyj do koszyka"),
    "pt": ("Não foi adicionado. Use este botão.", "Não sabemos se foi adicionado.", "Ver o cesto"),
    "ro": ("Nu a fost adăugat. Folosiți acest buton.", "Nu știm dacă a fost adăugat.", "Vedeți coșul"),
    "sv": ("Inte tillagd. Använd den här knappen.", "Vi vet inte om den lades till.", "Se i varukorgen"),
    "tr": ("Eklenmedi. Lütfen bu düğmeyi kullanın.", "Eklenip eklenmediği bilinmiyor.", "Sepete bakın"),
}  # fmt: skip


def outcome_words(language: str) -> tuple[str, str, str]:
    """Return the three sentences in a language, given by its tag; English where they are not there in it."""
    return OUTCOME_WORDS.get(language.partition("-")[0], OUTCOME_WORDS["en"])
