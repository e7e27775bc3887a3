"""Advice in the middle of a session: after a bout, what its outcome says about the rest of the session.

An outcome is judged by what was to be expected of the bout in its place: early sets leave more than late ones. What
it says of the day goes for the sets to come, and for other lifts that share muscles.
"""

from bisect import bisect_right
from collections.abc import Callable, Hashable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum
from functools import cached_property
from typing import Any, Literal, NamedTuple

from fortis.core.adjustments import LoadChange
from fortis.core.cache import cached, cached_method
from fortis.core.exercises import Exercise
from fortis.core.line_demand import Place
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import Build, Where, nearest_told, next_above
from fortis.core.performance import Ended
from fortis.core.played import entry_name, with_loads
from fortis.core.progression.expectation import Expectation, Foreseen, LineAsks
from fortis.core.reason import Reason
from fortis.core.structure.counting import is_rep_target, least_of, to_the_half
from fortis.core.structure.model import FixedReps, OfPrevious, ToFailure, planned_reserve
from fortis.core.structure.prescription import PlannedBout, PlannedSet
from fortis.core.tally.records import Best, within_reach
from fortis.core.units import plain
from fortis.core.value import Kilograms, Value

MOST_RESERVE = Decimal(5)
"""Reserves from here on are all one: plenty."""
WATCH_FROM, CHANGE_FROM = Decimal("0.75"), Decimal("1.75")
"""A reserve off by about a rep is watched, and calls for another load where the set before it was off as well; one
off by about two calls for it at once, as does one that comes to about two by what calls are worth."""
A_STEP = Decimal("0.0125")
"""Other lifts follow a day that is off by so much for them."""
MOST_OF_A_DAY = Decimal("0.1")
"""They follow it so far and no further: a max that is off by more is not what the day has done."""
SAME_LIFT, SAME_MUSCLES = Decimal(1), Decimal("0.5")
"""How far another line of the same lift follows the day of this one, and how far lifts of the same muscles do."""
LEAST_CUT, MOST_CUT, MOST_RISE = Decimal("0.975"), Decimal("0.85"), Decimal("1.05")
MOST_ABOVE = Decimal("0.0125")
"""A lighter load is the nearest one to what is wanted, so far above it at most: half a rep of a set of five."""


class Course(StrEnum):
    """What to do with the rest of an exercise."""

    GO_ON = "go on"
    WATCH = "watch"
    LIGHTER = "lighter"
    HEAVIER = "heavier"
    STOP = "stop"
    FOUND = "found"


class OtherLoads(Value):
    """Loads of a line still to come that follow the day: its `entry` (as adjustments name it), and its lift."""

    entry: str
    exercise: str
    text: str
    loads: tuple[LoadChange, ...]

    def __hash__(self) -> int:
        return hash((self.entry, self.text))


class Advice(Value):
    """What to do with the rest of an exercise, and why. `kg` is the new load where it changes.

    `sleeve` is what then hangs on each end of the bar, and `loads` is the change of the plan that it takes, its
    sets counted from the one judged. `others` are lines that follow, `skipped` bouts that are not needed any more.
    `was` says which way the bout was off, if it was; `again` is the advice where the set before was off the same
    way. `win` is a record within reach beside a lighter load.
    """

    course: Course
    text: str
    kg: Kilograms | None = None
    sleeve: tuple[Kilograms, ...] = ()
    loads: tuple[LoadChange, ...] = ()
    others: tuple[OtherLoads, ...] = ()
    skipped: tuple[str, ...] = ()
    reasons: tuple[Reason, ...] = ()
    was: Literal["harder", "easier"] | None = None
    win: str = ""
    again: "Advice | None" = None

    def __hash__(self) -> int:
        return hash((self.course, self.text))

    @property
    def changes(self) -> bool:
        """Whether it changes any load."""
        return bool(self.loads or self.others)


class Outcome(NamedTuple):
    """How a bout went, as far as advice goes: what counts of it, reps left (None: not told), and why it ended."""

    number: int
    reserve: Decimal | None = None
    ended: Ended | None = None


class Loaded(NamedTuple):
    """A bout as far as its load goes: its set, its number in that, and its load."""

    set: int
    bout: int
    kg: Decimal


class OtherBout(NamedTuple):
    """A bout of another line: the place of its set in the session, and its load."""

    at: int
    load: Loaded


