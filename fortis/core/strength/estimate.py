"""An estimated one-rep max with how sure it is, and the loads that follow from it."""

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.value import Value

MOST_REPS = 30
"""Beyond this many reps a set says next to nothing about the max; reps are counted as this many."""


class Estimate(Value):
    """A one-rep max in kg, `low` to `high` where it could lie, and the rep curve that goes with it.

    `calls` are the reps that this lifter has left for each one called.
    """

    kg: float
    low: float
    high: float
    curve: RepCurve = DEFAULT_CURVE
    calls: float = 1.0

    def times(self, share: float) -> "Estimate":
        """So many times the max, as sure as it is."""
        return self.model_copy(update={"kg": self.kg * share, "low": self.low * share, "high": self.high * share})

    def widened(self, share: float) -> "Estimate":
        """The same max, less sure by a share of it on either side."""
        return self.model_copy(update={"low": self.low - share * self.kg, "high": self.high + share * self.kg})


ENDURANCE_SPREAD = 1.2
"""How many times the usual reps at a load a lifter may have, or how few: most lie between (common practice)."""


def estimate(kg: float, reps: int, reserve: float) -> Estimate:
    """The max behind one fresh bout: a load, full reps done (at least 1) and reps left, in steps of a half.

    Reserve is a judgement: it can be one rep off either way, and endurance differs. A true single is the max
    itself.
    """
    to_failure = min(reps + reserve, MOST_REPS)
    misjudged = 1 if reserve else 0
    found = max_behind(kg, to_failure)
    low = max_behind(kg, max(to_failure - misjudged, 1), ENDURANCE_SPREAD)
    high = max_behind(kg, min(to_failure + misjudged, MOST_REPS), 1 / ENDURANCE_SPREAD)
    return Estimate(kg=found, low=low, high=high)


def max_behind(kg: float, to_failure: float, endurance: float = 1.0) -> float:
    """The max where a load allows so many reps, by a curve of so many times the usual endurance."""
    curve = RepCurve(endurance=DEFAULT_CURVE.endurance * endurance)
    return kg / curve.share(to_failure)


def load_for(max_kg: float, reps: int, reserve: float, curve: RepCurve = DEFAULT_CURVE) -> float:
    """The load that a max allows for `reps` with `reserve` left: the estimate, turned around."""
    return max_kg * curve.share(min(reps + reserve, MOST_REPS))
