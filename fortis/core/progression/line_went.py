"""A line as it went: what was done of what was planned, and what the max allows for it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from functools import cached_property
from itertools import accumulate
from typing import Self

from fortis.core.basis import Instead
from fortis.core.exercises import Exercise, LoadKind
from fortis.core.line import Line, by_line
from fortis.core.line_demand import MISSING, Demand, Outlook, Place, demand_of, follows
from fortis.core.line_loads import lead_of
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import UNKNOWN_STEP, Build, Where, is_known, nearest_told, next_above
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.carried import adapted, is_straight
from fortis.core.progression.policy import BY_EFFORT, Policy
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import count_of, is_rep_target, least_of, most_of
from fortis.core.structure.model import (
    FixedReps,
    Hold,
    LiftKey,
    LoadTarget,
    RepRange,
    ToFailure,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription
from fortis.core.structure.timeline import asked
from fortis.core.units import plain

_NO_LOAD = Decimal(-10_000)


@dataclass
class Pair:
    """A bout as planned and as done."""

    planned: PlannedBout
    done: PerformedBout

    @property
    def number(self) -> int:
        """What counts of it: reps, or half reps where those were asked."""
        return self.done.number_beside(self.planned)

    def told(self, kg: Decimal, number: int, left: Decimal | None) -> "Pair":
        """The same bout, done with another load, so many of what counts, and so many left."""
        count = count_of(self.planned.reps, self.planned.range_of_motion, number)
        own = {"kg": kg, "reserve": left, "or_more": False, "ended": Ended.MET, **dict(count)}
        return Pair(self.planned, self.done.model_copy(update=own))

    @property
    def place(self) -> tuple[int, int]:
        """The round and the number of its set."""
        return self.done.position.round, self.done.position.set

    @property
    def kg(self) -> Decimal:
        """The load it was done with, for the heaviest to be found; far below all where it had none."""
        return _NO_LOAD if self.done.kg is None else self.done.kg

    @property
    def planned_kg(self) -> Decimal:
        """The same of the load that was planned."""
        return self.planned.settled.kg if self.planned.settled else _NO_LOAD

    @property
    def before_the_day(self) -> Decimal | None:
        """The load that was planned before advice made it lighter; None where it was not done with less by that."""
        settled = self.planned.settled
        if settled is None or not settled.advised or self.kg != settled.kg or settled.kg >= settled.wanted_kg:
            return None
        return settled.wanted_kg

    @property
    def as_written(self) -> PlannedBout:
        """The bout as it is written, whatever reps stand in for it."""
        return self.planned.model_copy(update={"reps": self.planned.reps_of or self.planned.reps})

    @property
    def short_by(self) -> int:
        """Reps missing to the least that was asked."""
        return max(least_of(self.planned.reps) - self.number, 0)

    @property
    def to_failure(self) -> bool:
        """Whether it was meant to go on until no rep is left."""
        return isinstance(self.planned.effort, ToFailure)

    @property
    def missed(self) -> bool:
        """Whether the target was not met; a set to failure may end a rep short."""
        return self.short_by > (1 if self.to_failure else 0)

    @property
    def left(self) -> Decimal | None:
        """Reps left, as they turned out or were called, a bound taken at its word; None where nobody said."""
        return self.done.left if self.done.left is not None else self.done.reserve

    @property
    def reserve_over(self) -> Decimal | None:
        """Reps left beyond the plan, to the half.

        Negative where the bout was harder than planned. None where unknown.
        """
        asked, left = planned_reserve(self.planned.effort), self.left
        if asked is None or left is None:
            return None
        spare = self.number - (most_of(self.planned.reps) or 0)
        if self.to_failure:
            return Decimal(self.number - least_of(self.planned.reps))
        if isinstance(self.planned.reps, RepRange):
            spare = max(spare, 0)
        return left + spare - asked

    @property
    def spent(self) -> bool:
        """Whether it ended with none left although no effort was asked."""
        return self.planned.effort is None and self.left == 0

    @property
    def at_top(self) -> bool:
        """Whether the most that was asked was done."""
        return self.number >= (most_of(self.planned.reps) or 0)


Changed = tuple[FixedReps | Hold | None, int | None, int | None]
"""Other reps (or seconds of a hold), more sets, other rests; None leaves them."""


@dataclass
class LineWent:
    """The sets of one lift of a line, as planned and as done: all there is to weigh for its next time.

    `line` is the one of its session, `lead` the bout its load is told by, done with `was_kg`; `written` is the load
    that is written for it. `judged` are the bouts of which it can be told whether their target was met, `open`
    others beside them that were to go on as long as they can; `part` is what of body weight is moved, `demands`
    what it asks with other reps, sets or rests, as far as that was wanted.
    """

    line: Line
    sets: list[PlannedSet]
    written: LoadTarget | None
    lead: Pair
    was_kg: Decimal
    judged: list[Pair]
    open: list[Pair]
    kit: Kit
    part: Decimal | None
    max: Estimate | None
    policy: Policy
    session: Prescription
    demands: dict[Changed, Demand | None] = field(default_factory=dict)

    @classmethod
    def of(
        cls,
        prescription: Prescription,
        line: Line,
        sets: list[PlannedSet],
        done: Mapping[Position, PerformedBout],
        kit: Kit,
        body_kg: Decimal | None,
        estimates: Mapping[LiftKey, Estimate],
        policies: Mapping[str, Policy],
    ) -> Self | None:
        """The sets of one lift of a line as they went; None where nothing was done of them with a load."""
        pairs = [
            Pair(bout, done[position])
            for each in sets
            for bout in each.bouts
            if (position := each.position(bout)) in done and done[position].is_of(each.lift)
        ]
        judged = [pair for pair in pairs if is_judged(pair.planned)] or pairs
        if not judged:
            return None
        lead_load = lead_of([bout for each in sets for bout in each.bouts]).load
        leads = [pair for pair in pairs if pair.planned.load == lead_load] or judged
        lead = max(leads, key=lambda pair: (pair.planned_kg if lead_load is None else 0, pair.kg))
        if lead.done.kg is None:
            return None
        return cls(
            line=line,
            sets=sets,
            written=lead_load,
            lead=lead,
            was_kg=lead.done.kg,
            judged=judged,
            open=[pair for pair in pairs if pair not in judged and not follows(pair.planned, lead.planned)],
            kit=kit,
            part=body_part(sets[0].lift, lead.done.body, body_kg),
            max=estimates.get(sets[0].key),
            policy=policies.get(written_key(sets[0])[0], BY_EFFORT),
            session=prescription,
        )

    @property
    def exercise(self) -> Exercise:
        """The lift."""
        return self.sets[0].lift

    @property
    def body(self) -> bool:
        """Whether loads are added to body weight."""
        return self.lead.done.body or self.exercise.load_kind is LoadKind.BODY

    @property
    def is_bare(self) -> bool:
        """Whether it is body weight alone that is moved, and no added weight is written."""
        return self.body and self.written is None and self.was_kg >= 0

    @property
    def demand(self) -> Demand | None:
        """What the line asks as it was played; None where no max is known."""
        return self.demand_with()

    def demand_with(
        self, reps: FixedReps | Hold | None = None, sets: int | None = None, rest: int | None = None
    ) -> Demand | None:
        """The same with other reps (or seconds of a hold), more sets or other rests; None leaves them."""
        changed = reps, sets, rest
        if changed not in self.demands:
            self.demands[changed] = self._demand_with(*changed)
        return self.demands[changed]

    def _demand_with(self, reps: FixedReps | Hold | None, sets: int | None, rest: int | None) -> Demand | None:
        if self.part is None or self.max is None:
            return None
        session = adapted(self.session, self.line, sets, rest, reps)
        lift = self.exercise.id
        of_line = [each for each in by_line(session)[self.line] if not each.is_warm_up and each.lift.id == lift]
        demand = demand_of(session, of_line, self.lead.planned, self.part)
        return demand.bouts_with_loads(self._levelled(self.part))

    def _levelled(self, part: Decimal) -> dict[Place, float]:
        """The bouts with less than the heaviest that asks the same, and how many times as heavy they are to be."""
        return {
            (pair.done.position.set, pair.done.position.bout): float((top + part) / (pair.kg + part))
            for pairs in self._alike
            if (top := _heaviest(pairs)) + part > 0
            for pair in pairs
            if 0 < pair.kg + part < top + part
        }

    @cached_property
    def standing(self) -> Instead | None:
        """The reps of every set: those written, and those they stand at. Of a range it is the top that is written.

        None where no number is written, they stand inside a range, or not all sets ask the same.
        """
        if any(len({bout.side for bout in each.bouts}) < len(each.bouts) for each in self.sets):
            return None
        match [*{(bout.reps_of or bout.reps, bout.reps) for each in self.sets for bout in each.bouts}]:
            case [(FixedReps(count=written), FixedReps(count=now))]:
                return Instead(of=written, now=now)
            case [(RepRange(high=top), FixedReps(count=now))]:
                return Instead(of=top, now=now)
        return None

    @property
    def beyond_range(self) -> FixedReps | None:
        """A rep more than the top of the range that every set asks, and has; None where it does not."""
        match [*{bout.reps for each in self.sets for bout in each.bouts}]:
            case [RepRange(high=top)] if all(pair.at_top for pair in self.telling):
                return FixedReps(count=top + 1)
        return None

    @property
    def written_reps(self) -> FixedReps | None:
        """The reps that are written, the fewest of a range, where more stand in for them by now."""
        reps, written = self.standing, self.lead.planned.reps_of
        return FixedReps(count=least_of(written)) if reps and written and reps.now > reps.of else None

    @cached_property
    def is_straight(self) -> bool:
        """Whether it is alone in its group: sets and rests of a pair belong to the pair."""
        return is_straight(
            each for each in self.session.sets if each.group == self.sets[0].group and not each.is_warm_up
        )

    @property
    def held(self) -> int | None:
        """The seconds that every bout of the line was to be held; None where it is no hold."""
        seconds = [pair.planned.reps.seconds for pair in self.judged if isinstance(pair.planned.reps, Hold)]
        return min(seconds) if len(seconds) == len(self.judged) else None

    @property
    def all_done(self) -> bool:
        """Whether every bout was done that can be told."""
        return len(self.judged) == sum(is_judged(bout) for each in self.sets for bout in each.open_bouts)

    @property
    def is_complete(self) -> bool:
        """Whether every bout was done that can be told, and none was left out."""
        return len(self.judged) == sum(is_judged(bout) for each in self.sets for bout in each.bouts)

    @property
    def asks_effort(self) -> bool:
        """Whether the plan says for any bout how hard it is to be."""
        return _asks_effort(self.judged)

    @cached_property
    def own(self) -> list[Pair]:
        """The bouts that are no back-offs or drops of others; all where only such can be told."""
        return [pair for pair in self.judged if not self._follows(pair)] or self.judged

    @cached_property
    def telling(self) -> list[Pair]:
        """The bouts by which the load is judged: its own where those ask an effort, else all."""
        return self.own if _asks_effort(self.own) else self.judged

    @cached_property
    def following(self) -> list[Pair]:
        """The bouts that follow the lead with less: back-offs, drops, and lighter sets that name no load."""
        follow = [pair for pair in self.judged if self._follows(pair)]
        return follow if len(follow) < len(self.judged) else []

    def _follows(self, pair: Pair) -> bool:
        return follows(pair.planned, self.lead.planned)

    @property
    def went_as_planned(self) -> bool:
        """Whether all that was done met its target, in good form and with what was to be left."""
        at_top = all(pair.at_top for pair in self.judged)
        return at_top and not self.lightened and not self.slipped and min(self.overs, default=Decimal(0)) >= 0

    @cached_property
    def overs(self) -> list[Decimal]:
        """Reps left beyond the plan, of the bouts of which that is known."""
        return overs_of(self.telling)

    @property
    def slipped(self) -> int:
        """In how many bouts form slipped."""
        return sum(pair.done.ended is Ended.FORM for pair in self.judged)

    @property
    def missed(self) -> list[Pair]:
        """The bouts of which the target was missed. Back-offs and drops come down by themselves."""
        return [pair for pair in self.own if pair.missed]

    @cached_property
    def _alike(self) -> list[list[Pair]]:
        """The bouts that are no back-offs or drops, those together that ask the same."""
        alike: dict[PlannedBout, list[Pair]] = {}
        for pair in self.own:
            if pair.done.kg is not None:
                alike.setdefault(pair.planned.as_written, []).append(pair)
        return list(alike.values())

    @cached_property
    def lightened(self) -> list[Pair]:
        """The bouts that were done with less than one before them that asks the same."""
        return [
            pair
            for pairs in self._alike
            for pair, so_far in zip(pairs, accumulate((each.kg for each in pairs), max), strict=True)
            if pair.kg < so_far
        ]

    @cached_property
    def risen(self) -> list[Pair]:
        """The bouts that were done with less than one after them that asks the same, where none came down."""
        if self.lightened:
            return []
        return [pair for pairs in self._alike for pair in pairs if pair.kg < _heaviest(pairs)]

    @property
    def fewer_reps(self) -> FixedReps | None:
        """One rep fewer than now, where more stand than are written, and they were too many for the load.

        Of body weight alone nothing else can be taken off, where not even those that are written were there.
        """
        reps = self.standing
        if reps is None or reps.now <= reps.of:
            return None
        short = self.is_bare and any(pair.number < reps.of for pair in self.missed)
        return FixedReps(count=reps.now - 1) if short or self.lightened else None

    @cached_property
    def back_to(self) -> Decimal | None:
        """The load that was planned before the Floor made all of it lighter, where it then left a rep more."""
        before = self.lead.before_the_day
        if before is None or min(self.overs, default=Decimal(0)) < 1:
            return None
        kg = self.nearest(before).kg
        return kg if kg > self.was_kg else None

    @property
    def missed_in_a_row(self) -> int:
        """How often it is missed in a row, where it was missed now."""
        before = self.sets[0].missed
        return before.in_a_row + 1 if before and before.ago == 1 else 1

    def load_words(self, kg: Decimal) -> str:
        """A load of the line in words: `20 kg`, and of a body-weight lift `20 kg added`, `10 kg of help`."""
        if not self.body:
            return f"{plain(kg)} kg"
        return f"{plain(abs(kg))} kg {'of help' if kg < 0 else 'added'}" if kg else "body weight alone"

    def nearest(self, wanted: Decimal, where: Where = Where.NEAREST) -> Build:
        """The nearest load that can be built."""
        return nearest_told(self.kit, self.exercise, wanted, where)

    def next_above(self) -> Decimal | None:
        """The next load that can be built; a small step up where nothing is known of how the lift is loaded."""
        if is_known(self.kit, self.exercise, self.was_kg):
            return next_above(self.kit, self.exercise, self.was_kg)
        return self.nearest(self.was_kg + UNKNOWN_STEP, Where.ABOVE).kg

    @cached_property
    def allowed(self) -> Decimal | None:
        """The whole weight that the max allows for the lead bout, body weight included, all of the line done."""
        return self._allowed_for(self.demand)

    @cached_property
    def allowed_as_written(self) -> Decimal | None:
        """The same for the reps that are written, whatever stands in for them by now."""
        reps = self.written_reps
        return self._allowed_for(self.demand_with(reps)) if reps else self.allowed

    def _allowed_for(self, demand: Demand | None) -> Decimal | None:
        kg = demand.allowed_kg(self.max) if demand and self.max else None
        return None if kg is None else Decimal(str(round(kg, 2)))

    def misses(self, kg: Decimal) -> bool:
        """Whether reps of the line are likely missing with a load."""
        found = self.expected(kg, self.demand)
        return found is not None and found.left < MISSING

    def expected(self, kg: Decimal, demand: Demand | None) -> Outlook | None:
        """What to expect of the hardest bout with a load; None where that is not known."""
        if self.max is None or demand is None or self.part is None or kg + self.part <= 0:
            return None
        lead_kg = float(kg + self.part)
        return demand.made_lighter(demand.lighter(lead_kg, self.max)).outlook(lead_kg, self.max)

    @property
    def aim(self) -> str:
        """What the lead bout asks, in words."""
        return asked(self.lead.planned)


def _heaviest(pairs: Sequence[Pair]) -> Decimal:
    return max(pair.kg for pair in pairs)


def _asks_effort(pairs: Sequence[Pair]) -> bool:
    return any(planned_reserve(pair.planned.effort) is not None for pair in pairs)


def overs_of(pairs: Sequence[Pair]) -> list[Decimal]:
    """Reps left beyond the plan, of the bouts of which that is known."""
    return [over for pair in pairs if (over := pair.reserve_over) is not None]


def is_judged(bout: PlannedBout) -> bool:
    """Whether a bout asks for so much that it can be told whether that was done."""
    return is_rep_target(bout.reps) or isinstance(bout.reps, Hold)


def written_key(each: PlannedSet) -> LiftKey:
    """The lift and the set-up that are written for a line, whatever rung stands in for them."""
    return each.rung_of or each.key
