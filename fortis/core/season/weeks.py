"""A season week by week: the text of every session, and the day it is on."""

from collections.abc import Iterator
from datetime import date, timedelta

from fortis.core.cache import cached
from fortis.core.season.changing import ChangeError, Week, has_lift, lines_in
from fortis.core.season.light import lightened
from fortis.core.season.model import Block, Day, Season
from fortis.core.season.reading import SEASONS_KEPT, weeks_of
from fortis.core.structure.notation import read
from fortis.core.structure.writing import write
from fortis.core.units import Unit
from fortis.core.value import Value


class SeasonSession(Value):
    """A session of a week: its slot, known by its `title` from week to week, its day, its text."""

    title: str
    on: date
    written: str


class SeasonWeek(Value):
    """A week: its `number` in the season, that of its `block` (both from 1), and its place in the block."""

    number: int
    monday: date
    block: int
    round: int
    week: int
    sessions: tuple[SeasonSession, ...]


@cached(SEASONS_KEPT)
def weeks(season: Season, unit: Unit = Unit.KG) -> tuple[SeasonWeek, ...]:
    """Every week of a season that was read."""
    return tuple(_weeks(season, unit))


def _weeks(season: Season, unit: Unit) -> Iterator[SeasonWeek]:
    before: tuple[SeasonSession, ...] = ()
    missed = {each.monday for each in season.away if each.missed}
    mondays = enumerate(season.mondays, start=1)
    for at, block in enumerate(season.blocks, start=1):
        for week in weeks_of(block):
            number, monday = next(mondays)
            if block.school:
                found = tuple(_lightened(each, block, monday, unit) for each in before)
            else:
                found = tuple(each for day in block.days if (each := _session(day, week, monday)))
            yield SeasonWeek(
                number=number,
                monday=monday,
                block=at,
                round=week.round,
                week=week.week,
                sessions=() if monday in missed else found,
            )
            before = before if block.school else found


def _session(day: Day, week: Week, monday: date) -> SeasonSession | None:
    """A session as it is in a week; None where all of it is for other weeks."""
    lines = [text for _, text in lines_in(day.lines, week) if not isinstance(text, ChangeError)]
    if not any(map(has_lift, lines)):
        return None
    on = monday + timedelta(days=day.weekday.number)
    return SeasonSession(title=day.title, on=on, written="\n".join([f"# {day.title}", *lines, ""]))


def _lightened(each: SeasonSession, block: Block, monday: date, unit: Unit) -> SeasonSession:
    assert block.school
    light = lightened(read(each.written, unit), block.school)
    return each.model_copy(update={"on": monday + timedelta(days=each.on.weekday()), "written": write(light)})
