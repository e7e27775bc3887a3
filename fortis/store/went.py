"""How the finished sessions went, each by what was known before it."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.strength.readiness import Meaning, Went, meaning
from fortis.core.tally.went import LiftWent, SessionWent, went
from fortis.store import maxes, readiness
from fortis.store.cache import Kept
from fortis.store.maxes import Taught, Trained

_lifts: Kept[tuple[LiftWent, ...]] = Kept(maxes.MOST_TAUGHT)


def sessions_went(work: UnitOfWork, at: datetime) -> Sequence[SessionWent]:
    """How the sessions went from which the maxes of a moment were learned, the oldest first.

    What was found of a session is kept for as long as it and all before it stay as they are.
    """
    scores = readiness.scores(work)
    return [
        SessionWent(taught.session.day, _of(work, taught), scores.get(taught.session.id))
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


def _of(work: UnitOfWork, taught: Taught) -> tuple[LiftWent, ...]:
    found = _lifts.get(work, taught.session.id, taught.stamp)
    if found is None:
        found = tuple(_lift(taught, each) for each in taught.lifts if any(each.heard))
        _lifts.keep(work, taught.session.id, taught.stamp, found)
    return found


def _lift(taught: Taught, each: Trained) -> LiftWent:
    done = list(zip((rested.bout for rested in each.rested), each.heard, strict=True))
    own = [(bout, heard) for (bout, heard), rested in zip(done, each.rested, strict=True) if rested.of_setup]
    foretold = iter(each.teach(taught.before).beside)
    beside = [next(foretold) if heard else None for heard in each.heard]
    expected = [found[1] for found, rested in zip(beside, each.rested, strict=True) if found and rested.of_setup]
    return went(each.key, each.lift.name, own, expected, taught.before.max_of(each.key, taught.session.started_at))
