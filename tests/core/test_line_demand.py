"""Loads solved through all the sets of a line, in its place in the session."""

from decimal import Decimal

import pytest
from scipy.optimize import brentq

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.line_demand import demand_of
from fortis.core.line_loads import lead_of
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline

MAXES = {lift_key(LIBRARY.find(lift), SetUp()): estimate(kg, 1, 0) for lift, kg in (
    ("Back squat", 100.0), ("Bench press", 100.0), ("Dip", 140.0), ("Seal row", 100.0))}  # fmt: skip


def settled(written):
    return resolve(lay_out(read(written)), Basis(body_kg=Decimal(80), estimates=MAXES))


def loads(written, lift):
    return [
        float(bout.settled.kg) for each in settled(written).sets if each.exercise == lift for bout in each.bouts
    ]


def test_sets_of_a_line_that_ask_different_things_are_each_as_heavy_as_they_can_be():
    """Against the roots of the equations written out: three fives, then two tens tired by all before."""
    *fives, ten, other = loads("Back squat: 3 x 5 leave 2; 2 x 10 leave 1 rest 3min", "Back squat")
    curve = MAXES[lift_key(LIBRARY.find("Back squat"), SetUp())].curve
    back = 1 - 0.45 * 2.718281828 ** (-180 / 17) - 0.55 * 2.718281828 ** (-180 / 150)

    def left_at_the_end(shares_and_reps):
        missing = stays = left = 0.0
        for share, reps in shares_and_reps:
            strength = 1 - missing * (1 - back) - stays
            left = 1 + (strength - share) / curve.cost(share) - reps
            missing = missing * (1 - back) + reps * curve.cost(share) * 0.95
            stays += reps * curve.cost(share) * 0.05
        return left

    five = brentq(lambda share: left_at_the_end([(share, 5)] * 3) - 2, 0.5, 0.95)
    tens = brentq(lambda share: left_at_the_end([(five, 5)] * 3 + [(share, 10)] * 2) - 1, 0.4, 0.95)
    assert fives == [pytest.approx(100 * five, abs=0.1)] * 3
    assert ten == other == pytest.approx(100 * tens, abs=0.1)


def outlook(written, kg, lift="Back squat"):
    plan = settled(written)
    sets = [each for each in plan.sets if each.exercise == lift]
    lead = lead_of([bout for each in sets for bout in each.bouts])
    return demand_of(plan, sets, lead, Decimal(0)).outlook(kg, MAXES[lift_key(LIBRARY.find(lift), SetUp())])


def test_three_sets_are_as_heavy_as_the_last_of_them_allows():
    """Against the root of the equation written out: fast and slow recovery, and what stays for the day."""
    (kg, *others) = loads("Back squat: 3 x 5 leave 2 rest 3min", "Back squat")
    assert others == [kg, kg]
    curve = MAXES[lift_key(LIBRARY.find("Back squat"), SetUp())].curve
    back = 1 - 0.45 * 2.718281828 ** (-180 / 17) - 0.55 * 2.718281828 ** (-180 / 150)

    def left_at_the_end(share):
        a_set = 5 * curve.cost(share)
        missing, stays = 0.0, 0.0
        for _ in range(2):
            missing = (missing + 0.95 * a_set) * (1 - back)
            stays += 0.05 * a_set
        return 1 + (1 - missing - stays - share) / curve.cost(share) - 5 - 2

    assert kg == pytest.approx(100 * brentq(left_at_the_end, 0.5, 0.95), abs=0.1)


@pytest.mark.parametrize("set_", ["5 leave 2", "10 leave 1"])
def test_more_sets_and_shorter_rests_are_lighter(set_):
    one, three, hurried = (
        loads(f"Back squat: {written}", "Back squat")[0]
        for written in (set_, f"3 x {set_}", f"3 x {set_} rest 1min")
    )
    assert 0.8 * one < hurried < three < one


def test_clusters_one_after_the_other_are_lighter_than_one():
    one, three = (
        loads(f"Back squat: {sets} of (3, 4, 5) leave 1 within 15s", "Back squat")[0]
        for sets in ("1 set", "3 sets")
    )
    assert 0.85 * one < three < one


def test_what_tires_the_same_muscles_before_takes_its_part():
    alone = loads("Bench press: 3 x 5 leave 2", "Bench press")[0]
    after_dips = loads("Dip: 3 x 8 leave 1\nBench press: 3 x 5 leave 2", "Bench press")[0]
    after_rows = loads("Seal row: 3 x 8 leave 1\nBench press: 3 x 5 leave 2", "Bench press")[0]
    assert 0.93 * alone < after_dips < alone - 0.5
    assert after_rows == pytest.approx(alone, abs=0.1)


def test_the_same_lift_on_a_line_before_tires_too():
    alone = loads("Back squat: 3 x 5 leave 2", "Back squat")[0]
    after_a_single = loads("Back squat: 1 at 90 kg leave 1\nBack squat: 3 x 5 leave 2", "Back squat")[1]
    after_tens = loads("Back squat: 3 x 10 at 60 kg leave 2\nBack squat: 3 x 5 leave 2", "Back squat")[3]
    assert 0.9 * alone < after_tens < after_a_single < alone


def test_the_lifts_of_a_pair_count_what_they_share():
    pair = "pair, 3 rounds, rest 60s:\n  Bench press: 5 leave 2\n  {}: 8 leave 2"
    with_dips, with_rows = (loads(pair.format(lift), "Bench press")[0] for lift in ("Dip", "Seal row"))
    assert with_dips < with_rows - 0.5


def test_the_outlook_names_the_hardest_bout_and_agrees_with_the_load_solved():
    written = "Back squat: 3 x 5 leave 2"
    found = outlook(written, loads(written, "Back squat")[0])
    assert (found.set, found.reps, found.keep) == (3, 5, 2)
    assert found.left == pytest.approx(2, abs=0.05)
    assert found.low <= found.left <= found.high
    assert outlook(written, 95).left < -1


def test_warm_ups_halves_and_the_other_side_are_no_demand():
    plan = settled("Back squat: 2 x 5 leave 2")
    assert len([step for step in timeline(plan).steps if step.kind == "work"]) == 2
    assert outlook("Back squat: 6 stretched halves leave 2 at 60 kg", 60) is None
