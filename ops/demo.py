"""The demo: Thornmere Apiary Supply, made by the same use cases as by hand, its past sent through the edge."""

from collections.abc import Callable
from datetime import datetime, timedelta
from typing import Any

import httpx2
from sqlalchemy import text

from uptick.core.document import Device, Placement, Situation
from uptick.core.merge import Json
from uptick.core.reach import Reach
from uptick.core.settings import Settings
from uptick.core.store import FormPost, Store, Surface
from uptick.core.trial.readout import Measure
from uptick.usecases import edit, importing, publish, trials
from uptick.usecases.ports import Person
from uptick.wiring import Wiring, clock, hash_password

KEY = "thornmere"
EMAIL = "ada@thornmere.example"
PASSWORD = "ten-frames-of-brood"
NAME = "Ada Thorn"

INK, WAX, MOSS, PALE = "#3a2a12", "#ffe9b8", "#2f5d3a", "#e4e0d2"

BASELINE: Json = {
    "look": {
        "size": {"kind": "natural"},
        "padding": {"top_px": 14, "right_px": 20, "bottom_px": 14, "left_px": 20},
        "radius_px": 4,
        "fill": {"kind": "solid", "colour": INK},
        "text_colour": WAX,
        "type": {"family": "figtree", "size_px": 16, "weight": 650},
        "hover": {"fill": {"kind": "solid", "colour": "#5a4320"}, "text_colour": WAX},
        "focus": {"fill": {"kind": "solid", "colour": INK}, "text_colour": WAX, "ring_colour": MOSS},
        "disabled": {"fill": {"kind": "solid", "colour": PALE}, "text_colour": "#6b6353"},
    },
    "icon": {"kind": "shipped", "name": "basket", "side": "before", "size_px": 18, "gap_px": 8},
    "wording": {
        "ready": {"en-GB": "Take it home"},
        "working": {"en-GB": "Packing…"},
        "added": {"en-GB": "In your skep"},
        "in_basket": {"en-GB": "{count} in your skep, add another"},
        "choose_first": {"en-GB": "Pick one first"},
        "sold_out": {"en-GB": "Back in the spring"},
    },
    "afterwards": {"kind": "stay"},
}


def demo_store(practice_origin: str) -> Store:
    """Return the store; the widths are those of the practice store's pages, and a browser test measures them again."""
    return Store(
        key=KEY,
        name="Thornmere Apiary Supply",
        language="en-GB",
        currency="GBP",
        origin=practice_origin,
        timezone="Europe/London",
        is_practice=True,
        connection=FormPost(
            add_path="/basket/add",
            read_path="/basket",
            product_field="sku",
            option_field="option",
            quantity_field="qty",
        ),
        surfaces={
            Placement.PRODUCT_PAGE: Surface(
                widths_px={Device.PHONE: 343, Device.TABLET: 320, Device.DESKTOP: 380}, own_height_px=52
            ),
            Placement.LISTING_CARD: Surface(
                widths_px={Device.PHONE: 139.5, Device.TABLET: 203.3, Device.DESKTOP: 310}, own_height_px=44
            ),
        },
    )


def begin(wiring: Wiring, *, empty: bool, say: Callable[[str], None]) -> None:
    """Make the person and the store, and unless `empty` its whole past; a second call only keeps addresses true."""
    store = demo_store(wiring.environment.practice_origin)
    with wiring.open_accounts() as accounts:
        known = KEY in accounts.store_keys()
        if not known:
            owner = accounts.add_person(EMAIL, NAME, hash_password(PASSWORD))
            settings = Settings(language="en-GB", currency="GBP", baseline=BASELINE, placements={})
            accounts.add_store(store, settings, owner, clock() - timedelta(days=60))
    with wiring.engine.begin() as db:
        # Ports may differ from the last start.
        profile = "jsonb_set(profile, '{origin}', to_jsonb(CAST(:origin AS text)))"
        db.execute(
            text(f"UPDATE stores SET profile = {profile} WHERE key = :key"), {"origin": store.origin, "key": KEY}
        )
    if not known and not empty:
        _History(wiring, say).fill()


