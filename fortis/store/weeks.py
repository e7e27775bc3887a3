"""What was done, day by day, to be added up by the week."""

from collections.abc import Sequence
from datetime import UTC, date, datetime, time, timedelta
from typing import NamedTuple

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.performance import PerformedBout
from fortis.core.tally.comparison import SessionDone
from fortis.core.tally.costing import Costing, cost_of_performance
from fortis.core.tally.week import DayDone
from fortis.store import bouts, sessions
from fortis.store.cache import Kept
from fortis.store.lifts import library
from fortis.store.played import as_done, conditions, played
from fortis.store.tables import SessionRow

_costings: Kept[Costing] = Kept(bouts.MOST_KEPT)
_A_ZONE = timedelta(days=1)
"""No day is further from that of UTC."""


class Done(NamedTuple):
    """A finished session: what was done in it and when, and what it comes to on its day."""

    row: SessionRow
    session: SessionDone
    day: DayDone

    @property
    def performed(self) -> Sequence[PerformedBout]:
        """The bouts that were done, in their order."""
        return [each.bout for each in self.session.done]


def done_within(work: UnitOfWork, first: date, last: date) -> Sequence[Done]:
    """The finished sessions of some days, the oldest first."""
    since = datetime.combine(first, time.min, UTC) - _A_ZONE
    until = datetime.combine(last, time.max, UTC) + _A_ZONE
    rows = [
        (row, day)
        for row in reversed(sessions.finished(work, since=since, before=until))
        if (day := sessions.day_of(row)) and first <= day <= last
    ]
    recorded = bouts.of_all(work, [row.id for row, _ in rows])
    return [_done(work, row, day, recorded[row.id]) for row, day in rows]


def _done(work: UnitOfWork, row: SessionRow, day: date, recorded: Sequence[bouts.RecordedBout]) -> Done:
    performed = [each.bout for each in recorded]
    seconds = round(sessions.time_on_the_floor(row, recorded).total_seconds())
    under, known = conditions(work, row), library(work)
    follows_from = row.started_at, row.adjustments, performed, seconds, under, known
    costing = _costings.get_or(
        work,
        row.id,
        follows_from,
        lambda: cost_of_performance(played(work, row), performed, seconds, under, known),
    )
    return Done(row, as_done(recorded, under), DayDone(day=day, costing=costing, felt=row.felt))
