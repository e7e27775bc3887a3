"""Made-up lifters: as they are said to be, and their logs as any log is written."""

import csv
from collections import Counter
from itertools import pairwise
from random import Random
from statistics import fmean

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.replay import replay
from fortis.core.strength.formulas import FORMULAS
from fortis.formats.csv import read_bouts
from fortis.simulation.fatigue import year
from fortis.simulation.gaining import Way, day_of, year_by
from fortis.simulation.lifter import CURVES, RECOVERIES, made_up
from fortis.simulation.log import KINDS, simulate, write


@pytest.mark.parametrize("curve", CURVES)
@given(st.lists(st.floats(0.45, 1), min_size=2, max_size=2).map(sorted))
def test_a_lighter_load_never_allows_fewer_reps(curve, shares):
    light, heavy = shares
    assert CURVES[curve](light) >= CURVES[curve](heavy) >= 0


@pytest.mark.parametrize("reps", range(2, 13))
def test_the_curves_are_the_published_ones_turned_around(reps):
    shares = {name: 1 / formula(1.0, reps) for name, formula in FORMULAS.items()}
    assert CURVES["hyperbola"](shares["Epley"]) == pytest.approx(reps)
    assert CURVES["line"](shares["Brzycki"]) == pytest.approx(reps - 1)
    assert CURVES["power"](shares["Lombardi"]) == pytest.approx(reps - 1)
    assert CURVES["exponential"](shares["Mayhew"]) == pytest.approx(reps + 2.4, abs=0.01)


@pytest.mark.parametrize("recovery", RECOVERIES)
@given(st.integers(0, 100), st.lists(st.floats(0, 900), min_size=2, max_size=2).map(sorted))
def test_a_longer_rest_brings_back_more(recovery, seed, rests):
    brings_back = RECOVERIES[recovery](Random(seed))
    short, long = map(brings_back, rests)
    assert 0 <= short <= long <= 1


def test_who_goes_to_failure_has_less_than_a_rep_left_and_more_after_a_rest():
    lifter = made_up(Random(3), 100, "hyperbola", "twofold")
    done, left = lifter.lift(75, None)
    assert done > 5
    assert 0 <= left < 1
    lifter.rest(60)
    assert lifter.left(75) > left + 1
    assert lifter.left(60) > lifter.left(75)


@pytest.mark.parametrize("kind", KINDS)
def test_a_log_is_read_back_with_all_its_rows_and_a_truth_for_each_of_them(tmp_path, kind):
    log, truth = write(tmp_path, kind, 10, 5)
    rows, truths = simulate(kind, 10, 5)
    with log.open(encoding="utf-8", newline="") as lines:
        read = list(read_bouts(lines))
    assert [(bout.exercise, bout.set, bout.bout, bout.reps, float(bout.load_kg)) for bout in read] == [
        (row.exercise, row.set, row.bout, row.reps, row.load) for row in rows
    ]
    with truth.open(encoding="utf-8", newline="") as lines:
        known = [
            (each["session"], each["exercise"], int(each["set"]), int(each["bout"]))
            for each in csv.DictReader(lines)
        ]
    assert known == [(bout.session, bout.exercise, bout.set, bout.bout) for bout in read]
    for row, true in zip(rows, truths, strict=True):
        assert row.performed_at == true.performed_at
        if row.ended == "muscle" and row.reps < 30:
            assert row.reps <= true.reps_to_failure < row.reps + 1
    found = replay(read)
    assert [(each.session, each.exercise) for each in found.sessions] == list(
        dict.fromkeys((session, exercise) for session, exercise, _, _ in known)
    )


def test_the_same_seed_makes_the_same_lifter_and_another_one_another():
    one, again, other = (simulate(KINDS[0], 12, seed) for seed in (1, 1, 2))
    assert one == again
    assert one != other


def test_many_weeks_have_everything_a_log_can_have():
    rows = [row for seed in range(12) for row in simulate(KINDS[seed], 40, seed)[0]]
    told = Counter(row.rir for row in rows)
    assert {"0", "1", "2", "5+"} <= set(told)
    assert {row.ended for row in rows} == {"target", "muscle"}
    assert any(row.load > 400 for row in rows)
    assert any(row.reps > 60 for row in rows)
    assert {row.rest_before_s for row in rows} >= {5, 15, 20, 180, 240}


def test_a_year_of_building_fatigue_is_the_same_again_and_the_watch_speaks_when_it_is_there():
    """Of three lifters: where the watch says that a light week is due, more fatigue has gathered than elsewhere."""
    years = [list(year(seed)) for seed in range(3)]
    assert [each.fatigue for each in year(0)] == [each.fatigue for each in years[0]]
    due, quiet = (
        [each.fatigue for seen in years for each in seen if each.watch.known and each.watch.is_due is is_due]
        for is_due in (True, False)
    )
    assert fmean(due) > 1.4 * fmean(quiet)


def test_a_lifter_who_follows_the_watch_trains_light_in_the_week_after_and_tires_less():
    followed, not_followed = ([list(year(seed, follows=follows)) for seed in range(2)] for follows in (True, False))
    for seen in followed:
        for before, after in pairwise(seen):
            assert after.light is (before.watch.is_due and not before.light)
    assert any(each.light for seen in followed for each in seen)
    usual = [fmean(each.fatigue for seen in years for each in seen) for years in (followed, not_followed)]
    assert usual[0] < usual[1]


def test_a_year_of_the_same_lifter_is_the_same_and_adding_always_misses_more():
    by_watch, adding = year_by(3_001, Way.FORTIS), year_by(3_001, Way.ADD)
    assert by_watch == year_by(3_001, Way.FORTIS)
    assert adding.missed > 2 * by_watch.missed
    assert 0 < by_watch.gained < 0.3
    assert by_watch.sets <= adding.sets == 52 * 6 * 4


def test_who_eases_off_is_fresher_on_the_day():
    assert 0.9 < day_of(3_001, peaked=False, weeks=6) < day_of(3_001, peaked=True, weeks=6) < 1
