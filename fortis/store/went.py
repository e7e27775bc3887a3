"""How the finished sessions went, each by what was known before it."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.strength.readiness import Meaning, Went, meaning
from fortis.core.tally.went import SessionWent
from fortis.store import maxes, readiness


def sessions_went(work: UnitOfWork, at: datetime) -> Sequence[SessionWent]:
    """How the sessions went from which the maxes of a moment were learned, the oldest first."""
    scores = readiness.scores(work)
    return [
        SessionWent(taught.session.day, taught.went, scores.get(taught.session.id))
        for taught in maxes.course(work, at)
        if not taught.session.remembered
    ]


def readiness_meant(work: UnitOfWork, at: datetime) -> Meaning:
    """What readiness has been worth to the lifter until a moment."""
    if not readiness.scores(work):
        return meaning([])
    return meaning(
        [
            Went(each.readiness, each.form)
            for each in sessions_went(work, at)
            if each.readiness is not None and each.form is not None
        ]
    )
