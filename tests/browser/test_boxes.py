"""Our box model and our text measuring against Chromium's own layout."""

import random
import re
from collections.abc import Iterator
from pathlib import Path
from unicodedata import normalize

import pytest
from playwright.sync_api import Browser, Page

from ops import demo_words as words
from tests.browser.conftest import load_faces, open_tab
from tests.random_buttons import random_button
from tests.samples import document, kit
from uptick.core.button.lengths import Ground
from uptick.core.button.merge import Json
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.compile import BASE_CSS, compile_button
from uptick.core.type.letters import in_capitals

pytestmark = pytest.mark.browser
PIECES = Path(__file__).parents[2] / "storefront/dist"
WINDOW = 1280
GIVEN = {"price": "£1,299.00", "count": "12"}
TEXTS = [
    re.sub(r"\{(\w+)\}", lambda found: GIVEN[found[1]], text)
    for moments in (words.BASELINE, words.LISTING, words.BAR, words.STRIP, words.JARS, words.BEES, words.FRAMES)
    for texts in moments.values()
    for text in texts.values()
    if "plural" not in text
]
HARDER = [
    "Take it home", "Pick your frame standard", "12 in your skep, add another", "In your skep", "48 jars, £31.20",
    "Take it home, £1,299.00", "Back in spring", "AVATAR Tofu – “quote”", "Größe wählen", "Ajouté à la ruche", "Żółć",
    "1\u202f249,00\xa0£GB", "12 في سلتك، أضف آخر", "خذه، \u2068‏1,249.00\xa0UK£\u2069", "السلام hello 12",
]  # fmt: skip


# Letters in pieces, hyphens and spaces that are not seen, marks that join: as other programs leave them in texts.
ODD = [
    normalize("NFD", "Größe wählen, déjà ajouté"), normalize("NFD", "Żółć łączy"), "fin\ufeffe",
    "Donaudampf\u00adschifffahrts\u00adkarte", "Take\u200bit\u200bhome", "word\u2060joined", "zero\u200dwidth",
    "أضف إلى السلة، الآن", "ســـلة، 12", "non\u2011breaking‑hyphen", "a\u00a0b\u2009c\u3000d", "12\u00a0%\u202f€",
]  # fmt: skip


@pytest.fixture(scope="module")
def blank(browser: Browser) -> Iterator[Page]:
    """An empty page with the shops' faces and the script's own pieces for what stands beside a button."""
    tab = open_tab(browser)
    tab.page.set_content("<!doctype html><body style='margin:0'>")
    load_faces(tab.page)
    for piece in ("quantity", "second"):
        tab.page.add_script_tag(content=(PIECES / f"{piece}.js").read_text())
    yield tab.page
    tab.context.close()


# What `paint` does, without its words' moments: the pieces beside the button are the script's own.
STAND = """all => all.map(({ base, made, text, room, rtl, second }) => {
  const frame = document.createElement('div');
  frame.style.cssText = `width:${room}px;position:absolute;left:0;top:0`;
  const host = document.createElement('div');
  frame.append(host); document.body.append(frame);
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet(); sheet.replaceSync(base + made.css); root.adoptedStyleSheets = [sheet];
  const button = document.createElement('button'); button.className = 'b';
  const words = document.createElement('span'); words.className = 'w'; words.textContent = text;
  button.append(words); root.append(button);
  if (made.icon) {
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    svg.setAttribute('viewBox', made.icon.box);
    made.icon.side === 'before' ? button.prepend(svg) : button.append(svg);
  }
  host.dir = rtl ? 'rtl' : 'ltr';
  if (made.quantity) UpQuantity.paintQuantity(root, button, made.quantity);
  if (made.second) UpSecond.paintSecond(root, { made, second });
  const from = button.getBoundingClientRect();
  const box = e => { const r = e.getBoundingClientRect(); return [r.x - from.x, r.y - from.y, r.width, r.height]; };
  const range = document.createRange(); range.selectNodeContents(words);
  const tops = new Set(Array.from(range.getClientRects(), r => Math.round(r.y)));
  const found = { outer: box(button), words: box(words), lines: tops.size };
  for (const [name, part] of [['icon', 'svg'], ['quantity', '.q'], ['second', '.s']]) {
    const there = root.querySelector(part);
    if (there) found[name] = box(there);
  }
  frame.remove();
  return found;
})"""


def test_texts_are_as_wide_as_in_the_browser(blank: Page) -> None:
    """Reference: Chromium's own layout; within 0.5 px on every text of the demo and some harder ones."""
    types: list[Json] = [
        {"family": family, "size_px": size, "weight": weight, **more}
        for family in kit().fonts.families
        for size, weight in ((13, 500), (16, 650), (27.5, 700))
        for more in ({}, {"letter_spacing_px": 0.8}, {"case": "upper", "line": 1.4})
    ]
    for kind in types:
        made = document({"look": {"type": kind}})
        compiled = compile_button(made, kit())
        texts = (*TEXTS, *HARDER, *ODD)
        given = [{"base": BASE_CSS, "made": compiled, "text": t, "room": 2000, "rtl": False} for t in texts]
        for text, found in zip(texts, blank.evaluate(STAND, given), strict=True):
            ours = lay_out(made, text, kit(), Ground(2000, WINDOW))
            assert found["words"][2] == pytest.approx(ours.words.width, abs=0.5), (kind, text)
            assert found["outer"][3] == pytest.approx(ours.outer.height, abs=0.5), (kind, text)


# Letters of the sample file that no shipped face has, by ones that behave alike: right to left, and neutral.
ALIKE = str.maketrans("\u05d0\u05d1\u05d2\u05d3\u05d4\u05d5\u2680\u2681\u2682\u2683", "ابتدسم*+/-")


