"""Exceptions as a designer makes, widens, narrows, switches and looks at them."""

from datetime import date, timedelta

import pytest

from tests.samples import NOW, PLACES, PRODUCTS, exception, product, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.button.merge import Json
from uptick.core.errors import BadDocument, BadReach, NeedsYes, NotFound, OutOfRange, Overtaken
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception, change_exception, change_layer, redo, set_languages, undo
from uptick.usecases.importing import PIECE, ImportProgress, import_catalogue, import_steps, read_ahead
from uptick.usecases.ports import Person
from uptick.usecases.views import (
    ProductsView,
    search,
    view_drawing,
    view_effects,
    view_exceptions,
    view_findings,
    view_floor,
    view_products,
    view_reach,
    view_trace,
    view_words,
)
from uptick.usecases.views.drawing import DrawQuery
from uptick.usecases.views.why import TraceQuery

PAGE = Placement.PRODUCT_PAGE
BOB = Person(2, "Bob", "bob@example.test", ("sample",))
TEXT: Json = {"wording": {"ready": {"en-GB": "Just this"}}}


def with_rule(**reach: object) -> FakeShop:
    return fake_shop(settings(exception(1, TEXT, **reach)))


def change(made: FakeShop, **changes: object) -> None:
    change_exception(made.shop, "e1", changes, made.drafts.version, ADA, NOW)


def text_on(made: FakeShop, place: Placement, sku: str = "A1", device: Device = Device.PHONE) -> str:
    return view_drawing(made.shop, DrawQuery(place, sku, device)).shown.text


def test_a_products_own_text_reaches_page_listing_bar_and_strip_unless_said_otherwise() -> None:
    made = with_rule(products=("A1",))
    assert {text_on(made, place) for place in PLACES} == {"Just this"}
    change(made, reach=Reach(products=("A1",), placements=(PAGE,)))
    assert [text_on(made, place) for place in PLACES] == ["Just this", "Buy", "Buy", "Buy"]


def test_an_exception_is_widened_and_narrowed_and_the_history_says_how() -> None:
    made = with_rule(products=("A1",))
    change(made, reach=view_reach(made.shop, "Tools, on phones, except A1").reach)
    assert made.drafts.history(1)[0].label == "Exception 1: Thing A1 → Tools, on phones, except Thing A1"
    assert (text_on(made, PAGE), text_on(made, PAGE, "A2"), text_on(made, PAGE, "A2", Device.DESKTOP)) == (
        "Buy", "Just this", "Buy",
    )  # fmt: skip


def test_what_is_switched_off_or_asleep_is_as_if_it_were_not_there_and_is_told_in_the_trace() -> None:
    made = with_rule(products=("A1",))
    today = made.today
    cases: list[tuple[Json, str]] = [
        ({"on": False}, "switched off"),
        ({"on": True, "ends_on": today - timedelta(days=1)}, "inactive since 1 March 2026"),
        ({"ends_on": None, "starts_on": today + timedelta(days=1)}, "inactive until 3 March 2026"),
    ]
    for changes, why in cases:
        change(made, **changes)
        assert text_on(made, PAGE) == "Buy"
        told = view_trace(made.shop, TraceQuery(PAGE, "wording.ready.en-GB", "A1"))
        assert [(line.of.title, line.of.inactive) for line in told.lines] == [
            ("Store baseline", ""),
            ("Exception 1", why),
        ]
        assert view_exceptions(made.shop)[0].inactive == why
    change(made, starts_on=today, ends_on=today)
    assert text_on(made, PAGE) == "Just this"


def test_a_trace_is_of_one_device_language_and_kind_of_shopper() -> None:
    made = fake_shop(settings(exception(1, TEXT, shoppers=(ShopperKind.RETURNING,), devices=(Device.PHONE,))))
    query = TraceQuery(PAGE, "wording.ready.en-GB", "A1", Device.PHONE, None, ShopperKind.RETURNING)
    assert [line.of.value for line in view_trace(made.shop, query).lines] == ["Just this", "Buy"]
    for other in (
        TraceQuery(PAGE, "wording.ready.en-GB", "A1", Device.DESKTOP, None, ShopperKind.RETURNING),
        TraceQuery(PAGE, "wording.ready.en-GB", "A1", Device.PHONE),
    ):
        assert [line.of.value for line in view_trace(made.shop, other).lines] == ["Buy"]