class Other(NamedTuple):
    """Another line of the session, as far as it follows the day: its bouts, and how far."""

    entry: str
    exercise: str
    lift: Exercise
    part: Decimal
    body: bool
    follows: Decimal
    bouts: tuple[OtherBout, ...]


class _Step(NamedTuple):
    """A load that can be built, and the next one above it: what is wanted in between is this one, from below."""

    build: Build
    to_kg: Decimal


def _from_kg(step: _Step) -> Decimal:
    return step.build.kg


@dataclass(frozen=True)
class Bar:
    """What advice has to load with: the kit, and body weight where it is known."""

    kit: Kit | None = None
    body_kg: Decimal | None = None

    def nearest(self, lift: Exercise, kg: Decimal, *, body: bool, where: Where = Where.BELOW) -> Build:
        """The nearest load of a lift that can be built: never above what was wanted, or as `where` says."""
        if self.kit is None or (body and kg == 0):
            return Build(kg=kg)
        step = None if where is Where.ABOVE else self._step(self.kit, lift, kg)
        if step is None:
            return nearest_told(self.kit, lift, kg, where)
        if where is Where.BELOW or kg - step.build.kg <= step.to_kg - kg:
            return step.build
        return self.nearest(lift, step.to_kg, body=body)

    def _step(self, kit: Kit, lift: Exercise, kg: Decimal) -> "_Step | None":
        """The loads that one lies between; None where there is not one on either side, or nobody knows."""
        steps = self._steps.setdefault(lift.id, [])
        at = bisect_right(steps, kg, key=_from_kg) - 1
        if at >= 0 and kg < steps[at].to_kg:
            return steps[at]
        build = nearest_told(kit, lift, kg, Where.BELOW)
        above = next_above(kit, lift, build.kg) if build.kg <= kg else None
        if above is None or kg >= above:
            return None
        steps.insert(at + 1, _Step(build, above))
        return steps[at + 1]

    @cached_property
    def _steps(self) -> dict[str, list["_Step"]]:
        """By lift the loads that were asked for, in their order."""
        return {}


def load_changes(
    bouts: Iterable[Loaded], to: Callable[[Decimal], Build], *, follows_day: bool = False
) -> tuple[LoadChange, ...]:
    """The changes that give some bouts other loads, `to` by load; bouts of a number and a load change together."""
    changes: dict[tuple[int, Decimal], LoadChange] = {}
    for at, bout, was in bouts:
        if (bout, was) in changes:
            continue
        build = to(was)
        if build.kg != was:
            told = {"sleeve": build.sleeve, "advised": True, "follows_day": follows_day}
            changes[bout, was] = LoadChange(set=at, bout=bout, was_kg=was, kg=build.kg, **told)
    return tuple(changes.values())


