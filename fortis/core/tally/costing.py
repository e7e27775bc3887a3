"""What a session costs, planned or done: time, reps, tonnage, zones, hard sets, and the costly methods' share."""

from collections.abc import Iterable, Mapping, Sequence
from decimal import Decimal

from fortis.core.exercises import LIBRARY, Library
from fortis.core.performance import PerformedBout
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.work import NO_CONDITIONS, BoutWork, Conditions, performed_work, planned_work
from fortis.core.value import Kilograms, Number, Value

ZONES = (
    (Decimal(55), "under 55 %"),
    (Decimal(70), "55 to 70 %"),
    (Decimal(80), "70 to 80 %"),
    (Decimal(90), "80 to 90 %"),
)
OVER_ALL = "90 % and over"
"""Intensity zones as lifters count them (Prilepin's table, weightlifting lore of the 1970s, from memory)."""
HELPING_COUNTS = Decimal("0.5")
"""A hard set counts half for a muscle that only helps (common practice)."""


class LiftCost(Value):
    """One lift. Kilograms and per cent are None where its loads are not settled, or no max is known."""

    exercise: str
    reps: Number
    tonnage_kg: Kilograms | None
    average_kg: Kilograms | None
    average_percent: Number | None


class Count(Value):
    """So many of something named: reps in a zone, hard sets for a muscle."""

    name: str
    count: Number


class Costing(Value):
    """A session added up. `tonnage_kg` counts what is settled; `plate_changes` are the loads built anew.

    `work_seconds` are those under load. `sets` are work sets, of which `failure_sets` end with none left.
    """

    seconds: int
    work_seconds: int
    sets: int
    reps: int
    tonnage_kg: Kilograms
    lifts: tuple[LiftCost, ...]
    zones: tuple[Count, ...]
    hard_sets: tuple[Count, ...]
    failure_sets: int
    partial_reps: int
    overloaded_reps: int
    plate_changes: int


def cost_of_plan(prescription: Prescription, seconds: int, under: Conditions = NO_CONDITIONS) -> Costing:
    """Cost a plan that takes `seconds`."""
    return _added_up(planned_work(prescription, under), seconds)


def cost_of_performance(
    prescription: Prescription,
    performed: Iterable[PerformedBout],
    seconds: int,
    under: Conditions = NO_CONDITIONS,
    library: Library = LIBRARY,
) -> Costing:
    """Cost what was done, in `seconds`, of a session as it was played."""
    return _added_up(performed_work(prescription, performed, under, library), seconds)


def _added_up(work: Sequence[BoutWork], seconds: int) -> Costing:
    lifts = tuple(
        _lift(exercise, [bout for bout in work if bout.exercise == exercise])
        for exercise in dict.fromkeys(bout.exercise for bout in work)
    )
    return Costing(
        seconds=seconds,
        work_seconds=sum(bout.seconds for bout in work),
        sets=len({bout.set_key for bout in work}),
        reps=sum(bout.reps + bout.partial_reps for bout in work),
        tonnage_kg=sum((lift.tonnage_kg or Decimal(0) for lift in lifts), Decimal(0)),
        lifts=lifts,
        zones=_zones(work),
        hard_sets=_hard_sets(work),
        failure_sets=len({bout.set_key for bout in work if bout.failed}),
        partial_reps=sum(bout.partial_reps for bout in work),
        overloaded_reps=sum(bout.reps for bout in work if bout.overloaded),
        plate_changes=sum(bout.changes_load for bout in work),
    )


def _lift(exercise: str, work: Sequence[BoutWork]) -> LiftCost:
    reps = sum((bout.counted_reps for bout in work), Decimal(0))
    known = [tonnage for bout in work if (tonnage := bout.tonnage_kg) is not None]
    total = sum(known, Decimal(0)) if len(known) == len(work) else None
    percents = [bout.percent * bout.reps for bout in work if bout.percent is not None]
    return LiftCost(
        exercise=exercise,
        reps=reps,
        tonnage_kg=total,
        average_kg=round(total / reps, 1) if total and reps else None,
        average_percent=round(sum(percents) / reps, 1) if reps and len(percents) == len(work) else None,
    )


def _zones(work: Iterable[BoutWork]) -> tuple[Count, ...]:
    counts: dict[str, Decimal] = {}
    for bout in work:
        if bout.percent is not None:
            zone = next((name for limit, name in ZONES if bout.percent < limit), OVER_ALL)
            counts[zone] = counts.get(zone, Decimal(0)) + bout.reps
    return in_zones(counts)


def in_zones(counts: Mapping[str, Decimal]) -> tuple[Count, ...]:
    """Reps by the name of their zone, the lightest first."""
    order = [name for _, name in ZONES] + [OVER_ALL]
    return tuple(Count(name=name, count=counts[name]) for name in order if counts.get(name))


def _hard_sets(work: Iterable[BoutWork]) -> tuple[Count, ...]:
    """Hard sets by muscle, the most first: a set is hard when any of its bouts is."""
    counts: dict[str, Decimal] = {}
    hard = {bout.set_key: bout.lift for bout in work if bout.hard}
    for lift in hard.values():
        for muscle in lift.prime:
            counts[muscle] = counts.get(muscle, Decimal(0)) + 1
        for muscle in lift.helping:
            counts[muscle] = counts.get(muscle, Decimal(0)) + HELPING_COUNTS
    return most_first(counts)


def most_first(counts: Mapping[str, Decimal]) -> tuple[Count, ...]:
    """Counts by name, the most first."""
    ordered = sorted(counts.items(), key=lambda each: (-each[1], each[0]))
    return tuple(Count(name=name, count=count) for name, count in ordered)
