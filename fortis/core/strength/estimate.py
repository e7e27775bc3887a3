"""The estimated one-rep max of a lift, with how sure it is, and the loads that follow from it.

The published formulas agree near five reps and part above ten, so the estimate is their median, and how
far they part is part of the uncertainty. A later model can stand behind the same three functions.
"""

from collections.abc import Sequence
from functools import lru_cache
from statistics import median

from fortis.core.strength.formulas import FORMULAS
from fortis.core.value import Value

MOST_REPS = 30
"""Beyond this many reps a set says next to nothing about the max; reps are counted as this many."""


class Estimate(Value):
    """A one-rep max in kg, `low` to `high` where it could lie, from `reps` to failure as far as judged."""

    kg: float
    low: float
    high: float
    reps: int


def estimate(kg: float, reps: int, reserve: int) -> Estimate:
    """The max behind a hard bout: a load, full reps done (at least 1) and reps left.

    Reserve is a judgement: it can be one rep off either way, and the spread of the formulas is added.
    A true single is the max itself.
    """
    to_failure = min(reps + reserve, MOST_REPS)
    low = kg * min(_spread(max(to_failure - (1 if reserve else 0), 1)))
    high = kg * max(_spread(min(to_failure + (1 if reserve else 0), MOST_REPS)))
    return Estimate(kg=kg * multiplier(to_failure), low=low, high=high, reps=to_failure)


def load_for(max_kg: float, reps: int, reserve: int) -> float:
    """The load that a max allows for `reps` with `reserve` left: the estimate, turned around."""
    return max_kg / multiplier(reps + reserve)


@lru_cache(maxsize=64)
def multiplier(to_failure: int) -> float:
    """The max as a multiple of the load good for exactly so many reps: the median of the formulas.

    Beyond `MOST_REPS` the formulas lose their meaning, one after the other; reps count as that many.
    """
    return median(_spread(min(to_failure, MOST_REPS)))


@lru_cache(maxsize=64)
def _spread(to_failure: int) -> tuple[float, ...]:
    if to_failure == 1:
        return (1.0,)
    return tuple(formula(1.0, to_failure) for formula in FORMULAS.values())


RECENT_WEIGHTS = (0.5, 0.3, 0.2)
"""How much the latest, the one before and the third count: one misjudged day must not swing the loads."""


def current(newest_first: Sequence[Estimate]) -> Estimate:
    """What the latest estimates of one lift say together. Needs at least one."""
    recent = newest_first[: len(RECENT_WEIGHTS)]
    weights = RECENT_WEIGHTS[: len(recent)]
    total = sum(weights)

    def mean(values: Sequence[float]) -> float:
        return sum(weight * value for weight, value in zip(weights, values, strict=True)) / total

    return Estimate(
        kg=mean([each.kg for each in recent]),
        low=mean([each.low for each in recent]),
        high=mean([each.high for each in recent]),
        reps=recent[0].reps,
    )
