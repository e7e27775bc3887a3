"""Trials: weeks drawn by lot, what changes in them, and what can be said of it in the end."""

from datetime import date, timedelta
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.season.model import Away, LightSchool, LightWeek, Method, Trial
from fortis.core.season.reading import SeasonError, read_season, with_away, with_trial
from fortis.core.season.trial import (
    Reading,
    SessionTried,
    Verdict,
    as_tried,
    draw,
    lengths,
    outcome,
    readings,
)
from fortis.core.season.weeks import weeks
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
from fortis.core.structure.model import SetUp
from fortis.core.structure.notation import read
from fortis.core.structure.writing import write
from fortis.core.tally.shown import BoutShown
from fortis.simulation.trying import trial_of

MONDAY = date(2026, 10, 12)
BELT = SetUp(items=("belt",))


def trial(method=Method.LONGER, tried=(1, 4), of=4, sets="", exercise="Squat", setup=BELT):
    return Trial(
        monday=MONDAY,
        weeks=of,
        tried=tried,
        exercise=exercise,
        setup=setup,
        method=None if sets else method,
        sets=sets,
    )


@given(st.integers(1, 13), st.integers())
def test_one_of_every_two_weeks_is_drawn(pairs, seed):
    drawn = draw(range(1, 2 * pairs + 1), Random(seed))
    assert [(week + 1) // 2 for week in drawn] == list(range(1, pairs + 1))


def test_the_lot_is_even():
    firsts = [draw((1, 2), Random(seed)) for seed in range(400)]
    assert 150 < firsts.count((1,)) < 250


@given(st.sets(st.integers(1, 26)), st.integers(1, 4), st.integers())
def test_rounds_are_weeks_in_a_row_that_are_trained_and_every_other_one_is_drawn(trained, weeks, seed):
    drawn = draw(trained, Random(seed), weeks)
    assert set(drawn) <= trained
    assert len(drawn) % weeks == 0
    for at in range(0, len(drawn), weeks):
        assert drawn[at + weeks - 1] - drawn[at] == weeks - 1
    longest = max(lengths(trained, weeks), default=0)
    assert bool(drawn) is bool(longest)
    for pair, length in enumerate(lengths(trained, weeks), start=1):
        assert len(draw([each for each in trained if each <= length], Random(seed), weeks)) == pair * weeks


@pytest.mark.parametrize(
    ("method", "usual", "with_it"),
    [
        (Method.SINGLE, "3 x 5 at 75% rest 3:00", "1 at 90% rest 4:00; 3 x 5 at 75% rest 3:00"),
        (Method.SINGLE, "3 x 8-10 leave 2", "3 x 8-10 leave 2"),
        (Method.SINGLE, "1 at 88%; 3 x 5 at 75%", "1 at 88%; 3 x 5 at 75%"),
        (Method.SINGLE, "3 at 80%; 3 x 5 at top -10%", "3 at 80%; 3 x 5 at top -10%"),
        (Method.LONGER, "3 x 5 rest 2:00; 2 x 8", "3 x 5 rest 3:00; 2 x 8 rest 4:30"),
        (Method.SHORTER, "3 x 5 rest 2:00; 10 for 5:00", "3 x 5 rest 1:15; 10 for 5:00"),
        (
            Method.HALVES,
            "3 x 8 at 60 kg leave 1 rest 2:00",
            "2 x 8 at 60 kg leave 1 rest 2:00; 1 set of (8 at 60 kg leave 1, 5 stretched halves) rest 2:00",
        ),
        (Method.HALVES, "2 sets of (5, 3) within 20s", "2 sets of (5, 3) within 20s"),
    ],
)
def test_what_changes_is_one_thing(method, usual, with_it):
    session = read(f"# Legs\nprep: hips\nSquat [belt]: {usual}\nSquat: 5\nRow: 3 x 8 rest 2:00\n")
    changed = write(as_tried(session, trial(method), MONDAY))
    assert changed == write(read(f"# Legs\nprep: hips\nSquat [belt]: {with_it}\nSquat: 5\nRow: 3 x 8 rest 2:00\n"))


def test_the_weeks_that_were_drawn_are_tried_and_light_ones_never():
    text = """from 2026-10-12
light 2026-10-26: half the load
building, 3 weeks:
  Tuesday, Legs:
    Squat [belt]: 3 x 5 at 60 kg
light, 1 week, heavy and short
"""
    written = with_trial(text, MONDAY, trial(tried=(1, 2, 3, 5), of=6, sets="5 x 3 at 70 kg"))
    assert written.splitlines()[2] == ("trial 2026-10-12, 6 weeks, in 1 2 3 5: Squat [belt]: 5 x 3 at 70 kg")
    lines = [session.written.splitlines()[1] for week in weeks(read_season(written)) for session in week.sessions]
    tried, usual = "Squat [belt]: 5 x 3 at 70 kg", "Squat [belt]: 3 x 5 at 60 kg"
    assert [lines[0], lines[1], lines[3]] == [tried, tried, usual]
    assert lines[2] == "Squat [belt]: 3 x 5 at 30 kg"  # the light week in between, made of the usual one
    assert "2 x 2 at 85%" in lines[4]
    assert with_trial(written, MONDAY, None) == text


WAVES = """from 2026-10-12
trial 2026-10-12, 6 weeks, in 1 2 3: Squat [belt]: 3|2|1 at 80|85|90 kg +5 kg a round; 2 x 3 at top -10%
building, 6 weeks:
  Tuesday, Legs:
    Squat [belt]: 3 x 5 at 60 kg
    Row: 3 x 8 at 50 kg
"""


def squats(text):
    return {
        week.monday: session.written.splitlines()[1].partition(": ")[2]
        for week in weeks(read_season(text))
        for session in week.sessions
    }


def test_sets_may_change_from_week_to_week_and_from_round_to_round():
    back_off, usual = "2 x 3 at top -10%", "3 x 5 at 60 kg"
    wave = [f"{reps} at {kg} kg; {back_off}" for reps, kg in ((3, 80), (2, 85), (1, 90))]
    assert list(squats(WAVES).values()) == [*wave, usual, usual, usual]
    longer = WAVES.replace("6 weeks", "9 weeks").replace("1 2 3", "1 2 3 7 8 9")
    assert list(squats(longer).values())[6:] == [
        f"{reps} at {kg} kg; {back_off}" for reps, kg in ((3, 85), (2, 90), (1, 95))
    ]
    for wrong, told in (
        ("week 2: 3 at 80 kg", "A round of this block has the weeks 1 to 1."),
        ("3|2|1 at 80|85|90 lg", "not a unit Fortis knows"),
    ):
        with pytest.raises(SeasonError, match=told):
            read_season(WAVES.replace("3|2|1 at 80|85|90 kg +5 kg a round", wrong))


def test_a_trial_goes_with_the_plan_where_a_week_is_put_off():
    before = squats(WAVES)
    second, week = MONDAY + timedelta(weeks=1), timedelta(weeks=1)
    away = with_away(WAVES, second, Away(monday=second))
    assert "trial 2026-10-12, 7 weeks, in 1 3 4: Squat" in away
    assert list(squats(away).values()) == list(before.values())
    assert with_away(away, second, None) == WAVES
    light = with_away(WAVES, second, LightWeek(monday=second, school=LightSchool.HALF))
    assert "7 weeks, in 1 3 4" in light
    from_the_start = with_away(away, MONDAY, Away(monday=MONDAY))
    assert "trial 2026-10-26, 6 weeks, in 1 2 3: Squat" in from_the_start
    assert squats(from_the_start) == {monday + 2 * week: sets for monday, sets in before.items()}
    assert with_away(with_away(from_the_start, MONDAY, None), second, None) == WAVES
    missed = with_away(WAVES, second, Away(monday=second, missed=True))
    assert "6 weeks, in 1 2 3" in missed


def shown(*forms, reps=5):
    return [BoutShown(place, reps, 0.8, 180.0, False, 2.0, 0.0, form) for place, form in enumerate(forms)]


def told(tried, usual, noise=0.002, rise=0.0, of=4, days=(0, 3)):
    """Two sessions a week, so much above the max with the method and without, one day better than the other."""
    found = []
    for week in range(of):
        for number, day in enumerate(days):
            level = (tried if week + 1 in (1, 4) else usual) + rise * week + (noise if number else -noise)
            found.append(SessionTried(MONDAY + timedelta(weeks=week, days=day), shown(level, level)))
    return [Reading(1.0, found)]


SECOND, LATER = MONDAY + timedelta(weeks=1), MONDAY + timedelta(weeks=5)


def test_a_difference_is_told_at_the_end_and_not_before():
    runs = outcome(trial(), told(0.03, 0.0), (), LATER - timedelta(weeks=2))
    ended = outcome(trial(), told(0.03, 0.0), (), LATER)
    assert (runs.verdict, ended.verdict) == (Verdict.RUNNING, Verdict.HELPS)
    assert runs.change == ended.change == pytest.approx(0.03)
    assert (ended.tried, ended.usual) == (4, 4)
    assert outcome(trial(), told(-0.03, 0.0), (), LATER).verdict is Verdict.COSTS
    assert outcome(trial(), told(0.001, 0.0), (), LATER).verdict is Verdict.ALIKE
    unclear = outcome(trial(), told(0.01, 0.0, noise=0.03), (), LATER)
    assert unclear.verdict is Verdict.OPEN
    assert unclear.low < 0 < unclear.high


def test_getting_stronger_all_along_is_no_difference():
    assert outcome(trial(), told(0.0, 0.0, rise=0.02), (), LATER).change == pytest.approx(0.0, abs=0.002)


def test_weeks_left_out_and_sessions_of_other_times_are_not_counted():
    monday = MONDAY + timedelta(weeks=1)
    strange = SessionTried(MONDAY - timedelta(days=2), shown(0.5))
    (reading,) = told(0.03, 0.0)
    found = outcome(trial(), [reading._replace(sessions=[strange, *reading.sessions])], [monday], LATER)
    assert (found.tried, found.usual, found.change) == (4, 2, None)
    assert found.verdict is Verdict.OPEN


def test_the_single_itself_is_no_part_of_what_it_does():
    (reading,) = told(0.02, 0.0)
    of = [each._replace(bouts=[*shown(-0.3, reps=1), *each.bouts]) for each in reading.sessions]
    assert outcome(trial(Method.SINGLE), [Reading(1.0, of)], (), LATER).change == pytest.approx(0.02)
    assert outcome(trial(Method.LONGER), [Reading(1.0, of)], (), LATER).change < 0.02


def test_what_kinds_of_lifter_read_apart_is_not_told():
    one, other = told(0.03, 0.0)[0], told(-0.01, 0.0)[0]
    alone = outcome(trial(), [one], (), LATER)
    both = outcome(trial(), [one._replace(likely=0.5), other._replace(likely=0.5)], (), LATER)
    assert (alone.verdict, both.verdict) == (Verdict.HELPS, Verdict.OPEN)
    assert both.change == pytest.approx(0.01)
    unlikely = outcome(trial(), [one, other._replace(likely=1e-6)], (), LATER)
    assert unlikely.verdict is Verdict.HELPS


def test_sets_that_were_to_leave_many_are_not_counted_whatever_they_left():
    """The same sets for every kind, by what is known: fives at 60 % leave far more than four."""
    known = Estimate(kg=100.0, low=98.0, high=102.0)
    near, far = Heard(80.0, 0.0, 6, 2.0), Heard(60.0, 600.0, 5, 3.0)
    found = readings([(MONDAY, [near, far])], known, [(0.5, known), (0.5, known.times(0.7))])
    assert [[bout.place for bout in each.sessions[0].bouts] for each in found] == [[0], [0]]


def test_weeks_that_would_do_follow_from_the_bounds():
    found = outcome(trial(), told(0.0, 0.0, noise=0.008), (), LATER)
    assert found.verdict is Verdict.OPEN
    within = (found.high - found.low) / 2
    assert found.more_weeks == pytest.approx(4 * ((within / 0.01) ** 2 - 1), abs=2)
    far_off = outcome(trial(), told(0.0, 0.0, noise=0.05), (), LATER)
    assert far_off.more_weeks is None
    apart = [
        Reading(0.5, [each._replace(bouts=shown(each.bouts[0].form + (shift if each.on < SECOND else 0.0)))
                      for each in told(0.0, 0.0, noise=0.008)[0].sessions])
        for shift in (0.02, -0.02)
    ]  # fmt: skip
    assert outcome(trial(), apart, (), LATER).more_weeks is None


def test_made_up_lifters_are_told_of_what_is_there():
    large = [trial_of(seed, 0.06).verdict for seed in range(8)]
    assert large.count(Verdict.HELPS) >= 6
    nothing = [trial_of(seed, 0.0) for seed in range(8)]
    assert sum(each.low > 0 or each.high < 0 for each in nothing) <= 2
