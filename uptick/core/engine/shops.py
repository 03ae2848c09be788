"""All the stores that a process has worked out, under one limit of memory that is fair among them."""

from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from threading import Lock

from uptick.core.drawing.kit import Kit
from uptick.core.engine.goods import Goods, goods_of
from uptick.core.engine.sizes import deep_bytes
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables
from uptick.core.rules.places import has_places, with_places
from uptick.core.rules.settings import ADDED, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.shop.store import Store

# A store of 50,000 products with 200 exceptions takes about 120 MB; the studio runs beside other programs.
STORE_BYTES = 200_000_000
PROCESS_BYTES = 600_000_000
_RECENT_SNAPSHOTS = 6
# Several requests may end at once; of so many stores the size is looked at anew.
_USED_LATELY = 8
# So much beyond the limit is waited with until nobody is waiting for an answer.
BURST = 1.25


class CompiledShop:
    """One store, worked out step by step. What is worked out for one state of its settings serves the next."""

    def __init__(self, kit: Callable[[Tables], Kit], most_bytes: int = STORE_BYTES) -> None:
        self.tables = Tables()
        self.kit = kit(self.tables)
        self._most = most_bytes
        self._recent: list[Snapshot] = []
        self._goods: Goods | None = None
        self._goods_bytes = 0
        self._placed: list[tuple[Store, object, Store]] = []
        self._lock = Lock()
        # How many kinds of button have been checked, of how many; None while nothing is.
        self.progress: tuple[int, int] | None = None

    def tell_progress(self, done: int, of: int) -> None:
        """Note how many steps of how many are done."""
        self.progress = (done, of)

    def placed(self, store: Store, settings: Settings) -> Store:
        """Return a store with the containers of the places that settings add; the same one for the same places."""
        if not has_places(settings):
            return store
        adds = (settings.pointed, [bool(settings.placements.get(place)) for place in ADDED])
        with self._lock:
            for of, added, placed_store in self._placed:
                if (of is store or placed_store is store) and added == adds:
                    return placed_store
            placed_store = with_places(store, settings)
            self._placed = [(store, adds, placed_store), *self._placed[: _RECENT_SNAPSHOTS - 1]]
        return placed_store

    def at(self, settings: Settings, products: Sequence[Product], store: Store) -> Snapshot:
        """Return the store as these settings make it; `settings` are as they count on the day that is looked at."""
        store = self.placed(store, settings)
        goods = self._sorted(products)
        with self._lock:
            for n, known in enumerate(self._recent):
                same = known.goods is goods and known.store is store
                if same and (known.settings is settings or known.settings == settings):
                    self._recent.append(self._recent.pop(n))
                    return known
            snapshot = Snapshot(settings, goods, store, self.kit, self.tables)
            self._recent.append(snapshot)
            del self._recent[:-_RECENT_SNAPSHOTS]
        self.tables.grow_older()
        return snapshot

    def _sorted(self, products: Sequence[Product]) -> Goods:
        goods = self._goods
        if goods is None or goods.products is not products:
            goods = self._goods = goods_of(products)
            self._goods_bytes = deep_bytes(goods, (Product,))
        return goods

    @property
    def size(self) -> int:
        """Bytes that it holds."""
        return self.tables.size + self._goods_bytes

    def keep_within(self, burst: float = 1.0) -> None:
        """Forget what was not asked for the longest where it has grown beyond its limit, and so many times that."""
        if self.tables.size > self._most * burst:
            self.tables.forget_oldest(round(self._most * 0.6))

    def sizes(self) -> dict[Step, int]:
        """Return the bytes that each step holds."""
        return self.tables.sizes()


class Shops:
    """The one owner of what is kept of all stores."""

    def __init__(self, most_bytes: int = PROCESS_BYTES, most_of_one: int = STORE_BYTES) -> None:
        self.most_bytes, self.most_of_one = most_bytes, most_of_one
        self._shops: OrderedDict[Hashable, CompiledShop] = OrderedDict()
        # As they were when each store was used last: what is not used does not grow.
        self._sizes: dict[Hashable, int] = {}
        self._lock = Lock()
        self.let_go = 0

    def of(self, place: Hashable, kit: Callable[[Tables], Kit]) -> CompiledShop:
        """Return what is kept of a store; it counts as the one used last."""
        with self._lock:
            shop = self._shops.get(place)
            if shop is None:
                shop = self._shops[place] = CompiledShop(kit, self.most_of_one)
            self._shops.move_to_end(place)
        return shop

    def settle(self, burst: float = 1.0) -> None:
        """Bring memory back under the limit, where it is beyond so many times that: each store, then whole stores.

        First goes the store that was not used the longest among those that take more than an equal share, so that a
        large store never drives many small ones out. The one used last stays; its own limit is the smaller.
        """
        with self._lock:
            for place in list(self._shops)[-_USED_LATELY:]:
                self._shops[place].keep_within(burst)
                self._sizes[place] = self._shops[place].size
            most = self.most_bytes * burst
            while sum(self._sizes.values()) > most and len(self._shops) > 1:
                share = self.most_bytes / len(self._shops)
                others = list(self._shops)[:-1]
                self._let_go(next((other for other in others if self._sizes.get(other, 0) > share), others[0]))

    def _let_go(self, place: Hashable) -> None:
        del self._shops[place]
        self._sizes.pop(place, None)
        self.let_go += 1

    @property
    def size(self) -> int:
        """Bytes that all of them hold."""
        with self._lock:
            return sum(shop.size for shop in self._shops.values())

    def __len__(self) -> int:
        return len(self._shops)

    def forget(self) -> None:
        """Let all stores go."""
        with self._lock:
            self._shops.clear()
            self._sizes.clear()

    def told(self) -> dict[str, int]:
        """Return how full it is: stores that are kept, their bytes, the limit, and how many stores were let go."""
        return {"stores": len(self), "bytes": self.size, "most_bytes": self.most_bytes, "let_go": self.let_go}
