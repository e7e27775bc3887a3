"""The watch, and what easy weeks did, on logs made by hand."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.season.easy import easy_weeks, returns, served, weeks_since
from fortis.core.season.model import LightSchool
from fortis.core.season.watch import MARK, WEIGHTS, Mark, watched
from fortis.core.structure.model import SetUp
from fortis.core.tally.went import BoutWent, LiftWent, SessionWent

MONDAY = date(2026, 8, 31)
TODAY = MONDAY + timedelta(weeks=9, days=6)
LIFTS = ("Back squat", "Bench press")


def lift(exercise, level=4.6, missed=0, left=2.0, pace=2.5, kg=100.0, sets=4, share=0.8):
    bouts = tuple(BoutWent(place, kg, 5, 5 + left, pace) for place in range(sets))
    return LiftWent((exercise, ""), exercise, SetUp(), level, 0.0, sets, missed, kg * 5 * sets, share, bouts)


def log(weeks=10, readiness=3.5, **last):
    """Three sessions a week of two lifts, all alike; those of the last two weeks as told."""
    return [
        SessionWent(
            MONDAY + timedelta(weeks=week, days=day),
            tuple(lift(each, **(last if week >= weeks - 2 else {})) for each in LIFTS),
            readiness if week >= weeks - 2 else 3.5,
        )
        for week in range(weeks)
        for day in (0, 2, 4)
    ]


def seen(sessions, today=TODAY):
    return watched(sessions, easy_weeks(sessions, today), today)


def strength(watch, mark):
    return next(each for each in watch.signs if each.mark is mark).strength


def test_nothing_out_of_the_usual_is_no_sign_but_the_weeks():
    watch = seen(log())
    assert watch.known
    assert not watch.is_due
    assert {each.mark for each in watch.signs if each.strength} == {Mark.WEEKS}
    assert watch.weeks_since == 9


@pytest.mark.parametrize(
    ("mark", "last", "off"),
    [
        (Mark.MISSED, {"missed": 1}, 0.25),
        (Mark.FALLING, {"level": 4.57}, 0.03),
        (Mark.RESERVE, {"left": 0.5}, 1.5),
        (Mark.PACE, {"pace": 2.75}, 0.1),
        (Mark.READINESS, {"readiness": 2.5}, 1.0),
    ],
)
def test_each_sign_is_how_far_the_last_two_weeks_are_from_the_six_before(mark, last, off):
    """One set in four missed, 3 % lower, 1.5 reps fewer left, 2.75 s a rep instead of 2.5, one point of five."""
    watch = seen(log(**last))
    sign = next(each for each in watch.signs if each.mark is mark)
    assert sign.off == pytest.approx(off)
    assert sign.strength == pytest.approx(1.0)
    assert sign.counts == pytest.approx(WEIGHTS[mark])
    assert not sign.lifts or set(sign.lifts) == set(LIFTS)


def test_several_signs_together_make_a_light_week_due_and_no_one_alone():
    assert seen(log(level=4.57, left=0.5)).is_due
    assert max(WEIGHTS.values()) < MARK


@given(st.integers(0, 5), st.floats(0.01, 0.5))
def test_one_bad_day_is_no_sign(at, worse):
    sessions = log()
    place = len(sessions) - 1 - at
    bad = SessionWent(
        sessions[place].day,
        tuple(lift(each, level=4.6 - worse, missed=4, left=-2.0, pace=4.0) for each in LIFTS),
        1.0,
    )
    watch = seen([*sessions[:place], bad, *sessions[place + 1 :]])
    assert {each.mark for each in watch.signs if each.strength} == {Mark.WEEKS}


@given(st.lists(st.sampled_from(["level", "missed", "left", "pace"]), unique=True), st.floats(0, 1))
def test_a_worse_fortnight_never_counts_less(marks, worse):
    by = {"level": ("level", 4.6, -0.05), "missed": ("missed", 0, 4), "left": ("left", 2.0, -3.0)}
    by["pace"] = ("pace", 2.5, 1.0)

    def total(times):
        told = {name: was + step * times for name, was, step in (by[mark] for mark in marks)}
        return seen(log(**told)).total

    assert total(worse) <= total(1.0) + 1e-9
    assert total(0.0) <= total(worse) + 1e-9


def test_a_new_log_says_nothing():
    assert not seen(log(weeks=2), MONDAY + timedelta(days=13)).known
    assert watched([], [], TODAY).weeks_since is None


def week(number, **told):
    return [
        SessionWent(MONDAY + timedelta(weeks=number, days=day), tuple(lift(each, **told) for each in LIFTS))
        for day in (0, 2, 4)
    ]


def year(easy, back):
    """Ten weeks; the sixth is easy as told, and from then on sessions show what is told."""
    return [
        *(each for number in range(5) for each in week(number)),
        *(week(5, **easy) if easy else []),
        *(each for number in range(6, 10) for each in week(number, **back)),
    ]


@pytest.mark.parametrize(
    ("easy", "school"),
    [
        ({"sets": 2, "share": 0.82}, LightSchool.SHORT),
        ({"kg": 50.0, "share": 0.4}, LightSchool.HALF),
        ({"kg": 50.0, "share": 0.4, "sets": 6}, LightSchool.HALF),
        (None, None),
    ],
)
def test_easy_weeks_are_known_by_their_work_and_how_one_came_back_by_what_sessions_show(easy, school):
    """Half the sets at the same share of the max are short, half the load is light; then 1 % above the last."""
    sessions = year(easy, {"level": 4.61})
    (found,) = easy_weeks(sessions, TODAY)
    assert (found.monday, found.school, found.weeks) == (MONDAY + timedelta(weeks=5), school, 5)
    assert weeks_since(sessions, [found], TODAY) == 3
    (came,) = returns(sessions, [found])
    assert came.change == pytest.approx(0.01)
    assert came.low < came.change < came.high
    (of_school,) = served([came, came])
    assert (of_school.school, of_school.times, of_school.weeks) == (school, 2, 5)
    assert of_school.change == pytest.approx(came.change)
    assert of_school.high - of_school.low == pytest.approx((came.high - came.low) / 2**0.5)


@pytest.mark.parametrize(("many", "easy"), [(1, 1), (2, 2), (3, 0), (4, 0)])
def test_a_block_of_less_work_is_no_row_of_light_weeks(many, easy):
    """A heavy block halves the sets for three weeks or more; one or two such weeks between others are light."""
    less = range(5, 5 + many)
    sessions = [each for number in range(11) for each in week(number, **({"sets": 2} if number in less else {}))]
    found = easy_weeks(sessions, MONDAY + timedelta(weeks=11))
    assert [each.monday for each in found] == [MONDAY + timedelta(weeks=5 + at) for at in range(easy)]
    assert [each.weeks for each in found] == [5, 0][:easy]
    assert weeks_since(sessions, found, MONDAY + timedelta(weeks=11)) == (6 - many if easy else 11)


def test_after_a_light_week_all_begins_anew():
    """What the weeks before it showed calls for nothing any more."""
    tired = log(level=4.57, left=0.5, missed=1)
    assert seen(tired).is_due
    after = TODAY + timedelta(weeks=2)
    light = [
        SessionWent(TODAY + timedelta(days=day), tuple(lift(each, kg=50.0, share=0.4) for each in LIFTS))
        for day in (1, 3, 5)
    ]
    back = [
        SessionWent(TODAY + timedelta(weeks=1, days=day), tuple(lift(each) for each in LIFTS)) for day in (1, 3, 5)
    ]
    watch = seen([*tired, *light, *back], after)
    assert watch.weeks_since == 0
    assert watch.total < MARK / 2
