"""The model of strength against general-purpose statistics: integration by scipy, filters by statsmodels."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from scipy.integrate import solve_ivp
from scipy.optimize import brentq
from statsmodels.tsa.statespace.structural import UnobservedComponents

from fortis.core.strength.belief import DRIFT_A_DAY
from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.kinds import CALLS, CURVES
from fortis.core.strength.momentary import LASTING, Asked, Momentary, recovered
from fortis.core.strength.observation import COUNTED, SPREAD, WITHIN_A_REP, Heard
from fortis.core.strength.solving import share_for
from fortis.core.strength.tracker import DAY_FORM, Profile

KEY = ("back-squat", "")
BEGINS = datetime(2026, 1, 5, 18, tzinfo=UTC)


def integrated(share, seconds_a_rep, reps, rest):
    """The reps left after a bout and a rest, as the solution of the equations that the model solves by hand.

    Two pools of what is missing fill while reps are done and empty in the rest, each at its own pace; the part that
    lasts only fills.
    """
    cost = DEFAULT_CURVE.cost(share)

    def filling(_, state):
        pace = cost / seconds_a_rep
        return [0.45 * pace * (1 - LASTING), 0.55 * pace * (1 - LASTING), pace * LASTING]

    def emptying(_, state):
        return [-state[0] / 17, -state[1] / 150, 0.0]

    full = solve_ivp(filling, (0, reps * seconds_a_rep), [0.0, 0.0, 0.0], rtol=1e-9, atol=1e-12).y[:, -1]
    rested = solve_ivp(emptying, (0, rest), full, rtol=1e-9, atol=1e-12).y[:, -1]
    return 1 + (1 - rested.sum() - share) / cost


@pytest.mark.parametrize(("share", "reps", "rest"), [(0.75, 10, 20), (0.66, 7, 15), (0.85, 2, 10), (0.8, 5, 180)])
def test_a_bout_and_a_rest_are_the_solution_of_their_equations(share, reps, rest):
    """scipy.integrate.solve_ivp."""
    strength = Momentary()
    strength.perform(share, reps)
    strength.rest(rest)
    assert strength.left(share) == pytest.approx(integrated(share, 3.0, reps, rest), abs=1e-6)


def test_a_cluster_is_solved_as_the_root_of_its_equation():
    """scipy.optimize.brentq on the equation written out by hand: 2 + 2 + 2, 10 s between, one left after them."""

    def left_at_the_end(share):
        cost = (1 - share) / (30.6 * (1 / share - 1))
        stays = 1 - recovered(10)
        missing = 2 * cost * (1 - LASTING)
        missing = (missing * stays + 2 * cost * (1 - LASTING)) * stays
        return 1 + (1 - missing - 4 * cost * LASTING - share) / cost - 2

    def set_at(share):
        return [Asked(share, 2, 10), Asked(share, 2, 10), Asked(share, 2, 0, keep=1)]

    root = brentq(lambda share: left_at_the_end(share) - 1, 0.5, 0.99)
    assert share_for(set_at, RepCurve(endurance=1 + 30.6 / 3, bend=1.0)) == pytest.approx(root, abs=1e-4)


@pytest.mark.parametrize("bend", [-1.0, 1.0, 5.0])
@pytest.mark.parametrize("reps", [2.0, 5.0, 9.5])
def test_the_share_for_some_reps_is_the_root_of_the_curve(bend, reps):
    """scipy.optimize.brentq."""
    curve = RepCurve(endurance=11.0, bend=bend)
    root = brentq(lambda share: curve.reps(share) - reps, 0.3, 1.0, xtol=1e-12)
    assert curve.share(reps) == pytest.approx(root, abs=1e-9)


def test_recovery_in_two_rests_is_that_in_one_for_each_pool():
    """Exponentials compose: what is left after 20 s and 40 s more is what is left after 60 s, pool by pool."""
    left = [share * np.exp(-60 / pace) for share, pace in ((0.45, 17), (0.55, 150))]
    assert 1 - recovered(60) == pytest.approx(sum(left))


def test_the_tracker_is_a_kalman_filter_where_errors_are_normal_and_only_singles_are_done():
    """A local level with known variances, filtered by statsmodels, on the logarithm of singles gone stuck after."""
    random = np.random.default_rng(3)
    days = np.arange(0, 200, 4)
    true = np.log(120) + np.cumsum(random.normal(0, 0.01, days.size))
    seen = true + random.normal(0, 0.02, days.size)
    possible = 1 + WITHIN_A_REP
    a_rep = 1 / (DEFAULT_CURVE.scale * DEFAULT_CURVE.share(possible))
    error = np.pi / 3**0.5 * SPREAD * (possible + COUNTED) * a_rep
    model = UnobservedComponents(seen, "llevel")
    filtered = model.filter([error**2 + DAY_FORM**2, 4 * DRIFT_A_DAY**2]).filtered_state[0]
    usual = np.zeros((len(CALLS), len(CURVES)))
    usual[1, CURVES.index(DEFAULT_CURVE)] = 1.0
    profile, found = Profile(usual), []
    for day, log_max in zip(days, seen, strict=True):
        at = BEGINS + timedelta(days=int(day))
        kg = float(np.exp(log_max) * DEFAULT_CURVE.share(possible))
        profile, _ = profile.learn(KEY, at, [Heard(kg, 0, 1, 0, failed=True)])
        found.append(profile.max_of(KEY, at).kg)
    settled = slice(10, None)
    assert np.abs(np.log(found) - filtered)[settled].max() < 0.012
    assert np.corrcoef(np.log(found)[settled], filtered[settled])[0, 1] > 0.98
