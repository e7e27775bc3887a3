"""What a planned session costs before it is lifted: time, reps, tonnage and average load."""

from decimal import Decimal

from fortis.core.structure.timeline import Timeline
from fortis.core.tally.session import moved_kg
from fortis.core.value import Kilograms, Value


class LiftPlan(Value):
    """One lift of a plan. Kilograms are None where its loads are not settled."""

    exercise: str
    reps: int
    tonnage_kg: Kilograms | None
    average_kg: Kilograms | None


class PlanTally(Value):
    """A plan added up; `tonnage_kg` counts the lifts whose loads are settled."""

    seconds: int
    reps: int
    tonnage_kg: Kilograms
    lifts: tuple[LiftPlan, ...]


def plan_tally(timeline: Timeline, body_kg: Decimal | None = None) -> PlanTally:
    """Add up a plan over its timeline."""
    reps: dict[str, int] = {}
    loads: dict[str, list[Decimal | None]] = {}
    for step in timeline.steps:
        if step.kind == "work" and step.reps:
            reps[step.exercise] = reps.get(step.exercise, 0) + step.reps
            kg = moved_kg(step.exercise, step.settled.kg if step.settled else None, body_kg)
            loads.setdefault(step.exercise, []).append(None if kg is None else kg * step.reps)
    lifts = tuple(_lift(exercise, reps[exercise], loads[exercise]) for exercise in reps)
    return PlanTally(
        seconds=timeline.total_seconds,
        reps=sum(reps.values()),
        tonnage_kg=sum((lift.tonnage_kg or Decimal(0) for lift in lifts), Decimal(0)),
        lifts=lifts,
    )


def _lift(exercise: str, reps: int, loads: list[Decimal | None]) -> LiftPlan:
    known = [kg for kg in loads if kg is not None]
    total = sum(known, Decimal(0)) if len(known) == len(loads) else None
    average = None if total is None else round(total / reps, 1)
    return LiftPlan(exercise=exercise, reps=reps, tonnage_kg=total, average_kg=average)
