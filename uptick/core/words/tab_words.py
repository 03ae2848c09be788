"""What screen readers add to a button that opens a new tab, by language."""

# From memory, plain words of everyday use.
TAB_WORDS = {
    "ar": "يفتح في علامة تبويب جديدة",
    "cs": "otevře se v nové kartě",
    "da": "åbner i en ny fane",
    "de": "öffnet einen neuen Tab",
    "el": "ανοίγει σε νέα καρτέλα",
    "en": "opens in a new tab",
    "es": "se abre en una pestaña nueva",
    "fi": "avautuu uuteen välilehteen",
    "fr": "s’ouvre dans un nouvel onglet",
    "he": "נפתח בכרטיסייה חדשה",
    "hu": "új lapon nyílik meg",
    "it": "si apre in una nuova scheda",
    "ja": "新しいタブで開きます",
    "nb": "åpnes i en ny fane",
    "nl": "opent in een nieuw tabblad",
    "pl": "otwiera się w nowej karcie",
    "pt": "abre num novo separador",
    "ro": "se deschide într-o filă nouă",
    "sv": "öppnas i en ny flik",
    "tr": "yeni sekmede açılır",
}
