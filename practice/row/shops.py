"""Which shops stand in the row, what they sell, and what is odd about each."""

from dataclasses import dataclass

from practice.goods import Goods, all_goods


@dataclass(frozen=True, slots=True)
class RowShop:
    """One shop. `shape` says how it is made; the colours are paper, ink and what is pressed."""

    key: str
    name: str
    shape: str
    motto: str
    colours: tuple[str, str, str]
    language: str = "en-GB"

    @property
    def goods(self) -> list[Goods]:
        """Return what it sells: a dozen of the one catalogue."""
        every = [g for g in all_goods().values() if g.price is not None]
        if self.shape in {"two-options", "swatches"}:
            every = [g for g in every if g.options]
        else:
            every = [g for g in every if not g.options]
        return every[:12]


ROW = {
    shop.key: shop
    for shop in (
        RowShop(
            "tollgate",
            "Tollgate Honey House",
            "form-token",
            "A form with a hidden word in it",
            ("#f7f3ea", "#40241a", "#8c3b1e"),
        ),
        RowShop(
            "monogram",
            "Monogram & Mould",
            "two-options",
            "Two things to choose, one to engrave",
            ("#eef3f6", "#16303d", "#1f5d78"),
        ),
        RowShop(
            "veilrow",
            "Veil Row",
            "swatches",
            "Swatches instead of a list",
            ("#f6eff2", "#3b1630", "#7a2a5e"),
        ),
        RowShop(
            "scullion",
            "Scullion’s Counter",
            "json-header",
            "A basket that speaks JSON",
            ("#f1f5ec", "#1f2d16", "#3c6b25"),
        ),
        RowShop(
            "footpath",
            "Footpath Bees",
            "plain-link",
            "A link puts it into the basket",
            ("#faf4e2", "#3d3108", "#7a5f00"),
        ),
        RowShop(
            "driftcomb",
            "Driftcomb",
            "one-page",
            "One page that never loads again",
            ("#edf1f7", "#1a2342", "#34468f"),
        ),
        RowShop(
            "latterwax",
            "Latterwax",
            "taken-over",
            "Drawn by the server, then by a framework",
            ("#f4f0fa", "#2a1a42", "#5b3a94"),
        ),
        RowShop(
            "ribbon",
            "Ribbon Lane",
            "strip-endless",
            "A strip to push, a list without an end",
            ("#eef6f4", "#10322c", "#0f6a5a"),
        ),
        RowShop(
            "boxwell",
            "Boxwell",
            "fixed-cards",
            "Cards of one height that cut off the rest",
            ("#f8f1ea", "#402a12", "#9a5312"),
        ),
        RowShop(
            "loft",
            "Loft & Ladder",
            "wrapped",
            "Turned, filtered, clipped, under a heavy header",
            ("#eceff0", "#1d2629", "#40535a"),
        ),
        RowShop(
            "bayt",
            "بيت النحل",
            "right-to-left",
            "من اليمين إلى اليسار",
            ("#fbf3e6", "#3a2410", "#86480f"),
            "ar",
        ),
        RowShop(
            "hedgerow",
            "Hedgerow & Hive",
            "unmarked",
            "A theme that nobody may change",
            ("#f3f4ea", "#2b2f14", "#5a5f0f"),
        ),
        RowShop(
            "gate",
            "The Keepers’ Gate",
            "password",
            "Behind a password",
            ("#eef0ea", "#262b1c", "#56622f"),
        ),
        RowShop(
            "evergreen",
            "Evergreen Wax",
            "old-copy",
            "Served from an old copy",
            ("#ebf3ee", "#12301f", "#22633f"),
        ),
    )
}
