"""The demo: Thornmere Apiary Supply, made by the same use cases as by hand, its past sent through the edge."""

from collections.abc import Callable, Iterable, Sequence
from datetime import datetime, timedelta
from typing import Any

import httpx2
from sqlalchemy import select, text

from ops import demo_places, demo_row
from ops import demo_words as words
from practice.row import ROW
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.outside.handed import Order, OutsideKind
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.shop.connection import BasketChange, BasketJson, FormPost
from uptick.core.shop.store import Store, Surface
from uptick.core.trial.readout import Measure
from uptick.data.outside import OutsideShelf
from uptick.data.tables import stores
from uptick.usecases import edit, importing, looks, pointing, publish, trials
from uptick.usecases.outside import make_outside
from uptick.usecases.ports import Person
from uptick.wiring import Wiring, clock, hash_password

KEY = "thornmere"
EMAIL = "ada@thornmere.example"
PASSWORD = "ten-frames-of-brood"
NAME = "Ada Thorn"

INK, WAX, MOSS, PALE, HONEY = "#3a2a12", "#ffe9b8", "#2f5d3a", "#e4e0d2", "#d99a2b"

BASELINE: Json = {
    "look": {
        "size": {"kind": "natural"},
        "padding": {"top": 14, "right": 20, "bottom": 14, "left": 20},
        "radius": 4,
        "fill": {"kind": "solid", "colour": INK},
        "text_colour": WAX,
        "type": {"family": "figtree", "size_px": 16, "weight": 650},
        "hover": {"fill": {"kind": "solid", "colour": "#5a4320"}, "text_colour": WAX},
        "focus": {"fill": {"kind": "solid", "colour": INK}, "text_colour": WAX, "ring_colour": MOSS},
        "disabled": {"fill": {"kind": "solid", "colour": PALE}, "text_colour": "#6b6353"},
    },
    "icon": {"kind": "shipped", "name": "basket", "side": "before", "size_px": 18, "gap_px": 8},
    "wording": words.BASELINE,
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
            read=BasketJson(
                path="/basket.json", name="name", picture="picture", page="page", amount="total", sum="total"
            ),
            change=BasketChange(
                path="/basket/set", body={"sku": "{product}", "option": "{option}", "qty": "{quantity}"}
            ),
            basket_path="/basket",
            product_field="sku",
            option_fields=("option",),
            quantity_field="qty",
        ),
        surfaces={
            Placement.PRODUCT_PAGE: Surface(
                widths_px={Device.PHONE: 343, Device.TABLET: 320, Device.DESKTOP: 380},
                own_height_px=52,
                page_colour="#fbf6e9",
            ),
            Placement.LISTING_CARD: Surface(
                widths_px={Device.PHONE: 139.5, Device.TABLET: 203.3, Device.DESKTOP: 310},
                own_height_px=44,
                page_colour="#fffdf6",
                page_path="/c/everything",
            ),
            # What name and price leave to the button; the bar itself is as wide as the window.
            Placement.STICKY_BAR: Surface(
                widths_px={Device.PHONE: 240, Device.TABLET: 320, Device.DESKTOP: 380}, own_height_px=0
            ),
            Placement.STRIP: Surface(
                widths_px={Device.PHONE: 139.5, Device.TABLET: 203.3, Device.DESKTOP: 310},
                own_height_px=36,
                page_colour="#fffdf6",
            ),
            # Pictures of the front page.
            Placement.OVER_PICTURE: Surface(
                widths_px={Device.PHONE: 319, Device.TABLET: 212, Device.DESKTOP: 320}, own_height_px=0, page_path="/"
            ),
        },
    )


