"""Weeks of the ledger: what each came to, and its sessions in small."""

from datetime import date, timedelta
from itertools import pairwise
from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from fortis.api.views import SessionCard, card
from fortis.api.work import Now, Work
from fortis.core.tally.small_score import SmallSet, small_score
from fortis.core.tally.week import DAYS, Usual, Week, added_up, beside, monday_of, usual_hard_sets
from fortis.core.value import Day, Kilograms
from fortis.store import lifter, sessions
from fortis.store.weeks import Done, done_within

router = APIRouter(prefix="/api/ledger/weeks", tags=["ledger"])

USUAL_WEEKS, MOST_WEEKS = 8, 16
FIRST_DAY, LAST_DAY = date(1970, 1, 1), date(9000, 12, 31)
"""Between these weeks are asked for."""


class SmallSession(SessionCard):
    """A past session in small, on its day."""

    day: date
    minutes: int
    tonnage_kg: Kilograms
    score: tuple[SmallSet, ...]


class WeekView(Week):
    """A week with its sessions, in order. `beside` tells it beside the week before, once it `is_over`."""

    of: list[SmallSession]
    is_over: bool
    beside: str


class WeeksView(BaseModel):
    """Weeks in order, the latest last, and what is usual for the lifter over them.

    `today` is the lifter's date, `first` the Monday of the first week with a session (this week's without).
    """

    today: date
    first: date
    weeks: list[WeekView]
    usual: tuple[Usual, ...]


@router.get("")
def weeks(
    work: Work,
    now: Now,
    until: Annotated[Day | None, Query(ge=FIRST_DAY, le=LAST_DAY)] = None,
    many: Annotated[int, Query(ge=1, le=MOST_WEEKS)] = USUAL_WEEKS,
) -> WeeksView:
    """So many weeks, up to the one of a day: where none is given, up to today's."""
    today = lifter.today(work, now)
    last = monday_of(until or today)
    before_first = last - timedelta(days=DAYS * many)
    done = done_within(work, before_first, last + timedelta(days=DAYS - 1))
    days = [each.day for each in done]
    added = [added_up(before_first + timedelta(days=DAYS * at), days) for at in range(many + 1)]
    past = [week for week in added if _is_over(week, today)]
    return WeeksView(
        today=today,
        first=monday_of(sessions.first_day(work) or today),
        weeks=[
            WeekView(
                **dict(week),
                of=[small(each) for each in done if monday_of(each.day.day) == week.monday],
                is_over=_is_over(week, today),
                beside=beside(week, before) if _is_over(week, today) else "",
            )
            for before, week in pairwise(added)
        ],
        usual=usual_hard_sets(past),
    )


def _is_over(week: Week, today: date) -> bool:
    return week.monday + timedelta(days=DAYS) <= today


def small(done: Done) -> SmallSession:
    """A past session in small."""
    costing = done.day.costing
    return SmallSession(
        **card(done.row).model_dump(),
        day=done.day.day,
        minutes=round(costing.seconds / 60),
        tonnage_kg=costing.tonnage_kg,
        score=small_score(done.performed),
    )
