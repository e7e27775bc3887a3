"""What every request has at hand: a unit of work on the record, the time, and the device it comes from."""

from collections.abc import AsyncIterator, Awaitable, Callable
from datetime import UTC, datetime
from functools import wraps
from typing import Annotated, ParamSpec, TypeVar

from anyio import to_thread
from fastapi import Depends, Header, Request
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.orm import sessionmaker

from fortis.api.turns import turns
from fortis.store.database import Database

Asked = ParamSpec("Asked")
Answer = TypeVar("Answer")


async def _reading(request: Request) -> AsyncIterator[UnitOfWork]:
    async with turns().to_read():
        work = request.app.state.database()
        try:
            yield work
        finally:
            work.close()


async def _writing(request: Request) -> Database:
    database: Database = request.app.state.writing
    return database


def commits(endpoint: Callable[Asked, Answer]) -> Callable[Asked, Awaitable[Answer]]:
    """Run an endpoint with a `WritingWork` named `work`, and its commit, in its turn, in one go on one thread.

    Committed before the answer is sent, rolled back where the endpoint fails. Once begun it is not left half done,
    whether or not somebody still waits for the answer.
    """

    @wraps(endpoint)
    async def committed(*args: Asked.args, **given: Asked.kwargs) -> Answer:
        database = given.pop("work")
        assert isinstance(database, sessionmaker)

        def in_one_go() -> Answer:
            with database() as work:
                answer = endpoint(*args, **given, work=work)
                work.commit()
            return answer

        return await in_turn(in_one_go)

    return committed


async def in_turn(write: Callable[[], Answer]) -> Answer:
    """Do what writes, and commits it, in its turn, on a thread."""
    async with turns().to_write():
        return await to_thread.run_sync(write)


Work = Annotated[UnitOfWork, Depends(_reading, scope="function")]
"""A unit of work that reads: what it sees does not change meanwhile."""
WritingWork = Annotated[UnitOfWork, Depends(_writing)]
"""A unit of work that writes, for an endpoint that `commits`, which makes it; any other has none of it.

Alone from its start, so that what it reads is still true when it writes.
"""

WritingDatabase = Annotated[Database, Depends(_writing)]
"""Makes units of work that write, for an endpoint that makes its own, `in_turn`."""


async def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


Now = Annotated[datetime, Depends(now)]
Device = Annotated[str, Header(alias="Fortis-Device", max_length=60)]
"""The device that a request comes from, by the name it gave itself."""