@dataclass(frozen=True)
class Line:
    """A line of a session: its work sets, where they stand in it, what they ask, and what follows.

    `bests` is what was done with the lift and its set-up before. `since` are changes of its loads from the first
    that followed the day on; its sets are as they were before those.
    """

    sets: tuple[PlannedSet, ...]
    at: tuple[int, ...]
    asks: LineAsks
    others: tuple[Other, ...]
    bar: Bar
    bests: tuple[Best, ...] = ()
    since: tuple[LoadChange, ...] = ()

    @property
    def entry(self) -> str:
        """The entry it is of, as adjustments name it. Where some sets of that name a load, it has two lines."""
        return entry_name(self.sets[0])

    def holds(self, each: PlannedSet) -> bool:
        """Whether a set is one of the line."""
        return entry_name(each) == self.entry and any(own.number == each.number for own in self.sets)

    def advise(self, each: PlannedSet, bout: PlannedBout, outcome: Outcome) -> Advice | None:
        """Advise on the rest of the session after a bout of the line. None where nothing is left, or asked."""
        judged = self.judged(each, bout)
        return judged.advise(outcome) if judged else None

    def stages(self) -> "list[Stage]":
        """The line as it stood before it followed the day, and after each time that it did; the last as it stands.

        What was advised at once is followed at once: a load that was itself just changed is advised later. Loads
        that the lifter chose change the stage that they were chosen in.
        """
        stages, just_made = [Stage(replace(self, since=()), 1)], set[Decimal]()
        for change in self.since:
            line, first = stages[-1]
            followed = line.with_loads([change])
            if followed.sets == line.sets:
                continue
            if not change.follows_day:
                stages[-1] = Stage(replace(line, sets=followed.sets), first)
                just_made = set()
            elif not just_made or change.was_kg in just_made:
                stages.append(Stage(followed, change.set))
                just_made = {change.kg}
            else:
                stages[-1] = Stage(followed, min(first, change.set))
                just_made.add(change.kg)
        return stages

    def with_loads(self, changes: Sequence[LoadChange]) -> "Line":
        """The line after it followed the day by changes of its loads.

        What is left of it goes by what is planned, and no other line follows: they did so the first time.
        """
        sets = tuple(with_loads(self.sets, changes))
        return replace(self, sets=sets, asks=replace(self.asks, max=None), others=())

    def judged(self, each: PlannedSet, bout: PlannedBout) -> "Judged | None":
        """A bout of the line, to be judged by its outcomes; None where there is nothing to judge it by."""
        placed = self.placed(each, bout)
        return Judged(placed, self.expected(each, bout)) if placed else None

    def placed(self, each: PlannedSet, bout: PlannedBout) -> "Placed | None":
        """A bout of the line in its place; None where there is nothing to judge it by."""
        if bout.settled is None or not is_rep_target(bout.reps):
            return None
        at = next(at for at, other in enumerate(self.sets) if other.number == each.number)
        return Placed(self, each, bout, self.sets[at + 1 :], self.at[at])

    def expected(self, each: PlannedSet, bout: PlannedBout) -> Expectation:
        """What is to be expected of a bout of the line."""
        place = each.number, bout.number
        expected = self._foreseen and self._foreseen.expectation(place, self._moving(each, bout))
        return expected or Expectation.alone(bout)

    @cached_property
    def _foreseen(self) -> Foreseen | None:
        return self.asks.foreseen(self.sets)

    def _moving(self, each: PlannedSet, bout: PlannedBout) -> frozenset[Place]:
        """The bouts whose loads change together with that of a bout, itself one of them."""
        together = {
            (other.number, one.number)
            for other in self.sets
            if not self._asks_other(each, other)
            for one in _together(other, bout.number)
        }
        return frozenset(together | {(each.number, bout.number)})

    def _asks_other(self, each: PlannedSet, other: PlannedSet) -> bool:
        """Whether a set has a load of its own: both are found for what they ask, and that differs."""
        found = each.bouts[0].load is None and other.bouts[0].load is None
        return found and self._asked[each.number] != self._asked[other.number]

    @cached_property
    def _asked(self) -> dict[int, tuple[PlannedBout, ...]]:
        """What each of its sets asks."""
        return {each.number: each.asks for each in self.sets}

    @cached_method
    def others_after(self, at: int, form: Decimal) -> tuple[OtherLoads, ...]:
        """What becomes of other lines on such a day after a place in the session, as far as they share muscles."""
        return tuple(self._others_after(at, form))

    def _others_after(self, at: int, form: Decimal) -> Iterator[OtherLoads]:
        for line in self.others:
            off = min(max(form, -MOST_OF_A_DAY), MOST_OF_A_DAY) * line.follows
            loads = self._following(line, at, 1 + off) if abs(off) >= A_STEP else ()
            if loads:
                was, now = loads[0].was_kg or Decimal(0), loads[0].kg
                text = f"{load_words(now, body=line.body)} for {load_words(was, body=line.body)}."
                text = f"{self._words_for(line)}: {text}"
                yield OtherLoads(entry=line.entry, exercise=line.exercise, text=text, loads=loads)

    def _words_for(self, line: Other) -> str:
        if line.entry == self.entry:
            return "The sets after these" if len(self.sets) > 1 else "The sets after it"
        why = "the same lift" if line.lift.id == self.sets[0].lift.id else "shares its muscles"
        return f"{line.exercise} ({why})"

    def _following(self, line: Other, at: int, ratio: Decimal) -> tuple[LoadChange, ...]:
        """The bouts of another line still to come with the loads nearest to a ratio.

        None goes the other way by rounding, and none by a step that is further than the day.
        """

        def to(was: Decimal) -> Build:
            wanted = (was + line.part) * ratio - line.part
            build = self.bar.nearest(line.lift, wanted, body=line.body, where=Where.NEAREST)
            return build if (build.kg < was) == (ratio < 1) else Build(kg=was)

        return load_changes((each.load for each in line.bouts if each.at > at), to, follows_day=True)


