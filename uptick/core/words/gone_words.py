"""What is said where a link leads to a product that is no longer there: the sentence, and the link to the shop."""

GONE_WORDS = {
    "ar": ("لم يعد هذا المنتج متوفرًا هنا.", "إلى المتجر"),
    "cs": ("Tento výrobek už zde není.", "Do obchodu"),
    "da": ("Denne vare findes ikke længere her.", "Til butikken"),
    "de": ("Dieses Produkt gibt es hier nicht mehr.", "Zum Shop"),
    "el": ("Αυτό το προϊόν δεν υπάρχει πια εδώ.", "Στο κατάστημα"),
    "en": ("This product is no longer here.", "To the shop"),
    "es": ("Este producto ya no está aquí.", "A la tienda"),
    "fi": ("Tätä tuotetta ei enää ole täällä.", "Kauppaan"),
    "fr": ("Ce produit n’est plus proposé ici.", "Vers la boutique"),
    "he": ("המוצר הזה כבר לא נמצא כאן.", "לחנות"),
    "hu": ("Ez a termék már nem érhető el itt.", "A boltba"),
    "it": ("Questo prodotto non è più qui.", "Al negozio"),
    "ja": ("この商品は現在取り扱っておりません。", "ショップへ"),
    "nb": ("Denne varen finnes ikke lenger her.", "Til butikken"),
    "nl": ("Dit product is hier niet meer te vinden.", "Naar de winkel"),
    "pl": ("Tego produktu już tu nie ma.", "Do sklepu"),
    "pt": ("Este produto já não está aqui.", "Para a loja"),
    "ro": ("Acest produs nu mai este aici.", "La magazin"),
    "sv": ("Den här varan finns inte längre här.", "Till butiken"),
    "tr": ("Bu ürün artık burada yok.", "Mağazaya"),
}
