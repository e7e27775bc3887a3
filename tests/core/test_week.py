"""Weeks added up from their sessions, told beside each other and beside what is usual."""

from datetime import date, timedelta
from decimal import Decimal

import pytest

from fortis.core.performance import Ended, PerformedBout, asked_of
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.tally.costing import cost_of_performance
from fortis.core.tally.small_score import small_score
from fortis.core.tally.week import DayDone, added_up, beside, monday_of, usual_hard_sets

MONDAY = date(2026, 3, 2)


def done(written, seconds=3_000):
    """A session done as it was planned, and what it comes to."""
    plan = lay_out(read(written))
    return cost_of_performance(plan, bouts(plan), seconds)


def bouts(plan):
    return [
        PerformedBout(
            position=each.position(bout), exercise=each.exercise, setup=each.setup, reps=bout.reps.count,
            kg=bout.load and bout.load.kg, asked=asked_of(bout), reserve=Decimal(2),
        )
        for each in plan.sets
        for bout in each.bouts
    ]  # fmt: skip


def week(*sessions, monday=MONDAY):
    return added_up(monday, [DayDone(day=monday + timedelta(days=day), costing=of) for day, of in sessions])


def test_a_week_is_what_its_sessions_come_to():
    """By hand: 5 x 5 at 100 and 3 x 8 at 60 are 2,500 + 1,440 kg in 49 reps; 25 reps of 3 s and 24 of 3 s."""
    one, other = done("Back squat: 5 x 5 at 100 kg"), done("Bench press: 3 x 8 at 60 kg tempo 3-1-1-0")
    found = week((0, one), (3, other), (-1, one), (7, one))
    assert (found.sessions, found.sets, found.reps, found.seconds) == (2, 8, 49, 6_000)
    assert found.tonnage_kg == 3_940
    assert found.average_kg == Decimal("80.4")
    assert found.work_seconds == 25 * 3 + 24 * 5
    assert [(lift.exercise, lift.average_kg) for lift in found.lifts] == [("Back squat", 100), ("Bench press", 60)]
    assert {each.name: each.count for each in found.hard_sets}["quads"] == 5
    assert found.load is found.monotony is found.strain is None


def test_a_week_is_seven_days_from_monday():
    assert [monday_of(MONDAY + timedelta(days=day)) for day in (-1, 0, 6, 7)] == [
        MONDAY - timedelta(days=7), MONDAY, MONDAY, MONDAY + timedelta(days=7),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("before", "after", "words"),
    [
        (
            "Back squat: 3 at 120 kg; 2 x 3 at 110 kg",
            "Back squat: 3 at 122.5 kg; 3 x 3 at 112.5 kg",
            "Tonnage +35.3 %, average load +1.5 % on the week before: more work, and heavier.",
        ),
        (
            "Back squat: 5 x 5 at 100 kg",
            "Back squat: 4 x 5 at 100 kg",
            "Tonnage −20.0 %, average load +0.0 % on the week before: less work, at about the same load.",
        ),
        (
            "Back squat: 5 x 5 at 100 kg",
            "Front squat: 5 x 5 at 80 kg",
            "No fair comparison with the week before: front squat, back squat in only one of them. "
            "Compare lift by lift.",
        ),
    ],
)
def test_work_and_load_are_read_together(before, after, words):
    assert beside(week((0, done(after))), week((0, done(before)))) == words


def test_nothing_is_told_beside_an_empty_week():
    assert beside(week((0, done("Back squat: 5 x 5 at 100 kg"))), week()) == ""


def test_a_load_by_effort_needs_every_session_to_be_told():
    costing = done("Back squat: 5 x 5 at 100 kg")
    told = DayDone(day=MONDAY, costing=costing, felt=7)
    assert added_up(MONDAY, [told]).load == 350
    assert added_up(MONDAY, [told, DayDone(day=MONDAY, costing=costing)]).load is None


def test_what_is_usual_is_the_middle_half_of_the_weeks_trained_in():
    weeks = [week((0, done(f"Back squat: {sets} x 5 at 100 kg"))) for sets in (4, 5, 6, 7, 12)]
    (quads,) = [each for each in usual_hard_sets([*weeks, week()]) if each.name == "quads"]
    assert (quads.low, quads.high) == (5, 7)
    assert usual_hard_sets(weeks[:3]) == ()


def test_a_small_score_shows_loads_as_heights_and_what_was_missed():
    plan = lay_out(read("Back squat: 1 at 110 kg; 5 at 90 kg; 1 set of (5 at 100 kg, 3 at 90 kg)\nRing row: 8"))
    first, second, third, fourth = bouts(plan)[:4]
    short = second.model_copy(update={"reps": 3, "ended": Ended.STUCK})
    warm_up = first.model_copy(update={"position": Position(group=1, round=1, entry=1, set=0, bout=1)})
    assert warm_up.position.is_warm_up
    score = small_score([warm_up, first, short, third, fourth])
    heights = [[bout.height for bout in each.bouts] for each in score]
    assert heights == [[1.0], [0.0], [0.5, 0.0]]
    assert [[(bout.reps, bout.missed) for bout in each.bouts] for each in score] == [
        [(1, 0)], [(3, 2)], [(5, 0), (3, 0)],
    ]  # fmt: skip
