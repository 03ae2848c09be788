"""A look written as CSS: the one place where drawn values become declarations."""

from collections.abc import Iterator

from uptick.core.button.document import NoIcon, OwnIcon, ShippedIcon
from uptick.core.button.fields import declared
from uptick.core.button.lengths import Ground, css_length, to_px
from uptick.core.button.look import (
    AnyBorder,
    Corners,
    FixedSize,
    FullSize,
    LineBorder,
    Look,
    Motion,
    NaturalSize,
    NoBorder,
    Padding,
    Shadow,
    Shadows,
    SideLine,
    SidesBorder,
    TextShadows,
    Type,
    border_widths,
    corners_of,
    lines_of,
)
from uptick.core.colour.dress import REST, Dress, dresses, ring_colour
from uptick.core.colour.fills import css_colour, css_fill
from uptick.core.drawing.kit import Glyph
from uptick.core.type.fontbook import FontBook

# What a state may change; each has its transition.
_MOVING = ("background", "color", "border-color", "box-shadow", "opacity")

Declarations = dict[str, str]


def px(value: float) -> str:
    """Return pixels as CSS, to four decimals."""
    return f"{round(value, 4):g}px" if value else "0"


class CssWriter:
    """Writes lengths: as they are for a shop's page, in pixels where a ground is given."""

    def __init__(self, fonts: FontBook, ground: Ground | None = None) -> None:
        self.fonts = fonts
        self._ground = ground

    def length(self, value: float | str, type_px: float) -> str:
        """Return a length as CSS, in pixels where a ground is given; `type_px` is what an em is."""
        return px(to_px(value, self._ground, type_px)) if self._ground else css_length(value)

    def padding(self, padding: Padding, type_px: float) -> Declarations:
        """Return the padding by the direction of reading."""
        top, right, bottom, left = (
            self.length(side, type_px) for side in (padding.top, padding.right, padding.bottom, padding.left)
        )
        # Left and right are those of the direction of reading: from right to left the drawing is mirrored.
        return {"padding-block": f"{top} {bottom}", "padding-inline": f"{left} {right}"}

    def size(self, look: Look, *, among_others: bool) -> Declarations:
        """Return what makes the button as wide and as high as it shall be; what is wide shares a row with others."""
        size, type_px = look.size, look.type.size_px
        if isinstance(size, FixedSize):
            return {"width": self.length(size.width, type_px), "height": px(size.height)}
        declarations: Declarations = {}
        if isinstance(size, FullSize):
            # Beside others, full width is what they leave.
            declarations = {"flex": "1 1 0", "min-width": "0"} if among_others else {"width": "100%"}
        if isinstance(size, NaturalSize) and size.least:
            declarations["min-width"] = self.length(size.least, type_px)
        if size.most is not None:
            declarations["max-width"] = self.length(size.most, type_px)
        if size.least_height_px:
            declarations["min-height"] = px(size.least_height_px)
        if isinstance(size, NaturalSize) and look.wrap != "none":
            declarations |= {"flex": "0 1 auto"}
            declarations.setdefault("min-width", "0")
            declarations.setdefault("max-width", "100%")
        return declarations

    def type(self, kind: Type) -> Declarations:
        """Return weight, size, line height and family as one `font`."""
        # The line height is said in pixels, since letters from another typeface would make a "normal" one higher.
        line = (
            kind.line * kind.size_px
            if kind.line
            else self.fonts.measure("", kind.family, kind.size_px, kind.weight).line_height_px
        )
        return {"font": f"{kind.weight} {px(kind.size_px)}/{px(line)} {font_stack(kind.family, self.fonts)}"}

    def corners(self, radius: Corners | float | str, type_px: float) -> Declarations:
        """Return the radii of the corners by the direction of reading, as one where all are alike."""
        corners = corners_of(radius)
        those = [
            css_length(corner) if isinstance(corner, str) and corner.endswith("%") else self.length(corner, type_px)
            for corner in (corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left)
        ]
        if len(set(those)) == 1:
            return {"border-radius": those[0]}
        names = ("start-start", "start-end", "end-end", "end-start")
        return {f"border-{name}-radius": value for name, value in zip(names, those, strict=True)}


