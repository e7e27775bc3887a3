"""Ways to count, and a load beside body weight."""

from datetime import date
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.conventions import Conventions, Points
from fortis.core.exercises import LIBRARY
from fortis.core.performance import PerformedBout
from fortis.core.structure.prescription import Position, Prescription
from fortis.core.tally.costing import cost_of_performance
from fortis.core.tally.records import Best, lately, record_days, short_of
from fortis.core.tally.relative import Moment, dots, held_while_lighter
from fortis.core.tally.session import tally
from fortis.core.tally.work import Conditions, tonnage

NOTHING = Prescription(title="", sets=())
AT = Position(group=1, round=1, entry=1, set=1, bout=1)


def bout(exercise, reps, kg, **more):
    lift = LIBRARY.find(exercise)
    return PerformedBout(position=AT, exercise=lift.name, lift_id=lift.id, reps=reps, kg=Decimal(kg), **more)


@pytest.mark.parametrize(
    ("ways", "pair", "dip", "halves"),
    [
        ({}, 10 * 45, 8 * (76 + 10), 6 * 60),
        ({"both_dumbbells": False}, 10 * 22.5, 8 * 86, 6 * 60),
        ({"body_weight": False}, 10 * 45, 8 * 10, 6 * 60),
        ({"halves": True}, 10 * 45, 8 * 86, 8 * 60),
    ],
)
def test_what_is_counted_is_the_lifters_to_choose(ways, pair, dip, halves):
    """Two 22.5s are 45 kg a rep; a dip moves 0.95 of 80 kg; six and four halves are six reps, or eight."""
    under = Conditions(Decimal(80), None, Conventions(**ways))
    done = [
        bout("Dumbbell press", 10, "22.5"),
        bout("Dip", 8, 10, body=True),
        bout("Leg extension", 6, 60, partial_reps=4),
    ]
    assert [float(tonnage([each], under)) for each in done] == [pair, dip, halves]
    added = tally(NOTHING, done, under)
    assert float(added.tonnage_kg) == pair + dip + halves
    assert added.reps == (26 if "halves" in ways else 24)
    assert cost_of_performance(NOTHING, done, 0, under).tonnage_kg == added.tonnage_kg
    assert added.lifts[2].average_kg == 60


def test_a_lift_that_stands_while_body_weight_falls_is_told():
    def held(*days):
        return held_while_lighter([Moment(max_kg, kg and Decimal(kg)) for max_kg, kg in days])

    assert held((100, "80"), (97, None), (99, "77.5")) == 2.5
    assert held((100, "80"), (104, "79.5")) is None
    assert held((100, "80"), (97, "77")) is None
    assert held((100, None), (100, "80")) is None
    assert held() is None


@given(st.floats(1, 1_000), st.floats(30, 250), st.sampled_from(Points))
def test_points_grow_with_the_load_and_fall_with_body_weight(kg, body, points):
    assert dots(2 * kg, body, points) == pytest.approx(2 * dots(kg, body, points))
    if 45 < body < 140:
        assert dots(kg, body + 1, points) < dots(kg, body, points)


DAYS = [date(2026, 1, 5), date(2026, 2, 2), date(2026, 3, 2)]
DONE = [
    Best(Decimal(100), 5, DAYS[0], DAYS[2]),
    Best(Decimal(110), 1, DAYS[0], DAYS[0]),
    Best(Decimal(105), 5, DAYS[1], DAYS[1]),
    Best(Decimal("112.5"), 1, DAYS[2], DAYS[2]),
    Best(Decimal(40), 15, DAYS[2], DAYS[2]),
]


def test_the_days_of_records_tell_the_best_of_each():
    told = [(on, record.kg, record.reps, record.was_kg) for on, record in record_days(DONE)]
    assert told == [(DAYS[1], 105, 5, 100), (DAYS[2], Decimal("112.5"), 1, 110)]
    assert record_days([]) == []


def test_how_far_the_best_of_late_stays_short():
    recent = lately(DONE, date(2026, 2, 20))
    assert [(each.kg, each.reps, each.on) for each in recent][:2] == [
        (Decimal("112.5"), 1, DAYS[2]), (Decimal(100), 5, DAYS[2])
    ]  # fmt: skip
    five, single = DONE[2], DONE[3]
    assert (short_of(five, recent), short_of(single, recent)) == (5, 0)
    assert short_of(Best(Decimal(120), 5, DAYS[0]), recent) is None
    assert short_of(Best(Decimal(60), 20, DAYS[0]), recent) is None
