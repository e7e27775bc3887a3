"""A session under way, as far as saving its bouts needs it: asked for with every bout, read where it changed."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime
from functools import cached_property

from sqlalchemy import String, bindparam, func, select, type_coerce
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.conventions import Conventions
from fortis.core.exercises import Library
from fortis.core.loading.kit import Kit
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription
from fortis.store import lifter, sessions
from fortis.store.cache import Kept
from fortis.store.lifts import library
from fortis.store.played import played
from fortis.store.sessions import NotStartedError, UnknownSessionError
from fortis.store.tables import LifterRow, LiftRow, SessionRow
from fortis.store.transaction import Prepared, Transaction, driver_of

_STAMP = Prepared(
    select(
        SessionRow.started_at,
        SessionRow.zone,
        type_coerce(SessionRow.adjustments, String),
        select(func.group_concat(LiftRow.lift)).scalar_subquery(),
        select(type_coerce(LifterRow.ways, String)).where(LifterRow.id == 1).scalar_subquery(),
    ).where(SessionRow.id == bindparam("id"))
)
"""What a session under way is made from, beside what was frozen when it started."""
MOST_KEPT = 8
_kept: Kept["InPlay"] = Kept(MOST_KEPT)


@dataclass(frozen=True)
class InPlay:
    """A session under way: its plan as it is played, and what its bouts are counted by.

    `kit` is the kit of the gym as it was when the session started, `known` every lift known now, `ways` how the
    lifter counts.
    """

    id: str
    started_at: datetime
    day: date
    prescription: Prescription
    kit: Kit | None
    known: Library
    ways: Conventions

    @cached_property
    def planned(self) -> Mapping[Position, tuple[PlannedSet, PlannedBout]]:
        """The bouts of the plan as it is played, each with its set, by their positions."""
        return {each.position(bout): (each, bout) for each in self.prescription.sets for bout in each.bouts}


def at_hand(writing: Transaction, session_id: str) -> InPlay | None:
    """A session under way that was read before and is as it was; None where it has to be read."""
    stamp = _STAMP.run(writing.driver, {"id": session_id}).fetchone()
    return None if stamp is None else _kept.get(writing, session_id, stamp)


def in_play(work: UnitOfWork, session_id: str) -> InPlay:
    """A session that was started. Raises `UnknownSessionError` and `NotStartedError`."""
    stamp = _STAMP.run(driver_of(work), {"id": session_id}).fetchone()
    if stamp is None:
        raise UnknownSessionError(session_id)
    if stamp[0] is None:
        raise NotStartedError(session_id)
    return _kept.get_or(work, session_id, stamp, lambda: _read(work, sessions.get(work, session_id)))


def _read(work: UnitOfWork, row: SessionRow) -> InPlay:
    day = sessions.day_of(row)
    assert row.started_at is not None
    assert day is not None
    return InPlay(
        id=row.id,
        started_at=row.started_at,
        day=day,
        prescription=played(work, row),
        kit=sessions.frozen_kit(row),
        known=library(work),
        ways=lifter.lifter(work).ways,
    )
