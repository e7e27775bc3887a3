from decimal import Decimal

import pytest

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.performance import Ended
from fortis.core.played import as_played
from fortis.core.progression.advice import Bar, Course, Outcome, advise, all_advice
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from tests.core.kits import FULL, SPARSE


def plan(text, kit=FULL):
    return resolve(lay_out(read(text)), Basis(kit=kit, body_kg=Decimal(80)))


def advice(text, number, reserve=None, ended=None, kit=FULL, at=0, bout=0):
    sets = plan(text, kit).sets
    outcome = Outcome(number=number, reserve=reserve, ended=ended)
    return advise(sets[at], sets[at].bouts[bout], outcome, sets[at + 1 :], Bar(kit, Decimal(80)))


FIVES = "Back squat: 3 x 5 at 100 kg leave 2"


@pytest.mark.parametrize(
    ("number", "reserve", "course"),
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
def test_the_outcome_says_how_to_go_on(number, reserve, course):
    given = advice(FIVES, number, reserve)
    assert given.course is course
    assert (given.kg is not None) == (course in (Course.LIGHTER, Course.HEAVIER))
    if given.kg:
        assert 85 <= given.kg <= 105
        assert (given.kg < 100) == (course is Course.LIGHTER)


def test_where_nothing_is_left_or_asked_there_is_no_advice():
    assert advice(FIVES, 4, 0, at=2) is None
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
    assert (first.again.course, first.again.kg) == (Course.LIGHTER, Decimal(95))


def moved(text, advised):
    """The loads of a plan once advice is taken, bout by bout."""
    loads = tuple(change.after(1) for change in advised.loads)
    changed = as_played(plan(text), Adjustments(loads={"1.1": loads}))
    return [[bout.settled.kg for bout in each.bouts] for each in changed.sets]


def test_only_what_was_judged_moves():
    """A heavy single, then three: the triple was too easy, and the single stays what it is."""
    text = "Front squat: 3 sets of (1 at 150 leave 1, 25s, 3 at 120 leave 2)"
    advised = advice(text, 3, 4, bout=1)
    assert (advised.course, advised.kg) == (Course.HEAVIER, 125)
    assert moved(text, advised) == [[150, 120], [150, 125], [150, 125]]
    assert moved(text, advice(text, 1, 4)) == [[150, 120], [Decimal("157.5"), 120], [Decimal("157.5"), 120]]


def test_a_cluster_moves_whole_a_drop_follows_and_a_ramp_moves_in_proportion():
    cluster = "Deadlift: 2 sets of (2, 2, 2) at 150 leave 1 within 10s"
    assert moved(cluster, advice(cluster, 1, 0)) == [[150] * 3, [Decimal("142.5")] * 3]
    drop = "Leg press: 2 sets of (8 at 100 leave 2, drop 20%)"
    assert moved(drop, advice(drop, 8, 0)) == [[100, 80], [90, 70]]
    ramp = "Back squat: 3 at 100 leave 3; 2 at 110 leave 2; 1 at 120 leave 1"
    assert moved(ramp, advice(ramp, 3, 1)) == [[100], [100], [110]]


def test_help_goes_down_a_step_and_never_all_at_once():
    advised = advice("Dip: 3 x 6 at bw-20 kg leave 2", 6, 5)
    assert (advised.course, advised.kg) == (Course.HEAVIER, Decimal("-17.5"))
    assert "bw−17.5" in advised.text
    assert advice("Dip: 3 x 6 at bw-20 kg leave 2", 6, 0).kg == Decimal(-25)


def test_half_steps_are_heard():
    eight_and_a_half = "Back squat: 3 x 3 at 100 rpe 8.5"
    assert advice(eight_and_a_half, 3, Decimal("1.5")).text.startswith("As planned")
    assert advice(eight_and_a_half, 3, 1).text.startswith("Half a rep harder")
    assert advice(eight_and_a_half, 3, Decimal("0.5")).course is Course.WATCH


def looked_up(table, position, kg, number, reserve, ended=""):
    """As a phone does it: by what was said, and no more."""
    at = table.positions.get(str(position), {}).get(kg)
    if at is None or number >= len(table.tables[at]):
        return None
    found = table.tables[at][number][table.reserves[reserve]][table.ended[ended]]
    return None if found < 0 else table.advice[found]


def test_the_table_holds_what_the_rules_say():
    prescription = plan("Back squat: 3 x 5 at 100 kg leave 2\nDip: 2 x 6-8 at bw+10 kg leave 1\nPlank: hold 30s")
    bar = Bar(FULL, Decimal(80))
    table = all_advice(prescription, bar)
    for sets in prescription.by_entry().values():
        for at, each in enumerate(sets):
            (bout,) = each.bouts
            for number in range(11 if each.exercise == "Dip" else 8):
                for left in (None, Decimal(0), Decimal("0.5"), Decimal(1), Decimal(2), Decimal(5), Decimal(7)):
                    for ended in (None, Ended.MET, Ended.FORM):
                        outcome = Outcome(number=number, reserve=left, ended=ended)
                        said = "" if left is None else f"{left}"
                        kg = f"{bout.settled.kg}" if bout.settled else ""
                        found = looked_up(table, each.position(bout), kg, number, said, ended or "")
                        expected = advise(each, bout, outcome, sets[at + 1 :], bar)
                        assert (found and found.text) == (expected and expected.text)
    assert looked_up(table, "1.1.1.1.1", "100", 5, "5+") == looked_up(table, "1.1.1.1.1", "100", 5, "5")


def test_the_table_knows_the_loads_that_advice_leads_to():
    prescription = plan("Back squat: 4 x 5 at 100 kg leave 2")
    table = all_advice(prescription, Bar(FULL, None))
    first = looked_up(table, "1.1.1.1.1", "100", 5, "0")
    assert first.kg == Decimal("92.5")
    then = looked_up(table, "1.2.1.2.1", "92.5", 5, "2")
    assert then.text == "As planned: stay at 92.5."
