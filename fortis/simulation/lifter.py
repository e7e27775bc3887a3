"""A made-up lifter whose true max, endurance, recovery and misjudgement are known.

A lifter is put together from a curve (how many reps a share of the max allows), a way to recover, and habits of
calling reps in reserve. None of them is the model that Fortis judges logs by.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import exp, log
from random import Random

MOST_REPS = 60.0
A_DAY = 0.02
"""How much the max varies from day to day: one standard deviation, as a share of it."""
PLENTY = 5
"""From here on lifters say only that there were so many or more."""

Curve = Callable[[float], float]
Recovery = Callable[[float], float]


def _hyperbola(share: float) -> float:
    return 30 * (1 / share - 1)


def _line(share: float) -> float:
    return 36 * (1 - share)


def _power(share: float) -> float:
    return float(share**-10) - 1


def _exponential(share: float) -> float:
    beyond = (100 * share - 52.2) / 41.9
    return MOST_REPS if beyond <= 0 else min(max((log(47.8 / 41.9) - log(beyond)) / 0.055, 0.0), MOST_REPS)


CURVES: Mapping[str, Curve] = {
    "hyperbola": _hyperbola,
    "line": _line,
    "power": _power,
    "exponential": _exponential,
}
"""Reps beyond a single from fresh to failure at a share of the max, 0 at the max itself: the shapes behind Epley
1985, Brzycki 1993, Lombardi 1989 and Mayhew et al. 1992, turned around (from memory)."""


def _twofold(random: Random) -> Recovery:
    fast, quick, slow = random.uniform(0.35, 0.55), random.uniform(12, 25), random.uniform(110, 220)
    return lambda seconds: 1 - fast * exp(-seconds / quick) - (1 - fast) * exp(-seconds / slow)


def _single(random: Random) -> Recovery:
    slow = random.uniform(50, 110)
    return lambda seconds: 1 - exp(-seconds / slow)


def _hyperbolic(random: Random) -> Recovery:
    half = random.uniform(25, 60)
    return lambda seconds: seconds / (seconds + half)


RECOVERIES: Mapping[str, Callable[[Random], Recovery]] = {
    "twofold": _twofold,
    "single": _single,
    "hyperbolic": _hyperbolic,
}
"""The share of what is missing that a rest brings back: fast and slow, at one pace, slower and slower."""


@dataclass
class MadeUpLifter:
    """Strength in one lift, bout by bout. `max_kg` is what goes up once when fresh, `form` today's share of it.

    `endurance` multiplies the reps of the curve; `lasting` is the share of fatigue that stays for the session.
    `bias` is how many reps too many or too few are called where many are left, `spread` how much that varies.
    """

    random: Random
    max_kg: float
    curve: Curve
    recovery: Recovery
    endurance: float
    lasting: float
    bias: float
    spread: float
    form: float = 1.0
    missing: float = 0.0
    gone: float = 0.0

    def wake_up(self) -> None:
        """A new day, as fresh as the day is good."""
        self.form = exp(self.random.gauss(0, A_DAY))
        self.missing = self.gone = 0.0

    def tire(self, missing: float, gone: float) -> None:
        """Be tired by another lift: by what rests bring back, and by what stays for the day."""
        self.missing += missing
        self.gone += gone

    def rest(self, seconds: float) -> None:
        """Let time pass."""
        self.missing *= 1 - self.recovery(seconds)

    def left(self, kg: float) -> float:
        """Reps that would be left with a load now, below one where it would not move."""
        share = kg / (self.max_kg * self.form)
        return 1 + (1 - self.missing - self.gone - share) / self._cost(share)

    def lift(self, kg: float, reps: int | None) -> tuple[int, float]:
        """Do a bout (None: to failure); the reps that were done, and those that were left."""
        left = max(self.left(kg), 0.0)
        done = int(left) if reps is None else min(reps, int(left))
        cost = done * self._cost(kg / (self.max_kg * self.form))
        self.missing += cost * (1 - self.lasting)
        self.gone += cost * self.lasting
        return done, left - done

    def called(self, left: float) -> str:
        """The reps left as this lifter calls them: sure at failure, vaguer and further off the more there are."""
        weight = left / (left + 2)
        felt = left + self.bias * weight + self.random.gauss(0, self.spread * (0.3 + 0.15 * left))
        told = max(round(felt), 0)
        return f"{PLENTY}+" if told >= PLENTY else str(told)

    def _cost(self, share: float) -> float:
        if share >= 0.99:
            return 0.01
        return (1 - share) / min(max(self.curve(share) * self.endurance, 0.5), MOST_REPS)


def made_up(random: Random, max_kg: float, curve: str, recovery: str) -> MadeUpLifter:
    """A lifter of some kind, as chance has it."""
    return MadeUpLifter(
        random=random,
        max_kg=max_kg,
        curve=CURVES[curve],
        recovery=RECOVERIES[recovery](random),
        endurance=exp(random.gauss(0, 0.15)),
        lasting=random.uniform(0.02, 0.12),
        bias=random.uniform(-3, 2),
        spread=random.uniform(0.5, 1.5),
    )
