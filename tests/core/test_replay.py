from datetime import UTC, datetime, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.logged import LoggedBout
from fortis.core.performance import Ended
from fortis.core.replay import MODEL, replay, reps_by
from fortis.core.strength.formulas import FORMULAS
from fortis.core.structure.model import SetUp

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
    assert first.after.kg == pytest.approx(second.before.kg, rel=0.01)
    assert second.before.high - second.before.low > first.after.high - first.after.low
    # Epley's formula on 100 kg for 5 reps with 2 left: 100 * (1 + 7 / 30)
    assert second.formulas["Epley"] == pytest.approx(123.33, abs=0.01)
    assert [each.predicted is None for each in found.bouts] == [True, True, False, False]
    fresh, tired = found.bouts[2].predicted, found.bouts[3].predicted
    assert fresh.low <= fresh.reps_to_failure <= fresh.high
    assert tired.reps_to_failure < fresh.reps_to_failure
    assert (found.summary.bouts, found.summary.judged) == (4, 2)
    assert set(found.summary.reps_error) == {MODEL, *FORMULAS}


def test_what_nobody_said_is_not_judged_and_says_only_at_least():
    quiet = [bout(0, 1, 100, 5, None), bout(7, 1, 100, 5, 5, or_more=True), bout(14, 1, 100, 5, None)]
    found = replay(quiet)
    assert found.summary.judged == 0
    assert found.sessions[0].after.high - found.sessions[0].after.low > 20
    assert found.sessions[1].after.kg > found.sessions[0].after.kg


def test_a_max_of_long_ago_is_told_less_surely():
    soon, late = (replay([bout(0, 1, 100, 5, 2), bout(days, 1, 100, 5, 2)]).sessions[1].before for days in (3, 300))
    assert late.high - late.low > 1.3 * (soon.high - soon.low)


def test_a_warm_up_is_neither_foretold_nor_believed():
    warm = bout(7, 1, 60, 5, 5).model_copy(update={"is_warm_up": True})
    found = replay([bout(0, 1, 100, 5, 2), warm, bout(7, 2, 100, 5, 2)])
    assert [each.predicted is None for each in found.bouts] == [True, True, False]
    without = replay([bout(0, 1, 100, 5, 2), bout(7, 2, 100, 5, 2)])
    assert found.sessions[1].after.kg == pytest.approx(without.sessions[1].after.kg, rel=1e-4)


def test_bouts_with_another_set_up_tire_and_say_nothing_of_this_one():
    belt = SetUp(items=("belt",))
    belted = bout(7, 1, 105, 5, 0).model_copy(update={"setup": belt})
    log = [bout(0, 1, 100, 5, 2), belted, bout(7, 2, 100, 5, 1, rest=60)]
    tired, fresh = replay(log), replay([log[0], log[2]])
    assert [each.setup for each in tired.sessions] == ["", "belt", ""]
    assert tired.bouts[2].predicted.reps_to_failure < fresh.bouts[1].predicted.reps_to_failure
    assert tired.sessions[2].after.kg > fresh.sessions[1].after.kg


def test_where_bouts_were_written_down_at_once_the_usual_rest_is_taken():
    """Three fives within a second of each other were not done so."""
    at_once = [
        bout(0, number, 100, 5, 2, rest=None).model_copy(
            update={"performed_at": MONDAY + timedelta(seconds=number)}
        )
        for number in (1, 2, 3)
    ]
    rested = [bout(0, number, 100, 5, 2, rest=180) for number in (1, 2, 3)]
    assert replay(at_once).sessions[0].after.kg == pytest.approx(replay(rested).sessions[0].after.kg, rel=1e-6)


def test_a_max_that_was_shown_is_compared_with_what_was_known():
    shown = bout(7, 1, 120, 1, 0, ended=Ended.STUCK)
    summary = replay([bout(0, 1, 100, 5, 2), shown]).summary
    assert summary.tested == 1
    assert summary.max_error[MODEL] == pytest.approx(abs(replay([shown]).sessions[0].after.kg / 121 - 1), abs=0.05)
    assert summary.max_error["Epley"] == pytest.approx(123.33 / 120 - 1, abs=1e-3)
    tired = [bout(0, 1, 100, 5, 2), bout(7, 1, 100, 7, 0), bout(7, 2, 120, 1, 0, ended=Ended.STUCK)]
    assert replay(tired).summary.tested == 0


def test_it_is_told_how_far_a_replay_has_come():
    seen = []
    replay(TWO_DAYS, progress=seen.append)
    assert sum(seen) == len(TWO_DAYS)


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
