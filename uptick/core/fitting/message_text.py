"""Where a press on a message button leads for one product, filled in as the script fills it."""

from collections.abc import Mapping
from urllib.parse import quote

from uptick.core.button.message import ToMessage, address_parts
from uptick.core.fitting.fill import live_values
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import HOLE, fill_text, parse_text, without_holes

_ISOLATES = dict.fromkeys(range(0x2066, 0x206A))


def message_address(
    message: ToMessage,
    product: Product,
    language: str,
    first: str,
    page: str,
    *,
    choice: str = "",
    closed: bool = False,
) -> str:
    """Return the whole address that a press opens.

    Args:
        first: The store's first language, which stands in where a text is not told in another.
        page: The whole address of the product's page.
        choice: What a shopper has chosen; empty where nothing is.
        closed: It is outside of the office hours.

    Source:
        RFC 3986, 2.3 (what is unreserved is not encoded), RFC 6068, 5 (line breaks).
    """
    values = {**live_values(product, language, 0), "page": page}

    def say(texts: Mapping[str, str]) -> str:
        text = texts.get(language) or texts.get(first) or ""
        # The choice is no live value of the product: it is put in before the rest is read.
        filled = fill_text(parse_text(text.replace("{choice}", "\ue000")), values, language)
        filled = filled.replace("\ue000", choice or HOLE)
        lines = "\r\n".join(without_holes(line) for line in filled.translate(_ISOLATES).split("\n"))
        return quote(lines, safe="-._~")

    parts = {"subject": message.subject, "text": message.closed if closed else message.text}
    return "".join(say(parts[part]) if n % 2 else part for n, part in enumerate(address_parts(message)))
