"""How ready the lifter was before each session, and what that has meant so far."""

from collections.abc import Iterator
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.strength.readiness import Meaning, Readiness, Went, meaning
from fortis.formats.documents import from_document, to_document
from fortis.store import maxes
from fortis.store.maxes import Taught
from fortis.store.tables import ReadinessRow


def tell(work: UnitOfWork, session_id: str, readiness: Readiness) -> None:
    """Keep how ready the lifter is for a session; told again, it is changed."""
    work.merge(ReadinessRow(session_id=session_id, readiness=to_document(readiness)))


def told(work: UnitOfWork, session_id: str) -> Readiness:
    """How ready the lifter said they were for a session."""
    row = work.get(ReadinessRow, session_id)
    return Readiness() if row is None else from_document(Readiness, row.readiness)


def meant(work: UnitOfWork, at: datetime) -> Meaning:
    """What readiness has been worth to the lifter until a moment."""
    scores = {
        row.session_id: score
        for row in work.scalars(select(ReadinessRow))
        if (score := from_document(Readiness, row.readiness).score) is not None
    }
    if not scores:
        return meaning([])
    went = []
    for taught in maxes.course(work, at):
        (first, *_) = taught.lifts or (None,)
        score = scores.get(first.session.id) if first else None
        if score is not None and (form := _form(taught)) is not None:
            went.append(Went(score, form))
    return meaning(went)


def _form(taught: Taught) -> float | None:
    """How far a session went above or below what was known: the first told bout of each lift, on average."""
    found = list(_off(taught))
    return sum(found) / len(found) if found else None


def _off(taught: Taught) -> Iterator[float]:
    for each in taught.lifts:
        at = each.session.started_at
        max_ = taught.before.max_of(each.key, at)
        if max_ is None:
            continue
        for heard, expected in each.teach(taught.before).beside:
            if expected and heard.tells_reps:
                reps = heard.reps + (heard.left or 0.0) * max_.calls
                yield (reps - expected.reps) * max_.curve.cost(heard.kg / max_.kg)
                break