def test_the_effects_of_an_exception_are_exactly_the_buttons_that_would_differ_without_it() -> None:
    made = fake_shop(
        settings(
            exception(1, TEXT, categories=("Tools",)),
            exception(2, {"wording": {"ready": {"en-GB": "Mine"}}}, products=("A1",)),
        )
    )
    effects = view_effects(made.shop, "e1")
    assert effects.products == 1
    assert [(c.placement, c.products, c.before.text, c.after.text) for c in effects.changes] == [
        (place, 1, "Buy", "Just this") for place in PLACES
    ]
    change(made, on=False)
    assert view_effects(made.shop, "e1").products == 1
    with pytest.raises(NotFound, match="no exception 'e9'"):
        view_effects(made.shop, "e9")


def test_what_cannot_be_is_refused_and_nothing_is_lost() -> None:
    made = with_rule(products=("A1",))
    before = made.drafts.read()
    with pytest.raises(BadDocument, match="before it starts"):
        change(made, starts_on=date(2026, 5, 2), ends_on=date(2026, 5, 1))
    with pytest.raises(BadDocument, match="colour is none of name"):
        change(made, colour="red")
    with pytest.raises(BadReach, match="no category 'Cheese'"):
        change(made, reach=Reach(categories=("Cheese",)))
    with pytest.raises(BadReach, match="does not speak 'fr-FR'"):
        change(made, reach=Reach(languages=("fr-FR",)))
    with pytest.raises(NotFound):
        change_exception(made.shop, "e9", {"on": False}, made.drafts.version, ADA, NOW)
    assert made.drafts.read() == before


def test_a_vanished_products_exception_is_kept_and_its_name_may_stay() -> None:
    made = with_rule(products=("A1", "B1"))
    made.catalogue.remove(["A1"])
    (listed,) = view_exceptions(made.shop)
    assert (listed.gone, listed.products, listed.inactive) == (("A1",), 1, "")
    change(made, reach=Reach(products=("A1", "B1", "B2")))
    made.catalogue.remove(["B1", "B2"])
    assert view_exceptions(made.shop)[0].inactive == "inactive: not in the catalogue"
    with pytest.raises(BadReach, match="'Z9'"):
        change(made, reach=Reach(products=("A1", "Z9")))


def test_each_designer_takes_back_what_is_theirs() -> None:
    made = fake_shop()
    change_layer(made.shop, "baseline", {"look": {"radius": 9}}, 1, ADA, NOW)
    change_layer(made.shop, "baseline", {"icon": {"kind": "shipped", "name": "basket"}}, 2, BOB, NOW)
    undo(made.shop, ADA, NOW)
    now = made.drafts.read().settings.baseline
    assert (now["look"]["radius"], now["icon"]["kind"]) == (4, "shipped")
    redo(made.shop, ADA, NOW)
    change_layer(made.shop, "baseline", {"look": {"radius": 12}}, made.drafts.version, BOB, NOW)
    with pytest.raises(Overtaken, match=r"baseline\.look\.radius"):
        undo(made.shop, ADA, NOW)
    assert made.drafts.history(1)[0].label == "Store baseline: corner radius, 9 → 12"


def test_an_exception_may_hold_anything_of_a_button() -> None:
    made = fake_shop()
    layer: Json = {
        "quantity": {"kind": "box", "least": 10, "most": 200, "step": 10, "start": 20},
        "afterwards": {"kind": "checkout"},
        "placement": {"shown": False},
        "icon": {"kind": "none"},
    }
    add_exception(made.shop, Wish("By ten", "a box holds ten", Reach(products=("A1",))), layer, 1, ADA, NOW)
    button = view_drawing(made.shop, DrawQuery(PAGE, "A1")).shown.button
    assert button["quantity"] == {"least": 10, "most": 200, "step": 10, "start": 20, "layout": "plain"}
    assert (button["after"], button["shown"]) == ("checkout", False)
    bad: Json = {"quantity": {"kind": "box", "least": 10, "step": 10, "start": 15}}
    with pytest.raises(BadDocument, match="whole steps of 10"):
        change_layer(made.shop, "exception:e1", bad, made.drafts.version, ADA, NOW)


def test_the_plan_is_of_one_device_and_language() -> None:
    made = fake_shop(
        settings(
            exception(1, {"look": {"radius": 9}}, devices=(Device.PHONE,)),
            exception(2, {"placement": {"shown": False}}, placements=(Placement.STRIP,)),
            more=("de-DE",),
        )
    )
    phone = view_floor(made.shop, NOW.date(), 14, NOW, Device.PHONE, "de-DE").rows
    desktop = view_floor(made.shop, NOW.date(), 14, NOW, Device.DESKTOP).rows
    assert [m.id for m in phone[0].cells[0].exceptions] == ["e1"]
    assert desktop[0].cells[0].exceptions == ()
    assert (phone[0].room_px, desktop[0].room_px) == (320, 380)
    assert [row.cells[0].stands for row in desktop] == [True, True, True, False]
    with pytest.raises(OutOfRange, match="one of en-GB or de-DE"):
        view_floor(made.shop, NOW.date(), 14, NOW, None, "fr-FR")
    # German lacks every text: that is about each button of the row, and told once.
    told = view_findings(made.shop, Device.DESKTOP)
    assert {(row.placement, row.look_again) for row in told.rows} >= {(PAGE, 1)}
    assert {c.look_again for c in told.cells if c.placement is PAGE} == {0}


