"""How far one lift tires another: as far as they share muscles."""

from fortis.core.exercises import Exercise
from fortis.core.strength.curve import DEFAULT_CURVE

CARRIED = 0.45
"""What a lift with the same muscles misses of what the other does (common practice, no source)."""
HELPING = 0.5
"""How far muscles that only help are worked."""


def shared(lift: Exercise, other: Exercise) -> float:
    """The share of what another lift takes that this one misses too: 0 where it works none of its prime muscles."""
    if lift.id == other.id or not lift.prime:
        return 0.0
    worked = sum(1.0 if each in other.prime else HELPING if each in other.helping else 0.0 for each in lift.prime)
    return CARRIED * worked / len(lift.prime)


def taken(reps: int, left: float) -> float:
    """What a bout takes of strength by the usual curve, whatever its load: its reps, and those left, say enough."""
    return reps * DEFAULT_CURVE.cost(DEFAULT_CURVE.share(max(reps + left, 1.0)))
