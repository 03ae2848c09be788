"""Buttons as HTML without a script: for pages, for mails, as pictures and as forms."""

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

from uptick.core.button.document import ButtonDocument, QuantityBox, Shape
from uptick.core.button.fields import declared
from uptick.core.button.lengths import Ground
from uptick.core.button.look import (
    AnyBorder,
    FixedSize,
    FullSize,
    Look,
    NoBorder,
    NoFill,
    SidesBorder,
    SolidFill,
    corners_of,
)
from uptick.core.colour.colour import opaque
from uptick.core.colour.dress import REST, base_colour, dress_in
from uptick.core.colour.fills import PICTURES, AnyFill, css_fill
from uptick.core.drawing import css
from uptick.core.drawing.drawing import edges_of
from uptick.core.drawing.kit import Kit, icon_of
from uptick.core.outside.picture import ButtonPicture, alone
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketConnection, BasketLink

# The room of a mail's text (common practice), and what stands between two columns of a sheet.
MAIL_PX, GAP_PX = 560, 16


@dataclass(frozen=True, slots=True)
class Piece:
    """One product's button as it is put into code. `picture_at` are its addresses by scale, where it has any."""

    product: Product
    document: ButtonDocument
    text: str
    spoken: str
    link: str
    price: str
    product_picture: str
    ground: Ground
    drawing: ButtonPicture | None = None
    picture_at: tuple[tuple[int, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Page:
    """What all buttons of one code share."""

    kit: Kit
    edge: str
    language: str
    rtl: bool

    @property
    def about(self) -> str:
        """Language and direction, as attributes of HTML."""
        return f'lang="{self.language}"' + (' dir="rtl"' if self.rtl else "")


def _style(declarations: css.Declarations) -> str:
    return escape(";".join(f"{name}:{value}" for name, value in declarations.items()))


def _stack(look: Look, kit: Kit) -> str:
    """Return typefaces as a page that is not the shop's may have them; a name with a space is quoted."""
    names = css.font_stack(look.type.family, kit.fonts).replace("up-", "").split(",")
    shown = {file.family: file.name for file in kit.fonts.files}
    return ",".join(f"'{shown[name]}'" if " " in shown.get(name, "") else shown.get(name, name) for name in names)


def _type(look: Look, kit: Kit) -> css.Declarations:
    kind = look.type
    measured = kit.fonts.measure("", kind.family, kind.size_px, kind.weight).line_height_px
    return {
        "font-family": _stack(look, kit),
        "font-size": css.px(kind.size_px),
        "font-weight": str(kind.weight),
        "line-height": css.px(kind.line * kind.size_px if kind.line else measured),
        **declared(look, on_words=False),
    }


def _physical(look: Look, ground: Ground, page: Page) -> css.Declarations:
    """Return padding and corners by the sides of the screen: mail programs know no direction of reading."""
    pad = edges_of(look.padding, ground, look.type.size_px)
    left, right = (pad.right, pad.left) if page.rtl else (pad.left, pad.right)
    corners = corners_of(look.radius)
    four = [corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left]
    if page.rtl:
        four = [four[1], four[0], four[3], four[2]]
    writer = css.CssWriter(None, ground)  # type: ignore[arg-type]
    radii = [
        length if isinstance(length, str) and length.endswith("%") else writer.length(length, look.type.size_px)
        for length in four
    ]
    return {
        "padding": " ".join(css.px(side) for side in (pad.top, right, pad.bottom, left)),
        "border-radius": radii[0] if len(set(radii)) == 1 else " ".join(radii),
    }


def body_style(piece: Piece, page: Page) -> css.Declarations:
    """Return all of a button's body as declarations for one element, in any page."""
    look = piece.document.look
    worn = dress_in(look, REST)
    base = base_colour(worn.fill)
    declarations: css.Declarations = {
        "display": "inline-flex",
        "box-sizing": "border-box",
        "align-items": "center",
        "justify-content": "center",
        "text-align": "center",
        "text-decoration": "none",
        "cursor": "pointer",
        **_size(look, piece.ground, page),
        **_physical(look, piece.ground, page),
        **css.inside(look, piece.document.icon),
        "border": "0",
        **_border(worn.border, page),
    }
    if base and not isinstance(worn.fill, SolidFill):
        # Where a gradient is not known, its colour stands in.
        declarations["background-color"] = base
    declarations |= {
        "background-image" if base and not isinstance(worn.fill, SolidFill) else "background": _fill(worn.fill, page),
        "color": worn.text_colour,
        **_type(look, page.kit),
    }
    if worn.shadows.list:
        declarations["box-shadow"] = css.shadows(worn.shadows)
    if worn.opacity < 1:
        declarations["opacity"] = f"{worn.opacity:g}"
    if look.text_shadows.list:
        declarations["text-shadow"] = css.text_shadows(look.text_shadows)
    declarations["white-space"] = "normal" if look.wrap == "lines" else "nowrap"
    return declarations


def _fill(fill: AnyFill, page: Page) -> str:
    css_text = css_fill(fill).replace(PICTURES, f"{page.edge}/pictures/")
    return "none" if isinstance(fill, NoFill) else css_text


def _border(border: AnyBorder, page: Page) -> css.Declarations:
    names = {"border-inline-end": "right", "border-inline-start": "left"}
    if page.rtl:
        names = {"border-inline-end": "left", "border-inline-start": "right"}
    return {f"border-{names[name]}" if name in names else name: value for name, value in css.border(border).items()}


def _size(look: Look, ground: Ground, page: Page) -> css.Declarations:
    size, type_px, writer = look.size, look.type.size_px, css.CssWriter(page.kit.fonts, ground)
    if isinstance(size, FixedSize):
        return {"width": writer.length(size.width, type_px), "height": css.px(size.height), "max-width": "100%"}
    declarations: css.Declarations = {"width": "100%"} if isinstance(size, FullSize) else {}
    if least := getattr(size, "least", 0):
        declarations["min-width"] = writer.length(least, type_px)
    declarations["max-width"] = writer.length(size.most, type_px) if size.most is not None else "100%"
    if size.least_height_px:
        declarations["min-height"] = css.px(size.least_height_px)
    return declarations


def _icon(document: ButtonDocument, kit: Kit) -> str:
    icon = icon_of(document.icon)
    if icon is None:
        return ""
    glyph = kit.glyph(icon)
    style = _style({"flex": "none", "display": "block", **css.icon_size(icon, glyph)})
    paths = "".join(_path(shape) for shape in glyph.shapes)
    return (
        f'<svg aria-hidden="true" focusable="false" viewBox="0 0 {glyph.width:g} {glyph.height:g}" '
        f'fill="currentColor" style="{style}">{paths}</svg>'
    )


def _path(shape: Shape) -> str:
    rule = ' fill-rule="evenodd"' if shape.rule == "evenodd" else ""
    if not shape.stroke:
        return f'<path d="{shape.d}"{rule}/>'
    return (
        f'<path d="{shape.d}" fill="none" stroke="currentColor" stroke-width="{shape.stroke:g}" '
        f'stroke-linecap="{shape.cap}" stroke-linejoin="{shape.join}"/>'
    )


def _inside(piece: Piece, page: Page) -> str:
    """Return icon and words of a button as they stand in its body."""
    document = piece.document
    icon = _icon(document, page.kit)
    if document.is_wordless:
        return icon
    words = {**declared(document.look, on_words=True)}
    escaped = escape(piece.text)
    text = f'<span style="{_style(words)}">{escaped}</span>' if words else f"<span>{escaped}</span>"
    after = getattr(document.icon, "side", "") == "after"
    return text + icon if after else icon + text


def _named(piece: Piece) -> str:
    """Return the name that screen readers say: the words that are seen, and which product."""
    seen = piece.spoken if piece.document.is_wordless else piece.text
    whole = seen if piece.product.name in seen else f"{seen} – {piece.product.name}"
    return f' aria-label="{escape(whole)}"'


def web_button(piece: Piece, page: Page) -> str:
    """Return a button as a link with all of its look in itself."""
    style = _style(body_style(piece, page))
    return f'<a href="{escape(piece.link)}" style="{style}"{_named(piece)}>{_inside(piece, page)}</a>'


def picture_button(piece: Piece) -> str:
    """Return a button as a picture that is a link; sharp on screens of two and three dots to a pixel."""
    assert piece.drawing
    at = dict(piece.picture_at)
    others = ", ".join(f"{address} {scale}x" for scale, address in piece.picture_at if scale > 1)
    return (
        f'<a href="{escape(piece.link)}" style="display:inline-block;text-decoration:none">'
        f'<img src="{escape(at[1])}" srcset="{escape(others)}" width="{round(piece.drawing.width)}" '
        f'height="{round(piece.drawing.height)}" alt="{escape(piece.drawing.words)}" '
        'style="display:block;border:0;max-width:100%;height:auto"></a>'
    )


def form_button(piece: Piece, page: Page, connection: BasketConnection) -> str:
    """Return a button as a form that puts the product into the basket, with its choice and its quantity."""
    document, product = piece.document, piece.product
    by_link = isinstance(connection, BasketLink)
    fields = []
    if not by_link:
        fields.append(f'<input type="hidden" name="{escape(connection.product_field)}" value="{escape(product.sku)}">')
    if product.option_values:
        name = "option" if by_link else connection.option_fields[0]
        options = "".join(
            f'<option value="{escape(value)}">{escape(value)}</option>' for value in product.option_values
        )
        fields.append(
            f'<label style="display:inline-flex;gap:6px;align-items:center">{escape(product.option_name)} '
            f'<select name="{escape(name)}" required style="font:inherit;padding:6px">'
            f'<option value=""></option>{options}</select></label>'
        )
    quantity = "quantity" if by_link else connection.quantity_field
    box = document.quantity
    if quantity and isinstance(box, QuantityBox):
        label = box.names[page.language].quantity if page.language in box.names else quantity
        fields.append(
            f'<input type="number" name="{escape(quantity)}" value="{box.start}" min="{box.least}" max="{box.most}" '
            f'step="{box.step}" aria-label="{escape(label)}" '
            f'style="width:{box.width_px:g}px;font:inherit;padding:6px;box-sizing:border-box">'
        )
    elif quantity:
        fields.append(f'<input type="hidden" name="{escape(quantity)}" value="1">')
    style = _style(body_style(piece, page))
    button = f'<button type="submit" style="{style}"{_named(piece)}>{_inside(piece, page)}</button>'
    method = "get" if by_link else "post"
    outer = "display:flex;flex-wrap:wrap;gap:8px;align-items:center;margin:0"
    return f'<form action="{escape(piece.link)}" method="{method}" style="{outer}">{"".join(fields)}{button}</form>'


def mail_button(piece: Piece, page: Page) -> str:
    """Return a button as a table with one cell: what every mail program draws, and reads without pictures."""
    document = alone(piece.document)
    look = document.look
    worn = dress_in(look, REST)
    base = base_colour(worn.fill)
    cell: css.Declarations = {}
    physical = _physical(look, piece.ground, page)
    if not isinstance(worn.border, NoBorder):
        cell |= {name: opaque_in(value) for name, value in _border(worn.border, page).items()}
    cell["border-radius"] = physical["border-radius"]
    ground = ""
    if base:
        colour = opaque(base)
        ground = f' bgcolor="{colour}"'
        cell["background-color"] = colour
        if not isinstance(worn.fill, SolidFill):
            cell["background-image"] = _fill(worn.fill, page)
    link = {
        "display": "inline-block" if not isinstance(look.size, FullSize) else "block",
        "padding": physical["padding"],
        **_type(look, page.kit),
        "color": opaque(worn.text_colour),
        "text-decoration": "underline" if look.type.underline_px else "none",
        "text-align": "center",
        "mso-padding-alt": "0",
    }
    if look.type.case == "upper":
        link["text-transform"] = "uppercase"
    if isinstance(look.size, FixedSize):
        writer = css.CssWriter(page.kit.fonts, piece.ground)
        link |= {"width": writer.length(look.size.width, look.type.size_px), "box-sizing": "border-box"}
    words = piece.spoken if document.is_wordless else piece.text
    wide = ' width="100%"' if isinstance(look.size, FullSize) else ""
    return (
        f'<table role="presentation" border="0" cellpadding="0" cellspacing="0"{wide}><tbody><tr>'
        f'<td align="center"{ground} style="{_style(cell)}">'
        f'<a href="{escape(piece.link)}" target="_blank" rel="noopener" style="{_style(link)}">{escape(words)}</a>'
        "</td></tr></tbody></table>"
    )


def opaque_in(value: str) -> str:
    """Return a border without transparency, which mail programs do not know."""
    *before, colour = value.split(" ")
    return " ".join([*before, opaque(colour) if colour.startswith("#") else colour])


def left_out_of_mail(document: ButtonDocument) -> list[str]:
    """Return what of a look mail programs do not draw, in a designer's words."""
    look, left_out = document.look, []
    if icon_of(document.icon):
        left_out.append("the icon")
    if look.shadows.list or look.text_shadows.list:
        left_out.append("shadows")
    if look.opacity < 1:
        left_out.append("its opacity")
    if isinstance(look.border, SidesBorder):
        left_out.append("the same corner where two different lines meet")
    return left_out


def _texts(piece: Piece, page: Page) -> tuple[str, str]:
    """Return name and price of a product as they stand over its button in a sheet."""
    return escape(piece.product.name), escape(piece.price)


def web_sheet(pieces: Sequence[Piece], buttons: Sequence[str], page: Page, across: int) -> str:
    """Return products side by side, fewer where there is less room, each with its picture, name, price and button."""
    least = f"max(140px,{100 / across:.4g}% - {GAP_PX}px)"
    grid = (
        f"display:grid;grid-template-columns:repeat(auto-fit,minmax({least},1fr));gap:{GAP_PX}px;"
        "font-family:sans-serif;max-width:100%"
    )
    cells = []
    for piece, button in zip(pieces, buttons, strict=True):
        name, price = _texts(piece, page)
        picture = (
            f'<img src="{escape(piece.product_picture)}" alt="" loading="lazy" '
            'style="width:100%;aspect-ratio:1;object-fit:cover;display:block">'
            if piece.product_picture
            else ""
        )
        caption = f'<p style="margin:8px 0 0">{name}</p>' + (
            f'<p style="margin:2px 0 8px">{price}</p>' if price else ""
        )
        cells.append(
            f'<div style="display:flex;flex-direction:column;align-items:flex-start">{picture}{caption}{button}</div>'
        )
    return f'<div {page.about} style="{grid}">{"".join(cells)}</div>'


def mail_sheet(pieces: Sequence[Piece], buttons: Sequence[str], page: Page, across: int) -> str:
    """Return products side by side in a table as wide as a mail's text; each reads by its name with pictures off."""
    wide = (MAIL_PX - GAP_PX * (across - 1)) // across
    rows = []
    for first in range(0, len(pieces), across):
        cells = []
        for n in range(across):
            if n:
                cells.append(f'<td width="{GAP_PX}"></td>')
            if first + n >= len(pieces):
                cells.append(f'<td width="{wide}"></td>')
                continue
            cells.append(_mail_cell(pieces[first + n], buttons[first + n], page, wide))
        rows.append(f"<tr>{''.join(cells)}</tr>")
    return (
        f'<table {page.about} role="presentation" border="0" cellpadding="0" cellspacing="0" width="{MAIL_PX}" '
        f'align="center" style="width:100%;max-width:{MAIL_PX}px"><tbody>{"".join(rows)}</tbody></table>'
    )


def _mail_cell(piece: Piece, button: str, page: Page, wide: int) -> str:
    name, price = _texts(piece, page)
    side = "right" if page.rtl else "left"
    picture = (
        f'<a href="{escape(piece.link)}" target="_blank" rel="noopener"><img src="{escape(piece.product_picture)}" '
        f'width="{wide}" alt="{name}" style="display:block;border:0;width:100%;height:auto"></a>'
        if piece.product_picture
        else ""
    )
    # In the mail's own colour, which a dark one turns about.
    text = "font-family:Arial,sans-serif;font-size:15px;line-height:21px"
    caption = f'<p style="margin:8px 0 2px;{text}">{name}</p>'
    if price:
        caption += f'<p style="margin:0 0 10px;{text}">{price}</p>'
    style = f"width:{wide}px;padding:0 0 24px;text-align:{side}"
    return f'<td width="{wide}" valign="top" align="{side}" style="{style}">{picture}{caption}{button}</td>'


def alone_on_page(button: str, page: Page) -> str:
    """Return one button with the language and the direction that it is read in."""
    return f"<div {page.about}>{button}</div>"
