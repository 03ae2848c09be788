from dataclasses import dataclass, field
from datetime import datetime, timedelta

import pytest

from tests.samples import NOW, PRODUCTS, product
from tests.usecases.fakes import ADA, fake_shop
from uptick.core.errors import BadCatalogue, NotSignedIn, WrongPassword
from uptick.core.rules.settings import Settings
from uptick.core.shop.store import Store
from uptick.usecases import sign_in as module
from uptick.usecases.importing import import_catalogue
from uptick.usecases.ports import Person, StoreLine
from uptick.usecases.sign_in import SESSION_LASTS, sign_in, sign_out, token_name, who_is
from uptick.wiring import hash_password, verify_password


@dataclass
class FakeAccounts:
    sessions: dict[str, datetime] = field(default_factory=dict)

    def find(self, email: str) -> tuple[Person, str] | None:
        return (ADA, "stored") if email == ADA.email else None

    def start_session(self, user_id: int, token_hash: str, now: datetime, ends_at: datetime) -> None:
        self.sessions[token_hash] = ends_at

    def session(self, token_hash: str, now: datetime) -> Person | None:
        return ADA if self.sessions.get(token_hash, now) > now else None

    def end_session(self, token_hash: str) -> None:
        self.sessions.pop(token_hash, None)

    def add_person(self, email: str, name: str, password_hash: str) -> int:
        raise AssertionError

    def add_store(self, store: Store, settings: Settings, owner: int, now: datetime) -> None:
        raise AssertionError

    def stores_of(self, person: Person) -> tuple[StoreLine, ...]:
        raise AssertionError

    def store_keys(self) -> list[str]:
        raise AssertionError


def right(password: str, stored: str) -> bool:
    return password == "right" and stored == "stored"


def test_a_session_lasts_a_fortnight_and_ends_at_once_when_signed_out() -> None:
    accounts = FakeAccounts()
    assert sign_in(accounts, ADA.email, "right", NOW, "token", right) == ADA
    assert "token" not in accounts.sessions
    assert token_name("token") in accounts.sessions
    assert who_is(accounts, "token", NOW + SESSION_LASTS - timedelta(seconds=1)) == ADA
    with pytest.raises(NotSignedIn):
        who_is(accounts, "token", NOW + SESSION_LASTS)
    sign_out(accounts, "token")
    with pytest.raises(NotSignedIn):
        who_is(accounts, "token", NOW)
    with pytest.raises(NotSignedIn):
        who_is(accounts, None, NOW)


@pytest.mark.parametrize(("email", "password"), [(ADA.email, "wrong"), ("nobody@example.test", "right")])
def test_a_wrong_password_and_an_unknown_address_are_told_alike(email: str, password: str) -> None:
    asked: list[str] = []

    def verify(password: str, stored: str) -> bool:
        asked.append(stored)
        return right(password, stored)

    with pytest.raises(WrongPassword, match="do not belong together"):
        sign_in(FakeAccounts(), email, password, NOW, "t", verify)
    assert len(asked) == 1


def test_passwords_are_kept_as_argon2id_and_so_is_the_one_that_nobody_has() -> None:
    """Reference: RFC 9106, the encoded form of Argon2id."""
    kept = hash_password("ten-frames")
    assert kept.startswith("$argon2id$v=19$")
    assert verify_password("ten-frames", kept)
    assert not verify_password("nine-frames", kept)
    assert module._NOBODY.split("$")[1:4] == kept.split("$")[1:4]
    assert not verify_password("ten-frames", module._NOBODY)
    assert not verify_password("ten-frames", "not a hash")


def test_an_import_takes_what_is_new_and_changed_and_keeps_what_the_file_lacks() -> None:
    made = fake_shop()
    head = b"sku,name,category,price,currency,url,stock\n"
    body = b"A1,Thing A1,Tools,13.00,GBP,/p/A1,3\nN1,New,Jars,1,GBP,/p/N1,1\nBAD,x,y,z,GBP,/p,1\n"
    tried = import_catalogue(made.shop, head + body, ADA, NOW, dry_run=True)
    assert made.catalogue.all() == PRODUCTS
    assert not tried.applied
    report = import_catalogue(made.shop, head + body, ADA, NOW)
    assert report.applied
    assert ([c.sku for c in report.new], [c.sku for c in report.changed]) == (["N1"], ["A1"])
    assert report.refused[0].line == 4
    assert made.catalogue.products["A1"].price_minor == 1300
    assert made.catalogue.products["A2"] == product("A2", price=129_900, name="A far longer thing than the others")
    assert made.catalogue.last_import() is not None
    with pytest.raises(BadCatalogue):
        import_catalogue(made.shop, b"\xff", ADA, NOW)
