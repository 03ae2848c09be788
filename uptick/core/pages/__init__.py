"""Shops' pages as they are sent: what they tell, how their basket is told, and what of ours is on them."""

from uptick.core.pages.page_read import Field, FormRead, PageRead, ProductTold
from uptick.core.pages.policy import Missing, missing_in, needs_trusted_types
from uptick.core.pages.proposal import Proposal, Said, propose

__all__ = [
    "Field",
    "FormRead",
    "Missing",
    "PageRead",
    "ProductTold",
    "Proposal",
    "Said",
    "missing_in",
    "needs_trusted_types",
    "propose",
]
