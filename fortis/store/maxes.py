"""What the record tells of the lifter's strength: current maxes and last loads."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from functools import cached_property

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import Exercise, Library
from fortis.core.performance import PerformedBout
from fortis.core.strength.estimate import STILL_TELLING, Estimate, current
from fortis.core.structure.model import LiftKey, lift_key
from fortis.core.tally.fresh import fresh_estimate
from fortis.store import bouts, lifter, sessions
from fortis.store.lifts import library
from fortis.store.tables import SessionRow


@dataclass(frozen=True)
class Finished:
    """A finished session with what was done in it."""

    row: SessionRow
    performed: tuple[PerformedBout, ...]
    known: Library

    @cached_property
    def by_lift(self) -> Mapping[LiftKey, tuple[Exercise, list[PerformedBout]]]:
        """The work bouts by what makes them comparable."""
        by_lift: dict[LiftKey, tuple[Exercise, list[PerformedBout]]] = {}
        for bout in self.performed:
            if not bout.position.is_warm_up:
                lift = self.known.find(bout.exercise, bout.lift_id)
                by_lift.setdefault(lift_key(lift, bout.setup), (lift, []))[1].append(bout)
        return by_lift


def recent(work: UnitOfWork, now: datetime) -> Sequence[Finished]:
    """The finished sessions that still say something, newest first."""
    rows = sessions.finished(work, before=now, since=now - STILL_TELLING)
    done, known = bouts.of_all(work, [row.id for row in rows]), library(work)
    return [Finished(row, tuple(each.bout for each in done[row.id]), known) for row in rows]


def estimates(work: UnitOfWork, done: Sequence[Finished]) -> Mapping[LiftKey, Estimate]:
    """The current estimated max of every lift and set-up, from some sessions, the newest first."""
    by_lift: dict[LiftKey, list[Estimate]] = {}
    for each in done:
        day = sessions.day_of(each.row)
        body_kg = lifter.body_kg(work, day) if day else None
        for key, (lift, performed) in each.by_lift.items():
            if estimate := fresh_estimate(performed, lift, body_kg):
                by_lift.setdefault(key, []).append(estimate)
    return {key: current(newest_first) for key, newest_first in by_lift.items()}


def last_loads(done: Sequence[Finished]) -> Mapping[LiftKey, Decimal]:
    """The heaviest load of each lift and set-up in the latest of some sessions that had it, the newest first."""
    last: dict[LiftKey, Decimal] = {}
    for each in done:
        heaviest = {
            key: max(loads)
            for key, (_, performed) in each.by_lift.items()
            if (loads := [bout.kg for bout in performed if bout.kg is not None])
        }
        last = heaviest | last
    return last
