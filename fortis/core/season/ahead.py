"""What the weeks of a season come to before any load is known: sets, time, share of the max, hard sets."""

import re
from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from fortis.core.exercises import LIBRARY, Library
from fortis.core.season.model import Kind, Season
from fortis.core.season.weeks import SeasonWeek, week_by_week
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import Percent
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription, lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.tally.costing import Count, cost_of_plan, most_first
from fortis.core.tally.week import summed
from fortis.core.units import Unit
from fortis.core.value import Number, Value


class WeekAhead(Value):
    """A week: its sessions, their seconds and work sets, and its hard sets by muscle, the most first.

    `percent` is the share of the max that a rep is done with on average, of those whose load is written as one;
    None where there are none.
    """

    monday: date
    kind: Kind
    sessions: int
    seconds: int
    sets: int
    percent: Number | None
    hard_sets: tuple[Count, ...]


class _Work(Value):
    """What a session comes to, whatever its shares of the max are."""

    seconds: int
    sets: int
    hard_sets: tuple[Count, ...]


_Shares = Sequence[tuple[Decimal, int]]
"""Shares of the max, in per cent, with the reps done with each."""
_SHARE = re.compile(r"\d+(?:[.,]\d+)?(?=%)")


def weeks_ahead(season: Season, unit: Unit = Unit.KG, library: Library = LIBRARY) -> tuple[WeekAhead, ...]:
    """Every week of a season, what it comes to as it is written."""
    planned = list(week_by_week(season, unit))
    work: dict[str, _Work] = {}
    shares: dict[str, _Shares] = {}
    for written in dict.fromkeys(each.written for week in planned for each in week.sessions):
        plan = lay_out(read(written, unit), library)
        shares[written] = _shares(plan)
        if (alike := _but_for_shares(written)) not in work:
            work[alike] = _work(plan)
    return tuple(
        _week(
            week,
            season.blocks[week.block - 1].kind if week.number else Kind.LIGHT,
            [work[_but_for_shares(each.written)] for each in week.sessions],
            [share for each in week.sessions for share in shares[each.written]],
        )
        for week in planned
    )


def _but_for_shares(written: str) -> str:
    """A text without its shares of the max: they make no difference to its sets and its time."""
    return _SHARE.sub("", written)


def _work(plan: Prescription) -> _Work:
    seconds = timeline(plan).total_seconds
    costing = cost_of_plan(plan, seconds)
    return _Work(seconds=seconds, sets=costing.sets, hard_sets=costing.hard_sets)


def _shares(plan: Prescription) -> _Shares:
    bouts = [bout for each in plan.work_sets for bout in each.bouts]
    return [(bout.load.percent, least_of(bout.reps)) for bout in bouts if isinstance(bout.load, Percent)]


def _week(week: SeasonWeek, kind: Kind, of: Sequence[_Work], shares: _Shares) -> WeekAhead:
    reps = sum(many for _, many in shares)
    return WeekAhead(
        monday=week.monday,
        kind=kind,
        sessions=len(of),
        seconds=sum(each.seconds for each in of),
        sets=sum(each.sets for each in of),
        percent=sum((share * many for share, many in shares), Decimal(0)) / reps if reps else None,
        hard_sets=most_first(summed(each.hard_sets for each in of)),
    )
