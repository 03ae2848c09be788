"""The look of an existing button, read from its CSS where there is no browser to compute it.

It brings only what it is sure of: one selector's own rules. What other rules, conditions or a page would add is told.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field

import tinycss2
from tinycss2.ast import AtRule, Declaration, DimensionToken, Node, ParseError, QualifiedRule

from uptick.core.button.merge import Json
from uptick.core.errors import BadCss
from uptick.core.formats import css_values as values
from uptick.core.formats.css_computed import look_of
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_expand import INITIAL, as_computed, expanded
from uptick.core.formats.css_ignored import is_of_place, is_silent
from uptick.core.formats.css_reading import AtWidth, ComputedBox, ComputedButton, Styled

MOST_CHARACTERS = 2_000_000
# No hand writes brackets that deep; what reads them goes into each.
MOST_DEEP = 60
# A rule of many selectors is filed under each of them.
MOST_FILED = 200_000


@dataclass(frozen=True, slots=True)
class ReadLook:
    """What was read: a layer, the selector it was found under, others that could be meant, and what was left out."""

    layer: Json
    selector: str
    selectors: tuple[str, ...]
    left_out: tuple[str, ...]


_STATE_OF = {
    ":hover": "hover",
    ":active": "pressed",
    ":focus": "focus",
    ":focus-visible": "focus",
    ":disabled": "disabled",
    "[disabled]": "disabled",
    "[aria-disabled=true]": "disabled",
    '[aria-disabled="true"]': "disabled",
}
# At the end alone: within :not() or before a descendant it is another's state.
_STATE = re.compile("(" + "|".join(re.escape(name) for name in sorted(_STATE_OF, key=len, reverse=True)) + ")$")
_LIKELY = re.compile(r"btn|button|buy|cart|basket|checkout|purchase|submit|add", re.IGNORECASE)
_ROOT = (":root", "html", ":host")
_STATES = ("hover", "pressed", "focus", "disabled")


@dataclass
class _Found:
    """Declarations of one selector by state; "" is rest."""

    states: dict[str, list[Declaration]] = field(default_factory=dict)

    def count(self) -> int:
        return sum(len(those) for those in self.states.values())


@dataclass
class _Sheet:
    """A stylesheet as far as it can be read without a page."""

    found: dict[str, _Found] = field(default_factory=dict)
    properties: dict[str, list[list[Node]]] = field(default_factory=dict)
    left_out: list[str] = field(default_factory=list)
    # Selectors of elements and of everything: they may be about the button, too.
    wide: list[str] = field(default_factory=list)
    root_px: float = 16.0
    is_bare: bool = False


def read_css(text: str, selector: str = "") -> ReadLook:
    """Return the look that a piece of CSS gives a button: whole rules, or bare declarations.

    Where no selector is asked for, the one that most looks like a button's is taken.

    Raises:
        BadCss: There is no declaration in it, or not that selector.
    """
    if len(text) > MOST_CHARACTERS:
        raise BadCss(f"The CSS has {len(text):,} characters; {MOST_CHARACTERS:,} are the most.")
    sheet = _collect(text)
    classes = {name: entry for name, entry in sheet.found.items() if entry.count()}
    if not classes:
        raise BadCss("There is no rule with a declaration in it. Paste the button's rules, or the file's text.")
    ranked = sorted(classes, key=lambda name: (not _LIKELY.search(name), -classes[name].count()))
    if selector and selector not in classes:
        raise BadCss(f"There is no rule for {selector!r}. There are: {', '.join(ranked[:8])}.", selector=selector)
    chosen = selector or ranked[0]
    notes = list(sheet.left_out)
    layer = _look(classes[chosen], chosen, sheet, notes)
    wide = [name for name in dict.fromkeys(sheet.wide) if name != chosen]
    if wide:
        notes.append(f"rules for {', '.join(wide[:6])}: only a browser can tell whether they are about the button, too")
    return ReadLook(layer, chosen, tuple(ranked[:24]), tuple(dict.fromkeys(notes)))


def _collect(text: str) -> _Sheet:
    sheet = _Sheet()
    rules = _rules(text)
    if not any(isinstance(rule, QualifiedRule) for rule in rules):
        sheet.is_bare = True
        rules = _rules(f".button{{{text}}}")
    filed = 0
    for rule in rules:
        if not isinstance(rule, QualifiedRule):
            sheet.left_out.append(_of_rule(rule))
            continue
        declared = tinycss2.parse_blocks_contents(rule.content, skip_comments=True, skip_whitespace=True)
        whole = [declaration for declaration in declared if isinstance(declaration, Declaration)]
        sheet.left_out += [
            _of_rule(declaration) for declaration in declared if not isinstance(declaration, Declaration)
        ]
        names = [tinycss2.serialize(piece).strip() for piece in _parted(rule.prelude)]
        filed += len(names) * len(whole)
        if filed > MOST_FILED:
            says = f"The CSS sets more than {MOST_FILED:,} values, counted for each selector."
            raise BadCss(f"{says} Paste the button's own rules.")
        for name in names:
            _file(name, whole, sheet)
    return sheet


def _parted(tokens: Sequence[Node]) -> list[list[Node]]:
    pieces: list[list[Node]] = [[]]
    for token in tokens:
        if token.type == "literal" and token.value == ",":
            pieces.append([])
        else:
            pieces[-1].append(token)
    return pieces


def _rules(text: str) -> list[Node]:
    """Return the rules of a style sheet.

    Raises:
        BadCss: Its brackets are nested too deeply.
    """
    tokens = tinycss2.parse_component_value_list(text, skip_comments=True)
    deep = [(token, 1) for token in tokens]
    while deep:
        token, depth = deep.pop()
        if depth > MOST_DEEP:
            raise BadCss(f"Line {token.source_line}: brackets are nested more than {MOST_DEEP} deep.")
        inner = getattr(token, "content", None) or getattr(token, "arguments", None) or ()
        deep += [(block, depth + 1) for block in inner]
    return list(tinycss2.parse_stylesheet(tokens, skip_comments=True, skip_whitespace=True))


def _file(name: str, declared: Sequence[Declaration], sheet: _Sheet) -> None:
    for declaration in declared:
        if declaration.name.startswith("--") and declaration.name != "--centring":
            known = sheet.properties.setdefault(declaration.name, [])
            known.append(
                list(declaration.value) if name in _ROOT or sheet.is_bare else [*declaration.value, _OF_ELSEWHERE]
            )
        elif declaration.lower_name == "font-size" and name in _ROOT:
            sheet.root_px = _root_px(declaration.value, sheet)
    if name in _ROOT:
        return
    base, states = name, []
    while state := _STATE.search(base):
        states.append(_STATE_OF[state[1]])
        base = base[: state.start()]
    if ":" in base.replace(":link", "").replace(":any-link", "") or "&" in base:
        sheet.left_out.append(f"{name}: only a browser can tell what it is about")
        return
    if re.fullmatch(r"\*|[a-z]+\d?", base.rsplit(" ", 1)[-1], re.IGNORECASE):
        sheet.wide.append(base)
    plain = [
        declaration
        for declaration in declared
        if not declaration.name.startswith("--") or declaration.name == "--centring"
    ]
    kept = sheet.found.setdefault(base, _Found())
    if states:
        # Several at once are the innermost of them: who presses also points.
        states.sort(key=("hover", "focus", "pressed", "disabled").index)
    kept.states.setdefault(states[-1] if states else "", []).extend(plain)


# Stands at the end of a custom property's value that is not set for the whole page.
_OF_ELSEWHERE = tinycss2.parse_component_value_list("/**/")[0]


def _root_px(tokens: Sequence[Node], sheet: _Sheet) -> float:
    value = tinycss2.serialize(list(tokens)).strip()
    if match := re.fullmatch(r"([\d.]+)(px|%)", value):
        return float(match[1]) * (1 if match[2] == "px" else 0.16)
    sheet.left_out.append(f"the page's type size is {value}: rem is taken as 16 px")
    return 16.0


def _of_rule(rule: Node) -> str:
    if isinstance(rule, ParseError):
        return f"line {rule.source_line}: {rule.message}"
    selector = tinycss2.serialize([rule]).split("{")[0].strip()
    if isinstance(rule, AtRule):
        return f"{selector[:80]}: rules for some windows or settings only"
    return f"line {rule.source_line}: {selector[:80]}: a rule within a rule"


def _look(rules: _Found, name: str, sheet: _Sheet, notes: list[str]) -> Json:
    """Return the look of one selector's rules, as if a browser had computed them on a plain page."""
    rest = _cascaded(rules.states.get("", []), sheet, notes)
    computed, unsure = as_computed(rest, sheet.root_px)
    notes += unsure
    colour = computed.get("color", INITIAL["color"])
    at_rest = {**INITIAL, **{n: _of_words(n, v, colour) for n, v in computed.items()}}
    states, said_in = {}, {}
    for state in _STATES:
        own = _cascaded(rules.states.get(state, []), sheet, notes)
        if not own:
            continue
        differs, unsure = as_computed(
            {**({"font-size": rest["font-size"]} if "font-size" in rest else {}), **own}, sheet.root_px
        )
        notes += unsure
        shade = differs.get("color", colour)
        whole = {n: _of_words(n, v, shade) for n, v in {**computed, **differs}.items()}
        states[state] = {n: v for n, v in whole.items() if at_rest.get(n) != v}
        said_in[state] = tuple(own)
    box = ComputedBox(width=0, height=0, room=0, words_off_y=0, words_off_x=0, overflows=False)
    css_width = AtWidth(
        window_px=1280,
        rest=Styled(button=at_rest, words=at_rest),
        states={state: Styled(button=values_, words=values_) for state, values_ in states.items()},
        box=box,
    )
    reading = ComputedButton(
        selector=name[:400],
        tag="button",
        widths=(css_width,),
        said=tuple(computed),
        said_around=(),
        said_in=said_in,
        told=(),
    )
    read = look_of(reading)
    notes += read.left_out
    return read.layer


