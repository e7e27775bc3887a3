"""What is done before the first lift: written, counted, ticked."""

import pytest

from fortis.core.adjustments import Adjustments
from fortis.core.played import prepared
from fortis.core.season.light import lightened
from fortis.core.season.model import LightSchool
from fortis.core.season.reading import read_season
from fortis.core.season.weeks import weeks
from fortis.core.structure.model import Preparation
from fortis.core.structure.notation import examine, read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write

TEXT = """# Legs
prep: hip drills 5 min, heat on the left elbow 90s; ankle rocks  # the right one first
Prep: 20 squats: the bar alone
Back squat: 3 x 5 at 60 kg rest 3:00
"""


def test_lines_of_preparation_print_back_in_one_form():
    assert write(read(TEXT)) == TEXT.replace("5 min", "5:00").replace("90s;", "1:30,").replace("Prep:", "prep:")


def test_it_is_part_of_the_time_a_minute_where_none_is_written():
    with_it, without = lay_out(read(TEXT)), lay_out(read(TEXT.split("\n", 3)[3]))
    assert with_it.prep == (
        Preparation(what="hip drills", seconds=300),
        Preparation(what="heat on the left elbow", seconds=90),
        Preparation(what="ankle rocks"),
        Preparation(what="20 squats: the bar alone"),
    )
    assert timeline(with_it).total_seconds == timeline(without).total_seconds + 300 + 90 + 60 + 60
    assert timeline(with_it).steps == timeline(without).steps


def test_what_was_ticked_was_done():
    went = prepared(lay_out(read(TEXT)), Adjustments(prepared=(1, 4)))
    assert [each.done for each in went] == [True, False, False, True]


@pytest.mark.parametrize(
    ("text", "line", "column", "message"),
    [
        ("Squat: 3 x 5\nprep: hips", 2, 1, "Preparation comes first: move this line above the lifts."),
        ("pair:\n  prep: hips\n  Dip: 5\n  Row: 5", 2, 1, "Preparation comes first"),
        ("prep:\nSquat: 5", 1, 6, "Say what is done before the first lift"),
        ("prep: hips,, heat\nSquat: 5", 1, 12, "Say what is done before the first lift"),
        ("prep: hips, 5 min\nSquat: 5", 1, 13, "Say what is done before the first lift"),
        ("prep: heat 90 min\nSquat: 5", 1, 7, "A time must be 1 second to 1 hour."),
        ("prep: hips, " + "x" * 81 + "\nSquat: 5", 1, 13, "80 letters at most"),
        ("prep: " + ", ".join(["a"] * 21) + "\nSquat: 5", 1, 1, "20 things to prepare with at most"),
        ("prep: hips", 1, 1, "Nothing is planned yet."),
    ],
)
def test_a_slip_is_told_with_its_place(text, line, column, message):
    (problem,) = examine(text).problems
    assert (problem.line, problem.column) == (line, column)
    assert message in problem.message


def test_a_light_week_is_prepared_for_as_well():
    for school in LightSchool:
        assert lightened(read(TEXT), school).prep == read(TEXT).prep


def test_it_changes_from_week_to_week_and_alone_makes_no_session():
    season = read_season("""from 2026-10-12
building, 3 weeks:
  Tuesday, Legs:
    prep: hips 5|8 min
    weeks 1-2: Back squat: 3 x 5 at 60 kg
""")
    texts = [session.written for week in weeks(season) for session in week.sessions]
    assert texts == [f"# Legs\nprep: hips {minutes} min\nBack squat: 3 x 5 at 60 kg\n" for minutes in (5, 8)]
