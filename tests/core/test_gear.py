"""Gear comes on at its own load or number of reps."""

from decimal import Decimal

import pytest

from fortis.core.basis import Basis
from fortis.core.foretelling import foretell
from fortis.core.loading.warm_up import School
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write
from tests.core.kits import FULL

PULLS = "Deadlift [belt from 120 kg, straps from 4 reps]: 3 at 140 kg; 5 at 120 kg; 5 at 100 kg"


def planned(text, **basis):
    return resolve(lay_out(read(text)), Basis(kit=FULL, body_kg=Decimal(80), **basis))


def worn(prescription):
    return [(step.settled.kg, step.setup.key) for step in timeline(prescription).steps if step.kind == "work"]


def test_each_bout_wears_what_its_load_and_reps_call_for():
    assert worn(planned(PULLS)) == [(140, "belt"), (120, "belt, straps"), (100, "straps")]


def test_the_way_up_puts_the_belt_on_at_its_load_and_has_no_straps():
    warm = worn(planned("Deadlift [belt from 100 kg, straps from 4 reps]: 5 at 150 kg", warm_ups=School.FEW))[:-1]
    assert {kg >= 100 for kg, _ in warm} == {True, False}
    assert all((key == "belt") == (kg >= 100) for kg, key in warm)


def test_a_load_that_is_not_known_yet_takes_all_of_it():
    assert SetUp(items=("belt from 120 kg",)).worn(None, 5).items == ("belt",)


@pytest.mark.parametrize(
    ("item", "key"),
    [
        ("belt from 120 kg", "belt"),
        ("belt from 265 lb", "belt"),
        ("straps from 4 reps", "straps"),
        ("Wraps from 97,5kg", "wraps"),
        ("from the floor", "from the floor"),
        ("deficit from 5 cm", "deficit from 5 cm"),
    ],
)
def test_compared_with_all_of_it_on(item, key):
    assert SetUp(items=(item,)).key == key


def test_pounds_are_pounds():
    (gear,) = SetUp(items=("belt from 265 lb",)).gear
    assert (gear.is_worn(Decimal(120), 1), gear.is_worn(Decimal("120.5"), 1)) == (False, True)


def test_it_is_written_as_it_was_read():
    assert write(read(PULLS)).strip() == PULLS


def test_the_estimate_knows_the_difference():
    """With a belt and without are two maxes: each bout is foretold by the one it is done with."""
    deadlift = planned(PULLS).sets[0].lift
    maxes = {
        lift_key(deadlift, SetUp(items=items)): Estimate(kg=kg, low=kg, high=kg)
        for items, kg in ((("belt",), 180.0), (("belt", "straps"), 185.0), (("straps",), 160.0))
    }
    prescription = planned(PULLS, estimates=maxes)
    steps = foretell(timeline(prescription), prescription, Basis(estimates=maxes)).steps
    assert all(step.foretold for step in steps if step.kind == "work")