def border(line: AnyBorder) -> Declarations:
    """Return a border by the direction of reading; nothing where there is none."""
    if isinstance(line, NoBorder):
        return {}
    if isinstance(line, LineBorder):
        return {"border": _side(line)}
    # Of the direction of reading, as padding is.
    names = ("border-top", "border-inline-end", "border-bottom", "border-inline-start")
    sides = zip(names, line.lines, strict=True)
    return {"border": "0", **{name: _side(side) for name, side in sides if side.width_px}}


def _side(line: LineBorder | SideLine) -> str:
    return f"{line.style} {px(line.width_px)} {line.colour}"


def _as_wide_as(state: AnyBorder, rest: AnyBorder) -> AnyBorder:
    """Return a state's border in the widths of rest, where both have one: one that grew would move the page."""
    if isinstance(state, NoBorder) or isinstance(rest, NoBorder):
        return state
    if isinstance(state, LineBorder) and isinstance(rest, LineBorder):
        return state.model_copy(update={"width_px": rest.width_px})
    return SidesBorder(**{
        name: SideLine(width_px=width, colour=line.colour, style=line.style)
        for name, line, width in zip(_SIDES, lines_of(state), border_widths(rest), strict=True)
    })  # fmt: skip


_SIDES = ("top", "right", "bottom", "left")


def shadows(cast: Shadows) -> str:
    """Return `box-shadow`; `none` where there are none."""
    return ",".join(_shadow(shadow) for shadow in cast.list) or "none"


def _shadow(shadow: Shadow) -> str:
    lengths = " ".join(px(value) for value in (shadow.x_px, shadow.y_px, shadow.blur_px, shadow.spread_px))
    return f"{'inset ' if shadow.inner else ''}{lengths} {css_colour(shadow.colour, shadow.opacity)}"


def transition(motion: Motion) -> str:
    """Return the `transition` of everything that a state may change, in milliseconds."""
    if not motion.duration_ms:
        return "none"
    late = f" {motion.delay_ms}ms" if motion.delay_ms else ""
    return ",".join(f"{name} {motion.duration_ms}ms {motion.curve}{late}" for name in _MOVING)


def text_shadows(cast: TextShadows) -> str:
    """Return `text-shadow`, the first one uppermost."""
    return ",".join(
        f"{px(shadow.x_px)} {px(shadow.y_px)} {px(shadow.blur_px)} {css_colour(shadow.colour, shadow.opacity)}"
        for shadow in cast.list
    )


def dress(worn: Dress) -> Declarations:
    """Return what a state can change."""
    return {**_painted(worn), **border(worn.border)}


def _painted(worn: Dress) -> Declarations:
    declarations = {"background": css_fill(worn.fill), "color": worn.text_colour}
    if worn.shadows.list:
        declarations["box-shadow"] = shadows(worn.shadows)
    if worn.opacity < 1:
        declarations["opacity"] = f"{worn.opacity:g}"
    return declarations


_UNSAID = {"box-shadow": "none", "opacity": "1"}


def difference(state: Dress, rest: Dress) -> Declarations:
    """Return what a state declares otherwise than rest, and how it comes."""
    mine, theirs = _painted(state), _painted(rest)
    differing = {name: value for name, value in mine.items() if theirs.get(name) != value}
    differing |= {name: _UNSAID[name] for name in theirs if name not in mine}
    line = border(_as_wide_as(state.border, rest.border))
    if line != border(rest.border):
        differing |= line or {"border": "0"}
    if state.motion != rest.motion:
        differing["transition"] = transition(state.motion)
    return differing


