"""Attempts at a meet or a test: an opener that is nearly certain, a second near the best, a third to win.

The chances are those of one lift by itself, by the max as it is known: log-normal between its bounds, which hold it
four times in five, and a day a little better or worse than it.
"""

from collections.abc import Sequence
from decimal import Decimal
from math import exp, log, prod
from statistics import NormalDist

from fortis.core.strength.day import FOUR_IN_FIVE
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.tracker import DAY_FORM
from fortis.core.value import Kilograms, Value

WANTED = (0.95, 0.75, 0.40)
"""The chance that opener, second and third have at least: an opener is certain (common practice)."""
STEP = Decimal("2.5")
"""Attempts go up in such steps (common practice at meets)."""


class Attempt(Value):
    """A load, and how likely it goes up, 0 to 1."""

    kg: Kilograms
    chance: float


def _of_day(max_: Estimate) -> NormalDist:
    """The logarithm of what goes up once on a day."""
    known = log(max_.high / max_.low) / (2 * FOUR_IN_FIVE)
    return NormalDist(log(max_.kg), (known**2 + DAY_FORM**2) ** 0.5)


def chance(max_: Estimate, kg: float) -> float:
    """How likely a load goes up once, fresh, as things stand."""
    return 1 - _of_day(max_).cdf(log(kg))


def attempts(max_: Estimate) -> tuple[Attempt, ...]:
    """Opener, second and third: each the heaviest with the chance it wants, and a step above the one before."""
    of_day = _of_day(max_)
    found: list[Attempt] = []
    for wanted in WANTED:
        kg = _down(Decimal(exp(of_day.inv_cdf(1 - wanted))))
        if found:
            kg = max(kg, found[-1].kg + STEP)
        found.append(Attempt(kg=kg, chance=round(chance(max_, float(kg)), 3)))
    return tuple(found)


def total(lifts: Sequence[Sequence[Attempt]]) -> tuple[Attempt, ...]:
    """What the openers, the seconds and the thirds of several lifts come to, and how likely all of each go up."""
    if len(lifts) < 2:
        return ()
    return tuple(
        Attempt(kg=sum((each.kg for each in row), Decimal(0)), chance=round(prod(each.chance for each in row), 3))
        for row in zip(*lifts, strict=True)
    )


def _down(kg: Decimal) -> Decimal:
    return max(kg // STEP * STEP, STEP)
