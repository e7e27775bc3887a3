"""The load that a set allows, solved through the tiredness inside it: its scarcest bout keeps what was asked."""

from collections.abc import Callable, Sequence
from math import inf

from scipy.optimize import brentq

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.momentary import Asked, Momentary

LEAST, MOST = 0.1, 1.2
"""Between these shares of the max lies the load of every set that anybody plans."""


def spare(bouts: Sequence[Asked], curve: RepCurve = DEFAULT_CURVE) -> float:
    """How many reps more than asked the scarcest bout of a set keeps; below 0 where some are missing.

    Bouts that go to the end keep none, and ask for none.
    """
    strength, found = Momentary(curve), inf
    for each in bouts:
        reach = strength.reach(each.share)
        done = max(reach, 0.0) if each.reps is None else each.reps
        if each.reps is not None:
            found = min(found, reach - done - each.keep)
        strength.tire(done * curve.cost(each.share))
        strength.rest(each.rest)
    return found


def share_for(set_at: Callable[[float], Sequence[Asked]], curve: RepCurve = DEFAULT_CURVE) -> float | None:
    """The share of the max for the first bout of a set with which the scarcest keeps just what was asked.

    `set_at` lays the set out for a share of its first bout. None where the lightest load is too heavy for it, and
    where it asks for nothing.
    """

    def found(share: float) -> float:
        return min(spare(set_at(share), curve), 1_000.0)

    if found(LEAST) < 0 or found(MOST) > 0:
        return None
    return float(brentq(found, LEAST, MOST, xtol=1e-5))
