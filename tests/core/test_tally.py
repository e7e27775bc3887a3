from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.performance import Ended, PerformedBout
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.tally.plan import plan_tally
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


def test_a_plan_is_costed_before_it_is_lifted():
    laid_out = timeline(resolve(lay_out(read("Back squat: 4 x 8 at 60 kg rest 2:00\nFront squat: 5 at 70%"))))
    cost = plan_tally(laid_out)
    squat, front = cost.lifts
    assert (squat.tonnage_kg, squat.average_kg) == (1920, 60)
    assert front.tonnage_kg is None
    assert (cost.reps, cost.tonnage_kg, cost.seconds) == (37, 1920, laid_out.total_seconds)
