"""What a planned session is foretold to come to."""

from decimal import Decimal

import pytest

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.foretelling import foretell
from fortis.core.loading.warm_up import School
from fortis.core.resolution import resolve
from fortis.core.strength.curve import DEFAULT_CURVE
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.units import Unit
from tests.core.kits import FULL

MAXES = {"Back squat": 100.0, "Bench press": 100.0, "Dip": 120.0, "One-arm row": 50.0}


def foretold(written, maxes=MAXES, body_kg=Decimal(80), **more):
    """For every bout, the way up with them, the reps expected and those left after them."""
    known = {lift_key(LIBRARY.find(lift), SetUp()): estimate(kg, 1, 0) for lift, kg in maxes.items()}
    basis = Basis(body_kg=body_kg, estimates=known, **more)
    prescription = resolve(lay_out(read(written, Unit.KG)), basis)
    steps = foretell(timeline(prescription), prescription, basis).steps
    return [step.foretold and (step.foretold.reps, step.foretold.left) for step in steps if step.kind == "work"]


def test_a_fresh_set_has_what_the_curve_allows():
    """75 % allows 10.2 reps to failure, of which five leave 5.2."""
    assert foretold("Back squat: 5 at 75 kg") == [(5, pytest.approx(DEFAULT_CURVE.endurance - 5, abs=0.01))]


def test_sets_tire_and_rests_bring_back():
    short, long = (foretold(f"Back squat: 3 x 5 at 80 kg rest {rest}") for rest in ("60s", "5:00"))
    assert [reps for reps, _ in long] == [5, 5, 5]
    assert short[0] == long[0]
    assert short[1][1] < long[1][1] < long[0][1]


def test_a_mini_set_too_heavy_stops_short():
    """Common practice: 3-4-5-6-7 at 65 % ends with none to spare, at 73 % before its end."""
    fits, fails = (foretold(f"Back squat: 1 set of (3, 4, 5, 6, 7) at {kg} kg within 15s") for kg in (65, 73))
    assert [reps for reps, _ in fits] == [3, 4, 5, 6, 7]
    assert fits[-1][1] < 1
    assert [reps for reps, _ in fails][:4] == [3, 4, 5, 4]


def test_who_goes_to_the_end_has_less_than_a_rep_left():
    for written in ("Back squat: 8 at 75 kg to failure", "Back squat: max at 75 kg"):
        ((reps, left),) = foretold(written)
        assert (reps, left) == (10, pytest.approx(0.2, abs=0.01))


@pytest.mark.parametrize("school", School)
def test_the_way_up_tires_nothing(school):
    """At 87 % five reps go, of which three leave two, after a way up as without one."""
    written = "Back squat: 3 at 87.5 kg rest 4:00; 2 x 3 at top -10%"
    after_it, without = foretold(written, kit=FULL, warm_ups=school), foretold(written, kit=FULL)
    assert without[0] == (3, pytest.approx(DEFAULT_CURVE.reps(0.875) - 3, abs=0.01))
    assert len(after_it) > len(without)
    assert after_it == [None] * (len(after_it) - len(without)) + without


def test_other_lifts_are_rest():
    pair = "pair, 2 rounds, rest 1:30:\n  Back squat: 5 at 80 kg\n  Bench press: 5 at 80 kg"
    alone = foretold("Back squat: 2 x 5 at 80 kg rest 1:30")
    paired = foretold(pair)
    assert paired[0] == alone[0]
    assert paired[2][1] > alone[1][1]


def test_sides_tire_by_themselves():
    rows = foretold("One-arm row: 1 x 8 at 35 kg each side")
    assert rows[0] == rows[1]


def test_body_weight_counts_and_is_needed():
    ((_, plain),) = foretold("Dip: 5 at bw")
    ((_, heavier),) = foretold("Dip: 5 at bw+10 kg")
    assert heavier < plain
    assert foretold("Dip: 5 at bw", body_kg=None) == [None]


@pytest.mark.parametrize(
    "written",
    [
        "Front squat: 5 at 75 kg",
        "Back squat [belt]: 5 at 75 kg",
        "Hollow hold: hold 30s",
        "Back squat: 5 stretched halves at 60 kg",
    ],
)
def test_nothing_is_foretold_of_what_is_not_known(written):
    assert foretold(written) == [None]
