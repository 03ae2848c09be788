"""What stands on the sheets on which a product is chosen and looked at more closely, by language.

In this order: that something is sold out, the way to the product's own page, to the one before and to the next.
"""

# From memory, plain words of everyday shopping.
CLOSER_WORDS = {
    "ar": ("نفد", "إلى صفحة المنتج", "السابق", "التالي"),
    "cs": ("vyprodáno", "Na stránku zboží", "Předchozí", "Další"),
    "da": ("udsolgt", "Til varens side", "Forrige", "Næste"),
    "de": ("ausverkauft", "Zur Seite des Artikels", "Voriges", "Nächstes"),
    "el": ("εξαντλήθηκε", "Στη σελίδα του προϊόντος", "Προηγούμενο", "Επόμενο"),
    "en": ("sold out", "To its own page", "The one before", "The next one"),
    "es": ("agotado", "A la página del producto", "Anterior", "Siguiente"),
    "fi": ("loppu", "Tuotteen sivulle", "Edellinen", "Seuraava"),
    "fr": ("épuisé", "Vers la page de l’article", "Précédent", "Suivant"),
    "he": ("אזל", "לעמוד המוצר", "הקודם", "הבא"),
    "hu": ("elfogyott", "A termék oldalára", "Előző", "Következő"),
    "it": ("esaurito", "Alla pagina dell’articolo", "Precedente", "Successivo"),
    "ja": ("売り切れ", "商品のページへ", "前へ", "次へ"),
    "nb": ("utsolgt", "Til varens side", "Forrige", "Neste"),
    "nl": ("uitverkocht", "Naar de pagina van het artikel", "Vorige", "Volgende"),
    "pl": ("wyprzedane", "Do strony towaru", "Poprzedni", "Następny"),
    "pt": ("esgotado", "Para a página do artigo", "Anterior", "Seguinte"),
    "ro": ("epuizat", "La pagina articolului", "Precedentul", "Următorul"),
    "sv": ("slutsåld", "Till varans sida", "Föregående", "Nästa"),
    "tr": ("tükendi", "Ürünün sayfasına", "Önceki", "Sonraki"),
}
