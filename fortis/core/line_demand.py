"""What a line of a session asks of strength: its bouts one after the other, and what else tires its lift.

The loads of a line hang together: told as multiples of one of them they are solved for as one.
"""

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from math import inf
from typing import NamedTuple

from fortis.core.exercises import Exercise
from fortis.core.strength.carrying import shared, taken
from fortis.core.strength.curve import LEAST_SHARE
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import Asked, Taken
from fortis.core.strength.solving import hardest, share_for, spare
from fortis.core.structure.counting import is_rep_target, least_of
from fortis.core.structure.model import USUAL_RESERVE, Hold, Lifting, RangeOfMotion, is_lighter
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.structure.timeline import Step, timeline

MISSING = -0.75
"""Where the hardest bout is expected so many reps short, reps are likely missing."""


Place = tuple[int, int]
"""A bout of a line: its set, and its number in that."""


class Outlook(NamedTuple):
    """What to expect of the hardest bout of a line: its set and bout, its reps, and those left over them.

    Below 0 so many are likely missing. `low` and `high` are the same with the bounds of the max.
    """

    set: int
    bout: int
    reps: int
    left: float
    low: float
    high: float
    keep: float


class Part(NamedTuple):
    """A bout of the line: its set and bout, its weight as a multiple of the lead's, its reps, those to keep.

    Without `reps` it goes to the end. `rest` are the seconds until whatever comes next; `asks` says that the plan
    names the reps to keep, `lighter` that it follows the lead with less.
    """

    set: int
    bout: int
    ratio: float
    reps: int | None
    keep: float
    rest: float
    asks: bool
    lighter: bool

    @property
    def only_tires(self) -> "Part":
        """The same, whatever it leaves."""
        return self._replace(keep=-inf)


@dataclass(frozen=True)
class Demand:
    """A line, and what other lifts take of it, in the order of the session."""

    parts: tuple[Part | Taken, ...]

    def allowed_kg(self, max_: Estimate) -> float | None:
        """The whole weight for the lead bout with which the hardest bout keeps just what it asks.

        None where nothing is asked that any load would meet.
        """
        share = self.times_for({each.set for each in self._bouts}, max_.kg, max_)
        return None if share is None else share * max_.kg

    def times_for(self, sets: Collection[int], lead_kg: float, max_: Estimate) -> float | None:
        """The multiple of the loads of some sets with which the hardest of them keeps just what it asks.

        None where nothing is asked that any load would meet. The other sets only tire, and so do back-offs and
        drops, where bouts with loads of their own say what they are to keep: they become as light as they have to.
        """
        own = [each for each in self._bouts if each.set in sets]
        follow = any(each.asks and not each.lighter for each in own)
        demand = self._with(
            lambda each: each if each.set in sets and not (each.lighter and follow) else each.only_tires
        )
        return share_for(demand._scaled(lead_kg / max_.kg, lambda each: each.set in sets), max_.curve)

    def with_loads(self, sets: Collection[int], times: float) -> "Demand":
        """The same with some sets so many times as heavy."""
        return self._times(times, lambda each: each.set in sets)

    def bouts_with_loads(self, times: Mapping[Place, float]) -> "Demand":
        """The same with some bouts, by their set and number, so many times as heavy."""
        return self._with(lambda each: each._replace(ratio=each.ratio * times.get((each.set, each.bout), 1.0)))

    def lighter(self, lead_kg: float, max_: Estimate) -> float:
        """The multiple of their loads, 1 at most, with which back-offs and drops keep what they ask.

        `lead_kg` is the whole weight of the lead bout. Little is let go: what is written stands.
        """
        if not any(each.lighter for each in self._bouts):
            return 1.0
        share = lead_kg / max_.kg
        demand = self._with(lambda each: _asking(each) if each.lighter else each.only_tires)
        if spare(demand._at(share), max_.curve) >= MISSING:
            return 1.0
        times = share_for(demand._scaled(share, lambda each: each.lighter), max_.curve)
        return 1.0 if times is None else min(times, 1.0)

    def made_lighter(self, times: float) -> "Demand":
        """The same with back-offs and drops so many times as heavy."""
        return self._times(times, lambda each: each.lighter)

    @property
    def _bouts(self) -> Sequence[Part]:
        return [each for each in self.parts if isinstance(each, Part)]

    def _with(self, change: Callable[[Part], Part]) -> "Demand":
        return Demand(tuple(change(each) if isinstance(each, Part) else each for each in self.parts))

    def _times(self, times: float, which: Callable[[Part], bool]) -> "Demand":
        return self._with(lambda each: each._replace(ratio=each.ratio * times) if which(each) else each)

    def _scaled(self, share: float, which: Callable[[Part], bool]) -> Callable[[float], Sequence[Asked | Taken]]:
        """The bouts with the lead at a share of the max, by how many times as heavy some of them are made."""
        scaled = [isinstance(each, Part) and which(each) for each in self.parts]

        def at(times: float) -> Sequence[Asked | Taken]:
            heavier = share * times
            return [
                _asked(each, heavier if moves else share) for each, moves in zip(self.parts, scaled, strict=True)
            ]

        return at

    def outlook(self, lead_kg: float, max_: Estimate) -> Outlook | None:
        """What to expect with a whole weight for the lead bout; None where every bout goes to the end."""
        found = [hardest(self._at(lead_kg / kg), max_.curve) for kg in (max_.kg, max_.low, max_.high)]
        at = found[0].at
        if at is None:
            return None
        part = self.parts[at]
        assert isinstance(part, Part)
        left, low, high = (each.spare + part.keep for each in found)
        return Outlook(part.set, part.bout, part.reps or 0, left, low, high, part.keep)

    def _at(self, share: float) -> Sequence[Asked | Taken]:
        return [_asked(each, share) for each in self.parts]


