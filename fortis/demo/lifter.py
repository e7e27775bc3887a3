"""A small simulated lifter: gets tired inside a set, recovers in rests, and misjudges what is left a little.

Strength is a share of the fresh max. A rep at share f costs f/30, so that a fresh lifter does 30 (1/f − 1)
reps to failure; rest brings back a share of what is missing, fast at first and slowly after; a small part
stays lost for the day.
"""

from dataclasses import dataclass, field
from math import exp
from random import Random

from fortis.core.performance import Ended
from fortis.core.structure.model import FixedReps, MaxReps, RepRange, ToFailure, planned_reserve
from fortis.core.structure.timeline import Step

PLENTY = 9
"""From here on lifters tell only that there were many left."""
LASTING = 0.12
"""The share of each rep's cost that does not come back within the day."""


def recovered(seconds: float) -> float:
    """The share of what is missing that a rest gives back."""
    return 1 - (0.45 * exp(-seconds / 17) + 0.55 * exp(-seconds / 150))


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
    _tired: dict[str, float] = field(default_factory=dict)
    _lasting: dict[str, float] = field(default_factory=dict)

    def wake_up(self, form: float) -> None:
        """A new day."""
        self.form = form
        self._tired.clear()
        self._lasting.clear()

    def rest(self, seconds: float) -> None:
        """Let time pass for every lift alike."""
        left = 1 - recovered(seconds)
        self._tired = {lift: tired * left for lift, tired in self._tired.items()}

    def perform(self, step: Step, kg: float) -> Effort:
        """Do a bout with `kg`, the whole weight moved."""
        share = kg / (self.maxes[step.exercise] * self.form)
        muscle = f"{step.exercise} {step.side}"
        missing = self._tired.get(muscle, 0.0) + self._lasting.get(muscle, 0.0)
        possible = max((1 - missing - share) / (share / 30), 0.0)
        reps = self._reps(step, possible)
        cost = reps * share / 30
        self._tired[muscle] = self._tired.get(muscle, 0.0) + cost * (1 - LASTING)
        self._lasting[muscle] = self._lasting.get(muscle, 0.0) + cost * LASTING
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
