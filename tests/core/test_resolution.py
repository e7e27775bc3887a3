from decimal import Decimal

import pytest

from fortis.core.resolution import Basis, Carried, lift_key, resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, Weight
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL, SPARSE

SQUAT = lift_key("Back squat", SetUp())
DIP = lift_key("Dip", SetUp())


def settled(text, **basis):
    prescription = resolve(lay_out(read(text)), Basis(**basis))
    return [bout.settled for each in prescription.sets for bout in each.bouts]


def loads(text, **basis):
    return [None if each is None else each.kg for each in settled(text, **basis)]


MAX_150 = {SQUAT: estimate(150.0, 1, 0)}


def test_a_percentage_is_built_and_its_rounding_told():
    (load,) = settled("Back squat: 5 at 70%", kit=SPARSE, estimates=MAX_150)
    assert (load.wanted_kg, load.kg, load.percent) == (105, 100, Decimal("66.7"))
    assert load.side == (20, 20)
    share, rounding = load.reasons
    assert (share.code, rounding.code) == ("share of max", "rounding")
    assert "66.7 % instead of 70 %" in rounding.text


@pytest.mark.parametrize(
    ("text", "kg"),
    [
        ("Back squat: 1 at 100%", [150]),
        ("Back squat: 5 at 12RM", [Decimal("107.5")]),
        ("Back squat: 5 leave 2", [Decimal("122.5")]),
        ("Back squat: 5", [Decimal("122.5")]),
        ("Back squat: 5 at 120-130 kg leave 4", [120]),
        ("Back squat: 5 at 100-110 kg leave 0", [110]),
        ("Back squat: 1 at 150; 3 at top -10%", [150, 135]),
        ("Back squat: 1 set of (5 at 100, drop 20%)", [100, 80]),
        ("Back squat: 1 set of (5 at 100, 3)", [100, 100]),
        ("Back squat: max", [None]),
        ("Front squat: 5 at 70%", [None]),
        ("Back squat: 5 at 225 lb", [Decimal("102.5")]),
    ],
)
def test_what_each_target_comes_to(text, kg):
    assert loads(text, kit=FULL, estimates=MAX_150) == kg


def test_body_weight_lifts_count_the_body():
    maxes = {DIP: estimate(115.0, 1, 0)}
    assert loads("Dip: 3 at 90%", kit=FULL, estimates=maxes, body_kg=Decimal(80)) == [Decimal("27.5")]
    assert loads("Dip: 3 at 90%", kit=FULL, estimates=maxes) == [None]
    assert loads("Dip: 3; 3 at bw-20 kg; 3 at bw+10", kit=FULL) == [0, -20, 10]


def test_what_last_time_recommends_is_used_while_the_plan_asks_the_same():
    carried = {SQUAT: Carried(written=Weight(amount=Decimal(100)), was_kg=Decimal(100), kg=Decimal(105))}
    assert loads("Back squat: 5 at 100", kit=FULL, carried=carried) == [105]
    assert loads("Back squat: 5 at 100; 5 at 80", kit=FULL, carried=carried) == [105, 85]
    assert loads("Back squat: 5 at 90", kit=FULL, carried=carried) == [90]


def test_a_load_change_is_told_from_bout_to_bout():
    first, second, third = settled("Back squat: 1 set of (5 at 100, drop 20%); 5 at 100", kit=FULL)
    assert first.change == ""
    assert second.change == "take 15 off each side, put 5 on each side"
    assert third.change == "take 5 off each side, put 15 on each side"
