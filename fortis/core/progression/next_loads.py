"""The next load of each lift, from what was planned and what happened, with the reasons.

Common practice: add a little when all targets were met at or above the planned reserve, hold when they were
met barely, cut when they were missed; within a rep range, add reps first, then load. Loads are buildable,
and where the next one up is too big a jump, reps are added instead.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from fortis.core.basis import Carried
from fortis.core.exercises import Exercise, LoadKind
from fortis.core.line_loads import lead_of, share_of_max
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import nearest, next_above, next_below
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.carried import Carries, target_of
from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate, load_for
from fortis.core.structure.counting import is_rep_target, least_of, most_of
from fortis.core.structure.model import (
    BodyPlus,
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
from fortis.core.tally.fresh import fresh_estimate
from fortis.core.units import plain
from fortis.core.value import Kilograms, Value

SMALLEST_RISE = Decimal("1.01")
LARGEST_RISE = Decimal("1.05")
"""A rise above 5 % in one go is no little (common practice: 2 to 5 %)."""
LARGEST_CUT = Decimal("0.90")
"""A single bad day takes 10 % off at most."""
SMALLEST_CUT = Decimal("0.975")


class Move(StrEnum):
    """What happens to a lift next time."""

    RAISE = "raise"
    MORE_REPS = "more reps"
    HOLD = "hold"
    CUT = "cut"


class NextLoad(Value):
    """The recommendation for one line: from `was_kg`, the load of its lead bout, to `kg`."""

    exercise: str
    setup: SetUp
    group: int
    entry: int
    move: Move
    was_kg: Kilograms
    kg: Kilograms
    body: bool
    aim: str
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
) -> tuple[Recommendation, ...]:
    """Recommend for every line of a session as it was played of which something was done with a load.

    `estimates` are the current maxes, this session's included; percentages follow them.
    """
    done = {bout.position: bout for bout in performed}
    cases = (
        _Case.of(sets, done, kit, body_kg, estimates)
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
) -> tuple[NextLoad, ...]:
    """The next loads alone, line by line."""
    return tuple(each.load for each in recommendations(prescription, performed, kit, body_kg, estimates))


def _by_lift(line: Iterable[PlannedSet]) -> list[list[PlannedSet]]:
    """The work sets of a line, those of another lift done instead from some set on apart."""
    by_lift: dict[str, list[PlannedSet]] = {}
    for each in line:
        if not each.is_warm_up:
            by_lift.setdefault(each.lift.id, []).append(each)
    return list(by_lift.values())


@dataclass
class _Pair:
    """A bout as planned and as done."""

    planned: PlannedBout
    done: PerformedBout

    @property
    def number(self) -> int:
        """What counts of it: reps, or half reps where those were asked."""
        return self.done.number_beside(self.planned)

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
    def reserve_over(self) -> Decimal | None:
        """Reps left beyond the plan, to the half.

        Negative where the bout was harder than planned. None where unknown.
        """
        asked = planned_reserve(self.planned.effort)
        left = self.done.left if self.done.left is not None else self.done.reserve
        if asked is None or left is None:
            return None
        spare = self.number - (most_of(self.planned.reps) or 0)
        if self.to_failure:
            return Decimal(self.number - least_of(self.planned.reps))
        if isinstance(self.planned.reps, RepRange):
            spare = max(spare, 0)
        return left + spare - asked

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
    today: Estimate | None
    part: Decimal | None
    max: Estimate | None

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
        sets: list[PlannedSet],
        done: Mapping[Position, PerformedBout],
        kit: Kit,
        body_kg: Decimal | None,
        estimates: Mapping[LiftKey, Estimate],
    ) -> "_Case | None":
        pairs = [
            _Pair(bout, done[position])
            for each in sets
            for bout in each.bouts
            if (position := each.position(bout)) in done and done[position].is_of(each.lift)
        ]
        judged = [pair for pair in pairs if is_rep_target(pair.planned.reps)]
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
            today=fresh_estimate([pair.done for pair in pairs], sets[0].lift, body_kg),
            part=body_part(sets[0].lift, lead.done.body, body_kg),
            max=estimates.get(sets[0].key),
        )

    def decide(self) -> Recommendation:
        move, kg, aim, reasons = self._follow_max() or self._judge()
        if self.today:
            reasons = (self._told_by_today(self.today), *reasons)
        first = self.sets[0]
        load = NextLoad(
            exercise=self.exercise.name,
            setup=first.setup,
            group=first.group,
            entry=first.entry,
            move=move,
            was_kg=self.was_kg,
            kg=kg,
            body=self.body,
            aim=aim,
            estimate=self.today,
            reasons=reasons,
        )
        return Recommendation(load, Carries(first.key, target_of(self.sets), self._carried(kg, reasons)))

    def _carried(self, kg: Decimal, reasons: tuple[Reason, ...]) -> Carried:
        """What the next plan that asks the same gets. A percentage is cut only where it was missed."""
        match self.written:
            case Weight(kg=was) | BodyPlus(kg=was):
                return Carried(was_kg=was, kg=kg, reasons=reasons)
            case Percent() | RepMax() if not self._missed():
                return Carried(was_kg=kg, kg=kg, reasons=reasons)
        return Carried(was_kg=self.was_kg, kg=kg, reasons=reasons)

    # percentages follow the estimated max

    def _follow_max(self) -> "tuple[Move, Decimal, str, tuple[Reason, ...]] | None":
        """The load a percentage makes of the max as it stands now; a miss is judged like any other."""
        if self.max is None or self.part is None or self._missed():
            return None
        asks = share_of_max(self.written, self.max.curve)
        if asks is None:
            return None
        share, words = asks
        wanted = Decimal(str(round(self.max.kg * share, 1))) - self.part
        kg = nearest(self.kit, self.exercise, wanted).kg
        text = (
            f"The plan asks for {words}; your estimated max now stands at {self.max.kg:.1f} kg "
            f"({self.max.low:.0f} to {self.max.high:.0f}), which makes {plain(round(wanted, 1))} kg."
        )
        values = {"max_kg": Decimal(str(round(self.max.kg, 1))), "wanted_kg": wanted}
        reasons = (Reason(code="share of max", text=text, values=values), *self._rounding(wanted, kg))
        move = Move.RAISE if kg > self.was_kg else Move.CUT if kg < self.was_kg else Move.HOLD
        return move, kg, self._aim(), reasons

    # everything else is judged by what happened

    def _judge(self) -> tuple[Move, Decimal, str, tuple[Reason, ...]]:
        if missed := self._missed():
            return self._cut(missed)
        overs = [over for pair in self.judged if (over := pair.reserve_over) is not None]
        slipped = sum(pair.done.ended is Ended.FORM for pair in self.judged)
        if slipped:
            text = f"Form slipped in {_times(slipped)}: the same load again, cleanly."
            return Move.HOLD, self.was_kg, self._aim(), (Reason(code="form slipped", text=text),)
        if overs and min(overs) < 0:
            text = f"All reps were done, but at worst with {plain(-min(overs))} fewer left than planned: hold."
            reason = Reason(code="met barely", text=text, values={"reserve_over": min(overs)})
            return Move.HOLD, self.was_kg, self._aim(), (reason,)
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

    def _cut(self, missed: list[_Pair]) -> tuple[Move, Decimal, str, tuple[Reason, ...]]:
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
        kg = nearest(self.kit, self.exercise, wanted).kg
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

    def _raise(self, overs: list[Decimal]) -> tuple[Move, Decimal, str, tuple[Reason, ...]]:
        reasons = [_met(overs)]
        if self.body and self.written is None:
            text = "There is no added weight yet: add a rep to each set, or choose a harder set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, tuple(reasons)
        if self.part is None:
            reasons.append(BODY_WEIGHT_MISSING)
            above = next_above(self.kit, self.exercise, self.was_kg)
            kg = self.was_kg if above is None else above
            move = Move.RAISE if kg > self.was_kg else Move.MORE_REPS
            return move, kg, self._aim() if move is Move.RAISE else MORE_REPS_AIM, tuple(reasons)
        moved = self.was_kg + self.part
        allowed = max(self._allowed() or moved, moved * SMALLEST_RISE)
        wanted = min(allowed, moved * LARGEST_RISE) - self.part
        kg = nearest(self.kit, self.exercise, wanted).kg
        if kg <= self.was_kg:
            above = next_above(self.kit, self.exercise, self.was_kg)
            kg = above if above is not None else wanted
        if kg <= self.was_kg or kg + self.part > max(allowed, moved * LARGEST_RISE) + Decimal("0.5"):
            reasons.append(self._jump_too_big(kg, moved))
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.RAISE, kg, self._aim(), tuple(reasons)

    def _jump_too_big(self, kg: Decimal, moved: Decimal) -> Reason:
        if kg <= self.was_kg or not moved:
            return Reason(code="no load above", text="There is no load above this one here: add a rep to each set.")
        share = (kg - self.was_kg) / moved * 100
        text = (
            f"The next load that can be built is {plain(kg)} kg, {share:.0f} % up, more than "
            "that max allows yet: add a rep to each set first."
        )
        return Reason(code="jump too big", text=text, values={"kg": kg, "percent": round(share, 1)})

    def _allowed(self) -> Decimal | None:
        """The whole weight that today's estimate allows for the lead bout's target, body weight included."""
        if self.today is None:
            return None
        reserve = planned_reserve(self.lead.planned.effort)
        reps = max(least_of(self.lead.planned.reps), 1)
        return Decimal(str(round(load_for(self.today.kg, reps, float(reserve or 0)), 2)))

    def _told_by_today(self, today: Estimate) -> Reason:
        words = "at least " if today.at_least else ""
        text = (
            f"The first fresh set was good for {words}{today.reps:g} to failure: an estimated max of "
            f"{words}{today.kg:.1f} kg ({today.low:.0f} to {today.high:.0f})."
        )
        return Reason(code="estimate", text=text, values={"max_kg": Decimal(str(round(today.kg, 1)))})

    def _aim(self) -> str:
        return asked(self.lead.planned)

    def _rounding(self, wanted: Decimal, kg: Decimal) -> tuple[Reason, ...]:
        if abs(wanted - kg) < Decimal("0.05"):
            return ()
        if nearest(self.kit, self.exercise, wanted).kg == kg:
            which = "nearest"
        else:
            which = "next lighter" if kg < self.was_kg else "next heavier"
        text = f"{plain(round(wanted, 1))} kg would be right; {plain(kg)} kg is the {which} you can load here."
        return (Reason(code="rounding", text=text, values={"wanted_kg": round(wanted, 1), "kg": kg}),)


MORE_REPS_AIM = "one more rep a set"
BODY_WEIGHT_MISSING = Reason(
    code="body weight missing",
    text="Body weight is not known, so how much is moved is not known either: note it under Kit, You.",
)


def _met(overs: Sequence[Decimal]) -> Reason:
    """That every target was met, and with how much to spare."""
    if not overs:
        return Reason(code="met", text="Every target was met: add a little.")
    spare = min(overs)
    words = f"with {plain(spare)} more left than planned" if spare else "with the reserve that was planned"
    return Reason(code="met", text=f"Every target was met {words}: add a little.", values={"reserve_over": spare})


def _whole_step(kg: Decimal) -> Decimal:
    """A load that no plate makes (assistance, an unknown lift) to a sensible step of 2.5 kg."""
    return round(kg / Decimal("2.5")) * Decimal("2.5")


def _times(count: int) -> str:
    return "one bout" if count == 1 else f"{count} bouts"