def _asked(each: Part | Taken, share: float) -> Asked | Taken:
    """A bout with the lead at a share of the max."""
    if isinstance(each, Taken):
        return each
    return Asked(max(share * each.ratio, LEAST_SHARE), each.reps, each.rest, each.keep)


def follows(bout: PlannedBout, lead: PlannedBout) -> bool:
    """Whether a bout follows the lead of its line with less: told so, or found for other reps or reserve."""
    if is_lighter(bout.load):
        return True
    if bout.load or lead.load or bout.climbed or not (bout.settled and lead.settled):
        return False
    asks_other = (bout.reps, bout.effort) != (lead.reps, lead.effort)
    return asks_other and bout.settled.kg < lead.settled.kg


def _asking(each: Part) -> Part:
    """A bout that is to keep what the plan says; nothing, where it says nothing."""
    return each if each.asks else each._replace(keep=0.0)


def demand_of(
    prescription: Prescription,
    sets: Sequence[PlannedSet],
    lead: PlannedBout,
    part: Decimal,
    steps: Sequence[Step] | None = None,
) -> Demand:
    """What a line asks, its loads settled, in its place in the session.

    `sets` are those of the line, `lead` the bout its load is told by, `part` the share of body weight moved,
    `steps` the session in time, where that is known. Where sides are done apart, it is the first that counts; the
    other one is rest.
    """
    first = sets[0]
    side = first.bouts[0].side
    last = {each.number: [bout.number for bout in each.bouts if bout.side is side][-1:] for each in sets}
    lighter = {(each.number, bout.number) for each in sets for bout in each.bouts if follows(bout, lead)}
    lead_kg = float((lead.settled.kg if lead.settled else 0) + part) or 1.0
    lifts = {(each.group, each.entry, each.number): each.lift for each in prescription.sets}
    parts: list[Part | Taken] = []
    for step in timeline(prescription).steps if steps is None else steps:
        own = (step.group, step.entry) == (first.group, first.entry) and step.set in last
        if step.kind != "work" or step.warm_up or step.left_out or (own and step.side is not side):
            parts = _rested(parts, 0 if step.left_out else step.seconds)
        elif own and step.settled is not None and _counts(step):
            asks = step.reserve is not None
            keep = step.reserve if asks else USUAL_RESERVE if [step.bout] == last[step.set] else 0
            reps = least_of(step.target) if step.target and is_rep_target(step.target) else None
            ratio = float(step.settled.kg + part) / lead_kg
            follow = (step.set, step.bout) in lighter
            parts.append(Part(step.set, step.bout, ratio, reps, float(keep or 0), 0.0, asks, follow))
        else:
            takes = 0.0 if own else _takes(lifts[step.group, step.entry, step.set], step, first.lift)
            if takes:
                left = USUAL_RESERVE if step.reserve is None else float(step.reserve)
                parts.append(Taken(takes * taken(step.reps or 0, left), 0.0))
            parts = _rested(parts, step.seconds)
    return Demand(tuple(parts))


def _rested(parts: list[Part | Taken], seconds: float) -> list[Part | Taken]:
    """The same parts with a longer rest after the last."""
    if parts and seconds:
        parts[-1] = parts[-1]._replace(rest=parts[-1].rest + seconds)
    return parts


def _counts(step: Step) -> bool:
    """Whether a max says much of a bout: no holds and no halves, and nobody helps."""
    if isinstance(step.target, Hold):
        return False
    return step.range_of_motion is RangeOfMotion.FULL and step.lifting is Lifting.ALONE


def _takes(lift: Exercise, step: Step, of: Exercise) -> float:
    """How much of what a bout of another line takes the line misses too: all of it where it is the same lift."""
    return float(_counts(step)) if lift.id == of.id else shared(lift, of)
