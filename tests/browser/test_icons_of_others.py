"""Icons that we did not make: what is drawn is what a browser draws of the original, or it is told."""

import base64
import io
import json
from collections.abc import Iterator, Sequence
from pathlib import Path

import numpy as np
import pytest
from numpy.typing import NDArray
from PIL import Image
from playwright.sync_api import Browser, Page

from tests.browser.conftest import open_tab
from tests.strangers import HERE
from uptick.core.formats.svg_icon import ReadIcon, read_svg

pytestmark = pytest.mark.browser
SIDE, ACROSS = 64, 20
# 7 sets, 150 icons of each, the fewest that one has are 200.
SETS = {
    "bootstrap-icons 1.13": "bootstrap-icons/icons/*.svg",
    "feather 4.29": "feather-icons/dist/icons/*.svg",
    "heroicons 2.2": "heroicons/24/*/*.svg",
    "eva 1.1": "eva-icons/*/svg/*.svg",
    "iconoir 7.12": "iconoir/icons/*/*.svg",
    "typicons 2.1": "typicons.font/src/svg/*.svg",
    "open-iconic 1.1": "open-iconic/svg/*.svg",
}


@pytest.fixture(scope="module")
def sheet(browser: Browser) -> Iterator[Page]:
    tab = open_tab(browser, viewport={"width": SIDE * ACROSS, "height": SIDE * ACROSS})
    yield tab.page
    tab.context.close()


def drawn(icon: ReadIcon) -> bytes:
    """Return our icon as an SVG, in black."""
    width, height = icon.icon.width, icon.icon.height
    paths = "".join(f'<path d="{shape.d}" fill-rule="{shape.rule}"/>' for shape in icon.icon.shapes)
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}">{paths}</svg>'.encode()


def inked(page: Page, pictures: Sequence[bytes]) -> list[NDArray[np.float64]]:
    """Return how dark a browser draws each of some SVG pictures, from 0 to 1, at 64 pixels a side."""
    found: list[NDArray[np.float64]] = []
    for start in range(0, len(pictures), ACROSS * 40):
        part = pictures[start : start + ACROSS * 40]
        images = "".join(
            f'<img width="{SIDE}" height="{SIDE}" src="data:image/svg+xml;base64,{base64.b64encode(picture).decode()}">'
            for picture in part
        )
        page.set_content(f'<body style="margin:0;background:#fff;line-height:0">{images}')
        page.evaluate("Promise.all([...document.images].map((one) => one.decode().catch(() => 0)))")
        seen = np.array(Image.open(io.BytesIO(page.screenshot(full_page=True))).convert("L")).astype(float)
        for n in range(len(part)):
            y, x = divmod(n, ACROSS)
            found.append(1 - seen[y * SIDE : (y + 1) * SIDE, x * SIDE : (x + 1) * SIDE] / 255)
    return found


def differing(one: NDArray[np.float64], other: NDArray[np.float64]) -> float:
    """Return the share of pixels that are plainly otherwise, more than an edge by less than half a pixel is."""
    return float((np.abs(one - other) > 0.4).mean())


@pytest.mark.parametrize("name", SETS)
def test_an_icon_sets_icons_are_drawn_as_the_browser_draws_them(sheet: Page, name: str) -> None:
    """Reference: Chromium's rendering of the original files; at most 1 in 200 pixels is otherwise."""
    files = sorted(HERE.glob(SETS[name]))
    files = files[:: len(files) // 150][:150]
    assert len(files) == 150
    read = [read_svg(file.read_bytes()) for file in files]
    theirs = inked(sheet, [file.read_bytes() for file in files])
    ours = inked(sheet, [drawn(icon) for icon in read])
    wrong = [
        (file.name, differing(one, other))
        for file, one, other in zip(files, theirs, ours, strict=True)
        if differing(one, other) > 0.005
    ]
    assert not wrong
    assert [icon.left_out for icon in read if icon.left_out] == []


HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 24 24">'
BOXES = '<path d="M2 2h8v8H2z"/>'
ODD: dict[str, str] = json.loads((Path(__file__).parents[2] / "golden/odd-icons.json").read_text())["drawings"]


@pytest.mark.parametrize("inner", ODD.values(), ids=ODD.keys())
def test_an_odd_drawing_is_drawn_as_the_browser_draws_it(sheet: Page, inner: str) -> None:
    """Reference: Chromium's rendering."""
    raw = f"{HEAD}{inner}</svg>".encode()
    read = read_svg(raw)
    theirs, ours = inked(sheet, [raw, drawn(read)])
    assert theirs.sum() > 20
    assert differing(theirs, ours) <= 0.005
    assert read.left_out == ()


@pytest.mark.parametrize("box", ["0 0 1 1", "0 0 .02 .02", "0 0 5000 5000", "-100 -50 200 100", "0 0 100000 40000"])
def test_boxes_of_any_size_are_drawn_alike(sheet: Page, box: str) -> None:
    """Reference: Chromium's rendering."""
    left, top, wide, high = (float(side) for side in box.split())
    at = f"translate({left} {top}) scale({wide / 24} {high / 24})"
    inner = f'<g transform="{at}"><circle cx="12" cy="12" r="7" fill="none" stroke="#000" stroke-width="3"/></g>'
    raw = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{box}">{inner}</svg>'.encode()
    theirs, ours = inked(sheet, [raw, drawn(read_svg(raw))])
    assert differing(theirs, ours) <= 0.005


@pytest.mark.parametrize(
    ("inner", "says"),
    [
        ('<path fill="#f00" d="M0 0h9v9z"/><path fill="#00f" d="M3 3h3v3z"/>', "it has 2 colours"),
        ('<linearGradient id="g"/><path fill="url(#g)" d="M0 0h9v9z"/>', "a gradient or pattern"),
        ('<path opacity=".5" d="M0 0h9v9z"/>', "opacity: 0.5"),
        ('<mask id="m"/><path mask="url(#m)" d="M0 0h9v9z"/>', "mask"),
        ('<text>hi</text><path d="M0 0h9v9z"/>', "<text>"),
        ('<path marker-end="url(#m)" d="M0 0h9v9z"/>', "marker-end"),
        ('<use href="#nowhere"/><path d="M0 0h9v9z"/>', "<use> of #nowhere"),
        ('<g id="a"><use href="#a"/><path d="M0 0h9v9z"/></g>', "<use> of #a"),
        ("<style>@media print{path{fill:none}}</style><path d='M0 0h9v9z'/>", "@media"),
        ("<style>path:foo(x){fill:none}</style><path d='M0 0h9v9z'/>", "the rule for path"),
        ('<path style="mix-blend-mode:multiply" d="M0 0h9v9z"/>', "mix-blend-mode: multiply"),
    ],
)
def test_what_one_colour_cannot_say_is_told(inner: str, says: str) -> None:
    read = read_svg(f"{HEAD}{inner}</svg>".encode())
    assert any(says in omission for omission in read.left_out), read.left_out


def test_a_plain_document_type_is_no_hindrance() -> None:
    kind = '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">'
    assert read_svg(f"<?xml version='1.0'?>{kind}{HEAD}{BOXES}</svg>".encode()).left_out == ()


def test_the_sets_are_those_that_the_lock_names() -> None:
    assert all((HERE / Path(pattern).parts[0]).is_dir() for pattern in SETS.values())
