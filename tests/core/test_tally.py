from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.loading.kit import Machine
from fortis.core.loading.warm_up import School
from fortis.core.performance import Ended, PerformedBout, asked_of
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.counting import as_planned, count_of
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.pace import expected_reps
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.tally.costing import cost_of_performance, cost_of_plan
from fortis.core.tally.session import tally
from fortis.core.tally.work import NOTHING_PLANNED, Conditions, performed_work, planned_work, tonnage
from tests.core.kits import FULL
from tests.strategies import sessions as any_session


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
    weighed = Conditions(Decimal(80))
    assert tonnage([bout("Dip", "10", 5)], weighed) == (76 + 10) * 5
    assert tonnage([bout("Dip", None, 5)], weighed) == 76 * 5
    assert tonnage([bout("Dip", "10", 5)]) == 50


def test_a_session_is_tallied_by_lift():
    added_up = tally(NOTHING_PLANNED, [
        bout("Back squat", "100", 5, reserve=2), bout("Back squat", "110", 3, 2, reserve=5), bout("Dip", "0", 8),
    ], Conditions(Decimal(80)))  # fmt: skip
    squat, dip = added_up.lifts
    assert (squat.reps, squat.tonnage_kg, squat.average_kg, squat.top_kg) == (8, 830, Decimal("103.8"), 110)
    assert (squat.sets, squat.hard_sets) == (2, 1)
    assert added_up.tonnage_kg == squat.tonnage_kg + dip.tonnage_kg


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
    maxes = {lift_key(LIBRARY.find("Back squat"), SetUp()): estimate(100.0, 1, 0)}
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


def done_as_planned(prescription):
    """Every bout of a plan done just as it says; open targets as far as is expected of them."""
    return [
        PerformedBout(
            position=each.position(planned),
            exercise=each.exercise,
            lift_id=each.lift.id,
            setup=each.setup,
            side=planned.side,
            kg=planned.settled and planned.settled.kg,
            body=bool(planned.settled and planned.settled.body),
            mean_kg=planned.settled and planned.settled.mean_kg,
            **(
                as_planned(planned)
                or count_of(planned.reps, planned.range_of_motion, expected_reps(planned.reps, index) or 0)
            ).model_dump(),
            ended=Ended.MET,
            asked=asked_of(planned),
        )
        for each in prescription.sets
        for index, planned in enumerate(each.bouts)
        if not planned.left_out
    ]


@given(any_session, st.sampled_from([None, Decimal(80)]), st.sampled_from([None, FULL]))
@settings(max_examples=30)
def test_done_exactly_as_planned_it_adds_up_to_the_same(session, body_kg, kit):
    """One adder: what Compose says before and what the Ledger says after, over the whole algebra."""
    basis = Basis(kit=kit, body_kg=body_kg, warm_ups=School.FEW)
    prescription = resolve(lay_out(session), basis)
    under = Conditions(body_kg, kit)
    performed = done_as_planned(prescription)
    planned = cost_of_plan(prescription, 60, under)
    assert cost_of_performance(prescription, performed, 60, under) == planned
    assert planned_work(prescription, under) == performed_work(prescription, performed, under)
    told = tally(prescription, performed, under)
    assert told.reps == planned.reps - planned.partial_reps
    assert told.warm_ups == sum(len(each.bouts) for each in prescription.sets if each.is_warm_up)
    if all(lift.tonnage_kg is not None for lift in planned.lifts):
        assert told.tonnage_kg == planned.tonnage_kg


def test_a_lift_of_one_side_written_without_sides_is_done_on_both():
    once, twice = (
        cost_of_plan(resolve(lay_out(read(f"One-arm row: 3 x 10 at 30 kg{sides}"))), 60)
        for sides in ("", " each side")
    )
    assert (once.reps, once.tonnage_kg) == (twice.reps, twice.tonnage_kg) == (60, 1800)


def test_a_lunge_at_body_weight_moves_the_body_and_a_loaded_one_its_load():
    under = Conditions(Decimal(80))
    bare, loaded = (
        cost_of_plan(resolve(lay_out(read(text)), Basis(body_kg=Decimal(80))), 60, under)
        for text in ("Walking lunge: 10 at bw each side", "Walking lunge: 10 at 20 kg each side")
    )
    assert (bare.tonnage_kg, loaded.tonnage_kg) == (20 * Decimal("70.4"), 20 * 40)


def test_a_pulley_halves_what_the_pin_says():
    pulley = FULL.model_copy(update={"machines": (Machine(name="Tower", ratio=Decimal("0.5")),)})
    plan = resolve(lay_out(read("Cable row: 10 at 60 kg")), Basis(kit=pulley))
    assert plan.sets[0].bouts[0].settled.kg == 60
    assert cost_of_plan(plan, 60, Conditions(kit=pulley)).tonnage_kg == 300


def test_a_set_is_hard_by_one_rule():
    """By the reserve told; where none was, as hard as it was meant if it met its target."""
    plan = resolve(lay_out(read("Back squat: 3 x 5 at 100 leave 2\nLeg press: 2 x 10 at 80 leave 6")))
    squat = [
        bout("Back squat", "100", 5).model_copy(update={"position": each.position(each.bouts[0])})
        for each in plan.sets[:3]
    ]
    assert tally(plan, squat).lifts[0].hard_sets == 3
    short = [squat[0].model_copy(update={"reps": 3}), squat[1].model_copy(update={"reserve": Decimal(6)})]
    assert tally(plan, short).lifts[0].hard_sets == 0
    second_lift = Position(group=2, round=1, entry=1, set=1, bout=1)
    easy = bout("Leg press", "80", 10).model_copy(update={"position": second_lift})
    assert tally(plan, [easy]).lifts[0].hard_sets == 0
