"""A longer range, a ladder, longer holds: what changes when the load does not."""

from decimal import Decimal

import pytest
from pydantic import ValidationError

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.progression.carried import carry, loads_carried, with_carried
from fortis.core.progression.decision import Move
from fortis.core.progression.next_loads import recommendations
from fortis.core.progression.policy import Policy, PolicyKind
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL
from tests.core.test_next_loads import performed

BODY = Decimal(80)
HOLLOW = LIBRARY.find("Hollow hold").id
PINS = Policy(kind=PolicyKind.RANGE, rungs=("pin 8", "pin 7", "pin 6"))
ROWS = Policy(kind=PolicyKind.LADDER, rungs=("Ring row", "Ring row [feet up]", "Chin-up"))
HOLDS = Policy(kind=PolicyKind.LADDER, rungs=("Hollow hold [tucked]", "Hollow hold"), rung_at=35)


def planned(text, recommended=(), kit=FULL, estimates=None):
    laid_out = lay_out(read(text))
    carried = carry(laid_out, [each.carries for each in recommended])
    moved = with_carried(laid_out, carried)
    basis = Basis(kit=kit, body_kg=BODY, estimates=estimates or {})
    return resolve(moved, basis, loads_carried(moved, carried))


def sessions(text, policies, *went, estimates=None, kit=FULL):
    """Play a plan again and again, each time as the time before recommends: its sets, and the last next load.

    Another plan among the `went` is what is written from then on.
    """
    recommended, found = (), []
    for each in went:
        if isinstance(each, str):
            text = each
            continue
        prescription = planned(text, recommended, kit, estimates)
        found.append(prescription.work_sets)
        done = performed(prescription, each)
        recommended = recommendations(prescription, done, kit, BODY, estimates or {}, policies)
    return found, recommended[0].load


def test_the_range_gets_longer_pin_by_pin_and_then_the_load_goes_up():
    text = "Back squat [pin 8, straps]: 3 x 5 at 100 kg leave 2"
    well = [(5, 2)] * 3
    policies = {"back-squat": PINS}
    found, last = sessions(text, policies, well, well, [(5, 2), (5, 2), (5, 1)], well, well)
    setups = [sets[0].setup.key for sets in found]
    assert setups == ["pin 8, straps", "pin 7, straps", "pin 6, straps", "pin 6, straps", "pin 6, straps"]
    assert [sets[0].bouts[0].settled.kg for sets in found[:4]] == [100] * 4
    assert last.move is Move.RAISE


def test_a_time_that_went_badly_keeps_its_pin():
    text = "Back squat [pin 8]: 3 x 5 at 100 kg leave 2"
    _, load = sessions(text, {"back-squat": PINS}, [(5, 2), (5, 2), (5, 1)])
    assert (load.move, load.kg, load.rung) == (Move.HOLD, 100, None)
    _, missed = sessions(text, {"back-squat": PINS}, [(5, 2), (5, 0), (3, 0)])
    assert missed.move is Move.CUT


def test_a_ladder_goes_from_lift_to_lift_and_its_text_stays():
    well = [(10, 1)] * 3
    found, load = sessions("Ring row: 3 x 8-10 leave 1", {"ring-row": ROWS}, well, well, well)
    assert [(sets[0].exercise, sets[0].setup.key) for sets in found] == [
        ("Ring row", ""),
        ("Ring row", "feet up"),
        ("Chin-up", ""),
    ]
    assert load.lift_id == "ring-row"
    assert load.move is not Move.NEXT_RUNG


def test_holds_get_longer_first_and_the_next_rung_begins_as_written():
    well = [(30, None)] * 2
    text = "Hollow hold [tucked]: 2 x hold 30s"
    found, load = sessions(text, {HOLLOW: HOLDS}, well, [(35, None)] * 2, [(30, None)] * 2)
    seconds = [[bout.reps.seconds for each in sets for bout in each.bouts] for sets in found]
    assert seconds == [[30, 30], [35, 35], [30, 30]]
    assert found[2][0].setup.key == ""
    assert (load.move, load.hold) == (Move.LONGER_HOLDS, 35)


def test_a_hold_let_go_early_stays():
    _, load = sessions("Hollow hold: 2 x hold 30s", {}, [(30, None), (12, None)])
    assert (load.move, load.hold) == (Move.HOLD, None)
    assert load.reasons[0].text == "One bout let go before 30 s: the same again."


def test_a_ladder_needs_two_rungs():
    with pytest.raises(ValidationError, match="two rungs at least"):
        Policy(kind=PolicyKind.RANGE, rungs=("pin 8",))


def test_a_plan_that_is_on_no_rung_is_told():
    _, load = sessions("Back squat: 3 x 5 at 100 kg leave 2", {"back-squat": PINS}, [(5, 2)] * 3)
    assert load.reasons[-1].text == "Back squat is none of the rungs: write the one you are on into the plan."
