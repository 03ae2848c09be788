"""Builds things and connects them, for the servers and the command line."""

import gc
import hashlib
import json
import secrets
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING
from zoneinfo import ZoneInfo

from itsdangerous import BadSignature, URLSafeSerializer, URLSafeTimedSerializer
from pydantic import SecretStr
from pydantic_settings import BaseSettings, SettingsConfigDict
from sqlalchemy import Connection, Engine

from uptick.core.button.merge import Json
from uptick.core.button.plain_text import unfit_in
from uptick.core.drawing.kit import IconShape, Kit
from uptick.core.engine.shops import BURST, PROCESS_BYTES, Shops
from uptick.core.engine.tables import Tables
from uptick.core.errors import NotFound, NotSetUp
from uptick.core.release.manifest import wire_basket
from uptick.core.shop.local_shops import LocalShops
from uptick.core.shop.store import Store
from uptick.core.type.fontbook import FontBook, FontFile, parse_unicode_range
from uptick.data.accounts import PgAccounts
from uptick.data.catalogue import PgCatalogue
from uptick.data.database import make_engine
from uptick.data.drafts import PgDrafts
from uptick.data.heads import hold_store, read_heads
from uptick.data.outside import PgOutside
from uptick.data.pictures import PgPictures, StorePictures
from uptick.data.readouts import SignalReadouts
from uptick.data.releases import PgReleases
from uptick.data.shop_side import PgShopSide
from uptick.data.trials import PgTrials
from uptick.usecases.ports import Accounts, Shop
from uptick.usecases.publish import draft_manifest

if TYPE_CHECKING:
    from uptick.data.shop_visit import HttpShopVisit
    from uptick.edge.app import EdgeParts
    from uptick.web.parts import Parts

ROOT = Path(__file__).resolve().parent.parent
ASSETS = Path(__file__).resolve().parent / "assets"
PREVIEW_LASTS_S = 4 * 3600
# So often the young garbage is looked through before all of it is.
YOUNG_LOOKS = 40


class Environment(BaseSettings):
    """What the environment says, or else what `./start` has written down for the command line."""

    model_config = SettingsConfigDict(env_prefix="UPTICK_", env_file=ROOT / ".local" / "environment", extra="ignore")

    database_url: str = "postgresql+psycopg://uptick@127.0.0.1:8805/uptick"
    secret: SecretStr = SecretStr("")
    studio_origin: str = "http://127.0.0.1:8800"
    edge_origin: str = "http://127.0.0.1:8801"
    practice_origin: str = "http://localhost:8802"
    edge_part: int = 0
    # What of this machine may be a shop, as localhost:8802,*.localhost:9300-9399; nothing where nobody says it.
    local_shops: str = ""
    # How much of what was worked out a process keeps, of all stores together.
    engine_mb: int = PROCESS_BYTES // 1_000_000


LEAST_SECRET = 32


def require_secret(environment: Environment) -> str:
    """Return what cookies and links are signed with.

    Raises:
        NotSetUp: There is none, or one that can be guessed.
    """
    secret = environment.secret.get_secret_value()
    if len(secret) < LEAST_SECRET:
        raise NotSetUp(
            f"UPTICK_SECRET must have at least {LEAST_SECRET} characters that nobody can guess; it has {len(secret)}. "
            "./start makes one; elsewhere: python -c 'import secrets; print(secrets.token_hex(32))'"
        )
    return secret


def clock() -> datetime:
    """Return the time now, in UTC."""
    return datetime.now(UTC)


@lru_cache(maxsize=1)
def load_kit() -> Kit:
    """Return the shipped fonts and icons, read once."""
    icons = json.loads((ASSETS / "icons.json").read_text())
    return Kit(
        FontBook(_font_files()),
        {name: IconShape(i["path"], i["box"], tuple(i["words"]), "points" in i) for name, i in icons.items()},
    )


def _font_files() -> list[FontFile]:
    return [
        FontFile(
            family=entry["family"],
            name=entry["name"],
            file=entry["file"],
            content=(ASSETS / "fonts" / entry["file"]).read_bytes(),
            ranges=parse_unicode_range(entry["unicode_range"]),
            lightest=entry["lightest"],
            heaviest=entry["heaviest"],
            fallback=entry["fallback"],
            stands_in=entry.get("stands_in", False),
        )
        for entry in json.loads((ASSETS / "fonts.json").read_text())
    ]


