"""The next load of each lift, from what was planned and what happened, with the reasons.

Common practice: add a little when all targets were met at or above the planned reserve, hold when they were
met barely, cut when they were missed; within a rep range, add reps first, then load. Loads are buildable,
and where the next one up is too big a jump, reps are added instead.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum
from functools import cached_property
from typing import Any

from fortis.core.basis import Carried, Instead, Rung
from fortis.core.exercises import Exercise, LoadKind
from fortis.core.line_demand import Demand, Outlook, demand_of
from fortis.core.line_loads import lead_of, share_of_max
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import UNKNOWN_STEP, Build, Where, is_known, nearest_told, next_above, next_below
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.carried import Carries, adapted, is_straight, target_of, written_rest
from fortis.core.progression.policy import BY_EFFORT, CLIMBING, COUNTING, REST_STEP, Policy, PolicyKind
from fortis.core.progression.rungs import rung_at, rung_on
from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import count_of, is_rep_target, least_of, most_of, to_the_half
from fortis.core.structure.model import (
    BodyPlus,
    FixedReps,
    Hold,
    LiftKey,
    LoadTarget,
    Percent,
    RepMax,
    RepRange,
    SetUp,
    ToFailure,
    Weight,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription
from fortis.core.structure.timeline import asked
from fortis.core.structure.writing import write_lift
from fortis.core.units import clock, plain
from fortis.core.value import Kilograms, Value

SMALLEST_RISE = Decimal("1.01")
LARGEST_RISE = Decimal("1.05")
"""A rise above 5 % in one go is no little (common practice: 2 to 5 %)."""
LEAST_TURN = Decimal("0.025")
"""Where reps take turns with the load, the next load is so much more at least (common practice: 2 to 5 %)."""
A_REP_HARDER = 0.975
"""A set a rep harder than planned is one with so much less allowed."""
LARGEST_CUT = Decimal("0.90")
"""A single bad day takes 10 % off at most."""
SMALLEST_CUT = Decimal("0.975")
PARTS = Decimal("0.05")
"""A percentage and an effort that call for loads so far apart are told apart."""
MISSING = -0.75
"""Where the hardest bout is expected so many reps short, reps are likely missing."""
RISE_A_REP = Decimal("0.0125")
"""So much more for each rep left beyond the plan, whatever the max is thought to be: half of what a rep takes."""
SHOWN = 2
"""Who has so many more left than planned has shown more than was believed."""
LEAST_BELIEVED = Decimal("0.95")
"""Where the max allows less than this share of a load, it is not raised however well its sets went."""


NO_POLICIES: Mapping[str, Policy] = {}


class Move(StrEnum):
    """What happens to a lift next time."""

    RAISE = "raise"
    MORE_REPS = "more reps"
    MORE_SETS = "more sets"
    SHORTER_RESTS = "shorter rests"
    LONGER_HOLDS = "longer holds"
    NEXT_RUNG = "next rung"
    HOLD = "hold"
    CUT = "cut"


class NextLoad(Value):
    """The recommendation for one line: from `was_kg`, the load of its lead bout, to `kg`, by the lift's policy.

    `reps`, `sets`, `rest` and `hold` (seconds) and `rung` are those of next time where they change.
    """

    exercise: str
    lift_id: str
    setup: SetUp
    group: int
    entry: int
    move: Move
    was_kg: Kilograms
    kg: Kilograms
    body: bool
    reps: int | None
    sets: int | None
    rest: int | None
    hold: int | None
    rung: Rung | None
    aim: str
    policy: Policy
    estimate: Estimate | None
    reasons: tuple[Reason, ...]


@dataclass(frozen=True)
class Recommendation:
    """A next load, and how it is carried to the line of the next session that asks the same."""

    load: NextLoad
    carries: Carries


def recommendations(
    prescription: Prescription,
    performed: Sequence[PerformedBout],
    kit: Kit,
    body_kg: Decimal | None,
    estimates: Mapping[LiftKey, Estimate],
    policies: Mapping[str, Policy] = NO_POLICIES,
) -> tuple[Recommendation, ...]:
    """Recommend for every line of a session as it was played of which something was done with a load.

    `estimates` are the current maxes, this session's included: what they allow is solved through all that a line
    asks, tired as its lift gets in the session. `policies` are those of lifts by id; others progress by effort.
    """
    done = {bout.position: bout for bout in performed}
    cases = (
        _Case.of(prescription, sets, done, kit, body_kg, estimates, policies)
        for line in prescription.by_entry().values()
        for sets in _by_lift(line)
    )
    return tuple(case.decide() for case in cases if case)


def next_loads(
    prescription: Prescription,
    performed: Sequence[PerformedBout],
    kit: Kit,
    body_kg: Decimal | None,
    estimates: Mapping[LiftKey, Estimate],
    policies: Mapping[str, Policy] = NO_POLICIES,
) -> tuple[NextLoad, ...]:
    """The next loads alone, line by line."""
    return tuple(each.load for each in recommendations(prescription, performed, kit, body_kg, estimates, policies))


def _by_lift(line: Iterable[PlannedSet]) -> list[list[PlannedSet]]:
    """The work sets of a line, those of another lift done instead from some set on apart."""
    by_lift: dict[str, list[PlannedSet]] = {}
    for each in line:
        if not each.is_warm_up:
            by_lift.setdefault(each.lift.id, []).append(each)
    return list(by_lift.values())


Decision = tuple[Move, Decimal, str, tuple[Reason, ...]]
"""What happens to a line: the move, the load of its lead bout, what to aim for, and why."""


@dataclass
class _Pair:
    """A bout as planned and as done."""

    planned: PlannedBout
    done: PerformedBout

    @property
    def number(self) -> int:
        """What counts of it: reps, or half reps where those were asked."""
        return self.done.number_beside(self.planned)

    def told(self, kg: Decimal, number: int, left: Decimal | None) -> "_Pair":
        """The same bout, done with another load, so many of what counts, and so many left."""
        count = count_of(self.planned.reps, self.planned.range_of_motion, number)
        own = {"kg": kg, "reserve": left, "or_more": False, "ended": Ended.MET, **dict(count)}
        return _Pair(self.planned, self.done.model_copy(update=own))

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


@dataclass
class _Case:
    """All there is to weigh for one lift."""

    sets: list[PlannedSet]
    written: LoadTarget | None
    lead: _Pair
    was_kg: Decimal
    judged: list[_Pair]
    kit: Kit
    part: Decimal | None
    max: Estimate | None
    policy: Policy
    session: Prescription

    @property
    def exercise(self) -> Exercise:
        """The lift."""
        return self.sets[0].lift

    @property
    def body(self) -> bool:
        """Whether loads are added to body weight."""
        return self.lead.done.body or self.exercise.load_kind is LoadKind.BODY

    @staticmethod
    def of(
        prescription: Prescription,
        sets: list[PlannedSet],
        done: Mapping[Position, PerformedBout],
        kit: Kit,
        body_kg: Decimal | None,
        estimates: Mapping[LiftKey, Estimate],
        policies: Mapping[str, Policy],
    ) -> "_Case | None":
        pairs = [
            _Pair(bout, done[position])
            for each in sets
            for bout in each.bouts
            if (position := each.position(bout)) in done and done[position].is_of(each.lift)
        ]
        judged = [pair for pair in pairs if _is_judged(pair.planned)] or pairs
        if not judged:
            return None
        lead_load = lead_of([bout for each in sets for bout in each.bouts]).load
        leads = [pair for pair in judged if pair.planned.load == lead_load] or judged
        lead = max(leads, key=lambda pair: -1000 if pair.done.kg is None else pair.done.kg)
        if lead.done.kg is None:
            return None
        return _Case(
            sets=sets,
            written=lead_load,
            lead=lead,
            was_kg=lead.done.kg,
            judged=judged,
            kit=kit,
            part=body_part(sets[0].lift, lead.done.body, body_kg),
            max=estimates.get(sets[0].key),
            policy=policies.get(_written(sets[0])[0], BY_EFFORT),
            session=prescription,
        )

    def decide(self) -> Recommendation:
        more = self._more_of_the_same()
        move, kg, aim, reasons = self._kept() or self._climbed() or more or self._follow_max() or self._judge()
        first = self.sets[0]
        reps, sets, rest = self._next_reps(move), self._next_sets(move), self._next_rest(move)
        rung = self._next_rung(move)
        if self.max:
            told = () if share_of_max(self.written) and not self._missed() else (_max_told(self.max),)
            reasons = (*told, *reasons, *self._outlook(kg, reps, sets, rest))
        reasons = (*reasons, *self._then(kg), *self._no_rung(), *self._no_range())
        load = NextLoad(
            exercise=self.exercise.name,
            lift_id=_written(first)[0],
            setup=first.setup,
            group=first.group,
            entry=first.entry,
            move=move,
            was_kg=self.was_kg,
            kg=kg,
            body=self.body,
            reps=reps.count if isinstance(reps, FixedReps) and move is Move.MORE_REPS else None,
            sets=sets.now if sets and move is Move.MORE_SETS else None,
            rest=rest.now if rest and move is Move.SHORTER_RESTS else None,
            hold=reps.seconds if isinstance(reps, Hold) and move is Move.LONGER_HOLDS else None,
            rung=rung if move is Move.NEXT_RUNG else None,
            aim=aim,
            policy=self.policy,
            estimate=self.max,
            reasons=reasons,
        )
        own: dict[str, Any] = {"reps": reps, "sets": sets, "rest": rest, "rung": rung}
        if move is Move.NEXT_RUNG and rung and rung.exercise != first.exercise:
            own |= {"kg": Decimal(0), "was_kg": Decimal(0)}
        carried = self._carried(kg, reasons).model_copy(update=own)
        return Recommendation(load, Carries(_written(first), target_of(self.sets), carried))

    @cached_property
    def demand(self) -> Demand | None:
        """What the line asks as it was played; None where no max is known."""
        return self._demand()

    def _demand(
        self, reps: FixedReps | Hold | None = None, sets: int | None = None, rest: int | None = None
    ) -> Demand | None:
        if self.part is None or self.max is None:
            return None
        line = self.sets[0].group, self.sets[0].entry
        session = adapted(self.session, line, sets, rest, reps)
        lift = self.exercise.id
        of_line = [each for each in session.by_entry()[line] if not each.is_warm_up and each.lift.id == lift]
        return demand_of(session, of_line, self.lead.planned, self.part)

    # what the policy says

    @cached_property
    def _is_straight(self) -> bool:
        """Whether it is alone in its group: sets and rests of a pair belong to the pair."""
        return is_straight(
            each for each in self.session.sets if each.group == self.sets[0].group and not each.is_warm_up
        )

    def _kept(self) -> Decision | None:
        if self.policy.kind is not PolicyKind.KEEP:
            return None
        text = "You keep this lift as it is: nothing changes until you choose otherwise."
        return Move.HOLD, self.was_kg, self._aim(), (Reason(code="kept", text=text),)

    def _climbed(self) -> Decision | None:
        """The next rung where all went as planned; nothing else changes on the way."""
        all_went = self._went_as_planned and self._all_done
        if self.policy.kind not in CLIMBING or not all_went or not self._next_place:
            return None
        held = self._held
        if held is not None and held < self.policy.rung_at:
            return None
        rung = self.policy.rungs[self._next_place]
        text = f"All went as planned: the next rung, {rung}, and nothing else changes."
        if self.policy.kind is PolicyKind.RANGE:
            text = f"All went as planned: the same load over a longer range, {rung}."
        return Move.NEXT_RUNG, self.was_kg, self._aim(), (Reason(code="next rung", text=text),)

    def _no_rung(self) -> tuple[Reason, ...]:
        """That a lift is to climb, and what is written is none of its rungs."""
        if self.policy.kind not in CLIMBING or self._place >= 0:
            return ()
        name = write_lift(self.exercise.name, self.sets[0].setup)
        text = f"{name} is none of the rungs: write the one you are on into the plan."
        return (Reason(code="no rung", text=text),)

    @cached_property
    def _place(self) -> int:
        return rung_on(self.policy, self.sets[0]) if self.policy.kind in CLIMBING else -1

    @property
    def _next_place(self) -> int:
        """The place of the rung after this one; 0 where there is none."""
        return self._place + 1 if 0 <= self._place < len(self.policy.rungs) - 1 else 0

    def _next_rung(self, move: Move) -> Rung | None:
        """The rung of next time: the next one, or the one that stands in for what is written."""
        if move is Move.NEXT_RUNG:
            return rung_at(self.policy, self.sets[0], self._next_place)
        first = self.sets[0]
        stays = first.rung_of is not None and self._place >= 0
        return Rung(exercise=first.exercise, setup=first.setup) if stays else None

    @property
    def _held(self) -> int | None:
        """The seconds that every bout of the line was to be held; None where it is no hold."""
        seconds = [pair.planned.reps.seconds for pair in self.judged if isinstance(pair.planned.reps, Hold)]
        return min(seconds) if len(seconds) == len(self.judged) else None

    def _next_reps(self, move: Move) -> FixedReps | Hold | None:
        """The reps, or the seconds to hold, of next time: more, or as this time. A new rung begins as written."""
        if move is Move.NEXT_RUNG:
            return None
        if (held := self._held) is not None:
            return Hold(seconds=_longer(held) if move is Move.LONGER_HOLDS else held)
        counted = self._counted
        if counted is None or move in (Move.RAISE, Move.CUT):
            return None
        return FixedReps(count=counted.now + (move is Move.MORE_REPS))

    def _judge_hold(self, held: int) -> Decision:
        if missed := self._missed():
            text = f"{_times(len(missed))} let go before {held} s: the same again.".capitalize()
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="missed", text=text),)
        if self._slipped:
            text = f"Form slipped in {_times(self._slipped)}: the same again, cleanly."
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="form slipped", text=text),)
        text = f"Every hold of {held} s was held: {_longer(held)} s next time."
        reason = Reason(code="longer holds", text=text, values={"seconds": Decimal(_longer(held))})
        return Move.LONGER_HOLDS, self.was_kg, self._aim(), (reason,)

    @property
    def _counted(self) -> Instead | None:
        """The reps of every set in double progression: those written, and those they stand at.

        None for other lifts, where a range is written, and where not all sets ask the same.
        """
        if any(len({bout.side for bout in each.bouts}) < len(each.bouts) for each in self.sets):
            return None
        alike = {(bout.reps_of or bout.reps, bout.reps) for each in self.sets for bout in each.bouts}
        match self.policy.kind, *alike:
            case PolicyKind.REPS, (FixedReps(count=written), FixedReps(count=now)):
                return Instead(of=written, now=now)
        return None

    def _no_range(self) -> tuple[Reason, ...]:
        """That reps are to grow up to the top of a range, and the sets of the line have none in common."""
        ranges = all(isinstance(pair.planned.reps, RepRange) for pair in self.judged)
        if self.policy.kind is not PolicyKind.REPS or self._counted or ranges or self._held is not None:
            return ()
        text = "The sets of this line do not all ask the same reps: the load follows how hard they were."
        return (Reason(code="no range", text=text),)

    def _more_of_the_same(self) -> Decision | None:
        """One rep or set more, or shorter rests, while there is room; as it was where not all went as planned."""
        more = self._more_reps() or self._more_sets() or self._shorter_rests()
        if more is None or not self._went_as_planned:
            return None
        if self._all_done:
            return more
        text = "What was done went as planned, but not every set was done: the same again."
        return Move.HOLD, self.was_kg, self._aim(), (Reason(code="not all done", text=text),)

    def _more_reps(self) -> Decision | None:
        reps = self._counted
        if reps is None or reps.now >= reps.of + self.policy.more_reps:
            return None
        text = (
            f"All went as planned: one rep more in each set at the same load, {reps.now + 1} instead of {reps.now}."
        )
        reason = Reason(code="more reps", text=text, values={"reps": Decimal(reps.now + 1)})
        return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, (reason,)

    def _more_sets(self) -> Decision | None:
        sets = len(self.sets)
        if self.policy.kind is not PolicyKind.SETS or not self._is_straight or sets >= self.policy.most_sets:
            return None
        text = f"All went as planned: one set more at the same load, {sets + 1} instead of {sets}."
        reason = Reason(code="more sets", text=text, values={"sets": Decimal(sets + 1)})
        return Move.MORE_SETS, self.was_kg, self._aim(), (reason,)

    def _shorter_rests(self) -> Decision | None:
        rest = self.sets[0].rest
        if self.policy.kind is not PolicyKind.REST or not self._is_straight or rest <= self.policy.least_rest:
            return None
        shorter = self._shorter(rest)
        text = f"All went as planned: shorter rests at the same load, {clock(shorter)} instead of {clock(rest)}."
        reason = Reason(code="shorter rests", text=text, values={"seconds": Decimal(shorter)})
        return Move.SHORTER_RESTS, self.was_kg, self._aim(), (reason,)

    def _shorter(self, rest: int) -> int:
        return max(rest - REST_STEP, self.policy.least_rest)

    def _next_sets(self, move: Move) -> Instead | None:
        """The sets of next time, one more or as many as this time; with more load those that are written."""
        if self.policy.kind is not PolicyKind.SETS or not self._is_straight or move is Move.RAISE:
            return None
        written = sum(not each.added for each in self.sets)
        return Instead(of=written, now=len(self.sets) + (move is Move.MORE_SETS))

    def _next_rest(self, move: Move) -> Instead | None:
        """The same of the rests."""
        if self.policy.kind is not PolicyKind.REST or not self._is_straight or move is Move.RAISE:
            return None
        rest = self.sets[0].rest
        shorter = self._shorter(rest) if move is Move.SHORTER_RESTS else rest
        return Instead(of=written_rest(self.sets[0]), now=shorter)

    @property
    def _all_done(self) -> bool:
        """Whether every bout was done that can be told."""
        return len(self.judged) == sum(_is_judged(bout) for each in self.sets for bout in each.open_bouts)

    @property
    def _went_as_planned(self) -> bool:
        """Whether all that was done met its target, in good form and with what was to be left."""
        at_top = all(pair.at_top for pair in self.judged)
        return at_top and not self._slipped and min(self._overs, default=Decimal(0)) >= 0

    @cached_property
    def _overs(self) -> list[Decimal]:
        """Reps left beyond the plan, of the bouts of which that is known."""
        return [over for pair in self.judged if (over := pair.reserve_over) is not None]

    @property
    def _slipped(self) -> int:
        """In how many bouts form slipped."""
        return sum(pair.done.ended is Ended.FORM for pair in self.judged)

    def _carried(self, kg: Decimal, reasons: tuple[Reason, ...]) -> Carried:
        """What the next plan that asks the same gets. A percentage is cut only where it was missed."""
        match self.written:
            case Weight(kg=was) | BodyPlus(kg=was):
                return Carried(was_kg=was, kg=kg, reasons=reasons)
            case Percent() | RepMax() if not self._missed():
                _, _, of_share = self._of_share or ("", kg, kg)
                return Carried(was_kg=max(of_share, kg), kg=kg, reasons=reasons)
        return Carried(was_kg=self.was_kg, kg=kg, reasons=reasons)

    # percentages follow the estimated max

    @cached_property
    def _of_share(self) -> tuple[str, Decimal, Decimal] | None:
        """What share of the max the plan asks for in words, what that makes, and what can be built of it.

        None where it asks for none, or the max is not known.
        """
        asks = share_of_max(self.written, self.max.curve) if self.max else None
        if asks is None or self.max is None or self.part is None:
            return None
        share, words = asks
        wanted = Decimal(str(round(self.max.kg * share, 1))) - self.part
        return words, wanted, self._nearest(wanted).kg

    def _follow_max(self) -> Decision | None:
        """The load a percentage makes of the max as it stands now; a miss is judged like any other."""
        if self.max is None or self._of_share is None or self._missed():
            return None
        words, wanted, kg = self._of_share
        text = (
            f"The plan asks for {words}; your estimated max now stands at {self.max.kg:.1f} kg "
            f"({self.max.low:.0f} to {self.max.high:.0f}), which makes {plain(round(wanted, 1))} kg."
        )
        values = {"max_kg": Decimal(str(round(self.max.kg, 1))), "wanted_kg": wanted}
        reasons = [Reason(code="share of max", text=text, values=values), *self._rounding(wanted, kg)]
        reasons += self._parts_from_effort(kg)
        if kg > (possible := self._possible(kg)):
            reasons += self._outlook(kg)
            kg = possible
            load = f"{plain(kg)} kg{' added' if self.body else ''}"
            text = f"So {load} instead, with which all of it should go as asked."
            reasons.append(Reason(code="more than the max allows", text=text, values={"kg": kg}))
        move = Move.RAISE if kg > self.was_kg else Move.CUT if kg < self.was_kg else Move.HOLD
        return move, kg, self._aim(), tuple(reasons)

    def _parts_from_effort(self, kg: Decimal) -> list[Reason]:
        """What the effort that the plan asks for would call for, where a percentage is far from it."""
        asks = any(planned_reserve(pair.planned.effort) is not None for pair in self.judged)
        allowed = self._allowed() if asks else None
        if allowed is None or self.part is None:
            return []
        by_effort = self._nearest(allowed - self.part).kg
        if abs(by_effort - kg) < PARTS * (kg + self.part) or by_effort < kg:
            return []
        text = f"By the reps it is to leave, {plain(by_effort)} kg would be right: percentage and effort part here."
        return [Reason(code="percentage and effort", text=text, values={"kg": by_effort})]

    def _possible(self, kg: Decimal) -> Decimal:
        """A load, or where reps would be missing with it the nearest to what all of the line can be done with."""
        allowed = self._allowed()
        if allowed is None or self.part is None or not self._misses(kg):
            return kg
        near = min(self._nearest(allowed - self.part).kg, kg)
        return self._nearest(allowed - self.part, Where.BELOW).kg if self._misses(near) else near

    def _misses(self, kg: Decimal) -> bool:
        """Whether reps of the line are likely missing with a load."""
        found = self._expected(kg, self.demand)
        return found is not None and found.left < MISSING

    def _expected(self, kg: Decimal, demand: Demand | None) -> Outlook | None:
        """What to expect of the hardest bout with a load; None where that is not known."""
        if self.max is None or demand is None or self.part is None or kg + self.part <= 0:
            return None
        return demand.outlook(float(kg + self.part), self.max)

    # everything else is judged by what happened

    def _open(self) -> Decision | None:
        """A line of nothing but open sets: one rep more than the best of them, with the same load."""
        if any(_is_judged(pair.planned) for pair in self.judged):
            return None
        best = max(pair.number for pair in self.judged)
        text = f"{best} in the best set: {best + 1} next time, with the same load."
        reason = Reason(code="more reps", text=text, values={"reps": Decimal(best + 1)})
        return Move.MORE_REPS, self.was_kg, f"{best + 1} in one set", (reason,)

    def _judge(self) -> Decision:
        if opened := self._open():
            return opened
        if (held := self._held) is not None:
            return self._judge_hold(held)
        if self.policy.kind in CLIMBING and self._next_place and not self._missed():
            text = "Not every set was done as planned: the same rung and load again."
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="same rung", text=text),)
        if missed := self._missed():
            return self._still_in_range(missed) or self._cut(missed)
        overs, slipped = self._overs, self._slipped
        if slipped:
            text = f"Form slipped in {_times(slipped)}: the same load again, cleanly."
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="form slipped", text=text),)
        if overs and min(overs) < 0 and self.policy.kind is not PolicyKind.STEP:
            text = f"All reps were done, but at worst with {plain(-min(overs))} fewer left than planned: hold."
            reason = Reason(code="met barely", text=text, values={"reserve_over": min(overs)})
            return Move.HOLD, self.was_kg, self._aim(), (reason,)
        if all(pair.spent for pair in self.judged):
            text = "Every set ended with none left, where no effort was asked: the same load until one is to spare."
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="none left", text=text),)
        if not all(pair.at_top for pair in self.judged):
            text = "The reps are inside the range and not yet at its top in every set: same load, more reps."
            return (
                Move.MORE_REPS,
                self.was_kg,
                MORE_REPS_AIM,
                (Reason(code="range not full", text=text),),
            )
        return self._raise(overs)

    def _missed(self) -> list[_Pair]:
        return [pair for pair in self.judged if pair.missed]

    def _still_in_range(self, missed: list[_Pair]) -> Decision | None:
        """The same again where reps that came on top are missing, and none of those that are written."""
        counted, fewest = self._counted, min(pair.number for pair in missed)
        if counted is None or fewest < counted.of:
            return None
        text = f"{fewest} of {counted.now} reps in the hardest set, and {counted.of} are written: the same again."
        values = {"asked": Decimal(counted.now), "done": Decimal(fewest)}
        return Move.HOLD, self.was_kg, self._aim(), (Reason(code="same reps", text=text, values=values),)

    def _cut(self, missed: list[_Pair]) -> Decision:
        worst = max(missed, key=lambda pair: pair.short_by)
        asked, done = least_of(worst.planned.reps), worst.number
        text = f"{done} of {asked} reps in the hardest bout, {_times(len(missed))} short of the target."
        reasons = [Reason(code="missed", text=text, values={"asked": Decimal(asked), "done": Decimal(done)})]
        if self.body and self.written is None:
            text = "There is no added weight to take off: do fewer reps in the first sets, or an easier set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.HOLD, self.was_kg, self._aim(), tuple(reasons)
        if self.part is None:
            reasons.append(BODY_WEIGHT_MISSING)
        moved = self.was_kg + (self.part or 0)
        wanted = self._allowed() or moved * SMALLEST_CUT
        wanted = min(max(wanted, moved * LARGEST_CUT), moved * SMALLEST_CUT) - (self.part or 0)
        kg = self._nearest(wanted).kg
        if kg >= self.was_kg:
            below = next_below(self.kit, self.exercise, self.was_kg)
            kg = min(_whole_step(wanted), self.was_kg) if below is None else below
        if not self.body and kg < moved * Decimal("0.85"):
            text = (
                f"The next lighter load here is {plain(kg)} kg, a bigger cut than the miss calls for: "
                "same load, and stop one rep earlier in the first sets."
            )
            reasons.append(Reason(code="cut too big", text=text, values={"kg": kg}))
            return Move.HOLD, self.was_kg, self._aim(), tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.CUT, kg, self._aim(), tuple(reasons)

    def _raise(self, overs: list[Decimal]) -> Decision:
        reasons = [_met(overs)]
        if self.body and self.written is None:
            text = "There is no added weight yet: add a rep to each set, or choose a harder set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, tuple(reasons)
        if self.part is None:
            reasons.append(BODY_WEIGHT_MISSING)
            above = self._next_above()
            kg = self.was_kg if above is None else above
            move = Move.RAISE if kg > self.was_kg else Move.MORE_REPS
            return move, kg, self._aim() if move is Move.RAISE else MORE_REPS_AIM, tuple(reasons)
        moved = self.was_kg + self.part
        if self.policy.kind is PolicyKind.STEP:
            return self._stepped()
        if (turned := self._turned(overs, moved)) is not None:
            return turned
        allowed = (self._allowed() if overs else None) or moved
        spare = max(min(overs, default=Decimal(0)), Decimal(0))
        if allowed < moved * LEAST_BELIEVED and spare < SHOWN:
            text = (
                f"But by that max {plain(round(allowed - self.part, 1))} kg would be right for all of it: the same "
                "load again."
            )
            reasons = [_met(overs, ""), Reason(code="more than the max allows", text=text)]
            return Move.HOLD, self.was_kg, self._aim(), tuple(reasons)
        allowed = max(allowed, moved * SMALLEST_RISE, moved * (1 + spare * RISE_A_REP))
        wanted = min(allowed, moved * LARGEST_RISE) - self.part
        most = max(allowed, moved * LARGEST_RISE) - self.part + Decimal("0.5")
        kg = self._nearest(wanted).kg
        if kg > most:
            kg = self._nearest(wanted, Where.BELOW).kg
        if kg <= self.was_kg:
            above = self._next_above()
            kg = above if above is not None else self.was_kg
        if kg <= self.was_kg or kg > most:
            reasons = [_met(overs, ""), self._jump_too_big(kg, moved)]
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.RAISE, kg, self._aim(), tuple(reasons)

    def _stepped(self) -> Decision:
        wanted = self.was_kg + self.policy.step_kg
        kg = self._nearest(wanted).kg
        if kg <= self.was_kg:
            above = self._next_above()
            kg = self.was_kg if above is None else above
        if kg <= self.was_kg:
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, (self._jump_too_big(kg, self.was_kg),)
        text = f"Every rep was done: {plain(self.policy.step_kg)} kg more, as you chose for this lift."
        reason = Reason(code="fixed step", text=text, values={"step_kg": self.policy.step_kg})
        return Move.RAISE, kg, self._aim(), (reason, *self._rounding(wanted, kg))

    def _turned(self, overs: Sequence[Decimal], moved: Decimal) -> Decision | None:
        """At the top of the range the next load, from its bottom again; one more rep where the max allows none yet.

        None where reps do not take turns with the load.
        """
        counted, asked = self._counted, self.lead.planned.reps
        ranged = self.policy.kind is PolicyKind.REPS and isinstance(asked, RepRange)
        if counted is None and not ranged:
            return None
        bottom, top = (counted.of, counted.now) if counted else (least_of(asked), most_of(asked) or 0)
        kg = self._nearest(self.was_kg + moved * LEAST_TURN, Where.ABOVE).kg
        if kg <= self.was_kg:
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, (self._jump_too_big(kg, moved),)
        demand = self._demand(FixedReps(count=bottom)) if counted else self.demand
        allowed = demand.allowed_kg(self.max) if demand and self.max and overs else None
        load = f"{plain(kg)} kg{' added' if self.body else ''}"
        values = {"kg": kg, "reps": Decimal(bottom)}
        if allowed and float(kg + (self.part or 0)) * A_REP_HARDER > allowed and min(overs) < SHOWN:
            text = (
                f"Every set reached {top}, but {load}, the next load here, is too much for {bottom} yet: one rep "
                "more first."
            )
            return (
                Move.MORE_REPS,
                self.was_kg,
                MORE_REPS_AIM,
                (Reason(code="too much yet", text=text, values=values),),
            )
        text = f"Every set reached {top}: {load}, the next load here, from {bottom} again."
        return Move.RAISE, kg, self._aim(), (Reason(code="top of the range", text=text, values=values),)

    def _nearest(self, wanted: Decimal, where: Where = Where.NEAREST) -> Build:
        return nearest_told(self.kit, self.exercise, wanted, where)

    def _next_above(self) -> Decimal | None:
        """The next load that can be built; a small step up where nothing is known of how the lift is loaded."""
        if is_known(self.kit, self.exercise, self.was_kg):
            return next_above(self.kit, self.exercise, self.was_kg)
        return self._nearest(self.was_kg + UNKNOWN_STEP, Where.ABOVE).kg

    def _jump_too_big(self, kg: Decimal, moved: Decimal) -> Reason:
        if kg <= self.was_kg or not moved:
            return Reason(code="no load above", text="There is no load above this one here: add a rep to each set.")
        share = (kg - self.was_kg) / moved * 100
        text = (
            f"The next load that can be built is {plain(kg)} kg, {share:.0f} % up, too big a step yet: add a rep "
            "to each set first."
        )
        return Reason(code="jump too big", text=text, values={"kg": kg, "percent": round(share, 1)})

    def _allowed(self) -> Decimal | None:
        """The whole weight that the max allows for the lead bout, body weight included, all of the line done."""
        if self.max is None or self.demand is None:
            return None
        kg = self.demand.allowed_kg(self.max)
        return None if kg is None else Decimal(str(round(kg, 2)))

    def _outlook(
        self,
        kg: Decimal,
        reps: FixedReps | Hold | None = None,
        sets: Instead | None = None,
        rest: Instead | None = None,
    ) -> tuple[Reason, ...]:
        """What to expect of the line with its next load, and its next reps, sets or rests where they change."""
        written = FixedReps(count=self._counted.of) if self._counted else None
        changed = reps or written, sets.now if sets else None, rest.now if rest else None
        found = self._expected(kg, self._demand(*changed) if any(changed) else self.demand)
        return () if found is None else (self._foretold(kg, found, sets.now if sets else len(self.sets)),)

    def _foretold(self, kg: Decimal, found: Outlook, sets: int) -> Reason:
        which = "the set" if sets == 1 else f"set {found.set} of {sets}"
        if len({bout.side for bout in self.sets[0].bouts}) < len(self.sets[0].bouts):
            which = f"bout {found.bout} of {which}"
        load = f"{'body weight' if not kg else f'body weight and {plain(kg)}'}" if self.body else f"{plain(kg)} kg"
        values = {"left": to_the_half(found.left), "low": to_the_half(found.low), "high": to_the_half(found.high)}
        if found.left < MISSING:
            text = f"At {load} {which} is likely to end after {max(found.reps + round(found.left), 0)} of its reps."
        else:
            left, low, high = (plain(max(each, Decimal(0))) for each in values.values())
            text = f"At {load} {which}, the hardest, likely ends with {left} left ({low} to {high})."
        return Reason(code="outlook", text=text, values=values)

    def _then(self, kg: Decimal) -> tuple[Reason, ...]:
        """What the time after next would bring: where all goes as planned, ends with none left, or falls short."""
        if self.policy.kind in (PolicyKind.KEEP, *CLIMBING, *COUNTING) or kg <= 0 or self._open():
            return ()
        well, barely, short = (
            self._after(kg, left=None, missing=0),
            self._after(kg, left=Decimal(0), missing=0),
            self._after(kg, left=Decimal(0), missing=2),
        )
        if well == barely == short:
            return ()
        hard = f"{plain(barely)} with none left at the end, {plain(short)} two reps short"
        if barely == short:
            hard = f"{plain(short)} with none left at the end, or short"
        added = "added " if self.body else ""
        text = f"The time after that: {added}{plain(well)} kg if all goes as planned, {hard}."
        return (Reason(code="then", text=text, values={"planned": well, "none left": barely, "short": short}),)

    def _after(self, kg: Decimal, left: Decimal | None, missing: int) -> Decimal:
        """The load after one time with a load, so many left in the hardest bout (None: as planned) or missing."""
        asks_effort = any(planned_reserve(pair.planned.effort) is not None for pair in self.judged)
        pairs = []
        for at, pair in enumerate(self.judged):
            asked_left = planned_reserve(pair.planned.effort)
            last = at + 1 == len(self.judged)
            number = (most_of(pair.planned.reps) or 0) - (missing if last else 0)
            kept = asked_left if asked_left is not None or asks_effort else None
            pairs.append(pair.told(kg, max(number, 0), left if last and left is not None else kept))
        lead = next((pair for pair in pairs if pair.planned is self.lead.planned), pairs[0])
        case = replace(self, judged=pairs, lead=lead, was_kg=kg)
        _, then, _, _ = case._more_of_the_same() or case._follow_max() or case._judge()
        return then

    def _aim(self) -> str:
        return asked(self.lead.planned)

    def _rounding(self, wanted: Decimal, kg: Decimal) -> tuple[Reason, ...]:
        if abs(wanted - kg) < Decimal("0.05"):
            return ()
        if self._nearest(wanted).kg == kg:
            which = "nearest"
        else:
            which = "next lighter" if kg < self.was_kg else "next heavier"
        text = f"{plain(round(wanted, 1))} kg would be right; {plain(kg)} kg is the {which} you can load here."
        return (Reason(code="rounding", text=text, values={"wanted_kg": round(wanted, 1), "kg": kg}),)


HOLD_STEP = 5
"""A hold gets longer by a tenth, and by so many seconds at least (common practice)."""


def _longer(seconds: int) -> int:
    return seconds + max(round(seconds / 10 / HOLD_STEP) * HOLD_STEP, HOLD_STEP)


def _is_judged(bout: PlannedBout) -> bool:
    """Whether a bout asks for so much that it can be told whether that was done."""
    return is_rep_target(bout.reps) or isinstance(bout.reps, Hold)


def _written(each: PlannedSet) -> LiftKey:
    """The lift and the set-up that are written for a line, whatever rung stands in for them."""
    return each.rung_of or each.key


def _max_told(max_: Estimate) -> Reason:
    text = f"By all that is known your max stands at {max_.kg:.1f} kg ({max_.low:.0f} to {max_.high:.0f})."
    return Reason(code="estimate", text=text, values={"max_kg": Decimal(str(round(max_.kg, 1)))})


MORE_REPS_AIM = "one more rep a set"
BODY_WEIGHT_MISSING = Reason(
    code="body weight missing",
    text="Body weight is not known, so how much is moved is not known either: note it under Kit, You.",
)


def _met(overs: Sequence[Decimal], so: str = ": add a little") -> Reason:
    """That every target was met, with how much to spare, and what to do."""
    if not overs:
        return Reason(code="met", text=f"Every target was met{so}.")
    spare = min(overs)
    words = f"with {plain(spare)} more left than planned" if spare else "with the reserve that was planned"
    return Reason(code="met", text=f"Every target was met {words}{so}.", values={"reserve_over": spare})


def _whole_step(kg: Decimal) -> Decimal:
    """A load that no plate makes (assistance, an unknown lift) to a sensible step of 2.5 kg."""
    return round(kg / Decimal("2.5")) * Decimal("2.5")


def _times(count: int) -> str:
    return "one bout" if count == 1 else f"{count} bouts"
