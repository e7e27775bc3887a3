"""Who may be at the record: one that writes, a few that read, the others wait for their turn.

A request that holds a connection needs a thread to go on, and one that holds a thread may need a connection. So
that none waits for the other, a request takes its turn before it takes either, and there are more threads and
connections than turns.
"""

import asyncio
from collections.abc import AsyncIterator
from contextlib import AbstractAsyncContextManager, asynccontextmanager

from anyio.lowlevel import RunVar

READERS = 4
"""Requests that read at once. They share two or so cores; more would only wait in other places."""
PATIENCE_SECONDS = 10.0
"""How long a request waits for its turn."""


class BusyError(RuntimeError):
    """The turn of a request did not come in time."""


class Turns:
    """The turns of one event loop."""

    def __init__(self, readers: int = READERS, patience_seconds: float = PATIENCE_SECONDS) -> None:
        self._reading = asyncio.Semaphore(readers)
        self._writing = asyncio.Semaphore(1)
        self._patience = patience_seconds

    def to_read(self) -> AbstractAsyncContextManager[None]:
        """A turn to read. Raises `BusyError`."""
        return self._turn(self._reading)

    def to_write(self) -> AbstractAsyncContextManager[None]:
        """A turn to write, alone among those that write. Raises `BusyError`."""
        return self._turn(self._writing)

    @asynccontextmanager
    async def _turn(self, turns: asyncio.Semaphore) -> AsyncIterator[None]:
        try:
            async with asyncio.timeout(self._patience):
                await turns.acquire()
        except TimeoutError as error:
            raise BusyError from error
        try:
            yield
        finally:
            turns.release()


_turns: RunVar[Turns] = RunVar("turns")


def turns() -> Turns:
    """The turns of the running event loop."""
    try:
        return _turns.get()
    except LookupError:
        made = Turns()
        _turns.set(made)
        return made
