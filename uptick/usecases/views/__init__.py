"""What the stations show of the draft, computed; nothing here changes anything."""

from uptick.usecases.views.drawing import DrawView, view_drawing
from uptick.usecases.views.exceptions import (
    ExceptionEffects,
    ExceptionView,
    ReachRead,
    view_effects,
    view_exceptions,
    view_reach,
)
from uptick.usecases.views.floor import FindingsView, FloorView, view_findings, view_floor
from uptick.usecases.views.search import Found, ProductsView, search, view_products
from uptick.usecases.views.why import TraceView, view_trace
from uptick.usecases.views.words import WordsView, view_words

__all__ = [
    "DrawView",
    "ExceptionEffects",
    "ExceptionView",
    "FindingsView",
    "FloorView",
    "Found",
    "ProductsView",
    "ReachRead",
    "TraceView",
    "WordsView",
    "search",
    "view_drawing",
    "view_effects",
    "view_exceptions",
    "view_findings",
    "view_floor",
    "view_products",
    "view_reach",
    "view_trace",
    "view_words",
]
