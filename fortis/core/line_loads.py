"""The loads of one line of a plan, settled bout by bout: what was wanted, what can be built, and why."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from decimal import Decimal
from math import inf
from typing import NamedTuple

from fortis.core.basis import Basis, Carried
from fortis.core.exercises import Exercise, LoadKind
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import Build, Where, is_rounded, nearest, nearest_told
from fortis.core.loading.resistance import resistance_of
from fortis.core.reason import Reason
from fortis.core.sentence import capitalised
from fortis.core.strength.curve import DEFAULT_CURVE, LEAST_SHARE, RepCurve
from fortis.core.strength.estimate import Estimate, load_for
from fortis.core.strength.momentary import Asked, Expected, expect
from fortis.core.strength.solving import share_for
from fortis.core.strength.tracker import RELATED_SPREAD
from fortis.core.structure.counting import is_rep_target, least_of
from fortis.core.structure.model import (
    USUAL_RESERVE,
    BodyPlus,
    FixedReps,
    Hold,
    LastTime,
    LoadTarget,
    OfPrevious,
    OfTop,
    Percent,
    RepMax,
    SetUp,
    Shift,
    Weight,
    WeightRange,
    describe_shift,
    is_lighter,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Settled
from fortis.core.structure.timeline import asked
from fortis.core.units import HEAVIEST, plain

MOST_UP = Decimal("1.02")
"""A load that is found for what is asked is rounded up by so little, at most about a rep; else down."""
LEAST_EFFECT = 0.75
"""Reps left that rounding has to move before it is told."""


def lead_of(bouts: list[PlannedBout]) -> PlannedBout:
    """The bout that stands for a line when its load is judged: the first of the heaviest, not a relative one."""
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


def share_of_max(load: LoadTarget | None, curve: RepCurve = DEFAULT_CURVE) -> tuple[float, str] | None:
    """The share of the max that a load asks for by a rep curve, and how it is told; None where it asks for none."""
    match load:
        case Percent(percent=percent, of=None):
            return float(percent) / 100, f"{plain(percent)} %"
        case RepMax(reps=reps):
            return load_for(1.0, reps, 0, curve), f"{reps}RM"
    return None


def waits_for_max(each: PlannedSet, basis: Basis) -> bool:
    """Whether a bout of a set has no load only because no max of its lift is known, with any set-up."""
    known = any(lift == each.lift.id for lift, _ in basis.estimates)
    if known or body_part(each.lift, each.lift.load_kind is LoadKind.BODY, basis.body_kg) is None:
        return False
    return any(
        bout.settled is None and (share_of_max(bout.load) is not None if bout.load else is_rep_target(bout.reps))
        for bout in each.bouts
    )


def shifted(kg: Decimal, shift: Shift, part: Decimal | None) -> Decimal | None:
    """A load moved by a shift. A share is one of all that is moved; None where `part`, the body's, is not known."""
    if shift.unit != "%":
        return min(kg + shift.kg, HEAVIEST)
    if part is None:
        return None
    return min((kg + part) * (1 + shift.amount / 100) - part, HEAVIEST)


@dataclass
class _Wanted:
    """A load before rounding, with why. `found` is one that nobody wrote: it keeps what is asked."""

    kg: Decimal
    reasons: tuple[Reason, ...] = ()
    found: bool = False


class Tired(NamedTuple):
    """What some sets alike allow among the others, as a share of what one alone would; how many they are."""

    allows: float
    sets: int


FRESH = Tired(1.0, 1)
Bouts = tuple[PlannedBout, ...]
"""The bouts of a set before their loads are settled: what sets alike have in common."""
NO_TIRED: Mapping[Bouts, Tired] = {}
NO_RATIOS: Mapping[Bouts, float] = {}


