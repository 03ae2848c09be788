from dataclasses import replace

import pytest

from tests.samples import NOW, PLACES, exception, product, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.document import Moment, Placement
from uptick.core.button.merge import Json
from uptick.core.errors import BadDocument, BadReach, BadWording, NotFound, Stale
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception, change_layer, remove_exception, undo
from uptick.usecases.views import DrawView, view_drawing, view_exceptions, view_floor, view_trace, view_words
from uptick.usecases.views.drawing import DrawQuery
from uptick.usecases.views.why import TraceQuery

PAGE = "place:product_page"


def drawing(made: FakeShop, product: str | None = None) -> DrawView:
    return view_drawing(made.shop, DrawQuery(Placement.PRODUCT_PAGE, product))


def change(made: FakeShop, layer: str, patch: Json) -> None:
    change_layer(made.shop, layer, patch, made.drafts.version, ADA, NOW)


def test_a_change_is_one_step_with_a_label_that_says_what_was_and_is() -> None:
    made = fake_shop()
    change(made, PAGE, {"look": {"radius": 9}})
    change(made, PAGE, {"look": {"radius": 12}})
    assert made.drafts.history(1)[0].label == "Product page: corner radius, 9 → 12"
    assert drawing(made).document.look.radius == 12
    undo(made.shop, ADA, NOW)
    assert drawing(made).document.look.radius == 9


def test_a_reset_value_falls_back_to_the_wider_rule() -> None:
    made = fake_shop()
    change(made, PAGE, {"look": {"radius": 9}})
    change(made, PAGE, {"look": {"radius": None}})
    assert made.drafts.read().settings.layer(PAGE) == {}
    assert made.drafts.history(1)[0].label == "Product page: corner radius, 9 → as the wider rule"


def test_an_emptied_text_shows_what_the_wider_rule_says() -> None:
    made = fake_shop()
    change(made, PAGE, {"wording": {"ready": {"en-GB": "Get it"}}})
    change(made, PAGE, {"wording": {"ready": {"en-GB": ""}}})
    drawn = drawing(made)
    assert next(m for m in drawn.moments if m.moment is Moment.READY).text == "Buy"


REFUSED: list[tuple[str, Json, type[Exception], str]] = [
    ("place:roof", {"look": {"radius": 1}}, NotFound, "no layer 'place:roof'"),
    (PAGE, {"look": {"radius": 4000}}, BadDocument, "radius"),
    (PAGE, {"look": {"fill": {"colour": "#ffffff"}}}, BadDocument, "replaced whole"),
    (PAGE, {"look": {"type": {"weight": 200}}}, BadDocument, "Figtree has 300 to 900"),
    (PAGE, {"icon": {"kind": "shipped", "name": "unicorn"}}, BadDocument, "no icon 'unicorn'"),
    (PAGE, {"wording": {"ready": {"en-GB": "{cost}"}}}, BadWording, "no live value"),
    ("baseline", {"look": {"fill": None}}, BadDocument, r"look\.fill"),
]


@pytest.mark.parametrize(("layer", "patch", "error", "says"), REFUSED)
def test_what_makes_no_button_is_refused_and_nothing_is_lost(
    layer: str, patch: Json, error: type[Exception], says: str
) -> None:
    made = fake_shop()
    before = made.drafts.read()
    with pytest.raises(error, match=says):
        change(made, layer, patch)
    assert made.drafts.read() == before


def test_a_change_on_an_older_draft_is_refused() -> None:
    made = fake_shop()
    change(made, PAGE, {"look": {"radius": 9}})
    with pytest.raises(Stale):
        change_layer(made.shop, PAGE, {"look": {"radius": 1}}, 1, ADA, NOW)


def test_an_exception_is_made_traced_and_removed() -> None:
    made = fake_shop()
    layer: Json = {"wording": {"ready": {"en-GB": "Just this"}}}
    reach = Reach(products=("A1",))
    add_exception(made.shop, Wish("Only A1", "asked for by the buyer", reach), layer, 1, ADA, NOW)
    told = view_trace(made.shop, TraceQuery(Placement.LISTING_CARD, "wording.ready.en-GB", "A1"))
    assert [(line.of.title, line.of.value) for line in told.lines] == [
        ("Only A1", "Just this"),
        ("Store baseline", "Buy"),
    ]
    assert told.lines[0].of.note == "asked for by the buyer"
    assert [f.shown.text for f in told.filled] == ["Just this"]
    (listed,) = view_exceptions(made.shop)
    assert (listed.reach_words, listed.products) == ("Thing A1", 1)
    assert [(f.path, f.value, f.dead) for f in listed.fields] == [("wording.ready.en-GB", "Just this", False)]
    remove_exception(made.shop, "e1", made.drafts.version, ADA, NOW)
    assert view_exceptions(made.shop) == ()
    with pytest.raises(NotFound, match="no exception 'e1'"):
        remove_exception(made.shop, "e1", made.drafts.version, ADA, NOW)


