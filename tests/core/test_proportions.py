"""Sets of a line that name no load and ask different things: how their proportion to the heaviest goes on."""

from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.adjustments import LoadChange
from fortis.core.played import with_loads
from fortis.core.progression.decision import Move
from fortis.core.progression.next_loads import recommendations
from fortis.core.progression.policy import Policy, PolicyKind
from fortis.core.strength.estimate import Estimate
from tests.core.kits import FULL
from tests.core.test_next_loads import SQUAT, codes, performed, told
from tests.core.test_rungs import BODY, planned, sessions

TEXT = "Back squat: 1 x 5 leave 1; 3 x 8 leave 2 rest 3:00"
MAX = {SQUAT: Estimate(kg=160, low=150, high=170)}
WELL = [(5, 1), (8, 4), (8, 3), (8, 2)]


def eights(*left):
    """A five as planned, and three sets of eight."""
    return [(5, 1), *[(8, each) for each in left]]


def shares(*went, policies=None):
    """The sets of eight before rounding as shares of the five, session by session."""
    found, _ = sessions(TEXT, policies or {}, *went, went[-1], estimates=MAX)
    return [sets[1].bouts[0].settled.wanted_kg / sets[0].bouts[0].settled.kg for sets in found]


def next_load(went):
    """The next load after one session."""
    return sessions(TEXT, {}, went, estimates=MAX)[1]


def test_the_heaviest_is_what_is_carried_however_it_was_rounded():
    for kg in range(150, 170):
        estimates = {SQUAT: Estimate(kg=kg, low=kg - 10, high=kg + 10)}
        plan = planned(TEXT, estimates=estimates)
        found = recommendations(plan, performed(plan, WELL), FULL, BODY, estimates)
        assert found[0].carries.carried.proportions[0] == 1
        again = planned(TEXT, found, estimates=estimates)
        assert again.sets[0].bouts[0].settled.kg == found[0].load.kg


def test_sets_that_leave_what_is_planned_keep_their_proportion():
    assert shares(*[WELL] * 4) == pytest.approx([shares(WELL)[0]] * 5, abs=0.001)
    assert "proportion" not in codes(next_load(WELL))


@pytest.mark.parametrize(
    ("left", "moves"), [(3, 1.0075), (4, 1.015), (5, 1.0375), (9, 1.05), (1, 0.9925), (0, 0.985)]
)
def test_they_move_by_the_reps_that_are_left_beside_the_plan_and_faster_where_those_are_plenty(left, moves):
    before, after = shares(eights(9, 9, left))
    assert after / before == pytest.approx(Decimal(str(moves)), abs=0.001)


def test_a_day_that_is_good_or_bad_for_all_of_it_leaves_the_proportion():
    before, after = shares([(5, 3), (8, 6), (8, 5), (8, 4)])
    assert after == pytest.approx(before, abs=0.001)
    before, after = shares([(5, 0), (8, 3), (8, 2), (8, 1)])
    assert after == pytest.approx(before, abs=0.001)


def test_reps_that_were_missed_take_off_a_cut_at_least_and_the_heaviest_stays():
    load = next_load([(5, 1), (8, 2), (8, 1), (7, 0)])
    assert load.move is Move.HOLD
    assert told(load, "proportion") == "7 of 8 reps in the sets of 8 leave 2: 2.5 % less beside the heaviest."
    assert told(load, "lighter sets short") == "The heaviest stays until the lighter sets are done as planned."


def test_where_the_heaviest_is_cut_they_come_down_with_it_and_by_what_more_they_missed():
    load = next_load([(4, 0), (8, 1), (7, 0), (7, 0)])
    assert load.move is Move.CUT
    assert told(load, "proportion") == "7 of 8 reps in the sets of 8 leave 2: 0.75 % less beside the heaviest."


