"""The published one-rep-max formulas against worked values, and the default curve against a published table.

The publications are named beside each formula in `fortis.core.strength.formulas`; all values from memory.
"""

import pytest

from fortis.core.conventions import Points
from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.estimate import estimate, load_for
from fortis.core.strength.formulas import FORMULAS
from fortis.core.tally.relative import dots

REPS = (1, 3, 5, 8, 10, 12)
WORKED = {
    "Epley": (103.33, 110.00, 116.67, 126.67, 133.33, 140.00),
    "Brzycki": (100.00, 105.88, 112.50, 124.14, 133.33, 144.00),
    "Lombardi": (100.00, 111.61, 117.46, 123.11, 125.89, 128.21),
    "O'Conner": (102.50, 107.50, 112.50, 120.00, 125.00, 130.00),
    "Lander": (101.39, 107.20, 113.71, 125.11, 134.07, 144.41),
    "Mayhew": (108.86, 113.99, 119.01, 126.29, 130.93, 135.40),
    "Wathan": (101.30, 108.98, 116.58, 127.67, 134.75, 141.50),
}
TABLE = {1: 100, 2: 95, 3: 93, 4: 90, 5: 87, 6: 85, 7: 83, 8: 80, 9: 77, 10: 75}
"""Per cent of max by reps to failure: Baechle & Earle, Essentials of Strength Training and Conditioning."""


@pytest.mark.parametrize("name", FORMULAS)
def test_each_formula_gives_its_worked_values(name):
    assert [round(FORMULAS[name](100.0, reps), 2) for reps in REPS] == pytest.approx(WORKED[name], abs=0.006)


@pytest.mark.parametrize(("reps", "percent"), TABLE.items())
def test_the_default_curve_keeps_to_the_table(reps, percent):
    assert 100 * DEFAULT_CURVE.share(reps) == pytest.approx(percent, abs=2)


def test_common_starting_points():
    """Common practice: about 90 % for a 3-rep max, 85 to 87 % for a 5-rep max, 70 % for a 12-rep max."""
    assert 100 * DEFAULT_CURVE.share(3) == pytest.approx(90, abs=3.5)
    assert 100 * DEFAULT_CURVE.share(5) == pytest.approx(86, abs=1.5)
    assert 100 * DEFAULT_CURVE.share(12) == pytest.approx(70, abs=2)


def test_a_true_single_is_the_max():
    """Common practice."""
    single = estimate(150.0, 1, 0)
    assert (single.kg, single.low, single.high) == (150, 150, 150)


def test_reps_in_reserve_count_as_reps():
    """RPE = 10 - RIR (Zourdos et al. 2016, from memory): five at RPE 8 is a load good for seven."""
    assert estimate(100.0, 5, 2).kg == estimate(100.0, 7, 0).kg == 100 / DEFAULT_CURVE.share(7)
    assert estimate(100.0, 10, 3).kg == 100 / DEFAULT_CURVE.share(13)


def test_the_estimate_turned_around_is_the_load():
    for reps, reserve in ((1, 0), (5, 2), (12, 0), (40, 5)):
        assert load_for(estimate(100.0, reps, reserve).kg, reps, reserve) == pytest.approx(100)


def test_reps_beyond_thirty_are_taken_as_thirty():
    assert estimate(100.0, 37, 0).kg == estimate(100.0, 50, 0).kg == estimate(100.0, 30, 0).kg


@pytest.mark.parametrize(("name", "bend"), [("Brzycki", -1), ("Epley", 1), ("Lombardi", 10)])
def test_bent_the_curve_has_the_shape_of_a_formula(name, bend):
    """With the endurance of the formula, where that gives a single as the max itself.

    Epley's formula does not: 30 (1 / f - 1) reps are none at the max, so that the shape is one rep further on.
    """
    formula, further = FORMULAS[name], int(name == "Epley")
    reps_at_75 = next(reps / 100 for reps in range(100, 3_000) if formula(75.0, reps / 100) >= 100)
    curve = RepCurve(endurance=reps_at_75 + further, bend=bend)
    for reps in (2, 4, 7, 12):
        assert 100 / curve.share(reps + further) == pytest.approx(formula(100.0, reps), rel=0.003)


def test_uncertainty_grows_with_reps_and_with_reserve():
    spread = [estimate(100.0, reps, 0).high - estimate(100.0, reps, 0).low for reps in (1, 5, 12)]
    assert spread == sorted(spread)
    judged, certain = estimate(100.0, 3, 2), estimate(100.0, 5, 0)
    assert judged.high - judged.low > certain.high - certain.low


@pytest.mark.parametrize(
    ("kg", "body_kg", "points", "told"), [(600, 90, Points.MEN, 387.96), (400, 63, Points.WOMEN, 430.21)]
)
def test_points_beside_body_weight(kg, body_kg, points, told):
    """DOTS (2019); coefficients and worked values from memory."""
    assert dots(kg, body_kg, points) == pytest.approx(told, abs=0.005)
