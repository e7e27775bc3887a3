"""What every request has at hand: a unit of work on the record, the time, and the device it comes from."""

from collections.abc import AsyncIterator, Awaitable, Callable
from datetime import UTC, datetime
from functools import partial, wraps
from typing import Annotated, ParamSpec, TypeVar

from anyio import to_thread
from fastapi import Depends, Header, Request
from sqlalchemy.orm import Session as UnitOfWork

from fortis.api.turns import turns

Asked = ParamSpec("Asked")
Answer = TypeVar("Answer")


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
        yield work
        if work.in_transaction():
            work.close()
            raise RuntimeError("What was written was not committed: the endpoint lacks @commits.")


def commits(endpoint: Callable[Asked, Answer]) -> Callable[Asked, Awaitable[Answer]]:
    """Run an endpoint with a `WritingWork` named `work`, and its commit, in one go on one thread.

    Committed before the answer is sent, rolled back where the endpoint fails. Once begun it is not left half done,
    whether or not somebody still waits for the answer.
    """

    @wraps(endpoint)
    async def committed(*args: Asked.args, **given: Asked.kwargs) -> Answer:
        work = given["work"]
        assert isinstance(work, UnitOfWork)
        return await to_thread.run_sync(partial(_committed, partial(endpoint, *args, **given), work))

    return committed


def _committed(endpoint: Callable[[], Answer], work: UnitOfWork) -> Answer:
    with work:
        answer = endpoint()
        work.commit()
    return answer


Work = Annotated[UnitOfWork, Depends(_reading, scope="function")]
"""A unit of work that reads: what it sees does not change meanwhile."""
WritingWork = Annotated[UnitOfWork, Depends(_writing, scope="function")]
"""A unit of work that writes, for an endpoint that `commits`.

Alone from its start, so that what it reads is still true when it writes.
"""


async def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


Now = Annotated[datetime, Depends(now)]
Device = Annotated[str, Header(alias="Fortis-Device", max_length=60)]
"""The device that a request comes from, by the name it gave itself."""
