"""The shop's own pictures: plain shapes, tinted, drawn for this shop."""

from practice.goods import all_goods

_PAPER, _INK, _HONEY, _MOSS, _STEEL, _WAX = "#f3ead3", "#3a2a12", "#d99a2b", "#2f5d3a", "#8d9691", "#f7d88a"


def _svg(body: str, ground: str = _PAPER) -> str:
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 180" role="img">'
        f'<rect width="240" height="180" fill="{ground}"/>{body}</svg>'
    )


def _box(x: float, y: float, w: float, h: float, fill: str, r: float = 2) -> str:
    return f'<rect x="{x}" y="{y}" width="{w}" height="{h}" rx="{r}" fill="{fill}"/>'


def _hive(tint: str, layers: int) -> str:
    body = "".join(
        _box(78, 132 - 30 * n, 84, 27, tint) + _box(108, 141 - 30 * n, 24, 5, _INK, 2.5) for n in range(layers)
    )
    return (
        body + _box(70, 126 - 30 * layers + 24, 100, 9, _INK) + _box(86, 160, 8, 12, _INK) + _box(146, 160, 8, 12, _INK)
    )


def _jar(x: float, y: float, k: float = 1) -> str:
    return (
        f'<g transform="translate({x} {y}) scale({k})"><path d="M6 14h32l6 10v34l-6 10H6L0 58V24z" fill="{_HONEY}"/>'
        f'<path d="M6 14h10v54H6L0 58V24z" fill="{_WAX}"/>{_box(4, 0, 36, 12, _INK)}</g>'
    )


_GLOVE = f'<path d="M-20 70V20q0-8 7-8t7 8v14l2-34q1-7 7-7t7 7l1 32 3-27q1-6 7-5t6 8l-2 46q-1 14-9 20v24h-32V92z" fill="{_WAX}"/>'

_DRAWN = {
    "HV-CEDAR": _hive("#b5683a", 3),
    "HV-NUC6": _hive("#c98d54", 2) + _box(102, 112, 36, 8, _MOSS, 3),
    "HV-ROOF": f'<path d="M40 96 120 60l80 36v12H40z" fill="{_STEEL}"/>{_box(52, 108, 136, 16, "#b98a55")}'
    + "".join(f'<circle cx="{62 + 13 * n}" cy="116" r="3" fill="{_INK}"/>' for n in range(10)),
    "TL-SMOKER": f'<path d="M84 78h52l6 78H78z" fill="#b5603a"/><path d="M84 78q26-46 62-40l-8 14q-22 0-2 26z" fill="#8d4728"/>'
    f'{_box(150, 84, 34, 64, _INK, 4)}<path d="M150 92q-14 24 0 48" stroke="{_PAPER}" stroke-width="3" fill="none"/>'
    f'<path d="M150 34q16-16 30-6t26-10" stroke="{_STEEL}" stroke-width="5" fill="none" stroke-linecap="round"/>',
    "TL-HOOK": f'<g transform="rotate(-24 120 90)">{_box(44, 80, 140, 18, _STEEL, 3)}{_box(84, 80, 60, 18, _HONEY, 3)}'
    f'<path d="M184 80q22-2 20 20l-12 2q0-8-8-4z" fill="{_STEEL}"/></g>',
    "TL-BRUSH": f'<path d="M58 120Q92 40 190 52q-22 18-40 22 6 4 18 2-20 18-42 18 8 6 18 4-30 24-62 24z" fill="#fffaf0"/>'
    f'<path d="M46 138 70 112" stroke="{_INK}" stroke-width="11" stroke-linecap="round"/>',
    "JV-JACKET": f'<path d="M92 52h56l36 24-14 30-14-8v62H84V98l-14 8-14-30z" fill="#fffaf0"/>'
    f'<path d="M94 52q26-40 52 0-26 14-52 0z" fill="{_INK}" opacity=".72"/><path d="M120 62v98" stroke="{_STEEL}" '
    f'stroke-width="3"/>{_box(94, 116, 18, 20, _WAX)}',
    "JV-VEIL": f'<ellipse cx="120" cy="76" rx="76" ry="16" fill="{_HONEY}"/><path d="M88 72q0-38 32-38t32 38z" fill="{_WAX}"/>'
    f'<path d="M70 82h100l-14 74H84z" fill="{_INK}" opacity=".3"/>'
    + "".join(f'<path d="M{76 + 10 * n} 84 {86 + 8 * n} 156" stroke="{_INK}" opacity=".4"/>' for n in range(10)),
    "JV-GLOVES": f'<g transform="translate(90 58)">{_GLOVE}</g><g transform="translate(152 58) scale(-1 1)">{_GLOVE}</g>',
    "JL-HEX48": _jar(50, 78) + _jar(98, 78) + _jar(146, 78) + _jar(74, 24, 0.72) + _jar(124, 24, 0.72),
    "JL-KRAFT": f'<circle cx="100" cy="92" r="54" fill="#c9a06a"/><circle cx="100" cy="92" r="22" fill="{_PAPER}"/>'
    f"{_box(100, 120, 104, 26, '#c9a06a')}{_box(158, 126, 34, 3, _INK)}{_box(158, 133, 24, 3, _INK)}",
    "JL-TANK": f"{_box(78, 34, 84, 118, _STEEL, 6)}{_box(72, 28, 96, 10, _INK, 4)}{_box(92, 46, 10, 92, '#c3cac6', 5)}"
    f'<path d="M162 128h22v12h-8v14h-10v-14h-4z" fill="{_HONEY}"/>',
}


