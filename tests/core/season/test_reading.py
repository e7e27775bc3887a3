"""The season file: read, written, and what is wrong with it told."""

from datetime import date

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.season.model import Away, LightSchool, LightWeek
from fortis.core.season.reading import SeasonError, examine_season, past_its_day, read_season, with_away
from fortis.core.season.weeks import weeks
from fortis.core.season.writing import write_season
from tests.core.season.seasons import MEET, seasons

DAY = "from 2026-10-12\nbuilding, 3 weeks:\n  Tuesday, Legs:\n"


def test_a_season_prints_back_as_it_was_written():
    assert write_season(read_season(MEET)) == MEET
    untidy = MEET.replace("Saturday", "sat").replace("\n  T", "\n T").replace("\n  sat", "\n sat")
    assert write_season(read_season(untidy.replace("\n\n", "\n"))) == MEET


@settings(max_examples=60)
@given(seasons)
def test_what_was_written_is_read_back_the_same(season):
    assert read_season(write_season(season)) == season


def test_it_begins_on_a_monday():
    assert read_season(MEET.replace("2026-10-12", "2026-10-15")).starts.isoformat() == "2026-10-12"


@pytest.mark.parametrize(
    ("text", "line", "column", "message", "nearest"),
    [
        ("", 1, 1, "Nothing is planned yet.", None),
        ("from 2026-10-12\nbulding, 3 weeks:", 2, 1, "A season has a line 'from'", "building"),
        ("from 12.10.2026", 1, 6, "A date is written as year, month and day", None),
        ("from 0001-01-01", 1, 6, "in the years 1900 to 2200", None),
        ("building, 1 week:\n  Tuesday, Legs:\n    Squat: 5", 1, 1, "Say when the season begins", None),
        ("from 2026-10-12\n  Tuesday, Legs:", 2, 3, "A day belongs to a block", None),
        ("from 2026-10-12\nheavy, 2 wks:", 2, 8, "A block says how many weeks it has", "3 weeks"),
        ("from 2026-10-12\nheavy, 999 weeks:", 2, 8, "1 to 104 rounds and weeks", None),
        ("from 2026-10-12\nheavy, 3 weeks:", 2, 1, "Write the days of this block", None),
        ("from 2026-10-12\nheavy, 3 weeks:\n  Teusday, Legs:", 3, 3, "In a block stand its days", "Tuesday"),
        ("from 2026-10-12\nheavy, 3 weeks, half the load:", 2, 1, "Only a light week is 'half the load'.", None),
        (f"{DAY}    Squat 3x5", 4, 5, "A colon goes between the lift and its sets", None),
        (f"{DAY}    Squat: 3 x 5 at 60 kg lave 2", 4, 27, "", "leave"),
        (f"{DAY}    Squat: 3|4|5|6 x 5", 4, 12, "3|4|5|6 is for 4 weeks, and a round of this block has 3.", None),
        (f"{DAY}    Squat: 5 at 60% +2 kg a week", 4, 22, "write 2% a week", None),
        (f"{DAY}    Squat: 5 at 60 kg -30 kg a week", 4, 24, "nothing is left of the load", None),
        (f"{DAY}    week 4: Squat: 5", 4, 10, "A round of this block has the weeks 1 to 3.", None),
        (f"{DAY}    Squat: 5|600 x 5", 4, 12, "Sets must be 1 to 50", None),
        (f"{DAY}    Squat: 5\n  Friday, legs:", 5, 1, "There is a session legs in this week already", None),
        ("from 2026-10-12\nlight, 1 week\n", 2, 1, "Say how the week is light", None),
        ("from 2026-10-12\nlight, 1 week, half the load\n", 2, 1, "needs such a week", None),
        (
            "from 2026-10-12\nfree, 1 week:\n  Tuesday, Legs:\n    Squat: 5",
            2,
            1,
            "A free week has no sessions.",
            None,
        ),
        (f"meet 2027-10-12\n{DAY}    Squat: 5", 1, 1, "is not within the season, 2026-10-12 to 2026-11-01", None),
        ("from 2026-10-12\nheavy, 50 rounds of 3 weeks:\n Mon, A:\n  Dip: 5", 1, 1, "These are 150 weeks", None),
        (f"{DAY}    Dip: 5\nfrom 2026-10-12", 5, 1, "has a first day already", None),
        ("meet 2026-10-12\ntest 2026-10-12", 2, 1, "leads to a meet already", None),
        (
            f"away 2026-10-12\nlight 2026-10-19: half the load\n{DAY}    Dip: 5",
            2,
            1,
            "after a week with sessions; 2026-10-19",
            None,
        ),
        ("from 2026W421", 1, 6, "A date is written as", None),
        (
            f"light 2026-10-19: half the lode\n{DAY}    Dip: 5",
            1,
            19,
            "A light week is 'heavy and short'",
            "half the load",
        ),
        (f"light 2026-10-12: half the load\n{DAY}    Dip: 5", 1, 1, "after a week with sessions; 2026-10-12", None),
        (
            f"lightened 2027-10-11: half the load\n{DAY}    Dip: 5",
            1,
            1,
            "with sessions of its own; 2027-10-11",
            None,
        ),
        (
            f"away 2026-10-19\nlight 2026-10-20: half the load\n{DAY}    Dip: 5",
            2,
            7,
            "is away or light already",
            None,
        ),
        *(
            (f"{told}\n{DAY}    Dip: 5", 1, column, message, nearest)
            for told, column, message, nearest in (
                ("trial 2026-10-12: Dip: longer rests", 1, "A trial has a Monday, its weeks", None),
                ("trial 2026-10-12, 1 weeks, in 1: Dip: longer rests", 19, "2 to 104 weeks", None),
                ("trial 2026-10-12, 2 weeks, in 1 2: Dip: longer rests", 31, "in some it is not", None),
                ("trial 2026-10-12, 2 weeks, in 3: Dip: longer rests", 31, "weeks 1 to 2", None),
                ("trial 2026-10-12, 2 weeks, in 1: Dip: longer rest", 39, "does not fit here", "longer rests"),
                ("trial 2026-10-12, 2 weeks, in 1: Dip: 3 x 5 at 80 lg", 51, "not a unit", None),
                ("trial 2026-10-12, 2 weeks, in 1: Dip, Row: 3 x 5", 1, "one lift", None),
                ("trial 2026-13-12, 2 weeks, in 1: Dip: 3 x 5", 7, "year, month and day", None),
            )
        ),
        (f"{DAY}    Dip: {'5' * 2_000}", 4, 2_000, "This line has 2,009 characters", None),
        ("from 2026-10-12\nheavy, 90 weeks:\n Mon, A:\n" + "  Dip: 5\n" * 200, 1, 1, "18,000 lines", None),
    ],
)
def test_a_slip_is_told_with_its_place_and_the_likely_mend(text, line, column, message, nearest):
    with pytest.raises(SeasonError) as told:
        read_season(text)
    (first, *_) = told.value.problems
    assert (first.line, first.nearest) == (line, nearest)
    assert first.column == column
    assert message in first.message


