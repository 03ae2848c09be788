"""Buttons for pages and mails that are not the shop's: their code, their pictures, and what became of them."""

from uptick.usecases.outside.code import OutsideButton, OutsideCode, make_outside
from uptick.usecases.outside.handed_out import OutsideView, view_outside

__all__ = ["OutsideButton", "OutsideCode", "OutsideView", "make_outside", "view_outside"]
