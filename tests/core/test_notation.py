from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.structure.model import Group, OfPrevious, SetUp, Side, Tempo, ToFailure, Weight
from fortis.core.structure.notation import NotationError, examine, read
from fortis.core.structure.writing import write
from fortis.core.units import Unit
from tests.fuzz import check, mutations
from tests.strategies import sessions

EXAMPLES = """# Thursday, lower body
Front squat [belt]: 5 sets of (1 at 92% up 2%, 25s, 3 at 74%) rest 3:00
Trap-bar deadlift [high handles]: 3 sets of (2, 2, 2) at 87% leave 1 within 10s rest 4:00
Seal row: 2 sets of (3, 4, 5, 6, 7) at 12RM within 15s rest 2:30
Leg extension: 1 set of (12 to failure, drop 20% to failure, drop 20% to failure)
Overhead press: 3 x 5 at 60 kg leave 2 rest 3:00
Safety-bar squat: 3 at 150; 2 at 157.5; 1 at 165; 2 x 3 at top -10% rest 4:00
Split squat: 3 x 8-10 each side leave 1 tempo 3-1-1-0 rest 90s
Lying leg curl: 2 x 10-12 leave 1; 1 set of (max to failure, 5 stretched halves)
Weighted chin-up: 4 x 3 at bw+20 kg leave 1 rest 3:00
Hollow hold: 3 x hold 30s rest 60s
Bench press [bands 30 kg top]: 6 x 2 at 55% rest 60s
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 leave 2
  Ring row: 8-10 leave 1
"""


def only_problem(text):
    (problem,) = examine(text).problems
    return problem


def test_every_example_reads_and_prints_back():
    session = read(EXAMPLES)
    assert session.title == "Thursday, lower body"
    assert len(session.groups) == 12
    assert [entry.exercise for entry in session.groups[-1].entries] == ["Ring dip", "Ring row"]
    assert read(write(session)) == session
    assert write(read(write(session))) == write(session)


def test_pieces_of_the_examples():
    groups = {group.entries[0].exercise: group for group in read(EXAMPLES).groups}
    squat = groups["Front squat"].entries[0]
    assert squat.setup == SetUp(items=("belt",))
    assert squat.sets[0].count == 5
    assert squat.sets[0].each.bouts[0].rest == 25
    cluster = groups["Trap-bar deadlift"].entries[0].sets[0].each
    assert len(cluster.bouts) == 3
    assert cluster.within == 10
    drops = groups["Leg extension"].entries[0].sets[0].each.bouts
    assert isinstance(drops[1].terms.load, OfPrevious)
    assert drops[1].terms.effort == ToFailure()
    split = groups["Split squat"].entries[0].sets[0].each.bouts[0].terms
    assert split.side is Side.EACH
    assert split.tempo == Tempo(lowering=3, bottom=1, lifting=1, top=0)
    pair: Group = groups["Ring dip"]
    assert (pair.rounds, pair.rest) == (3, 90)


@given(sessions)
@settings(max_examples=100, deadline=None)
def test_reading_what_was_written_gives_the_same_session(session):
    written = write(session)
    again = read(written)
    assert again == session
    assert write(again) == written


MARKS = st.text(alphabet="0123456789 x×:;,()[]#%-+.\n\tabdefghiklmnoprstuwRM🏋é\x00", max_size=80)


@given(MARKS, st.integers(0, len(EXAMPLES)), st.integers(0, 40))
@settings(max_examples=400, deadline=None)
def test_no_text_breaks_the_reader_and_every_problem_has_a_place(marks, at, cut):
    text = EXAMPLES[:at] + marks + EXAMPLES[at + cut :]
    reading = examine(text)
    lines = text.expandtabs(4).splitlines() or [""]
    for problem in reading.problems:
        assert 1 <= problem.line <= len(lines)
        assert 1 <= problem.column <= max(len(lines[problem.line - 1]), 1) + 1
        assert problem.message
    if not reading.problems:
        assert read(write(reading.session)) == reading.session


