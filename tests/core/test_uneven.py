"""Sets that ask the same with other loads: taken lighter on the Floor, or heavier, and the next load knows it."""

from decimal import Decimal

import pytest

from fortis.core.adjustments import LoadChange
from fortis.core.exercises import LIBRARY
from fortis.core.played import with_loads
from fortis.core.progression.decision import Move
from fortis.core.progression.next_loads import next_loads, recommendations
from fortis.core.progression.policy import Policy, PolicyKind
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import most_of
from fortis.core.structure.model import FixedReps, SetUp, lift_key
from tests.core.kits import FULL
from tests.core.test_next_loads import SQUAT, codes, performed, told
from tests.core.test_rungs import BODY, planned

TEXT = "Back squat: 4 x 5 at 100 kg leave 2 rest 3:00"
WELL = [(5, 2)] * 4
STRONG = {SQUAT: Estimate(kg=200, low=190, high=210)}
"""A max by which all of it is light: only what happens speaks against a load."""
WEAK = {SQUAT: Estimate(kg=118, low=112, high=124)}


def taken_lighter(plan, number, kg):
    """A plan whose load was changed from a set on."""
    changes = [LoadChange(set=number, kg=Decimal(kg))]
    return plan.model_copy(update={"sets": tuple(with_loads(plan.sets, changes))})


def after(number, kg, went=WELL, text=TEXT, estimates=STRONG, policies=None, before=()):
    """What follows where the load was changed from a set on."""
    plan = taken_lighter(planned(text, before, estimates=estimates), number, kg)
    return recommendations(plan, performed(plan, went), FULL, BODY, estimates, policies or {})


@pytest.mark.parametrize("number", [3, 4])
def test_the_first_time_it_stays_where_half_of_the_sets_went_with_it(number):
    (found,) = after(number, 95)
    assert (found.load.move, found.load.kg) == (Move.HOLD, 100)
    assert told(found.load, "taken lighter") == (
        f"100 kg went in {number - 1} of 4 sets, the others were taken lighter: "
        "the same again until it goes in all of them."
    )


def test_the_second_time_in_a_row_it_comes_down():
    first = after(4, 95)
    (again,) = after(4, 95, before=first)
    assert (again.load.move, again.load.kg) == (Move.CUT, Decimal("97.5"))


def test_where_most_sets_were_lighter_it_comes_down_at_once_to_no_less_than_was_lifted():
    (found,) = after(2, 95)
    assert (found.load.move, found.load.kg) == (Move.CUT, Decimal("97.5")), "the max would allow more"
    (found,) = after(2, 90, estimates=WEAK)
    allowed = found.load.kg
    assert 90 < allowed < Decimal("97.5"), "what the max allows for four sets of one load"
    (found,) = after(2, 95, estimates=WEAK)
    assert found.load.kg == 95


def test_where_the_lighter_load_was_missed_as_well_the_next_is_no_heavier():
    (found,) = after(3, 95, went=[(5, 1), (4, 0), (5, 0), (4, 0)])
    assert (found.load.move, found.load.kg) == (Move.CUT, 95)
    (found,) = after(3, 80, went=[(5, 1), (4, 0), (5, 0), (4, 0)])
    assert found.load.kg == 90, "a tenth at most"


def test_the_load_is_come_back_to_step_by_step():
    lighter = after(2, 90, estimates=STRONG)
    plan = planned(TEXT, lighter, estimates=STRONG)
    assert plan.sets[0].missed.kg == 100
    (then,) = recommendations(plan, performed(plan, [(5, 5)] * 4), FULL, BODY, STRONG)
    assert told(then.load, "missed lately") == "100 kg was too much not long ago: that first."


def test_reps_that_were_too_many_for_all_sets_go_back_by_one():
    many = {"back-squat": Policy(kind=PolicyKind.REPS, more_reps=3)}
    plan, found = planned(TEXT), ()
    for reps in (5, 6):
        found = recommendations(plan, performed(plan, [(reps, 2)] * 4), FULL, BODY, STRONG, many)
        plan = planned(TEXT, found, estimates=STRONG)
    assert plan.sets[0].bouts[0].reps == FixedReps(count=7)
    (then,) = after(2, 95, went=[(7, 1), *[(7, 2)] * 3], policies=many, before=found)
    assert (then.load.move, then.load.kg) == (Move.HOLD, 100)
    assert told(then.load, "taken lighter").endswith("one rep fewer in each set, 6 instead of 7.")
    assert planned(TEXT, [then], estimates=STRONG).sets[0].bouts[0].reps == FixedReps(count=6)
    assert planned(TEXT, [then], estimates=STRONG).sets[0].missed is None


