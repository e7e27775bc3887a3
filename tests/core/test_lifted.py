"""Another load was lifted than planned: the rest of the line with it."""

from decimal import Decimal

import pytest

from fortis.core.adjustments import Adjustments
from fortis.core.played import as_played, entry_name, with_loads
from fortis.core.progression.advice import Bar
from fortis.core.progression.advice_table import all_advice
from fortis.core.strength.estimate import Estimate
from tests.core.kits import FULL
from tests.core.test_next_loads import SQUAT
from tests.core.test_rungs import BODY, planned

STRONG = {SQUAT: Estimate(kg=200, low=190, high=210)}
BAR = Bar(FULL, BODY)


def offered(text, was, kg, estimates=STRONG):
    """What is offered where one load was lifted instead of another; None where nothing is."""
    return offered_in(planned(text, estimates=estimates), was, kg)


def offered_in(plan, was, kg):
    """The same in a plan as it stands."""
    table = all_advice(plan, BAR)
    at = table.lifted.get("1.1", {}).get(was, {}).get(kg)
    return None if at is None else table.advice[at]


def after(text, was, kg, at=1):
    """The loads of the sets to come once the offer is taken after a set."""
    plan = planned(text, estimates=STRONG)
    loads = [change.after(at) for change in offered(text, was, kg).loads]
    sets = with_loads([each for each in plan.sets if entry_name(each) == "1.1"], loads)
    return [float(bout.settled.kg) for each in sets if not each.is_warm_up for bout in each.bouts]


def test_the_rest_goes_on_with_the_load_that_was_lifted():
    advice = offered("Back squat: 4 x 5 at 100 kg leave 2", "100", "105")
    assert (advice.text, advice.kg, advice.sleeve) == (
        "105 lifted where 100 was planned.",
        105,
        (25, 15, Decimal("2.5")),
    )
    assert after("Back squat: 4 x 5 at 100 kg leave 2", "100", "105") == [100, 105, 105, 105]
    assert after("Back squat: 4 x 5 at 100 kg leave 2", "100", "92.5", at=2) == [100, 100, 92.5, 92.5]


@pytest.mark.parametrize(("kg", "loads"), [("110", [100, 110, 100, 100]), ("90", [100, 90, 80, 80])])
def test_back_offs_follow_the_top_set(kg, loads):
    assert after("Back squat: 2 x 3 at 100 kg leave 1; 2 x 5 at top -10% leave 2", "100", kg) == loads


def test_a_top_set_alone_takes_its_back_offs_along():
    assert after("Back squat: 1 at 125 kg leave 1; 2 x 5 at top -20% leave 2", "125", "120") == [125, 95, 95]


def test_back_offs_that_followed_are_not_offered_again():
    plan = planned("Back squat: 1 at 125 kg leave 1; 2 x 5 at top -20% leave 2", estimates=STRONG)
    taken = Adjustments(loads={"1.1": tuple(each.after(1) for each in offered_in(plan, "125", "135").loads)})
    again = as_played(plan, taken)
    assert [float(each.bouts[0].settled.kg) for each in again.work_sets] == [125, 107.5, 107.5]
    assert offered_in(again, "125", "135") is None


def test_sets_with_loads_of_their_own_keep_them():
    assert after("Back squat: 2 x 5 at 100 kg; 2 x 3 at 110 kg", "100", "105") == [100, 105, 110, 110]


def test_nothing_is_offered_far_from_the_plan_or_where_nothing_is_to_come():
    assert offered("Back squat: 4 x 5 at 100 kg leave 2", "100", "130") is None
    assert offered("Back squat: 1 x 5 at 100 kg leave 2", "100", "105") is None


def test_what_hangs_from_the_belt_is_followed_in_all_that_is_moved():
    chins = "Weighted chin-up: 1 x 3 at bw+40 kg leave 1; 2 x 6 at top -10% leave 2"
    advice = offered(chins, "40", "35", {})
    assert advice.text == "bw+35 lifted where bw+40 was planned."
    assert after(chins, "40", "35") == [40, 23.75, 23.75], "a tenth under 115 kg, at the nearest load"
