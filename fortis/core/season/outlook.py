"""A max in the weeks to come: as it is known now, and ever less sure.

No gain is foretold: what a plan will bring is what training it shows.
"""

from collections.abc import Iterable, Iterator
from datetime import datetime
from math import exp, log

from fortis.core.strength.belief import drift
from fortis.core.strength.day import FOUR_IN_FIVE
from fortis.core.strength.estimate import Estimate


def looking_ahead(max_: Estimate, known_at: datetime, days: Iterable[datetime]) -> Iterator[Estimate]:
    """A max on days to come: the same, its bounds further apart as it may drift until then."""
    below, above = log(max_.kg / max_.low) / FOUR_IN_FIVE, log(max_.high / max_.kg) / FOUR_IN_FIVE
    for day in days:
        drifted = drift(known_at, day)
        low, high = ((known**2 + drifted**2) ** 0.5 * FOUR_IN_FIVE for known in (below, above))
        yield max_.model_copy(update={"low": max_.kg * exp(-low), "high": max_.kg * exp(high)})
