"""What the log says of things that were never tried on purpose, and what each bout shows by itself."""

from datetime import UTC, datetime, timedelta

import pytest

from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import Asked, expect
from fortis.core.strength.observation import CALLED_WITHIN_A_REP, Heard
from fortis.core.tally.contrasts import SessionShown, What, contrasts
from fortis.core.tally.shown import BoutShown, shown

MAX = Estimate(kg=100.0, low=95.0, high=105.0)
BEGAN = datetime(2026, 3, 2, 18, tzinfo=UTC)
DAYS = timedelta(days=1)


def bout(off, place=0, reps=5, share=0.8, rest=180.0, tired=False):
    return BoutShown(place, reps, share, rest, tired, 2.0, off, off * 0.025)


def session(*bouts, number=0, since=3 * DAYS, hour=14):
    return SessionShown(BEGAN.replace(hour=hour) + number * DAYS, since, bouts)


def found(*of):
    return {each.what: each for each in contrasts(of)}


def test_bouts_that_go_as_expected_show_the_max_tired_as_they_are():
    asked = [Asked(0.8, 5, 120), Asked(0.8, 5, 120), Asked(0.7, 6, 120)]
    heard = [
        Heard(kg=100 * each.share, rest=120 if place else 0, reps=went.reps, left=went.left - CALLED_WITHIN_A_REP)
        for place, (each, went) in enumerate(zip(asked, expect(asked), strict=True))
    ]
    assert [each.off for each in shown(heard, MAX)] == pytest.approx([0, 0, 0], abs=1e-6)
    better = [each._replace(left=each.left + 1) for each in heard]
    assert [each.off for each in shown(better, MAX)] == pytest.approx([1, 1, 1], abs=1e-6)
    assert [each.left for each in shown(heard, MAX)] == pytest.approx([went.left for went in expect(asked)])
    (third,) = list(shown(better, MAX))[2:]
    assert third.form == pytest.approx(MAX.curve.cost(0.7))


def test_bouts_that_tell_no_reps_show_nothing_and_tire_all_the_same():
    fresh, after = Heard(80.0, 0.0, 5, 2.0), Heard(80.0, 60.0, 5, 2.0)
    (alone,) = shown([fresh], MAX)
    (tired,) = shown([Heard(80.0, 0.0, 5), after], MAX)
    assert tired.place == 1
    assert tired.off > alone.off  # as many left although tired: more than was to be expected
    assert list(shown([Heard(80.0, 0.0, 5, 5.0, or_more=True), None, Heard(30.0, 0.0, 9, 1.0)], MAX)) == []


def test_sessions_that_open_with_a_heavy_single_beside_those_that_do_not():
    single = bout(0.0, reps=1, share=0.9)
    ones = [session(single, bout(0.4 + 0.1 * (n % 2), 1)) for n in range(6)]
    others = [session(bout(0.0 + 0.1 * (n % 2))) for n in range(5)]
    told = found(*ones, *others)[What.SINGLE]
    assert (told.times, told.without) == (6, 5)
    assert told.change == pytest.approx(0.45 - 0.04)
    assert not told.may_be_chance
    neither = [session(bout(0.0), bout(0.0, 1, reps=2, share=0.9))] * 9
    assert What.SINGLE not in found(*ones, *neither)
    assert What.SINGLE not in found(*ones, *others[:3])


def test_long_rests_are_set_beside_short_ones_of_the_same_day():
    def day(n):
        good = (-1) ** n
        return session(bout(good), bout(good, 1, rest=120), bout(good + 0.5, 2, rest=240), bout(good, 3, rest=180))

    told = found(*map(day, range(5)))[What.REST]
    assert (told.times, told.change) == (5, pytest.approx(0.5))
    assert told.high - told.low == pytest.approx(0.0, abs=1e-6)


def test_other_lifts_days_of_rest_and_the_hour():
    tired = [session(bout(-0.5, tired=True), since=2 * DAYS, hour=18)] * 3 + [
        session(bout(-0.4, tired=True), since=2 * DAYS, hour=18)
    ]
    fresh = (
        [session(bout(0.1), since=4 * DAYS, hour=9)] * 3
        + [session(bout(0.0), since=None, hour=9)]
        + [session(bout(0.1), since=5 * DAYS, hour=9)]
    )
    told = found(*tired, *fresh)
    assert {what: (each.times, each.without) for what, each in told.items()} == {
        What.ORDER: (4, 5), What.DAYS: (4, 4), What.HOUR: (4, 5)
    }  # fmt: skip
    assert told[What.ORDER].change < 0 < told[What.DAYS].change
    assert found() == {}