@lru_cache(maxsize=1)
def served_fonts() -> dict[str, str]:
    """Return file names as they are served, by hash, with the file that each stands for."""
    return {
        f"{hashlib.sha256((ASSETS / 'fonts' / f.file).read_bytes()).hexdigest()[:16]}.woff2": f.file
        for f in load_kit().fonts.files
    }


def hash_password(password: str) -> str:
    """Return the Argon2id hash of a password."""
    from pwdlib import PasswordHash

    return PasswordHash.recommended().hash(password)


def verify_password(password: str, stored: str) -> bool:
    """Tell whether a password is the one that was hashed (Argon2, RFC 9106); False where the hash cannot be read."""
    from argon2.exceptions import InvalidHashError
    from pwdlib import PasswordHash
    from pwdlib.exceptions import PwdlibError

    try:
        return PasswordHash.recommended().verify(password, stored)
    except (PwdlibError, InvalidHashError):
        return False


class Wiring:
    """One process's engine and what hangs on it."""

    def __init__(self, environment: Environment | None = None, *, pool_size: int = 5) -> None:
        self.environment = environment or Environment()
        self.engine: Engine = make_engine(self.environment.database_url, pool_size=pool_size)

    @contextmanager
    def open_accounts(self) -> Iterator[Accounts]:
        with self.engine.begin() as connection:
            yield PgAccounts(connection)

    @contextmanager
    def look_up_accounts(self) -> Iterator[Accounts]:
        """Open the accounts for single steps, each its own transaction: two trips less to the database."""
        with self.engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            yield PgAccounts(connection)

    @contextmanager
    def open_shop(self, key: str) -> Iterator[Shop]:
        """Open a store in one transaction, which is kept when the block ends well.

        Raises:
            NotFound: There is no such store.
        """
        with self.engine.begin() as connection:
            yield shop_on(connection, key)
        shops.settle(BURST)

    @contextmanager
    def open_visit(self, key: str) -> Iterator[tuple[Accounts, Callable[[int], Shop]]]:
        """Open the accounts, and on demand a store, in one transaction, which is kept when the block ends well."""
        with self.engine.begin() as connection:
            yield PgAccounts(connection), lambda person_id: shop_on(connection, key, person_id)
        shops.settle(BURST)

    @contextmanager
    def open_step(self, key: str) -> Iterator[tuple[Accounts, Callable[[int], Shop]]]:
        """Open the same for looking, or for one step of the draft, which is a transaction of its own: two trips less.

        Whoever does more than one step here could be stopped halfway.
        """
        with self.engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            yield PgAccounts(connection), lambda person_id: shop_on(connection, key, person_id)
        shops.settle(BURST)

    def visit_shop(self, store: Store) -> "HttpShopVisit":
        """Return a visitor to a store's own pages.

        Raises:
            OutOfRange: What of this machine may be a shop is said in no way that can be read.
        """
        from uptick.data.shop_visit import HttpShopVisit

        return HttpShopVisit(store, LocalShops.parse(self.environment.local_shops))

    def visit_edge(self, store: Store) -> "HttpShopVisit":
        """Return a visitor to what our own edge serves a store's pages."""
        from uptick.data.shop_visit import HttpShopVisit

        origin = self.environment.edge_origin
        return HttpShopVisit(store.model_copy(update={"origin": origin, "more_origins": ()}), LocalShops.at(origin))

    # What only a server needs is loaded only by servers: commands wait for none of it.
    def studio_parts(self) -> "Parts":
        from uptick.web.parts import Parts

        load_kit().fonts.open_all()
        env, secret = self.environment, require_secret(self.environment)
        return Parts(
            open_accounts=self.look_up_accounts,
            change_accounts=self.open_accounts,
            open_visit=self.open_visit,
            open_step=self.open_step,
            clock=clock,
            new_token=lambda: secrets.token_hex(24),
            verify=verify_password,
            signer=URLSafeSerializer(secret, salt="session"),
            preview_token=self.preview_token,
            studio_dir=ROOT / "studio" / "dist",
            font_dir=ASSETS / "fonts",
            font_files=served_fonts(),
            edge_origin=env.edge_origin,
            practice_origin=env.practice_origin,
            engine=shops.told,
            tidy=tidy,
            visit_shop=self.visit_shop,
            visit_edge=self.visit_edge,
            studio_origin=env.studio_origin,
        )

    def edge_parts(self) -> "EdgeParts":
        from uptick.data.changes import ServedChanges
        from uptick.data.outside import OutsideShelf
        from uptick.data.public import PublicShelf
        from uptick.data.signals import SignalWriter
        from uptick.edge.app import EdgeParts

        require_secret(self.environment)
        return EdgeParts(
            shelf=PublicShelf(self.engine),
            changes=ServedChanges(self.engine),
            outside=OutsideShelf(self.engine),
            writer=SignalWriter(self.engine, self.environment.edge_part),
            clock=clock,
            draft_of=self._draft_of,
            script_dir=ROOT / "storefront" / "dist",
            font_dir=ASSETS / "fonts",
            font_files=served_fonts(),
            origin=self.environment.edge_origin,
            studio_origin=self.environment.studio_origin,
        )

    def preview_token(self, key: str) -> str:
        """Return a signed word with which a store's draft can be looked at on its own pages, for a time."""
        return str(URLSafeTimedSerializer(require_secret(self.environment), salt="draft").dumps(key))

    def _draft_of(self, key: str, token: str) -> Json | None:
        try:
            named = URLSafeTimedSerializer(require_secret(self.environment), salt="draft").loads(
                token, max_age=PREVIEW_LASTS_S
            )
        except BadSignature:
            return None
        if named != key:
            return None
        with self.open_shop(key) as shop:
            return {**draft_manifest(shop), "basket": wire_basket(shop.store.connection)}


