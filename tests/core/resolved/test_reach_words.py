import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import settings, snapshot
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.errors import BadReach
from uptick.core.resolved.reach_words import Vocabulary, listed, read_reach, say_reach, vocabulary_of
from uptick.core.rules.reach import Reach

SHOP = Vocabulary(
    {"HV-1": "Cedar hive, national", "FW-1": "Brood frames", "JL-1": "Jars", "TL-1": "Bee brush", "TL-2": "Bee brush"},
    ("Hives", "Frames & wax", "Jars"),
    ("en-GB", "de-DE", "fr-FR"),
)

SAID: list[tuple[str, Reach]] = [
    (
        "Frames & wax, on phones, except Brood frames",
        Reach(categories=("Frames & wax",), devices=(Device.PHONE,), not_products=("FW-1",)),
    ),
    ("Cedar hive, national", Reach(products=("HV-1",))),
    (
        "every product, in German, for returning shoppers",
        Reach(languages=("de-DE",), shoppers=(ShopperKind.RETURNING,)),
    ),
    (
        "Hives and Frames & wax, when sold out, on the product page and strips",
        Reach(
            categories=("Hives", "Frames & wax"),
            situations=(Situation.SOLD_OUT,),
            placements=(Placement.PRODUCT_PAGE, Placement.STRIP),
        ),
    ),
    ("Bee brush (TL-2), except Hives", Reach(products=("TL-2",), not_categories=("Hives",))),
    ("Cedar hive, national, if in Hives", Reach(products=("HV-1",), categories=("Hives",))),
    ("every product", Reach()),
]


@pytest.mark.parametrize(("words", "reach"), SAID)
def test_a_reach_is_said_as_a_designer_says_it_and_read_back(words: str, reach: Reach) -> None:
    assert say_reach(reach, SHOP) == words
    assert read_reach(words, SHOP) == reach


@pytest.mark.parametrize(
    ("loosely", "words"),
    [
        ("frames & WAX ; on phone but not brood frames", "Frames & wax, on phones, except Brood frames"),
        ("TL-1, fw-1", "Bee brush (TL-1) and Brood frames"),
        ("on tablets and on desktops in de-DE", "every product, on tablets and desktops, in German"),
        ("phones, sticky bar", "every product, on the sticky bar, on phones"),
        ("  ", "every product"),
    ],
)
def test_loose_words_are_understood(loosely: str, words: str) -> None:
    assert say_reach(read_reach(loosely, SHOP), SHOP) == words


@pytest.mark.parametrize(
    ("words", "says", "near"),
    [
        ("Frames & waxx", "“Frames & waxx” is no product", "Frames & wax"),
        ("Hives, on the roof", "“roof” is no product", ""),
        ("Hives, except phones", "Only products and categories can be excepted", ""),
        ("Hives, except", "Say what is excepted", ""),
        ("bee", "“bee” is no product", "Bee brush (TL-1)"),
    ],
)
def test_what_means_nothing_is_named_with_what_may_have_been_meant(words: str, says: str, near: str) -> None:
    with pytest.raises(BadReach, match=says.replace("(", r"\(")) as refused:
        read_reach(words, SHOP)
    if near:
        assert near in refused.value.facts["near"]


def test_a_product_that_is_gone_is_still_named_by_its_code() -> None:
    assert say_reach(Reach(products=("OLD-1",)), SHOP) == "OLD-1 (gone)"


def test_lists_are_said_with_one_and() -> None:
    assert [listed(words) for words in ([], ["a"], ["a", "b"], ["a", "b", "c"])] == ["", "a", "a and b", "a, b and c"]


NAMES = vocabulary_of(snapshot(settings(more=("de-DE", "ar"))))


def some(values: object) -> st.SearchStrategy[tuple[object, ...]]:
    return st.lists(st.sampled_from(list(values)), unique=True, max_size=3).map(tuple)  # type: ignore[call-overload]


reaches = st.builds(
    Reach,
    products=some(NAMES.products),
    categories=some(NAMES.categories),
    situations=some(Situation),
    placements=some(Placement),
    devices=some(Device),
    languages=some(NAMES.languages),
    shoppers=some(ShopperKind),
    not_products=some(NAMES.products),
    not_categories=some(NAMES.categories),
)


@given(reaches)
def test_every_reach_can_be_read_from_its_own_words(reach: Reach) -> None:
    assert read_reach(say_reach(reach, NAMES), NAMES) == reach
