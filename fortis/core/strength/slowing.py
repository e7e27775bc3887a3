"""What slowing reps say: the nearer to failure, the longer the last rep takes beside the first ones.

The client repeats `slowed` while reps are tapped (`web/src/session/slowing.ts`); both are held to the same cases.
"""

from collections.abc import Sequence
from itertools import pairwise

from fortis.core.value import Value

FEWEST_REPS = 3


class Slowing(Value):
    """From `times` the usual time of a rep on, so many reps are likely left."""

    times: float
    left: int


SLOWING: tuple[Slowing, ...] = (
    Slowing(times=1.8, left=0),
    Slowing(times=1.45, left=1),
    Slowing(times=1.25, left=2),
    Slowing(times=1.12, left=3),
)
"""Slowest first (common practice of judging by bar speed; a hint, never a measurement)."""


class Slowed(Value):
    """The usual seconds of a rep of a bout, those of its last one, and the reps likely left.

    None where none slowed.
    """

    usual: float
    last: float
    left: int | None


def slowed(rep_seconds: Sequence[float]) -> Slowed | None:
    """How the reps of a bout slowed, from the moments each was done. None under three reps.

    Usual is the mean of the first half, two reps at least.
    """
    each = [after - before for before, after in pairwise((0.0, *rep_seconds))]
    if len(each) < FEWEST_REPS:
        return None
    early = each[: max(len(each) // 2, 2)]
    usual = sum(early) / len(early)
    times = each[-1] / usual if usual > 0 else 1.0
    left = next((slowing.left for slowing in SLOWING if times >= slowing.times), None)
    return Slowed(usual=usual, last=each[-1], left=left)
