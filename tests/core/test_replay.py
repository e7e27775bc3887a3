from datetime import UTC, datetime, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.logged import LoggedBout
from fortis.core.performance import Ended
from fortis.core.replay import MODEL, replay, reps_by
from fortis.core.strength.formulas import FORMULAS

MONDAY = datetime(2026, 3, 2, 18, 0, tzinfo=UTC)


def bout(day, number, kg, reps, reserve, *, ended=None, rest=180, or_more=False):
    return LoggedBout(
        performed_at=MONDAY + timedelta(days=day, minutes=4 * number),
        session=f"day {day}",
        exercise="Back squat",
        set=number,
        load_kg=Decimal(kg),
        reps=reps,
        reserve=None if reserve is None else Decimal(reserve),
        or_more=or_more,
        ended=ended,
        rest_seconds=rest,
    )


TWO_DAYS = [
    bout(0, 1, 100, 5, 2),
    bout(0, 2, 100, 5, 1),
    bout(7, 1, 100, 6, 2),
    bout(7, 2, 100, 6, 0, ended=Ended.STUCK),
]


def test_nothing_is_known_before_the_first_session_and_its_best_set_after():
    found = replay(TWO_DAYS)
    first, second = found.sessions
    assert (first.before, first.formulas) == (None, {})
    assert first.after == second.before
    # Epley's formula on 100 kg for 5 reps with 2 left: 100 * (1 + 7 / 30)
    assert second.formulas["Epley"] == pytest.approx(123.33, abs=0.01)
    assert [each.predicted is None for each in found.bouts] == [True, True, False, False]
    fresh, tired = found.bouts[2].predicted, found.bouts[3].predicted
    assert fresh.low <= fresh.reps_to_failure <= fresh.high
    assert tired.reps_to_failure < fresh.reps_to_failure
    assert (found.summary.bouts, found.summary.judged) == (4, 2)
    assert set(found.summary.reps_error) == {MODEL, *FORMULAS}


def test_what_nobody_said_is_not_judged_and_teaches_nothing():
    quiet = [bout(0, 1, 100, 5, None), bout(7, 1, 100, 5, 5, or_more=True), bout(14, 1, 100, 5, None)]
    assert replay(quiet).summary.judged == 0
    assert replay(quiet).sessions[1].before is None


def test_a_max_of_long_ago_is_no_longer_told():
    assert replay([bout(0, 1, 100, 5, 2), bout(100, 1, 100, 5, 2)]).sessions[1].before is None


@given(st.permutations(TWO_DAYS))
def test_the_order_of_the_rows_does_not_matter(rows):
    assert replay(rows) == replay(TWO_DAYS)


@given(st.sampled_from(sorted(FORMULAS)), st.floats(1, 25))
def test_a_formula_turned_around_gives_the_reps_it_was_given(name, reps):
    formula = FORMULAS[name]
    most = formula(100.0, reps)
    if most >= 100:
        assert reps_by(formula, most, 100.0) == pytest.approx(reps, abs=0.01)


def test_what_is_heavier_than_the_max_allows_no_reps():
    assert reps_by(FORMULAS["Epley"], 100.0, 101.0) == 0
    assert reps_by(FORMULAS["Epley"], 100.0, 1.0) == 30
