"""What every request has at hand: a unit of work on the record, the time, and the device it comes from."""

from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Header, Request
from sqlalchemy.orm import Session as UnitOfWork

from fortis.store.database import WRITES, Database


def _work(request: Request) -> Iterator[UnitOfWork]:
    database: Database = request.app.state.database
    with database.begin() as work:
        yield work


def _writing(request: Request) -> Iterator[UnitOfWork]:
    database: Database = request.app.state.database
    with database.begin() as work:
        work.connection(execution_options=WRITES)
        yield work


Work = Annotated[UnitOfWork, Depends(_work, scope="function")]
"""A unit of work: committed before the answer is sent, rolled back where it fails."""
WritingWork = Annotated[UnitOfWork, Depends(_writing, scope="function")]
"""A unit of work that writes: alone from its start, so that what it reads is still true when it writes."""


def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


Now = Annotated[datetime, Depends(now)]
Device = Annotated[str, Header(alias="Fortis-Device", max_length=60)]
"""The device that a request comes from, by the name it gave itself."""
