"""A small simulated lifter: gets tired inside a set, recovers in rests, and misjudges what is left a little."""

from dataclasses import dataclass, field
from random import Random

from fortis.core.exercises import LIBRARY
from fortis.core.performance import Ended
from fortis.core.strength.carrying import Strengths
from fortis.core.strength.curve import DEFAULT_CURVE
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
    _strengths: Strengths[tuple[str, Side]] = field(default_factory=lambda: Strengths({}))

    def wake_up(self, form: float) -> None:
        """A new day."""
        self.form = form
        lifts = {lift: (LIBRARY.find(lift), DEFAULT_CURVE) for lift in self.maxes}
        self._strengths = Strengths({(lift, side): lifts[lift] for lift in lifts for side in SIDES})

    def gain(self, share: float) -> None:
        """Let every max grow by a share of it."""
        self.maxes = {lift: kg * (1 + share) for lift, kg in self.maxes.items()}

    def rest(self, seconds: float) -> None:
        """Let time pass for every lift alike."""
        self._strengths.rest(seconds)

    def perform(self, step: Step, kg: float) -> Effort:
        """Do a bout with `kg`, the whole weight moved. The way up makes ready and does not tire."""
        if step.warm_up:
            return Effort(reps=step.least or 0, reserve=PLENTY, or_more=True, ended=Ended.MET)
        share = kg / (self.maxes[step.exercise] * self.form)
        lift = step.exercise, step.side
        possible = self._strengths.left(lift, share)
        reps = self._reps(step, possible)
        self._strengths.perform(lift, share, reps, step.seconds)
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