def test_a_removal_can_be_undone_after_somebody_has_added_another() -> None:
    made = fake_shop()
    wish = Wish("one", "x", Reach(products=("A1",)))
    add_exception(made.shop, wish, {"look": {"radius": 1}}, made.drafts.version, ADA, NOW)
    (first,) = made.drafts.read().settings.exceptions
    remove_exception(made.shop, first.id, made.drafts.version, ADA, NOW)
    add_exception(made.shop, replace(wish, name="two"), {}, made.drafts.version, replace(ADA, id=2, name="Bob"), NOW)
    undo(made.shop, ADA, NOW)
    assert [rule.name for rule in made.drafts.read().settings.exceptions] == ["one", "two"]


def test_ids_of_removed_exceptions_do_not_come_back_while_later_ones_live() -> None:
    made = fake_shop()
    for name in ("one", "two"):
        add_exception(made.shop, Wish(name, "x", Reach(products=("A1",))), {}, made.drafts.version, ADA, NOW)
    remove_exception(made.shop, "e1", made.drafts.version, ADA, NOW)
    add_exception(made.shop, Wish("three", "x", Reach(products=("A1",))), {}, made.drafts.version, ADA, NOW)
    assert [e.id for e in made.drafts.read().settings.exceptions] == ["e2", "e4"]


def test_an_exception_for_nothing_known_is_refused() -> None:
    made = fake_shop()
    with pytest.raises(BadReach, match="Z9"):
        add_exception(made.shop, Wish("x", "x", Reach(products=("Z9",))), {}, 1, ADA, NOW)


def test_a_drawing_says_which_layer_an_edit_goes_to_and_what_it_sets_itself() -> None:
    made = fake_shop(settings(exception(1, {"look": {"radius": 9}}, products=("A1",))))
    narrow, plain = drawing(made, "A1").editing, drawing(made, "A2").editing
    assert (narrow.layer, narrow.title, narrow.own) == ("exception:e1", "Exception 1", ("look.radius",))
    assert (plain.layer, plain.title, plain.own) == ("place:product_page", "Product page", ())
    assert [hung.placement for hung in drawing(made, "A2").hanging] == list(PLACES)
    with pytest.raises(NotFound, match="No product has the code 'Z9'"):
        drawing(made, "Z9")
    with pytest.raises(NotFound, match="catalogue is empty"):
        drawing(fake_shop(products=[]))


def test_the_floor_shows_each_situation_where_a_product_needs_it() -> None:
    made = fake_shop(settings(exception(1, {"look": {"radius": 9}}, products=("A1",))))
    floor = view_floor(made.shop, NOW.date(), 14, NOW)
    page = floor.rows[0]
    assert [(c.column, c.products) for c in page.cells] == [
        ("plain", 3), ("choice", 1), ("set", 1), ("pre_order", 1), ("sold_out", 1), ("in_basket", 3),
    ]  # fmt: skip
    assert [(m.name, m.products) for m in page.cells[0].exceptions] == [("Exception 1", 1)]
    assert (page.cells[0].shown, page.cells[0].clicked) == (200, 50)
    assert (page.shown, page.clicked) == (200, 50)
    assert floor.refused == {"robot": 3}
    plain_only = view_floor(fake_shop(products=[product("A1")]).shop, NOW.date(), 14, NOW)
    assert plain_only.rows[0].cells[1].button is None
    empty = view_floor(fake_shop(products=[]).shop, NOW.date(), 14, NOW)
    assert all(cell.button is None for row in empty.rows for cell in row.cells)


def test_words_stand_by_moment_and_exceptions_under_what_they_narrow() -> None:
    text: Json = {"wording": {"ready": {"en-GB": "{name}, {price}"}}}
    made = fake_shop(settings(exception(1, text, categories=("Tools",), placements=(Placement.PRODUCT_PAGE,))))
    sheet = view_words(made.shop)
    named = [(row.moment.value, row.exception_name) for row in sheet.rows[:2]]
    assert named == [("ready", ""), ("ready", "Exception 1")]
    (cell,) = sheet.rows[1].cells
    assert cell.text == "A far longer thing than the others, £1,299.00"
    assert cell.product == "A far longer thing than the others"
    assert cell.width_px > cell.room_px == 320
    assert cell.from_layer == cell.layer == "exception:e1"
    assert (sheet.rows[0].cells[0].layer, sheet.rows[0].cells[0].from_layer) == ("place:product_page", "baseline")
