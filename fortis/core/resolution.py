"""From a prescription to a resolved one: every load settled in kilograms that can be built, with reasons."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from itertools import groupby
from operator import attrgetter

from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind, Muscle
from fortis.core.kept import kept
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import Build, nearest
from fortis.core.loading.resistance import resistance_of
from fortis.core.loading.warm_up import School
from fortis.core.reason import Reason
from fortis.core.stacking import stacked
from fortis.core.strength.estimate import Estimate, load_for, multiplier
from fortis.core.strength.momentary import Asked, Expected, expect
from fortis.core.structure.model import (
    BodyPlus,
    FixedReps,
    LastTime,
    LoadTarget,
    OfPrevious,
    OfTop,
    Percent,
    RepMax,
    RepRange,
    SetUp,
    Shift,
    Side,
    Weight,
    WeightRange,
    describe_shift,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription, Settled
from fortis.core.units import Unit, plain, to_kg
from fortis.core.value import Kilograms, Value
from fortis.core.warming import warmed

LEAST_EFFECT = 0.75
"""Reps left that rounding has to move before it is told."""
USUAL_RESERVE = 2
"""Reps left where a plan names neither load nor effort (common practice for working sets)."""

LiftKey = tuple[str, str]
"""What makes two performances of a lift comparable: its name, caseless, and its set-up."""


def lift_key(exercise: str, setup: SetUp) -> LiftKey:
    """The key under which estimates and carried loads of a lift are kept."""
    return exercise.casefold(), str(setup).casefold()


class Carried(Value):
    """The load the last session of the same name recommends for a lift.

    `written` is what its plan asked then of the lead bout. A plan that asks the same again gets `kg` for
    `was_kg` and the lift's other loads in proportion; a plan that asks otherwise has been changed by the
    lifter and is taken as written.
    """

    written: LoadTarget | None
    was_kg: Kilograms
    kg: Kilograms
    reasons: tuple[Reason, ...] = ()


@dataclass(frozen=True, eq=False)
class Basis:
    """What loads are settled from: the kit, body weight, the estimated maxes and what last time recommends.

    Estimates are of the whole weight moved, body weight included for body-weight lifts. `last` is the heaviest
    load of the latest session with the lift, `weaker` the weaker side of lifts done one side at a time.
    """

    kit: Kit | None = None
    body_kg: Decimal | None = None
    estimates: Mapping[LiftKey, Estimate] = field(default_factory=dict)
    carried: Mapping[LiftKey, Carried] = field(default_factory=dict)
    last: Mapping[LiftKey, Decimal] = field(default_factory=dict)
    weaker: Mapping[str, Side] = field(default_factory=dict)
    library: Library = LIBRARY
    warm_ups: School | None = None


NO_BASIS = Basis()


def resolve(prescription: Prescription, basis: Basis = NO_BASIS) -> Prescription:
    """Settle every load that can be settled; others stay as asked."""
    sets: list[PlannedSet] = []
    warm: frozenset[Muscle] = frozenset()
    for _, group in groupby(prescription.sets, key=attrgetter("group")):
        members = tuple(group)
        sets += _group(members, basis, warm)
        warm |= {muscle for each in members for muscle in each.lift.prime}
    return prescription.model_copy(update={"sets": tuple(sets)})


@kept(1_024)
def _group(sets: tuple[PlannedSet, ...], basis: Basis, warm: frozenset[Muscle]) -> tuple[PlannedSet, ...]:
    """The sets of a group with their loads, warm-ups and stacks; `warm` are the muscles that worked before it."""
    first_sets = {each.entry: each for each in reversed(sets)}
    courses = {entry: _Course(basis, first_sets[entry], lead) for entry, lead in _leads(sets).items()}
    settled = []
    for each in sets:
        course = courses[each.entry]
        bouts = tuple(map(course.settle, each.bouts))
        done = each if bouts == each.bouts else each.model_copy(update={"bouts": bouts})
        settled.append(course.with_effects_of_rounding(done))
        course.set_done()
    if basis.kit is None:
        return tuple(settled)
    planned = warmed(settled, basis.kit, basis.warm_ups, warm) if basis.warm_ups else settled
    return stacked(planned, basis.kit)


def lead_of(bouts: list[PlannedBout]) -> PlannedBout:
    """The bout that stands for an entry when its load is judged: the first of the heaviest, not a relative one."""
    own = [bout for bout in bouts if not isinstance(bout.load, OfTop | OfPrevious)] or bouts

    def weight(bout: PlannedBout) -> Decimal:
        if bout.settled:
            return bout.settled.kg
        match bout.load:
            case Weight(kg=kg) | BodyPlus(kg=kg):
                return kg
            case Percent(percent=percent):
                return percent
        return Decimal(0)

    return max(own, key=weight)


def _leads(sets: Iterable[PlannedSet]) -> dict[int, PlannedBout]:
    bouts: dict[int, list[PlannedBout]] = {}
    for each in sets:
        bouts.setdefault(each.entry, []).extend(each.bouts)
    return {entry: lead_of(of_entry) for entry, of_entry in bouts.items()}


@dataclass
class _Wanted:
    """A load before rounding, with why."""

    kg: Decimal
    reasons: tuple[Reason, ...] = ()


class _Course:
    """One entry on its way through the session: what its top set and its last bout weighed so far."""

    def __init__(self, basis: Basis, first: PlannedSet, lead: PlannedBout) -> None:
        self.basis = basis
        self.exercise: Exercise = first.lift
        key = lift_key(first.exercise, first.setup)
        self.max = basis.estimates.get(key)
        self.max_of = ""
        if self.max is None:
            self._borrow_max(first)
        self.resistance = resistance_of(first.setup, basis.kit)
        self.rounded_told = False
        self.last = basis.last.get(key)
        carried = basis.carried.get(key)
        self.carried = carried if carried and carried.written == lead.load else None
        self.top: Decimal | None = None
        self.previous: Decimal | None = None
        self.first_of_set = True

    def _borrow_max(self, first: PlannedSet) -> None:
        """Where no max is known with this set-up, percentages are taken of the best with another."""
        name = first.exercise.casefold()
        others = {setup: max_ for (lift, setup), max_ in self.basis.estimates.items() if lift == name}
        if others:
            setup = max(others, key=lambda each: others[each].kg)
            self.max, self.max_of = others[setup], f" with {setup}" if setup else " without this set-up"

    def set_done(self) -> None:
        self.first_of_set = True

    def settle(self, bout: PlannedBout) -> PlannedBout:
        wanted = self._wanted(bout)
        self.first_of_set = False
        if wanted is None:
            self.previous = None
            return bout
        build = self._build(wanted.kg)
        if not isinstance(bout.load, OfTop | OfPrevious):
            self.top = max(build.kg, self.top if self.top is not None else build.kg)
        self.previous = build.kg
        return bout.model_copy(update={"settled": self._settled(bout, wanted, build)})

    def _build(self, wanted: Decimal) -> Build:
        assisted = self.exercise.load_kind is LoadKind.BODY and wanted <= 0
        if self.basis.kit is None or assisted:
            return Build(kg=wanted)
        return nearest(self.basis.kit, self.exercise, wanted)

    def _settled(self, bout: PlannedBout, wanted: _Wanted, build: Build) -> Settled:
        percent = self._percent(build.kg)
        reasons = wanted.reasons
        if abs(build.kg - wanted.kg) >= Decimal("0.05"):
            reasons += (_rounding(wanted.kg, build.kg, percent, self._percent(wanted.kg)),)
        body = self.exercise.load_kind is LoadKind.BODY or isinstance(bout.load, BodyPlus)
        pulls = self.resistance if self.resistance.top_kg else None
        return Settled(
            kg=build.kg,
            wanted_kg=wanted.kg,
            percent=percent,
            bar=build.bar,
            bar_kg=build.bar_kg,
            side=build.side,
            body=body,
            bottom_kg=build.kg + pulls.bottom_kg if pulls else None,
            top_kg=build.kg + pulls.top_kg if pulls else None,
            mean_kg=build.kg + pulls.mean_kg if pulls else None,
            reasons=reasons,
        )

    def with_effects_of_rounding(self, each: PlannedSet) -> PlannedSet:
        """Say once what rounded loads do to the reps of a set, where its reps are fixed and a max is known."""
        loads = [bout.settled for bout in each.bouts]
        if self.rounded_told or self.max is None or self.max_of or not all(loads):
            return each
        text = _effect_of_rounding(each, self.max, self._body_part)
        if not text:
            return each
        self.rounded_told = True
        first = each.bouts[0]
        assert first.settled is not None
        reason = Reason(code="rounding effect", text=text)
        told = first.settled.model_copy(update={"reasons": (*first.settled.reasons, reason)})
        return each.model_copy(update={"bouts": (first.model_copy(update={"settled": told}), *each.bouts[1:])})

    def _percent(self, kg: Decimal) -> Decimal | None:
        if self.max is None:
            return None
        return _tenth((float(kg) + self._body_part) / self.max.kg * 100)

    @property
    def _body_part(self) -> float:
        return float(self.exercise.body_share * (self.basis.body_kg or 0))

    def _of_max(self, share: float) -> Decimal | None:
        """A share of the max as a load to handle: body weight moved is taken off."""
        if self.max is None or (self.exercise.body_share and self.basis.body_kg is None):
            return None
        return _tenth(self.max.kg * share - self._body_part)

    def _wanted(self, bout: PlannedBout) -> _Wanted | None:
        wanted = self._asked(bout)
        if wanted and bout.climbed:
            wanted = _Wanted(_shift(wanted.kg, bout.climbed), wanted.reasons)
        return wanted

    def _asked(self, bout: PlannedBout) -> _Wanted | None:
        match bout.load:
            case Weight(kg=kg) | BodyPlus(kg=kg):
                return self._written(kg)
            case WeightRange(low=low, high=high, unit=unit):
                return self._within(bout, to_kg(low, Unit(unit)), to_kg(high, Unit(unit)))
            case Percent(percent=percent, of=Weight(kg=kg)):
                return self._of_chosen(percent, kg)
            case Percent(percent=percent):
                return self._share(float(percent) / 100, f"{plain(percent)} %")
            case RepMax(reps=reps):
                return self._share(1 / multiplier(reps), f"{reps}RM")
            case LastTime(shift=shift) if self.last is not None:
                return self._from_last(self.last, shift)
            case OfTop(shift=shift):
                return self._relative(self.top, shift, "the top set")
            case OfPrevious(shift=shift):
                return self._relative(self.previous, shift, "the bout before")
        return self._by_effort(bout)

    def _written(self, kg: Decimal) -> _Wanted:
        if self.carried is None:
            return _Wanted(kg)
        if self.exercise.load_kind is LoadKind.BODY:
            return _Wanted(kg + self.carried.kg - self.carried.was_kg, self.carried.reasons)
        if kg == self.carried.was_kg:
            return _Wanted(self.carried.kg, self.carried.reasons)
        return _Wanted(kg * self.carried.kg / self.carried.was_kg, self.carried.reasons)

    def _of_chosen(self, percent: Decimal, max_kg: Decimal) -> _Wanted:
        kg = max_kg * percent / 100
        text = f"{plain(percent)} % of the chosen {plain(max_kg)} kg is {plain(round(kg, 2))} kg."
        return _Wanted(kg, (Reason(code="share of max", text=text, values={"max_kg": max_kg, "kg": kg}),))

    def _share(self, share: float, words: str) -> _Wanted | None:
        kg = self._of_max(share)
        if kg is None or self.max is None:
            return None
        text = f"{words} of an estimated max of {self.max.kg:.1f} kg{self.max_of} is {plain(kg)} kg."
        reason = Reason(code="share of max", text=text, values={"max_kg": _tenth(self.max.kg), "kg": kg})
        if self.carried and self.carried.kg < self.carried.was_kg:
            return _Wanted(kg * self.carried.kg / self.carried.was_kg, (reason, *self.carried.reasons))
        return _Wanted(kg, (reason,))

    def _relative(self, base: Decimal | None, shift: Shift, words: str) -> _Wanted | None:
        if base is None:
            return None
        kg = _shift(base, shift)
        text = f"{describe_shift(shift)} from the {plain(base)} kg of {words}."
        return _Wanted(kg, (Reason(code="relative", text=text, values={"base_kg": base}),))

    def _from_last(self, last: Decimal, shift: Shift | None) -> _Wanted:
        kg = _shift(last, shift) if shift else last
        text = f"{describe_shift(shift)} from" if shift else "As heavy as"
        text += f" the {plain(last)} kg of last time with this set-up."
        return _Wanted(kg, (Reason(code="last time", text=text, values={"last_kg": last}),))

    def _within(self, bout: PlannedBout, low: Decimal, high: Decimal) -> _Wanted:
        guess = self._by_effort(bout)
        if guess is None:
            return _Wanted(low)
        return _Wanted(min(max(guess.kg, low), high), guess.reasons)

    def _by_effort(self, bout: PlannedBout) -> _Wanted | None:
        """A load for the reps and the reserve asked, where the plan names none."""
        if not self.first_of_set:
            return None if self.previous is None else _Wanted(self.previous)
        if self.carried:
            return _Wanted(self.carried.kg, self.carried.reasons)
        if self.exercise.load_kind is LoadKind.BODY:
            return _Wanted(Decimal(0))
        match bout.reps:
            case FixedReps(count=reps) | RepRange(low=reps):
                pass
            case _:
                return None
        reserve = planned_reserve(bout.effort)
        left = USUAL_RESERVE if reserve is None else int(reserve)
        if self.max is None or (kg := self._of_max(load_for(1.0, reps, left))) is None:
            return None
        allowed = f"{plain(kg)} kg for {reps} leaving {left}"
        text = f"An estimated max of {self.max.kg:.1f} kg{self.max_of} allows {allowed}."
        return _Wanted(kg, (Reason(code="effort", text=text, values={"max_kg": _tenth(self.max.kg), "kg": kg}),))


def _effect_of_rounding(each: PlannedSet, max_: Estimate, body_part: float) -> str:
    """What the built loads do to the reps of a set beside the wanted ones; empty where it is little."""

    def expected(of: Callable[[Settled], Decimal]) -> list[Expected]:
        asked = []
        for bout in each.bouts:
            assert bout.settled is not None
            share = (float(of(bout.settled)) + body_part) / max_.kg
            reps = bout.reps.count if isinstance(bout.reps, FixedReps) else None
            asked.append(Asked(max(share, 0.05), reps, bout.rest))
        return expect(asked)

    if not all(isinstance(bout.reps, FixedReps) for bout in each.bouts):
        return ""
    wanted, built = expected(lambda load: load.wanted_kg), expected(lambda load: load.kg)
    short = [at for at, (one, other) in enumerate(zip(wanted, built, strict=True)) if other.reps < one.reps]
    if short:
        many, first = len(each.bouts), short[0] + 1
        which = "the set" if many == 1 else f"bout {first} of {many}"
        return f"As built, {which} is likely to fall short: {built[short[0]].reps} of {wanted[short[0]].reps} reps."
    fewer = wanted[-1].left - built[-1].left
    if abs(fewer) < LEAST_EFFECT:
        return ""
    return f"As built, about {abs(fewer):.0f} {'fewer' if fewer > 0 else 'more'} left at the end of a set."


def _shift(kg: Decimal, shift: Shift) -> Decimal:
    return kg * (1 + shift.amount / 100) if shift.unit == "%" else kg + shift.kg


def _tenth(number: float) -> Decimal:
    return Decimal(str(round(number, 1)))


def _rounding(wanted: Decimal, kg: Decimal, percent: Decimal | None, asked: Decimal | None) -> Reason:
    """Say what the kit did to the load, and to the percentage."""
    text = f"{plain(round(wanted, 2))} kg cannot be built here; the nearest is {plain(kg)} kg"
    values = {"wanted_kg": wanted, "kg": kg}
    if percent is not None and asked is not None:
        text += f", {plain(percent)} % instead of {plain(asked)} %"
        values |= {"percent": percent, "asked_percent": asked}
    return Reason(code="rounding", text=text + ".", values=values)
