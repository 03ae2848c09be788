"""Names in a page's code: which are written by people to say what a thing is, and which are not.

What tools of building pages write is common practice; `tests/core/pages` tries it on names that such tools have made.
"""

import re

# What tools put before what they make up, and how long that is.
_PREFIXED = re.compile(r"^(?:css|svelte|emotion|astro|jsx|go)-?[a-z0-9]{5,10}$|^(?:jss|jsx-)\d+$")
# A made-up part before or after the name that people gave: `Kd8fQ2_card`, `_card_x9J2b`, `Shop__card___x9J2b`.
_BESIDE = re.compile(r"^_?(?P<first>[A-Za-z0-9_-]{6})_[a-z]|_(?P<last>[A-Za-z0-9-]{5})$")
_WORDS = re.compile(r"[A-Z]+(?![a-z])|[A-Z]?[a-z]+|\d+")
_STATES = re.compile(
    r"^(?:(?:is|has|was|no|not)-.+|(?:js|no-js|active|inactive|open|opened|closed|selected|disabled|enabled|loading|"
    r"loaded|lazy.*|visible|invisible|hidden|show|shown|hide|in|out|in-view|first|last|odd|even|current|focus|focused|"
    r"hover|hovered|hydrated|animat.+|initiali[sz]ed|ready|expanded|collapsed|checked|sticky|stuck|aos-.+|slick-.+))$",
    re.IGNORECASE,
)
_LOOKS = re.compile(
    r"^(?:[mp][trblxyse]?|gap|space|w|h|size|min-[wh]|max-[wh]|text|bg|fs|fw|lh|border|rounded|shadow|flex|grid|col|"
    r"cols|row|rows|span|justify|items|content|self|order|z|top|left|right|bottom|inset|opacity|font|leading|tracking|"
    r"overflow|float|pull|push|d|u|g|gx|gy|offset|is-\d+|has-text|align|object|cursor|transition|duration|ease)"
    r"(?:-[a-z]{2})?-(?:\d+.*|auto|full|none|start|end|center|middle|left|right|top|bottom|between|around|xs|sm|md|lg|"
    r"xl|xxl|base|bold|normal|light|dark|white|black|wrap|nowrap|column|row|flex|block|inline|grid|cover|contain|hidden|"
    r"screen|fit|min|max|primary|secondary|muted)$"
    r"|^(?:flex|grid|block|inline|inline-block|inline-flex|relative|absolute|fixed|static|container|row|col|columns?|"
    r"wrapper|inner|outer|clearfix|cf|group|full|half|left|right|center|centered|bold|small|large|big|dark|light)$"
)


def is_generated(name: str) -> bool:
    """Tell whether a name was made by a program, so that it changes with the next build of the theme."""
    if _PREFIXED.match(name) or re.fullmatch(r"[_:].*[_:]", name):
        return True
    beside = _BESIDE.search(name)
    if beside and _is_scrambled(beside["first"] or beside["last"]):
        return True
    return any(_is_mixed(part) or _is_jumbled(part) or _is_unspeakable(part) for part in re.split(r"[-_]+", name))


def _is_scrambled(part: str) -> bool:
    """Tell whether capitals or digits stand within, where a word begins neither."""
    return bool(re.search(r"[a-z0-9-][A-Z]|[A-Z]{2}[a-z]|\d[A-Za-z]|[A-Za-z]\d[A-Za-z]", part)) or _is_mixed(part)


def _is_mixed(part: str) -> bool:
    """Tell whether digits stand between letters, as in `1x9k2f`; `col12` and `16by9` are words with a number."""
    if re.fullmatch(r"[0-9a-f]{8,}", part):
        return True
    if len(part) < 5 or not re.search(r"\d", part) or not re.search(r"[A-Za-z]", part):
        return False
    return not re.fullmatch(r"[A-Za-z]+\d{1,3}|\d{1,4}[A-Za-z]+|[A-Za-z]+\d{1,3}[A-Za-z]{3,}|\d+(?:x|by)\d+", part)


def _is_jumbled(part: str) -> bool:
    """Tell whether capitals stand where no word begins, as in `kQKzPD`."""
    if len(part) < 5 or part.islower() or part.isupper():
        return False
    words = _WORDS.findall(part)
    return len(words) >= 2 and len(part) / len(words) < (2.6 if len(words) > 2 else 3)


def _is_unspeakable(part: str) -> bool:
    return len(part) >= 5 and part.isalpha() and not re.search(r"[aeiouy]", part, re.IGNORECASE)


def is_state(name: str) -> bool:
    """Tell whether a name says in which state a thing is, so that it comes and goes."""
    return bool(_STATES.match(name))


def is_for_looks(name: str) -> bool:
    """Tell whether a name says how a thing looks, so that it goes when it looks otherwise."""
    return bool(re.search(r"[:\[\]/!@%.,()#]|^-", name)) or bool(_LOOKS.match(name))


def is_numbered(name: str) -> bool:
    """Tell whether a name holds a number that belongs to one thing of many, as `product-48213`."""
    return bool(re.search(r"\d{3,}", name)) or bool(re.search(r"[-_]\d+$", name))


_OF_TOOLS = re.compile(
    r"^data-(?:v-|react|svelte|astro|styled|radix|headlessui|emotion|hydrat|aos|state$|index$|loaded|src|bg|lazy|"
    r"sveltekit|n-head|ssr|server-rendered|up-)"
)


def is_of_tools(attribute: str) -> bool:
    """Tell whether an attribute was written by a tool, or by our own script."""
    return bool(_OF_TOOLS.match(attribute)) or is_generated(attribute.removeprefix("data-"))


def is_lasting(name: str) -> bool:
    """Tell whether a name of a class, an id or a value says what a thing is, and will stay."""
    return not (is_generated(name) or is_state(name) or is_for_looks(name) or is_numbered(name))
