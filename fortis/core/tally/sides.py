"""Left against right: which side of a lift is the weaker one."""

from collections.abc import Iterable, Mapping
from statistics import mean

from fortis.core.exercises import LIBRARY, Library
from fortis.core.performance import PerformedBout
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import Side

LEAST_DIFFERENCE = 0.02
"""Sides closer than this are taken for equal: a rep more or less on a set of eight is about 2 %."""


def weaker_sides(performed: Iterable[PerformedBout], library: Library = LIBRARY) -> Mapping[str, Side]:
    """The weaker side of each lift done one side at a time, by the lift's id; lifts with equal sides are left out.

    Sides are compared by the mean of their estimated maxes, over the bouts whose load and reserve are known.
    """
    maxes: dict[str, dict[Side, list[float]]] = {}
    for bout in performed:
        if bout.side in (Side.LEFT, Side.RIGHT) and bout.kg and bout.kg > 0 and bout.reps and bout.left is not None:
            sides = maxes.setdefault(library.find(bout.exercise, bout.lift_id).id, {})
            sides.setdefault(bout.side, []).append(estimate(float(bout.kg), bout.reps, float(bout.left)).kg)
    weaker = {}
    for lift, sides in maxes.items():
        if len(sides) == 2:
            left, right = mean(sides[Side.LEFT]), mean(sides[Side.RIGHT])
            if abs(left - right) > LEAST_DIFFERENCE * max(left, right):
                weaker[lift] = Side.LEFT if left < right else Side.RIGHT
    return weaker
