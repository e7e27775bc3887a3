"""A session in small, as played or as planned: its sets in order, each bout as so many notes at a height."""

from collections.abc import Iterable
from decimal import Decimal
from itertools import groupby

from fortis.core.performance import PerformedBout
from fortis.core.structure.counting import count_of, is_rep_target, least_of
from fortis.core.structure.model import Hold
from fortis.core.structure.pace import expected_reps
from fortis.core.structure.prescription import PlannedBout, Prescription
from fortis.core.value import Value


class SmallBout(Value):
    """A bout: its full reps, its half reps, the reps missed.

    `height` is its load among those of its lift in the session, 0 to 1; 0 where they are all one.
    """

    reps: int
    partial_reps: int
    missed: int
    height: float


class SmallSet(Value):
    """A set of a lift."""

    exercise: str
    bouts: tuple[SmallBout, ...]


def small_score(performed: Iterable[PerformedBout]) -> tuple[SmallSet, ...]:
    """What was done of a session, in the order it was done, warm-ups not shown. A hold is one note."""
    done = [bout for bout in performed if not bout.position.is_warm_up]
    loads: dict[str, list[Decimal]] = {}
    for bout in done:
        loads.setdefault(bout.exercise, []).append(bout.kg or Decimal(0))
    sets = groupby(done, key=lambda bout: (bout.position.group, bout.position.entry, bout.position.set))
    return tuple(
        SmallSet(exercise=bouts[0].exercise, bouts=tuple(_bout(bout, loads[bout.exercise]) for bout in bouts))
        for bouts in (tuple(each) for _, each in sets)
    )


def small_plan(plan: Prescription) -> tuple[SmallSet, ...]:
    """What is planned of a session, in its order, as many reps as are expected; what is left out is not shown."""
    loads: dict[str, list[Decimal]] = {}
    for each in plan.work_sets:
        for bout in each.bouts:
            loads.setdefault(each.exercise, []).append(_planned_kg(bout))
    return tuple(
        SmallSet(
            exercise=each.exercise,
            bouts=tuple(
                _planned(bout, at, _height(_planned_kg(bout), loads[each.exercise]))
                for at, bout in enumerate(each.bouts)
            ),
        )
        for each in plan.work_sets
    )


def _planned_kg(bout: PlannedBout) -> Decimal:
    return bout.settled.kg if bout.settled else Decimal(0)


def _planned(bout: PlannedBout, at: int, height: float) -> SmallBout:
    if isinstance(bout.reps, Hold):
        return SmallBout(reps=1, partial_reps=0, missed=0, height=height)
    count = count_of(bout.reps, bout.range_of_motion, expected_reps(bout.reps, at) or 1)
    return SmallBout(reps=count.reps, partial_reps=count.partial_reps, missed=0, height=height)


def _bout(bout: PerformedBout, loads: list[Decimal]) -> SmallBout:
    return SmallBout(
        reps=bout.reps or (1 if bout.seconds else 0),
        partial_reps=bout.partial_reps,
        missed=_missed(bout),
        height=_height(bout.kg or Decimal(0), loads),
    )


def _height(kg: Decimal, loads: list[Decimal]) -> float:
    low, high = min(loads), max(loads)
    return round(float((kg - low) / (high - low)), 2) if high > low else 0.0


def _missed(bout: PerformedBout) -> int:
    """The reps that were asked and not done."""
    if bout.asked is None or not is_rep_target(bout.asked.reps):
        return 0
    return max(least_of(bout.asked.reps) - bout.reps - bout.partial_reps, 0)