class Stage(NamedTuple):
    """A line as it stood for a while, from its set `first` on."""

    line: Line
    first: int


class _Day(NamedTuple):
    """What an outcome says of the day, and the other lines that follow it."""

    reasons: tuple[Reason, ...] = ()
    others: tuple[OtherLoads, ...] = ()


@dataclass(frozen=True)
class Placed:
    """A bout of a line in its place, with the sets to come: what can be advised after it, in words and loads."""

    line: Line
    each: PlannedSet
    bout: PlannedBout
    following: Sequence[PlannedSet]
    at: int

    @cached_property
    def kind(self) -> Hashable:
        """What bouts of a line share after which the same can be advised: what they ask, and what is to come."""
        to_come: dict[Hashable, int] = {}
        for later in self.following:
            shape = tuple(
                (other.number, other.settled and other.settled.kg, isinstance(other.load, OfPrevious))
                for other in later.open_bouts
            )
            to_come.setdefault(shape, later.number - self.each.number)
        bout = self.bout
        others = sum(other.at > self.at for line in self.line.others for other in line.bouts)
        asked = bout.number, bout.reps, bout.effort, bout.range_of_motion, bout.settled and bout.settled.kg
        return asked, len(self.each.bouts), others, tuple(to_come.items())

    @cached_property
    def is_last(self) -> bool:
        """Whether nothing is left to do that could follow."""
        return not self.following and not self._others_to_come

    @cached_property
    def _others_to_come(self) -> frozenset[str]:
        """The entries of the lines that follow the day and have bouts to come."""
        lines = self.line.others
        return frozenset(line.entry for line in lines if any(each.at > self.at for each in line.bouts))

    def is_far_short(self, number: int) -> bool:
        """Whether so few reps of a single bout are no day for this lift."""
        least = self.least
        goes_on = bool(self.following) or self.line.entry in self._others_to_come
        return number * 2 < least and len(self.each.bouts) == 1 and least > 2 and goes_on

    @cached_property
    def kg(self) -> Decimal:
        """Its load."""
        assert self.bout.settled is not None
        return self.bout.settled.kg

    @property
    def body(self) -> bool:
        """Whether its load is added to body weight."""
        return self.bout.settled is not None and self.bout.settled.body

    @cached_property
    def planned(self) -> Decimal | None:
        """The reps in reserve it asks for; None where it asks for none."""
        return planned_reserve(self.bout.effort)

    @cached_property
    def least(self) -> int:
        """The fewest reps it asks for."""
        return least_of(self.bout.reps)

    @cached_property
    def part(self) -> Decimal | None:
        """What is moved beside its load; None where that is not known."""
        return body_part(self.each.lift, self.body, self.line.bar.body_kg)

    def load(self, kg: Decimal) -> str:
        """A load of its lift in words."""
        return load_words(kg, body=self.body)

    @cached_property
    def slipped(self) -> Advice:
        """The form went."""
        return Advice(
            course=Course.WATCH,
            text=f"Form slipped. Stay at {self.load(self.kg)}, and end the next set before it slips.",
            reasons=(Reason(code="form slipped", text="The form went before the reps did."),),
        )

    @cached_method
    def go_on(self, text: str) -> Advice:
        """Nothing is to be changed."""
        return Advice(course=Course.GO_ON, text=f"{text}: stay at {self.load(self.kg)}.")

    @cached_method
    def easier(self, text: str, again: Advice | None) -> Advice:
        """Nothing is to be changed yet: it was easier, and `again` is what to do where the next one is as well."""
        return Advice(course=Course.GO_ON, text=text, was="easier", again=again)

    @cached_method
    def lighter(self, build: Build | None, form: Decimal, why: str, times: int) -> Advice | None:
        """Less for the sets to come, on a day off by `form`, seen so many `times`; no `build` is no lighter one."""
        day = self._day(form)
        loads = self._moved(build) if build else ()
        reasons = (_reason("harder than planned", why), *day.reasons)
        common: dict[str, Any] = {"reasons": reasons, "was": "harder", "others": day.others}
        if loads:
            shown, win = self._shown(loads), ""
            if shown.was_kg != self.kg:
                text = self._next_words(loads)
            else:
                text = f"Drop to {self.load(shown.kg)}{' for the rest' if times == 1 else ''}."
                win = self._win(shown.kg)
            own = {"kg": shown.kg, "sleeve": shown.sleeve, "loads": loads, "win": win}
            return Advice(course=Course.LIGHTER, text=f"{why} {text}", **own, **common)
        if self.following:
            text = f"{why} Nothing lighter is close: rest longer, and stop a rep earlier."
            return Advice(course=Course.WATCH, text=text, **common)
        return Advice(course=Course.LIGHTER, text=why, **common) if day.others else None

    @cached_method
    def heavier(self, build: Build | None, form: Decimal, why: str, room: bool) -> Advice | None:
        """More for the sets to come, where there is `room` for it; no `build` is no heavier one."""
        day = self._day(form)
        loads = self._moved(build) if build else ()
        reasons = (_reason("easier than planned", why), *day.reasons)
        common: dict[str, Any] = {"was": "easier", "others": day.others}
        if loads:
            shown = self._shown(loads)
            same = shown.was_kg == self.kg
            text = f"Go to {self.load(shown.kg)} for the rest." if same else self._next_words(loads)
            own = {"kg": shown.kg, "sleeve": shown.sleeve, "loads": loads, "reasons": reasons}
            return Advice(course=Course.HEAVIER, text=f"{why} {text}", **own, **common)
        if not self.following:
            return Advice(course=Course.HEAVIER, text=why, reasons=reasons, **common) if day.others else None
        if room:
            text = f"{why} No load in reach is a small step up: add a rep instead."
        else:
            text = f"{why} The sets to come will be harder: stay at {self.load(self.kg)}."
        return Advice(course=Course.GO_ON, text=text, **common)

    def _shown(self, loads: Sequence[LoadChange]) -> LoadChange:
        """The change that advice tells of: that of bouts that were to have this load, else the next one."""
        return next((change for change in loads if change.was_kg == self.kg), loads[0])

    def _next_words(self, loads: Sequence[LoadChange]) -> str:
        """What comes of the next set that changes, in words; the others are in proportion."""
        first, others = loads[0], ", the rest in proportion" if len(loads) > 1 else ""
        return f"Next {self.load(first.kg)} instead of {self.load(first.was_kg or Decimal(0))}{others}."

    def _win(self, kg: Decimal) -> str:
        """A record that is at hand with a lighter load, for who wants one on such a day; empty without."""
        likely = self.least + int(self.planned or 0)
        found = within_reach(kg, likely, self.line.bests, self.part or Decimal(0))
        if found is None:
            return ""
        was = f"{found.was_reps}" if found.was_kg == kg else f"{found.was_reps} at {self.load(found.was_kg)}"
        return f"{found.reps} at {self.load(kg)} would be a record ({was} until now), if you want one today."

    def _day(self, form: Decimal) -> _Day:
        """What an outcome says of the day."""
        if not form:
            return _Day()
        text = f"Today looks about {abs(form) * 100:.0f} % {'under' if form < 0 else 'over'} the estimated max."
        reason = Reason(code="day", text=text, values={"percent": form * 100})
        return _Day((reason,), self.line.others_after(self.at, form))

    def nearest(self, kg: Decimal, where: Where = Where.BELOW) -> Build:
        """The nearest load that can be built for its lift: never above what was wanted, or as `where` says."""
        return self.line.bar.nearest(self.each.lift, kg, body=self.body, where=where)

    @cached_method
    def _moved(self, build: Build) -> tuple[LoadChange, ...]:
        """What becomes of the sets to come: their same bout in proportion, and what hangs together with it."""
        part = self.part or Decimal(0)
        ratio = (build.kg + part) / (self.kg + part) if self.kg + part else Decimal(1)

        def to(was: Decimal) -> Build:
            return build if was == self.kg else self.nearest((was + part) * ratio - part)

        together = (
            Loaded(later.number - self.each.number, bout.number, bout.settled.kg)
            for later in self.following
            for bout in _together(later, self.bout.number)
            if bout.settled
        )
        return load_changes(together, to, follows_day=True)