@pytest.mark.parametrize("kind", [PolicyKind.SETS, PolicyKind.REST, PolicyKind.STEP, PolicyKind.EFFORT])
def test_no_way_to_progress_takes_it_for_done(kind):
    (found,) = after(4, 95, went=[(5, 4)] * 4, policies={"back-squat": Policy(kind=kind)})
    assert found.load.move is Move.HOLD
    assert "taken lighter" in codes(found.load)


def test_a_percentage_follows_the_max_all_the_same_and_rises_once_it_went_in_all_sets():
    text = "Back squat: 4 x 5 at 70% leave 2 rest 3:00"
    (found,) = after(4, 130, text=text)
    assert "taken lighter" not in codes(found.load)
    assert (found.load.kg, found.carries.carried.missed) == (140, None)
    plan = planned(text, estimates=STRONG)
    for kg, expected in ((210, 140), (190, Decimal("132.5"))):
        now = {SQUAT: Estimate(kg=kg, low=kg - 10, high=kg + 10)}
        lighter = taken_lighter(plan, 4, 130)
        (found,) = recommendations(lighter, performed(lighter, WELL), FULL, BODY, now)
        assert found.load.kg == expected
        assert ("taken lighter" in codes(found.load)) == (kg > 200)
        assert planned(text, [found], estimates=now).sets[0].bouts[0].settled.kg == expected
    (found,) = recommendations(
        plan, performed(plan, WELL), FULL, BODY, {SQUAT: Estimate(kg=210, low=200, high=220)}
    )
    assert found.load.kg == Decimal("147.5")


def test_a_heavier_load_later_on_is_done_in_all_sets_before_it_rises():
    (found,) = after(3, 105)
    assert (found.load.move, found.load.kg) == (Move.HOLD, 105)
    assert told(found.load, "now in all") == "105 kg went in 2 of 4 sets: now in all of them."
    (found,) = after(3, 105, went=[(5, 4)] * 4)
    assert (found.load.move, found.load.was_kg) == (Move.RAISE, 105), "with a rep and more to spare"
    (found,) = after(2, 105)
    assert (found.load.move, found.load.was_kg) == (Move.RAISE, 105), "all but one went with it"


def test_what_the_max_allows_is_that_for_all_sets_with_one_load():
    (even,) = after(1, 100, went=[(5, 4)] * 4, estimates=WEAK)
    (uneven,) = after(3, 100, went=[(5, 4)] * 4, text=TEXT.replace("100", "95"), estimates=WEAK)
    told_of = [[each.text for each in found.load.reasons if each.code == "outlook"] for found in (even, uneven)]
    assert told_of[0] == told_of[1]
    assert even.load.kg == uneven.load.kg


def test_each_side_of_a_lift_is_beside_itself():
    """The weaker side may have less on it in every set."""
    plan = planned("Split squat: 3 x 8 at 20 kg each side leave 2 rest 1:30", estimates={})
    done = [
        each.model_copy(update={"kg": each.kg - (5 if each.side == "right" else 0)})
        for each in performed(plan, [(8, 2)] * 6)
    ]
    (found,) = next_loads(plan, done, FULL, BODY, {})
    assert "taken lighter" not in codes(found)


ROWS = "Ring row: 3 x 8-10 leave 1 rest 1:30"
ROW = {lift_key(LIBRARY.find("Ring row"), SetUp()): Estimate(kg=56, low=50, high=62)}


def test_help_that_later_sets_needed_is_there_from_the_first_one_on():
    found = after(2, "-7.5", went=[(5, 0), (9, 1), (8, 1)], text=ROWS, estimates=ROW)
    assert (found[0].load.move, found[0].load.kg) == (Move.CUT, Decimal("-7.5"))
    assert told(found[0].load, "with help") == "It went with 7.5 kg of help: so from the first set on."
    again = planned(ROWS, found, estimates=ROW)
    assert [each.bouts[0].settled.kg for each in again.sets] == [Decimal("-7.5")] * 3


def test_help_goes_down_again_and_never_turns_into_added_weight():
    found = after(2, "-7.5", went=[(5, 0), (9, 1), (8, 1)], text=ROWS, estimates=ROW)
    kgs = []
    for _ in range(5):
        plan = planned(ROWS, found, estimates=ROW)
        went = [(most_of(each.bouts[0].reps), 3) for each in plan.work_sets]
        found = recommendations(plan, performed(plan, went), FULL, BODY, ROW)
        kgs.append(found[0].load.kg)
    assert kgs == sorted(kgs)
    assert kgs[0] > Decimal("-7.5")
    assert kgs[-1] == 0
    assert found[0].load.move is Move.MORE_REPS
