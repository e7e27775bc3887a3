"""Loading against the outside: numpy and scipy-style fits, competition plates, and what lifters work by hand."""

from datetime import date, timedelta
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY, LoadKind
from fortis.core.loading.kit import Bar, Kit, Stretch, read_plates
from fortis.core.loading.nearest import nearest
from fortis.core.loading.resistance import Combination, Resistance, measured_band, solve_bands, stretch_line
from fortis.core.strength.momentary import Asked, Momentary, expect, recovered
from fortis.core.tally.body_weight import Weighed, interpolated

PLATFORM = "5x25 1x20 1x15 1x10 1x5 1x2.5 1x1.25 1x0.5 1x0.25"
SQUAT = LIBRARY.find("Back squat")


@pytest.mark.parametrize(
    ("kg", "side"),
    [
        (Decimal("182.5"), ["25", "25", "25", "2.5", "1.25"]),
        (Decimal(180), ["25", "25", "25", "2.5"]),
        (Decimal(60), ["15", "2.5"]),
        (Decimal("205.5"), ["25", "25", "25", "15", "0.25"]),
    ],
)
def test_competition_bars_with_collars(kg, side):
    """Bar 20 kg, collars 2.5 kg each, plates of the powerlifting technical rules (from memory)."""
    bar = Bar(name="bar", kind=LoadKind.BAR, kg=Decimal(20), collar_kg=Decimal("2.5"))
    platform = Kit(
        place="platform", bars=(bar,), plates=read_plates("5x25 1x20 1x15 1x10 1x5 1x2.5 1x1.25 1x0.5 1x0.25")
    )
    built = nearest(platform, SQUAT, kg)
    assert built.kg == kg
    assert built.sleeve == tuple(map(Decimal, side))


def test_band_tension_grows_evenly():
    """Common practice: 100 kg on the bar and a pair of 40 kg at the top, slack below, is 120 on average."""
    assert 100 + Resistance(bottom_kg=Decimal(0), top_kg=Decimal(40)).mean_kg == 120


@given(st.dictionaries(st.integers(1, 120), st.integers(0, 80), min_size=2, max_size=8))
def test_a_bands_line_is_the_least_squares_line_of_numpy(measures):
    line = stretch_line([Stretch(cm=Decimal(cm), kg=Decimal(kg)) for cm, kg in measures.items()])
    design = np.array([[1.0, cm] for cm in measures])
    rest, slope = np.linalg.lstsq(design, np.array([float(kg) for kg in measures.values()]), rcond=None)[0]
    assert line.at_rest_kg == pytest.approx(rest, abs=1e-6)
    assert line.kg_per_cm == pytest.approx(slope, abs=1e-6)


def test_two_points_of_a_band_give_any_other():
    """By hand: 10 kg at 30 cm and 25 kg at 60 cm is half a kilogram a centimetre."""
    measured = [Stretch(cm=Decimal(30), kg=Decimal(10)), Stretch(cm=Decimal(60), kg=Decimal(25))]
    band = measured_band("green", measured, bottom_cm=Decimal(5), top_cm=Decimal(50))
    assert (band.bottom_kg, band.top_kg) == (0, 20)


def test_bands_are_solved_from_combinations():
    """By hand: green 18, red 30, with one combination a kilogram off; errors as ordinary least squares has them."""
    weighed = [("green",), ("red",), ("green", "red"), ("green", "green", "red")]
    tops = [18, 30, 49, 66]
    found = {each.name: each for each in solve_bands([
        Combination(bands=bands, top_kg=Decimal(top)) for bands, top in zip(weighed, tops, strict=True)
    ])}  # fmt: skip
    assert found["green"].top_kg == pytest.approx(18, abs=0.6)
    assert found["red"].top_kg == pytest.approx(30.3, abs=0.6)
    assert 0 < found["green"].give_or_take_kg < 1
    exact = solve_bands([Combination(bands=("green",), top_kg=Decimal(18))])
    assert (exact[0].top_kg, exact[0].give_or_take_kg) == (pytest.approx(18), None)


@given(
    st.dictionaries(st.integers(0, 400), st.integers(500, 1500), min_size=1, max_size=12),
    st.integers(-30, 430),
)
def test_body_weight_between_the_days_is_numpys(taken, day):
    start = date(2026, 1, 1)
    weighed = [Weighed(on=start + timedelta(days=at), kg=Decimal(kg) / 10) for at, kg in sorted(taken.items())]
    days, kgs = sorted(taken), [taken[at] / 10 for at in sorted(taken)]
    found = interpolated(weighed, start + timedelta(days=day))
    assert float(found) == pytest.approx(np.interp(day, days, kgs), abs=0.006)


class TestStrengthInsideASet:
    """What lifters report of these structures (common practice, no source)."""

    def ascending(self, share):
        return [each.reps for each in expect([Asked(share, reps, 15) for reps in (3, 4, 5, 6, 7)])]

    def test_ascending_mini_sets_are_ruined_by_three_per_cent(self):
        assert self.ascending(0.65) == [3, 4, 5, 6, 7]
        assert self.ascending(0.70)[:4] == [3, 4, 5, 6]
        assert self.ascending(0.70)[4] in (3, 4)
        assert self.ascending(0.73)[:4] == [3, 4, 5, 4]

    def test_a_cluster_at_85_goes_and_at_89_does_not(self):
        heavy, too_heavy = ([Asked(share, 2, 10)] * 3 for share in (0.85, 0.89))
        assert [each.reps for each in expect(heavy)] == [2, 2, 2]
        assert 0.3 < expect(heavy)[-1].left < 1.3
        assert [each.reps for each in expect(too_heavy)] == [2, 2, 1]

    def test_rest_pause(self):
        first, second, third = (each.reps for each in expect([Asked(0.75, None, 20)] * 3))
        assert (first, 3 <= second <= 4, 3 <= third <= 4) == (10, True, True)

    def test_a_single_then_an_easy_drop(self):
        assert 5.5 < expect([Asked(0.93, 1, 25), Asked(0.73, 4, 0)])[-1].left < 7.5

    def test_a_drop_of_a_fifth(self):
        assert expect([Asked(0.75, None, 5), Asked(0.60, None, 0)])[-1].reps in (8, 9)

    def test_recovery_is_the_numeric_solution_of_its_equation(self):
        """Two pools that empty exponentially, integrated step by step with numpy."""
        times = np.linspace(0, 300, 300_001)
        step = times[1]
        fast, slow = 0.45, 0.55
        left = {}
        for at, _ in enumerate(times):
            if at % 10_000 == 0:
                left[at // 1000] = fast + slow
            fast, slow = fast - fast / 17 * step, slow - slow / 150 * step
        for seconds, missing in left.items():
            assert recovered(seconds) == pytest.approx(1 - missing, abs=1e-4)

    def test_straight_sets_to_failure_keep_losing(self):
        reps = [each.reps for each in expect([Asked(0.75, None, 180)] * 5)]
        assert reps == sorted(reps, reverse=True)
        assert reps[0] > reps[1]

    def test_a_true_max_is_done_once(self):
        strength = Momentary()
        assert strength.perform(1.0, 1).reps == 1
        assert strength.perform(1.0, 1).reps == 0
