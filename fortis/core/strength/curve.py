"""The rep curve: how many reps to failure a load allows from fresh, by its share of the max.

At a share f there are R(f) = 1 + k (f^-b - 1) / b reps: one at the max, ever more below it, without a kink on
either side of it. The bend b bends the curve: with -1 it is a straight line, the shape behind Brzycki's formula
(1993), with 1 a hyperbola, that behind Epley's (1985), with 10 the power behind Lombardi's (1989); k follows from
the endurance, the reps at three quarters of the max.
"""

from functools import cached_property
from typing import Any

from fortis.core.value import Value

TELLING_SHARE = 0.75
"""Endurance is told as the reps at this share of the max: common practice tests it there."""


class RepCurve(Value):
    """A lifter's rep curve: `endurance` is the reps to failure at 75 % of the max, above 1; `bend` is not 0."""

    endurance: float = 10.2
    bend: float = 1.0

    @cached_property
    def scale(self) -> float:
        """How many reps a relative step down from the max is worth, k."""
        return float(scale(self.endurance, self.bend))

    def reps(self, share: float) -> float:
        """Reps to failure at a share of the max, above 0: 1 at the max, less beyond it."""
        return float(1 + beyond(self.scale, self.bend, share**-self.bend))

    def share(self, reps: float) -> float:
        """The share of the max that allows so many reps to failure, at least 0.05."""
        base = 1 + self.bend * (reps - 1) / self.scale
        return max(base ** (-1 / self.bend), LEAST_SHARE) if base > 0 else LEAST_SHARE

    def cost(self, share: float) -> float:
        """What a rep at a share of the max takes from strength, as a share of the max."""
        if abs(1 - share) < NEARLY_MAX:
            return 1 / self.scale
        return (1 - share) / min(self.reps(share) - 1, LONGEST)


LEAST_SHARE = 0.05
NEARLY_MAX = 1e-6
LONGEST = 35.0
"""However light a load is, tired reps with it are no cheaper than in a set of so many (common practice)."""
DEFAULT_CURVE = RepCurve()
"""What holds until a lifter's log says otherwise: within two points of the training handbook table (Baechle and
Earle, from memory) up to ten reps."""


def scale(endurance: Any, bend: Any) -> Any:
    """K from the reps at 75 % of the max and the bend: numbers, or arrays of them."""
    return (endurance - 1) * bend / (TELLING_SHARE**-bend - 1)


def beyond(k: Any, bend: Any, inverse: Any) -> Any:
    """The reps to failure beyond the first, from `inverse`, the share to the power of -bend: numbers, or arrays."""
    return k * (inverse - 1) / bend
