"""What last time recommends for the heaviest set of a line, in proportion for those that name no load."""

from decimal import Decimal

import pytest

from fortis.core.basis import Basis, Carried
from fortis.core.exercises import LIBRARY
from fortis.core.line import Line
from fortis.core.progression.carried import target_of
from fortis.core.progression.decision import Move
from fortis.core.progression.next_loads import recommendations
from fortis.core.resolution import resolve
from fortis.core.strength.curve import DEFAULT_CURVE
from fortis.core.strength.estimate import Estimate, estimate
from fortis.core.structure.model import SetUp, Side, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL
from tests.core.test_next_loads import SQUAT, performed
from tests.core.test_rungs import BODY, planned, sessions

STRONG = {SQUAT: Estimate(kg=150, low=145, high=155)}
RAMP = "Back squat: 3 leave 2; 2 leave 1; 1 leave 1 rest 3:00"
EASIER = [(3, 4), (2, 3), (1, 3)]


def loads(text, *went, estimates=STRONG):
    """The loads of each session, and of the one to come."""
    found, _ = sessions(text, {}, *went, went[-1], estimates=estimates)
    return [[float(bout.settled.kg) for each in sets for bout in each.bouts] for sets in found]


def test_a_ramp_by_effort_stays_a_ramp():
    """Shares of 5, 3 and 2 reps to failure by the rep curve, of a single that goes up a little tired."""
    first, then = loads(RAMP, EASIER)
    assert then[2] > first[2]
    assert [each / then[2] for each in then] == pytest.approx([each / first[2] for each in first], abs=0.02)
    triple, double, single = map(DEFAULT_CURVE.share, (5, 3, 2))
    for load, fresh in zip(then[:2], (triple, double), strict=True):
        assert then[2] * fresh / single - 1.25 <= load <= then[2] * fresh / single * 1.04


def test_a_wave_by_effort_comes_back_a_little_heavier_as_it_was_asked():
    wave = f"{RAMP.removesuffix(' rest 3:00')}; 3 leave 1; 2 leave 1; 1 leave 0 rest 3:00"
    first, then = loads(wave, [*EASIER, (3, 3), (2, 3), (1, 2)])
    assert first == sorted(first[:3]) + sorted(first[3:])
    assert [now > was for was, now in zip(first, then, strict=True)] == [True] * 6
    assert then[5] > then[2] > then[1] > then[0]


def test_where_no_max_is_known_reps_tell_the_proportion_as_well():
    plan = resolve(
        lay_out(read(RAMP)), Basis(kit=FULL), {Line(1, 1): Carried(was_kg=Decimal(140), kg=Decimal(140))}
    )
    assert [float(each.bouts[0].settled.kg) for each in plan.sets] == [130, 135, 140]
    (reason,) = (each for each in plan.sets[0].bouts[0].settled.reasons if each.code == "in proportion")
    assert reason.text == "In proportion to the 140 kg of its heaviest set."


@pytest.mark.parametrize(("written", "goes_up"), [("3 at 110", True), ("3 at 80%", False)])
def test_sets_without_a_load_beside_ones_that_name_it_are_judged_by_themselves(written, goes_up):
    """A double is no triple's load: the one goes up or down whatever becomes of the other."""
    text = f"Back squat: {written} leave 2; 2 leave 1"
    first, then = loads(text, [(3, 4), (2, 1)])
    assert (then[0] > first[0]) == goes_up
    assert then[1] > first[1] > then[0]
    first, then = loads(text, [(3, 4), (1, 0)])
    assert then[0] >= first[0]
    assert then[1] < first[1], "the double was missed, and nothing else"
    first, then = loads(text, [(2, 0), (2, 4)])
    assert then[0] < first[0]
    assert then[1] > first[1]


