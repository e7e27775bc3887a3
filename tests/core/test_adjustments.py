"""Changes of the plan on the floor, by one device and by two."""

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.adjustments import Adjustments, Change, LoadChange, Swap, with_change

ENTRIES = st.sampled_from(["1.1", "1.2", "2.1"])
ORDERS = st.permutations([1, 2, 3]).map(tuple)
ADJUSTMENTS = st.builds(
    Adjustments,
    skipped=st.lists(st.sampled_from(["1.1.1.1.1", "1.1.1.2.1", "2.1.1.1.1"]), unique=True).map(tuple),
    extra=st.dictionaries(ENTRIES, st.integers(0, 3)),
    swapped=st.dictionaries(ENTRIES, st.builds(Swap, lift=st.sampled_from(["Push-up", "Leg press"]))),
    loads=st.dictionaries(
        ENTRIES, st.tuples(st.builds(LoadChange, set=st.integers(1, 3), kg=st.integers(20, 200)))
    ),
    order=st.just(()) | ORDERS,
    within=st.dictionaries(st.sampled_from(["1", "2"]), ORDERS),
    prepared=st.lists(st.integers(1, 3), unique=True).map(tuple),
)
CHANGES = st.builds(Change, before=ADJUSTMENTS, after=ADJUSTMENTS)


def same(one: Adjustments, other: Adjustments) -> bool:
    """Whether two say the same; what is skipped and what was prepared have no order."""
    loose = ("skipped", "prepared")
    return all(set(getattr(one, name)) == set(getattr(other, name)) for name in loose) and (
        one.model_copy(update={name: getattr(other, name) for name in loose}) == other
    )


@given(CHANGES)
def test_a_change_of_what_is_there_is_what_was_wanted(change):
    assert same(with_change(change.before, change), change.after)


@given(ADJUSTMENTS, CHANGES)
def test_a_change_made_twice_is_made_once(there, change):
    once = with_change(there, change)
    assert with_change(once, change) == once


@given(ADJUSTMENTS, ADJUSTMENTS)
def test_a_change_that_changes_nothing_leaves_what_is_there(there, seen):
    assert with_change(there, Change(before=seen, after=seen)) == there


@given(ADJUSTMENTS, CHANGES)
def test_taken_back_it_is_gone_whether_it_had_arrived_or_not(there, change):
    back = Change(before=change.after, after=change.before)
    arrived = with_change(there, change)
    assert with_change(with_change(arrived, change), back) == with_change(arrived, back)


def test_two_devices_change_different_things():
    seen = Adjustments(extra={"1.1": 1})
    here = with_change(seen, Change(before=seen, after=Adjustments(extra={"1.1": 1, "2.1": 1})))
    both = with_change(here, Change(before=seen, after=Adjustments(skipped=("1.1.1.2.1",))))
    assert both == Adjustments(extra={"2.1": 1}, skipped=("1.1.1.2.1",))
