"""Today: what is on, with which loads and why."""

from datetime import date

from fastapi import APIRouter, BackgroundTasks
from pydantic import BaseModel

from fortis.api import lookups
from fortis.api.views import SessionCard, SessionPlan, card, plan
from fortis.api.work import Now, Work
from fortis.core.loading.moved import body_share
from fortis.core.progression.advice import Bar, all_advice
from fortis.core.structure.model import BodyPlus
from fortis.core.structure.prescription import Prescription
from fortis.store import lifter, sessions
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/today", tags=["today"])

MOST_MADE_READY = 3
"""Due sessions that can be started from Today without a wait."""


class TodayView(BaseModel):
    """What is on.

    `started` is a session being played; `due` are planned for today or overdue, the latest date first; `coming`
    are later or without a date; `last` is the newest finished one. `body_weight_missing` says that what is due
    moves body weight, and none is known.
    """

    on: date
    started: SessionCard | None
    due: list[SessionPlan]
    coming: list[SessionCard]
    last: SessionCard | None
    body_weight_missing: bool


@router.get("")
def show(work: Work, now: Now, afterwards: BackgroundTasks) -> TodayView:
    """What is on today. The advice of what is due is worked out after it was sent, ready to start."""
    on = lifter.today(work, now)
    started = sessions.started(work)
    planned = sessions.planned(work)
    due = sorted((row for row in planned if row.planned_on and row.planned_on <= on), key=_date, reverse=True)
    basis = lookups.basis(work, now)
    prescriptions = [lookups.plan_of(work, row, now) for row in due]
    for prescription in prescriptions[:MOST_MADE_READY]:
        afterwards.add_task(all_advice, prescription, Bar(basis.kit, basis.body_kg))
    last = next(iter(sessions.finished(work, limit=1)), None)
    return TodayView(
        on=on,
        started=card(started) if started else None,
        due=[plan(row, prescription, basis) for row, prescription in zip(due, prescriptions, strict=True)],
        coming=[card(row) for row in planned if row not in due],
        last=card(last) if last else None,
        body_weight_missing=basis.body_kg is None and any(map(_moves_body, prescriptions)),
    )


def _moves_body(prescription: Prescription) -> bool:
    """Whether body weight counts in any lift of a plan."""
    return any(
        body_share(each.lift, isinstance(bout.load, BodyPlus)) for each in prescription.sets for bout in each.bouts
    )


def _date(row: SessionRow) -> date:
    return row.planned_on or date.max