def _of_words(name: str, value: str, colour: str) -> str:
    """Put the words' colour where a value follows it, as a browser does when it computes."""
    return re.sub(r"(?i)\bcurrentcolor\b", lambda _: colour, value) if name != "color" else value


def _cascaded(declared: Sequence[Declaration], sheet: _Sheet, notes: list[str]) -> dict[str, str]:
    """Return the longhands that count: the last of each, important ones after all others."""
    longhands: dict[str, str] = {}
    properties = {name: those[-1] for name, those in sheet.properties.items() if _is_sure(those)}
    for declaration in sorted(declared, key=lambda declaration: declaration.important):
        value_text = tinycss2.serialize(declaration.value).strip()
        try:
            tokens = _in_px(values.filled(declaration.value, properties), sheet.root_px)
            longhands |= expanded(declaration.lower_name, tokens)
        except NotUnderstood as why:
            _tell(declaration.lower_name, value_text, str(why), sheet, notes)
    return longhands


def _is_sure(those: Sequence[Sequence[Node]]) -> bool:
    """Tell whether a custom property has one value, for the whole page; else only a browser knows which counts."""
    return len({tinycss2.serialize(list(value)) for value in those}) == 1 and _OF_ELSEWHERE not in those[0]


def _tell(name: str, value_text: str, why: str, sheet: _Sheet, notes: list[str]) -> None:
    if is_silent(name, value_text, "") or is_of_place(name):
        return
    unsure = [variable for variable in re.findall(r"var\(\s*(--[\w-]+)", value_text) if variable in sheet.properties]
    if unsure and "set nowhere" in why:
        why = f"{unsure[0]} is set for some of the page only, or more than once: a browser knows which counts"
    notes.append(f"{name}: {value_text[:80]}{f' ({why})' if why else ''}")


def _in_px(tokens: Sequence[Node], root_px: float) -> list[Node]:
    """Return tokens with rem of the page's own type size in pixels."""
    if root_px == 16:
        return list(tokens)
    nodes: list[Node] = []
    for token in tokens:
        if isinstance(token, DimensionToken) and token.lower_unit == "rem":
            nodes += tinycss2.parse_component_value_list(f"{token.value * root_px:.6g}px")
        else:
            if inner := getattr(token, "arguments", None):
                token.arguments = _in_px(inner, root_px)
            nodes.append(token)
    return nodes