@dataclass(frozen=True)
class Judged:
    """A bout in its place to be judged by what is to be expected of it."""

    placed: Placed
    expected: Expectation

    def advise(self, outcome: Outcome) -> Advice | None:
        """What to do after an outcome; None where nothing is left to do, or was asked."""
        if self.placed.is_last or self.placed.each.is_warm_up:
            return None
        least, to_failure = self.placed.least, isinstance(self.placed.bout.effort, ToFailure)
        if outcome.number < least - (1 if to_failure else 0):
            return self._short(outcome)
        if not self.placed.following and outcome.ended is Ended.FORM:
            return None
        if outcome.ended is Ended.FORM:
            return self.placed.slipped
        planned = self.placed.planned
        if planned is None or outcome.reserve is None or to_failure:
            return None
        return self._told(outcome, min(outcome.reserve, MOST_RESERVE), planned)

    def _told(self, outcome: Outcome, left: Decimal, planned: Decimal) -> Advice | None:
        """What to do after a bout that was done, with so many left.

        Inside a range of reps each one more leaves one fewer, down to those planned; beyond a fixed number it is
        one to spare.
        """
        expected, spare = self._foreseen(outcome.number, planned)
        off = left + spare - expected
        if -WATCH_FROM < off < WATCH_FROM:
            return self._as_planned(left, short=left + spare < planned, off=off) if self.placed.following else None
        why = _left_words(left, expected, planned)
        if off < 0:
            certain = off * self._worth <= -CHANGE_FROM
            return self._lighter(outcome, why) if certain else self._watch(outcome, why)
        if off >= CHANGE_FROM and left >= 2:
            return self._heavier(outcome, why)
        if not self.placed.following:
            return None
        stay = f"stay at {self.placed.load(self.placed.kg)}."
        again = self._heavier(outcome, f"Again {why[0].lower()}{why[1:]}", times=2)
        text = f"Easier than planned: {stay}" if expected <= planned else f"{why} {stay.capitalize()}"
        return self.placed.easier(text, again if again and again.changes else None)

    def _as_planned(self, left: Decimal, off: Decimal, *, short: bool) -> Advice:
        """What to do where nothing was off; `short` where fewer were left than are planned for the end."""
        if off < 0:
            return self.placed.go_on("Half a rep harder than planned")
        return self.placed.go_on(
            f"{plain(left)} left, as you call them, was to be expected here" if short else "As planned"
        )

    @cached_method
    def _foreseen(self, number: int, planned: Decimal) -> tuple[Decimal, int]:
        """The reps that are to be left after so many, and how many of those done were to spare."""
        spare, foreseen = number - self.placed.least, self.expected.left
        if not isinstance(self.placed.bout.reps, FixedReps):
            foreseen, spare = max(foreseen - spare, min(foreseen, float(planned))), 0
        return min(to_the_half(foreseen), MOST_RESERVE), spare

    @cached_property
    def _worth(self) -> Decimal:
        """What a rep called is worth, one at least."""
        return Decimal(str(round(max(self.expected.calls, 1.0), 2)))

    def _short(self, outcome: Outcome) -> Advice | None:
        asked, done = self.placed.least, outcome.number
        return (
            _far_short(done, asked) if self.placed.is_far_short(done) else self._lighter(outcome, _of(done, asked))
        )

    def _watch(self, outcome: Outcome, why: str) -> Advice | None:
        reasons = (_reason("harder than planned", why),)
        again = self._lighter(outcome, f"Again {why[0].lower()}{why[1:]}", times=2)
        if again is None or not again.changes or not self.placed.following:
            text = why if self.placed.following else ""
            return Advice(course=Course.WATCH, text=text, reasons=reasons, was="harder") if text else None
        if again.kg is not None:
            why += f" If the next set ends so too, drop to {self.placed.load(again.kg)}."
        return Advice(course=Course.WATCH, text=why, reasons=reasons, was="harder", again=again)

    def _lighter(self, outcome: Outcome, why: str, times: int = 1) -> Advice | None:
        form = self._form(outcome, times)
        return self.placed.lighter(self._lighter_build(form), self._off(min(form, Decimal(0))), why, times)

    def _heavier(self, outcome: Outcome, why: str, times: int = 1) -> Advice | None:
        form = self._form(outcome, times)
        room = self.expected.ratio(float(form)) > 1
        return self.placed.heavier(self._heavier_build(form), self._off(max(form, Decimal(0))), why, room)

    def _form(self, outcome: Outcome, times: int) -> Decimal:
        """How far today is off, as a share of what was known, in steps of a per cent."""
        left = believed(outcome.reserve, self.placed.least - outcome.number)
        told = None if left is None else float(min(left, MOST_RESERVE))
        return Decimal(round(self.expected.form(outcome.number, told, times) * 100)) / 100

    def _off(self, form: Decimal) -> Decimal:
        """How far the day is off, as far as it is followed; 0 where no max was known before."""
        return Decimal(0) if self.expected.spread is None or abs(form) < A_STEP else form

    @cached_method
    def _lighter_build(self, form: Decimal) -> Build | None:
        """A lighter load for what was asked: a little at least, and not by too much.

        Worked out of the whole weight moved; where body weight is not known, a step down is all that can be said.
        """
        part = self.placed.part or Decimal(0)
        moved = self.placed.kg + part
        wanted = min(max(self._wanted(form), moved * MOST_CUT), moved * LEAST_CUT)
        found = self.placed.nearest(wanted - part, Where.NEAREST)
        if found.kg + part > wanted * (1 + MOST_ABOVE):
            found = self.placed.nearest(wanted - part)
        lowest = moved * MOST_CUT - part - (Decimal("2.5") if part else 1)
        return found if lowest <= found.kg < self.placed.kg else None

    @cached_method
    def _heavier_build(self, form: Decimal) -> Build | None:
        """A heavier load for what was asked, by a little at most."""
        part = self.placed.part or Decimal(0)
        found = self.placed.nearest(min(self._wanted(form), (self.placed.kg + part) * MOST_RISE) - part)
        return found if found.kg > self.placed.kg else None

    def _wanted(self, form: Decimal) -> Decimal:
        """The whole weight that the sets to come are to have on such a day."""
        ratio = Decimal(round(self.expected.ratio(float(form)) * 1_000)) / 1_000
        return (self.placed.kg + (self.placed.part or Decimal(0))) * ratio