# The one owner of what this process has worked out, of all stores together.
shops = Shops(Environment().engine_mb * 1_000_000)


def tidy() -> None:
    """Do what can wait until nobody waits for an answer: bring memory under its limit, and look for garbage.

    From time to time through everything, which takes about 0.2 s in a large shop: left alone, that would come midway
    through an answer.
    """
    shops.settle()
    gc.collect(2 if gc.get_count()[2] > YOUNG_LOOKS else 1)


def _kit_of(engine: Engine, store_id: int) -> Callable[[Tables], Kit]:
    shipped = load_kit()
    return lambda tables: Kit(shipped.fonts, shipped.icons, StorePictures(engine, store_id, tables))


def shop_on(connection: Connection, key: str, person_id: int = 0) -> Shop:
    """Return a store as a person sees it; 0 is the command line."""
    heads = None if unfit_in(key) else read_heads(connection, key)
    if heads is None:
        raise NotFound(f"There is no store {key!r}.", store=key)
    store_id = heads.store_id
    compiled = shops.of((connection.engine.url, store_id), _kit_of(connection.engine, store_id))
    tables = compiled.tables
    store = tables.newest("store", json.dumps(heads.profile), lambda: Store.model_validate(heads.profile))
    today = clock().astimezone(ZoneInfo(store.timezone)).date()
    drafts = PgDrafts(connection, heads, tables, person_id)
    catalogue = PgCatalogue(connection, heads, tables, today)
    releases = PgReleases(connection, heads, tables)

    def hold() -> None:
        hold_store(connection, store_id)
        now = read_heads(connection, key)
        assert now is not None
        for part in (drafts, catalogue, releases):
            part.refresh(now)

    return Shop(
        store=compiled.placed(store, drafts.settings()),
        registered=store,
        compiled=compiled,
        drafts=drafts,
        catalogue=catalogue,
        releases=releases,
        trials=PgTrials(connection, store_id),
        signals=SignalReadouts(connection, store_id),
        pictures=PgPictures(connection, store_id, tables),
        side=PgShopSide(connection, store_id),
        outside=PgOutside(connection, store_id),
        today=today,
        hold=hold,
    )