def begin(wiring: Wiring, *, empty: bool, say: Callable[[str], None], row: bool = False) -> None:
    """Make the person and the store, and unless `empty` its whole past; a second call only keeps addresses true.

    With `row` the small shops beside it become stores of the same person.
    """
    practice = wiring.environment.practice_origin
    store = demo_store(practice)
    with wiring.open_accounts() as accounts:
        known = KEY in accounts.store_keys()
        if not known:
            owner = accounts.add_person(EMAIL, NAME, hash_password(PASSWORD))
            more = () if empty else (words.DE, words.FR, words.AR)
            settings = Settings(
                language=words.EN, currency="GBP", baseline=BASELINE, placements={}, more_languages=more
            )
            accounts.add_store(store, settings, owner, clock() - timedelta(days=60))
    _keep_addresses(wiring, [store, *(demo_row.row_store(shop, practice) for shop in ROW.values())])
    if not known and not empty:
        _History(wiring, say).fill()
    if row and not empty:
        demo_row.fill(wiring, ada(wiring), say)


def ada(wiring: Wiring) -> Person:
    """Return the demo's person."""
    with wiring.open_accounts() as accounts:
        account = accounts.find(EMAIL)
    assert account is not None
    return account[0]


def _keep_addresses(wiring: Wiring, stores: Iterable[Store]) -> None:
    """Write down where the shops are now: ports may differ from the last start."""
    profile = "jsonb_set(profile, '{origin}', to_jsonb(CAST(:origin AS text)))"
    where = text(f"UPDATE stores SET profile = {profile} WHERE key = :key AND profile->>'origin' <> :origin")
    with wiring.engine.begin() as db:
        for store in stores:
            db.execute(where, {"origin": store.origin, "key": store.key})


