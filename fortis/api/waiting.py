"""Files that were brought and wait for the lifter to agree: read, examined and written beside all else."""

import sqlite3
from collections import OrderedDict
from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from enum import StrEnum
from itertools import islice
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import Lock, Thread
from time import sleep
from uuid import uuid4
from zoneinfo import ZoneInfo

from sqlalchemy.exc import SQLAlchemyError

from fortis.core.lift_names import as_lift_name
from fortis.formats.foreign import Reader, Reading, UnreadableError, guess
from fortis.formats.record import is_record
from fortis.formats.table import Delimiter, Encoding, TableError, layout_of, names_of, rows_of
from fortis.store.database import Database
from fortis.store.imports import LogPreview, Plan, ReadLog, examine, stage, write
from fortis.store.lifter import lifter
from fortis.store.lifts import library
from fortis.store.staging import Staged

MOST_WAITING = 4
"""Files that wait at once: the one that waited longest goes."""
SHOWN = 3
"""Rows of a file that are shown as they are."""
BREATH_SECONDS = 0.02
"""A pause between the parts of a file that is written: others write meanwhile."""


A_RECORD = "This is a whole record of Fortis. It comes into a new record only: fortis import FILE --db NEW.db."


class State(StrEnum):
    """How far a file is."""

    READING = "reading"
    READ = "read"
    WRITING = "writing"
    WRITTEN = "written"
    REFUSED = "refused"


class UnknownFileError(LookupError):
    """No such file waits."""


class NotReadError(ValueError):
    """What waits cannot be written as it is."""


class _GivenUpError(Exception):
    """What was asked for has changed meanwhile."""


