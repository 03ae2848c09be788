"""A study of the whole shop along its pages: kept with the draft's version that it is about."""

from collections.abc import Iterable, Iterator, Mapping
from datetime import datetime

from uptick.core.button.document import Device
from uptick.core.scroll import PageSurvey
from uptick.core.scroll.study import KeptStudy, Study, StudyFinding, StudyLine
from uptick.usecases.pointing import PageToLookAt
from uptick.usecases.ports import Person, Shop
from uptick.usecases.views.along import AlongDevice, view_along


def worst_first(lines: Iterable[StudyLine]) -> tuple[StudyLine, ...]:
    """Return the lines of a study, the worst first."""
    return tuple(sorted(lines, key=lambda line: line.rank))


def keep(shop: Shop, study: Study, person: Person, now: datetime) -> KeptStudy:
    """Keep a study instead of the one before."""
    kept = KeptStudy(study.model_copy(update={"lines": worst_first(study.lines)}), person.name, now)
    shop.side.keep_study(kept)
    return kept


def study_page(
    shop: Shop,
    page: PageToLookAt,
    surveys: Mapping[Device, PageSurvey],
    language: str,
    silent: Mapping[Device, str] | None = None,
) -> Iterator[StudyLine]:
    """Yield what one page comes to on every device; one that was not measured did not answer.

    Args:
        silent: Why it did not, where that is known.
    """
    about = {"name": page.name, "path": page.path, "product": page.product}
    view_of: dict[Device, AlongDevice] = {}
    if surveys:
        view = view_along(shop, surveys, page.product or None, language)
        view_of = {on_device.device: on_device for on_device in view.devices}
    for device in Device:
        one = view_of.get(device)
        if one is None:
            yield StudyLine(**about, device=device, why=(silent or {}).get(device, ""))
        else:
            findings = tuple(
                StudyFinding(rule=each.rule, weight=each.weight, title=each.title, says=each.says)
                for each in one.findings
            )
            yield StudyLine(**about, device=device, reach=one.along.reach_share, findings=findings)
