"""The algebra of set structures: session, group, entry, sets, set, bout and what each asks for.

A *bout* is an unbroken run of reps at one load. A *set* is one or more bouts with short rests or load
changes inside. *Sets* is a run of sets alike. An *entry* is one exercise with its set-up and its sets.
A *group* holds entries done in turn. Every structure is a combination of these; none is a special case.
"""

import re
from decimal import Decimal
from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fortis.core.exercises import Exercise, one_form
from fortis.core.units import Unit, plain, to_kg
from fortis.core.value import Kilograms, Number, Spelled, Value

# --- how many ---------------------------------------------------------------------------------------------


class FixedReps(Value):
    """So many reps."""

    kind: Literal["reps"] = "reps"
    count: int


class RepRange(Value):
    """From `low` to `high` reps, as the effort allows."""

    kind: Literal["range"] = "range"
    low: int
    high: int


class MaxReps(Value):
    """As many reps as the effort allows."""

    kind: Literal["max"] = "max"


class Hold(Value):
    """Seconds instead of reps."""

    kind: Literal["hold"] = "hold"
    seconds: int


RepTarget = Annotated[FixedReps | RepRange | MaxReps | Hold, Field(discriminator="kind")]

# --- how heavy --------------------------------------------------------------------------------------------


class Shift(Value):
    """A change of load: so many per cent, kilograms or pounds. Signed; `unit` is `%`, `kg` or `lb`."""

    amount: Number
    unit: Literal["%", "kg", "lb"] = "%"

    @property
    def kg(self) -> Decimal:
        """The change in kilograms, where it is not in per cent."""
        return to_kg(self.amount, Unit(self.unit))


class Weight(Value):
    """A load as typed: the whole bar, one dumbbell, the pin on the stack."""

    kind: Literal["weight"] = "weight"
    amount: Number
    unit: Unit = Unit.KG

    @property
    def kg(self) -> Decimal:
        """The load in exact kilograms."""
        return to_kg(self.amount, self.unit)


class WeightRange(Value):
    """A load between `low` and `high`, settled on the day."""

    kind: Literal["weight range"] = "weight range"
    low: Number
    high: Number
    unit: Unit = Unit.KG

    @property
    def bounds_kg(self) -> tuple[Decimal, Decimal]:
        """Its ends in kilograms."""
        return to_kg(self.low, Unit(self.unit)), to_kg(self.high, Unit(self.unit))


class Percent(Value):
    """A percentage of the estimated one-rep max, or of a chosen one."""

    kind: Literal["percent"] = "percent"
    percent: Number
    of: Weight | None = None


class RepMax(Value):
    """The load good for exactly `reps` reps: `12RM`."""

    kind: Literal["rep max"] = "rep max"
    reps: int


class BodyPlus(Value):
    """Body weight plus what hangs from the belt, or minus assistance (negative)."""

    kind: Literal["body"] = "body"
    amount: Number = Decimal(0)
    unit: Unit = Unit.KG

    @property
    def kg(self) -> Decimal:
        """What is added, in exact kilograms; negative where it assists."""
        return to_kg(self.amount, self.unit)


class OfTop(Value):
    """Relative to the heaviest set of this entry so far."""

    kind: Literal["of top"] = "of top"
    shift: Shift


class LastTime(Value):
    """What was on the bar the last time this lift was done with this set-up, moved by `shift` where given."""

    kind: Literal["last time"] = "last time"
    shift: Shift | None = None


class OfPrevious(Value):
    """Relative to the bout before: a drop (negative) or an addition."""

    kind: Literal["of previous"] = "of previous"
    shift: Shift


def is_lighter(load: "LoadTarget | None") -> bool:
    """Whether a load is told as so much less than that of another bout: a back-off, or a drop."""
    return isinstance(load, OfTop | OfPrevious) and load.shift.amount < 0


LoadTarget = Annotated[
    Weight | WeightRange | Percent | RepMax | BodyPlus | LastTime | OfTop | OfPrevious, Field(discriminator="kind")
]

# --- how hard ---------------------------------------------------------------------------------------------


class Leave(Value):
    """Reps to keep in reserve (RIR), one number or a range."""

    kind: Literal["leave"] = "leave"
    low: int
    high: int


class Rpe(Value):
    """Rate of perceived exertion. RPE = 10 − RIR (Zourdos et al. 2016)."""

    kind: Literal["rpe"] = "rpe"
    value: Number


class FailureKind(StrEnum):
    """What gives out: the form, or the muscle. `ANY` leaves it open."""

    ANY = "any"
    TECHNICAL = "technical"
    MUSCULAR = "muscular"


class ToFailure(Value):
    """On until no further rep is possible."""

    kind: Literal["failure"] = "failure"
    how: FailureKind = FailureKind.ANY


Effort = Annotated[Leave | Rpe | ToFailure, Field(discriminator="kind")]