class WaitingFile:
    """A file that was brought, how it is read, and what it comes to. `through` counts rows read, or bouts written.

    `why` tells what is wrong where it is refused, `import_id` what it became once it is written. `lifts` are those
    meant by the names in the file.
    """

    def __init__(self, database: Database, name: str) -> None:
        self.id, self.name, self._database = str(uuid4()), name, database
        self.state, self.through, self.why, self.import_id = State.READING, 0, "", ""
        self.names: list[str] = []
        self.sample: list[list[str]] = []
        self.reading: Reading | None = None
        self.doubts: tuple[str, ...] = ()
        self.lifts: Mapping[str, str] = {}
        self.examined: LogPreview | None = None
        self._folder = TemporaryDirectory()
        self.path = Path(self._folder.name) / "brought"
        self._staged: Staged | None = None
        self._read: ReadLog | None = None
        self._turn = 0
        self._changing, self._working = Lock(), Lock()

    def look(self, encoding: Encoding | None = None, delimiter: Delimiter | None = None) -> None:
        """Find out how the file is written and what it holds, as far as that is not told, and read it so.

        Raises `NotReadError` where it is being written already.
        """
        if self.state in (State.WRITING, State.WRITTEN):
            raise NotReadError(self.id)
        try:
            if is_record(self.path):
                raise TableError(A_RECORD)
            layout = layout_of(self.path, encoding, delimiter)
            with self._database() as work:
                found = guess(self.path, layout, lifter(work).unit, library(work))
            self.names, self.doubts = names_of(self.path, layout), found.doubts
            self.sample = [row.cells for row in islice(rows_of(self.path, layout), SHOWN)]
        except TableError as error:
            with self._changing:
                self._turn += 1
                self._refuse(self._turn, str(error))
            return
        self.read(found.reading)

    def read(self, reading: Reading) -> None:
        """Read the file in another way."""
        self.reading, self.lifts = reading, {}
        self._begin(State.READING, self._stage)

    def mean(self, lifts: Mapping[str, str]) -> None:
        """Take names of lifts for others; one that means nothing is left out. Raises `NotReadError`."""
        if self._staged is None:
            raise NotReadError(self.id)
        named = {name: as_lift_name(lift) if lift else "" for name, lift in lifts.items()}
        self.lifts = {**self.lifts, **named}
        self._begin(State.READING, self._examine)

    def write(self) -> None:
        """Write it into the record. Raises `NotReadError`."""
        if self.examined is None or not self.examined.bouts:
            raise NotReadError(self.id)
        self._begin(State.WRITING, self._write, only_from=State.READ)

    def let_go(self) -> None:
        """Delete the file, and what was read of it; one that is being written goes when that is done."""
        with self._changing:
            if self.state is State.WRITING:
                return
            self._turn += 1
        with self._working:
            if self._staged:
                self._staged.close()
            self._folder.cleanup()

    def _begin(self, state: State, job: Callable[[int], None], only_from: State | None = None) -> None:
        """Begin a job beside all else; what was going on is given up, but a file that is written stays so."""
        with self._changing:
            if self.state in (State.WRITING, State.WRITTEN) or (only_from and self.state is not only_from):
                raise NotReadError(self.id)
            self._turn += 1
            self.state, self.through, self.why = state, 0, ""
            if state is State.READING:
                self.examined = None
            Thread(target=self._work, args=(job, self._turn), daemon=True).start()

    def _work(self, job: Callable[[int], None], turn: int) -> None:
        with self._working:
            try:
                job(turn)
            except _GivenUpError:
                return
            except (TableError, UnreadableError) as error:
                self._refuse(turn, str(error))
            except (SQLAlchemyError, sqlite3.Error, OSError) as error:
                self._refuse(turn, f"It could not be read or written to the end: {error}. Nothing of it was taken.")
            except Exception:
                self._refuse(turn, "Fortis could not read it, and is at fault. Nothing of it was taken.")
                raise

    def _refuse(self, turn: int, why: str) -> None:
        if turn == self._turn:
            self.state, self.why = State.REFUSED, why

    def _progress(self, turn: int) -> Callable[[int], None]:
        def through(many: int) -> None:
            if turn != self._turn:
                raise _GivenUpError
            self.through = many

        return through

    def _stage(self, turn: int) -> None:
        assert self.reading is not None
        with self._database() as work:
            zone, known = ZoneInfo(lifter(work).zone), library(work)
        reader = Reader(self.path, self.reading, zone, datetime.now(UTC))
        staged = Staged(Path(self._folder.name) / f"{turn}.db")
        self._read = stage(reader, staged, known, self._progress(turn))
        before, self._staged = self._staged, staged
        if before:
            before.close()
        self.lifts = self._read.suggestions
        self._examine(turn)

    def _examine(self, turn: int) -> None:
        assert self._staged is not None
        assert self._read is not None
        with self._database() as work:
            examined = examine(work, self._staged, self._read, self._plan, self._progress(turn))
        if turn == self._turn:
            self.examined, self.state = examined, State.READ

    def _write(self, _: int) -> None:
        assert self._staged is not None

        def through(many: int) -> None:
            self.through = many
            sleep(BREATH_SECONDS)

        self.import_id = write(self._database, self.name, self._staged, self._plan, datetime.now(UTC), through)
        self.state = State.WRITTEN

    @property
    def _plan(self) -> Plan:
        assert self.reading is not None
        return Plan(self.lifts, self.reading.unit)


class WaitingFiles:
    """The files that wait at one server."""

    def __init__(self) -> None:
        self._files: OrderedDict[str, WaitingFile] = OrderedDict()

    def add(self, file: WaitingFile) -> None:
        """Let a file wait; those that waited longest go, where there are too many."""
        self._files[file.id] = file
        while len(self._files) > MOST_WAITING:
            self._files.popitem(last=False)[1].let_go()

    def get(self, file_id: str) -> WaitingFile:
        """A file that waits. Raises `UnknownFileError`."""
        try:
            return self._files[file_id]
        except KeyError as error:
            raise UnknownFileError(file_id) from error

    def let_go(self, file_id: str) -> None:
        """Let a file go, where it is there."""
        if file := self._files.pop(file_id, None):
            file.let_go()