def _together(later: PlannedSet, number: int) -> Iterator[PlannedBout]:
    """The bout of a set that stands where the judged one stood, those of its load, and the drops from it."""
    same = next((bout for bout in later.open_bouts if bout.number == number and bout.settled), None)
    if same is None or same.settled is None:
        return
    following = False
    for bout in later.bouts:
        following = bout is same or (following and isinstance(bout.load, OfPrevious))
        if bout.settled and not bout.left_out and (following or bout.settled.kg == same.settled.kg):
            yield bout


def believed(left: Decimal | None, missing: int) -> Decimal | None:
    """The reps left that are believed of a call: who misses one had two left at most, who misses more one."""
    if left is None or missing <= 0:
        return left
    return min(Decimal(int(left)), Decimal(2 if missing == 1 else 1))


def _of(done: int, asked: int) -> str:
    return f"{done} of {asked} reps."


@cached(256)
def _far_short(done: int, asked: int) -> Advice:
    """What to do where today is not the day for a lift."""
    why, values = _of(done, asked), {"asked": Decimal(asked), "done": Decimal(done)}
    return Advice(
        course=Course.STOP,
        text=f"{why} Under half of what was asked: stop this lift here, today is not the day for it.",
        reasons=(Reason(code="far short", text=why, values=values),),
        was="harder",
    )


@cached(1_024)
def _reason(code: str, text: str) -> Reason:
    return Reason(code=code, text=text)


def _left_words(left: Decimal, expected: Decimal, planned: Decimal) -> str:
    """What was left, beside what was planned, or is to be expected of a set so early."""
    told = "None" if not left else f"{plain(left)}{' or more' if left == MOST_RESERVE else ''}"
    if expected - planned < Decimal("0.75"):
        return f"{told} left where {plain(planned)} {'was' if planned == 1 else 'were'} planned."
    return f"{told} left where about {plain(expected)} here would leave {plain(planned)} at the end."


def is_added(sets: Iterable[PlannedSet]) -> bool:
    """Whether the loads of some sets are added to body weight."""
    return any(bout.settled and bout.settled.body for each in sets for bout in each.bouts)


@cached(1_024)
def load_words(kg: Decimal, *, body: bool) -> str:
    """A load in words: `100`, `bw+20`."""
    if not body:
        return plain(kg)
    return f"bw{'+' if kg > 0 else '−'}{plain(abs(kg))}" if kg else "bw"
