"""The season of a record: kept as text, its sessions planned week by week, and planned again when it changes.

What was begun stays as it was. What the lifter changed of a session by hand (its text, its day, or that it was put
aside) stays too: the season moves only what is as it left it. A day chosen by hand goes along where its week goes.
"""

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from typing import NamedTuple
from uuid import UUID, uuid5

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.season.model import Season
from fortis.core.season.reading import read_season
from fortis.core.season.weeks import SeasonSession, SeasonWeek, weeks
from fortis.core.tally.week import DAYS
from fortis.core.units import Unit
from fortis.store import sessions
from fortis.store.tables import SeasonRow, SessionRow


class SeasonEndedError(ValueError):
    """The season was ended, so it cannot be changed; another one may be begun."""


class ChangedMeanwhileError(ValueError):
    """The season is not as it was when its text was taken to be changed: another device was quicker."""


class UnderwayError(ValueError):
    """Another season is under way: it is ended first."""


class Planned(NamedTuple):
    """How many sessions of a season were planned, changed and taken out when it was saved."""

    new: int
    changed: int
    taken_out: int


def underway(work: UnitOfWork) -> SeasonRow | None:
    """The season that was not ended."""
    return work.scalars(select(SeasonRow).where(SeasonRow.ended_at.is_(None)).order_by(SeasonRow.at.desc())).first()


def latest(work: UnitOfWork, many: int) -> Sequence[SeasonRow]:
    """The seasons last changed, under way or ended, the latest first."""
    return work.scalars(select(SeasonRow).order_by(SeasonRow.at.desc()).limit(many)).all()


def season_of(row: SeasonRow) -> Season:
    """A season as it was read when it was saved."""
    return read_season(row.written, Unit(row.unit))


def session_id(season_id: str, week: SeasonWeek, title: str) -> str:
    """The id of the session of a slot in a week: the same whenever the season is planned again."""
    return str(uuid5(UUID(season_id), f"{week.number or week.monday}/{title.casefold()}"))


def save(
    work: UnitOfWork,
    season_id: str,
    written: str,
    unit: Unit,
    today: date,
    now: datetime,
    was: str | None = None,
) -> tuple[SeasonRow, Planned]:
    """Save a season, new or changed, and plan its sessions from today on. `was` is the text that was changed.

    Raises `SeasonError` for a text that is none, `SeasonEndedError`, `UnderwayError` beside another season, and
    `ChangedMeanwhileError` where it is another text by now.
    """
    season = read_season(written, unit)
    row, other = work.get(SeasonRow, season_id), underway(work)
    if row is not None and row.ended_at is not None:
        raise SeasonEndedError(season_id)
    if other is not None and other.id != season_id:
        raise UnderwayError(other.id)
    if row is not None and was is not None and row.written not in (was, written):
        raise ChangedMeanwhileError(season_id)
    before = _by_id(season_id, weeks(season_of(row), Unit(row.unit))) if row else {}
    if row is None:
        row = SeasonRow(id=season_id, written=written, unit=unit, at=now)
        work.add(row)
    row.written, row.unit, row.at = written, unit, now
    work.flush()
    return row, _plan(work, row, before, _by_id(season_id, weeks(season, unit)), today, now)


def end(work: UnitOfWork, row: SeasonRow, now: datetime) -> int:
    """End a season: its sessions that were not begun are put aside. Returns how many those are; twice is once."""
    if row.ended_at is not None:
        return 0
    row.ended_at = now
    left = [each for each in of_season(work, row.id).values() if each.started_at is None and not each.discarded_at]
    for each in left:
        each.discarded_at = now
    return len(left)


def of_season(work: UnitOfWork, season_id: str) -> Mapping[str, SessionRow]:
    """The sessions of a season that were ever planned, by id."""
    query = select(SessionRow).where(SessionRow.season_id == season_id)
    return {row.id: row for row in work.scalars(query)}


def _by_id(season_id: str, planned: tuple[SeasonWeek, ...]) -> dict[str, SeasonSession]:
    return {session_id(season_id, week, each.title): each for week in planned for each in week.sessions}


def _plan(
    work: UnitOfWork,
    season: SeasonRow,
    before: Mapping[str, SeasonSession],
    now_planned: Mapping[str, SeasonSession],
    today: date,
    now: datetime,
) -> Planned:
    rows = of_season(work, season.id)
    new = changed = taken_out = 0
    for id_, each in now_planned.items():
        row, was = rows.get(id_), before.get(id_)
        if row is None or (was is None and row.started_at is None):
            if each.on >= today:
                row = sessions.save_plan(work, id_, each.written, Unit(season.unit), each.on)
                row.season_id = season.id
                new += 1
        elif was is not None and row.started_at is None and row.discarded_at is None:
            written = each.written if row.written == was.written else row.written
            on = _day(row.planned_on, was.on, each.on)
            if (written, on) != (row.written, row.planned_on):
                sessions.save_plan(work, id_, written, Unit(season.unit), on)
                changed += 1
    for id_ in before.keys() - now_planned.keys():
        row, was = rows.get(id_), before[id_]
        if row is None or row.started_at is not None or row.discarded_at is not None:
            continue
        if (row.written, row.planned_on) == (was.written, was.on):
            row.discarded_at = now
            taken_out += 1
    return Planned(new, changed, taken_out)


def _day(planned_on: date | None, was: date, now: date) -> date | None:
    """The day of a session that the season had on one day and has on another: that, or the one chosen by hand."""
    if planned_on == was:
        return now
    later = now - was
    return planned_on + later if planned_on and later.days % DAYS == 0 else planned_on
