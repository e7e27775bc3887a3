"""Bouts as the record has them, read by session, and their versions."""

import json
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby, pairwise
from operator import attrgetter
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy import Row, Select, String, func, select, type_coerce
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.cache import cached
from fortis.core.performance import Asked, PerformedBout, is_correction
from fortis.core.structure.model import SetUp
from fortis.core.structure.prescription import Position
from fortis.formats.documents import from_document
from fortis.store.cache import Kept
from fortis.store.tables import BoutRow, BoutVersionRow


@dataclass(frozen=True)
class RecordedBout:
    """A bout in its latest version: when it began, where that was told, and ended, and on which device."""

    bout: PerformedBout
    began_at: datetime | None
    done_at: datetime
    version: int
    device: str
    taken_back: bool


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


SHARED = (
    "exercise", "lift_id", "side", "kg", "body", "bottom_kg", "top_kg", "mean_kg", "reps", "partial_reps",
    "seconds", "reserve", "or_more", "ended", "note", "source",
)  # fmt: skip
"""What a bout and its row call the same."""
_POSITION = tuple(Position.model_fields)
_AS_TEXT = ("setup", "rep_seconds", "asked")
_OWN = ("began_at", "done_at", "version", "device", "taken_back_at")
_COLUMNS = (
    BoutRow.session_id,
    *(getattr(BoutRow, name) for name in (*_POSITION, *SHARED)),
    *(type_coerce(getattr(BoutRow, name), String).label(name) for name in _AS_TEXT),
    *(getattr(BoutRow, name) for name in _OWN),
)
MOST_KEPT = 400
"""Sessions whose bouts stay at hand: half a year of them, and what is leafed through beside."""
_at_hand: Kept[tuple[RecordedBout, ...]] = Kept(MOST_KEPT)


def of_all(work: UnitOfWork, session_ids: Collection[str]) -> Mapping[str, Sequence[RecordedBout]]:
    """The bouts that stand of some sessions, in the order they were done."""
    everything = _everything(work, session_ids)
    return {each: [bout for bout in everything[each] if not bout.taken_back] for each in session_ids}


def of(work: UnitOfWork, session_id: str) -> Sequence[RecordedBout]:
    """The bouts of a session that stand, in the order they were done."""
    return of_all(work, [session_id])[session_id]


def performed(work: UnitOfWork, session_id: str) -> tuple[PerformedBout, ...]:
    """What was done in a session, in the order it was done."""
    return tuple(each.bout for each in of(work, session_id))


def taken_back(work: UnitOfWork, session_id: str) -> Sequence[PerformedBout]:
    """The bouts of a session that were taken back and not done again."""
    return [each.bout for each in _everything(work, [session_id])[session_id] if each.taken_back]


def at(work: UnitOfWork, session_id: str, position: Position) -> RecordedBout | None:
    """The bout at a position, taken back or not; None where there never was one."""
    row = work.execute(_bouts().where(BoutRow.id == bout_id(session_id, position))).first()
    return None if row is None else _recorded(row)


def _everything(work: UnitOfWork, session_ids: Collection[str]) -> Mapping[str, tuple[RecordedBout, ...]]:
    """Every bout of some sessions, read where it is not at hand as it is now."""
    versions = versions_of(work, session_ids)
    found: dict[str, tuple[RecordedBout, ...]] = {}
    for each in session_ids:
        at_hand = _at_hand.get(work, each, versions.get(each, 0))
        if at_hand is not None:
            found[each] = at_hand
    if missing := [each for each in session_ids if each not in found]:
        rows = work.execute(_bouts().where(BoutRow.session_id.in_(missing)).order_by(BoutRow.session_id))
        read = {each: tuple(map(_recorded, rows)) for each, rows in groupby(rows, key=attrgetter("session_id"))}
        for each in missing:
            found[each] = tuple(sorted(read.get(each, ()), key=attrgetter("done_at")))
            _at_hand.keep(work, each, versions.get(each, 0), found[each])
    return found


def versions_of(work: UnitOfWork, session_ids: Collection[str]) -> Mapping[str, int]:
    """The versions of the bouts of sessions, added up: they only ever grow, and grow with every change."""
    summed = select(BoutRow.session_id, func.sum(BoutRow.version)).group_by(BoutRow.session_id)
    return dict(iter(work.execute(summed.where(BoutRow.session_id.in_(session_ids)))))


def _bouts() -> Select[Any]:
    return select(*_COLUMNS)


def _recorded(row: Row[Any]) -> RecordedBout:
    """A row as a bout."""
    told = dict(zip(SHARED, row[1 + len(_POSITION) :], strict=False))
    bout = PerformedBout.model_validate(
        {
            **told,
            "position": _position(*row[1 : 1 + len(_POSITION)]),
            "setup": _setup(row.setup),
            "rep_seconds": json.loads(row.rep_seconds or "[]"),
            "asked": row.asked and _asked(row.asked),
        }
    )
    return RecordedBout(
        bout, row.began_at, row.done_at, row.version, row.device, taken_back=row.taken_back_at is not None
    )


@cached(4_096)
def _position(group: int, round: int, entry: int, set: int, bout: int) -> Position:
    return Position(group=group, round=round, entry=entry, set=set, bout=bout)


@cached(256)
def _setup(written: str) -> SetUp:
    return SetUp.model_construct(items=tuple(json.loads(written)))


@cached(4_096)
def _asked(written: str) -> Asked:
    return Asked.model_validate_json(written)


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
