"""What is seen of buttons while a page is scrolled, worked out from one measuring of the page."""

from uptick.core.scroll.along import Along, Lane, Meeting, along
from uptick.core.scroll.place_checks import ScrollFinding, check_along
from uptick.core.scroll.survey import PageSurvey

__all__ = ["Along", "Lane", "Meeting", "PageSurvey", "ScrollFinding", "along", "check_along"]
