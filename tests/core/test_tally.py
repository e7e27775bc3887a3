from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.performance import Ended, PerformedBout
from fortis.core.resolution import Basis, lift_key, resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.tally.costing import cost_of_performance, cost_of_plan
from fortis.core.tally.session import fresh_estimate, tally, tonnage


def bout(exercise, kg, reps, number=1, **more):
    position = Position(group=1, round=1, entry=1, set=number, bout=1)
    return PerformedBout(
        position=position, exercise=exercise, kg=None if kg is None else Decimal(kg), reps=reps, **more
    )


@given(st.lists(st.tuples(st.integers(0, 1000), st.integers(0, 50)), max_size=20))
def test_tonnage_adds_up_in_any_order(sets):
    bouts = [bout("Back squat", Decimal(kg) / 4, reps) for kg, reps in sets]
    assert tonnage(bouts) == tonnage(bouts[::-1]) == sum((each.kg * each.reps for each in bouts), Decimal(0))


def test_body_weight_counts_by_its_share():
    assert tonnage([bout("Dip", "10", 5)], Decimal(80)) == (76 + 10) * 5
    assert tonnage([bout("Dip", None, 5)], Decimal(80)) == 76 * 5
    assert tonnage([bout("Dip", "10", 5)]) == 50


def test_a_session_is_tallied_by_lift():
    added_up = tally([
        bout("Back squat", "100", 5, reserve=2), bout("Back squat", "110", 3, 2, reserve=5), bout("Dip", "0", 8),
    ], Decimal(80))  # fmt: skip
    squat, dip = added_up.lifts
    assert (squat.reps, squat.tonnage_kg, squat.average_kg, squat.top_kg) == (8, 830, Decimal("103.8"), 110)
    assert squat.hard_bouts == 1
    assert added_up.tonnage_kg == squat.tonnage_kg + dip.tonnage_kg


def test_the_estimate_is_of_the_first_bout_that_says_something():
    silent, told, tired = (
        bout("Back squat", "100", 5),
        bout("Back squat", "100", 5, reserve=2),
        bout("Back squat", "100", 2, reserve=0),
    )
    assert fresh_estimate([silent, told, tired], None).reps == 7
    stuck = bout("Back squat", "100", 3, ended=Ended.STUCK)
    assert fresh_estimate([stuck, told], None).reps == 3
    assert fresh_estimate([bout("Back squat", "100", 0, reserve=0)], None) is None
    assert fresh_estimate([bout("Dip", "10", 5, reserve=1)], None) is None


PLAN = """Back squat: 4 x 8 at 60 kg rest 2:00
Front squat: 5 at 70%
Leg press: 2 x 10 leave 6; 1 set of (10 to failure, 5 stretched halves) two up one down
"""


def test_a_plan_is_costed_before_it_is_lifted():
    cost = cost_of_plan(resolve(lay_out(read(PLAN))), 1800)
    squat, front, press = cost.lifts
    assert (squat.tonnage_kg, squat.average_kg, squat.average_percent) == (1920, 60, None)
    assert (front.tonnage_kg, press.tonnage_kg) == (None, None)
    assert (cost.reps, cost.tonnage_kg, cost.seconds) == (32 + 5 + 20 + 10 + 5, 1920, 1800)
    assert {each.name: each.count for each in cost.hard_sets} == {
        "quads": 6, "glutes": Decimal("5.5"), "trunk": Decimal("2.5"), "adductors": Decimal("2.5"),
    }  # fmt: skip
    assert (cost.failure_sets, cost.partial_reps, cost.overloaded_reps) == (1, 5, 10)


def test_zones_and_average_percent_follow_the_max():
    maxes = {lift_key("Back squat", SetUp()): estimate(100.0, 1, 0)}
    prescription = resolve(lay_out(read("Back squat: 2 x 5 at 75%; 1 at 90%; 3 at 50 kg")), Basis(estimates=maxes))
    cost = cost_of_plan(prescription, 600)
    assert [(each.name, each.count) for each in cost.zones] == [
        ("under 55 %", 3),
        ("70 to 80 %", 10),
        ("90 % and over", 1),
    ]
    assert cost.lifts[0].average_percent == round(Decimal(10 * 75 + 90 + 150) / 14, 1)
    done = bout("Back squat", "75", 4, reserve=0)
    went = cost_of_performance(prescription, [done], 60)
    assert (went.reps, went.tonnage_kg, went.failure_sets, went.lifts[0].average_percent) == (4, 300, 1, 75)