@pytest.mark.parametrize(
    ("text", "column", "says", "nearest"),
    [
        ("Squat: 3 x 5 at 60 stone", 20, "not a unit Fortis knows. Write kg, lb or %", None),
        ("Squat: 3 x 5 at -20 kg", 17, "A load has no sign", "bw-20 kg"),
        ("Squat: 3 x 0 at 20", 12, "Reps must be 1 to 500, not 0", None),
        ("Squat: 0 x 5", 8, "Sets must be 1 to 50, not 0", None),
        ("Squat: 3 x 5 leave 11", 20, "Reps to leave must be 0 to 10, not 11", None),
        ("Squat: 3 x 5 rpe 11", 18, "RPE goes from 1 to 10", None),
        ("Squat: 5 tempo 3-1-1", 16, "A tempo has four parts", "3-1-1-0"),
        ("Squat: 5 tempo 3-1", 16, "A tempo has four parts", "3-1-1-0"),
        ("Squat:", 7, "The sets are missing", None),
        ("Squat", 5, "A lift needs a colon", None),
        ("Squat 3 x 5 at 60 rest 3:00", 1, "A colon goes between the lift and its sets", None),
        ("Squat: 3 x 5 levae 2", 14, "does not fit here", "leave"),
        ("Squat: 3 x 5 at 60 resst 2:00", 20, "does not fit here", "rest"),
        ("Squat: 3 x 5 at 0 kg", 17, "above 0 and at most 2,000 kg", None),
        ("Squat: 3 x 5 at 250%", 17, "above 0 and at most 200", None),
        ("Squat: 3 x 5 rest 3:99", 19, "from 00 to 59", None),
        ("Squat: 10-8 leave 2", 8, "from fewer to more", "8-10"),
        ("Squat: (5, 10s, 10s, 3)", 17, "goes between two bouts", None),
        ("Squat: 5 at 60 at 70", 8, "two of the same kind (load)", None),
        ("pair, 3 rounds:\n  Dip: 5", 1, "needs two or more lifts", None),
        ("", 1, "Nothing is planned yet", None),
        ("[belt]: 5", 1, "Expected a lift", None),
    ],
)
def test_a_slip_is_told_with_its_place_and_a_mend(text, column, says, nearest):
    problem = only_problem(text)
    assert says in problem.message
    assert (problem.column, problem.nearest) == (column, nearest)


def test_a_line_of_ten_thousand_characters_is_refused_and_the_rest_is_read():
    reading = examine("Squat: 3 x 5\n" + "x" * 10_000 + "\nBench press: 3 x 5")
    assert [entry.entries[0].exercise for entry in reading.session.groups] == ["Squat", "Bench press"]
    assert reading.problems[0].line == 2
    assert "10,000 characters" in reading.problems[0].message


def test_a_text_beyond_all_measure_is_refused_at_once():
    assert "at most" in only_problem("Squat: 5\n" * 20_000).message
    circuit = "circuit, 50 rounds:\n" + "  Squat: 50 sets of (" + ", ".join(["1"] * 40) + ")\n" * 2
    assert examine(circuit).problems


def test_each_faulty_line_is_told():
    reading = examine("A: 5 leave 11\nB: 3 x 5\nC: 5 at 60 stone")
    assert [problem.line for problem in reading.problems] == [1, 3]
    assert reading.lines == ((2,),)
    with pytest.raises(NotationError, match="line 1, column 12"):
        read("A: 5 leave 11")


def test_what_a_lifter_means_is_taken():
    assert read("🏋️ lift: 3 x 5 at 82,5 kg") == read("🏋️ lift: 3 X 5 at 82.5kg")
    assert read("Squat: 3 × 5 at 60, leave 2, rest 2 min") == read(
        "squat: 3 x 5 at 60 kg leave 2 rest 120s"
    ).model_copy(update={"groups": read("Squat: 3 x 5 at 60 leave 2 rest 2:00").groups})
    assert read("Squat: (3,4,5) at 82,5") == read("Squat: 1 set of (3, 4, 5) at 82.5 kg")


def test_a_load_without_a_unit_is_in_the_lifters():
    load = read("Squat: 5 at 225", Unit.LB).groups[0].entries[0].sets[0].each.bouts[0].terms.load
    assert load == Weight(amount=225, unit=Unit.LB)


REMARKED = """# Thursday
# shoulder first

Overhead press: 3 x 5 at 60 kg  # elbows in

# the fast part
pair, 3 rounds, rest 1:30:  # no talking
  # feet up
  Ring dip: 6-8
  Ring row: 8-10

# then home
"""


def test_remarks_and_blank_lines_survive():
    session = read(REMARKED)
    assert write(session) == REMARKED
    assert session.groups[0].entries[0].remark == "elbows in"
    assert session.groups[1].entries[0].before == ("# feet up",)


def test_starts_against_the_clock_and_blocks_of_minutes():
    text = "Clean: 10 x 1 at 80% of 150 kg every 1:00\npair, for 8:00, every 2:00:\n  A: 5\n  B: 5\n"
    session = read(text)
    assert write(session) == text
    assert (session.groups[0].entries[0].sets[0].every, session.groups[1].span) == (60, 480)
    assert "not both" in only_problem("Clean: 10 x 1 every 60s rest 30s").message
    assert "not both" in only_problem("pair, every 60s, rest 30s:\n  A: 5\n  B: 5").message
    assert "leave the rounds out" in only_problem("pair, 3 rounds, for 8 min:\n  A: 5\n  B: 5").message


def test_broken_texts_by_the_thousand_are_told_what_is_wrong():
    texts = mutations(Random(7))
    read_well = [check(next(texts)) for _ in range(1_500)]
    assert 0 < sum(read_well) < len(read_well)
