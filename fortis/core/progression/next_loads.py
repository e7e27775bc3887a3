"""The next load of each lift, from what was planned and what happened, with the reasons.

Common practice: add a little when all targets were met at or above the planned reserve, hold when they were
met barely, cut when they were missed; within a rep range, add reps first, then load. Loads are buildable,
and where the next one up is too big a jump, reps are added instead.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from typing import Any

from fortis.core.basis import Carried, Instead, Rung
from fortis.core.line import by_line
from fortis.core.line_demand import MISSING, Outlook
from fortis.core.line_loads import share_of_max
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import Where, is_rounded, next_below
from fortis.core.performance import PerformedBout
from fortis.core.progression.back_offs import change, held_for_lighter, lighter_told, next_lighter
from fortis.core.progression.carried import Carries, target_of
from fortis.core.progression.climbing import climbed, next_place, next_rung, no_rung
from fortis.core.progression.decision import LARGEST_RISE, MORE_REPS_AIM, RISE_A_REP, Decision, Move
from fortis.core.progression.line_went import LineWent, Pair, written_key
from fortis.core.progression.misses import cut, next_missed, step_by_step
from fortis.core.progression.open_sets import ended_soon, nothing_else, one_more
from fortis.core.progression.policy import CLIMBING, COUNTING, Policy, PolicyKind
from fortis.core.progression.proportions import Lighter, lighter_sets
from fortis.core.progression.turns import (
    NOT_ALL_DONE,
    SHOWN,
    more_of_the_same,
    more_reps_words,
    next_reps,
    next_rest,
    next_sets,
    no_range,
    one_rep_more,
    still_in_range,
    turned,
)
from fortis.core.progression.uneven import no_heavier, now_in_all, too_much_for_all, went_lighter
from fortis.core.reason import Reason
from fortis.core.sentence import capitalised
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import least_of, most_of, to_the_half
from fortis.core.structure.model import (
    BodyPlus,
    FixedReps,
    Hold,
    LiftKey,
    Percent,
    RepMax,
    SetUp,
    Weight,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedSet, Prescription
from fortis.core.structure.timeline import asked
from fortis.core.structure.writing import write_reps
from fortis.core.units import plain
from fortis.core.value import Kilograms, Value

SMALLEST_RISE = Decimal("1.01")
PARTS = Decimal("0.05")
"""A percentage and an effort that call for loads so far apart are told apart."""
LIGHTEST_KG = Decimal(40)
"""Whose body weight is not known moves so much of it at least."""
MUCH_LESS = Decimal("0.96")
"""A first miss is no reason for a load that is lighter than it calls for by more than that."""
HARDLY_ANY = 1
"""Reps left from which on down a load that the max does not allow is not tried."""
LEAST_BELIEVED = Decimal("0.95")
"""Where the max allows less than this share of a load, it is not raised however well its sets went."""


NO_POLICIES: Mapping[str, Policy] = {}


class NextLoad(Value):
    """The recommendation for one line: from `was_kg`, the load of its lead bout, to `kg`, by the lift's policy.

    `reps`, `sets`, `rest` and `hold` (seconds) and `rung` are those of next time where they change. `unnamed` says
    that it is of those sets only that leave their load to be found, where others of the lift name one.
    """

    exercise: str
    lift_id: str
    setup: SetUp
    group: int
    entry: int
    unnamed: bool
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
        _Case.of(prescription, line, sets, done, kit, body_kg, estimates, policies)
        for line, of_line in by_line(prescription).items()
        for sets in _by_lift(of_line)
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


class _Case(LineWent):
    """A line as it went, and what follows for its next time."""

    def decide(self) -> Recommendation:
        more = more_of_the_same(self)
        move, kg, aim, reasons = (
            self._kept()
            or held_for_lighter(self, self.lighter)
            or climbed(self)
            or more
            or self._follow_max()
            or self._judge()
        )
        first = self.sets[0]
        reps, sets, rest = self._next_reps(move), next_sets(self, move), next_rest(self, move)
        rung = next_rung(self, move)
        reasons = (*reasons, *lighter_told(self), *(why for each in self.lighter if (why := each.told)))
        if self.max:
            told = () if share_of_max(self.written) and not self.missed else (_max_told(self.max),)
            reasons = (*told, *reasons, *self._outlook(kg, reps, sets, rest))
        then = self._then(kg) if reps is None else ()
        reasons = (*reasons, *then, *no_rung(self), *no_range(self))
        if move in (Move.RAISE, Move.CUT) and reps is None:
            aim = asked(self.lead.as_written)
        load = NextLoad(
            exercise=self.exercise.name,
            lift_id=written_key(first)[0],
            setup=first.setup,
            group=self.line.group,
            entry=self.line.entry,
            unnamed=self.line.unnamed,
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
        own["lighter"] = None if move is Move.NEXT_RUNG else next_lighter(self)
        own["proportions"] = tuple(each.next_share for each in self.lighter)
        own["missed"] = None if move is Move.NEXT_RUNG else next_missed(self)
        if move is Move.NEXT_RUNG and rung and rung.exercise != first.exercise:
            own |= {"kg": Decimal(0), "was_kg": Decimal(0)}
        carried = self._carried(kg, reasons).model_copy(update=own)
        return Recommendation(load, Carries(written_key(first), target_of(self.sets), carried))

    @cached_property
    def lighter(self) -> Sequence[Lighter]:
        """The sets of the line that name no load, each as far as it is lighter than the heaviest."""
        return lighter_sets(self)

    # what the policy says

    def _kept(self) -> Decision | None:
        if self.policy.kind is not PolicyKind.KEEP:
            return None
        text = "You keep this lift as it is: nothing changes until you choose otherwise."
        return Move.HOLD, self.was_kg, self.aim, (Reason(code="kept", text=text),)

    def _next_reps(self, move: Move) -> FixedReps | Hold | None:
        """The reps, or the seconds to hold, of next time: more, or as this time. A new rung begins as written."""
        if move is Move.NEXT_RUNG:
            return None
        if (held := self.held) is not None:
            return Hold(seconds=_longer(held) if move is Move.LONGER_HOLDS else held)
        return next_reps(self, move)

    def _judge_hold(self, held: int) -> Decision:
        if missed := self.missed:
            text = f"{_times(len(missed))} let go before {held} s: the same again.".capitalize()
            return Move.HOLD, self.was_kg, self.aim, (Reason(code="missed", text=text),)
        if self.slipped:
            text = f"Form slipped in {_times(self.slipped)}: the same again, cleanly."
            return Move.HOLD, self.was_kg, self.aim, (Reason(code="form slipped", text=text),)
        text = f"Every hold of {held} s was held: {_longer(held)} s next time."
        reason = Reason(code="longer holds", text=text, values={"seconds": Decimal(_longer(held))})
        return Move.LONGER_HOLDS, self.was_kg, self.aim, (reason,)

    def _carried(self, kg: Decimal, reasons: tuple[Reason, ...]) -> Carried:
        """What the next plan that asks the same gets. A percentage is cut only where it was missed."""
        match self.written:
            case Weight(kg=was) | BodyPlus(kg=was):
                return Carried(was_kg=was, kg=kg, reasons=reasons)
            case Percent() | RepMax() if not self.missed:
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
        return words, wanted, self.nearest(wanted).kg

    def _follow_max(self) -> Decision | None:
        """The load a percentage makes of the max as it stands now; a miss is judged like any other."""
        if self.max is None or self._of_share is None or self.missed:
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
            text = f"So {self.load_words(kg)} instead, with which all of it should go as asked."
            reasons.append(Reason(code="more than the max allows", text=text, values={"kg": kg}))
        kg, not_so_fast = self._at_once(kg)
        kg, not_yet = no_heavier(self, kg)
        kg, first = step_by_step(self, kg)
        reasons += (*not_so_fast, *not_yet, *first)
        move = Move.RAISE if kg > self.was_kg else Move.CUT if kg < self.was_kg else Move.HOLD
        return move, kg, self.aim, tuple(reasons)

    def _at_once(self, kg: Decimal) -> tuple[Decimal, tuple[Reason, ...]]:
        """What a percentage makes, up to the largest rise from what was planned, or lifted, this time."""
        settled = self.lead.planned.settled
        if self.part is None or settled is None:
            return kg, ()
        before = max(self.was_kg, settled.wanted_kg)
        most = max(self.nearest((before + self.part) * LARGEST_RISE - self.part).kg, self.was_kg)
        if kg <= most:
            return kg, ()
        text = f"That is more than 5 % at once: {self.load_words(most)} first."
        return most, (Reason(code="not at once", text=text, values={"kg": most}),)

    def _parts_from_effort(self, kg: Decimal) -> list[Reason]:
        """What the effort that the plan asks for would call for, where a percentage is far from it."""
        allowed = self.allowed if self.asks_effort else None
        if allowed is None or self.part is None:
            return []
        by_effort = self.nearest(allowed - self.part).kg
        if abs(by_effort - kg) < PARTS * (kg + self.part) or by_effort < kg:
            return []
        text = f"By the reps it is to leave, {plain(by_effort)} kg would be right: percentage and effort part here."
        return [Reason(code="percentage and effort", text=text, values={"kg": by_effort})]

    def _possible(self, kg: Decimal) -> Decimal:
        """A load, or where reps would be missing with it the nearest to what all of the line can be done with."""
        allowed = self.allowed
        if allowed is None or self.part is None or not self.misses(kg):
            return kg
        near = min(self.nearest(allowed - self.part).kg, kg)
        return self.nearest(allowed - self.part, Where.BELOW).kg if self.misses(near) else near

    # everything else is judged by what happened

    def _judge(self) -> Decision:
        if opened := one_more(self):
            return opened
        if (held := self.held) is not None:
            return self._judge_hold(held)
        if self.policy.kind in CLIMBING and next_place(self) and not self.missed:
            text = "Not every set was done as planned: the same rung and load again."
            return Move.HOLD, self.was_kg, self.aim, (Reason(code="same rung", text=text),)
        if missed := self.missed:
            return still_in_range(self, missed) or self._cut(missed)
        if lighter := too_much_for_all(self):
            return lighter
        if soon := ended_soon(self):
            return soon
        overs, slipped = self.overs, self.slipped
        if slipped:
            text = f"Form slipped in {_times(slipped)}: the same load again, cleanly."
            return Move.HOLD, self.was_kg, self.aim, (Reason(code="form slipped", text=text),)
        if overs and min(overs) < 0 and self.policy.kind is not PolicyKind.STEP:
            hardest = min(self.telling, key=lambda pair: pair.reserve_over or Decimal(0))
            text = f"All reps were done, but at worst with {plain(-min(overs))} fewer left than planned: hold."
            if hardest.to_failure:
                asked = least_of(hardest.planned.reps)
                text = (
                    f"{hardest.number} of {asked} reps to failure in the hardest set, which is near enough: hold."
                )
            reason = Reason(code="met barely", text=text, values={"reserve_over": min(overs)})
            return Move.HOLD, self.was_kg, self.aim, (reason,)
        if all(pair.spent for pair in self.judged):
            text = "Every set ended with none left, where no effort was asked: the same load until one is to spare."
            return Move.HOLD, self.was_kg, self.aim, (Reason(code="none left", text=text),)
        if self.back_to is not None:
            load = capitalised(self.load_words(self.back_to))
            text = f"{load} was planned, and made less on a bad day: back to it."
            reason = Reason(code="for the day", text=text, values={"kg": self.back_to})
            return Move.RAISE, self.back_to, self.aim, (self._met(overs, ""), reason)
        if not all(pair.at_top for pair in self.telling):
            text = "The reps are inside the range and not yet at its top in every set: same load, more reps."
            return (
                Move.MORE_REPS,
                self.was_kg,
                MORE_REPS_AIM,
                (Reason(code="range not full", text=text),),
            )
        return self._raise(overs)

    def _cut(self, missed: list[Pair]) -> Decision:
        worst = max(missed, key=lambda pair: pair.short_by)
        asked, done = least_of(worst.planned.reps), worst.number
        text = f"{done} of {asked} reps in the hardest bout, {_times(len(missed))} short of the target."
        reasons = [Reason(code="missed", text=text, values={"asked": Decimal(asked), "done": Decimal(done)})]
        went = went_lighter(self)
        if self.is_bare and went is not None:
            text = f"It went with {plain(-went)} kg of help: so from the first set on."
            return Move.CUT, went, self.aim, (*reasons, Reason(code="with help", text=text, values={"kg": went}))
        if self.is_bare:
            text = "There is no added weight to take off: do fewer reps in the first sets, or an easier set-up."
            if fewer := self.fewer_reps:
                text = f"So one rep fewer in each set, {fewer.count} instead of {fewer.count + 1}."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.HOLD, self.was_kg, self.aim, tuple(reasons)
        if self.part is None:
            reasons.append(BODY_WEIGHT_MISSING)
        moved = self.was_kg + (self.part or 0)
        wanted = cut(self, moved) - (self.part or 0)
        kg = self.nearest(wanted).kg
        if kg >= self.was_kg:
            below = next_below(self.kit, self.exercise, self.was_kg)
            kg = min(_whole_step(wanted), self.was_kg) if below is None else below
        if went is not None:
            kg = max(kg, went)
        far = kg + (self.part or 0) < (wanted + (self.part or 0)) * MUCH_LESS and self.missed_in_a_row == 1
        if not self.body and (far or kg < moved * Decimal("0.85")):
            so = "the same again" if far else "same load, and stop one rep earlier in the first sets"
            text = f"The next lighter load here is {plain(kg)} kg, a bigger cut than the miss calls for: {so}."
            reasons.append(Reason(code="cut too big", text=text, values={"kg": kg}))
            return Move.HOLD, self.was_kg, self.aim, tuple(reasons)
        reasons += self._rounding(wanted, kg)
        return Move.CUT, kg, self.aim, tuple(reasons)

    def _raise(self, overs: list[Decimal]) -> Decision:
        if (risen := now_in_all(self)) and self.policy.kind is not PolicyKind.STEP:
            return risen
        if not self.is_complete and not self._max_allows_more:
            return Move.HOLD, self.was_kg, self.aim, (NOT_ALL_DONE,)
        reasons = [self._met(overs)]
        if self.is_bare:
            text = f"There is no added weight yet: {more_reps_words(self.standing)}, or choose a harder set-up."
            reasons.append(Reason(code="body weight only", text=text))
            return Move.MORE_REPS, self.was_kg, MORE_REPS_AIM, tuple(reasons)
        if self.part is None:
            reasons.append(BODY_WEIGHT_MISSING)
            above = self.next_above()
            kg = self.was_kg if above is None else max(above, self._surely_more(overs))
            move = Move.RAISE if kg > self.was_kg else Move.MORE_REPS
            return move, kg, self.aim if move is Move.RAISE else MORE_REPS_AIM, tuple(reasons)
        moved = self.was_kg + self.part
        if self.policy.kind is PolicyKind.STEP:
            return self._stepped()
        if (turn := turned(self, overs, moved)) is not None:
            return turn
        stands, written = self.standing, self.written_reps
        allowed = (self.allowed_as_written if overs else None) or moved
        spare = max(min(overs, default=Decimal(0)), Decimal(0)) + (stands.now - stands.of if stands else 0)
        if allowed < moved * LEAST_BELIEVED and spare < SHOWN:
            text = (
                f"But by that max {plain(round(allowed - self.part, 1))} kg would be right for all of it: the same "
                "load again."
            )
            reasons = [self._met(overs, ""), Reason(code="more than the max allows", text=text)]
            return Move.HOLD, self.was_kg, self.aim, tuple(reasons)
        allowed = max(allowed, moved * SMALLEST_RISE, moved * (1 + spare * RISE_A_REP))
        wanted = min(allowed, moved * LARGEST_RISE) - self.part
        most = max(allowed, moved * LARGEST_RISE) - self.part + Decimal("0.5")
        kg = self.nearest(wanted).kg
        if kg > most:
            kg = self.nearest(wanted, Where.BELOW).kg
        if kg <= self.was_kg:
            above = self.next_above()
            kg = above if above is not None else self.was_kg
        too_much = self._is_too_much(kg)
        if kg <= self.was_kg or kg > most or (too_much and self._fewest_left):
            move, _, aim, why = one_rep_more(self, kg, moved)
            return move, self.was_kg, aim, (self._met(overs, ""), *why)
        if too_much:
            load = self.load_words(kg)
            text = f"By that max reps are likely missing with {load}: the same load until one is to spare."
            reason = Reason(code="more than the max allows", text=text, values={"kg": kg})
            return Move.HOLD, self.was_kg, self.aim, (self._met(overs, ""), reason)
        if self.body and self.written is None:
            kg = min(kg, Decimal(0))
        kg, first = step_by_step(self, kg)
        reasons += first or self._rounding(wanted, kg)
        if written:
            text = f"With it {write_reps(self.lead.as_written.reps)} reps again, as written."
            reasons.append(Reason(code="written reps", text=text, values={"reps": Decimal(written.count)}))
        return Move.RAISE, kg, self.aim, tuple(reasons)

    def _surely_more(self, overs: Sequence[Decimal]) -> Decimal:
        """A heavier load by the reps that were left beyond the plan, where no body weight is known."""
        rise = min(max(min(overs, default=Decimal(0)), Decimal(0)) * RISE_A_REP, LARGEST_RISE - 1)
        return self.nearest(self.was_kg + (self.was_kg + LIGHTEST_KG) * rise, Where.BELOW).kg

    def _met(self, overs: Sequence[Decimal], so: str | None = None) -> Reason:
        """That every target was met, with how much to spare, and what to do: a little more, if nothing else."""
        if so is None:
            so = ": a little less help" if self.body and self.was_kg < 0 else ": add a little"
        if not overs:
            return Reason(code="met", text=f"Every target was met{so}.")
        spare = min(overs)
        if all(pair.to_failure for pair in self.telling):
            reps = f"{plain(spare)} {'rep' if spare == 1 else 'reps'} more than asked" if spare > 0 else "its reps"
            text = f"Every set to failure had {reps}{so}."
        else:
            words = f"with {plain(spare)} more left than planned" if spare else "with the reserve that was planned"
            text = f"Every target was met {words}{so}."
        return Reason(code="met", text=text, values={"reserve_over": spare})

    @property
    def _max_allows_more(self) -> bool:
        """Whether the max allows a heavier load for all of the line, where that is what the load follows."""
        if self.policy.kind in (PolicyKind.STEP, PolicyKind.REPS) or self.part is None:
            return False
        allowed = self.allowed_as_written
        return allowed is not None and self.nearest(allowed - self.part).kg > self.was_kg

    @cached_property
    def _fewest_left(self) -> Decimal:
        """The fewest reps left of the bouts that tell; plenty where none does."""
        return min((pair.left for pair in self.judged if pair.left is not None), default=Decimal(10))

    def _is_too_much(self, kg: Decimal) -> bool:
        """Whether reps are likely missing with a load where no effort was asked, and a set had hardly any left."""
        return not self.asks_effort and self._fewest_left <= HARDLY_ANY and self.misses(kg)

    def _stepped(self) -> Decision:
        wanted = self.was_kg + self.policy.step_kg
        kg = self.nearest(wanted).kg
        if kg <= self.was_kg:
            above = self.next_above()
            kg = self.was_kg if above is None else above
        if kg <= self.was_kg:
            return one_rep_more(self, kg, self.was_kg)
        text = f"Every rep was done: {plain(self.policy.step_kg)} kg more, as you chose for this lift."
        reason = Reason(code="fixed step", text=text, values={"step_kg": self.policy.step_kg})
        return Move.RAISE, kg, self.aim, (reason, *self._rounding(wanted, kg))

    def _outlook(
        self,
        kg: Decimal,
        reps: FixedReps | Hold | None = None,
        sets: Instead | None = None,
        rest: Instead | None = None,
    ) -> tuple[Reason, ...]:
        """What to expect of the line with its next load, and its next reps, sets or rests where they change."""
        changed = reps or self.written_reps, sets.now if sets else None, rest.now if rest else None
        demand = self.demand_with(*changed) if any(changed) else self.demand
        if demand:
            demand = demand.made_lighter(change(self))
            for each in self.lighter:
                demand = demand.with_loads({of.number for of in each.sets}, float(each.times))
        found = self.expected(kg, demand)
        return () if found is None else (self._foretold(kg, found, sets.now if sets else len(self.sets)),)

    def _foretold(self, kg: Decimal, found: Outlook, sets: int) -> Reason:
        which = "the set" if sets == 1 else f"set {found.set} of {sets}"
        if len({bout.side for bout in self.sets[0].bouts}) < len(self.sets[0].bouts):
            which = f"bout {found.bout} of {which}"
        load = f"body weight and {plain(kg)}" if self.body and kg > 0 else self.load_words(kg)
        values = {"left": to_the_half(found.left), "low": to_the_half(found.low), "high": to_the_half(found.high)}
        if found.left < MISSING:
            text = f"At {load} {which} is likely to end after {max(found.reps + round(found.left), 0)} of its reps."
        else:
            left, low, high = (plain(max(each, Decimal(0))) for each in values.values())
            text = f"At {load} {which}, the hardest, likely ends with {left} left ({low} to {high})."
        return Reason(code="outlook", text=text, values=values)

    def _then(self, kg: Decimal) -> tuple[Reason, ...]:
        """What the time after next would bring: where all goes as planned, ends with none left, or falls short."""
        if self.policy.kind in (PolicyKind.KEEP, *CLIMBING, *COUNTING) or kg <= 0 or nothing_else(self):
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
        pairs = []
        for pair in self.judged:
            asked_left = planned_reserve(pair.planned.effort)
            last = pair is self.telling[-1]
            number = (most_of(pair.planned.reps) or 0) - (missing if last else 0)
            kept = asked_left if asked_left is not None or self.asks_effort else None
            pairs.append(pair.told(kg, max(number, 0), left if last and left is not None else kept))
        lead = next((pair for pair in pairs if pair.planned is self.lead.planned), self.lead)
        case = replace(self, judged=pairs, open=[], lead=lead, was_kg=kg)
        _, then, _, _ = case._follow_max() or case._judge()
        return then

    def _rounding(self, wanted: Decimal, kg: Decimal) -> tuple[Reason, ...]:
        if not is_rounded(self.kit, self.exercise, wanted, kg):
            return ()
        if self.nearest(wanted).kg == kg:
            which = "nearest"
        else:
            which = "next lighter" if kg < self.was_kg else "next heavier"
        right = capitalised(self.load_words(round(wanted, 1)))
        text = f"{right} would be right; {self.load_words(kg)} is the {which} you can load here."
        return (Reason(code="rounding", text=text, values={"wanted_kg": round(wanted, 1), "kg": kg}),)


HOLD_STEP = 5
"""A hold gets longer by a tenth, and by so many seconds at least (common practice)."""


def _longer(seconds: int) -> int:
    return seconds + max(round(seconds / 10 / HOLD_STEP) * HOLD_STEP, HOLD_STEP)


def _max_told(max_: Estimate) -> Reason:
    text = f"By all that is known your max stands at {max_.kg:.1f} kg ({max_.low:.0f} to {max_.high:.0f})."
    return Reason(code="estimate", text=text, values={"max_kg": Decimal(str(round(max_.kg, 1)))})


BODY_WEIGHT_MISSING = Reason(
    code="body weight missing",
    text="Body weight is not known, so how much is moved is not known either: note it under Kit, You.",
)


def _whole_step(kg: Decimal) -> Decimal:
    """A load that no plate makes (assistance, an unknown lift) to a sensible step of 2.5 kg."""
    return round(kg / Decimal("2.5")) * Decimal("2.5")


def _times(count: int) -> str:
    return "one bout" if count == 1 else f"{count} bouts"
