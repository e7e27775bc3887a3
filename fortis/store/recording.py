"""Recording bouts: new, corrected and taken back, each version kept."""

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import cast

from sqlalchemy import Table, update
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.logged_session import DoneBout
from fortis.core.performance import PerformedBout
from fortis.core.structure.prescription import Position
from fortis.formats.documents import to_document
from fortis.store import bouts
from fortis.store.bouts import SHARED, RecordedBout, bout_id
from fortis.store.cache import note_change
from fortis.store.tables import BoutRow, BoutVersionRow
from fortis.store.transaction import Prepared, driver_of

_BOUTS = cast(Table, BoutRow.__table__)
_NEW_BOUT = insert(_BOUTS)
_NEW_VERSION = insert(cast(Table, BoutVersionRow.__table__))
_BOUT = Prepared(
    insert(_BOUTS).on_conflict_do_nothing(), [each.name for each in _BOUTS.columns if each.computed is None]
)
_VERSION = Prepared(_NEW_VERSION)


class ChangedElsewhereError(ValueError):
    """A bout was recorded otherwise on another device, or in another tab, since this one last saw it.

    `bout` is what the record has, None where it was taken back there.
    """

    def __init__(self, bout: PerformedBout | None, version: int) -> None:
        self.bout, self.version = bout, version
        super().__init__(str(version))


@dataclass(frozen=True)
class Provenance:
    """Who tells of a bout, and when.

    The device, the time, and when the bout began and ended as the device has it.
    """

    at: datetime
    done_at: datetime
    began_at: datetime | None = None
    device: str = ""


def record(work: UnitOfWork, session_id: str, bout: PerformedBout, by: Provenance, seen: int | None = None) -> int:
    """Write a bout into its position, or over what was there: sent twice, it is there once. Returns its version.

    When it was first done is kept through corrections. `seen` is the version that the correction was made from;
    where another one has been written since, with other numbers, `ChangedElsewhereError` is raised. A bout that was
    taken back can be recorded anew by who has seen that, or nothing of it at all.
    """
    note_change(work)
    if record_new(driver_of(work), session_id, bout, by):
        return 1
    there = bouts.at(work, session_id, bout.position)
    assert there is not None
    if not there.taken_back and there.bout == bout:
        return there.version
    if not (there.taken_back and seen is None) and (seen is None or seen < there.version):
        raise _changed(there)
    values = {**values_of(bout), "device": by.device, "taken_back_at": None}
    if there.taken_back:
        values |= {"began_at": by.began_at, "done_at": by.done_at}
    return _written(work, session_id, there, values, by, bout)


def record_new(driver: sqlite3.Connection, session_id: str, bout: PerformedBout, by: Provenance) -> bool:
    """Write a bout into its position, unless one is there or was. Returns whether it was written."""
    row_id = bout_id(session_id, bout.position)
    address = {"id": row_id, "session_id": session_id, **dict(bout.position)}
    first = {"began_at": by.began_at, "done_at": by.done_at, "device": by.device, "version": 1}
    values = {**address, **first, **values_of(bout), "taken_back_at": None}
    if not _BOUT.run(driver, values).rowcount:
        return False
    _keep(driver, row_id, 1, by, bout)
    return True


def record_all(work: UnitOfWork, done: Iterable[tuple[str, DoneBout]], at: datetime, device: str = "") -> None:
    """Write bouts into sessions that are new, each with the id of its session."""
    rows, versions = [], []
    for session_id, each in done:
        bout = each.bout
        row_id = bout_id(session_id, bout.position)
        address = {"id": row_id, "session_id": session_id, **bout.position.model_dump()}
        first = {"began_at": each.began_at, "done_at": each.done_at, "device": device, "version": 1}
        rows.append({**address, **first, **values_of(bout)})
        versions.append(
            {"bout_id": row_id, "version": 1, "at": at, "device": device, "document": to_document(bout)}
        )
    note_change(work)
    work.connection().execute(_NEW_BOUT, rows)
    work.connection().execute(_NEW_VERSION, versions)


def take_back(
    work: UnitOfWork, session_id: str, position: Position, by: Provenance, seen: int | None = None
) -> int | None:
    """Take a bout back, where the lifter undid it; taken back twice, it is so once. Returns its version, if any.

    `seen` is the version the lifter undid; where another one has been written since, or, without it, where another
    device wrote what is there, `ChangedElsewhereError` is raised.
    """
    there = bouts.at(work, session_id, position)
    if there is None or there.taken_back:
        return there.version if there else None
    if (seen is None and there.device != by.device) or (seen is not None and seen < there.version):
        raise _changed(there)
    values: dict[str, object] = {"taken_back_at": by.at, "device": by.device}
    return _written(work, session_id, there, values, by, None)


def _changed(there: RecordedBout) -> ChangedElsewhereError:
    return ChangedElsewhereError(None if there.taken_back else there.bout, there.version)


def _written(
    work: UnitOfWork,
    session_id: str,
    there: RecordedBout,
    values: dict[str, object],
    by: Provenance,
    bout: PerformedBout | None,
) -> int:
    """Write over a version, if it is still the one that is there."""
    row_id, version = bout_id(session_id, there.bout.position), there.version + 1
    this = (BoutRow.id == row_id, BoutRow.version == there.version)
    note_change(work)
    if not work.connection().execute(update(BoutRow).where(*this).values(**values, version=version)).rowcount:
        raise _changed(bouts.at(work, session_id, there.bout.position) or there)
    _keep(driver_of(work), row_id, version, by, bout)
    return version


def _keep(
    driver: sqlite3.Connection, row_id: str, version: int, by: Provenance, bout: PerformedBout | None
) -> None:
    document = to_document(bout) if bout else None
    kept = {"bout_id": row_id, "version": version, "at": by.at, "device": by.device, "document": document}
    _VERSION.run(driver, kept)


def values_of(bout: PerformedBout) -> dict[str, object]:
    """What is told of a bout, by the columns of its row."""
    asked = bout.asked.model_dump(mode="json", exclude_none=True) if bout.asked else None
    return {
        **{name: getattr(bout, name) for name in SHARED},
        "setup": list(bout.setup.items),
        "rep_seconds": list(bout.rep_seconds) or None,
        "asked": asked,
    }
