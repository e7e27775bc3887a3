"""What every request has at hand: a unit of work on the record, and the time."""

from collections.abc import Iterator
from datetime import UTC, date, datetime
from typing import Annotated
from zoneinfo import ZoneInfo

from fastapi import Depends, Request
from sqlalchemy.orm import Session as UnitOfWork

from fortis.store import lifter
from fortis.store.database import Database


def _work(request: Request) -> Iterator[UnitOfWork]:
    database: Database = request.app.state.database
    with database.begin() as work:
        yield work


Work = Annotated[UnitOfWork, Depends(_work, scope="function")]
"""A unit of work: committed before the answer is sent, rolled back where it fails."""


def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


Now = Annotated[datetime, Depends(now)]


def today(work: UnitOfWork, moment: datetime) -> date:
    """The date where the lifter lives."""
    return moment.astimezone(ZoneInfo(lifter.lifter(work).zone)).date()
