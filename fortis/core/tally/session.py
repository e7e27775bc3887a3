"""Tonnage and average load of what was done, by lift and for a whole session."""

from collections.abc import Sequence
from decimal import Decimal

from fortis.core.exercises import LIBRARY, Library
from fortis.core.performance import PerformedBout
from fortis.core.structure.model import LiftKey, SetUp, lift_key
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.work import NO_CONDITIONS, BoutWork, Conditions, performed_work
from fortis.core.value import Kilograms, Number, Value


class LiftTally(Value):
    """One lift with one set-up in one session. `average_kg` is tonnage by reps, None without loaded reps."""

    exercise: str
    lift_id: str
    setup: SetUp
    sets: int
    reps: Number
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    top_kg: Kilograms | None
    hard_sets: int

    @property
    def key(self) -> LiftKey:
        """What makes it comparable."""
        return self.lift_id, self.setup.key


class SessionTally(Value):
    """A whole session.

    Lifts in the order they were done. `sets` are work sets, `warm_ups` the bouts before them.
    """

    sets: int
    warm_ups: int
    reps: Number
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    lifts: tuple[LiftTally, ...]


def tally(
    prescription: Prescription,
    performed: Sequence[PerformedBout],
    under: Conditions = NO_CONDITIONS,
    library: Library = LIBRARY,
) -> SessionTally:
    """Add up what was done of a session as it was played. `performed` are in the order they were done."""
    work = performed_work(prescription, performed, under, library)
    done = [bout for bout in performed if not bout.position.is_warm_up]
    by_lift: dict[LiftKey, list[BoutWork]] = {}
    for each in work:
        by_lift.setdefault(lift_key(each.lift, each.setup), []).append(each)
    lifts = tuple(map(_lift, by_lift.values()))
    total = sum((lift.tonnage_kg for lift in lifts), Decimal(0))
    reps = sum((lift.reps for lift in lifts), Decimal(0))
    return SessionTally(
        sets=len({each.set_key for each in work}),
        warm_ups=len(performed) - len(done),
        reps=reps,
        tonnage_kg=total,
        average_kg=_average(total, reps),
        lifts=lifts,
    )


def _lift(work: Sequence[BoutWork]) -> LiftTally:
    total = sum((bout.tonnage_kg or Decimal(0) for bout in work), Decimal(0))
    reps = sum((bout.counted_reps for bout in work), Decimal(0))
    loads = [bout.handled_kg for bout in work if bout.handled_kg is not None]
    last = work[-1]
    return LiftTally(
        exercise=last.lift.name,
        lift_id=last.lift.id,
        setup=last.setup,
        sets=len({bout.set_key for bout in work}),
        reps=reps,
        tonnage_kg=total,
        average_kg=_average(total, reps),
        top_kg=max(loads) if loads else None,
        hard_sets=len({bout.set_key for bout in work if bout.hard}),
    )


def _average(total: Decimal, reps: Decimal) -> Decimal | None:
    return round(total / reps, 1) if reps and total else None
