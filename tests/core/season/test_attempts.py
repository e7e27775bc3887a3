"""Attempts, with the chance of each, beside scipy's normal distribution."""

from decimal import Decimal
from itertools import pairwise
from math import log

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from fortis.core.season.attempts import STEP, WANTED, Attempt, attempts, chance, total
from fortis.core.strength.estimate import Estimate

SQUAT = Estimate(kg=122, low=118, high=128)


@pytest.mark.parametrize("kg", [105, 115, 122, 125, 135])
def test_the_chance_is_that_of_a_log_normal_max(kg):
    """Four in five between the bounds is 1.2816 standard deviations on either side; a day's form adds 2 %."""
    sigma = ((log(128 / 118) / (2 * stats.norm.ppf(0.9))) ** 2 + 0.02**2) ** 0.5
    assert chance(SQUAT, kg) == pytest.approx(stats.norm.sf(log(kg / 122) / sigma), abs=1e-4)


def test_an_opener_that_is_nearly_certain_a_second_near_the_best_a_third_to_win():
    """By hand: sigma 3.75 %, so 95 % go at 122 x 0.940 = 114.7, 75 % at 118.9, 40 % at 123.2; down to the step."""
    assert attempts(SQUAT) == (
        Attempt(kg=Decimal("112.5"), chance=0.985),
        Attempt(kg=Decimal("117.5"), chance=0.842),
        Attempt(kg=Decimal("122.5"), chance=0.457),
    )


def test_the_total_goes_where_all_go():
    lifts = [attempts(SQUAT), attempts(Estimate(kg=98, low=95, high=101))]
    assert total(lifts)[0].kg == lifts[0][0].kg + lifts[1][0].kg
    assert total(lifts)[0].chance == pytest.approx(lifts[0][0].chance * lifts[1][0].chance, abs=1e-3)


@given(st.floats(20, 400), st.floats(0.5, 0.999), st.floats(1.001, 2))
def test_attempts_rise_in_steps_and_the_opener_is_the_safest(kg, low, high):
    found = attempts(Estimate(kg=kg, low=kg * low, high=kg * high))
    assert len(found) == len(WANTED)
    assert all(one.kg + STEP <= other.kg and one.chance >= other.chance for one, other in pairwise(found))
    assert all(each.kg % STEP == 0 for each in found)
    assert found[0].chance >= WANTED[0] or found[0].kg == STEP
