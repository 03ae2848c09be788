"""Shops' pages as they are sent: what they tell, how their basket is told, and what of ours is on them."""

from uptick.core.pages.basket_told import basket_addresses, json_read_of, plain_amount
from uptick.core.pages.page_read import FormField, FormRead, PageRead, ProductTold
from uptick.core.pages.policy import TRUSTED_TYPE, Missing, missing_in, refuses_our_type
from uptick.core.pages.proposal import Proposal, Said, propose
from uptick.core.pages.selectors import PlaceSelector, candidates
from uptick.core.pages.taken import Hindrance, OnPage, Taken, common_path, hindrances, kind_of, look_on_page

__all__ = [
    "TRUSTED_TYPE",
    "FormField",
    "FormRead",
    "Hindrance",
    "Missing",
    "OnPage",
    "PageRead",
    "PlaceSelector",
    "ProductTold",
    "Proposal",
    "Said",
    "Taken",
    "basket_addresses",
    "candidates",
    "common_path",
    "hindrances",
    "json_read_of",
    "kind_of",
    "look_on_page",
    "missing_in",
    "plain_amount",
    "propose",
    "refuses_our_type",
]
