"""A look as a piece of CSS that anybody can use: readable, with the names that `read_css` reads again."""

from uptick.core.button.fields import declared_all
from uptick.core.button.look import FixedSize, FullSize, Look
from uptick.core.colour.dress import REST, dress_in
from uptick.core.drawing import css
from uptick.core.drawing.kit import Kit

_STATES = {
    "hover": ":hover",
    "focus": ":focus-visible",
    "pressed": ":active",
    "disabled": ":disabled",
}


def write_css(look: Look, kit: Kit, selector: str = ".button") -> str:
    """Return a look as rules for a selector; what is derived by rule is written out."""
    writer = css.CssWriter(kit.fonts)
    kind = look.type
    declared = {
        **_size(look, writer),
        **writer.padding(look.padding, kind.size_px),
        **writer.corners(look.radius, kind.size_px),
        "border": "none",
        **css.dress(dress_in(look, REST)),
        "font-family": css.font_stack(kind.family, kit.fonts).replace("up-", ""),
        "font-size": css.px(kind.size_px),
        "font-weight": str(kind.weight),
        "line-height": f"{kind.line:g}" if kind.line else "normal",
        **declared_all(look),
        "text-shadow": css.text_shadows(look.text_shadows) or "none",
        "white-space": "normal" if look.wrap == "lines" else "nowrap",
        "transition": css.transition(look.motion),
        "--centring": look.centring,
    }
    if look.wrap == "ellipsis":
        declared |= {"text-overflow": "ellipsis", "overflow": "hidden"}
    rules = [_rule(selector, declared)]
    for state, own in css.states(look).items():
        if state in _STATES:
            # Fill and words are always said: what a state leaves out here would be derived where it is read.
            worn = css.dress(dress_in(look, state))
            whole = {"background": worn["background"], "color": worn["color"], **own}
            rules.append(_rule(f"{selector}{_STATES[state]}", whole))
    return "\n".join(rules)


def _size(look: Look, writer: css.CssWriter) -> css.Declarations:
    size, type_px = look.size, look.type.size_px
    declarations: css.Declarations = {"box-sizing": "border-box"}
    if isinstance(size, FixedSize):
        return {**declarations, "width": writer.length(size.width, type_px), "height": css.px(size.height)}
    if isinstance(size, FullSize):
        declarations["width"] = "100%"
    elif size.least:
        declarations["min-width"] = writer.length(size.least, type_px)
    if size.most is not None:
        declarations["max-width"] = writer.length(size.most, type_px)
    if size.least_height_px:
        declarations["min-height"] = css.px(size.least_height_px)
    return declarations


def _rule(selector: str, declared: css.Declarations) -> str:
    lines = "".join(f"  {name}: {value};\n" for name, value in declared.items())
    return f"{selector} {{\n{lines}}}\n"