class _History:
    """Sixty days of a shop, day by day, by its own use cases."""

    def __init__(self, wiring: Wiring, say: Callable[[str], None]) -> None:
        self._wiring = wiring
        self._say = say
        self._now = clock()
        self._ada = ada(wiring)

    def _ago(self, days: float) -> datetime:
        return self._now - timedelta(days=days)

    def _change(self, layer: str, patch: Json, days: float) -> None:
        with self._wiring.open_shop(KEY) as shop:
            version = shop.drafts.read().version
            edit.change_layer(shop, layer, patch, version, self._ada, self._ago(days))

    def _except(self, name: str, note: str, reach: Reach, layer: Json, days: float, until: float | None = None) -> None:
        with self._wiring.open_shop(KEY) as shop:
            version = shop.drafts.read().version
            ends_on = self._ago(until).date() if until is not None else None
            wish = edit.Wish(name, note, reach, None, ends_on)
            edit.add_exception(shop, wish, layer, version, self._ada, self._ago(days))

    def fill(self) -> None:
        self._say("catalogue")
        origin = self._wiring.environment.practice_origin
        content = httpx2.get(f"{origin}/catalogue.csv").raise_for_status().content
        with self._wiring.open_shop(KEY) as shop:
            importing.import_catalogue(shop, content, self._ada, self._ago(59))
        self._say("buttons")
        self._say_brand()
        self._draw_buttons()
        self._say("shoppers of six weeks, sent through the edge")
        self._shoppers(44, 26, seed=11)
        self._trial()
        self._shoppers(26, 0, seed=12)
        self._say("changes since the last release")
        self._later_changes()

    def _say_brand(self) -> None:
        seeds = [
            {"name": "honey ink", "colour": INK},
            {"name": "moss", "colour": MOSS},
            {"name": "honey", "colour": HONEY},
        ]
        with self._wiring.open_shop(KEY) as shop:
            looks.set_brand(shop, seeds, shop.drafts.read().version, self._ada, self._ago(58.5))

    def _draw_buttons(self) -> None:
        self._change("place:product_page", {"look": {"size": {"kind": "full"}}}, 58)
        small = {"top": 10, "right": 14, "bottom": 10, "left": 14}
        self._change(
            "place:listing_card",
            {
                "look": {"padding": small, "type": {"size_px": 15}},
                "icon": {"kind": "none"},
                "wording": words.LISTING,
            },
            58,
        )
        bar = {"top": 12, "right": 16, "bottom": 12, "left": 16}
        self._change(
            "place:sticky_bar",
            {
                "look": {"padding": bar},
                "icon": {"kind": "none"},
                "wording": words.BAR,
                "bar": {
                    "parts": ["picture", "name", "button"],
                    "phone_without": ["picture", "name"],
                    "ground": "#fffdf6",
                    "ink": INK,
                },
            },
            58,
        )
        link = {"top": 7, "right": 10, "bottom": 7, "left": 10}
        self._change(
            "place:strip",
            {
                "look": {
                    "padding": link,
                    "type": {"size_px": 14},
                    "fill": {"kind": "solid", "colour": "#fffdf6"},
                    "text_colour": MOSS,
                },
                "icon": {"kind": "none"},
                "wording": words.STRIP,
            },
            58,
        )
        self._change(
            "place:over_picture",
            {
                "look": {
                    "padding": {"top": 11, "right": 14, "bottom": 11, "left": 14},
                    "type": {"size_px": 15},
                    "radius": 22,
                    "fill": {"kind": "solid", "colour": "#fffdf6"},
                    "text_colour": INK,
                },
                "wording": words.PICTURES,
                "over": {"anchor": "bottom_end", "across": 10, "down": 10, "reveal": "words"},
            },
            58,
        )
        for place in demo_places.PLACES:
            with self._wiring.open_shop(KEY) as shop:
                pointing.keep_place(shop, "", place, shop.drafts.read().version, self._ada, self._ago(58))
        self._change("place:tile", demo_places.TILE, 58)
        self._change("place:floating", demo_places.FLOATING, 58)
        self._exceptions()
        with self._wiring.open_shop(KEY) as shop:
            publish.publish(shop, "First buttons", self._ada, self._ago(56))
        self._hand_out(
            Order(products=("HV-NUC6",), kind=OutsideKind.PICTURE, campaign="Beekeepers’ forum"), 54, (3, 2, 0, 4)
        )
        self._change("baseline", {"look": {"radius": 6}}, 52)
        self._change("baseline", {"wording": {"sold_out": {"en-GB": "Back in spring"}}}, 51)
        with self._wiring.open_shop(KEY) as shop:
            publish.publish(shop, "Softer corners, shorter words", self._ada, self._ago(50))
        letter = ("TL-SMOKER", "HV-NUC6", "TL-HOOK")
        mail = Order(products=letter, kind=OutsideKind.MAIL, across=3, campaign="Spring letter")
        self._hand_out(mail, 21, (64, 38, 11, 5, 2))
        self._hand_out(Order(products=("TL-SMOKER",), kind=OutsideKind.PRINT, campaign="County show"), 9, (7, 12, 3))

    def _hand_out(self, order: Order, days: float, presses: Sequence[int]) -> None:
        """Hand out buttons and count presses on the days after, from one button to the next half as many."""
        with self._wiring.open_shop(KEY) as shop:
            edge = self._wiring.environment.edge_origin
            handed = make_outside(shop, order, edge, self._ada, self._ago(days), copied=True)
        with self._wiring.engine.connect() as db:
            store_id = db.execute(select(stores.c.id).where(stores.c.key == KEY)).scalar_one()
        door = OutsideShelf(self._wiring.engine)
        for n, button in enumerate(handed.buttons):
            for later, count in enumerate(presses):
                for _ in range(count >> n):
                    door.count(store_id, button.id, self._ago(days - later).date())

    def _exceptions(self) -> None:
        """Make a dozen exceptions: for products, a category, phones, a language, shoppers; one that is over."""
        pages = (Placement.PRODUCT_PAGE,)
        green: Json = {"fill": {"kind": "solid", "colour": MOSS}, "text_colour": "#fffdf6"}
        self._except(
            "Jars by the set",
            "People asked whether the price is for one jar.",
            Reach(products=("JL-HEX48",)),
            {"wording": words.JARS},
            57.9,
        )
        self._except(
            "Sets are taken whole",
            "“It” sounded like one thing of the set.",
            Reach(situations=(Situation.SET,), placements=tuple(p for p in Placement if p is not Placement.FLOATING)),
            {"wording": words.SETS},
            57.8,
        )
        self._except(
            "Bees come in spring",
            "Keepers plan by the month, and a reservation is no purchase.",
            Reach(categories=("Bees",)),
            {"look": green},
            57.7,
        )
        self._except(
            "Bees by the month",
            "On cards there is no room for a month.",
            Reach(categories=("Bees",), placements=(Placement.PRODUCT_PAGE, Placement.STICKY_BAR)),
            {"wording": words.BEES},
            57.65,
        )
        self._except(
            "Clothes say what to pick",
            "“One” left people looking for what to pick.",
            Reach(categories=("Jackets & veils",), placements=pages),
            {"wording": words.CLOTHES},
            57.6,
        )
        tens = {"kind": "box", "least": 10, "most": 200, "step": 10, "start": 10, "width_px": 72}
        self._except(
            "Frames by ten",
            "A box holds ten frames.",
            Reach(products=("FW-BROOD", "FW-SUPER"), placements=pages),
            {"quantity": tens, "wording": words.TENS},
            57.5,
        )
        self._except(
            "A line is measured first",
            "It has no price: the shop’s own “Ask us” stays.",
            Reach(products=("EX-LINE",)),
            {"placement": {"shown": False}},
            57.4,
        )
        self._except(
            "No bar when sold out",
            "A bar that cannot be pressed only takes room.",
            Reach(situations=(Situation.SOLD_OUT,), placements=(Placement.STICKY_BAR,)),
            {"placement": {"shown": False}},
            57.3,
        )
        self._except(
            "Larger for thumbs",
            "On phones the page’s button is what is looked for.",
            Reach(placements=pages, devices=(Device.PHONE,)),
            {"look": {"padding": {"top": 16, "bottom": 16}}},
            57.2,
        )
        self._except(
            "Arabic stands taller",
            "Its letters are small at the same size.",
            Reach(languages=(words.AR,), placements=pages),
            {"look": {"type": {"size_px": 17}}},
            57.1,
        )
        self._except(
            "Keepers go on to pay",
            "Who is signed in has bought here before.",
            Reach(placements=(Placement.STICKY_BAR,), shoppers=(ShopperKind.SIGNED_IN,)),
            {"afterwards": {"kind": "basket"}},
            57,
        )
        self._except(
            "Autumn fair",
            "For the week of the fair only.",
            Reach(categories=("Hives",)),
            {"wording": {"ready": {words.EN: "At the fair price"}}},
            56.9,
            30,
        )

    def _trial(self) -> None:
        with self._wiring.open_shop(KEY) as shop:
            drawing = trials.draw_trial(
                shop,
                "Does the price belong on the button?",
                Reach(placements=(Placement.PRODUCT_PAGE,)),
                {"wording": {"ready": {words.EN: "Take it home, {price}"}}},
                Measure.ADDED,
                0.2,
                3,
                "thornmere-price",
                self._ago(27),
            )
            trials.start_trial(shop, drawing.number, self._ago(26))

    def _later_changes(self) -> None:
        """Leave work to do: mistakes that the checks find, and one conflict that is meant to be seen."""
        self._change("baseline", {"look": {"hover": {"fill": {"kind": "solid", "colour": "#8a7040"}}}}, 2)
        added = {words.EN: "It is in your skep", words.DE: "Liegt jetzt im Bienenkorb"}
        self._change("place:listing_card", {"wording": {"added": added}}, 1)
        self._except(
            "Hives ask for the frame",
            "“Pick one first” left people looking for what to pick.",
            Reach(categories=("Hives",), situations=(Situation.CHOICE,), placements=(Placement.PRODUCT_PAGE,)),
            {"wording": words.FRAMES},
            0.5,
        )
        self._except(
            "Reduced prices say so",
            "A trial of the idea, on the winter roof and the large set of jars.",
            Reach(products=("HV-ROOF", "JL-HEX144"), placements=(Placement.PRODUCT_PAGE,)),
            {"wording": words.WINTER},
            0.4,
        )
        self._except(
            "Roofs before the frost",
            "The shop’s October letter promised these words.",
            Reach(products=("HV-ROOF",), placements=(Placement.PRODUCT_PAGE,)),
            {"wording": {"ready": {words.EN: "Cover them up"}}},
            0.3,
        )

    def _shoppers(self, start: float, end: float, seed: int) -> None:
        from uptick.cli.outcome import follow_run

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
            run = follow_run(client, wish)
        if run["state"] != "done":
            raise RuntimeError(f"The practice shoppers did not arrive: {run['says']}")
