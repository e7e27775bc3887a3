"""A small simulated lifter: gets tired inside a set, recovers in rests, and misjudges what is left a little."""

from dataclasses import dataclass, field
from random import Random

from fortis.core.exercises import LIBRARY
from fortis.core.performance import Ended
from fortis.core.strength.carrying import shared
from fortis.core.strength.momentary import Momentary
from fortis.core.structure.model import FixedReps, MaxReps, RepRange, Side, ToFailure, planned_reserve
from fortis.core.structure.timeline import Step

SIDES = (Side.BOTH, Side.LEFT, Side.RIGHT)
PLENTY = 9
"""From here on lifters tell only that there were many left."""


@dataclass
class Effort:
    """How a bout went. From `PLENTY` on, `reserve` is told as so many or more."""

    reps: int
    reserve: int
    or_more: bool
    ended: Ended


@dataclass
class SimulatedLifter:
    """`maxes` are the true fresh maxes by lift in kg; `form` is today's share of them."""

    maxes: dict[str, float]
    random: Random
    form: float = 1.0
    _strength: dict[tuple[str, Side], Momentary] = field(default_factory=dict)

    def wake_up(self, form: float) -> None:
        """A new day."""
        self.form = form
        self._strength = {(lift, side): Momentary() for lift in self.maxes for side in SIDES}

    def rest(self, seconds: float) -> None:
        """Let time pass for every lift alike."""
        for strength in self._strength.values():
            strength.rest(seconds)

    def perform(self, step: Step, kg: float) -> Effort:
        """Do a bout with `kg`, the whole weight moved."""
        share = kg / (self.maxes[step.exercise] * self.form)
        strength = self._strength[step.exercise, step.side]
        possible, before = strength.left(share), strength.spent
        reps = self._reps(step, possible)
        strength.perform(share, reps)
        lift = LIBRARY.find(step.exercise)
        for (other, _), tired in self._strength.items():
            if part := shared(LIBRARY.find(other), lift):
                tired.tire(part * (strength.spent - before))
            if tired is not strength:
                tired.rest(step.seconds)
        if reps < (step.least or 0):
            return Effort(reps=reps, reserve=0, or_more=False, ended=Ended.STUCK)
        judged = self._judged(possible - reps)
        return Effort(reps=reps, reserve=min(judged, PLENTY), or_more=judged >= PLENTY, ended=Ended.MET)

    def _reps(self, step: Step, possible: float) -> int:
        target = step.target
        most = int(possible)
        if isinstance(step.effort, ToFailure) or isinstance(target, MaxReps):
            return most
        match target:
            case FixedReps(count=count):
                return min(count, most)
            case RepRange(low=low, high=high):
                keep = float(planned_reserve(step.effort) or 0)
                return min(max(int(possible - keep), low), high, most)
        return 0

    def _judged(self, left: float) -> int:
        """Reps left as the lifter would tell them: a little under the truth, and vaguer the more there are."""
        return max(round(left * 0.9 + self.random.gauss(0, 0.08 * left)), 0)
