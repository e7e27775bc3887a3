from decimal import Decimal

from fortis.core.resolution import resolve
from fortis.core.structure.model import Leave, Percent, Side
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline


def laid(text):
    return lay_out(read(text))


def order(text):
    return [(each.exercise, each.round, each.number) for each in laid(text).sets]


def steps(text):
    return timeline(resolve(laid(text))).steps


def test_a_pair_alternates_and_rests_after_the_round():
    prescription = laid("pair, 3 rounds, rest 1:30:\n  Dip: 6\n  Row: 8")
    assert [each.exercise for each in prescription.sets] == ["Dip", "Row"] * 3
    assert [each.rest for each in prescription.sets] == [0, 90] * 3


def test_members_may_have_different_numbers_of_rounds():
    assert order("pair:\n  Dip: 3 x 6\n  Row: 2 x 8") == [
        ("Dip", 1, 1), ("Row", 1, 1), ("Dip", 2, 2), ("Row", 2, 2), ("Dip", 3, 3),
    ]  # fmt: skip


def test_rest_between_the_members_of_a_circuit():
    prescription = laid("circuit, 2 rounds, between 10s, rest 60s:\n  A: 5\n  B: 5\n  C: 5")
    assert [each.rest for each in prescription.sets] == [10, 10, 60, 10, 10, 60]


def test_a_climb_adds_up_set_by_set():
    sets = laid("Squat: 3 sets of (1 at 92% up 2%, 25s, 3 at 74%)").sets
    assert [each.bouts[0].load for each in sets] == [Percent(percent=Decimal(x)) for x in (92, 94, 96)]
    assert {each.bouts[1].load for each in sets} == {Percent(percent=Decimal(74))}
    assert [each.bouts[0].load.amount for each in laid("Squat: 3 x 1 at 100 up 2.5 kg").sets] == [100, 102.5, 105]


def test_effort_of_a_whole_set_is_asked_of_its_last_bout():
    (each,) = laid("Pull: 1 set of (2, 2, 2) leave 1").sets
    assert [bout.effort for bout in each.bouts] == [None, None, Leave(low=1, high=1)]


def test_each_side_is_two_bouts_left_first():
    (each,) = laid("Split squat: 8 each side").sets
    assert [bout.side for bout in each.bouts] == [Side.LEFT, Side.RIGHT]
    assert [bout.number for bout in each.bouts] == [1, 2]


def test_a_rest_at_the_end_of_the_line_holds_for_the_runs_before_it():
    assert [each.rest for each in laid("Squat: 3 at 150; 2 at 157.5; 2 x 3 at top -10% rest 4:00").sets] == [
        240
    ] * 4


def test_usual_rests_where_none_is_written():
    assert [each.rest for each in laid("Squat: 3 x 5\nCurl: 2 x 12").sets] == [180, 180, 180, 120, 120]


def test_relative_loads_without_any_kit_are_exact():
    work = steps("Squat: 3 at 150; 1 at 165; 3 at top -10%; 1 set of (5 at 100, drop 20%)")
    loads = [step.load.kg for step in work if step.kind == "work"]
    assert loads == [150, 165, Decimal("148.5"), 100, 80]


def test_steps_of_a_drop_set_and_of_a_pair():
    drop = steps("Curl: 1 set of (12 at 20 kg to failure, drop 20% to failure)")
    assert [(step.kind, step.what) for step in drop] == [("work", None), ("change", "load"), ("work", None)]
    pair = steps("pair, 2 rounds, rest 60s:\n  Dip: 6\n  Row: 8")
    kinds = [step.kind for step in pair]
    assert kinds == ["work", "change", "work", "rest", "change", "work", "change", "work"]
    assert [step.seconds for step in pair] == [18, 5, 24, 60, 0, 18, 5, 24]


def test_holds_tempo_and_sides_take_their_time():
    hold, _, _, left, side, right = steps("Plank: hold 30s\nSplit squat: 8 each side tempo 3-1-1-0")
    assert (hold.seconds, hold.reps) == (30, None)
    assert (left.seconds, side.what, right.seconds) == (40, "side", 40)


def test_sets_that_start_every_so_often_rest_what_is_left():
    clean = steps("Clean: 4 x 2 at 80 kg every 60s")
    assert [(step.kind, step.seconds) for step in clean] == [("work", 6), ("rest", 54)] * 3 + [("work", 6)]
    assert {step.every for step in clean if step.kind == "rest"} == {60}


def test_rounds_that_start_every_so_often_count_the_whole_round():
    pair = steps("pair, 2 rounds, every 60s:\n  Dip: 5\n  Row: 5")
    assert [(step.seconds, step.every) for step in pair if step.kind == "rest"] == [(60 - 15 - 5 - 15, 60)]
    assert [step.every for step in steps("pair, 1 round, every 60s:\n  Dip: 5\n  Row: 5\nCurl: 5")] == [None] * 6


def test_a_block_of_minutes_takes_the_rounds_that_fit():
    assert len(laid("pair, for 8 min:\n  Dip: 10\n  Row: 10").sets) == 2 * (480 // (30 + 5 + 30 + 5))
    assert len(laid("pair, for 8 min, every 2:00:\n  Dip: 10\n  Row: 10").sets) == 8
    mixed = steps("pair, for 2 min:\n  Dip: 10\n  Row: 10\nCurl: 5; 10 for 5 min")
    blocks = {(step.exercise, step.block and step.block.seconds) for step in mixed if step.kind == "work"}
    assert blocks == {("Dip", 120), ("Row", 120), ("Curl", None), ("Curl", 300)}


def test_a_percentage_of_a_chosen_max_needs_no_estimate():
    (work,) = steps("Clean: 1 at 80% of 150 kg")
    assert work.load.kg == 120
