"""Bouts read from a file, put down in another one until the lifter agrees: a long log is never held whole."""

import sqlite3
from collections import Counter
from collections.abc import Iterable, Iterator
from datetime import UTC, timedelta
from pathlib import Path

from fortis.core.logged import LoggedBout
from fortis.core.logged_session import spaced

LONGEST_SESSION = timedelta(hours=12)
"""Bouts of one name that lie further apart are of two sessions."""
AT_ONCE = 1_000


class Staged:
    """The bouts of a log in a file of their own. What was put down before at `path` goes.

    `lifts` counts the bouts of each lift, by what the log calls it.
    """

    def __init__(self, path: Path) -> None:
        path.unlink(missing_ok=True)
        self._connection = sqlite3.connect(path, isolation_level=None, check_same_thread=False)
        for pragma in ("journal_mode=OFF", "synchronous=OFF"):
            self._connection.execute(f"PRAGMA {pragma}")
        self._connection.execute("CREATE TABLE bout (session TEXT, at TEXT, line INTEGER, bout TEXT)")
        self._connection.execute("BEGIN")
        self._waiting: list[tuple[str, str, int, str]] = []
        self.lifts: Counter[str] = Counter()

    def add(self, line: int, bouts: Iterable[LoggedBout]) -> None:
        """Put down the bouts of a line."""
        for bout in bouts:
            at = bout.performed_at.astimezone(UTC).isoformat(timespec="microseconds")
            self._waiting.append((bout.session, at, line, bout.model_dump_json(exclude_defaults=True)))
            self.lifts[bout.exercise] += 1
        if len(self._waiting) >= AT_ONCE:
            self._put_down()

    def sessions(self) -> Iterator[list[LoggedBout]]:
        """The bouts session by session, in the order of time, with their times apart."""
        self._put_down()
        rows = self._connection.execute("SELECT session, bout FROM bout ORDER BY session, at, line")
        session: list[LoggedBout] = []
        for name, written in rows:
            bout = LoggedBout.model_validate_json(written)
            if session and (
                name != session[0].session or bout.performed_at - session[0].performed_at > LONGEST_SESSION
            ):
                yield spaced(session)
                session = []
            session.append(bout)
        if session:
            yield spaced(session)

    def close(self) -> None:
        """Let go of the file."""
        self._connection.close()

    def _put_down(self) -> None:
        self._connection.executemany("INSERT INTO bout VALUES (?, ?, ?, ?)", self._waiting)
        self._waiting.clear()
