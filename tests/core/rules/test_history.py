import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import exception, settings
from uptick.core.button.merge import Json
from uptick.core.errors import NothingToUndo, Overtaken
from uptick.core.rules.history import Mark, cancelled, redoable, require_mark, revert, undoable
from uptick.core.rules.settings import Settings

ADA, BOB = 1, 2


def marks(*told: tuple[int, int | None]) -> list[Mark]:
    """Return steps from 1 on, each whose and what it takes back, on the first one, which is nobody's."""
    return [Mark(0, 0, None, "made"), *(Mark(n, who, back, f"step {n}") for n, (who, back) in enumerate(told, 1))]


def n(mark: Mark | None) -> int | None:
    return mark.n if mark else None


def test_each_person_takes_back_their_own_newest_change() -> None:
    made = marks((ADA, None), (BOB, None), (ADA, None))
    assert (n(undoable(made, ADA)), n(undoable(made, BOB)), n(undoable(made, 3))) == (3, 2, None)
    made = marks((ADA, None), (BOB, None), (ADA, None), (ADA, 3))
    assert (n(undoable(made, ADA)), n(redoable(made, ADA)), n(redoable(made, BOB))) == (1, 4, None)


def test_what_is_done_again_counts_again_and_can_be_undone_again() -> None:
    made = marks((ADA, None), (ADA, 1), (ADA, 2))
    assert cancelled(made) == {2}
    assert (n(undoable(made, ADA)), n(redoable(made, ADA))) == (1, None)
    made = marks((ADA, None), (ADA, 1), (ADA, 2), (ADA, 1))
    assert cancelled(made) == {1, 2}
    assert (n(undoable(made, ADA)), n(redoable(made, ADA))) == (None, 4)


def test_a_change_of_ones_own_ends_what_could_be_done_again_anothers_does_not() -> None:
    assert n(redoable(marks((ADA, None), (ADA, 1), (BOB, None)), ADA)) == 2
    assert redoable(marks((ADA, None), (ADA, 1), (ADA, None)), ADA) is None


def test_nothing_to_undo_is_said() -> None:
    with pytest.raises(NothingToUndo, match="nothing of yours to undo"):
        require_mark(None, "undo")


def page(**look: object) -> Settings:
    return settings(product_page={"look": look})


def test_a_step_is_taken_back_whatever_others_have_changed_since() -> None:
    before, after = page(radius=4), page(radius=9)
    now = settings(exception(1, {}, products=("A1",)), product_page={"look": {"radius": 9, "text_colour": "#000000"}})
    taken_back = revert(now, before, after)
    assert taken_back.placements["product_page"] == {"look": {"radius": 4, "text_colour": "#000000"}}
    assert len(taken_back.exceptions) == 1


def test_what_was_changed_again_is_not_taken_back_and_said() -> None:
    with pytest.raises(Overtaken, match=r"placements\.product_page\.look\.radius") as refused:
        revert(page(radius=11), page(radius=4), page(radius=9))
    assert refused.value.facts["fields"] == ["placements.product_page.look.radius"]


def test_an_exception_that_was_removed_comes_back_to_where_it_stood() -> None:
    one, two, three, four = (exception(n, {}, products=("A1",)) for n in (1, 2, 3, 4))
    back = revert(settings(one, three, four), settings(one, two, three), settings(one, three))
    assert [rule.id for rule in back.exceptions] == ["e1", "e2", "e3", "e4"]
    gone = revert(settings(one, two), settings(one), settings(one, two))
    assert [rule.id for rule in gone.exceptions] == ["e1"]
    changed = two.model_copy(update={"name": "another"})
    with pytest.raises(Overtaken, match=r"exceptions\.e2"):
        revert(settings(one, changed), settings(one), settings(one, two))


layers = st.fixed_dictionaries(
    {},
    optional={
        "look": st.fixed_dictionaries({}, optional={"radius": st.integers(0, 9), "text_colour": st.just("#123456")}),
        "icon": st.sampled_from([{"kind": "none"}, {"kind": "shipped", "name": "basket"}]),
        "wording": st.just({"ready": {"en-GB": "x"}}),
    },
)


@given(layers, layers)
def test_the_newest_step_taken_back_leaves_what_was_before(one: Json, other: Json) -> None:
    before, after = settings(strip=one), settings(strip=other)
    assert revert(after, before, after) == before
