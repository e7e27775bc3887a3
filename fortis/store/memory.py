"""What is worked out of the record, remembered until anything in the record changes."""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, TypeVar
from weakref import WeakKeyDictionary

from sqlalchemy import Connection, Engine
from sqlalchemy.orm import Session as UnitOfWork

Answer = TypeVar("Answer")
MOST_REMEMBERED = 64


class Memory:
    """Answers kept beside one database.

    SQLite tells a connection when another one has committed a change, whichever process did. A connection
    that does nothing but ask for that is what the answers are kept against.
    """

    def __init__(self, engine: Engine) -> None:
        self._watch: Connection = engine.connect()
        self._lock = Lock()
        self._version: int | None = None
        self._answers: dict[Hashable, Any] = {}

    def recall(self, key: Hashable, work_out: Callable[[], Answer]) -> Answer:
        """The answer remembered under `key`, worked out anew where the record has changed since."""
        version = self._now()
        with self._lock:
            if version == self._version and key in self._answers:
                known: Answer = self._answers[key]
                return known
        answer = work_out()
        with self._lock:
            if version != self._version or len(self._answers) >= MOST_REMEMBERED:
                self._answers.clear()
                self._version = version
            self._answers[key] = answer
        return answer

    def _now(self) -> int:
        with self._lock:
            version: int = self._watch.exec_driver_sql("PRAGMA data_version").scalar_one()
            self._watch.rollback()
        return version


_memories: WeakKeyDictionary[Engine, Memory] = WeakKeyDictionary()


def remembered(work: UnitOfWork, key: Hashable, work_out: Callable[[], Answer]) -> Answer:
    """Remember an answer that follows from the record alone.

    Only for a unit of work that has written nothing yet: its own changes are not in the record.
    """
    engine = work.get_bind()
    assert isinstance(engine, Engine)
    memory = _memories.get(engine)
    if memory is None:
        memory = _memories.setdefault(engine, Memory(engine))
    return memory.recall(key, work_out)