def test_it_is_told_in_words_why_they_move():
    assert told(next_load(eights(5, 5, 5)), "proportion") == (
        "Against the plan the sets of 8 leave 2 ended with 3 more left than the heaviest: 3.75 % more beside it."
    )
    assert told(next_load(eights(3, 2, 1)), "proportion") == (
        "Against the plan the sets of 8 leave 2 ended with 1 fewer left than the heaviest: 0.75 % less beside it."
    )


def test_the_heaviest_does_not_rise_while_they_leave_two_fewer_than_planned():
    went = [(5, 2), (8, 2), (8, 1), (8, 0)]
    assert next_load(went).move is Move.HOLD
    assert next_load([(5, 2), (8, 2), (8, 1), (8, 1)]).move is Move.RAISE


def test_in_a_range_they_go_up_once_they_are_at_its_top():
    text = TEXT.replace("8", "8-10")
    _, inside = sessions(text, {}, [(5, 1), *[(9, 5)] * 3], estimates=MAX)
    _, at_top = sessions(text, {}, [(5, 1), *[(10, 5)] * 3], estimates=MAX)
    assert "proportion" not in codes(inside)
    assert told(at_top, "proportion").endswith("3.75 % more beside it.")


def test_another_load_that_was_lifted_in_them_stands():
    plan = planned(TEXT, estimates=MAX)
    five, *rest = performed(plan, WELL)
    heavier = [each.model_copy(update={"kg": each.kg + 5}) for each in rest]
    recommended = recommendations(plan, [five, *heavier], FULL, BODY, MAX)
    again = planned(TEXT, recommended, estimates=MAX)
    lifted = (rest[0].kg + 5) / five.kg
    assert again.sets[1].bouts[0].settled.wanted_kg / again.sets[0].bouts[0].settled.kg == pytest.approx(
        lifted, abs=0.001
    )


@pytest.mark.parametrize(
    ("advised", "went", "stands"),
    [
        (False, WELL, "lifted"),
        (True, WELL, "planned"),
        (True, [(4, 0), (8, 5), (8, 5), (8, 5)], "planned"),
        (True, [(5, 1), (8, 4), (8, 3), (8, 1)], "lifted"),
        (True, [(5, 1), (8, 4), (8, 3), (7, 0)], "lifted"),
    ],
)
def test_made_lighter_for_the_day_they_go_back_to_their_share_where_they_went_well(advised, went, stands):
    """What the lifter chose counts, and so does what was too much even so."""
    before = planned(TEXT, estimates=MAX)
    changes = [LoadChange(set=2, kg=Decimal(100), advised=advised)]
    plan = before.model_copy(update={"sets": tuple(with_loads(before.sets, changes))})
    (found,) = recommendations(plan, performed(plan, went), FULL, BODY, MAX)
    five, eights = (each.bouts[0].settled for each in before.sets[:2])
    share = {"lifted": 100, "planned": eights.wanted_kg}[stands] / five.kg
    again = planned(TEXT, [found], estimates=MAX)
    five, eights = (each.bouts[0].settled for each in again.sets[:2])
    times = {(7, 0): Decimal("0.975"), (8, 1): Decimal("0.9925")}.get(went[-1], 1)
    assert eights.wanted_kg / five.kg == pytest.approx(share * times, abs=0.001)


def test_a_lift_that_is_kept_keeps_them_as_they_are():
    keep = {"back-squat": Policy(kind=PolicyKind.KEEP)}
    before, *after = shares(eights(5, 5, 5), [(5, 1), (8, 0), (6, 0), (5, 0)], policies=keep)
    assert after == pytest.approx([before] * 2, abs=0.001)


@given(st.lists(st.lists(st.integers(0, 9), min_size=3, max_size=3), min_size=1, max_size=4))
def test_they_never_weigh_more_than_the_heaviest(went):
    assert all(share <= 1 for share in shares(*[eights(*left) for left in went]))


@given(st.lists(st.integers(0, 9), min_size=2, max_size=5, unique=True))
def test_the_more_they_leave_the_heavier_they_get(left):
    after = [shares(eights(9, 9, each))[1] for each in sorted(left)]
    assert all(one <= other for one, other in pairwise(after))
