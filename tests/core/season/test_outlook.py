"""A max in the weeks to come."""

from datetime import UTC, datetime, timedelta
from math import log

import pytest

from fortis.core.season.outlook import looking_ahead
from fortis.core.strength.belief import DRIFT_A_DAY
from fortis.core.strength.estimate import Estimate

NOW = datetime(2026, 11, 27, 18, tzinfo=UTC)
SQUAT = Estimate(kg=122, low=118, high=128)


def test_it_stays_and_grows_less_sure():
    days = [NOW + timedelta(weeks=weeks) for weeks in (0, 1, 7)]
    now, week, seven = looking_ahead(SQUAT, NOW, days)
    assert (now.low, now.high) == (pytest.approx(118), pytest.approx(128))
    assert {each.kg for each in (now, week, seven)} == {122}
    assert now.low > week.low > seven.low
    assert now.high < week.high < seven.high
    # By hand: variances add, the one of the bound now and 49 days of drift.
    sigma = ((log(128 / 122) / 1.2816) ** 2 + 49 * DRIFT_A_DAY**2) ** 0.5
    assert log(seven.high / 122) == pytest.approx(1.2816 * sigma, rel=1e-3)
