"""A study of the whole shop: what each line says, the worst first, and that the newest is kept."""

from datetime import timedelta

import pytest
from pydantic import ValidationError

from tests.core.scroll.pages import place, survey
from tests.samples import NOW
from tests.usecases.fakes import ADA, fake_shop
from uptick.core.button.document import Device
from uptick.core.scroll.study import Study, StudyFinding, StudyLine
from uptick.usecases import study as studying
from uptick.usecases.pointing import PageToLookAt

PAGE = PageToLookAt("product page", "/p/A1", "A1")


def line(device: Device, *weights: str, silent: bool = False) -> StudyLine:
    findings = tuple(StudyFinding.model_validate({"rule": "x", "weight": w, "title": w}) for w in weights)
    return StudyLine(name="a", path="/a", device=device, reach=0.5, findings=None if silent else findings)


def test_a_page_is_said_on_every_device_and_one_that_was_not_measured_did_not_answer() -> None:
    of = fake_shop().shop
    measured = {Device.PHONE: survey(place(2000))}
    lines = list(studying.study_page(of, PAGE, measured, "en-GB", {Device.TABLET: "It was closed."}))
    assert [one.device for one in lines] == list(Device)
    phone, tablet, desktop = lines
    assert [finding.rule for finding in phone.findings or ()][:1] == ["far"]
    assert 0 < phone.reach < 1
    assert (tablet.findings, tablet.why, tablet.rank) == (None, "It was closed.", 0)
    assert (desktop.findings, desktop.why) == (None, "")
    assert all(one.findings is None for one in studying.study_page(of, PAGE, {}, "en-GB"))


def test_the_worst_comes_first_and_the_newest_study_is_the_one_that_is_kept() -> None:
    of = fake_shop().shop
    lines = (line(Device.PHONE), line(Device.TABLET, "note", "must_fix"), line(Device.DESKTOP, silent=True))
    study = Study(version=3, language="en-GB", took_ms=900, lines=lines)
    studying.keep(of, study, ADA, NOW)
    kept = studying.keep(of, study.model_copy(update={"version": 4}), ADA, NOW + timedelta(days=1))
    assert [one.rank for one in kept.study.lines] == [0, 1, 4]
    assert of.side.study() == kept
    assert (kept.by, kept.study.version) == (ADA.name, 4)


@pytest.mark.parametrize(
    "change",
    [
        {"lines": ()},
        {"version": -1},
        {"lines": ({"name": "a\x00", "path": "/a", "device": "phone"},)},
        {"lines": ({"name": "a", "path": "/a", "device": "watch"},)},
    ],
)
def test_what_no_study_could_have_found_is_refused(change: dict[str, object]) -> None:
    good = {"version": 1, "language": "en-GB", "took_ms": 1, "lines": (line(Device.PHONE),)}
    Study.model_validate(good)
    with pytest.raises(ValidationError):
        Study.model_validate({**good, **change})
