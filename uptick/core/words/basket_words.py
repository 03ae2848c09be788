"""What a basket that is shown says, by language.

In this order: its heading, that it is empty, what takes a line out, that one was taken out ({name}), what puts it
back, the sum, the way to the basket, to the checkout, and back to the goods, that delivery is free, what is missing
until it is ({amount}), and that the shop did not take a change.
"""

# From memory, plain words of everyday shopping.
BASKET_WORDS = {
    "ar": (
        "سلتك", "سلتك فارغة.", "إزالة", "أُزيل {name}.", "تراجع", "المجموع", "إلى السلة", "إلى الدفع",
        "متابعة التسوق", "التوصيل مجاني.", "بقي {amount} لتوصيل مجاني.", "لم يقبل المتجر ذلك.",
    ),
    "cs": (
        "Váš košík", "Košík je prázdný.", "Odebrat", "Odebráno: {name}.", "Vrátit", "Celkem", "Do košíku",
        "K pokladně", "Pokračovat v nákupu", "Doprava je zdarma.", "Do dopravy zdarma zbývá {amount}.",
        "Obchod to nepřijal.",
    ),
    "da": (
        "Din kurv", "Kurven er tom.", "Fjern", "{name} er fjernet.", "Fortryd", "I alt", "Til kurven", "Til kassen",
        "Køb videre", "Leveringen er gratis.", "{amount} mere, så er leveringen gratis.", "Butikken tog ikke imod det.",
    ),
    "de": (
        "Ihr Warenkorb", "Der Warenkorb ist leer.", "Entfernen", "{name} ist entfernt.", "Rückgängig", "Summe",
        "Zum Warenkorb", "Zur Kasse", "Weiter einkaufen", "Der Versand ist frei.",
        "Noch {amount} bis zum freien Versand.", "Das hat der Laden nicht angenommen.",
    ),
    "el": (
        "Το καλάθι σας", "Το καλάθι είναι άδειο.", "Αφαίρεση", "Αφαιρέθηκε: {name}.", "Αναίρεση", "Σύνολο",
        "Στο καλάθι", "Στο ταμείο", "Συνέχεια αγορών", "Τα μεταφορικά είναι δωρεάν.",
        "Ακόμη {amount} για δωρεάν μεταφορικά.", "Το κατάστημα δεν το δέχτηκε.",
    ),
    "en": (
        "Your basket", "Your basket is empty.", "Remove", "{name} is taken out.", "Undo", "Sum", "To the basket",
        "To the checkout", "Go on shopping", "Delivery is free.", "{amount} more and delivery is free.",
        "The shop did not take that.",
    ),
    "es": (
        "Su cesta", "La cesta está vacía.", "Quitar", "Se quitó {name}.", "Deshacer", "Suma", "A la cesta", "A la caja",
        "Seguir comprando", "El envío es gratis.", "Faltan {amount} para el envío gratis.",
        "La tienda no lo ha aceptado.",
    ),
    "fi": (
        "Ostoskorisi", "Ostoskori on tyhjä.", "Poista", "{name} poistettiin.", "Kumoa", "Yhteensä", "Ostoskoriin",
        "Kassalle", "Jatka ostoksia", "Toimitus on ilmainen.", "Vielä {amount}, niin toimitus on ilmainen.",
        "Kauppa ei hyväksynyt sitä.",
    ),
    "fr": (
        "Votre panier", "Le panier est vide.", "Retirer", "{name} est retiré.", "Annuler", "Somme", "Vers le panier",
        "Vers la caisse", "Continuer les achats", "La livraison est gratuite.",
        "Encore {amount} et la livraison est gratuite.", "La boutique ne l’a pas accepté.",
    ),
    "he": (
        "הסל שלך", "הסל ריק.", "הסרה", "{name} הוסר.", "ביטול", "סכום", "לסל", "לקופה", "המשך בקניות", "המשלוח חינם.",
        "עוד {amount} והמשלוח חינם.", "החנות לא קיבלה זאת.",
    ),
    "hu": (
        "Az ön kosara", "A kosár üres.", "Eltávolítás", "Kivéve: {name}.", "Visszavonás", "Összesen", "A kosárhoz",
        "A pénztárhoz", "Vásárlás folytatása", "A szállítás ingyenes.", "Még {amount} az ingyenes szállításig.",
        "A bolt nem fogadta el.",
    ),
    "it": (
        "Il suo carrello", "Il carrello è vuoto.", "Togli", "{name} è stato tolto.", "Annulla", "Somma",
        "Al carrello", "Alla cassa", "Continua gli acquisti", "La consegna è gratuita.",
        "Ancora {amount} per la consegna gratuita.", "Il negozio non l’ha accettato.",
    ),
    "ja": (
        "お買い物カゴ", "カゴは空です。", "削除", "{name}を削除しました。", "元に戻す", "合計", "カゴへ", "お会計へ",
        "買い物を続ける", "送料は無料です。", "あと{amount}で送料無料です。", "お店で受け付けられませんでした。",
    ),
    "nb": (
        "Handlekurven din", "Handlekurven er tom.", "Fjern", "{name} er fjernet.", "Angre", "Sum", "Til handlekurven",
        "Til kassen", "Handle videre", "Leveringen er gratis.", "{amount} til, så er leveringen gratis.",
        "Butikken tok ikke imot det.",
    ),
    "nl": (
        "Uw winkelmand", "De winkelmand is leeg.", "Verwijderen", "{name} is verwijderd.", "Ongedaan maken", "Som",
        "Naar de winkelmand", "Naar de kassa", "Verder winkelen", "De bezorging is gratis.",
        "Nog {amount} en de bezorging is gratis.", "De winkel heeft dat niet aangenomen.",
    ),
    "pl": (
        "Twój koszyk", "Koszyk jest pusty.", "Usuń", "Usunięto: {name}.", "Cofnij", "Suma", "Do koszyka", "Do kasy",
        "Kupuj dalej", "Dostawa jest bezpłatna.", "Jeszcze {amount} do bezpłatnej dostawy.",
        "Sklep tego nie przyjął.",
    ),
    "pt": (
        "O seu cesto", "O cesto está vazio.", "Retirar", "{name} foi retirado.", "Desfazer", "Soma", "Para o cesto",
        "Para a caixa", "Continuar a comprar", "A entrega é gratuita.", "Faltam {amount} para a entrega gratuita.",
        "A loja não aceitou.",
    ),
    "ro": (
        "Coșul dvs.", "Coșul este gol.", "Scoateți", "Scos: {name}.", "Anulați", "Suma", "La coș", "La casă",
        "Continuați cumpărăturile", "Livrarea este gratuită.", "Încă {amount} până la livrarea gratuită.",
        "Magazinul nu a acceptat.",
    ),
    "sv": (
        "Din varukorg", "Varukorgen är tom.", "Ta bort", "{name} är borttagen.", "Ångra", "Summa", "Till varukorgen",
        "Till kassan", "Handla vidare", "Leveransen är fri.", "{amount} till, så är leveransen fri.",
        "Butiken tog inte emot det.",
    ),
    "tr": (
        "Sepetiniz", "Sepet boş.", "Çıkar", "{name} çıkarıldı.", "Geri al", "Toplam", "Sepete", "Ödemeye",
        "Alışverişe devam", "Teslimat ücretsiz.", "Ücretsiz teslimata {amount} kaldı.", "Mağaza bunu kabul etmedi.",
    ),
}  # fmt: skip