def states(look: Look) -> dict[str, Declarations]:
    """Return what each state declares otherwise than rest."""
    worn = dresses(look)
    declarations = {name: difference(worn_look, worn[REST]) for name, worn_look in worn.items() if name != REST}
    # Whoever presses also points at it: what only hovering changes is set back there.
    hovered = {name for name in declarations["hover"] if name not in declarations["pressed"] and name != "transition"}
    pressed = {"border": "0", **_UNSAID, **dress(worn["pressed"])}
    declarations["pressed"] |= {name: value for name, value in pressed.items() if name in hovered}
    ring = look.focus
    declarations["focus"] |= {
        "outline": f"{px(ring.ring_width_px)} solid {ring_colour(look)}",
        "outline-offset": px(ring.ring_offset_px),
    }
    return declarations


def icon_size(icon: ShippedIcon | OwnIcon, glyph: Glyph) -> Declarations:
    """Return width and height of an icon, and by how much it is moved to stand in the middle by its mass."""
    declarations = {"width": px(icon.size_px), "height": px(icon.size_px)}
    if icon.centring == "mass":
        x, y = -glyph.off_x * icon.size_px, -glyph.off_y * icon.size_px
        declarations |= {"position": "relative", "left": px(x), "top": px(y)}
    return declarations


def inside(look: Look, icon: NoIcon | ShippedIcon | OwnIcon) -> Declarations:
    """Return how icon and words stand to each other."""
    if isinstance(icon, NoIcon):
        return {"gap": "0"}
    declarations = {"gap": px(icon.gap_px)}
    if icon.side == "above":
        declarations["flex-direction"] = "column"
    return declarations


def words(look: Look, fonts: FontBook, *, hidden: bool, above: bool) -> Declarations:
    """Return how the words stand inside; hidden ones are still read out."""
    if hidden:
        return {
            "position": "absolute", "width": "1px", "height": "1px", "overflow": "hidden", "clip-path": "inset(50%)",
        }  # fmt: skip
    declarations: Declarations = declared(look, on_words=True)
    if look.wrap == "lines":
        declarations |= {"flex": "0 1 auto", "min-width": "0", "max-width": "100%", "white-space": "normal"}
    elif look.wrap == "ellipsis":
        declarations |= {"flex": "0 1 auto", "min-width": "0", "max-width": "100%", "overflow": "hidden"}
        declarations["text-overflow"] = "ellipsis"
    if above and "flex" in declarations:
        # In a column it is the height that would shrink.
        declarations["flex"] = "none"
    if look.centring == "caps":
        declarations |= {"position": "relative", "top": px(cap_shift(look.type, fonts))}
    return declarations


def cap_shift(kind: Type, fonts: FontBook) -> float:
    """Return how far words go down so that their capitals stand in the middle, in pixels."""
    from uptick.core.type.setting import set_words

    set_ = set_words("", kind, fonts)
    return set_.line_height_px / 2 - set_.ascent_px + set_.cap_height_px / 2


def font_family(family: str) -> str:
    """Return the name under which the script loads a shipped family, so that no theme's font is hit by chance."""
    return f"up-{family}"


def font_stack(family: str, fonts: FontBook) -> str:
    """Return a CSS list: the family, those that stand in for letters that it lacks, and what every browser has."""
    fallback = next(f.fallback for f in fonts.files if f.family == family)
    return ",".join((*(font_family(font) for font in (family, *fonts.stand_ins)), fallback))


def rule(selector: str, declared: Declarations) -> str:
    """Return one CSS rule, or nothing where nothing is declared."""
    if not declared:
        return ""
    return f"{selector}{{{';'.join(f'{name}:{value}' for name, value in declared.items())}}}"


def rules(selectors: dict[str, str], declared: dict[str, Declarations]) -> Iterator[str]:
    """Yield one CSS rule a selector, by the names under which things are declared."""
    for name, selector in selectors.items():
        yield rule(selector, declared.get(name, {}))
