"""A session that has to fit a time."""

from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.loading.warm_up import School
from fortis.core.played import as_played
from fortis.core.resolution import resolve
from fortis.core.shortening import shortened
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from tests.core.kits import FULL

LEGS = """Back squat: 5 x 5 at 100 kg leave 2 rest 3:00
Leg press: 3 x 10 at 120 kg leave 2 rest 2:00
Leg extension: 3 x 12 at 40 kg leave 1 rest 90s
Seal row: 3 x 8 at 60 kg leave 2 rest 2:00
"""


def planned(text, warm_ups=School.FEW):
    return resolve(lay_out(read(text)), Basis(kit=FULL, body_kg=Decimal(80), warm_ups=warm_ups))


def lost(text, minutes):
    return {each.exercise: each.sets for each in shortened(planned(text), minutes * 60).lost}


def test_what_fits_loses_nothing():
    assert shortened(planned(LEGS), 3 * 3600).lost == ()


def test_the_small_lift_goes_first_and_the_main_lift_last():
    whole = timeline(planned(LEGS)).total_seconds // 60
    first = lost(LEGS, whole - 1)
    assert list(first) == ["Leg extension"]
    much = lost(LEGS, whole // 2)
    assert much["Leg extension"] == 3
    assert much.get("Back squat", 0) < 5


def test_a_lift_that_goes_takes_its_warm_up_with_it():
    prescription = planned(LEGS)
    found = shortened(prescription, 600)
    after = as_played(prescription, Adjustments(skipped=found.skipped))
    for sets in after.by_entry().values():
        work = [each for each in sets if not each.is_warm_up and each.open_bouts]
        warm_up = [each for each in sets if each.is_warm_up and each.open_bouts]
        assert work or not warm_up


def test_the_shortest_keeps_a_set_of_the_main_lift_and_says_that_it_does_not_fit():
    prescription = planned("Back squat: 5 x 5 at 100 kg rest 3:00")
    found = shortened(prescription, 60)
    assert (found.fits, found.lost[0].sets, found.lost[0].of) == (False, 4, 5)


def test_what_goes_by_the_clock_stays_whole():
    assert lost("Back squat: 3 x 5 at 100\nKettlebell swing: 10 at 24 kg every 1:00 for 10:00", 10) == {
        "Back squat": 2
    }


@settings(max_examples=25)
@given(st.integers(5, 60))
def test_less_time_never_keeps_more(minutes):
    prescription = planned(LEGS, None)
    shorter, longer = (set(shortened(prescription, each * 60).skipped) for each in (minutes, minutes + 5))
    assert longer <= shorter
    taken = timeline(as_played(prescription, Adjustments(skipped=tuple(shorter)))).total_seconds
    assert shortened(prescription, minutes * 60).seconds == taken
