"""Reading the whole record, to tell how it is."""

from collections.abc import Callable
from functools import partial
from typing import NamedTuple

from sqlalchemy import func, select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.store import bouts, places
from fortis.store.lifts import own_lifts
from fortis.store.played import added_up
from fortis.store.tables import BoutRow, SessionRow


class Findings(NamedTuple):
    """How much there is in a record, and in words what of it cannot be read."""

    sessions: int
    bouts: int
    unreadable: tuple[str, ...]


def read_all(work: UnitOfWork) -> Findings:
    """Read every session with its plan, its kit and its bouts, the places and the lifts."""
    unreadable: list[str] = []

    def readable(what: str, read: Callable[[], object]) -> None:
        try:
            read()
        except (ValueError, LookupError, TypeError, AttributeError) as error:
            unreadable.append(f"{what} cannot be read: {str(error).splitlines()[0]}")

    readable("a lift", partial(own_lifts, work))
    for place in places.places(work):
        readable(f"place {place.id}", partial(places.kit_of, place))
    rows = work.scalars(select(SessionRow)).all()
    for row in rows:
        name = f"the session {row.title} of {row.started_at or row.planned_on or 'no date'}"
        if row.started_at is not None:
            readable(name, partial(added_up, work, row))
        readable(name, partial(bouts.corrected, work, row.id))
    standing = select(func.count()).select_from(BoutRow).where(BoutRow.taken_back_at.is_(None))
    return Findings(len(rows), work.scalar(standing) or 0, tuple(unreadable))
