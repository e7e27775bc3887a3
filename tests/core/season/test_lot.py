"""Light weeks by lot: one of each school of every two, written into the season, and what came of them."""

from datetime import date, timedelta
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.season.easy import EasyWeek, Return
from fortis.core.season.lot import beside, draw_schools, light_weeks
from fortis.core.season.model import LightSchool
from fortis.core.season.reading import read_season, with_schools
from fortis.core.season.trial import Verdict
from fortis.core.season.writing import write_season
from tests.core.season.seasons import seasons

SHORT, HALF = LightSchool.SHORT, LightSchool.HALF
MONDAY = date(2026, 10, 12)
TEXT = """# River meet
from 2026-10-12
light 2026-10-19: half the  load
building, 3 weeks:
  Tuesday, Legs:
    Squat: 3 x 5 at 60 kg  # as half the load was
light (half the load), 1 week, heavy and short
building, 2 weeks:
  Tuesday, Legs:
    Squat: 3 x 5 at 60 kg
light, 2 weeks, half the load
"""


@given(st.lists(st.sampled_from(LightSchool), max_size=6), st.integers(0, 12), st.integers())
def test_of_every_two_one_is_of_each_school_counted_on_from_those_before(before, many, seed):
    found = draw_schools(many, before, Random(seed))
    assert len(found) == many
    odd = before.count(SHORT) != before.count(HALF)
    for first in range(int(odd), many - 1, 2):
        assert {*found[first : first + 2]} == {SHORT, HALF}
    if odd and many:
        assert before.count(found[0]) < len(before) / 2


def test_the_lot_is_even():
    assert 150 < [draw_schools(1, [], Random(seed)) for seed in range(400)].count([SHORT]) < 250


def test_what_was_drawn_is_written_where_the_week_is_and_nothing_else_changes():
    season = read_season(TEXT)
    days = list(light_weeks(season))
    assert days == [date(2026, 10, 19), date(2026, 11, 9)]  # a light block of two weeks is none of them
    written = with_schools(TEXT, season, dict(zip(days, (SHORT, HALF), strict=True)))
    changed = [now for was, now in zip(TEXT.splitlines(), written.splitlines(), strict=True) if was != now]
    assert changed == [
        "light 2026-10-19: heavy and short by lot", "light (half the load), 1 week, half the load by lot"
    ]  # fmt: skip
    drawn = light_weeks(read_season(written))
    assert [(day, week.school, week.by_lot) for day, week in drawn.items()] == [
        (days[0], SHORT, True), (days[1], HALF, True)
    ]  # fmt: skip


@given(seasons, st.integers())
def test_every_season_has_what_was_drawn(season, seed):
    text = write_season(season)
    days = list(light_weeks(season))
    schools = dict(zip(days, draw_schools(len(days), [], Random(seed)), strict=True))
    drawn = light_weeks(read_season(with_schools(text, season, schools)))
    assert {day: week.school for day, week in drawn.items()} == schools
    assert all(week.by_lot for week in drawn.values())


def returned(*changes):
    """Light weeks, one after the other of each school, and the change that the lifter came back with."""
    by_lot = {MONDAY + timedelta(weeks=6 * at): (SHORT, HALF)[at % 2] for at in range(len(changes))}
    found = [
        Return(week=EasyWeek(monday=day, school=school, weeks=5), lifts=(), change=change, low=0.0, high=0.0)
        for (day, school), change in zip(by_lot.items(), changes, strict=True)
    ]
    return found, by_lot


def test_how_the_lifter_came_back_is_told_when_the_last_week_is_over():
    found, by_lot = returned(0.02, -0.02, 0.022, -0.018, 0.018, -0.022)
    running = beside(found, by_lot, is_over=False)
    assert (running.verdict, running.tried, running.usual) == (Verdict.RUNNING, 3, 3)
    over = beside(found, by_lot, is_over=True)
    assert over.verdict is Verdict.HELPS
    assert over.change == running.change == pytest.approx(0.04)
    assert beside(*returned(-0.02, 0.02, -0.022, 0.018, -0.018, 0.022), is_over=True).verdict is Verdict.COSTS
    alike = beside(*returned(0.0, 0.0, 0.001, 0.001, 0.0, 0.0), is_over=True)
    assert (alike.verdict, alike.more_weeks) == (Verdict.ALIKE, None)
    unclear = beside(*returned(0.02, 0.0, 0.0, 0.004, 0.0, -0.004), is_over=True)
    assert (unclear.verdict, unclear.more_weeks) == (Verdict.OPEN, 14)
    few = beside(*returned(0.02, 0.0, 0.0, 0.01), is_over=True)
    assert (few.verdict, few.change) == (Verdict.OPEN, None)


def test_other_weeks_than_those_drawn_are_not_counted():
    found, by_lot = returned(0.02, -0.02, 0.022, -0.018, 0.018, -0.022)
    chosen = {day: school for day, school in by_lot.items() if day != MONDAY}
    assert beside(found, chosen, is_over=True).tried == 2
