"""A load planned as a range, settled by how the last warm-up moved."""

from decimal import Decimal

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.played import as_played
from fortis.core.progression.advice import Bar
from fortis.core.progression.within_range import choices
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL

BAR = Bar(FULL, Decimal(80))


def planned(text):
    return resolve(lay_out(read(text)), Basis(kit=FULL, body_kg=Decimal(80)))


def test_a_range_has_its_lightest_and_its_heaviest_load_that_can_be_built():
    (ways,) = choices(planned("Back squat: 3 at 151-161 kg leave 1"), BAR).values()
    assert [(way.moved, way.kg) for way in ways] == [("as usual", Decimal("152.5")), ("light", 160)]


def test_back_off_sets_follow_the_top_set():
    prescription = planned("Back squat: 3 at 152.5-160 kg leave 1; 2 x 3 at top -10%")
    ways = choices(prescription, BAR)["1.1.1.1.1"]
    light = next(way for way in ways if way.moved == "light")
    after = as_played(prescription, Adjustments(loads={"1.1": light.loads}))
    assert [each.bouts[0].settled.kg for each in after.sets] == [160, Decimal("145"), Decimal("145")]


def test_a_load_that_is_no_range_is_no_choice():
    assert choices(planned("Back squat: 3 at 150 kg\nPlank: hold 30s"), BAR) == {}
    assert choices(planned("Back squat: 3 at 150-151 kg"), BAR) == {}


def test_a_range_is_settled_after_sets_that_leave_their_load_to_be_found():
    prescription = planned("Back squat: 2 x 8 leave 2; 3 at 152.5-160 kg leave 1")
    ways = choices(prescription, BAR)["1.3.1.3.1"]
    light = next(way for way in ways if way.moved == "light")
    after = as_played(prescription, Adjustments(loads={"1.1": light.loads}))
    assert after.sets[-1].bouts[0].settled.kg == 160
