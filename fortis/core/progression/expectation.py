"""What to expect of a bout in its line, and what the way it went says of the day and of the sets to come."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import NamedTuple

from fortis.core.cache import cached, cached_method
from fortis.core.line_demand import Part, Place
from fortis.core.strength.curve import DEFAULT_CURVE, LEAST_SHARE, RepCurve
from fortis.core.strength.day import FOUR_IN_FIVE
from fortis.core.strength.estimate import MOST_REPS, Estimate
from fortis.core.strength.momentary import Asked, Momentary, Taken
from fortis.core.strength.solving import share_for
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import planned_reserve
from fortis.core.structure.prescription import PlannedBout, PlannedSet

DAY_SPREAD = 0.03
"""How far off the max a day may be, as far as the Floor believes it: sleep, food, stress (common practice)."""
CALLED_WITHIN, CALLED_WITHIN_EACH = 1.0, 0.15
"""A call is off by a rep or so, by more the more are left (common practice)."""
STUCK_WITHIN = 0.5
"""A rep that would not move leaves little to judge."""
_NEVER = -1_000.0


@dataclass(frozen=True)
class Expectation:
    """What to expect of a bout, and of what follows it.

    `share` is its load as a share of the max, `spent` the strength that is missing before it, `left` the reps to
    be left as this lifter calls them, where the line is to end as it asks. `follows` is what the sets to come may
    weigh to end so, as a share of what they do; `asks` says that they name the reps to keep. `spread` is how far
    off the max may be today, as a share of it; None where no max is known, and the outcome is all there is.
    """

    share: float
    spent: float
    left: float
    follows: float = 1.0
    asks: bool = True
    spread: float | None = None
    curve: RepCurve = DEFAULT_CURVE
    calls: float = 1.0

    @classmethod
    def alone(cls, bout: PlannedBout) -> "Expectation":
        """A bout of which nothing else is known: just as hard as planned, by the usual curve."""
        return _alone(least_of(bout.reps), float(planned_reserve(bout.effort) or 0))

    @cached_method
    def form(self, done: int, left: float | None, times: int = 1) -> float:
        """How far today lies above or below what was known, as a share of it, by the reps done and left as called.

        Without `left` the next rep would not move. So many `times` the same was seen.
        """
        reps = min(done + (left or 0.0) * self.calls, MOST_REPS)
        found = self.curve.share(reps)
        for _ in range(4 if self.spent else 0):
            found = self.curve.share(reps + self.spent / self.curve.cost(found))
        away = self.share / found - 1
        if self.spread is None:
            return away
        within = STUCK_WITHIN if not left else CALLED_WITHIN + CALLED_WITHIN_EACH * left
        off = within * self.curve.cost(self.share)
        sure = times * self.spread**2
        return sure / (sure + off**2) * away

    def ratio(self, form: float) -> float:
        """What the sets to come are to weigh on such a day, as a share of what they do.

        Sets that name no reps to keep are as light as they were meant to be.
        """
        return (1 + form) * (self.follows if self.asks else min(self.follows, 1.0))


@cached(256)
def _alone(least: int, left: float) -> Expectation:
    return Expectation(share=DEFAULT_CURVE.share(min(least + left, MOST_REPS)), spent=0.0, left=left)


@dataclass(frozen=True)
class LineAsks:
    """What a line asks, bout by bout with its rests, and what is known of its max.

    `parts` are its bouts and what other lifts take, in their order; `part` is the share of body weight moved, None
    where that is not known.
    """

    parts: tuple[Part | Taken, ...]
    max: Estimate | None
    part: Decimal | None

    def foreseen(self, sets: Sequence[PlannedSet]) -> "Foreseen | None":
        """The line with the loads of `sets`; None where too little is known to foresee it."""
        if self.max is None or self.part is None:
            return None
        return Foreseen(self.parts, self.max, float(self.part), sets)


@dataclass(frozen=True)
class Foreseen:
    """A line foreseen by its max; `body` kilograms of body weight are moved with each bout."""

    all_parts: tuple[Part | Taken, ...]
    max: Estimate
    body: float
    sets: Sequence[PlannedSet]

    def expectation(self, place: Place, moving: frozenset[Place]) -> Expectation | None:
        """What to expect of a bout of the line, itself one of those `moving`: their loads change together.

        None where a max says nothing of it.
        """
        at = next((at for at, each in enumerate(self._parts) if _place(each) == place), None)
        if at is None:
            return None
        judged = self._parts[at]
        share = self._share_of(judged)
        if not isinstance(judged, Part) or judged.reps is None or share <= 0:
            return None
        line = self._line_share(share, moving)
        if line is None:
            return None
        spent = _done(self._asked(self._parts[:at], moving, 1.0), self._curve).strength.spent
        course = _done(self._asked(self._parts[:at], moving, line / share), self._curve).strength
        to_come = [part for part in self._parts[at + 1 :] if _place(part) in moving]
        return Expectation(
            share=share,
            spent=spent,
            left=max(course.reach(line) - judged.reps, 0.0) / self.max.calls,
            follows=self._follows(at, share, moving) if to_come else 1.0,
            asks=any(isinstance(part, Part) and part.asks for part in to_come),
            spread=self._spread,
            curve=self._curve,
            calls=self.max.calls,
        )

    @cached_method
    def _line_share(self, share: float, moving: frozenset[Place]) -> float | None:
        """What of the max a load at `share` would have to be for the line to end as it asks."""
        return share_for(lambda now: self._asked(self._parts, moving, now / share), self._curve)

    def _follows(self, at: int, share: float, moving: frozenset[Place]) -> float:
        """What the sets to come may weigh after what was done, as a share of what they do."""
        done = _done(self._asked(self._parts[: at + 1], moving, 1.0), self._curve).taken
        later = self._parts[at + 1 :]
        found = share_for(lambda now: [*done, *self._asked(later, moving, now / share)], self._curve)
        return 1.0 if found is None else found / share

    def _asked(self, parts: Sequence[Part | Taken], moving: frozenset[Place], ratio: float) -> list[Asked | Taken]:
        """Parts with the loads of those that move in a ratio; the others keep theirs, and are not judged."""
        found: list[Asked | Taken] = []
        for part in parts:
            if isinstance(part, Taken):
                found.append(part)
                continue
            moves = _place(part) in moving
            share = max(self._share_of(part) * (ratio if moves else 1.0), LEAST_SHARE)
            keep = (part.keep if part.asks else 0.0) if moves else _NEVER
            found.append(Asked(share, part.reps, part.rest, keep))
        return found

    def _share_of(self, part: Part | Taken) -> float:
        return 0.0 if isinstance(part, Taken) else self._moved_kg[part.set, part.bout] / self.max.kg

    @cached_property
    def _parts(self) -> tuple[Part | Taken, ...]:
        """The parts of the line that are still in it."""
        return tuple(part for part in self.all_parts if isinstance(part, Taken) or _place(part) in self._moved_kg)

    @cached_property
    def _moved_kg(self) -> dict[Place, float]:
        return {
            (each.number, bout.number): float(bout.settled.kg) + self.body
            for each in self.sets
            for bout in each.open_bouts
            if bout.settled
        }

    @property
    def _curve(self) -> RepCurve:
        return self.max.curve

    @property
    def _spread(self) -> float:
        sure = (self.max.high - self.max.low) / 2 / FOUR_IN_FIVE / self.max.kg
        return float((DAY_SPREAD**2 + sure**2) ** 0.5)


def _place(part: Part | Taken) -> Place | None:
    """Which bout of the line it is; None where it is of another one."""
    return None if isinstance(part, Taken) else (part.set, part.bout)


class _Done(NamedTuple):
    """Bouts done as planned: what each took, and the strength that is left."""

    taken: list[Taken]
    strength: Momentary


def _done(bouts: Sequence[Asked | Taken], curve: RepCurve) -> _Done:
    """Do some bouts as planned; one that goes to the end takes all that is there."""
    strength, taken = Momentary(curve), []
    for each in bouts:
        if isinstance(each, Taken):
            took = each
        else:
            reps = each.reps if each.reps is not None else strength.left(each.share)
            took = Taken(reps * curve.cost(each.share), each.rest)
        strength.tire(took.cost)
        strength.rest(took.rest)
        taken.append(took)
    return _Done(taken, strength)
