"""Trials and what is seen in a log, against general-purpose statistics: statsmodels and scipy.stats."""

from datetime import UTC, date, datetime, timedelta
from random import Random

import numpy as np
import pytest
from scipy import stats
from statsmodels.api import OLS

from fortis.core.season.model import Method, Trial
from fortis.core.season.trial import DOUBT, Reading, SessionTried, outcome
from fortis.core.tally.contrasts import SessionShown, What, contrasts, welch
from fortis.core.tally.shown import BoutShown

MONDAY = date(2026, 3, 2)


def bout(off, place=0, **more):
    reps, share, rest = more.get("reps", 5), more.get("share", 0.8), more.get("rest", 180.0)
    return BoutShown(place, reps, share, rest, tired=False, left=2.0, off=off, form=off)


def test_the_difference_of_a_trial_and_its_bounds():
    """statsmodels' OLS with a constant, the time and the method, bounds of nine in ten.

    And of two kinds of lifter that read it apart: the spread of a mixture, its weights by numpy.
    """
    random = Random(4)
    trial = Trial(monday=MONDAY, weeks=8, tried=(1, 4, 5, 8), exercise="Squat", method=Method.LONGER)
    days = [MONDAY + timedelta(weeks=week, days=day) for week in range(8) for day in (0, 3)]
    levels = [random.gauss(0.01 if trial.is_tried(day) else 0.0, 0.02) for day in days]
    sessions = [SessionTried(day, [bout(level)]) for day, level in zip(days, levels, strict=True)]
    over = MONDAY + timedelta(weeks=9)
    found = outcome(trial, [Reading(1.0, sessions)], (), over)
    design = np.array([[1.0, (day - MONDAY).days, float(trial.is_tried(day))] for day in days])
    fitted = OLS(np.array(levels), design).fit()
    low, high = fitted.conf_int(alpha=0.1)[2]
    assert found.change == pytest.approx(fitted.params[2])
    assert (found.low, found.high) == (pytest.approx(low), pytest.approx(high))

    more = [each._replace(bouts=[bout(each.bouts[0].form + 0.02 * trial.is_tried(each.on))]) for each in sessions]
    both = outcome(trial, [Reading(0.8, sessions), Reading(0.2, more)], (), over)
    weights = np.array([0.8, 0.2]) ** DOUBT
    changes = np.array([found.change, found.change + 0.02])
    apart = np.sqrt(np.cov(changes, aweights=weights, ddof=0))
    assert both.change == pytest.approx(np.average(changes, weights=weights))
    assert both.high - both.change == pytest.approx(np.hypot((high - low) / 2, stats.norm.ppf(0.95) * apart))


def test_sessions_with_something_beside_those_without():
    """scipy.stats.ttest_ind without equal variances (Welch), and ttest_rel for what is of one session."""
    random = Random(5)
    ones, others = ([random.gauss(mean, 0.8) for _ in range(many)] for mean, many in ((0.4, 7), (0.0, 12)))
    began = datetime(2026, 3, 2, 14, tzinfo=UTC)
    single = bout(0.0, reps=1, share=0.92)
    sessions = [SessionShown(began, None, [single, bout(off, 1)]) for off in ones]
    sessions += [SessionShown(began, None, [bout(off)]) for off in others]
    (found,) = contrasts(sessions)
    test = stats.ttest_ind(ones, others, equal_var=False)
    low, high = test.confidence_interval(0.8)
    assert (found.what, found.low, found.high) == (What.SINGLE, pytest.approx(low), pytest.approx(high))
    change, within = welch(ones, others, 0.9)
    assert (change - within, change + within) == pytest.approx(tuple(test.confidence_interval(0.9)))

    pairs = [(random.gauss(0.3, 0.8), random.gauss(0.0, 0.8)) for _ in range(9)]
    sessions = [
        SessionShown(began, None, [bout(0.0), bout(short, 1, rest=120.0), bout(0.0, 2), bout(long, 3, rest=300.0)])
        for long, short in pairs
    ]
    (found,) = contrasts(sessions)
    low, high = stats.ttest_rel(*zip(*pairs, strict=True)).confidence_interval(0.8)
    assert (found.what, found.low, found.high) == (What.REST, pytest.approx(low), pytest.approx(high))