class _History:
    """Sixty days of a shop, day by day, by its own use cases."""

    def __init__(self, wiring: Wiring, say: Callable[[str], None]) -> None:
        self._wiring = wiring
        self._say = say
        self._now = clock()
        self._ada = Person(1, NAME, EMAIL, (KEY,))

    def _ago(self, days: float) -> datetime:
        return self._now - timedelta(days=days)

    def _change(self, layer: str, patch: Json, days: float) -> None:
        with self._wiring.open_shop(KEY) as shop:
            version = shop.drafts.read().version
            edit.change_layer(shop, layer, patch, version, self._ada, self._ago(days))

    def _except(self, name: str, note: str, reach: Reach, layer: Json, days: float) -> None:
        with self._wiring.open_shop(KEY) as shop:
            version = shop.drafts.read().version
            edit.add_exception(shop, name, note, reach, layer, version, self._ada, self._ago(days))

    def fill(self) -> None:
        self._say("catalogue")
        origin = self._wiring.environment.practice_origin
        content = httpx2.get(f"{origin}/catalogue.csv").raise_for_status().content
        with self._wiring.open_shop(KEY) as shop:
            importing.import_catalogue(shop, content, self._ada, self._ago(59))
        self._say("buttons")
        self._draw_buttons()
        self._say("shoppers of six weeks, sent through the edge")
        self._shoppers(44, 26, seed=11)
        self._trial()
        self._shoppers(26, 0, seed=12)
        self._say("changes since the last release")
        self._later_changes()

    def _draw_buttons(self) -> None:
        self._change("place:product_page", {"look": {"size": {"kind": "full"}}}, 58)
        self._change(
            "place:listing_card",
            {
                "look": {
                    "padding": {"top_px": 10, "right_px": 14, "bottom_px": 10, "left_px": 14},
                    "type": {"size_px": 15},
                },
                "icon": {"kind": "none"},
                "wording": {
                    "in_basket": {"en-GB": "{count} in skep"},
                    "choose_first": {"en-GB": "See sizes"},
                    "sold_out": {"en-GB": "In spring"},
                },
            },
            58,
        )
        self._except(
            "Jars by the set",
            "People asked whether the price is for one jar.",
            Reach(products=("JL-HEX48",)),
            {"wording": {"ready": {"en-GB": "48 jars, {price}"}}},
            57,
        )
        with self._wiring.open_shop(KEY) as shop:
            publish.publish(shop, "First buttons", self._ada, self._ago(56))
        self._change("baseline", {"look": {"radius_px": 6}}, 52)
        self._change("baseline", {"wording": {"sold_out": {"en-GB": "Back in spring"}}}, 51)
        with self._wiring.open_shop(KEY) as shop:
            publish.publish(shop, "Softer corners, shorter words", self._ada, self._ago(50))

    def _trial(self) -> None:
        with self._wiring.open_shop(KEY) as shop:
            made = trials.draw_trial(
                shop,
                "Does the price belong on the button?",
                Reach(placements=(Placement.PRODUCT_PAGE,)),
                {"wording": {"ready": {"en-GB": "Take it home, {price}"}}},
                Measure.ADDED,
                0.2,
                3,
                "thornmere-price",
                self._ago(27),
            )
            trials.start_trial(shop, made.number, self._ago(26))

    def _later_changes(self) -> None:
        self._change("baseline", {"look": {"hover": {"fill": {"kind": "solid", "colour": "#8a7040"}}}}, 2)
        self._change("place:listing_card", {"wording": {"added": {"en-GB": "It is in your skep"}}}, 1)
        self._except(
            "Hives ask for the frame",
            "“Pick one first” left people looking for what to pick.",
            Reach(categories=("Hives",), situations=(Situation.CHOICE,), placements=(Placement.PRODUCT_PAGE,)),
            {"wording": {"choose_first": {"en-GB": "Pick your frame standard"}}},
            0.5,
        )

    def _shoppers(self, start: float, end: float, seed: int) -> None:
        from uptick.cli import follow_run

        wish: dict[str, Any] = {
            "start": self._ago(start).isoformat(),
            "end": self._ago(end).isoformat(),
            "shoppers_per_day": 170,
            "seed": seed,
            "rates": {
                "A": {"clicked": 0.36, "added": 0.27, "ordered": 0.11},
                "B": {"clicked": 0.42, "added": 0.335, "ordered": 0.13},
            },
        }
        with httpx2.Client(base_url=self._wiring.environment.practice_origin, timeout=60) as client:
            found = follow_run(client, wish)
        if found["state"] != "done":
            raise RuntimeError(f"The practice shoppers did not arrive: {found['says']}")
