"""What changes with all that is finished: what follows from it alone is kept for as long as it stays the same."""

from collections.abc import Hashable
from datetime import UTC, datetime

from sqlalchemy import Integer, func, literal_column, not_, select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.store import lifter, remembered, sessions
from fortis.store.lifts import library
from fortis.store.tables import BoutRow, BoutVersionRow, SessionRow

NEVER, ALWAYS = datetime.min.replace(tzinfo=UTC), datetime.max.replace(tzinfo=UTC)


def finished_stamp(work: UnitOfWork, before: datetime = ALWAYS) -> Hashable:
    """A stamp of the finished sessions before a moment: which they are, and how often their bouts were written.

    Every change of a bout writes a version of it, numbered on, and none of a finished session is ever deleted. The
    last number less the versions of the few other sessions therefore grows with every change of these, and with
    nothing else. That walks indexes, and reads no row of a long log.
    """
    others = sessions.others(before)
    of_others = (
        select(func.count())
        .select_from(BoutVersionRow)
        .join(BoutRow, BoutRow.id == BoutVersionRow.bout_id)
        .where(BoutRow.session_id.in_(select(SessionRow.id).where(others)))
    )
    last = func.max(literal_column("bout_version.rowid", Integer))
    written = select(last).select_from(BoutVersionRow)
    which = select(
        func.count(),
        func.total(literal_column("session.rowid")),
        func.total(func.julianday(SessionRow.started_at)),
        func.coalesce(written.scalar_subquery(), 0) - of_others.scalar_subquery(),
    ).where(not_(others))
    return tuple(work.execute(which).one())


def stamp(work: UnitOfWork, before: datetime = ALWAYS) -> Hashable:
    """A stamp of the finished sessions before a moment, and of all that is understood by what the lifter told.

    That is their unit, time zone and ways, their own lifts and body weights, and the sets they remember.
    """
    told = remembered.told(work, before=before, since=NEVER)
    return finished_stamp(work, before), lifter.lifter(work), library(work), lifter.weighed(work), told
