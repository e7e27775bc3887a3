"""The estimated one-rep max of a lift, with how sure it is, and the loads that follow from it.

The published formulas agree near five reps and part above ten, so the estimate is their median, and how
far they part is part of the uncertainty. A later model can stand behind the same three functions.
"""

from collections.abc import Sequence
from datetime import timedelta
from functools import lru_cache
from statistics import median

from fortis.core.strength.formulas import FORMULAS
from fortis.core.value import Value

MOST_REPS = 30
"""Beyond this many reps a set says next to nothing about the max; reps are counted as this many."""


class Estimate(Value):
    """A one-rep max in kg, `low` to `high` where it could lie, from `reps` to failure as far as judged.

    With `at_least`, all that is known is that it is no less: the reps left were told as so many or more.
    """

    kg: float
    low: float
    high: float
    reps: float
    at_least: bool = False

    def widened(self, share: float) -> "Estimate":
        """The same max, less sure by a share of it on either side."""
        return self.model_copy(update={"low": self.low - share * self.kg, "high": self.high + share * self.kg})


UNBOUNDED = 0.25
"""How far over a lower bound the max may lie, as a share of it, while nothing else is known."""


def estimate(kg: float, reps: int, reserve: float, *, or_more: bool = False) -> Estimate:
    """The max behind a hard bout: a load, full reps done (at least 1) and reps left, in steps of a half.

    Reserve is a judgement: it can be one rep off either way, and the spread of the formulas is added.
    A true single is the max itself. With `or_more` the reserve is a lower bound, and so is the max.
    """
    to_failure = min(reps + reserve, MOST_REPS)
    low = kg * min(_spread(max(to_failure - (1 if reserve else 0), 1)))
    high = kg * max(_spread(min(to_failure + (1 if reserve else 0), MOST_REPS)))
    found = kg * multiplier(to_failure)
    if or_more:
        high = max(high, found * (1 + UNBOUNDED))
    return Estimate(kg=found, low=low, high=high, reps=to_failure, at_least=or_more)


def load_for(max_kg: float, reps: int, reserve: float) -> float:
    """The load that a max allows for `reps` with `reserve` left: the estimate, turned around."""
    return max_kg / multiplier(reps + reserve)


@lru_cache(maxsize=128)
def multiplier(to_failure: float) -> float:
    """The max as a multiple of the load good for exactly so many reps: the median of the formulas.

    Beyond `MOST_REPS` the formulas lose their meaning, one after the other; reps count as that many.
    """
    return median(_spread(min(to_failure, MOST_REPS)))


@lru_cache(maxsize=128)
def _spread(to_failure: float) -> tuple[float, ...]:
    if to_failure <= 1:
        return (1.0,)
    return tuple(formula(1.0, to_failure) for formula in FORMULAS.values())


STILL_TELLING = timedelta(days=84)
"""Estimates older than this say little about today."""
RECENT_WEIGHTS = (0.5, 0.3, 0.2)
"""How much the latest, the one before and the third count: one misjudged day must not swing the loads."""


def current(newest_first: Sequence[Estimate]) -> Estimate:
    """What the latest estimates of one lift say together, lower bounds only where there is nothing else.

    Needs one.
    """
    exact = [each for each in newest_first if not each.at_least]
    recent = (exact or newest_first)[: len(RECENT_WEIGHTS)]
    weights = RECENT_WEIGHTS[: len(recent)]
    total = sum(weights)

    def mean(values: Sequence[float]) -> float:
        return sum(weight * value for weight, value in zip(weights, values, strict=True)) / total

    return Estimate(
        kg=mean([each.kg for each in recent]),
        low=mean([each.low for each in recent]),
        high=mean([each.high for each in recent]),
        reps=recent[0].reps,
        at_least=recent[0].at_least,
    )
