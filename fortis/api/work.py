"""What every request has at hand: a unit of work on the record, the time, and the device it comes from."""

from collections.abc import AsyncIterator
from datetime import UTC, datetime
from typing import Annotated

import anyio
from fastapi import Depends, Header, Request
from fastapi.concurrency import run_in_threadpool
from sqlalchemy.orm import Session as UnitOfWork

from fortis.api.turns import turns


async def _reading(request: Request) -> AsyncIterator[UnitOfWork]:
    async with turns().to_read():
        work = request.app.state.database()
        try:
            yield work
        finally:
            work.close()


async def _writing(request: Request) -> AsyncIterator[UnitOfWork]:
    async with turns().to_write():
        work = request.app.state.writing()
        try:
            yield work
        except BaseException:
            with anyio.CancelScope(shield=True):
                await run_in_threadpool(work.close)
            raise
        with anyio.CancelScope(shield=True):
            await run_in_threadpool(_committed, work)


def _committed(work: UnitOfWork) -> None:
    with work:
        work.commit()


Work = Annotated[UnitOfWork, Depends(_reading, scope="function")]
"""A unit of work that reads: what it sees does not change meanwhile."""
WritingWork = Annotated[UnitOfWork, Depends(_writing, scope="function")]
"""A unit of work that writes: alone from its start, so that what it reads is still true when it writes.

Committed before the answer is sent, rolled back where it fails.
"""


async def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


Now = Annotated[datetime, Depends(now)]
Device = Annotated[str, Header(alias="Fortis-Device", max_length=60)]
"""The device that a request comes from, by the name it gave itself."""
