"""A season suggested, from what it is for, the time there is, the place and the lifter: a few to choose from.

Each is a season like any other, with its reasons. Sets, reps, rests and the order of blocks are common practice;
where practice disagrees (the split, how loads rise, light weeks) the proposals differ.
"""

import re
from collections.abc import Collection, Iterable, Iterator, Sequence
from datetime import date, timedelta
from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fortis.core.exercises import BARS, Exercise, Library
from fortis.core.loading.kit import Kit
from fortis.core.reason import Reason
from fortis.core.season.model import Aim, AimLift, Block, Day, Kind, LightSchool, Season, Weekday
from fortis.core.season.splits import SPLITS, WEEKDAYS, Joint, Lifts, Placed, Role, Split, can_be_done
from fortis.core.season.trial import WAVES
from fortis.core.season.weeks import week_by_week
from fortis.core.structure.model import LiftKey, SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write_lift
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.value import Value


class Goal(StrEnum):
    """What a season is for."""

    SIZE = "size"
    STRENGTH = "strength"
    BOTH = "both"


class Experience(StrEnum):
    """How long the lifter has trained."""

    NEW = "less than a year"
    SOME = "one to three years"
    LONG = "more than three years"


class Way(StrEnum):
    """How loads rise."""

    STEPS = "step loading"
    WAVES = "waves"
    EFFORT = "by effort"


MOST_LIFTS = 6
DaysAWeek = Annotated[int, Field(ge=2, le=6)]
Minutes = Annotated[int, Field(ge=20, le=180)]
Sore = Annotated[tuple[Joint, ...], Field(max_length=6)]


class Wish(Value):
    """What a season should be: `days` a week of so many minutes, from a day on; `aim` where it leads to a date.

    `lifts` are those that matter, `sore` what hurts. With `at_once` the first session is on the first day.
    """

    goal: Goal = Goal.BOTH
    days: DaysAWeek = 3
    minutes: Minutes = 60
    experience: Experience = Experience.SOME
    begins: date
    at_once: bool = False
    aim: Aim | None = None
    lifts: Annotated[tuple[AimLift, ...], Field(max_length=MOST_LIFTS)] = ()
    sore: Sore = ()


class Proposal(Value):
    """A season with its reasons. `way` is how its main loads rise."""

    name: str
    way: Way
    season: Season
    reasons: tuple[Reason, ...]


class WishError(ValueError):
    """There is no season for a wish: its date is too near or too far, or nothing is left that can be trained."""


FEWEST_WEEKS, MOST_WEEKS = 2, 52
FEWEST_LIFTS = 2
ROUND, ROUNDS = 3, 2
"""Weeks of a round, and rounds before a light week (common practice: three or four weeks on, one off)."""
HEAVY_WEEKS = 3
NEW_WEEKS = 8
REST_BEFORE_MEET = 3
"""The last session is so many days before the date, at least (common practice: three to five)."""
HEAVY = ("squat", "hinge", "press", "overhead press")
"""Patterns of lifts that are done for triples to singles; rows and pull-ups are not (common practice)."""
OPENERS = "3 at 70%; 2 at 80%; 1 at 88% rest 3:00"
WARM_UP_SECONDS = 300
"""For the warm-ups of a session, which are planned when it comes."""
DRILLS_MINUTES = 5
"""Drills for joints that trouble a lifter take five to ten minutes (common practice)."""
MOST_NAMED = 3


