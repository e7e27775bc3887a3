"""Loads at which reps were missed: cut by more after several in a row, come back to step by step."""

from decimal import Decimal

from fortis.core.adjustments import Adjustments, Swap
from fortis.core.played import as_played
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.prescription import Missed
from tests.core.test_next_loads import SQUAT, codes, told
from tests.core.test_rungs import PINS, planned, sessions
from tests.core.test_turns import REPS, well

SQUATS = "Back squat: 3 x 5 at 100 kg leave 2 rest 3:00"
WELL, EASY, BARELY, MISSED = [(5, 2)] * 3, [(5, 5)] * 3, [(5, 1)] * 3, [(5, 0), (4, 0), (4, 0)]
STRONG = {SQUAT: Estimate(kg=140, low=130, high=150)}
"""A max by which all of it is light: only what happens speaks against a load."""


def loads(*went, text=SQUATS):
    """The load of every session, and of the one to come."""
    found, last = sessions(text, {}, *went, estimates=STRONG)
    return [float(sets[0].bouts[0].settled.kg) for sets in found] + [float(last.kg)]


def test_misses_in_a_row_are_cut_by_more_each_time():
    """By 2.5, 2.5, 5, 7.5 and 10 %, where the max would allow more: common practice is a tenth after a few."""
    assert loads(*[MISSED] * 7) == [100, 97.5, 95, 90, 82.5, 75, 67.5, 60]


def test_a_time_between_without_a_miss_begins_the_count_anew():
    assert loads(MISSED, MISSED, BARELY, MISSED)[3:] == [95, 92.5]


def test_a_load_that_was_missed_is_come_back_to_half_way_first():
    """Where nothing lies between, that load is tried again instead of a heavier one."""
    assert loads(EASY, EASY, EASY, MISSED, EASY, EASY, EASY) == [100, 105, 110, 115, 110, 112.5, 115, 120]
    _, half_way = sessions(SQUATS, {}, EASY, EASY, MISSED, EASY, estimates=STRONG)
    assert told(half_way, "missed lately") == "110 kg was too much not long ago: that first."
    _, half_way = sessions(SQUATS, {}, EASY, EASY, EASY, MISSED, EASY, estimates=STRONG)
    assert told(half_way, "missed lately") == "115 kg was too much not long ago: 112.5 kg first."


def test_after_four_times_or_once_done_a_load_is_one_like_others():
    found, _ = sessions(SQUATS, {}, MISSED, *[BARELY] * 5)
    missed = [Missed(kg=Decimal(100), ago=times) for times in (1, 2, 3, 4)]
    assert [sets[0].missed for sets in found] == [None, *missed, None]
    found, last = sessions(SQUATS, {}, EASY, MISSED, EASY, WELL, EASY, estimates=STRONG)
    assert [sets[0].missed and sets[0].missed.ago for sets in found] == [None, None, 1, 2, None]
    assert "missed lately" not in codes(last)


def test_reps_that_come_on_top_are_none_that_a_load_misses():
    """Seven were tried where five are written: the load is not too heavy for what is asked of it."""
    found, _ = sessions(SQUATS, REPS, well(5), well(6), [(7, 1), (6, 0), (6, 0)], well(7))
    assert [sets[0].missed for sets in found] == [None] * 4


def test_a_load_on_top_of_body_weight_is_told_so():
    chins = "Weighted chin-up: 3 x 5 at bw+20 kg leave 2 rest 3:00"
    found, last = sessions(chins, {}, EASY, MISSED, EASY)
    assert [float(sets[0].bouts[0].settled.kg) for sets in found] == [20, 23.75, 21.25]
    assert told(last, "missed lately") == "23.75 kg added was too much not long ago: 22.5 kg added first."


def test_another_lift_or_rung_has_not_missed_it():
    marked = [each.model_copy(update={"missed": Missed(kg=Decimal(100))}) for each in planned(SQUATS).sets]
    plan = planned(SQUATS).model_copy(update={"sets": tuple(marked)})
    swapped = as_played(plan, Adjustments(swapped={"1.1": Swap(lift="Leg press", set=2)}))
    assert [each.missed is None for each in swapped.work_sets] == [False, True, True]
    pinned, policies = SQUATS.replace("squat", "squat [pin 8]"), {SQUAT[0]: PINS}
    found, _ = sessions(pinned, policies, MISSED, WELL, WELL)
    assert [(str(sets[0].setup), sets[0].missed is None) for sets in found] == [
        ("pin 8", True),
        ("pin 8", False),
        ("pin 7", True),
    ]


def test_a_cut_is_for_the_reps_that_are_written():
    """Seven stood where five are written; after a miss of those it is five again, which 95 kg are right for."""
    weaker = {SQUAT: Estimate(kg=120, low=116, high=124)}
    went = [well(5), well(6), [(6, 0), (5, 0), (4, 0)]]
    found, last = sessions(SQUATS, REPS, *went, estimates=weaker)
    assert [sets[0].bouts[0].reps.count for sets in found] == [5, 6, 7]
    as_written, _ = sessions(SQUATS, {}, [(5, 0), (5, 0), (4, 0)], well(5), estimates=weaker)
    assert last.kg == as_written[1][0].bouts[0].settled.kg


def test_a_share_of_the_max_that_was_missed_is_come_back_to_as_well():
    text, maxes = "Back squat: 3 x 5 at 80%", {SQUAT: Estimate(kg=125, low=120, high=130)}
    found, last = sessions(text, {}, MISSED, EASY, EASY, estimates=maxes)
    kgs = [float(sets[0].bouts[0].settled.kg) for sets in found]
    assert (kgs, float(last.kg)) == ([100, 97.5, 100], 100)
