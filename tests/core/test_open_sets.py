"""Sets that go on as long as they can: alone, and as the last of a line."""

from decimal import Decimal

import pytest

from fortis.core.progression.decision import Move
from fortis.core.strength.estimate import Estimate, estimate
from tests.core.test_next_loads import SQUAT, advice, codes, told
from tests.core.test_rungs import sessions

RISING = "Back squat: 5 at 75%; 3 at 85%; max at 95% rest 3:00"
HEAVY = "Back squat: 5 at 110 kg; 3 at 125 kg; max at 135 kg rest 3:00"
LEVEL = "Back squat: 3 x 5 at 100 kg; 1 x max at 100 kg rest 3:00"
STRONG = {SQUAT: Estimate(kg=200, low=190, high=210)}


def test_nothing_but_open_sets_go_for_one_rep_more_than_the_best():
    load = advice("Back squat: 3 x max at 100 kg", [(9, 0), (8, 0), (6, 0)])
    assert (load.move, load.kg, load.aim) == (Move.MORE_REPS, 100, "10 in one set")


def test_an_open_set_that_is_the_heaviest_is_what_the_line_is_told_by():
    """Shares of the max are what they are next time as well, and what is told is the load that is planned."""
    maxes = {SQUAT: estimate(150.0, 1, 0)}
    found, last = sessions(RISING, {}, *[[(5, 5), (3, 2), (3, 0)]] * 2, estimates=maxes)
    kgs = [[float(bout.settled.kg) for each in sets for bout in each.bouts] for sets in found]
    assert kgs == [[112.5, 127.5, 142.5]] * 2
    assert (last.was_kg, last.kg) == (Decimal("142.5"), Decimal("142.5"))
    assert told(last, "share of max").startswith("The plan asks for 95 %")


@pytest.mark.parametrize(("reps", "move", "kg"), [(3, Move.RAISE, 137.5), (1, Move.HOLD, 135), (0, Move.CUT, 130)])
def test_an_open_set_heavier_than_all_else_is_to_have_two_reps(reps, move, kg):
    load = advice(HEAVY, [(5, 4), (3, 2), (reps, 0)], estimates={SQUAT: estimate(150.0, 1, 0)})
    assert (load.move, float(load.kg)) == (move, kg)


def test_it_is_told_why_an_open_set_holds_a_load():
    load = advice(HEAVY, [(5, 4), (3, 2), (1, 0)], estimates=STRONG)
    assert told(load, "ended soon") == "1 in the open set at 135 kg: the same again until it has 2."
    load = advice(HEAVY, [(5, 4), (3, 2), (0, 0)], estimates=STRONG)
    assert told(load, "no rep") == "No rep in the open set at 135 kg: a little less."


def test_an_open_set_after_others_at_its_load_is_to_have_as_many_as_those():
    well, soon = [(5, 3), (5, 3), (5, 2), (5, 0)], [(5, 3), (5, 2), (5, 1), (4, 0)]
    assert advice(LEVEL, well, estimates=STRONG).move is Move.RAISE
    load = advice(LEVEL, soon, estimates=STRONG)
    assert (load.move, told(load, "ended soon")) == (
        Move.HOLD,
        "4 in the open set at 100 kg: the same again until it has 5.",
    )


def test_a_drop_to_the_end_holds_nothing():
    text = "Back squat: 2 sets of (8 at 100 kg leave 1, max drop 20%) rest 3:00"
    load = advice(text, [(8, 1), (1, 0), (8, 1), (1, 0)], estimates=STRONG)
    assert load.move is Move.RAISE
    assert "ended soon" not in codes(load)
