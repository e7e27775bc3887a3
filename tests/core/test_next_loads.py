from decimal import Decimal

import pytest

from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.next_loads import Move, carried, next_loads
from fortis.core.resolution import Basis, lift_key, resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL, SPARSE, kit

SQUAT = lift_key("Back squat", SetUp())


def played(text, went, kit=FULL, estimates=None, ended=None):
    """Play a one-lift plan: `went` has (reps, reserve) for each bout in turn; return plan and bouts."""
    basis = Basis(kit=kit, body_kg=Decimal(80), estimates=estimates or {})
    prescription = resolve(lay_out(read(text)), basis)
    planned = [(each, bout) for each in prescription.sets for bout in each.bouts]
    bouts = [
        PerformedBout(
            position=each.position(bout),
            exercise=each.exercise,
            setup=each.setup,
            side=bout.side,
            kg=bout.settled.kg,
            reps=reps,
            reserve=reserve,
            ended=ended,
        )
        for (each, bout), (reps, reserve) in zip(planned, went, strict=False)
    ]
    return prescription, bouts


def advice(text, went, kit=FULL, estimates=None, ended=None):
    prescription, bouts = played(text, went, kit, estimates, ended)
    (load,) = next_loads(prescription, bouts, kit, Decimal(80), estimates or {})
    return load


def codes(load):
    return [reason.code for reason in load.reasons]


@pytest.mark.parametrize(
    ("went", "move", "kg", "code"),
    [
        ([(5, 2), (5, 2), (5, 2)], Move.RAISE, "102.5", "met"),
        ([(5, 5), (5, 4), (5, 4)], Move.RAISE, "105", "met"),
        ([(5, 2), (5, 1), (5, 1)], Move.HOLD, "100", "met barely"),
        ([(5, 1), (5, 0), (3, 0)], Move.CUT, "97.5", "missed"),
        ([(5, None), (5, None), (5, None)], Move.RAISE, "102.5", "met"),
    ],
)
def test_add_a_little_hold_or_cut(went, move, kg, code):
    load = advice("Back squat: 3 x 5 at 100 leave 2", went)
    assert (load.move, load.kg) == (move, Decimal(kg))
    assert code in codes(load)


def test_a_rise_is_never_more_than_a_little():
    assert advice("Back squat: 3 at 100 leave 1", [(3, 9)]).kg == 105


def test_a_slip_of_form_holds():
    load = advice("Back squat: 5 at 100 leave 2", [(5, 3)], ended=Ended.FORM)
    assert (load.move, "form slipped" in codes(load)) == (Move.HOLD, True)


def test_reps_first_then_load_within_a_range():
    assert advice("Back squat: 2 x 6-8 at 100 leave 1", [(8, 2), (7, 1)]).move is Move.MORE_REPS
    assert advice("Back squat: 2 x 6-8 at 100 leave 1", [(8, 2), (8, 1)]).move is Move.RAISE


def test_where_the_next_plate_is_too_big_a_jump_reps_come_first():
    load = advice("Back squat: 3 x 5 at 70 leave 2", [(5, 2)] * 3, kit=SPARSE)
    assert (load.move, load.kg) == (Move.MORE_REPS, 70)
    assert "jump too big" in codes(load)
    assert advice("Back squat: 3 x 5 at 70 leave 2", [(5, 8)] * 3, kit=SPARSE).kg == 80


def test_a_cut_no_kit_can_make_gently_holds():
    load = advice("Back squat: 3 x 5 at 60 leave 2", [(5, 0), (4, 0), (4, 0)], kit=kit("1x20"))
    assert (load.move, load.kg) == (Move.HOLD, 60)
    assert "cut too big" in codes(load)


def test_to_failure_is_judged_by_reps():
    assert advice("Back squat: 12 at 60 to failure", [(14, 0)]).move is Move.RAISE
    assert advice("Back squat: 12 at 60 to failure", [(11, 0)]).move is Move.HOLD
    assert advice("Back squat: 12 at 60 to failure", [(9, 0)]).move is Move.CUT


def test_percentages_follow_the_max_unless_missed():
    maxes = {SQUAT: estimate(150.0, 1, 0)}
    load = advice("Back squat: 2 x 3 at 80% leave 3", [(3, 3), (3, 3)], estimates=maxes)
    assert (load.move, load.kg) == (Move.HOLD, 120)
    missed = advice("Back squat: 2 x 3 at 90% leave 1", [(3, 0), (1, 0)], estimates=maxes)
    assert missed.move is Move.CUT
    basis = Basis(kit=FULL, estimates=maxes, carried=carried([missed]))
    again = resolve(lay_out(read("Back squat: 2 x 3 at 90% leave 1")), basis)
    assert again.sets[0].bouts[0].settled.kg < 135


def test_body_weight_alone_gains_reps_and_a_belt_gains_plates():
    assert advice("Ring row: 2 x 8-10 leave 1", [(10, 2), (10, 2)]).move is Move.MORE_REPS
    assert advice("Ring row: 2 x 8-10 leave 1", [(8, 0), (6, 0)]).move is Move.HOLD
    load = advice("Dip: 2 x 5 at bw+10 leave 2", [(5, 2), (5, 2)])
    assert (load.move, load.kg) == (Move.RAISE, Decimal("11.25"))


def test_the_next_session_of_the_name_uses_the_recommendation():
    text = "Back squat: 3 x 5 at 100 leave 2"
    load = advice(text, [(5, 2)] * 3)
    again = resolve(lay_out(read(text)), Basis(kit=FULL, carried=carried([load])))
    settled = again.sets[0].bouts[0].settled
    assert settled.kg == Decimal("102.5")
    assert [reason.code for reason in settled.reasons] == codes(load)


def test_a_lift_that_was_not_done_or_had_no_load_gets_no_recommendation():
    prescription, _ = played("Back squat: 5 at 100", [])
    assert next_loads(prescription, [], FULL, None, {}) == ()
