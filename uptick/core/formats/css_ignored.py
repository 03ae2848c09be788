"""Properties that are no part of a button's look, and those that only say again what others say."""

import re

# How a button behaves, and what a browser does with it: ours has its own.
_BEHAVIOUR = re.compile(
    r"^(cursor|pointer-events|(-webkit-|-moz-)?user-select|touch-action|(-webkit-)?appearance|will-change|"
    r"-webkit-tap-highlight-color|scroll-behavior|(-webkit-)?text-size-adjust|accent-color|color-scheme|app-region|"
    r"(-webkit-)?user-drag|transition-behavior|interactivity|user-modify|-webkit-user-modify|caret-animation|page|orphans|widows|"
    r"quotes|speak|contain|container-(name|type)|overflow-anchor|-webkit-locale|dynamic-range-limit)$"
)
# The same once more, by the direction of writing or from sizes.
_AGAIN = re.compile(
    r"^((min-|max-)?(block|inline)-size|padding-(block|inline)-.*|border-(block|inline)-.*|"
    r"border-(start|end)-(start|end)-radius|(perspective|transform)-origin|margin-(block|inline)-.*|inset-.*|"
    r"background-position-.|border-image-.*|overflow-(block|inline|y)|contain-intrinsic-.*|"
    r"-webkit-border-.*-spacing|text-decoration|-webkit-text-decorations-in-effect|background-repeat|font-synthesis-.*)$"
)
# Colours that follow the words' where nothing else is said.
_OF_WORDS = re.compile(
    r"^(caret-color|column-rule-color|row-rule-color|text-emphasis-color|-webkit-text-fill-color|"
    r"-webkit-text-stroke-color|outline-color|text-decoration-color|border-.*-color|stroke|fill|lighting-color|"
    r"-webkit-text-emphasis-color)$"
)
_PLACE = re.compile(
    r"^(margin-(top|right|bottom|left)|position|top|right|bottom|left|z-index|float|clear|vertical-align|"
    # As Firefox has the last one.
    r"alignment-baseline|baseline-shift|"
    r"(align|justify)-self|order|flex-(grow|shrink|basis)|grid-(row|column)-(start|end)|zoom)$"
)
# How its content is set within it: told by where the words then stand, not by these.
_INNER = re.compile(
    r"^(align-(items|content)|justify-(items|content)|flex-(direction|wrap|flow)|(row|column)-gap|text-align(-last)?|"
    r"overflow-x|overflow|grid-(template|auto)-.*|place-.*)$"
)


def is_silent(name: str, value: str, words_colour: str) -> bool:
    """Tell whether a property needs no word: no part of a look, said by another one, or following the words' colour."""
    if _BEHAVIOUR.match(name) or _AGAIN.match(name) or _INNER.match(name):
        return True
    return bool(_OF_WORDS.match(name)) and value == words_colour


_OLD = re.compile(r"^line \d+: -(?:moz|ms|o|khtml|webkit)-([\w-]+):")


def is_old_spelling(note: str) -> bool:
    """Tell whether a browser has only not taken another one's spelling of how a button behaves."""
    match = _OLD.match(note)
    return match is not None and (bool(_BEHAVIOUR.match(match[1])) or match[1] in ("touch-callout", "focus-inner"))


def is_of_place(name: str) -> bool:
    """Tell whether a property says where a button stands among others."""
    return bool(_PLACE.match(name))