def test_unicodes_samples_of_two_directions_are_as_wide_as_in_the_browser(blank: Page) -> None:
    """Reference: Unicode 15, BidiCharacterTest.txt (UAX 9), set by Chromium; every hundredth of its strings.

    Debian's package unicode-data carries the file. Its levels are the browser's to find: ours is how wide it stands.
    """
    lines = Path("/usr/share/unicode/BidiCharacterTest.txt").read_text().splitlines()
    strings = dict.fromkeys(
        "".join(chr(int(code, 16)) for code in line.split(";")[0].split()).translate(ALIKE)
        for line in lines
        if line and not line.startswith("#")
    )
    texts = [text for text in strings if not kit().fonts.measure(text, "figtree", 16, 600).missing][::100]
    assert len(texts) > 300
    for spacing in (0, 1.5):
        made = document({"look": {"type": {"family": "figtree", "letter_spacing_px": spacing}}})
        given = [
            {"base": BASE_CSS, "made": compile_button(made, kit()), "text": t, "room": 2000, "rtl": n % 2 == 0}
            for n, t in enumerate(texts)
        ]
        for text, found in zip(texts, blank.evaluate(STAND, given), strict=True):
            ours = lay_out(made, text, kit(), Ground(2000, WINDOW))
            assert found["words"][2] == pytest.approx(ours.words.width, abs=0.5), (spacing, ascii(text))


CAPITALS = {
    "en-GB": "Größe, straße ﬁn",
    "de": "Größe wählen",
    "fr": "Ajouté à la ruche",
    "tr": "sepete ekle: ılık iğne İstanbul",
    "az": "iki ılıq",
    "el": "προσθήκη στο καλάθι ή όχι, Ήλιος μάιος μαΐου ρολόι αϋπνία",
    "lt": "i̇̀ pirkti dabar į̇ ìí",
    "nl": "ijs kopen",
    "ar": "أضف إلى السلة",
}


def test_capitals_are_those_of_the_browser_in_every_language(blank: Page) -> None:
    """Reference: Chromium's `text-transform: uppercase`, which goes by the language of the page."""
    show = """([text, lang]) => { const s = document.createElement('p'); s.lang = lang; s.textContent = text;
        s.style.textTransform = 'uppercase'; document.body.append(s); const t = s.innerText; s.remove(); return t; }"""
    for language, text in CAPITALS.items():
        shown = blank.evaluate(show, [text, language])
        assert in_capitals(text, language) == normalize("NFC", shown), language


def test_our_box_model_is_the_browsers_for_random_looks(blank: Page) -> None:
    """Reference: Chromium's getBoundingClientRect; 1,000 random buttons in both directions, each edge within 0.5 px."""
    rng = random.Random(7)
    cases = []
    texts = (*TEXTS, *HARDER, *ODD)
    for _ in range(1_000):
        patch, text = random_button(rng), rng.choice(texts)
        # A Latin text that ends in a point is set with it apart where one reads from right to left (UAX 9): without the
        # kerning before it, up to 2 px of large type. No language of ours has both.
        rtl = rng.random() < 0.5 and not (text[0].isascii() and text.endswith(("…", ".", "!")))
        cases.append((patch, text, rng.randint(160, 500), rtl))
    given = [
        {"base": BASE_CSS, "made": compile_button(document(patch), kit()), "text": text, "room": room, "rtl": rtl,
         "second": "Straight to the till"}
        for patch, text, room, rtl in cases
    ]  # fmt: skip
    wrong = []
    for (patch, text, room, rtl), found in zip(cases, blank.evaluate(STAND, given), strict=True):
        made = document(patch)
        ours = lay_out(made, text, kit(), Ground(room, WINDOW), rtl=rtl)
        second = ours.second.outer if ours.second else None
        words_box = None if made.is_wordless else ours.words
        for name, box in (
            ("outer", ours.outer), ("words", words_box), ("icon", ours.icon), ("quantity", ours.quantity),
            ("second", second),
        ):  # fmt: skip
            if box is not None and found[name] != pytest.approx([box.x, box.y, box.width, box.height], abs=0.5):
                wrong.append((name, [round(v, 2) for v in found[name]], box, patch, text, room, rtl))
        if not made.is_wordless and not ours.left_out and ours.lines and found["lines"] != len(ours.lines):
            wrong.append(("lines", found["lines"], ours.lines, patch, text, room, rtl))
    assert not wrong, f"{len(wrong)} wrong, the first: {wrong[0]}"


OF_BOTH = (
    "Add سلة now", "ADD سلة NOW", "add «سلة» now", "“Add” سلة", "add “سلة” more", "سلة “Add” شراء", "Buy سلة, £12.50",
    "Add (سلة)", " سلة’s", "Add ‘سلة’ it",
)  # fmt: skip


@pytest.mark.parametrize("text", OF_BOTH)
def test_texts_of_two_scripts_are_as_wide_as_the_browser_sets_them(browser: Browser, text: str) -> None:
    """Reference: Chromium's own widths. Quotes go with the letters before them; scripts are shaped apart."""
    page = browser.new_page()
    page.set_content("<span id=text style='white-space:pre'></span>")
    load_faces(page)
    for family in kit().fonts.families:
        for spacing in (0, 1.5):
            ours = kit().fonts.measure(text, family, 16, 600, spacing)
            assert ours.missing == ""
            theirs = page.evaluate(
                """([text, family, spacing]) => {
                    const at = document.querySelector('#text');
                    at.style.font = `600 16px up-${family}, up-vazirmatn`;
                    at.style.letterSpacing = `${spacing}px`;
                    at.textContent = text;
                    return at.getBoundingClientRect().width }""",
                [text, family, spacing],
            )
            assert abs(ours.width_px - theirs) < 0.1, (family, spacing)
    page.close()