def suggested(
    wish: Wish, kit: Kit, library: Library, known: Collection[LiftKey] = frozenset()
) -> tuple[Proposal, ...]:
    """Two or three seasons for a wish. `known` are the lifts and set-ups whose max is known.

    Raises `WishError`.
    """
    new = wish.experience is Experience.NEW
    ways = (
        (Way.EFFORT,) * 3 if new else (Way.STEPS, Way.EFFORT if wish.goal is Goal.SIZE else Way.WAVES, Way.EFFORT)
    )
    schools = (None,) * 3 if new else (LightSchool.SHORT, LightSchool.HALF, None)
    found = [
        _Suggestion(wish, kit, library, known, split, way, school)
        for split, way, school in zip(SPLITS[wish.days], ways, schools, strict=False)
    ]
    proposals = tuple(each.proposal() for each in found if any(each.sessions))
    if not proposals:
        raise WishError("Of the lifts that are suggested none can be done with what the place has and what hurts.")
    return proposals


class _Suggestion:
    """One season in the making."""

    def __init__(
        self,
        wish: Wish,
        kit: Kit,
        library: Library,
        known: Collection[LiftKey],
        split: Split,
        way: Way,
        school: LightSchool | None,
    ) -> None:
        self.wish, self.split, self.way, self.school, self.known = wish, split, way, school, known
        self.new = wish.experience is Experience.NEW
        self.rise = 2 if wish.experience is Experience.LONG else 3
        wanted = [library.find(each.exercise) for each in wish.lifts]
        self.wanted = [lift for lift in wanted if can_be_done(lift, kit)]
        self.without_kit = [lift.name for lift in wanted if not can_be_done(lift, kit)]
        self.setups = {library.find(each.exercise).id: each.setup for each in wish.lifts}
        self.choice = Lifts(
            kit, library, split, self.wanted, wish.sore, new=self.new, vary=wish.goal is Goal.SIZE and not self.new
        )
        self.cut: list[str] = []
        self.sessions = _with_repeats(self._fitted(self.choice.of(template)) for template in split.sessions)

    def proposal(self) -> Proposal:
        starts = monday_of(self.wish.begins)
        if not self.wish.at_once and starts < self.wish.begins:
            starts += timedelta(days=DAYS)
        season = Season(
            title=self._title(),
            starts=starts,
            blocks=tuple(self._blocks(starts)),
            aim=self.wish.aim and self.wish.aim.model_copy(update={"lifts": self.wish.lifts}),
        )
        return Proposal(name=self.split.name, way=self.way, season=season, reasons=tuple(self._reasons(season)))

    def _title(self) -> str:
        if self.wish.aim:
            return f"To the {self.wish.aim.what}"
        return {Goal.SIZE: "For size", Goal.STRENGTH: "For strength", Goal.BOTH: "For size and strength"}[
            self.wish.goal
        ]

    def _fitted(self, placed: tuple[Placed, ...]) -> tuple[Placed, ...]:
        """As many of the lifts of a session as fit its minutes, two at least; the last are left out first."""
        kept = list(placed)
        while len(kept) > FEWEST_LIFTS and self._seconds(kept) > self.wish.minutes * 60:
            self.cut.append(kept.pop().lift.name)
        return tuple(kept)

    def _seconds(self, placed: Sequence[Placed]) -> int:
        """What a session takes in the longest week."""
        block = Block(
            kind=Kind.BUILDING, weeks=ROUND, days=(self._day("x", Weekday.MONDAY, placed, Kind.BUILDING, ROUND),)
        )
        season = Season(title="x", starts=monday_of(self.wish.begins), blocks=(block,))
        return WARM_UP_SECONDS + max(
            timeline(lay_out(read(each.written))).total_seconds
            for week in week_by_week(season)
            for each in week.sessions
        )

    def _blocks(self, starts: date) -> Iterator[Block]:
        many = self._many_weeks(starts)
        if many is None and self.new:
            yield self._block(Kind.BUILDING, NEW_WEEKS)
            return
        heavy = 0 if self.new or (self.wish.goal is Goal.SIZE and many is None) else HEAVY_WEEKS
        peaking = 1 if self.wish.aim else 0
        light = 1 if self.school else 0
        building = ROUND * ROUNDS if many is None else many - peaking
        if many is not None:
            heavy = min(heavy, max(building - 1, 0))
            building -= heavy
            light = light if heavy and building > ROUND else 0
            building -= light
        yield from self._building(building)
        if light:
            yield Block(kind=Kind.LIGHT, school=self.school)
        if heavy:
            yield self._block(Kind.HEAVY, heavy)
        elif many is None and self.wish.goal is Goal.SIZE:
            yield from self._building(building)
        if peaking:
            yield self._peak()

    def _many_weeks(self, starts: date) -> int | None:
        """The weeks to the date, with its own; None without one."""
        if self.wish.aim is None:
            return None
        many = (monday_of(self.wish.aim.on) - starts).days // DAYS + 1
        if not FEWEST_WEEKS <= many <= MOST_WEEKS:
            told = f"{self.wish.aim.on} is {many} weeks on, its own counted; a season leads to a date in"
            raise WishError(f"{told} {FEWEST_WEEKS} to {MOST_WEEKS} weeks.")
        return many

    def _building(self, many: int) -> Iterator[Block]:
        """So many weeks of building in rounds, and a light week before every two of them, counted from the end."""
        here = min(many, ROUND * ROUNDS)
        if before := many - here:
            light = 1 if self.school and before > 1 else 0
            yield from self._building(before - light)
            if light:
                yield Block(kind=Kind.LIGHT, school=self.school)
        if first := here % ROUND:
            yield self._block(Kind.BUILDING, first)
        if here >= ROUND:
            yield self._block(Kind.BUILDING, ROUND, here // ROUND)

    def _block(self, kind: Kind, many: int, rounds: int = 1) -> Block:
        every = zip(self._weekdays(), self.split.sessions, self.sessions, strict=True)
        days = [each for each in every if each[2]]
        seen: dict[str, int] = {}
        found = []
        for weekday, template, placed in days:
            seen[template.title] = seen.get(template.title, 0) + 1
            title = template.title if seen[template.title] == 1 else f"{template.title} {seen[template.title]}"
            found.append(self._day(title, weekday, placed, kind, many))
        return Block(
            kind=kind, weeks=many, rounds=rounds, days=tuple(sorted(found, key=lambda day: day.weekday.number))
        )

    def _weekdays(self) -> list[Weekday]:
        first = self.wish.begins.weekday() if self.wish.at_once else 0
        return [list(Weekday)[(first + after) % DAYS] for after in WEEKDAYS[self.wish.days]]

    def _peak(self) -> Block:
        """The week of the date: once more the openers, three days before it at the latest; else a free week."""
        assert self.wish.aim
        last = self.wish.aim.on.weekday() - REST_BEFORE_MEET
        days = [day for day in self._weekdays() if day.number <= last]
        lifts = [each for each in self.wanted if each.load_kind in BARS] or [
            placed.lift for session in self.sessions for placed in session[:1] if placed.lift.load_kind in BARS
        ]
        if not days or not lifts:
            return Block(kind=Kind.FREE)
        lines = tuple(f"{self._name(lift)}: {self._openers(lift)}" for lift in dict.fromkeys(lifts))
        day = Day(weekday=max(days, key=lambda each: each.number), title="Openers", lines=lines[:3])
        return Block(kind=Kind.PEAKING, days=(day,))

    def _openers(self, lift: Exercise) -> str:
        return OPENERS if self._is_known(lift) else "3 x 2 leave 4 rest 3:00"

    def _day(self, title: str, weekday: Weekday, placed: Sequence[Placed], kind: Kind, many: int) -> Day:
        """A session of rounds of so many weeks."""
        heavy = kind is Kind.HEAVY
        kept = [each for each in placed if not heavy or each.role is not Role.SMALL] or placed
        lines = (f"{self._name(each.lift)}: {_sided(self._dose(each, kind), each.lift)}" for each in kept)
        for_weeks = (_for_weeks(line, many, last=heavy) for line in lines)
        return Day(weekday=weekday, title=title, lines=(*self._preparation(), *for_weeks))

    def _preparation(self) -> tuple[str, ...]:
        """Drills for what hurts, before the first lift (common practice)."""
        sore = self.wish.sore
        what = f"the {' and '.join(sore)}" if len(sore) <= MOST_NAMED else "what hurts"
        return (f"prep: drills for {what} {DRILLS_MINUTES} min",) if sore else ()

    def _dose(self, placed: Placed, kind: Kind) -> str:
        role, lift = placed
        if lift.pattern in HEAVY and lift.load_kind in BARS and not self.new:
            if role is Role.MAIN:
                return self._heavy(lift) if kind is Kind.HEAVY else self._main(lift)
            if role is Role.AGAIN:
                return self._again(lift, kind)
        if kind is Kind.HEAVY:
            return f"2 x {_range(lift, 5, 8)} leave 2 rest 2:00"
        if role is Role.SMALL:
            sets = "2" if self.new else "2|3|3"
            return f"{sets} x {_range(lift, 10, 15)} leave {2 if self.new else 1} rest 1:30"
        if self.new:
            main = role is not Role.SECOND
            return f"{3 if main else 2} x {_range(lift, 6 if main else 8, 10 if main else 12)} leave 3 rest 2:00"
        low, high = (8, 12) if self.wish.goal is Goal.SIZE else (6, 10)
        sets = "3" if self.way is Way.EFFORT else "2|3|3" if role is Role.SECOND else "3|4|4"
        return f"{sets} x {_range(lift, low, high)} leave 2 rest 2:00"

    def _main(self, lift: Exercise) -> str:
        goal, known = self.wish.goal, self._is_known(lift)
        if self.way is Way.WAVES:
            loads = f" at 74|78|82% +{self.rise - 1}% a round" if known else ""
            return f"4 x 6|5|4{loads} leave 2 rest 3:00"
        if self.way is Way.EFFORT:
            low, high = {Goal.SIZE: (6, 10), Goal.STRENGTH: (4, 6), Goal.BOTH: (5, 8)}[goal]
            return f"{'4' if goal is Goal.STRENGTH else '3'} x {_range(lift, low, high)} leave 2 rest 3:00"
        sets, reps, percent = {
            Goal.SIZE: ("3|4|4", 8, 70),
            Goal.STRENGTH: ("3|4|5", 5, 76),
            Goal.BOTH: ("3|4|4", 6, 74),
        }[goal]
        reps = min(reps, lift.usual_high)
        return f"{sets} x {reps}{f' at {percent}% +{self.rise}% a round' if known else ''} leave 2 rest 3:00"

    def _again(self, lift: Exercise, kind: Kind) -> str:
        """The second time in a week: practice that does not tire for the first."""
        known = self._is_known(lift)
        if kind is Kind.HEAVY:
            return f"3 x 3{' at 80%' if known else ''} leave 2 rest 2:30"
        return f"3 x {_range(lift, 5, 8)} leave 3 rest 2:30"

    def _heavy(self, lift: Exercise) -> str:
        return WAVES if self._is_known(lift) else "3|2|1 leave 1 rest 4:00; 2 x 3 at top -10% rest 3:00"

    def _name(self, lift: Exercise) -> str:
        return write_lift(lift.name, self._setup(lift))

    def _setup(self, lift: Exercise) -> SetUp:
        """With what it is done where it matters."""
        return self.setups.get(lift.id, SetUp())

    def _is_known(self, lift: Exercise) -> bool:
        return lift_key(lift, self._setup(lift)) in self.known

    def _reasons(self, season: Season) -> Iterator[Reason]:
        yield Reason(code="split", text=self.split.why)
        yield Reason(code="way", text=self._why_way())
        if self.new:
            text = (
                "In the first year nothing needs to go near failure, and three left is practice in judging: "
                "it is shown, never held against you."
            )
            yield Reason(code="new", text=text)
        yield Reason(code="light", text=self._why_light(season))
        if self.wish.aim:
            text = (
                f"Counted back from the {self.wish.aim.what} on {self.wish.aim.on}: openers at the latest "
                f"{REST_BEFORE_MEET} days before it, heavy weeks before that, and building before those."
            )
            yield Reason(code="date", text=text)
        if self.without_kit:
            text = f"Your place has nothing to load these with, so they are not in it: {_listed(self.without_kit)}."
            yield Reason(code="lifts", text=text)
        if joints := _listed(self.wish.sore):
            left_out = _listed([lift.name for lift in self.choice.left_out])
            text = (
                f"{f'Left out for your {joints}: {left_out}. ' if left_out else ''}Each session begins with drills "
                f"for your {joints}. If it is new or sharp, ask a licensed professional before you train."
            )
            yield Reason(code="sore", text=text)
        empty = (
            template for template, placed in zip(self.split.sessions, self.sessions, strict=True) if not placed
        )
        if without := [template.title for template in empty]:
            text = f"Nothing your place has trains this without what hurts, so it is left out: {_listed(without)}."
            yield Reason(code="kit", text=text)
        if self.cut:
            text = f"To fit {self.wish.minutes} minutes these found no room: {_listed(dict.fromkeys(self.cut))}."
            yield Reason(code="time", text=text)

    def _why_way(self) -> str:
        mains = [each.lift for session in self.sessions for each in session if each.role is Role.MAIN]
        known = any(self._is_known(lift) for lift in mains)
        return {
            Way.STEPS: "Step loading: more sets each week for three weeks, then back down and "
            + (f"{self.rise} % heavier." if known else "heavier as the last time allows."),
            Way.WAVES: "Waves: fewer reps and more load from week to week, and each round beats the last.",
            Way.EFFORT: "Loads follow how hard the last time was: the day decides, and no max has to be known.",
        }[self.way]

    def _why_light(self, season: Season) -> str:
        planned = any(block.kind is Kind.LIGHT for block in season.blocks)
        if planned and self.school is LightSchool.SHORT:
            return "Light weeks stay heavy and get short: skill and readiness are kept."
        if planned:
            return "Light weeks have half the load: joints and mood rest."
        return "No light week is planned: the watch tells when the log shows that one is due."


def _with_repeats(sessions: Iterable[tuple[Placed, ...]]) -> list[tuple[Placed, ...]]:
    """The sessions of a week, a main lift that came before marked as such."""
    seen: set[str] = set()
    found = []
    for session in sessions:
        mains = {each.lift.id for each in session if each.role is Role.MAIN}
        again = mains & seen
        found.append(tuple(each._replace(role=Role.AGAIN) if each.lift.id in again else each for each in session))
        seen |= mains
    return found


_CHOICE = re.compile(r"(?P<parts>\d+(?:\|\d+)+)(?P<unit>%?)")


def _for_weeks(line: str, many: int, *, last: bool) -> str:
    """A line for a round of so many weeks: of three numbers the first so many, or the last where they lead up."""

    def kept(found: re.Match[str]) -> str:
        parts = found["parts"].split("|")
        return "|".join(parts[-many:] if last else parts[:many]) + found["unit"]

    return _CHOICE.sub(kept, line)


def _sided(dose: str, lift: Exercise) -> str:
    return dose.replace(" leave", " each side leave", 1) if lift.one_sided else dose


def _range(lift: Exercise, low: int, high: int) -> str:
    """A range of reps as near to this as the lift is usually done for."""
    low, high = max(low, lift.usual_low), min(high, lift.usual_high)
    if low >= high:
        low, high = (lift.usual_low, lift.usual_low + 2) if low > lift.usual_high else (max(high - 2, 1), high)
    return f"{low}-{high}"


def _listed(names: Sequence[str] | dict[str, None]) -> str:
    return ", ".join(names)
