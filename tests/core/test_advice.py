from decimal import Decimal

import pytest

from fortis.core.performance import Ended
from fortis.core.progression.advice import Course, Outcome, advise, all_advice, outcomes
from fortis.core.resolution import Basis, resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL, SPARSE


def plan(text, kit=FULL):
    return resolve(lay_out(read(text)), Basis(kit=kit))


def advice(text, reps, reserve=None, ended=None, sets_left=2, kit=FULL):
    each = plan(text, kit).sets[0]
    return advise(each, each.bouts[0], Outcome(reps=reps, reserve=reserve, ended=ended), sets_left, kit)


FIVES = "Back squat: 3 x 5 at 100 kg leave 2"


@pytest.mark.parametrize(
    ("reps", "reserve", "course"),
    [
        (5, 2, Course.GO_ON),
        (5, 3, Course.GO_ON),
        (5, 1, Course.WATCH),
        (5, 0, Course.LIGHTER),
        (5, 4, Course.HEAVIER),
        (7, 2, Course.HEAVIER),
        (4, 0, Course.LIGHTER),
        (4, None, Course.LIGHTER),
        (2, 0, Course.STOP),
    ],
)
def test_the_outcome_says_how_to_go_on(reps, reserve, course):
    given = advice(FIVES, reps, reserve)
    assert given.course is course
    assert (given.kg is not None) == (course in (Course.LIGHTER, Course.HEAVIER))
    if given.kg:
        assert 85 <= given.kg <= 105
        assert (given.kg < 100) == (course is Course.LIGHTER)


def test_where_nothing_is_left_or_asked_there_is_no_advice():
    assert advice(FIVES, 4, 0, sets_left=0) is None
    assert advice("Back squat: 3 x 5 at 100 kg", 5, 2) is None
    assert advice("Leg extension: 3 x 12 at 40 kg to failure", 11, 0) is None
    assert advice("Hollow hold: 3 x hold 30s", 0) is None


def test_bad_form_holds_the_load():
    assert advice(FIVES, 5, 2, Ended.FORM).course is Course.WATCH


def test_a_kit_without_small_steps_makes_do():
    coarse = SPARSE.model_copy(update={"plates": SPARSE.plates[:1]})
    sixty = "Back squat: 3 x 5 at 60 kg leave 2"
    assert advice(sixty, 5, 0, kit=coarse).course is Course.WATCH
    assert "add a rep" in advice(sixty, 5, 5, kit=SPARSE).text


def test_a_second_hard_set_is_told_what_then():
    first = advice(FIVES, 5, 1)
    assert (first.again.course, first.again.kg) == (Course.LIGHTER, Decimal("97.5"))


def test_the_table_holds_what_the_rules_say():
    prescription = plan("Back squat: 3 x 5 at 100 kg leave 2\nDip: 2 x 6-8 at bw+10 kg leave 1\nPlank: hold 30s")
    table = all_advice(prescription, FULL)
    lasts = {(each.group, each.entry): each.number for each in prescription.sets}
    for each in prescription.sets:
        left = lasts[each.group, each.entry] - each.number
        for bout in each.bouts:
            at = table.places.get(str(each.position(bout)))
            by_outcome = {} if at is None else table.tables[at]
            for outcome in outcomes(bout):
                found = by_outcome.get(outcome.key)
                looked_up = None if found is None else table.advice[found]
                assert looked_up == advise(each, bout, outcome, left, FULL)
