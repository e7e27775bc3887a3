"""What is worked out of the record, cached until it changes; what is read of a part of it, until that does."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, Generic, TypeVar
from weakref import WeakKeyDictionary

from sqlalchemy import Engine, Pool, event
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.orm import sessionmaker

from fortis.store.transaction import Transaction

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


CHANGED = "has changed bouts"
"""Under this a unit of work notes that what it sees is not in the record yet, and may never be."""


def note_change(work: UnitOfWork) -> None:
    """Note that a unit of work has changed bouts: what it reads from now on is kept for nobody."""
    work.info[CHANGED] = True


class Kept(Generic[Result]):
    """What was read of the parts of a record, each good for as long as its stamp is the same."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._lock = Lock()
        self._found: WeakKeyDictionary[Pool, OrderedDict[Hashable, tuple[object, Result]]] = WeakKeyDictionary()

    def get(self, work: UnitOfWork | Transaction, key: Hashable, stamp: object) -> Result | None:
        """What is kept under `key`, if it is of that stamp."""
        with self._lock:
            found = self._found.get(_engine_of(work).pool, OrderedDict())
            was, result = found.get(key, (None, None))
            if result is None or was != stamp:
                return None
            found.move_to_end(key)
        return result

    def get_or(self, work: UnitOfWork, key: Hashable, stamp: object, read: Callable[[], Result]) -> Result:
        """What is kept under `key`, if it is of that stamp; else what is read now, which is kept."""
        found = self.get(work, key, stamp)
        if found is None:
            found = read()
            self.keep(work, key, stamp, found)
        return found

    def keep(self, work: UnitOfWork, key: Hashable, stamp: object, result: Result) -> None:
        """Keep what was read under `key`; what was longest not asked for goes."""
        if CHANGED in work.info:
            return
        with self._lock:
            found = self._found.setdefault(_engine_of(work).pool, OrderedDict())
            found[key] = stamp, result
            found.move_to_end(key)
            while len(found) > self._most:
                found.popitem(last=False)


_caches: WeakKeyDictionary[Pool, Cache] = WeakKeyDictionary()
SEEN = "version of the record"
"""Under this a unit of work that reads keeps the version it began with."""


def note_versions(database: sessionmaker[UnitOfWork]) -> None:
    """Let every unit of work of a database note the version of the record before it looks at it, for `cached`."""

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
    engine = _engine_of(work)
    return _caches.get(engine.pool) or _caches.setdefault(engine.pool, Cache(engine))


def _engine_of(work: UnitOfWork | Transaction) -> Engine:
    engine = work.engine if isinstance(work, Transaction) else work.get_bind()
    assert isinstance(engine, Engine)
    return engine
