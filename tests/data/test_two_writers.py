"""Everything that two people can change of a draft in the same second: one change is kept, the other person is told."""

import io
from collections.abc import Callable
from contextlib import suppress
from typing import Any

import pytest
from PIL import Image

from tests.data.test_two_at_once import Act, at_once, draw, errors
from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA
from uptick.core.button.document import Device, Placement
from uptick.core.errors import NothingToUndo, Stale, WrongTrialState
from uptick.core.outside.handed import Order
from uptick.core.rules.pointed import PointedPlace
from uptick.core.rules.reach import Reach
from uptick.core.scroll.study import Study, StudyLine
from uptick.usecases import edit, looks, pointing, study, texts, trials
from uptick.usecases.edit import Wish
from uptick.usecases.outside import make_outside
from uptick.usecases.ports import Pace, Person, Shop
from uptick.usecases.publish import publish, take_back
from uptick.wiring import Wiring

BEA = Person(2, "Bea", "bea@example.test", ("sample",))
Write = Callable[[Shop, int, Person], Any]


def layer(shop: Shop, version: int, who: Person) -> Any:
    return edit.change_layer(shop, "baseline", {"look": {"radius": 30 + who.id}}, version, who, NOW)


def exception(shop: Shop, version: int, who: Person) -> Any:
    wish = Wish(f"By {who.name}", "why", Reach(devices=(Device.PHONE,)))
    return edit.add_exception(shop, wish, {"look": {"radius": who.id}}, version, who, NOW)


def exception_change(shop: Shop, version: int, who: Person) -> Any:
    rule = shop.drafts.read().settings.exceptions[0].id
    return edit.change_exception(shop, rule, {"note": f"said by {who.name}"}, version, who, NOW)


def exception_gone(shop: Shop, version: int, who: Person) -> Any:
    return edit.remove_exception(shop, shop.drafts.read().settings.exceptions[0].id, version, who, NOW)


def look(shop: Shop, version: int, who: Person) -> Any:
    return looks.keep_look(shop, f"Of {who.name}", {"look": {"radius": 5}}, "", version, who, NOW)


def look_gone(shop: Shop, version: int, who: Person) -> Any:
    return looks.drop_look(shop, "round", version, who, NOW)


def look_used(shop: Shop, version: int, who: Person) -> Any:
    return looks.use_look(shop, "place:product_page", "round", version, who, NOW)


def brand(shop: Shop, version: int, who: Person) -> Any:
    return looks.set_brand(shop, [{"name": who.name, "colour": "#204060"}], version, who, NOW)


def languages(shop: Shop, version: int, who: Person) -> Any:
    return edit.set_languages(shop, ["de" if who is ADA else "fr"], version, who, NOW)


def texts_in(shop: Shop, version: int, who: Person) -> Any:
    written = texts.export_texts(shop, shop.store.language, NOW)
    changed = written.replace('msgstr "', f'msgstr "{who.name} ')
    return texts.import_texts(shop, shop.store.language, changed.encode(), version, who, NOW, dry_run=False)


def place(shop: Shop, version: int, who: Person) -> Any:
    spot = PointedPlace(placement=Placement.PRODUCT_PAGE, selector=f"#buy-{who.id}", where="after")
    return pointing.keep_place(shop, "", spot, version, who, NOW)


def place_gone(shop: Shop, version: int, who: Person) -> Any:
    return pointing.remove_place(shop, next(iter(shop.drafts.read().settings.pointed)), version, who, NOW)


WRITES: list[Write] = [
    layer, exception, exception_change, exception_gone, look, look_gone, look_used, brand, languages, texts_in, place,
    place_gone,
]  # fmt: skip


@pytest.fixture
def stocked(wiring: Wiring) -> Wiring:
    """A store that has something of everything that can be changed or taken away."""
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        draft = exception(shop, shop.drafts.read().version, ADA)
        draft = looks.keep_look(shop, "Round", {"look": {"radius": 30}}, "", draft.version, ADA, NOW)
        place(shop, draft.version, ADA)
        publish(shop, "first", ADA, NOW, despite=("findings",))
    return wiring


def version_of(wiring: Wiring) -> int:
    with wiring.open_shop("sample") as shop:
        return shop.drafts.read().version


def by(write: Write, version: int, who: Person) -> Act:
    return lambda shop: write(shop, version, who)


@pytest.mark.parametrize("write", WRITES)
def test_of_two_who_saw_the_same_draft_one_is_told(stocked: Wiring, write: Write) -> None:
    seen = version_of(stocked)
    outcomes = at_once(stocked, by(write, seen, ADA), by(write, seen, BEA))
    assert errors(outcomes) == [Stale], outcomes
    assert version_of(stocked) == seen + 1


