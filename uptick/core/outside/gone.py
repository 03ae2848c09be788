"""The page that says kindly that a product is gone."""

from html import escape

from uptick.core.shop.store import Store
from uptick.core.words.gone_words import GONE_WORDS
from uptick.core.words.wording import is_rtl

# It loads nothing from anywhere.
GONE_POLICY = "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'"
_STYLE = (
    "body{font:18px/1.5 system-ui,sans-serif;max-width:34em;margin:18vh auto;padding:0 20px;color:#1b1b1b;"
    "background:#fff}a{color:inherit}@media(prefers-color-scheme:dark){body{color:#eee;background:#161616}}"
)


def gone_page(store: Store, language: str) -> str:
    """Return a page that says that a product is no longer there, with the way to the shop."""
    known_language = language if language.split("-")[0] in GONE_WORDS else store.language
    says, way = GONE_WORDS.get(known_language.split("-")[0], GONE_WORDS["en"])
    tongue = known_language if known_language.split("-")[0] in GONE_WORDS else "en"
    way_of_reading = ' dir="rtl"' if is_rtl(tongue) else ""
    name = escape(store.name)
    return (
        f'<!doctype html><html lang="{tongue}"{way_of_reading}><meta charset="utf-8">'
        '<meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex">'
        f"<title>{name}</title><style>{_STYLE}</style>"
        f'<h1 style="font-size:1em">{name}</h1><p>{escape(says)}</p>'
        f'<p><a href="{escape(store.origin)}/">{escape(way)}</a></p></html>'
    )
