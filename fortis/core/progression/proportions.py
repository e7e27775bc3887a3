"""Lighter sets that name no load: they keep their proportion to the heaviest, moved by how they went beside it."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property

from fortis.core.loading.nearest import Where
from fortis.core.progression.decision import LARGEST_RISE, RISE_A_REP
from fortis.core.progression.line_went import LineWent, Pair, overs_of
from fortis.core.progression.misses import A_CUT
from fortis.core.progression.policy import PolicyKind
from fortis.core.reason import Reason
from fortis.core.structure.counting import least_of
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Settled
from fortis.core.structure.timeline import asked
from fortis.core.units import plain

A_REP = Decimal("0.0075")
"""How much they move for a rep left more or fewer than in the heaviest, beside the plan: less than a rep is worth,
since a call is easily off by one. The form of the day is in both of them."""
PLENTY = 3
"""No call is off by so many: sets that leave so many more go up as a load alone does."""
FEWER_LEFT = -2
"""Sets that leave so many fewer than planned are too heavy: one fewer is a day like others."""


@dataclass
class Lighter:
    """Sets of a line that ask the same: their share of the heaviest, and the bouts that tell how they went.

    `pairs` are empty for the heaviest itself, and where nothing was done that tells. `beside` are the reps that the
    heaviest left beyond the plan, `cut` says that it comes down by itself.
    """

    sets: Sequence[PlannedSet]
    share: Decimal
    pairs: Sequence[Pair]
    beside: Decimal
    cut: bool

    @cached_property
    def missed(self) -> Pair | None:
        """The bout that missed the most reps; None where none missed any."""
        return max((pair for pair in self.pairs if pair.missed), key=lambda pair: pair.short_by, default=None)

    @cached_property
    def over(self) -> Decimal | None:
        """The fewest reps left beyond the plan; None where that is not known."""
        return min(overs_of(self.pairs), default=None)

    @property
    def off(self) -> Decimal:
        """How many reps more they left than the heaviest, beside the plan; 0 where that is not known."""
        return Decimal(0) if self.over is None else self.over - self.beside

    @cached_property
    def times(self) -> Decimal:
        """What their share of the heaviest is multiplied by from this time to the next: up to all of it."""
        times = 1 + min(self.off * A_REP, A_CUT)
        if self.over is not None and min(self.over, self.off) >= PLENTY:
            times = min(1 + self.off * RISE_A_REP, LARGEST_RISE)
        if self.missed and not self.cut:
            times = min(times, 1 - A_CUT)
        if not all(pair.at_top for pair in self.pairs):
            times = min(times, Decimal(1))
        return min(times, 1 / self.share)

    @property
    def next_share(self) -> Decimal:
        """Their share of the heaviest the next time."""
        return round(self.share * self.times, 4)

    @property
    def fell_short(self) -> bool:
        """Whether they are too heavy by themselves."""
        return self.missed is not None or (self.over is not None and self.over <= FEWER_LEFT)

    @property
    def told(self) -> Reason | None:
        """That they go up or down beside the heaviest, and why; None where they stay."""
        if self.times == 1:
            return None
        bout = self.pairs[0].planned
        which = f"{'sets' if len(self.sets) > 1 else 'set'} of {asked(bout)}"
        percent = plain(abs(round((self.times - 1) * 100, 2)))
        change = f"{percent} % {'more' if self.times > 1 else 'less'} beside"
        if self.missed:
            text = f"{self.missed.number} of {least_of(bout.reps)} reps in the {which}: {change} the heaviest."
        else:
            left = f"{plain(abs(self.off))} {'more' if self.off > 0 else 'fewer'} left"
            text = f"Against the plan the {which} ended with {left} than the heaviest: {change} it."
        return Reason(code="proportion", text=text, values={"share": self.next_share})


def lighter_sets(line: LineWent) -> Sequence[Lighter]:
    """What a line asks that names no load, in its order; empty where its sets are all alike or a load is named."""
    by_asks: dict[tuple[PlannedBout, ...], list[PlannedSet]] = {}
    for each in line.sets:
        by_asks.setdefault(each.asks, []).append(each)
    if line.written is not None or len(by_asks) < 2:
        return ()
    found = [_lighter(line, sets) for sets in by_asks.values()]
    told = [each for each in found if each]
    return told if len(told) == len(found) else ()


def _lighter(line: LineWent, sets: Sequence[PlannedSet]) -> Lighter | None:
    """Sets that ask the same, by the loads that were lifted; None where their share of the heaviest cannot be told.

    Who lifts one load in all of them has not made them as heavy as the heaviest: their share is the planned one.
    """
    settled, heaviest = sets[0].bouts[0].settled, line.lead.planned.settled
    if settled is None or heaviest is None or line.part is None:
        return None
    places = {(each.round, each.number) for each in sets}
    over, cut = min(line.overs, default=Decimal(0)), bool(line.missed)
    if line.lead.place in places:
        return Lighter(sets, Decimal(1), (), over, cut)
    own = [pair for pair in line.following if pair.planned.load is None and pair.place in places]
    top = max((pair.kg for pair in own), default=line.was_kg)
    told = [pair for pair in own if pair.kg == top]
    planned_kg = _before_rounding(line, settled)
    if top >= line.was_kg:
        kg, beside, told = planned_kg, heaviest.kg, []
    elif (before := _before_the_day(told)) is not None:
        kg, beside, told = before, heaviest.kg, []
    else:
        kg, beside = planned_kg if top == settled.kg else top, line.was_kg
    if line.policy.kind is PolicyKind.KEEP:
        told = []
    if beside + line.part <= 0:
        return None
    share = min(round((kg + line.part) / (beside + line.part), 4), Decimal(1))
    if share <= 0:
        return None
    return Lighter(sets, share, told, over, cut)


def _before_the_day(told: Sequence[Pair]) -> Decimal | None:
    """The load that sets were to have before the Floor made them lighter, where they went as planned with less.

    The day was a bad one: it is in the heaviest as well, and their share of that says nothing of it.
    """
    too_hard = any(pair.missed for pair in told) or min(overs_of(told), default=Decimal(0)) < 0
    return None if too_hard or not told else told[0].before_the_day


def _before_rounding(line: LineWent, settled: Settled) -> Decimal:
    """A load as it was wanted, so that rounding adds up to nothing; what it was changed to, where it was."""
    rounded = (line.nearest(settled.wanted_kg, where).kg for where in (Where.NEAREST, Where.BELOW))
    return settled.wanted_kg if settled.kg in rounded else settled.kg
