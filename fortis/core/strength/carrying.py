"""How far one lift tires another: as far as they share muscles."""

from collections.abc import Hashable, Mapping
from typing import Generic, TypeVar

from fortis.core.exercises import Exercise
from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.momentary import Expected, Momentary

Key = TypeVar("Key", bound=Hashable)

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


class Strengths(Generic[Key]):
    """The strength in several lifts as a session goes on, told apart by some key.

    Each is tired by its own bouts and by those of the others, as far as they share muscles, and rests while
    anything else is done.
    """

    def __init__(self, lifts: Mapping[Key, tuple[Exercise, RepCurve]]) -> None:
        self._strengths = {key: Momentary(curve) for key, (_, curve) in lifts.items()}
        self._tires = {
            key: [
                (self._strengths[other], share)
                for other, (other_lift, _) in lifts.items()
                if (share := shared(other_lift, lift))
            ]
            for key, (lift, _) in lifts.items()
        }

    def left(self, key: Key, share: float) -> float:
        """Reps that are left in a lift at a share of its max, now."""
        return self._strengths[key].left(share)

    def perform(self, key: Key, share: float, reps: int | None, seconds: float) -> Expected:
        """Do a bout of a lift, which takes some seconds, as far as its strength goes."""
        at_work = self._strengths[key]
        before = at_work.spent
        expected = at_work.perform(share, reps)
        for other, part in self._tires[key]:
            other.tire(part * (at_work.spent - before))
        for each in self._strengths.values():
            if each is not at_work:
                each.rest(seconds)
        return expected

    def rest(self, seconds: float) -> None:
        """Let time pass for all of them."""
        for strength in self._strengths.values():
            strength.rest(seconds)
