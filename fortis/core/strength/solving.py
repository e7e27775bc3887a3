"""The load that some bouts allow, solved through the tiredness among them: the scarcest keeps what was asked."""

from collections.abc import Callable, Sequence
from math import inf
from typing import NamedTuple

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.momentary import Asked, Momentary, Taken

LEAST, MOST = 0.1, 1.2
"""Between these shares of the max lies the load of every set that anybody plans."""


class Hardest(NamedTuple):
    """The bout that keeps least of what was asked: where it stands, and its reps left over those asked.

    `spare` is below 0 by as many reps as are missing; `at` is None where no bout asks for anything.
    """

    at: int | None
    spare: float


def hardest(bouts: Sequence[Asked | Taken], curve: RepCurve = DEFAULT_CURVE) -> Hardest:
    """The hardest of some bouts. Those that go to the end keep none, and ask for none; nobody goes beyond."""
    strength, found = Momentary(curve), Hardest(None, inf)
    for at, each in enumerate(bouts):
        if isinstance(each, Taken):
            strength.tire(each.cost)
        else:
            cost = curve.cost(each.share)
            reach = strength.reach(each.share, cost)
            possible = max(reach, 0.0)
            if each.reps is not None and reach - each.reps - each.keep < found.spare:
                found = Hardest(at, reach - each.reps - each.keep)
            strength.tire((possible if each.reps is None else min(possible, each.reps)) * cost)
        strength.rest(each.rest)
    return found


def spare(bouts: Sequence[Asked | Taken], curve: RepCurve = DEFAULT_CURVE) -> float:
    """How many reps more than asked the scarcest bout keeps; below 0 where some are missing."""
    return hardest(bouts, curve).spare


def share_for(set_at: Callable[[float], Sequence[Asked | Taken]], curve: RepCurve = DEFAULT_CURVE) -> float | None:
    """The share of the max for the first bout of a set with which the scarcest keeps just what was asked.

    `set_at` lays the set out for a share of its first bout. None where the lightest load is too heavy for it, and
    where it asks for nothing.
    """

    def found(share: float) -> float:
        return min(spare(set_at(share), curve), 1_000.0)

    ends = {LEAST: found(LEAST), MOST: found(MOST)}
    if ends[LEAST] < 0 or ends[MOST] > 0:
        return None
    from scipy.optimize import brentq  # here because importing it takes as long as all the rest of a command

    return float(brentq(lambda share: ends[share] if share in ends else found(share), LEAST, MOST, xtol=1e-5))
