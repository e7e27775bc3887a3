"""A cache of what is worked out of the record, good until anything in the record changes."""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, TypeVar
from weakref import WeakKeyDictionary

from sqlalchemy import Connection, Engine, Pool
from sqlalchemy.orm import Session as UnitOfWork

Result = TypeVar("Result")
SIZE = 64


class Cache:
    """The cache of one database.

    SQLite tells a connection when another one has committed a change, whichever process did. A connection
    that does nothing but ask for that is what the results are checked against.
    """

    def __init__(self, engine: Engine) -> None:
        self._watch: Connection = engine.connect().execution_options(writes=False)
        self._lock = Lock()
        self._version: int | None = None
        self._results: dict[Hashable, Any] = {}

    def get(self, key: Hashable, work_out: Callable[[], Result]) -> Result:
        """The result cached under `key`, worked out anew where the record has changed since."""
        version = self._current()
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

    def _current(self) -> int:
        with self._lock:
            version: int = self._watch.exec_driver_sql("PRAGMA data_version").scalar_one()
            self._watch.rollback()
        return version


_caches: WeakKeyDictionary[Pool, Cache] = WeakKeyDictionary()


def cached(work: UnitOfWork, key: Hashable, work_out: Callable[[], Result]) -> Result:
    """Cache a result that follows from the record alone.

    Only for a unit of work that has written nothing yet: its own changes are not in the record.
    """
    engine = work.get_bind()
    assert isinstance(engine, Engine)
    cache = _caches.get(engine.pool)
    if cache is None:
        cache = _caches.setdefault(engine.pool, Cache(engine))
    return cache.get(key, work_out)
