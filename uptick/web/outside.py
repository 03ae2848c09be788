"""Buttons for pages and mails that are not the shop's."""

from fastapi import APIRouter, Response

from uptick.core.outside.handed import Order
from uptick.usecases.outside import OutsideCode, OutsideView, make_outside, view_outside
from uptick.web.bodies import Body
from uptick.web.parts import PartsDep, ShopDep, VisitorDep, as_json
from uptick.web.problems import IN_STORE

router = APIRouter(prefix="/api/stores/{store}/outside", tags=["outside"], responses=IN_STORE)


class OutsideOrder(Body):
    """What code is asked for; `copied` says that somebody takes it with him now."""

    order: Order
    copied: bool = False


@router.get("", response_model=OutsideView)
def handed_out(shop: ShopDep, parts: PartsDep) -> Response:
    """Return what was handed out, with its presses and how it differs from the shop's buttons now."""
    return as_json(view_outside(shop, parts.edge_origin))


@router.post("", response_model=OutsideCode)
def make(body: OutsideOrder, shop: ShopDep, person: VisitorDep, parts: PartsDep) -> Response:
    """Make code of buttons. Their links lead from now on, whether or not the code is copied by the studio's own key."""
    outside = make_outside(shop, body.order, parts.edge_origin, person, parts.clock(), copied=body.copied)
    return as_json(outside)
