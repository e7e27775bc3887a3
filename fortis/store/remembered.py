"""Recent sets and maxes that the lifter remembers."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.performance import PerformedBout
from fortis.formats.documents import from_document, to_document
from fortis.store.tables import RememberedRow


def save(work: UnitOfWork, remembered_id: str, bout: PerformedBout, at: datetime) -> None:
    """Keep a set under an id the client made. Told again, it is changed and stays at its moment."""
    row = work.get(RememberedRow, remembered_id)
    if row is None:
        work.add(RememberedRow(id=remembered_id, at=at, bout=to_document(bout)))
    else:
        row.bout, row.taken_back_at = to_document(bout), None


def take_back(work: UnitOfWork, remembered_id: str, at: datetime) -> None:
    """Take a set back; twice is once."""
    row = work.get(RememberedRow, remembered_id)
    if row is not None and row.taken_back_at is None:
        row.taken_back_at = at


def told(work: UnitOfWork, *, before: datetime, since: datetime) -> Sequence[tuple[str, datetime, PerformedBout]]:
    """The sets told within a time, as the bouts they would have been, by id and moment, the oldest first."""
    query = (
        select(RememberedRow)
        .where(RememberedRow.taken_back_at.is_(None), RememberedRow.at < before, RememberedRow.at >= since)
        .order_by(RememberedRow.at, RememberedRow.id)
    )
    return [(row.id, row.at, from_document(PerformedBout, row.bout)) for row in work.scalars(query)]
