"""Bouts in the store: recorded, corrected and taken back, each version kept."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby, pairwise
from operator import attrgetter
from typing import cast
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy import CursorResult, Table, UpdateBase, select, update
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.performance import Asked, Ended, LoadSource, PerformedBout, is_correction
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.prescription import Position
from fortis.store.documents import from_document, to_document
from fortis.store.tables import BoutRow, BoutVersionRow, SessionRow

INSERT_BOUT = insert(cast(Table, BoutRow.__table__)).on_conflict_do_nothing()
INSERT_VERSION = insert(cast(Table, BoutVersionRow.__table__))


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


@dataclass(frozen=True)
class Version:
    """A bout as it was recorded at some time on some device; None where it was taken back."""

    version: int
    at: datetime
    device: str
    bout: PerformedBout | None


def bout_id(session_id: str, position: Position) -> str:
    """The id of the bout at a position in a session: the same on every device, so that two are one."""
    return str(uuid5(NAMESPACE_URL, f"fortis:{session_id}:{position}"))


def record(work: UnitOfWork, session_id: str, bout: PerformedBout, by: Provenance, seen: int | None = None) -> int:
    """Write a bout into its position, or over what was there: sent twice, it is there once. Returns its version.

    When it was first done is kept through corrections. `seen` is the version that the correction was made from;
    where another one has been written since, with other numbers, `ChangedElsewhereError` is raised. A bout that was
    taken back can be recorded anew by who has seen that, or nothing of it at all.
    """
    row_id = bout_id(session_id, bout.position)
    address = {"id": row_id, "session_id": session_id, **bout.position.model_dump()}
    first = {"began_at": by.began_at, "done_at": by.done_at, "device": by.device, "version": 1}
    if _rows(work, INSERT_BOUT, {**address, **first, **_values(bout)}):
        _keep(work, row_id, 1, by, bout)
        return 1
    there = _there(work, row_id)
    assert there is not None
    taken_back = there.taken_back_at is not None
    if not taken_back and performed_bout(there) == bout:
        return there.version
    if not (taken_back and seen is None) and (seen is None or seen < there.version):
        raise _changed(there)
    values = {**_values(bout), "device": by.device, "taken_back_at": None}
    if taken_back:
        values |= {"began_at": by.began_at, "done_at": by.done_at}
    return _written(work, there, values, by, bout)


def take_back(
    work: UnitOfWork, session_id: str, position: Position, by: Provenance, seen: int | None = None
) -> int | None:
    """Take a bout back, where the lifter undid it; taken back twice, it is so once. Returns its version, if any.

    `seen` is the version the lifter undid; where another one has been written since, or, without it, where another
    device wrote what is there, `ChangedElsewhereError` is raised.
    """
    there = _there(work, bout_id(session_id, position))
    if there is None or there.taken_back_at is not None:
        return there.version if there else None
    if (seen is None and there.device != by.device) or (seen is not None and seen < there.version):
        raise _changed(there)
    return _written(work, there, {"taken_back_at": by.at, "device": by.device}, by, None)


def _there(work: UnitOfWork, row_id: str) -> BoutRow | None:
    return work.get(BoutRow, row_id, populate_existing=True)


def _changed(there: BoutRow) -> ChangedElsewhereError:
    bout = None if there.taken_back_at is not None else performed_bout(there)
    return ChangedElsewhereError(bout, there.version)


def _written(
    work: UnitOfWork, there: BoutRow, values: dict[str, object], by: Provenance, bout: PerformedBout | None
) -> int:
    """Write over a version, if it is still the one that is there."""
    version = there.version + 1
    this = (BoutRow.id == there.id, BoutRow.version == there.version)
    if not _rows(work, update(BoutRow).where(*this).values(**values, version=version)):
        work.expire(there)
        raise _changed(there)
    _keep(work, there.id, version, by, bout)
    work.expire(there)
    return version


def _rows(work: UnitOfWork, statement: UpdateBase, values: dict[str, object] | None = None) -> int:
    """How many rows a statement changed."""
    return cast(CursorResult[object], work.execute(statement, values)).rowcount


def _keep(work: UnitOfWork, row_id: str, version: int, by: Provenance, bout: PerformedBout | None) -> None:
    document = to_document(bout) if bout else None
    kept = {"bout_id": row_id, "version": version, "at": by.at, "device": by.device, "document": document}
    work.execute(INSERT_VERSION, kept)


def versions(work: UnitOfWork, session_id: str, position: Position) -> Sequence[Version]:
    """Every version of a bout, the first first."""
    query = select(BoutVersionRow).where(BoutVersionRow.bout_id == bout_id(session_id, position))
    rows = work.scalars(query.order_by(BoutVersionRow.version))
    return [Version(row.version, row.at, row.device, _bout_of(row)) for row in rows]


def _bout_of(row: BoutVersionRow) -> PerformedBout | None:
    return None if row.document is None else from_document(PerformedBout, row.document)


def corrected(work: UnitOfWork, session_id: str) -> frozenset[str]:
    """The ids of the bouts of a session of which a later version contradicts an earlier one."""
    query = (
        select(BoutVersionRow)
        .join(BoutRow, BoutRow.id == BoutVersionRow.bout_id)
        .where(BoutRow.session_id == session_id, BoutRow.version > 1)
        .order_by(BoutVersionRow.bout_id, BoutVersionRow.version)
    )
    found = set()
    for row_id, of_bout in groupby(work.scalars(query), key=attrgetter("bout_id")):
        documents = [_bout_of(row) for row in of_bout]
        if any(is_correction(before, after) for before, after in pairwise(documents)):
            found.add(row_id)
    return frozenset(found)


def rows_of(row: SessionRow) -> list[BoutRow]:
    """The bouts of a session that stand, in the order they were done."""
    return [bout for bout in row.bouts if bout.taken_back_at is None]


def performed(row: SessionRow) -> tuple[PerformedBout, ...]:
    """The bouts of a session in the order they were done."""
    return tuple(map(performed_bout, rows_of(row)))


def _values(bout: PerformedBout) -> dict[str, object]:
    asked = bout.asked.model_dump(mode="json", exclude_none=True) if bout.asked else None
    return {
        **{name: getattr(bout, name) for name in _SHARED},
        "setup": list(bout.setup.items),
        "rep_seconds": list(bout.rep_seconds) or None,
        "asked": asked,
    }


_SHARED = (
    "exercise", "lift_id", "side", "kg", "body", "bottom_kg", "top_kg", "mean_kg", "reps", "partial_reps",
    "seconds", "reserve", "or_more", "ended", "note", "source",
)  # fmt: skip
"""What a bout and its row call the same."""


def position_of(row: BoutRow) -> Position:
    """Where a bout stands in its session."""
    return Position.model_construct(group=row.group, round=row.round, entry=row.entry, set=row.set, bout=row.bout)


def performed_bout(row: BoutRow) -> PerformedBout:
    """A row as a bout. What the record holds was validated on its way in."""
    return PerformedBout.model_construct(
        **{name: getattr(row, name) for name in _SHARED if name not in ("side", "ended", "source")},
        position=position_of(row),
        setup=SetUp.model_construct(items=tuple(row.setup)),
        side=Side(row.side),
        ended=Ended(row.ended) if row.ended else None,
        source=LoadSource(row.source) if row.source else None,
        rep_seconds=tuple(row.rep_seconds or ()),
        asked=Asked.model_validate(row.asked) if row.asked else None,
    )