def asks_failure(reps: RepTarget, effort: Leave | Rpe | ToFailure | None) -> bool:
    """Whether a bout is meant to go on until no rep is left, in whatever words.

    `to failure`, `leave 0`, a bare `max`.
    """
    match effort:
        case Leave(high=high):
            return high == 0
        case Rpe(value=value):
            return value == 10
        case ToFailure():
            return True
    return isinstance(reps, MaxReps)


USUAL_RESERVE = 2
"""Reps left where a plan names no effort (common practice for working sets)."""


def planned_reserve(effort: Leave | Rpe | ToFailure | None) -> Decimal | None:
    """Reps in reserve that an effort asks for at least, or None where none is asked for."""
    match effort:
        case Leave(low=low):
            return Decimal(low)
        case Rpe(value=value):
            return 10 - value
        case ToFailure():
            return Decimal(0)
    return None


# --- how it is moved --------------------------------------------------------------------------------------


class Tempo(Value):
    """Seconds of lowering, pause, lifting, pause. Lifting `x` is as fast as possible."""

    lowering: int
    bottom: int
    lifting: int | Literal["x"]
    top: int

    @property
    def seconds(self) -> int:
        """Seconds of one rep; a lift as fast as possible counts one."""
        return self.lowering + self.bottom + (1 if self.lifting == "x" else self.lifting) + self.top

    def __str__(self) -> str:
        return f"{self.lowering}-{self.bottom}-{self.lifting}-{self.top}"


class RangeOfMotion(StrEnum):
    """How much of the range a rep covers."""

    FULL = "full"
    STRETCHED = "stretched halves"
    SHORTENED = "shortened halves"
    ALTERNATING = "alternating halves"


class Side(StrEnum):
    """Which side works. Each side is logged apart: left, then right, or the weaker one first."""

    BOTH = "both"
    EACH = "each side"
    RIGHT_FIRST = "each side right first"
    WEAKER_FIRST = "each side weaker first"
    LEFT = "left"
    RIGHT = "right"

    @property
    def is_each(self) -> bool:
        """Whether both sides work, one after the other."""
        return self in (Side.EACH, Side.RIGHT_FIRST, Side.WEAKER_FIRST)


class Lifting(StrEnum):
    """Who lifts and who lowers, for overloading the lowering."""

    ALONE = "alone"
    TWO_UP_ONE_DOWN = "two up one down"
    HELPED_UP = "helped up"


MOST_ITEMS = 12
LONGEST_ITEM = 60
SetUpItem = Annotated[str, Spelled, Field(min_length=1, max_length=LONGEST_ITEM)]


class Gear(Value):
    """What is worn, and from which load or how many reps on, where it is not worn for every bout."""

    item: str
    from_kg: Kilograms | None = None
    from_reps: int | None = None

    def is_worn(self, kg: Decimal | None, reps: int) -> bool:
        """Whether it is worn for so many reps with a load; one that is not known yet takes all of it."""
        light = self.from_kg is not None and kg is not None and kg < self.from_kg
        return not light and not (self.from_reps is not None and reps < self.from_reps)


_ON_FROM = re.compile(r"(?P<item>.+?) from (?P<number>\d+(?:[.,]\d+)?) ?(?P<of>kg|lb|reps?)", re.IGNORECASE)


def _gear(item: str) -> Gear:
    """An item of a set-up, `belt from 120 kg` and `straps from 4 reps` understood."""
    found = _ON_FROM.fullmatch(item)
    if found is None:
        return Gear(item=item)
    number, of = Decimal(found["number"].replace(",", ".")), found["of"].lower()
    if of.startswith("rep"):
        return Gear(item=found["item"], from_reps=int(number))
    return Gear(item=found["item"], from_kg=to_kg(number, Unit(of)))


class SetUp(Value):
    """What is worn and used: belt, bands, deficit. Sets compare only where this is the same.

    An item may come on at a load or a number of reps: `belt from 120 kg`, `straps from 4 reps`.
    """

    items: Annotated[tuple[SetUpItem, ...], Field(max_length=MOST_ITEMS)] = ()

    @property
    def gear(self) -> tuple[Gear, ...]:
        """Its items, with what they come on at."""
        return tuple(map(_gear, self.items))

    def worn(self, kg: Decimal | None, reps: int) -> "SetUp":
        """What of it is worn for so many reps with a load."""
        gear = self.gear
        if all(each.from_kg is None and each.from_reps is None for each in gear):
            return self
        return SetUp(items=tuple(each.item for each in gear if each.is_worn(kg, reps)))

    def __str__(self) -> str:
        return ", ".join(self.items)

    @property
    def key(self) -> str:
        """The one form in which set-ups are compared, all of it on, in whatever order and spelling."""
        return ", ".join(sorted({_one_spelling(each.item) for each in self.gear} - {""}))

    @classmethod
    def of_key(cls, key: str) -> "SetUp":
        """The set-up that a key stands for."""
        return cls(items=tuple(filter(None, key.split(", "))))


