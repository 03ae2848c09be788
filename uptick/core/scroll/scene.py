"""A page as it was measured, with everything on its way while the page is scrolled."""

from dataclasses import dataclass

from uptick.core.button.document import DEVICE_FROM_PX, Device
from uptick.core.scroll.paths import Moving, Path, page_path, stuck_path
from uptick.core.scroll.survey import PageSurvey, SeenPlace


@dataclass(frozen=True, slots=True)
class Scene:
    """A survey with what is stuck on its way."""

    survey: PageSurvey
    way: float
    stuck: tuple[Moving, ...]

    @property
    def wide(self) -> float:
        """Width of the window in pixels."""
        return self.survey.window.wide

    @property
    def high(self) -> float:
        """Height of the window in pixels."""
        return self.survey.window.high

    @property
    def device(self) -> Device:
        """The device that a window of that width is."""
        return max((px, device) for device, px in DEVICE_FROM_PX.items() if px <= self.wide)[1]

    def top_of(self, place: SeenPlace, y: float) -> Path:
        """Return how a height of a place moves: with the page, or with what holds it."""
        if place.holder < 0:
            return page_path(y, self.way)
        holder = self.survey.stuck[place.holder]
        return stuck_path(holder, self.high, self.way).moved(y - holder.box.y)


def scene_of(survey: PageSurvey) -> Scene:
    """Return a survey with what is stuck on its way."""
    way = survey.way_px
    stuck = tuple(Moving.of(thing.box, stuck_path(thing, survey.window.high, way), way) for thing in survey.stuck)
    return Scene(survey, way, stuck)
