"""A season week by week: the text of every session, and the day it is on."""

from collections.abc import Iterator, Sequence
from datetime import date, timedelta

from fortis.core.cache import cached
from fortis.core.season.changing import ChangeError, Week, has_lift, lines_in
from fortis.core.season.light import lightened
from fortis.core.season.model import Day, Kind, LightSchool, Season, Trial
from fortis.core.season.reading import SEASONS_KEPT, weeks_of
from fortis.core.season.trial import as_tried
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
    """A week: its `number` in the season, that of its `block` (both from 1), and its place in the block.

    A light week that stands between the weeks of the blocks has no number and no place: `round` and `week` are 0.
    """

    number: int | None
    monday: date
    block: int
    round: int
    week: int
    sessions: tuple[SeasonSession, ...]


@cached(SEASONS_KEPT)
def weeks(season: Season, unit: Unit = Unit.KG) -> tuple[SeasonWeek, ...]:
    """Every week of a season that was read, kept for when it is asked for again."""
    return tuple(week_by_week(season, unit))


def week_by_week(season: Season, unit: Unit = Unit.KG) -> Iterator[SeasonWeek]:
    """Every week of a season that was read."""
    before: tuple[SeasonSession, ...] = ()
    last, last_block = season.starts, 1
    missed = {each.monday for each in season.away if each.missed}
    instead = {each.monday: each.school for each in season.light if each.instead}
    between = [each for each in season.light if not each.instead]
    of_blocks = ((at, block, week) for at, block in enumerate(season.blocks, start=1) for week in weeks_of(block))
    for number, (monday, (at, block, week)) in enumerate(zip(season.mondays, of_blocks, strict=True), start=1):
        for off in between:
            if last < off.monday < monday:
                light = _lightened(before, off.school, off.monday, unit)
                yield SeasonWeek(number=None, monday=off.monday, block=last_block, round=0, week=0, sessions=light)
        if block.school:
            found = _lightened(before, block.school, monday, unit)
        else:
            found = tuple(each for day in block.days if (each := _session(day, week, monday)))
        school = instead.get(monday)
        sessions = _lightened(found, school, monday, unit) if school else found
        if not school and block.kind is not Kind.LIGHT:
            sessions = _tried(found, season.trials, unit)
        yield SeasonWeek(
            number=number,
            monday=monday,
            block=at,
            round=week.round,
            week=week.week,
            sessions=() if monday in missed else sessions,
        )
        before = before if block.school else found
        last, last_block = monday, at


def _session(day: Day, week: Week, monday: date) -> SeasonSession | None:
    """A session as it is in a week; None where all of it is for other weeks."""
    lines = [text for _, text in lines_in(day.lines, week) if not isinstance(text, ChangeError)]
    if not any(map(has_lift, lines)):
        return None
    on = monday + timedelta(days=day.weekday.number)
    return SeasonSession(title=day.title, on=on, written="\n".join([f"# {day.title}", *lines, ""]))


def _tried(week: tuple[SeasonSession, ...], trials: Sequence[Trial], unit: Unit) -> tuple[SeasonSession, ...]:
    """The sessions of a week with what is tried in it."""
    for trial in trials:
        week = tuple(_with(each, trial, unit) if trial.is_tried(each.on) else each for each in week)
    return week


def _with(each: SeasonSession, trial: Trial, unit: Unit) -> SeasonSession:
    session = read(each.written, unit)
    changed = as_tried(session, trial, each.on, unit)
    return each if changed is session else each.model_copy(update={"written": write(changed)})


def _lightened(
    week: tuple[SeasonSession, ...], school: LightSchool, monday: date, unit: Unit
) -> tuple[SeasonSession, ...]:
    """The sessions of a week made light, on the same days of the week of a Monday."""
    return tuple(
        each.model_copy(
            update={
                "on": monday + timedelta(days=each.on.weekday()),
                "written": write(lightened(read(each.written, unit), school)),
            }
        )
        for each in week
    )
