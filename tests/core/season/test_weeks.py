"""Seasons week by week, worked out by hand: step loading, waves, light weeks, accessories that reset."""

from datetime import date

import pytest
from hypothesis import given, settings

from fortis.core.season.changing import Week, in_week
from fortis.core.season.model import Kind, LightSchool
from fortis.core.season.reading import read_season
from fortis.core.season.weeks import weeks
from fortis.core.structure.notation import read
from tests.core.season.seasons import MEET, seasons

ALL = weeks(read_season(MEET))


def lines(title, lift, of=ALL):
    """The line of a lift in each week that has the session."""
    return [
        line.split(": ", 1)[1]
        for week in of
        for each in week.sessions
        if each.title == title
        for line in each.written.splitlines()
        if line.strip().startswith(lift)
    ]


def test_step_loading_over_two_rounds():
    """Three, four, five sets at 75 %; then back to three, 3 % heavier. The light week is two doubles at 85 %."""
    assert lines("Legs", "Front squat")[:7] == [
        "3 x 5 at 75% leave 2 rest 3:00",
        "4 x 5 at 75% leave 2 rest 3:00",
        "5 x 5 at 75% leave 2 rest 3:00",
        "3 x 5 at 78% leave 2 rest 3:00",
        "4 x 5 at 78% leave 2 rest 3:00",
        "5 x 5 at 78% leave 2 rest 3:00",
        "2 x 2 at 85% rest 3:00",
    ]


def test_a_wave_of_triples_doubles_singles_twice_each_round_beating_the_last():
    assert lines("Legs", "Front squat")[7:] == [
        f"{reps} at {percent}% rest 4:00; 2 x 3 at top -10%"
        for reps, percent in ((3, 87), (2, 91), (1, 95), (3, 89), (2, 93), (1, 97))
    ]


def test_a_linear_rise_goes_on_through_the_rounds():
    assert [line.split(" leave")[0] for line in lines("Press and row", "Bench press")[:6]] == [
        f"4 x 5 at {kg} kg" for kg in ("75", "77.5", "80", "82.5", "85", "87.5")
    ]


def test_accessories_climb_with_the_round_and_reset_with_it():
    assert [line.split(" x")[0] for line in lines("Legs", "Leg extension")[:6]] == ["2", "3", "3", "2", "3", "3"]
    assert lines("Press and row", "Ring dip")[:6] == [*["6-8 at bw leave 2"] * 3, *["6-8 at bw+2.5 kg leave 2"] * 3]
    heads = [each.written.splitlines()[2] for week in ALL[:7] for each in week.sessions if each.title != "Legs"]
    rounds = ["2 rounds", "3 rounds", "3 rounds", "2 rounds", "3 rounds", "3 rounds", "1 round"]
    assert heads == [f"pair, {many}, rest 1:30:" for many in rounds]


def test_a_line_keeps_to_its_weeks_and_a_session_without_lines_is_none():
    assert lines("Press", "Bench press") == ["3 x 2 at 90%", "2 x 2 at 90%"] * 2
    assert [len(week.sessions) for week in ALL] == [*[2] * 9, 1, 2, 2, 1, 0]


def test_days_follow_from_the_first_monday():
    assert [week.monday for week in ALL[:2]] == [date(2026, 10, 12), date(2026, 10, 19)]
    assert [each.on for each in ALL[6].sessions] == [date(2026, 11, 24), date(2026, 11, 26)]
    assert [(week.number, week.block, week.round, week.week) for week in ALL[2:8]] == [
        (3, 1, 1, 3), (4, 1, 2, 1), (5, 1, 2, 2), (6, 1, 2, 3), (7, 2, 1, 1), (8, 3, 1, 1)
    ]  # fmt: skip


def test_a_week_away_puts_all_that_follows_off_and_a_missed_one_nothing():
    away = weeks(read_season(MEET.replace("\n\nbuilding", "\naway 2026-10-22: ill\n\nbuilding")))
    assert [week.monday for week in away[:3]] == [date(2026, 10, 12), date(2026, 10, 26), date(2026, 11, 2)]
    assert [week.sessions[0].written for week in away[:2]] == [week.sessions[0].written for week in ALL[:2]]
    missed = weeks(read_season(MEET.replace("\n\nbuilding", "\nmissed 2026-10-22: ill\n\nbuilding")))
    assert [week.monday for week in missed] == [week.monday for week in ALL]
    assert missed[1].sessions == ()
    assert missed[2:] == ALL[2:]