_TINTS = ("#b5683a", "#c98d54", _HONEY, _MOSS, _STEEL, "#8d4728", "#7a8f5a", "#b98a55")


def _frame(tint: str) -> str:
    cells = "".join(
        f'<path transform="translate({78 + 17 * (n % 6) + (8 if n // 6 % 2 else 0)} {74 + 15 * (n // 6)})" '
        f'd="M0-8 7-4v8L0 8-7 4v-8z" fill="{tint}" opacity="{0.55 + 0.15 * (n % 4)}"/>'
        for n in range(24)
    )
    return f"{_box(44, 40, 152, 10, _INK)}{_box(60, 50, 120, 88, '#e9c98d')}{_box(68, 58, 104, 72, _PAPER)}{cells}"


def _tool(tint: str) -> str:
    return f'<g transform="rotate(-18 120 90)">{_box(50, 82, 96, 16, _STEEL, 3)}{_box(138, 78, 60, 24, tint, 10)}</g>'


def _garment(tint: str) -> str:
    return (
        f'<path d="M88 46h64l34 26-16 28-14-8v66H84V92l-14 8-16-28z" fill="#fffaf0"/>{_box(84, 124, 72, 8, tint)}'
        f'<path d="M120 46v112" stroke="{_STEEL}" stroke-width="3"/>'
    )


def _set(tint: str) -> str:
    return (
        f'{_box(52, 76, 136, 76, tint, 3)}<path d="M44 60h152v20H44z" fill="{_INK}"/>{_box(112, 60, 16, 92, _HONEY)}'
        f'<path d="M120 60q-34-30-40-8t40 8q34-30 40-8t-40 8" fill="none" stroke="{_HONEY}" stroke-width="8"/>'
    )


def _bee(tint: str) -> str:
    return (
        f'<g transform="translate(126 96) rotate(-12)"><ellipse rx="52" ry="30" fill="{_HONEY}"/>'
        f'<path d="M-18-28v56M6-30v60M28-24v48" stroke="{_INK}" stroke-width="11"/>'
        f'<circle cx="-54" r="22" fill="{_INK}"/><circle cx="-30" cy="-26" r="7" fill="{tint}"/>'
        '<ellipse cx="-4" cy="-44" rx="18" ry="34" transform="rotate(22)" fill="#fffaf0" opacity=".88"/></g>'
    )


def _drum(tint: str) -> str:
    return (
        f"{_box(78, 46, 84, 92, _STEEL, 8)}{_box(90, 56, 10, 72, '#c3cac6', 5)}{_box(70, 40, 100, 10, _INK, 4)}"
        f'<path d="M120 40V22h40" fill="none" stroke="{tint}" stroke-width="8"/><circle cx="162" cy="22" r="8" fill="{tint}"/>'
        f"{_box(84, 138, 8, 24, _INK)}{_box(148, 138, 8, 24, _INK)}"
    )


def _jars(tint: str) -> str:
    return _jar(62, 74) + _jar(132, 74) + _box(96, 120, 48, 30, tint, 2)


_OF_KIND = {
    "HV": lambda tint: _hive(tint, 2), "FW": _frame, "TL": _tool, "JV": _garment, "JL": _jars, "SS": _set, "BE": _bee,
    "EX": _drum,
}  # fmt: skip


def picture(sku: str) -> str | None:
    """Return the SVG picture of some goods: their own, or that of their kind in a tint of theirs."""
    if sku not in all_goods():
        return None
    tint = _TINTS[sum(map(ord, sku)) % len(_TINTS)]
    return _svg(_DRAWN.get(sku) or _OF_KIND[sku[:2]](tint))


HERO = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 520 300">'
    + "".join(
        f'<path transform="translate({60 + 52 * (n % 9) + (26 if n // 9 % 2 else 0)} {40 + 45 * (n // 9)})" '
        f'd="M0-28 25-14v28L0 28-25 14v-28z" fill="{[_WAX, _HONEY, _WAX, "#efc15e"][(n * 7 + n // 9) % 4]}" '
        f'opacity="{[1, 0.85, 0.6][n % 3]}"/>'
        for n in range(45)
    )
    + f'<g transform="translate(330 128)"><ellipse rx="40" ry="24" fill="{_HONEY}"/><path d="M-14-22v44M4-24v48M22-20v40" '
    f'stroke="{_INK}" stroke-width="9"/><circle cx="-40" r="17" fill="{_INK}"/><ellipse cx="-6" cy="-32" rx="15" ry="26" '
    'transform="rotate(24)" fill="#fffaf0" opacity=".85"/></g></svg>'
)
