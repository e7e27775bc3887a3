"""Lifts that are flat for longer than usual, on logs made by hand."""

from datetime import date, timedelta
from math import exp
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.season.stalls import stalled
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import SetUp
from fortis.core.tally.went import BoutWent, LiftWent

BEGINS = date(2026, 1, 5)
KNOWN = Estimate(kg=135, low=130, high=140)


def session(shown, reps=5, left=2.0, sets=4):
    """Sets of five and of seven by turns, whose loads all show the same max, in kg."""
    counts = [reps + place % 2 * 2 for place in range(sets)]
    loads = [shown * KNOWN.curve.share(count + left) for count in counts]
    done = enumerate(zip(loads, counts, strict=True))
    bouts = tuple(BoutWent(place, kg, count, count + left, None) for place, (kg, count) in done)
    return LiftWent(("back-squat", ""), "Back squat", SetUp(), None, None, sets, 0, 2000.0, 0.8, bouts)


def year(flat=10, rising=12, now=None, times=2):
    """Weeks in which what is shown rises by 3 % every third one, then weeks in which it does not, done as told."""
    went = []
    told = dict(now or {})
    rarely, last_rise = told.pop("times", times), (rising - 1) // 3 * 3
    for week in range(rising + flat):
        is_flat = week > last_rise
        for turn in range(rarely if is_flat else times):
            on = BEGINS + timedelta(weeks=week, days=3 * turn)
            went.append((on, session(120 * 1.03 ** (min(week, last_rise) // 3), **(told if is_flat else {}))))
    return went, KNOWN, went[-1][0]


def codes(stall):
    return [each.code for each in stall.suggestions]


def test_a_lift_is_flat_after_twice_its_usual_weeks():
    """It rose every three weeks, shown by three sessions: the last time in the second of week ten."""
    found = stalled(*year())
    assert found.since == BEGINS + timedelta(weeks=9, days=3)
    assert found.usual == pytest.approx(3, abs=0.6)
    assert found.weeks == 12
    assert stalled(*year(flat=3)) is None


def test_nothing_is_flat_that_rises_or_rests():
    assert stalled(*year(flat=0)) is None
    went, known, today = year()
    assert stalled(went, known, today + timedelta(days=22)) is None
    assert stalled([], known, today) is None


@given(st.integers(0, 2**32))
def test_chance_alone_is_no_rise_for_long(seed):
    """Sessions that differ by 2.5 % for no reason: within a year of them a lift that is flat is told of."""
    random = Random(seed)
    went = [(BEGINS + timedelta(days=7 * week), session(120 * exp(random.gauss(0, 0.025)))) for week in range(52)]
    assert any(stalled(went[:many], KNOWN, went[many - 1][0]) for many in range(8, 53))


@pytest.mark.parametrize(
    ("now", "code", "says"),
    [
        ({"times": 1}, "frequency", "1.0 times a week since, 2.0 while it rose"),
        ({"sets": 2}, "volume", "sets a week since"),
        ({"sets": 8}, "volume", "may only tire you"),
        ({"left": 3.5}, "effort", "You stop with 3.5 left, 2.0 while it rose"),
        ({"left": 0.0}, "effort", "Nearly every set goes to its end, 0.0 left"),
        ({}, "same", "What you do is what it rose by"),
    ],
)
def test_what_differs_from_when_it_rose_is_told(now, code, says):
    found = stalled(*year(flat=12, now=now))
    assert code in codes(found)
    assert any(says in each.text for each in found.suggestions), found.suggestions


def test_a_break_and_reps_that_never_change_are_told():
    went, known, today = year(flat=14)
    gone = [each for each in went if not timedelta(weeks=15) < each[0] - BEGINS < timedelta(weeks=18)]
    alike = [(on, each._replace(bouts=tuple(bout._replace(reps=5) for bout in each.bouts))) for on, each in gone]
    assert {"break", "range"} <= set(codes(stalled(alike, known, today)))
