"""Tonnage, average load and estimated max, by lift and for a whole session."""

from collections.abc import Iterable, Sequence
from decimal import Decimal

from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind
from fortis.core.performance import Ended, PerformedBout
from fortis.core.strength.estimate import Estimate, estimate
from fortis.core.structure.model import SetUp
from fortis.core.value import Kilograms, Value

HARD_WITHIN = 4
"""A bout that ends within so many reps of failure counts as hard (common practice)."""


class LiftTally(Value):
    """One lift with one set-up in one session. `average_kg` is tonnage by reps, None without loaded reps.

    `estimate` is of the whole weight moved, from the first fresh bout.
    """

    exercise: str
    setup: SetUp
    reps: int
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    top_kg: Kilograms | None
    hard_bouts: int
    estimate: Estimate | None


class SessionTally(Value):
    """A whole session; lifts in the order they were done."""

    reps: int
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    lifts: tuple[LiftTally, ...]


def moved_kg(lift: Exercise, kg: Decimal | None, body_kg: Decimal | None) -> Decimal | None:
    """The whole weight moved in a rep: both dumbbells, and the share of body weight where there is one."""
    body = lift.body_share * body_kg if lift.body_share and body_kg is not None else None
    if kg is None:
        return body
    return kg * lift.implements + (body or 0)


def strength_kg(lift: Exercise, kg: Decimal | None, body_kg: Decimal | None) -> Decimal | None:
    """The load an estimated max is told in: the written load, with body weight where the lift moves it.

    None where a body-weight lift is done and body weight is not known.
    """
    if lift.body_share:
        return None if body_kg is None else (kg or Decimal(0)) + lift.body_share * body_kg
    return None if lift.load_kind is LoadKind.BODY else kg


def work_of(bouts: Iterable[PerformedBout]) -> tuple[PerformedBout, ...]:
    """The bouts that count: all but the warm-ups."""
    return tuple(bout for bout in bouts if not bout.position.is_warm_up)


def tonnage(bouts: Iterable[PerformedBout], body_kg: Decimal | None = None, library: Library = LIBRARY) -> Decimal:
    """Full reps times the weight moved, summed, in kg. Warm-ups do not count, and half reps are only recorded."""
    total = Decimal(0)
    for bout in work_of(bouts):
        total += (moved_kg(library.find(bout.exercise), bout.kg, body_kg) or Decimal(0)) * bout.reps
    return total


def tally(
    bouts: Sequence[PerformedBout], body_kg: Decimal | None = None, library: Library = LIBRARY
) -> SessionTally:
    """Add up a session. `bouts` are in the order they were done."""
    by_lift: dict[tuple[str, str], list[PerformedBout]] = {}
    for bout in work_of(bouts):
        by_lift.setdefault((bout.exercise, str(bout.setup)), []).append(bout)
    lifts = tuple(_lift(of_lift, body_kg, library) for of_lift in by_lift.values())
    total = sum((lift.tonnage_kg for lift in lifts), Decimal(0))
    reps = sum(lift.reps for lift in lifts)
    return SessionTally(reps=reps, tonnage_kg=total, average_kg=_average(total, reps), lifts=lifts)


def _lift(bouts: list[PerformedBout], body_kg: Decimal | None, library: Library) -> LiftTally:
    total, reps = tonnage(bouts, body_kg, library), sum(bout.reps for bout in bouts)
    loads = [bout.kg for bout in bouts if bout.kg is not None]
    return LiftTally(
        exercise=bouts[0].exercise,
        setup=bouts[0].setup,
        reps=reps,
        tonnage_kg=total,
        average_kg=_average(total, reps),
        top_kg=max(loads) if loads else None,
        hard_bouts=sum(
            bout.reps > 0 and bout.reserve is not None and bout.reserve <= HARD_WITHIN for bout in bouts
        ),
        estimate=fresh_estimate(bouts, body_kg, library),
    )


def _average(total: Decimal, reps: int) -> Decimal | None:
    return round(total / reps, 1) if reps and total else None


def fresh_estimate(
    bouts: Sequence[PerformedBout], body_kg: Decimal | None, library: Library = LIBRARY
) -> Estimate | None:
    """The max behind the first bout of a lift that says something: reps done and reserve told.

    Later bouts are tired ones; comparing them with fresh ones as equals reads fatigue as weakness.
    """
    for bout in bouts:
        kg = strength_kg(library.find(bout.exercise), bout.kg, body_kg)
        reserve = 0 if bout.ended is Ended.STUCK else bout.reserve
        if kg is not None and reserve is not None and bout.reps:
            return estimate(float(kg), bout.reps, reserve)
    return None