@pytest.mark.parametrize("write", WRITES)
def test_whoever_is_told_sees_the_other_change_and_can_do_theirs_again(stocked: Wiring, write: Write) -> None:
    seen = version_of(stocked)
    with stocked.open_shop("sample") as shop:
        layer(shop, seen, BEA)
    with stocked.open_shop("sample") as shop, pytest.raises(Stale):
        write(shop, seen, ADA)
    with stocked.open_shop("sample") as shop:
        write(shop, seen + 1, ADA)
    with stocked.open_shop("sample") as shop:
        settings = shop.drafts.read().settings
    if write is not layer:
        assert settings.baseline["look"]["radius"] == 30 + BEA.id


def test_one_persons_undo_in_two_tabs_takes_back_one_step(stocked: Wiring) -> None:
    seen = version_of(stocked)
    with stocked.open_shop("sample") as shop:
        layer(shop, seen, ADA)
    with stocked.open_shop("sample") as shop:
        brand(shop, seen + 1, ADA)
    undo: Act = lambda shop: edit.undo(shop, ADA, NOW)  # noqa: E731
    told = errors(at_once(stocked, undo, undo))
    assert told == [Stale], told
    with stocked.open_shop("sample") as shop:
        settings = shop.drafts.read().settings
    assert settings.baseline["look"]["radius"] == 30 + ADA.id
    assert settings.brand.seeds == ()


def test_two_people_undo_each_their_own(stocked: Wiring) -> None:
    seen = version_of(stocked)
    with stocked.open_shop("sample") as shop:
        layer(shop, seen, ADA)
    with stocked.open_shop("sample") as shop:
        brand(shop, seen + 1, BEA)
    outcomes = at_once(stocked, lambda shop: edit.undo(shop, ADA, NOW), lambda shop: edit.undo(shop, BEA, NOW))
    # Both are kept, or the slower is told and has lost nothing: never is one person's step taken back by the other.
    assert errors(outcomes) in ([], [Stale]), outcomes
    for who in (ADA, BEA):
        with stocked.open_shop("sample") as shop, suppress(NothingToUndo):
            edit.undo(shop, who, NOW)
    with stocked.open_shop("sample") as shop:
        settings = shop.drafts.read().settings
    assert settings.baseline["look"].get("radius") != 30 + ADA.id
    assert settings.brand.seeds == ()


def test_a_roll_back_beside_a_release_leaves_one_of_them_newest_and_tells_the_other(stocked: Wiring) -> None:
    with stocked.open_shop("sample") as shop:
        layer(shop, shop.drafts.read().version, ADA)
    with stocked.open_shop("sample") as shop:
        publish(shop, "second", ADA, NOW, despite=("findings",))
    with stocked.open_shop("sample") as shop:
        exception_change(shop, shop.drafts.read().version, BEA)
        layer(shop, shop.drafts.read().version, BEA)
    seen = version_of(stocked)
    outcomes = at_once(
        stocked,
        lambda shop: take_back(shop, 1, "back", ADA, NOW, version=seen, despite=("findings",)),
        lambda shop: publish(shop, "third", BEA, NOW, version=seen, despite=("findings",)),
    )
    assert len(errors(outcomes)) == 1, outcomes
    with stocked.open_shop("sample") as shop:
        assert [release.n for release in shop.releases.all()] == [3, 2, 1]


def test_a_trial_starts_once_and_ends_once(stocked: Wiring, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(trials.plan, "pace_of", lambda *_: Pace(500.0, 10_000, 800, 600))
    with stocked.open_shop("sample") as shop:
        draw(shop)
    outcomes = at_once(
        stocked, lambda shop: trials.start_trial(shop, 1, NOW), lambda shop: trials.start_trial(shop, 1, NOW)
    )
    assert errors(outcomes) == [WrongTrialState]
    outcomes = at_once(
        stocked, lambda shop: trials.close_trial(shop, 1, NOW), lambda shop: trials.close_trial(shop, 1, NOW)
    )
    assert errors(outcomes) == [WrongTrialState]


def test_what_is_no_change_of_the_draft_can_be_done_by_two_at_once(stocked: Wiring) -> None:
    """A study, a picture and a button for outside: the same twice is there once, and nobody is refused."""
    picture = io.BytesIO()
    Image.new("RGB", (20, 10), "#804020").save(picture, "PNG")
    line = StudyLine(name="All", path="/", product="", device=Device.PHONE, why="closed")
    order = Order(products=(PRODUCTS[0].sku,))
    acts: list[Act] = [
        lambda shop: study.keep(shop, Study(version=1, language="en-GB", took_ms=5, lines=(line,)), ADA, NOW),
        lambda shop: looks.bring_picture(shop, picture.getvalue(), "wax.png", ADA, NOW),
        lambda shop: make_outside(shop, order, "http://edge.test", ADA, NOW, copied=True),
    ]
    for act in acts:
        outcomes = at_once(stocked, act, act)
        assert errors(outcomes) == [], outcomes
    with stocked.open_shop("sample") as shop:
        assert len(shop.pictures.all()) == 1
        assert len(shop.outside.all()) == 1
