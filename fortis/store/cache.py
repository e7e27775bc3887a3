"""A cache of what is worked out of the record, good until anything in the record changes."""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, TypeVar
from weakref import WeakKeyDictionary

from sqlalchemy import Engine, Pool, event
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.orm import sessionmaker

Result = TypeVar("Result")
SIZE = 64


class Cache:
    """The cache of one database.

    SQLite tells a connection when another one has committed a change, whichever process did. A connection
    that does nothing but ask for that is what the results are checked against. A unit of work asks before it begins
    to look: what it then sees is as new as that or newer, so nothing older is ever kept under a version.
    """

    def __init__(self, engine: Engine) -> None:
        self._watch = engine.raw_connection()
        self._lock = Lock()
        self._version: int | None = None
        self._results: dict[Hashable, Any] = {}

    def get(self, version: int, key: Hashable, work_out: Callable[[], Result]) -> Result:
        """The result cached under `key` for a version of the record, worked out anew where it is of another one."""
        with self._lock:
            if version == self._version and key in self._results:
                known: Result = self._results[key]
                return known
        result = work_out()
        with self._lock:
            if version != self._version or len(self._results) >= SIZE:
                self._results.clear()
                self._version = version
            self._results[key] = result
        return result

    def version(self) -> int:
        """The version of the record now."""
        with self._lock:
            (version,) = self._watch.cursor().execute("PRAGMA data_version").fetchone()
        return int(version)


_caches: WeakKeyDictionary[Pool, Cache] = WeakKeyDictionary()
SEEN = "version of the record"
"""Under this a unit of work that reads keeps the version it began with."""


def note_versions(database: sessionmaker[UnitOfWork]) -> None:
    """Let every unit of work of a database note the version of the record before it looks at it."""

    @event.listens_for(database, "after_begin")
    def _note(work: UnitOfWork, _: object, __: object) -> None:
        work.info[SEEN] = _cache_of(work).version()


def cached(work: UnitOfWork, key: Hashable, work_out: Callable[[], Result]) -> Result:
    """Cache a result that follows from the record alone.

    Only for a unit of work that has written nothing yet: its own changes are not in the record.
    """
    work.connection()
    return _cache_of(work).get(work.info[SEEN], key, work_out)


def _cache_of(work: UnitOfWork) -> Cache:
    engine = work.get_bind()
    assert isinstance(engine, Engine)
    return _caches.get(engine.pool) or _caches.setdefault(engine.pool, Cache(engine))
