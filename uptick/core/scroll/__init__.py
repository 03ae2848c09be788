"""What is seen of buttons while a page is scrolled, worked out from one measuring of the page."""

from uptick.core.scroll.along import Along, Lane, along
from uptick.core.scroll.hanging import Hung
from uptick.core.scroll.meetings import Meeting
from uptick.core.scroll.picture_checks import check_pictures
from uptick.core.scroll.place_checks import ScrollFinding, check_along
from uptick.core.scroll.row_checks import check_rows
from uptick.core.scroll.survey import PageSurvey

__all__ = [
    "Along",
    "Hung",
    "Lane",
    "Meeting",
    "PageSurvey",
    "ScrollFinding",
    "along",
    "check_along",
    "check_pictures",
    "check_rows",
]
