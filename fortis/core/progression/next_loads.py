"""The next load of each lift, from what was planned and what happened, with the reasons.

Common practice: add a little when all targets were met at or above the planned reserve, hold when they were
met barely, cut when they were missed; within a rep range, add reps first, then load. Loads are buildable,
and where the next one up is too big a jump, reps are added instead.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from itertools import groupby

from fortis.core.exercises import Exercise, Library, LoadKind
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import nearest, next_above, next_below
from fortis.core.performance import Ended, PerformedBout
from fortis.core.reason import Reason
from fortis.core.resolution import Carried, LiftKey, lead_of, lift_key
from fortis.core.strength.estimate import Estimate, load_for
from fortis.core.structure.model import (
    BodyPlus,
    FixedReps,
    LoadTarget,
    Percent,
    RepMax,
    RepRange,
    RepTarget,
    SetUp,
    ToFailure,
    Weight,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription
from fortis.core.structure.timeline import asked
from fortis.core.tally.session import fresh_estimate
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
    """The recommendation for one lift: from `was_kg`, the load of its lead bout, to `kg`."""

    exercise: str
    setup: SetUp
    move: Move
    was_kg: Kilograms
    kg: Kilograms
    body: bool
    aim: str
    estimate: Estimate | None
    carried: Carried
    reasons: tuple[Reason, ...]


def next_loads(
    prescription: Prescription,
    performed: Sequence[PerformedBout],
    kit: Kit,
    body_kg: Decimal | None,
    estimates: Mapping[LiftKey, Estimate],
) -> tuple[NextLoad, ...]:
    """Recommend for every lift of a resolved prescription of which something was done with a load.

    `estimates` are the current maxes, this session's included; percentages follow them.
    """
    done = {bout.position: bout for bout in performed}
    found = []
    for sets in _entries(prescription):
        recommended = _Case.of(sets, done, kit, body_kg, estimates)
        if recommended:
            found.append(recommended.decide())
    return tuple(found)


def carried(loads: Sequence[NextLoad]) -> dict[LiftKey, Carried]:
    """The recommendations as a basis for settling the next session of the same name."""
    return {lift_key(load.exercise, load.setup): load.carried for load in loads}


def _entries(prescription: Prescription) -> list[list[PlannedSet]]:
    ordered = sorted(prescription.work_sets, key=lambda each: (each.group, each.entry))
    return [list(sets) for _, sets in groupby(ordered, key=lambda each: (each.group, each.entry))]


@dataclass
class _Pair:
    """A bout as planned and as done."""

    planned: PlannedBout
    done: PerformedBout

    @property
    def short_by(self) -> int:
        """Reps missing to the least that was asked."""
        return max(least_reps(self.planned.reps) - self.done.reps, 0)

    @property
    def missed(self) -> bool:
        if isinstance(self.planned.effort, ToFailure):
            return self.short_by > 1
        return self.short_by > 0

    @property
    def reserve_over(self) -> int | None:
        """Reps left beyond the plan; negative where the bout was harder than planned. None where unknown."""
        asked = planned_reserve(self.planned.effort)
        if asked is None or self.done.reserve is None:
            return None
        spare = self.done.reps - least_reps(self.planned.reps)
        if isinstance(self.planned.effort, ToFailure):
            return spare
        if isinstance(self.planned.reps, RepRange):
            spare = max(self.done.reps - self.planned.reps.high, 0)
        return self.done.reserve + spare - int(asked)

    @property
    def at_top(self) -> bool:
        """Whether the most that was asked was done."""
        most = self.planned.reps.high if isinstance(self.planned.reps, RepRange) else least_reps(self.planned.reps)
        return self.done.reps >= most


def least_reps(target: RepTarget) -> int:
    """The fewest reps that meet a target; 0 where any number does."""
    match target:
        case FixedReps(count=reps) | RepRange(low=reps):
            return reps
    return 0


@dataclass
class _Case:
    """All there is to weigh for one lift."""

    exercise: Exercise
    setup: SetUp
    written: LoadTarget | None
    lead: _Pair
    was_kg: Decimal
    judged: list[_Pair]
    kit: Kit
    today: Estimate | None
    body_part: Decimal
    max: Estimate | None

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
            if (position := each.position(bout)) in done and done[position].exercise == each.exercise
        ]
        judged = [pair for pair in pairs if least_reps(pair.planned.reps)]
        if not judged:
            return None
        planned_lead = lead_of([bout for each in sets for bout in each.bouts])
        lead_load = planned_lead.load
        leads = [pair for pair in judged if pair.planned.load == lead_load] or judged
        lead = max(leads, key=lambda pair: pair.done.kg or Decimal(-1))
        exercise = sets[0].lift
        if lead.done.kg is None:
            return None
        return _Case(
            exercise=exercise,
            setup=sets[0].setup,
            written=lead_load,
            lead=lead,
            was_kg=lead.done.kg,
            judged=judged,
            kit=kit,
            today=fresh_estimate([pair.done for pair in pairs], body_kg, Library([exercise])),
            body_part=exercise.body_share * (body_kg or 0),
            max=estimates.get(lift_key(sets[0].exercise, sets[0].setup)),
        )

    def decide(self) -> NextLoad:
        move, kg, aim, reasons = self._follow_max() or self._judge()
        if self.today:
            reasons = (self._told_by_today(), *reasons)
        return NextLoad(
            exercise=self.exercise.name,
            setup=self.setup,
            move=move,
            was_kg=self.was_kg,
            kg=kg,
            body=self.exercise.load_kind is LoadKind.BODY,
            aim=aim,
            estimate=self.today,
            carried=self._carried(kg, reasons),
            reasons=reasons,
        )

    def _carried(self, kg: Decimal, reasons: tuple[Reason, ...]) -> Carried:
        """What the next plan that asks the same gets. A percentage is scaled only where it was missed."""
        match self.written:
            case Weight(kg=was) | BodyPlus(kg=was):
                return Carried(written=self.written, was_kg=was, kg=kg, reasons=reasons)
            case Percent() | RepMax() if not self._missed():
                return Carried(written=self.written, was_kg=kg, kg=kg, reasons=reasons)
        return Carried(written=self.written, was_kg=self.was_kg, kg=kg, reasons=reasons)

    # percentages follow the estimated max

    def _follow_max(self) -> "tuple[Move, Decimal, str, tuple[Reason, ...]] | None":
        """The load a percentage makes of the max as it stands now; a miss is judged like any other."""
        if self.max is None or self._missed():
            return None
        match self.written:
            case Percent(percent=percent, of=None):
                share, words = float(percent) / 100, f"{plain(percent)} %"
            case RepMax(reps=reps):
                share, words = load_for(1.0, reps, 0), f"{reps}RM"
            case _:
                return None
        wanted = Decimal(str(round(self.max.kg * share, 1))) - self.body_part
        kg = nearest(self.kit, self.exercise, wanted).kg
        text = (
            f"The plan asks {words}; your estimated max now stands at {self.max.kg:.1f} kg "
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
            text = f"All reps were done, but at worst with {-min(overs)} fewer left than planned: hold."
            reason = Reason(code="met barely", text=text, values={"reserve_over": Decimal(min(overs))})
            return Move.HOLD, self.was_kg, self._aim(), (reason,)
        if not all(pair.at_top for pair in self.judged):
            text = "The reps are inside the range and not yet at its top in every set: same load, more reps."
            return (
                Move.MORE_REPS,
                self.was_kg,
                "one more rep a set",
                (Reason(code="range not full", text=text),),
            )
        return self._raise(overs)

    def _missed(self) -> list[_Pair]:
        return [pair for pair in self.judged if pair.missed]

    def _cut(self, missed: list[_Pair]) -> tuple[Move, Decimal, str, tuple[Reason, ...]]:
        worst = max(missed, key=lambda pair: pair.short_by)
        asked, done = least_reps(worst.planned.reps), worst.done.reps
        text = f"{done} of {asked} reps in the hardest bout, {_times(len(missed))} short of the target."
        reasons = [Reason(code="missed", text=text, values={"asked": Decimal(asked), "done": Decimal(done)})]
        if self.exercise.load_kind is LoadKind.BODY and self.written is None:
            text = "Nothing is hung here to take off: fewer reps in the first sets, or an easier set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.HOLD, self.was_kg, self._aim(), tuple(reasons)
        moved = self.was_kg + self.body_part
        wanted = self._allowed() or moved * SMALLEST_CUT
        wanted = min(max(wanted, moved * LARGEST_CUT), moved * SMALLEST_CUT) - self.body_part
        kg = nearest(self.kit, self.exercise, wanted).kg
        if kg >= self.was_kg:
            kg = next_below(self.kit, self.exercise, self.was_kg) or _whole_step(wanted)
        if self.exercise.load_kind is not LoadKind.BODY and kg < moved * Decimal("0.85"):
            text = (
                f"The next lighter load here is {plain(kg)} kg, a bigger cut than the miss calls for: "
                "same load, and stop one rep earlier in the first sets."
            )
            reasons.append(Reason(code="cut too big", text=text, values={"kg": kg}))
            return Move.HOLD, self.was_kg, self._aim(), tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.CUT, kg, self._aim(), tuple(reasons)

    def _raise(self, overs: list[int]) -> tuple[Move, Decimal, str, tuple[Reason, ...]]:
        if overs:
            spare = min(overs)
            words = f"with {spare} more left than planned" if spare else "with the reserve that was planned"
            text, code = f"Every target was met {words}: add a little.", "met"
            values = {"reserve_over": Decimal(spare)}
        else:
            text, code, values = "Every target was met: add a little.", "met", {}
        reasons = [Reason(code=code, text=text, values=values)]
        moved = self.was_kg + self.body_part
        allowed = max(self._allowed() or moved, moved * SMALLEST_RISE)
        wanted = min(allowed, moved * LARGEST_RISE) - self.body_part
        kg = nearest(self.kit, self.exercise, wanted).kg
        if kg <= self.was_kg:
            above = next_above(self.kit, self.exercise, self.was_kg)
            kg = above if above is not None else wanted
        if self.exercise.load_kind is LoadKind.BODY and self.written is None:
            text = "Nothing is hung on this lift: add a rep to each set, or make it harder by its set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.MORE_REPS, self.was_kg, "one more rep a set", tuple(reasons)
        if kg + self.body_part > max(allowed, moved * LARGEST_RISE) + Decimal("0.5"):
            share = (kg + self.body_part) / moved * 100 - 100
            text = (
                f"The next load that can be built is {plain(kg)} kg, {share:.0f} % up, more than "
                "that max allows yet: add a rep to each set first."
            )
            reasons.append(Reason(code="jump too big", text=text, values={"kg": kg, "percent": round(share, 1)}))
            return Move.MORE_REPS, self.was_kg, "one more rep a set", tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.RAISE, kg, self._aim(), tuple(reasons)

    def _allowed(self) -> Decimal | None:
        """The whole weight that today's estimate allows for the lead bout's target, body weight included."""
        if self.today is None:
            return None
        reserve = planned_reserve(self.lead.planned.effort)
        reps = max(least_reps(self.lead.planned.reps), 1)
        return Decimal(str(round(load_for(self.today.kg, reps, int(reserve or 0)), 2)))

    def _told_by_today(self) -> Reason:
        assert self.today is not None
        text = (
            f"The first fresh set was good for {self.today.reps} to failure: an estimated max of "
            f"{self.today.kg:.1f} kg ({self.today.low:.0f} to {self.today.high:.0f})."
        )
        return Reason(code="estimate", text=text, values={"max_kg": Decimal(str(round(self.today.kg, 1)))})

    def _aim(self) -> str:
        return asked(self.lead.planned)

    def _rounding(self, wanted: Decimal, kg: Decimal) -> tuple[Reason, ...]:
        if abs(wanted - kg) < Decimal("0.05"):
            return ()
        text = f"{plain(round(wanted, 1))} kg would be it; {plain(kg)} kg is what can be built here."
        return (Reason(code="rounding", text=text, values={"wanted_kg": round(wanted, 1), "kg": kg}),)


def _whole_step(kg: Decimal) -> Decimal:
    """A load that no plate makes (assistance, an unknown lift) to a sensible step of 2.5 kg."""
    return round(kg / Decimal("2.5")) * Decimal("2.5")


def _times(count: int) -> str:
    return "one bout" if count == 1 else f"{count} bouts"