def test_a_light_week_stands_between_its_neighbours_or_in_place_of_its_own():
    """Of week two, four sets at 75 %: half of it after it, and in its place."""
    text = MEET.replace("meet 2027", "light 2026-10-26: half the load\nmeet 2027", 1)
    between = weeks(read_season(text))
    assert [week.number for week in between[:4]] == [1, 2, None, 3]
    assert lines("Legs", "Front squat", between)[1:4] == [
        "4 x 5 at 75% leave 2 rest 3:00",
        "4 x 5 at 37.5% rest 3:00",
        "5 x 5 at 75% leave 2 rest 3:00",
    ]
    assert [week.monday for week in between[2:]] == [week.monday for week in ALL[2:]] + [date(2027, 1, 18)]
    instead = weeks(read_season(text.replace("light 2026-10-26", "lightened 2026-10-19", 1)))
    assert [week.number for week in instead] == [week.number for week in ALL]
    assert lines("Legs", "Front squat", instead)[:3] == [
        "3 x 5 at 75% leave 2 rest 3:00",
        "4 x 5 at 37.5% rest 3:00",
        "5 x 5 at 75% leave 2 rest 3:00",
    ]


def test_half_the_load_keeps_the_pattern():
    half = weeks(read_season(MEET.replace("heavy and short", "half the load")))[6]
    assert [each.written.splitlines()[1:] for each in half.sessions] == [
        [
            "Front squat [belt]: 5 x 5 at 39% rest 3:00",
            "Leg extension: 3 x 10-12 at last -50%",
        ],
        [
            "Bench press: 4 x 5 at 43.75 kg rest 3:00",
            "pair, 3 rounds, rest 1:30:",
            "  Ring dip: 6-8 at bw+1.25 kg",
            "  Ring row: 8-10 at last -50%",
        ],
    ]


def test_heavy_and_short_leaves_reps_and_most_of_the_rest_out():
    text = MEET.replace("    Leg extension: 2|3|3 x 10-12 leave 1\n", "".join(
        f"    {lift}: 4 x 8 to failure\n" for lift in ("Leg curl", "Leg extension", "Calf raise", "Crunch")
    ))  # fmt: skip
    (legs, _) = weeks(read_season(text))[6].sessions
    assert legs.written.splitlines()[1:] == [
        "Front squat [belt]: 2 x 2 at 85% rest 3:00",
        "Leg curl: 2 x 8 leave 3",
        "Leg extension: 2 x 8 leave 3",
    ]


@pytest.mark.parametrize(
    ("line", "found"),
    [
        ("Squat: 82,5|85 kg", "Squat: 85 kg"),
        ("Curl: 8-10|6-8 at 12|10RM", "Curl: 6-8 at 10RM"),
        ("Dip: 5 at bw-10 kg +5 kg a week", "Dip: 5 at bw"),
        ("Dip: 5 at bw-5 kg +5 kg a week", "Dip: 5 at bw+5 kg"),
        ("Squat: 5 at 100 kg +2% a week", "Squat: 5 at 104 kg"),
        ("Squat: 5 at 100 -2,5 a week", "Squat: 5 at 95"),
        ("Squat: 5 at 225 lb +5 lb a week", "Squat: 5 at 235 lb"),
        ("Squat: 5 at 100 kg  # 1|2, +2 kg a week", "Squat: 5 at 100 kg  # 1|2, +2 kg a week"),
    ],
)
def test_what_changes_from_week_to_week(line, found):
    assert in_week(line, Week(round=1, week=3, length=3)) == found


@settings(max_examples=40)
@given(seasons)
def test_every_session_of_every_week_can_be_read(season):
    found = weeks(season)
    assert [week.number for week in found if week.number] == list(range(1, season.weeks + 1))
    for week in found:
        block = season.blocks[week.block - 1]
        missed = any(each.missed and each.monday == week.monday for each in season.away)
        assert bool(week.sessions) == (block.kind is not Kind.FREE and not missed)
        for each in week.sessions:
            plan = read(each.written)
            assert each.on.isocalendar()[:2] == week.monday.isocalendar()[:2]
            if block.school is LightSchool.SHORT:
                assert len(plan.groups) <= 3