class LineLoads:
    """One line on its way through the session: what its top set and its last bout weighed so far.

    `ratios` are what sets that name no load weigh by what they ask, as multiples of the heaviest of the line.
    """

    def __init__(
        self,
        basis: Basis,
        first: PlannedSet,
        lead: PlannedBout,
        carried: Carried | None,
        tired: Mapping[Bouts, Tired] = NO_TIRED,
        ratios: Mapping[Bouts, float] = NO_RATIOS,
        lighter: float = 1.0,
    ) -> None:
        self.basis = basis
        self.exercise: Exercise = first.lift
        self.body = self.exercise.load_kind is LoadKind.BODY or isinstance(lead.load, BodyPlus)
        self.part = body_part(self.exercise, self.body, basis.body_kg)
        self.max = basis.estimates.get(first.key)
        self.max_of = ""
        self.resistance = resistance_of(first.setup, basis.kit)
        self.more_pull = Decimal(0)
        if self.max is None:
            self._borrow_max(first)
        self.effect_told = False
        self.last = basis.last.get(first.key)
        self.carried = carried
        self.tired = tired
        self.ratios = ratios
        self.lighter = lighter
        self.after_lighter = False
        self.cut = self._cut_of_shares(lead)
        self.top: Decimal | None = None
        self.previous: Decimal | None = None
        self.set = first
        self.first_of_set = True
        self.solved: dict[Bouts, float | None] = {}

    def _borrow_max(self, first: PlannedSet) -> None:
        """Where no max is known with this set-up, the best with another is a guide: flagged, and less sure.

        A max is one of what is on the bar; what bands and chains pull more here is part of the weight for all that.
        """
        lift, _ = first.key
        others = {setup: max_ for (other, setup), max_ in self.basis.estimates.items() if other == lift}
        if others:
            setup = max(others, key=lambda each: others[each].kg)
            self.max = others[setup].widened(RELATED_SPREAD)
            self.max_of = f"with {setup}" if setup else "without this set-up"
            self.more_pull = self.resistance.mean_kg - resistance_of(SetUp.of_key(setup), self.basis.kit).mean_kg

    def _cut_of_shares(self, lead: PlannedBout) -> Decimal:
        """What a miss takes off shares of the max: nothing where the max has come down as far by itself."""
        if self.carried is None or self.carried.kg >= self.carried.was_kg:
            return Decimal(1)
        share = share_of_max(lead.load, self._curve)
        by_max = self._of_max(share[0]) if share else None
        if not by_max or by_max <= self.carried.kg:
            return Decimal(1)
        return self.carried.kg / by_max

    @property
    def _curve(self) -> RepCurve:
        return self.max.curve if self.max else DEFAULT_CURVE

    def settled(self, each: PlannedSet) -> PlannedSet:
        """A set with its loads settled, where they can be, and what rounding does to it."""
        self.set, self.first_of_set = each, True
        bouts = tuple(map(self._settle, each.bouts))
        return self._with_effects_of_rounding(
            each if bouts == each.bouts else each.model_copy(update={"bouts": bouts})
        )

    def _settle(self, bout: PlannedBout) -> PlannedBout:
        """A bout with its load settled, where it can be."""
        wanted = self._wanted(bout)
        if wanted and is_lighter(bout.load):
            wanted = self._made_lighter(wanted, bout)
        else:
            self.after_lighter = False
        self.first_of_set = False
        if wanted is None:
            self.previous = None
            return bout
        build = self._build(wanted, bout.load)
        if isinstance(bout.load, WeightRange):
            build = self._inside(build, bout.load)
        if not isinstance(bout.load, OfTop | OfPrevious):
            self.top = max(build.kg, self.top if self.top is not None else build.kg)
        self.previous = build.kg
        return bout.model_copy(update={"settled": self._settled(wanted, build, bout.load)})

    def _build(self, wanted: _Wanted, asked: LoadTarget | None) -> Build:
        """What can be built; what is written is taken so where nothing is known of how the lift is loaded.

        Help is taken as written, and nothing hangs from who is lifted bare.
        """
        written = isinstance(asked, BodyPlus)
        bare = self.body and wanted.kg <= 0 and (written or self.exercise.load_kind is not LoadKind.BODY)
        if self.basis.kit is None or bare:
            return Build(kg=wanted.kg)
        if isinstance(asked, Weight | BodyPlus) and asked.kg == wanted.kg:
            return nearest(self.basis.kit, self.exercise, wanted.kg)
        build = nearest_told(self.basis.kit, self.exercise, wanted.kg)
        part = self.part or Decimal(0)
        if wanted.found and build.kg + part > (wanted.kg + part) * MOST_UP:
            return nearest_told(self.basis.kit, self.exercise, wanted.kg, Where.BELOW)
        return build

    def _inside(self, build: Build, asked: WeightRange) -> Build:
        """What can be built inside a range, where rounding left it and anything can."""
        low, high = asked.bounds_kg
        if self.basis.kit is None or low <= build.kg <= high:
            return build
        end, where = (low, Where.ABOVE) if build.kg < low else (high, Where.BELOW)
        found = nearest(self.basis.kit, self.exercise, end, where)
        return found if low <= found.kg <= high else build

    def _settled(self, wanted: _Wanted, build: Build, asked: LoadTarget | None) -> Settled:
        percent = self._percent(build.kg)
        reasons = wanted.reasons
        kit = self.basis.kit
        written = isinstance(asked, Weight | WeightRange | BodyPlus)
        if kit is not None and is_rounded(kit, self.exercise, wanted.kg, build.kg, written=written):
            which = "next lighter" if wanted.found and build.kg < wanted.kg else "nearest"
            reasons += (_rounding(wanted.kg, build.kg, which, percent, self._percent(wanted.kg)),)
        pulls = self.resistance if self.resistance.top_kg else None
        return Settled(
            kg=build.kg,
            wanted_kg=wanted.kg,
            percent=percent,
            bar=build.bar,
            bar_kg=build.bar_kg,
            sleeve=build.sleeve,
            body=self.body,
            bottom_kg=build.kg + pulls.bottom_kg if pulls else None,
            top_kg=build.kg + pulls.top_kg if pulls else None,
            mean_kg=build.kg + pulls.mean_kg if pulls else None,
            reasons=reasons,
        )

    def _with_effects_of_rounding(self, each: PlannedSet) -> PlannedSet:
        """Say once what rounded loads do to the reps of a set, where its reps are fixed and a max is known."""
        loads = [bout.settled for bout in each.bouts]
        if self.effect_told or self.max is None or self.max_of or self.part is None or not all(loads):
            return each
        text = _effect_of_rounding(each, self.max, float(self.part))
        if not text:
            return each
        self.effect_told = True
        first = each.bouts[0]
        assert first.settled is not None
        reason = Reason(code="rounding effect", text=text)
        told = first.settled.model_copy(update={"reasons": (*first.settled.reasons, reason)})
        return each.model_copy(update={"bouts": (first.model_copy(update={"settled": told}), *each.bouts[1:])})

    def _percent(self, kg: Decimal) -> Decimal | None:
        if self.max is None or self.part is None or not self.max.kg:
            return None
        return _tenth(float(kg + self.part) / self.max.kg * 100)

    def _of_max(self, share: float, more_pull: Decimal = Decimal(0)) -> Decimal | None:
        """A share of the max as a load to handle: body weight moved is taken off, and what bands pull more."""
        if self.max is None or self.part is None:
            return None
        kg = _tenth(self.max.kg * share - float(self.part) - float(more_pull))
        return max(kg, Decimal(0)) if more_pull else kg

    def _wanted(self, bout: PlannedBout) -> _Wanted | None:
        wanted = self._asked(bout)
        if wanted and bout.climbed:
            kg = self._shifted(wanted.kg, bout.climbed)
            return None if kg is None else _Wanted(kg, wanted.reasons)
        return wanted

    def _asked(self, bout: PlannedBout) -> _Wanted | None:
        match bout.load:
            case Weight(kg=kg) | BodyPlus(kg=kg):
                return self._written(kg)
            case WeightRange(bounds_kg=(low, high)):
                return self._within(bout, low, high)
            case Percent(percent=percent, of=Weight(kg=kg)):
                return self._of_chosen(percent, kg)
            case Percent() | RepMax() as load if share := share_of_max(load, self._curve):
                return self._share(*share, more_pull=self.more_pull if isinstance(load, RepMax) else Decimal(0))
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
        if self.body or not self.carried.was_kg:
            return _Wanted(kg + self.carried.kg - self.carried.was_kg, self.carried.reasons)
        if kg == self.carried.was_kg:
            return _Wanted(self.carried.kg, self.carried.reasons)
        return _Wanted(kg * self.carried.kg / self.carried.was_kg, self.carried.reasons)

    def _of_chosen(self, percent: Decimal, max_kg: Decimal) -> _Wanted:
        kg = max_kg * percent / 100
        text = f"{plain(percent)} % of the chosen {plain(max_kg)} kg is {plain(round(kg, 2))} kg."
        return _Wanted(kg, (Reason(code="share of max", text=text, values={"max_kg": max_kg, "kg": kg}),))

    def _share(self, share: float, words: str, more_pull: Decimal) -> _Wanted | None:
        """A share of the max. A percentage is one of the bar, whatever bands pull; a rep max is one of it all."""
        kg = self._of_max(share, more_pull)
        if kg is None or self.max is None:
            return None
        text = f"{words} of {self._max_words()} is {plain(kg)} kg{_pull_words(more_pull)}."
        reason = Reason(code="share of max", text=text, values={"max_kg": _tenth(self.max.kg), "kg": kg})
        if self.carried and self.cut < 1:
            return _Wanted(kg * self.cut, (reason, *self.carried.reasons))
        return _Wanted(kg, (reason,))

    def _max_words(self) -> str:
        """The max that shares are taken of; one borrowed from another set-up is told with its range."""
        assert self.max is not None
        if not self.max_of:
            return f"an estimated max of {self.max.kg:.1f} kg"
        low, high = f"{self.max.low:.0f}", f"{self.max.high:.0f}"
        return f"a max of about {self.max.kg:.1f} kg {self.max_of} ({low} to {high}, a guide only)"

    def _shifted(self, kg: Decimal, shift: Shift) -> Decimal | None:
        return shifted(kg, shift, self.part)

    def _relative(self, base: Decimal | None, shift: Shift, words: str) -> _Wanted | None:
        kg = None if base is None else self._shifted(base, shift)
        if base is None or kg is None:
            return None
        whole = f"{plain(base)} kg" if not self.part else f"{plain(round(base + self.part, 1))} kg moved"
        text = f"{describe_shift(shift)} from the {whole} of {words}."
        return _Wanted(kg, (Reason(code="relative", text=text, values={"base_kg": base}),))

    def _made_lighter(self, wanted: _Wanted, bout: PlannedBout) -> _Wanted:
        """A back-off or a drop as light as it has to be; a drop from a lighter one is light enough."""
        times = self.lighter * float(self.set.lighter or 1)
        follows = isinstance(bout.load, OfPrevious) and self.after_lighter
        self.after_lighter = times < 1
        if times == 1 or follows or self.part is None:
            return wanted
        kg = _tenth(float(wanted.kg + self.part) * times - float(self.part))
        written = " ".join(each.text for each in wanted.reasons).rstrip(".")
        why = "fell short not long ago" if self.lighter == 1 else f"by the max too much for {asked(bout)}"
        reason = Reason(code="made lighter", text=f"{written}: {why}, so {plain(kg)} kg.", values={"kg": kg})
        return _Wanted(kg, (reason,))

    def _from_last(self, last: Decimal, shift: Shift | None) -> _Wanted | None:
        kg = self._shifted(last, shift) if shift else last
        if kg is None:
            return None
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
        if not is_rep_target(bout.reps) and self.top:
            reason = Reason(code="as before", text=f"The {plain(self.top)} kg of the sets before.")
            return _Wanted(self.top, (reason,))
        if self.carried:
            return self._in_proportion(self.carried)
        if self.exercise.load_kind is LoadKind.BODY:
            return _Wanted(Decimal(0))
        if not is_rep_target(bout.reps):
            return None
        reps = least_of(bout.reps)
        telling = _telling(self.set.bouts)
        reserve = planned_reserve(telling[-1].effort)
        left = float(USUAL_RESERVE if reserve is None else reserve)
        if self.max is None:
            return None
        if self.set.bouts not in self.solved:
            self.solved[self.set.bouts] = self._solved(left)
        solved = self.solved[self.set.bouts]
        tired = self.tired.get(self.set.bouts, FRESH)
        share = (solved or load_for(1.0, reps, left, self.max.curve)) * tired.allows
        kg = self._of_max(share, self.more_pull)
        if kg is None:
            return None
        max_words = self._max_words()
        what = " + ".join(str(_reps(each) or "max") for each in telling) if solved else str(reps)
        what = f"{tired.sets} sets of {what}" if tired.sets > 1 else what
        text = f"{capitalised(max_words)} allows {plain(kg)} kg for {what} leaving {left:g}"
        text += f"{_pull_words(self.more_pull)}."
        reason = Reason(code="effort", text=text, values={"max_kg": _tenth(self.max.kg), "kg": kg})
        return _Wanted(kg, (reason,), found=True)

    def _in_proportion(self, carried: Carried) -> _Wanted:
        """What is carried to the heaviest set of a line, for one of its sets that names no load."""
        ratio = Decimal(str(round(self.ratios.get(self.set.asks, 1.0), 4)))
        if ratio == 1 or self.part is None:
            return _Wanted(carried.kg, carried.reasons)
        kg = _tenth(float((carried.kg + self.part) * ratio - self.part))
        text = f"In proportion to the {plain(carried.kg)} kg of its heaviest set."
        return _Wanted(kg, (Reason(code="in proportion", text=text, values={"base_kg": carried.kg}),))

    def _solved(self, left: float) -> float | None:
        """The share of the max that a set of several bouts allows, all of them done, so many left at its hardest.

        None for one bout, and where a bout has a load of its own or is counted otherwise. Drops that follow bouts
        with an effort of their own only tire.
        """
        bouts, telling = self.set.bouts, _telling(self.set.bouts)
        plain_loads = all(each.load is None or isinstance(each.load, OfTop | OfPrevious) for each in bouts)
        counted = all(not isinstance(each.reps, Hold) for each in bouts)
        if self.max is None or self.part is None or len(telling) < 2 or not (plain_loads and counted):
            return None
        max_kg, part = self.max.kg, self.part
        of_side = [each for each in bouts if each.side is bouts[0].side]

        def set_at(share: float) -> list[Asked]:
            previous = top = Decimal(str(max_kg * share)) - part
            parts = []
            for each in of_side:
                if isinstance(each.load, OfTop | OfPrevious):
                    base = top if isinstance(each.load, OfTop) else previous
                    previous = self._shifted(base, each.load.shift) or Decimal(0)
                keep = left if each is of_side[-1] else float(planned_reserve(each.effort) or 0)
                keep = keep if each in telling else -inf
                parts.append(Asked(max(float(previous + part) / max_kg, LEAST_SHARE), _reps(each), each.rest, keep))
            return parts

        return share_for(set_at, self.max.curve)