def test_a_fault_of_several_weeks_is_told_once():
    problems = examine_season(f"{DAY}    Squat: 3|4 x 5 at 60 kg lave 2\n    Curl: 3 x\n")[1]
    assert [each.line for each in problems] == [4, 5]


def test_a_week_away_is_written_into_the_text_and_out_again_and_nothing_else_of_it_changes():
    text = "# River meet\nfrom 2026-10-12\n# why: the river\n" + DAY.split("\n", 1)[1] + "    Dip: 5  # slowly\n"
    monday = date(2026, 10, 19)
    away = with_away(text, monday, Away(monday=monday, why="ill"))
    assert away == text.replace("from 2026-10-12\n", "from 2026-10-12\naway 2026-10-19: ill\n")
    missed = with_away(away.replace("10-19", "10-21"), monday, Away(monday=monday, missed=True))
    assert missed == text.replace("from 2026-10-12\n", "from 2026-10-12\nmissed 2026-10-19\n")
    assert with_away(missed, monday, None) == text
    light = with_away(missed, monday, LightWeek(monday=monday, school=LightSchool.HALF))
    assert light == text.replace("from 2026-10-12\n", "from 2026-10-12\nlight 2026-10-19: half the load\n")
    instead = with_away(light, monday, LightWeek(monday=monday, school=LightSchool.SHORT, instead=True))
    assert "\nlightened 2026-10-19: heavy and short\n" in instead
    assert with_away(instead, monday, None) == text


def test_a_light_week_goes_with_the_plan_where_an_earlier_week_puts_it_off():
    text = f"from 2026-10-12\nlight 2026-11-09: half the load  \n{DAY.split(chr(10), 1)[1]}    Dip: 5\n"
    text = text.replace("3 weeks", "9 weeks")
    first, second = date(2026, 10, 19), date(2026, 11, 16)
    off = with_away(text, first, Away(monday=first))
    assert "\nlight 2026-11-16: half the load  \naway 2026-10-19\n" in off
    assert with_away(off, first, None) == text
    assert "light 2026-11-09" in with_away(text, first, Away(monday=first, missed=True))
    assert "light 2026-11-09" in with_away(text, second, Away(monday=second))
    taken = with_away(with_away(text, second, Away(monday=second)), first, Away(monday=first))
    assert "light 2026-11-23" in taken
    between = with_away(text, first, LightWeek(monday=first, school=LightSchool.SHORT))
    assert [each.monday for each in read_season(between).light] == [first, second]
    instead = with_away(between, first, LightWeek(monday=first, school=LightSchool.SHORT, instead=True))
    assert [each.monday for each in read_season(instead).light] == [first, date(2026, 11, 9)]


@settings(max_examples=150)
@given(st.integers(0, len(MEET)), st.integers(0, 30), st.text(max_size=12))
def test_no_text_breaks_the_reader_and_every_problem_has_a_place(at, gone, put):
    text = MEET[:at] + put + MEET[at + gone :]
    season, problems = examine_season(text)
    assert season or problems
    assert all(1 <= each.line <= len(text.splitlines()) + 1 and each.column >= 1 for each in problems)
    if season and not problems:
        assert weeks(season)


def test_weeks_that_build_up_to_a_day_and_begin_after_it_are_told():
    """Six weeks, a light one and six heavy ones from 12 October: the last begins two days after 2 January."""
    assert past_its_day(read_season(MEET)) == (date(2027, 1, 4),)
    later = with_away(MEET, date(2026, 11, 9), Away(monday=date(2026, 11, 9)))
    assert past_its_day(read_season(later)) == (date(2027, 1, 4), date(2027, 1, 11))
    missed = with_away(MEET, date(2026, 11, 9), Away(monday=date(2026, 11, 9), missed=True))
    assert past_its_day(read_season(missed)) == (date(2027, 1, 4),)
    assert past_its_day(read_season(MEET.replace("heavy, 2 rounds of 3 weeks", "heavy, 5 weeks"))) == ()
    assert past_its_day(read_season(MEET.replace("meet 2027-01-02: Front squat [belt], Bench press\n", ""))) == ()
