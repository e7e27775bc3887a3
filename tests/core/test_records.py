"""Records, each for the same set-up and tempo."""

from datetime import date
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.tally.records import Best, best_by_reps, records, within_reach

ON = date(2026, 3, 2)
BEFORE = [Best(Decimal(kg), reps, ON) for kg, reps in ((100, 5), (105, 3), (110, 1), (60, 12))]


def found(*done):
    return [(each.kg, each.reps, each.was_kg, each.was_reps) for each in records(done_of(done), BEFORE)]


def done_of(done):
    return [(Decimal(kg), reps) for kg, reps in done]


def test_more_load_for_the_reps_or_more_reps_with_the_load():
    assert found((102.5, 5)) == [(Decimal("102.5"), 5, 100, 5)]
    assert found((100, 6)) == [(100, 6, 100, 5)]
    assert found((107.5, 3), (107.5, 2)) == [(Decimal("107.5"), 3, 105, 3)]


def test_what_was_done_before_or_more_is_none():
    assert found((100, 5), (100, 4), (105, 2), (110, 1)) == []


def test_a_light_set_of_many_is_no_record_that_anybody_means():
    assert found((20, 30)) == []


def test_without_a_past_there_are_none():
    assert records(done_of([(100, 5)]), []) == []


def test_two_are_told_at_most_the_best_first():
    told = found((102.5, 5), (107.5, 3), (112.5, 1))
    assert len(told) == 2
    assert told[0] == (Decimal("102.5"), 5, 100, 5)


def test_body_weight_counts_in_what_a_load_is_worth():
    """Three with 5 kg added are near five with nothing, for 80 kg of body; by the load alone they would not be."""
    before = [Best(Decimal(0), 5, ON)]
    assert [(each.kg, each.reps) for each in records([(Decimal(5), 3)], before, Decimal(80))] == [(5, 3)]


def test_a_record_is_within_reach_where_one_rep_more_is_likely():
    reach = within_reach(Decimal(100), 6, BEFORE)
    assert (reach.reps, reach.was_reps) == (6, 5)
    assert within_reach(Decimal(100), 5, BEFORE) is None
    assert within_reach(Decimal(100), 9, []) is None


def test_the_table_of_the_best_leaves_out_what_more_reps_cover():
    assert [(each.kg, each.reps) for each in best_by_reps(BEFORE)] == [(110, 1), (105, 3), (100, 5), (60, 12)]
    assert best_by_reps([Best(Decimal(100), 5, ON), Best(Decimal(90), 3, ON)]) == [Best(Decimal(100), 5, ON)]


LOADS = st.integers(20, 200).map(Decimal)


@given(st.lists(st.tuples(LOADS, st.integers(1, 15)), min_size=1), st.lists(st.tuples(LOADS, st.integers(0, 15))))
def test_a_record_beats_everything_before_it_and_is_one_no_more_once_done(past, done):
    before = [Best(kg, reps, ON) for kg, reps in past]
    new = records(done, before)
    for each in new:
        assert not any(best.kg >= each.kg and best.reps >= each.reps for best in before)
    after = before + [Best(kg, reps, ON) for kg, reps in done if reps]
    assert records(done, after) == []
