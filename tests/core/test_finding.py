"""The first session with a lift: its load is found on the way up."""

from decimal import Decimal
from itertools import pairwise

import pytest

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.loading.warm_up import School
from fortis.core.played import as_played
from fortis.core.progression.advice import Bar, Course, Outcome
from fortis.core.progression.advice_table import all_advice, load_name
from fortis.core.progression.finding import finding_of
from fortis.core.resolution import resolve
from fortis.core.strength.curve import RepCurve
from fortis.core.strength.momentary import Momentary
from fortis.core.structure.counting import least_of
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from tests.core.kits import FULL

BAR = Bar(FULL, Decimal(80))
FIVES = "Back squat: 3 x 5 leave 2 rest 3:00"
SINGLES = "Front squat: 4 sets of (1 at 88% up 2%, 25s, 3 at 70%) rest 3:00"
MINI_SETS = "Seal row: 2 sets of (3, 4, 5, 6, 7) at 12RM within 15s rest 2:30"


def planned(text, basis=None):
    return resolve(lay_out(read(text)), basis or Basis(kit=FULL, body_kg=Decimal(80), warm_ups=School.FEW))


def found(text, number, left, at):
    """What is advised after bout `at` of the way up of the first lift."""
    finding = finding_of([each for each in planned(text).sets if each.group == 1], BAR)
    return finding.advise(finding.way_up.bouts[at - 1], Outcome(number, None if left is None else Decimal(left)))


def test_the_way_up_begins_with_the_empty_bar_and_rises_by_less_and_less():
    (way_up, *_) = planned(FIVES).sets
    loads = [bout.settled.kg for bout in way_up.bouts]
    assert (loads[0], way_up.is_warm_up) == (20, True)
    ratios = [after / before for before, after in pairwise(loads)]
    assert max(ratios) == ratios[0] <= Decimal("1.5")
    assert all(ratio <= Decimal("1.18") for ratio in ratios[4:])


def test_a_way_up_takes_the_time_of_four_fives_however_far_it_could_go():
    """Four fives of 15 s with 90 s between, two minutes to the work, three fives with three minutes between."""
    plan = planned(FIVES)
    assert len(plan.sets[0].bouts) == 10
    assert timeline(plan).total_seconds == 4 * 15 + 3 * 90 + 120 + 3 * 15 + 2 * 180


def test_nothing_is_found_where_a_load_stands_or_cannot_be():
    assert finding_of(planned("Back squat: 3 x 5 at 100 leave 2").sets, BAR) is None
    assert finding_of(planned("Push-up: 3 x 10 leave 2").sets, BAR) is None
    no_way_up = planned(FIVES, Basis(kit=FULL))
    assert finding_of(no_way_up.sets, BAR) is None


def test_a_light_five_goes_on_and_a_silent_one_says_nothing():
    assert found(FIVES, 5, 5, 4).text == "5 or more left: still light. Go on to 52.5."
    assert found(FIVES, 5, None, 4) is None


@pytest.mark.parametrize(("left", "kg"), [(4, 44.5), (3, 43), (2, 42), (0, 40)])
def test_the_first_that_leaves_fewer_finds_the_load(left, kg):
    """5 at 45: a max by the usual curve, 97 % of it, and of that the share for three fives that leave two."""
    advised = found(FIVES, 5, left, 4)
    assert advised.course is Course.FOUND
    assert abs(float(advised.kg) - kg) <= 2.5
    assert advised.kg <= kg
    assert advised.skipped == tuple(f"1.1.1.0.{bout}" for bout in range(5, 11))


def test_heavy_singles_have_a_way_up():
    """What is lighter than the single stays on the way up; nothing is above the max it was found by."""
    advised = found(SINGLES, 5, 4, 7)
    heaviest = max(change.kg for change in advised.loads)
    way_up = planned(SINGLES).sets[0].bouts
    kept = [bout for bout in way_up if bout.number > 7 and f"1.1.1.0.{bout.number}" not in advised.skipped]
    assert heaviest <= Decimal("0.95") * Decimal("0.94") * Decimal(104)
    assert all(bout.settled.kg <= heaviest * Decimal("0.92") for bout in kept)


@pytest.mark.parametrize("text", [FIVES, SINGLES, MINI_SETS])
@pytest.mark.parametrize(("max_kg", "endurance"), [(60, 10.2), (95, 8.5), (140, 12.0)])
def test_a_lifter_nobody_knows_comes_through_the_first_session(text, max_kg, endurance):
    """No five on the way up is missed, and the work leaves what was asked or a little more."""
    prescription = planned(text)
    table = all_advice(prescription, BAR)
    strength, adjusted = Momentary(RepCurve(endurance=endurance)), Adjustments()
    lefts = []
    for number, each in enumerate(prescription.sets):
        for at, bout in enumerate(each.bouts):
            now = as_played(prescription, adjusted).sets[number].bouts[at]
            if now.left_out:
                continue
            assert now.settled is not None, "no load was found"
            done = strength.perform(float(now.settled.kg) / max_kg, least_of(bout.reps))
            strength.rest(each.rest + 30 if at + 1 == len(each.bouts) else bout.rest + 20)
            assert done.reps == least_of(bout.reps)
            if not each.is_warm_up:
                lefts.append(done.left)
                continue
            position = str(each.position(bout))
            row = table.tables[table.positions[position][load_name(now.settled.kg)]][done.reps]
            advice = row[table.reserves[f"{min(int(done.left), 5)}"]][0]
            if advice >= 0 and (taken := table.advice[advice]).loads:
                loads = tuple(change.after(0) for change in taken.loads)
                adjusted = Adjustments(loads={"1.1": loads}, skipped=taken.skipped)
    assert 1 <= min(lefts) < 6


def test_a_body_weight_lift_has_no_light_load_to_begin_with():
    """A share of an unknown max of a chin-up is nothing that plates on a belt would lead up to."""
    prescription = planned("Weighted chin-up: 3 x 3 at 85%")
    assert all(bout.settled is None for each in prescription.sets for bout in each.bouts)