def test_what_is_wrong_with_some_buttons_of_a_row_is_marked_in_their_cells() -> None:
    pale: Json = {"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}}
    made = fake_shop(settings(exception(1, pale, situations=(Situation.SOLD_OUT,), placements=(PAGE,))))
    told = view_findings(made.shop, Device.DESKTOP)
    marked = {c.column for c in told.cells if c.placement is PAGE and c.must_fix}
    assert marked == {"sold_out"}
    assert {row.must_fix for row in told.rows} == {0}


def test_of_many_findings_the_worst_are_told_and_all_of_them_are_counted() -> None:
    wide: Json = {"wording": {"ready": {"en-GB": "Put this thing into the basket with all the others, please"}}}
    pale: Json = {"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}}
    made = fake_shop(settings(exception(1, wide), exception(2, pale, products=("A2",))))
    every = view_findings(made.shop, Device.DESKTOP)
    first = view_findings(made.shop, Device.DESKTOP, most=2)
    assert first.findings == every.findings[:2]
    assert (first.rows, first.cells) == (every.rows, every.cells)
    counts = (first.must_fix, first.look_again, first.notes)
    assert counts == (every.must_fix, every.look_again, every.notes)
    assert sum(counts) == len(every.findings) > 2
    # What is told only when it is read has its sentence and its fixes all the same.
    fit = next(finding for finding in every.findings if finding.rule == "fit")
    assert fit.title.startswith("Too wide by")
    assert "there are" in fit.says
    assert fit.buttons


def test_how_far_the_checks_have_come_is_told_while_they_run_and_then_no_more() -> None:
    made = fake_shop(settings(exception(1, TEXT, products=("A1",))))
    told: list[tuple[int, int] | None] = []
    shops_own = made.shop.compiled.tell_progress

    def listen(done: int, of: int) -> None:
        shops_own(done, of)
        told.append(made.shop.compiled.progress)

    made.shop.compiled.tell_progress = listen  # type: ignore[method-assign]
    view_findings(made.shop)
    assert told
    assert [done for done, _ in filter(None, told)] == list(range(len(told)))
    assert {of for _, of in filter(None, told)} == {len(told)}
    assert made.shop.compiled.progress is None


def test_products_are_found_by_any_of_their_words_and_all_of_them_are_counted() -> None:
    made = fake_shop()
    every = view_products(made.shop, "")
    assert every.total == len(PRODUCTS)
    assert [found_product.sku for found_product in every.products] == [found_product.sku for found_product in PRODUCTS][
        :50
    ]
    by_code = view_products(made.shop, "THING a2")
    assert "A2" in [found_product.sku for found_product in by_code.products]
    assert by_code.total < every.total
    assert view_products(made.shop, "nothing of this name") == ProductsView((), 0)


def test_a_language_is_spoken_its_gaps_are_told_and_its_texts_filled() -> None:
    made = fake_shop()
    set_languages(made.shop, ["de-DE"], 1, ADA, NOW)
    sheet = view_words(made.shop, "de-DE")
    assert [(s.language, s.texts, s.of) for s in sheet.spoken] == [("en-GB", 7, 7), ("de-DE", 0, 7)]
    cell = sheet.rows[0].cells[0]
    assert (cell.text, cell.stands_in, cell.from_layer) == ("Buy", True, "baseline")
    change_layer(made.shop, "baseline", {"wording": {"ready": {"de-DE": "Kaufen"}}}, 2, ADA, NOW)
    cell = view_words(made.shop, "de-DE").rows[0].cells[0]
    assert (cell.text, cell.stands_in) == ("Kaufen", False)
    with pytest.raises(OutOfRange, match="xx-QQ"):
        set_languages(made.shop, ["xx-QQ"], made.drafts.version, ADA, NOW)


def test_an_english_product_text_never_hides_a_german_one() -> None:
    made = fake_shop(settings(exception(1, TEXT, products=("A1",)), more=("de-DE",)))
    change_layer(made.shop, "baseline", {"wording": {"ready": {"de-DE": "Kaufen"}}}, 1, ADA, NOW)
    drawn = {lang: view_drawing(made.shop, DrawQuery(PAGE, "A1", None, lang)).shown.text for lang in ("en-GB", "de-DE")}
    assert drawn == {"en-GB": "Just this", "de-DE": "Kaufen"}


def test_an_edit_can_go_to_any_layer_that_holds_here() -> None:
    made = with_rule(products=("A1",))
    drawn = view_drawing(made.shop, DrawQuery(PAGE, "A1", layer="baseline"))
    assert [layer.layer for layer in drawn.editing.layers] == ["baseline", "place:product_page", "exception:e1"]
    assert drawn.editing.layer == "baseline"
    with pytest.raises(NotFound, match="does not hold"):
        view_drawing(made.shop, DrawQuery(PAGE, "A2", layer="exception:e1"))


def test_search_puts_names_that_begin_so_first_and_tells_a_few_of_each_kind() -> None:
    many = [product(f"S{n}", name=f"{'Super' if n % 2 else 'A super'} frame {n}") for n in range(30)]
    made = fake_shop(settings(exception(1, {}, categories=("Tools",))), many)
    found = search(made.shop, "super frame")
    assert len(found) == 8
    assert all(finding.title.startswith("Super") for finding in found)
    assert [match.kind for match in search(made.shop, "exception 1")] == ["exception"]


def csv_of(n: int) -> bytes:
    lines = [f"P{i},Thing {i},Tools,1.00,GBP,/p/{i}" for i in range(n)]
    return ("sku,name,category,price,currency,url\n" + "\n".join(lines) + "\n").encode()


def test_an_import_tells_its_progress_and_can_be_stopped_between_pieces() -> None:
    made = fake_shop(products=PRODUCTS)
    steps = import_steps(made.shop, csv_of(PIECE + 5), ADA, NOW)
    assert [next(steps), next(steps)] == [ImportProgress(0, PIECE + 5), ImportProgress(PIECE, PIECE + 5)]
    steps.close()
    assert made.catalogue.last_import() is None


def test_a_file_that_was_read_ahead_is_read_again_where_the_products_have_changed_meanwhile() -> None:
    made = fake_shop(products=PRODUCTS)
    file = csv_of(2)
    ahead = read_ahead(file, made.shop.catalogue.all(), "GBP")
    assert import_catalogue(made.shop, file, ADA, NOW, dry_run=True, ahead=ahead).counts.new == 2
    # Somebody else imports the same meanwhile: nothing is new any more.
    import_catalogue(made.shop, file, BOB, NOW)
    assert import_catalogue(made.shop, file, ADA, NOW, ahead=ahead).counts.new == 0


def test_the_whole_catalogue_takes_out_what_it_lacks_and_a_part_of_it_does_not() -> None:
    made = fake_shop(products=PRODUCTS)
    report = import_catalogue(made.shop, csv_of(2), ADA, NOW)
    assert (report.counts.missing, len(made.catalogue.all())) == (7, 9)
    with pytest.raises(NeedsYes, match="It would remove 7 of 9 products"):
        import_catalogue(made.shop, csv_of(2), ADA, NOW, whole=True)
    assert len(made.catalogue.all()) == 9
    import_catalogue(made.shop, csv_of(2), ADA, NOW, whole=True, really=True)
    assert [p.sku for p in made.catalogue.all()] == ["P0", "P1"]


HEAD_ONLY = b"sku,name,category,price,currency,url\n"


def test_a_file_of_nothing_but_headings_does_not_empty_the_shop_unasked() -> None:
    made = fake_shop(products=PRODUCTS)
    report = import_catalogue(made.shop, HEAD_ONLY, ADA, NOW, dry_run=True, whole=True)
    assert report.warnings == ("It would remove 7 of 7 products, since the file does not name them.",)
    with pytest.raises(NeedsYes) as refused:
        import_catalogue(made.shop, HEAD_ONLY, ADA, NOW, whole=True)
    assert refused.value.facts["warnings"] == list(report.warnings)
    assert len(made.catalogue.all()) == 7


def test_a_file_that_empties_a_column_says_so_and_needs_a_yes() -> None:
    made = fake_shop(products=PRODUCTS)
    bare = ("SKU,Price,Stock\n" + "".join(f"{p.sku},,{p.stock}\n" for p in PRODUCTS)).encode()
    with pytest.raises(NeedsYes, match="It would empty the price of 7 products: the file has none"):
        import_catalogue(made.shop, bare, ADA, NOW)
    assert all(p.price_minor for p in made.catalogue.all())
    import_catalogue(made.shop, bare, ADA, NOW, really=True)
    assert not any(p.price_minor for p in made.catalogue.all())


def test_a_tenth_may_go_without_a_question() -> None:
    made = fake_shop(products=[product(f"P{n}") for n in range(10)])
    report = import_catalogue(made.shop, csv_of(9), ADA, NOW, whole=True)
    assert (report.warnings, report.counts.missing, len(made.catalogue.all())) == ((), 1, 9)
