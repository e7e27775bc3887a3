"""Left against right: how the two sides of a lift compare, and which one is the weaker."""

from collections.abc import Iterable, Mapping
from statistics import mean
from typing import NamedTuple

from fortis.core.exercises import LIBRARY, Library
from fortis.core.performance import PerformedBout
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import Side

LEAST_DIFFERENCE = 0.02
"""Sides closer than this are taken for equal: a rep more or less on a set of eight is about 2 %."""


class Sides(NamedTuple):
    """The mean of the maxes that the bouts of each side speak for by the usual curve, in kg of the load handled."""

    left_kg: float
    right_kg: float

    @property
    def weaker(self) -> Side | None:
        """The weaker side; None where they are equal, as far as can be told."""
        if abs(self.left_kg - self.right_kg) <= LEAST_DIFFERENCE * max(self):
            return None
        return Side.LEFT if self.left_kg < self.right_kg else Side.RIGHT


def sides_of(performed: Iterable[PerformedBout]) -> Sides | None:
    """The sides of a lift over some of its bouts, those whose load and reserve are known; None without both."""
    maxes: dict[Side, list[float]] = {Side.LEFT: [], Side.RIGHT: []}
    for bout in performed:
        if bout.side in maxes and bout.kg and bout.kg > 0 and bout.reps and bout.left is not None:
            maxes[bout.side].append(estimate(float(bout.kg), bout.reps, float(bout.left)).kg)
    left, right = maxes[Side.LEFT], maxes[Side.RIGHT]
    return Sides(mean(left), mean(right)) if left and right else None


def weaker_sides(performed: Iterable[PerformedBout], library: Library = LIBRARY) -> Mapping[str, Side]:
    """The weaker side of each lift done one side at a time, by its id; lifts with equal sides are left out."""
    by_lift: dict[str, list[PerformedBout]] = {}
    for bout in performed:
        if bout.side in (Side.LEFT, Side.RIGHT):
            by_lift.setdefault(library.find(bout.exercise, bout.lift_id).id, []).append(bout)
    found = {lift: sides_of(bouts) for lift, bouts in by_lift.items()}
    return {lift: sides.weaker for lift, sides in found.items() if sides and sides.weaker}
