"""The newest study of a shop in PostgreSQL."""

from datetime import timedelta

from tests.samples import NOW
from tests.usecases.fakes import ADA
from uptick.core.button.document import Device
from uptick.core.scroll.study import Study, StudyLine
from uptick.usecases import study as studying
from uptick.wiring import Wiring

LINE = StudyLine(name="ä page", path="/p/A1", product="A1", device=Device.PHONE, reach=0.25, findings=())


def test_a_study_is_kept_as_it_was_and_the_next_one_takes_its_place(wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        assert shop.side.study() is None
        studying.keep(shop, Study(version=1, language="en-GB", took_ms=5, lines=(LINE,)), ADA, NOW)
    later = NOW + timedelta(hours=1)
    silent = LINE.model_copy(update={"findings": None, "why": "closed"})
    with wiring.open_shop("sample") as shop:
        studying.keep(shop, Study(version=2, language="en-GB", took_ms=6, lines=(LINE, silent)), ADA, later)
    with wiring.open_shop("sample") as shop:
        kept = shop.side.study()
    assert kept
    assert (kept.by, kept.made_at, kept.study.version) == (ADA.name, later, 2)
    assert kept.study.lines == (silent, LINE)