def _telling(bouts: tuple[PlannedBout, ...]) -> tuple[PlannedBout, ...]:
    """The bouts of a set that tell its load: those it is written for, where they ask an effort and drops follow."""
    own = tuple(bout for bout in bouts if not is_lighter(bout.load))
    return own if any(planned_reserve(bout.effort) is not None for bout in own) else bouts


def _reps(bout: PlannedBout) -> int | None:
    """The fewest reps that a bout asks for; None where it goes to the end."""
    return least_of(bout.reps) if is_rep_target(bout.reps) else None


def _effect_of_rounding(each: PlannedSet, max_: Estimate, body_part: float) -> str:
    """What the built loads do to the reps of a set beside the wanted ones; empty where it is little."""

    def expected(of: Callable[[Settled], Decimal]) -> list[Expected]:
        asked = []
        for bout in each.bouts:
            assert bout.settled is not None
            share = (float(of(bout.settled)) + body_part) / max_.kg
            reps = bout.reps.count if isinstance(bout.reps, FixedReps) else None
            asked.append(Asked(max(share, LEAST_SHARE), reps, bout.rest))
        return expect(asked, max_.curve)

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


def _pull_words(more_pull: Decimal) -> str:
    """That a load was worked out beside what bands and chains pull; empty where they pull nothing."""
    if not more_pull:
        return ""
    kg = plain(abs(round(more_pull, 1)))
    return f", {kg} kg of mean pull {'taken off' if more_pull > 0 else 'added'}"


def _tenth(number: float) -> Decimal:
    return Decimal(str(round(number, 1)))


def _rounding(wanted: Decimal, kg: Decimal, which: str, percent: Decimal | None, asked: Decimal | None) -> Reason:
    """Say what the kit did to the load, and to the percentage."""
    text = f"{plain(round(wanted, 2))} kg cannot be built here; the {which} is {plain(kg)} kg"
    values = {"wanted_kg": wanted, "kg": kg}
    if percent is not None and asked is not None and percent != asked:
        text += f", {plain(percent)} % instead of {plain(asked)} %"
        values |= {"percent": percent, "asked_percent": asked}
    return Reason(code="rounding", text=text + ".", values=values)
