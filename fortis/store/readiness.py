"""How ready the lifter was before each session."""

from collections.abc import Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.strength.readiness import Readiness
from fortis.formats.documents import from_document, to_document
from fortis.store.tables import ReadinessRow


def tell(work: UnitOfWork, session_id: str, readiness: Readiness) -> None:
    """Keep how ready the lifter is for a session; told again, it is changed."""
    work.merge(ReadinessRow(session_id=session_id, readiness=to_document(readiness)))


def told(work: UnitOfWork, session_id: str) -> Readiness:
    """How ready the lifter said they were for a session."""
    row = work.get(ReadinessRow, session_id)
    return Readiness() if row is None else from_document(Readiness, row.readiness)


def scores(work: UnitOfWork) -> Mapping[str, float]:
    """How ready the lifter was on the whole, by session, for those of which it was told."""
    return {
        row.session_id: score
        for row in work.scalars(select(ReadinessRow))
        if (score := from_document(Readiness, row.readiness).score) is not None
    }
