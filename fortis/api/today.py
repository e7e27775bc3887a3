"""Today: what is on, with which loads and why."""

from datetime import date

from fastapi import APIRouter
from pydantic import BaseModel

from fortis.api.known import known_of
from fortis.api.views import SessionCard, SessionPlan, card, plan
from fortis.api.work import Now, Work, today
from fortis.store import lifter, sessions
from fortis.store.basis import settled_anew
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/today", tags=["today"])


class TodayView(BaseModel):
    """What is on.

    `started` is a session being played; `due` are planned for today or overdue, the latest date first;
    `coming` are later or without a date; `last` is the newest finished one.
    """

    on: date
    started: SessionCard | None
    due: list[SessionPlan]
    coming: list[SessionCard]
    last: SessionCard | None


@router.get("")
def show(work: Work, now: Now) -> TodayView:
    """What is on today."""
    on = today(work, now)
    started = sessions.started(work)
    planned = sessions.planned(work)
    due = sorted((row for row in planned if row.planned_on and row.planned_on <= on), key=_date, reverse=True)
    last = next(iter(sessions.finished(work, limit=1)), None)
    return TodayView(
        on=on,
        started=card(started) if started else None,
        due=[plan(row, settled_anew(row, known_of(work, row.title, now)), lifter.body_kg(work, on)) for row in due],
        coming=[card(row) for row in planned if row not in due],
        last=card(last) if last else None,
    )


def _date(row: SessionRow) -> date:
    return row.planned_on or date.max
