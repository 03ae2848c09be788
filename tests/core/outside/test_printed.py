"""Codes to print are read back by a reader that is not ours."""

import io
import re

import pytest
import zxingcpp
from PIL import Image
from resvg_py import svg_to_bytes

from tests.samples import kit
from uptick.core.errors import OutOfRange
from uptick.core.outside.printed import printed_code, printed_sheet

LINKS = [f"https://edge.example/s/thornmere/go/{name}" for name in ("abcdefghij", "qrstuvwxyz", "2345672345")]


def read(svg: str) -> list[str]:
    """Reference: ZXing-C++ 3.1, reading what resvg has drawn."""
    picture = Image.open(io.BytesIO(svg_to_bytes(svg_string=svg, zoom=2, dpi=96, skip_system_fonts=True))).convert("L")
    return sorted(found.text for found in zxingcpp.read_barcodes(picture))


@pytest.mark.parametrize("words", ["Buy", "A far longer text under a code than fits", "أضف إلى السلة"])
def test_a_code_is_read_back_with_its_words_under_it(words: str) -> None:
    code = printed_code(LINKS[0], words, kit(), "figtree", 600, rtl=words[0] > "z")
    assert read(code.svg) == [LINKS[0]]
    # Half a millimetre a module, four modules of rest around it (ISO/IEC 18004).
    assert code.width_mm == pytest.approx((29 + 8) * 0.5) or code.width_mm == pytest.approx((33 + 8) * 0.5)
    wide = re.search(r"translate\(([\d.]+)", code.svg)
    assert wide
    assert float(wide[1]) >= 0


def test_a_sheet_of_codes_holds_all_of_them() -> None:
    codes = [printed_code(link, "Buy", kit(), "lora", 600) for link in LINKS]
    sheet = printed_sheet(codes, 2)
    assert read(sheet.svg) == sorted(LINKS)
    assert sheet.width_mm == pytest.approx(2 * codes[0].width_mm + 6)
    assert sheet.height_mm == pytest.approx(2 * codes[0].height_mm + 6, abs=0.01)


def test_words_that_no_font_has_are_refused() -> None:
    with pytest.raises(OutOfRange, match="“字”"):
        printed_code(LINKS[0], "字", kit(), "figtree", 600)