def test_what_is_told_of_sets_without_a_load_is_what_is_planned_of_them():
    text = "Back squat: 1 x 5 at 80% rest 3:00; 3 x 8 leave 2 rest 3:00"
    plan = planned(text, (), estimates=STRONG)
    named, unnamed = recommendations(plan, performed(plan, [(5, 3), (8, 2), (8, 1), (8, 1)]), FULL, BODY, STRONG)
    assert (unnamed.load.move, unnamed.load.kg) == (Move.HOLD, plan.sets[1].bouts[0].settled.kg)
    again = planned(text, [named, unnamed], estimates={SQUAT: estimate(150.0, 1, 0)})
    assert [each.bouts[0].settled.kg for each in again.sets] == [120, *[unnamed.load.kg] * 3]


def test_sets_without_a_load_are_tired_by_those_that_name_one_and_these_are_not_light_for_them():
    alone = planned("Back squat: 3 x 8 leave 2 rest 3:00", (), estimates=STRONG)
    after = planned("Back squat: 1 x 5 at 85% rest 3:00; 3 x 8 leave 2 rest 3:00", (), estimates=STRONG)
    assert after.sets[1].bouts[0].settled.wanted_kg < alone.sets[0].bouts[0].settled.wanted_kg
    assert {each.bouts[0].settled.kg for each in after.sets[1:]} == {after.sets[1].bouts[0].settled.kg}
    named, _ = recommendations(after, performed(after, [(5, 0), *[(8, 1)] * 3]), FULL, BODY, STRONG)
    assert named.load.kg == after.sets[0].bouts[0].settled.kg


@pytest.mark.parametrize("estimates", [{}, {SQUAT: estimate(140.0, 1, 0)}])
def test_sets_before_an_open_one_keep_the_load_that_is_carried_to_them(estimates):
    plan = lay_out(read("Back squat: 3 x 10 leave 2; 1 x max rest 2:00"))
    carried = {Line(1, 1): Carried(was_kg=Decimal(100), kg=Decimal(100))}
    settled = resolve(plan, Basis(kit=FULL, estimates=estimates), carried)
    assert [float(each.bouts[0].settled.kg) for each in settled.sets] == [100] * 4


def test_as_many_as_there_are_takes_the_load_of_the_sets_before():
    curl = {lift_key(LIBRARY.find("Lying leg curl"), SetUp()): Estimate(kg=60, low=55, high=65)}
    written = "Lying leg curl: 2 x 10-12 leave 1; 1 set of (max to failure, 5 stretched halves)"
    plan = planned(written, (), estimates=curl)
    kgs = [bout.settled.kg for each in plan.sets for bout in each.bouts]
    assert len(set(kgs)) == 1
    (reason,) = plan.sets[2].bouts[0].settled.reasons
    assert reason.text == f"The {kgs[0]:f} kg of the sets before."
    alone = planned("Lying leg curl: max", (), estimates=curl)
    assert alone.sets[0].bouts[0].settled is None


def test_the_heaviest_that_was_planned_leads_whatever_was_done():
    """Who does all of a ramp with one load has not made its triple the heaviest."""
    plan = planned(RAMP, (), estimates=STRONG)
    done = [each.model_copy(update={"kg": Decimal(130)}) for each in performed(plan, EASIER)]
    (recommended,) = recommendations(plan, done, FULL, BODY, STRONG)
    again = planned(RAMP, [recommended], estimates=STRONG)
    kgs = [each.bouts[0].settled.kg for each in again.sets]
    assert recommended.load.was_kg == 130
    assert kgs == sorted(kgs)
    assert kgs[2] == recommended.load.kg > kgs[0]


def test_what_is_carried_goes_on_whichever_side_begins():
    """The weaker side comes first, and which that is can change from one time to the next."""
    session = read("Split squat: 3 x 8 at 20 kg each side weaker first leave 2")
    left, right = (lay_out(session, LIBRARY, {"split-squat": side}) for side in (Side.LEFT, Side.RIGHT))
    assert [bout.side for bout in left.sets[0].bouts] != [bout.side for bout in right.sets[0].bouts]
    assert target_of(left.sets) == target_of(right.sets)
    other = lay_out(read("Split squat: 3 x 9 at 20 kg each side weaker first leave 2"), LIBRARY)
    assert target_of(left.sets) != target_of(other.sets)
