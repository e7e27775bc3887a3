"""What a season is made of: blocks of weeks, and in them days with sessions whose lines may change week by week."""

from datetime import date, timedelta
from enum import StrEnum

from fortis.core.structure.model import SetUp
from fortis.core.value import Value


class Kind(StrEnum):
    """What the weeks of a block are for."""

    BUILDING = "building"
    HEAVY = "heavy"
    PEAKING = "peaking"
    LIGHT = "light"
    FREE = "free"

    @property
    def is_easy(self) -> bool:
        """Whether its weeks are no hard training: light, or free."""
        return self in (Kind.LIGHT, Kind.FREE)


class LightSchool(StrEnum):
    """How a light week is made of the week before it; the third school plans none and watches the log."""

    SHORT = "heavy and short"
    HALF = "half the load"


class Weekday(StrEnum):
    """The days of the week, Monday first."""

    MONDAY = "Monday"
    TUESDAY = "Tuesday"
    WEDNESDAY = "Wednesday"
    THURSDAY = "Thursday"
    FRIDAY = "Friday"
    SATURDAY = "Saturday"
    SUNDAY = "Sunday"

    @property
    def number(self) -> int:
        """Days after Monday."""
        return list(Weekday).index(self)


class Day(Value):
    """A slot of the week: a session that comes again each week on its day.

    `lines` are written notation with week-dependent parts, as typed.
    """

    weekday: Weekday
    title: str
    lines: tuple[str, ...]


class Block(Value):
    """`rounds` times `weeks` weeks. A light block with a `school` and no days follows from the week before it.

    `by_lot` says that the school was drawn.
    """

    kind: Kind
    weeks: int = 1
    rounds: int = 1
    name: str = ""
    school: LightSchool | None = None
    by_lot: bool = False
    days: tuple[Day, ...] = ()


class AimLift(Value):
    """A lift that counts on the day, with its set-up."""

    exercise: str
    setup: SetUp = SetUp()


class Aim(Value):
    """What a season leads to: a `meet` or a `test` of some lifts on a day."""

    what: str
    on: date
    lifts: tuple[AimLift, ...] = ()


class Away(Value):
    """A week without training. What was planned for it follows a week later, unless it is `missed`."""

    monday: date
    missed: bool = False
    why: str = ""


class LightWeek(Value):
    """A week made light by a school. It stands between its neighbours, and all that follows a week later; with
    `instead` it is what was planned for that week, made light. `by_lot` says that the school was drawn.
    """

    monday: date
    school: LightSchool
    instead: bool = False
    by_lot: bool = False


class Method(StrEnum):
    """What a trial may change of the usual sets of a lift."""

    SINGLE = "heavy single first"
    LONGER = "longer rests"
    SHORTER = "shorter rests"
    HALVES = "halves after the last set"


class Trial(Value):
    """A method tried with a lift in some of so many weeks from a Monday on, `tried` by their number from 1.

    Without a `method` the lift is done with the `sets`, written notation that may change from week to week: those
    that are tried are its rounds, one after the other.
    """

    monday: date
    weeks: int
    tried: tuple[int, ...]
    exercise: str
    setup: SetUp = SetUp()
    method: Method | None = None
    sets: str = ""

    @property
    def last(self) -> date:
        """Its last day."""
        return self.monday + timedelta(days=7 * self.weeks - 1)

    def is_on(self, day: date) -> bool:
        """Whether a day is within it."""
        return self.monday <= day <= self.last

    def is_tried(self, day: date) -> bool:
        """Whether a day is in a week in which the method is tried."""
        return self.is_on(day) and self.number_of(day) in self.tried

    def number_of(self, day: date) -> int:
        """The number of a day's week in it, from 1."""
        return (day - self.monday).days // 7 + 1

    def overlaps(self, other: "Trial") -> bool:
        """Whether both are on in some week."""
        return self.is_on(other.monday) or other.is_on(self.monday)


class Season(Value):
    """A season. `starts` is the Monday of its first week.

    `away` are weeks without training, `light` those that the lifter made light, the earliest first, `trials` what
    is tried, one after the other.
    """

    title: str
    starts: date
    blocks: tuple[Block, ...]
    aim: Aim | None = None
    away: tuple[Away, ...] = ()
    light: tuple[LightWeek, ...] = ()
    trials: tuple[Trial, ...] = ()

    @property
    def weeks(self) -> int:
        """How many weeks are planned."""
        return sum(block.rounds * block.weeks for block in self.blocks)

    @property
    def mondays(self) -> tuple[date, ...]:
        """The weeks of its blocks in order: those that stand between them are left out."""
        put_off = self.put_off
        days = (self.starts + timedelta(weeks=number) for number in range(self.weeks + len(put_off)))
        return tuple(day for day in days if day not in put_off)[: self.weeks]

    @property
    def off(self) -> "tuple[Away | LightWeek, ...]":
        """The weeks that are not trained as their blocks say, the earliest first."""
        return tuple(sorted((*self.away, *self.light), key=lambda each: each.monday))

    @property
    def put_off(self) -> frozenset[date]:
        """The Mondays of the weeks for which all that was planned is put off by one."""
        away = (each.monday for each in self.away if not each.missed)
        return frozenset((*away, *(each.monday for each in self.light if not each.instead)))