_SPELLINGS = {"strap": "straps", "wrap": "wraps", "sleeve": "sleeves", "band": "bands", "chain": "chains"}


def _one_spelling(item: str) -> str:
    """An item of a set-up in one spelling.

    `High-handles` is `high handles`, `30kg` is `30 kg`, a decimal comma a point.
    """
    text = re.sub(r"(?<=\d),(?=\d)", ".", one_form(item).replace("-", " "))
    text = re.sub(r"(\d)\s*(kgs?|lbs?|cm|mm)\b", lambda match: f"{match[1]} {match[2].removesuffix('s')}", text)
    return " ".join(_SPELLINGS.get(word, word) for word in text.split())


LiftKey = tuple[str, str]
"""What makes two performances of a lift comparable: its id, and its set-up in one form."""


def lift_key(lift: Exercise, setup: SetUp) -> LiftKey:
    """The key under which what is known of a lift with a set-up is kept."""
    return lift.id, setup.key


# --- the pieces -------------------------------------------------------------------------------------------


class Terms(Value):
    """What a bout, or every bout of a set, is asked to be. None says nothing.

    `apart` is the rest between the two sides, in seconds.
    """

    load: LoadTarget | None = None
    climb: Shift | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion | None = None
    side: Side | None = None
    apart: int | None = None
    lifting: Lifting | None = None

    def over(self, other: "Terms") -> "Terms":
        """These terms where they say something, the other's elsewhere."""
        mine = {name: value for name in Terms.model_fields if (value := getattr(self, name)) is not None}
        return other.model_copy(update=mine) if mine else other


NO_TERMS = Terms()


class Bout(Value):
    """An unbroken run of reps at one load. `rest` is the short rest before the next bout, in seconds."""

    reps: RepTarget
    terms: Terms = NO_TERMS
    rest: int | None = None


class Set(Value):
    """Bouts with short rests or load changes inside.

    `terms` hold for every bout that says nothing else, except effort, which is asked of the last bout:
    a cluster leaves its rep in reserve at the end. `within` is the short rest between bouts, in seconds.
    """

    bouts: tuple[Bout, ...]
    terms: Terms = NO_TERMS
    within: int | None = None


class Sets(Value):
    """A run of `count` sets alike, with `rest` seconds after each, or one starting `every` so many seconds.

    `span` is a block of so many seconds with as many sets as fit, instead of a count.
    """

    each: Set
    count: int = 1
    rest: int | None = None
    every: int | None = None
    span: int | None = None


class Entry(Value):
    """One exercise with its set-up and its sets.

    `before` are the lines written above it that are no lift: blank ones and remarks, each as it is written.
    `remark` is what stands behind a `#` at the end of its line.
    """

    exercise: str
    sets: tuple[Sets, ...]
    setup: SetUp = SetUp()
    before: tuple[str, ...] = ()
    remark: str = ""


class Group(Value):
    """Entries done in turn: one (straight), two (a pair) or more (a circuit).

    `rounds` and `rest` (seconds, after each round) belong to groups of two and more; `between` is the
    rest between members. `every` starts a round every so many seconds; `span` is a block of so many
    seconds with as many rounds as fit. `before` and `remark` are those of the line that opens the group.
    """

    entries: tuple[Entry, ...]
    rounds: int | None = None
    rest: int | None = None
    between: int | None = None
    every: int | None = None
    span: int | None = None
    before: tuple[str, ...] = ()
    remark: str = ""

    @property
    def is_straight(self) -> bool:
        """Whether this is one exercise on its own."""
        return len(self.entries) == 1


USUAL_PREPARATION = 60
"""Seconds of a preparation that says nothing of its time."""


class Preparation(Value):
    """Something done before the first lift: a drill, heat on a sore tendon. `seconds` where its time is written."""

    what: str
    seconds: int | None = None

    @property
    def takes(self) -> int:
        """The seconds it counts for."""
        return USUAL_PREPARATION if self.seconds is None else self.seconds


class PreparationLine(Value):
    """A line of preparation; `before` and `remark` are as those of an entry."""

    items: tuple[Preparation, ...]
    before: tuple[str, ...] = ()
    remark: str = ""


class Session(Value):
    """What is planned for one visit to the gym. `after` are the remarks and blank lines at the end."""

    groups: tuple[Group, ...]
    title: str = ""
    prep: tuple[PreparationLine, ...] = ()
    after: tuple[str, ...] = ()


def describe_shift(shift: Shift) -> str:
    """A shift as written: `-10%`, `+2.5 kg`."""
    sign = "-" if shift.amount < 0 else "+"
    unit = "%" if shift.unit == "%" else f" {shift.unit}"
    return f"{sign}{plain(abs(shift.amount))}{unit}"
