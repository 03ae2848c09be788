"""Comparing versions of a button."""

from uptick.usecases.trials.draw import change_trial, draw_trial
from uptick.usecases.trials.plan import PlanView, view_plan
from uptick.usecases.trials.read import read_numbers
from uptick.usecases.trials.run import MOST_DAYS_AGO, close_trial, keep_b, start_trial
from uptick.usecases.trials.view import TrialView, view_trial

__all__ = [
    "MOST_DAYS_AGO",
    "PlanView",
    "TrialView",
    "change_trial",
    "close_trial",
    "draw_trial",
    "keep_b",
    "read_numbers",
    "start_trial",
    "view_plan",
    "view_trial",
]
