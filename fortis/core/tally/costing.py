"""What a session costs, planned or done: time, reps, tonnage, zones, hard sets, and the costly methods' share."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from fortis.core.performance import PerformedBout
from fortis.core.structure.model import Lifting, RangeOfMotion, ToFailure, planned_reserve
from fortis.core.structure.pace import expected_reps
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription
from fortis.core.tally.session import HARD_WITHIN, moved_kg
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
    reps: int
    tonnage_kg: Kilograms | None
    average_kg: Kilograms | None
    average_percent: Number | None


class Count(Value):
    """So many of something named: reps in a zone, hard sets for a muscle."""

    name: str
    count: Number


class Costing(Value):
    """A session added up. `tonnage_kg` counts what is settled; `plate_changes` are the loads built anew."""

    seconds: int
    reps: int
    tonnage_kg: Kilograms
    lifts: tuple[LiftCost, ...]
    zones: tuple[Count, ...]
    hard_sets: tuple[Count, ...]
    failure_sets: int
    partial_reps: int
    overloaded_reps: int
    plate_changes: int


@dataclass(frozen=True)
class _Row:
    """A bout, planned or done, as far as it costs anything."""

    set: PlannedSet
    bout: PlannedBout
    reps: int
    partial_reps: int
    kg: Decimal | None
    percent: Decimal | None
    hard: bool
    failed: bool


def cost_of_plan(prescription: Prescription, seconds: int, body_kg: Decimal | None = None) -> Costing:
    """Cost a plan that takes `seconds`. Sets without a stated effort are taken for hard ones."""
    rows = []
    for each in prescription.work_sets:
        for index, bout in enumerate(each.bouts):
            reps = expected_reps(bout.reps, index) or 0
            half = bout.range_of_motion is not RangeOfMotion.FULL
            reserve = planned_reserve(bout.effort)
            rows.append(
                _Row(
                    each,
                    bout,
                    0 if half else reps,
                    reps if half else 0,
                    moved_kg(each.lift, bout.settled.kg if bout.settled else None, body_kg),
                    bout.settled.percent if bout.settled else None,
                    hard=reserve is None or reserve <= HARD_WITHIN,
                    failed=isinstance(bout.effort, ToFailure),
                )
            )
    return _added_up(rows, seconds)


def cost_of_performance(
    prescription: Prescription, performed: Iterable[PerformedBout], seconds: int, body_kg: Decimal | None = None
) -> Costing:
    """Cost what was done of a plan in `seconds`."""
    done: Mapping[Position, PerformedBout] = {bout.position: bout for bout in performed}
    rows = [
        _Row(
            each,
            bout,
            went.reps,
            went.partial_reps,
            moved_kg(each.lift, went.kg, body_kg),
            _percent_done(bout, went),
            hard=went.reserve is not None and went.reserve <= HARD_WITHIN,
            failed=went.reserve == 0,
        )
        for each in prescription.work_sets
        for bout in each.bouts
        if (went := done.get(each.position(bout)))
    ]
    return _added_up(rows, seconds)


def _percent_done(bout: PlannedBout, went: PerformedBout) -> Decimal | None:
    """How heavy it was in per cent of the max of that day, where another load than the planned one went on."""
    settled = bout.settled
    if settled is None or settled.percent is None or went.kg is None or settled.body or not settled.kg:
        return settled.percent if settled else None
    return settled.percent * went.kg / settled.kg


def _added_up(rows: list[_Row], seconds: int) -> Costing:
    lifts = tuple(
        _lift(exercise, [row for row in rows if row.set.exercise == exercise])
        for exercise in dict.fromkeys(row.set.exercise for row in rows)
    )
    return Costing(
        seconds=seconds,
        reps=sum(row.reps + row.partial_reps for row in rows),
        tonnage_kg=sum((lift.tonnage_kg or Decimal(0) for lift in lifts), Decimal(0)),
        lifts=lifts,
        zones=_zones(rows),
        hard_sets=_hard_sets(rows),
        failure_sets=len({_set_key(row) for row in rows if row.failed}),
        partial_reps=sum(row.partial_reps for row in rows),
        overloaded_reps=sum(row.reps for row in rows if row.bout.lifting is not Lifting.ALONE),
        plate_changes=sum(bool(row.bout.settled and row.bout.settled.change) for row in rows),
    )


def _set_key(row: _Row) -> tuple[int, int, int]:
    return row.set.group, row.set.entry, row.set.number


def _lift(exercise: str, rows: list[_Row]) -> LiftCost:
    reps = sum(row.reps for row in rows)
    known = [row.kg * row.reps for row in rows if row.kg is not None]
    total = sum(known, Decimal(0)) if len(known) == len(rows) else None
    percents = [row.percent * row.reps for row in rows if row.percent is not None]
    return LiftCost(
        exercise=exercise,
        reps=reps,
        tonnage_kg=total,
        average_kg=round(total / reps, 1) if total and reps else None,
        average_percent=round(sum(percents) / reps, 1) if reps and len(percents) == len(rows) else None,
    )


def _zones(rows: list[_Row]) -> tuple[Count, ...]:
    counts: dict[str, int] = {}
    for row in rows:
        if row.percent is not None:
            zone = next((name for limit, name in ZONES if row.percent < limit), OVER_ALL)
            counts[zone] = counts.get(zone, 0) + row.reps
    order = [name for _, name in ZONES] + [OVER_ALL]
    return tuple(Count(name=name, count=Decimal(counts[name])) for name in order if counts.get(name))


def _hard_sets(rows: list[_Row]) -> tuple[Count, ...]:
    """Hard sets by muscle, the most first: a set is hard when any of its bouts is."""
    counts: dict[str, Decimal] = {}
    hard = {_set_key(row): row.set.lift for row in rows if row.hard}
    for lift in hard.values():
        for muscle in lift.prime:
            counts[muscle] = counts.get(muscle, Decimal(0)) + 1
        for muscle in lift.helping:
            counts[muscle] = counts.get(muscle, Decimal(0)) + HELPING_COUNTS
    ordered = sorted(counts.items(), key=lambda each: (-each[1], each[0]))
    return tuple(Count(name=muscle, count=count) for muscle, count in ordered)
