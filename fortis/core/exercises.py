"""What a lift is: how it is loaded, what it trains, how long a rep takes, whether failing is safe."""

import re
import unicodedata
from collections.abc import Iterable, Iterator
from decimal import Decimal
from difflib import get_close_matches
from enum import StrEnum
from typing import Annotated, Any

from pydantic import Field, model_validator

from fortis.core.value import Flag, Number, Spelled, Value


class LoadKind(StrEnum):
    """How load is put on a lift.

    The written load is what the lifter handles: the whole bar, one dumbbell, the pin on the stack, what
    hangs from the belt.
    """

    BAR = "bar"
    TRAP_BAR = "trap bar"
    SAFETY_BAR = "safety bar"
    DUMBBELLS = "dumbbells"
    DUMBBELL = "dumbbell"
    STACK = "stack"
    BODY = "body"
    OTHER = "other"


class Muscle(StrEnum):
    """What gives out or helps; `grip` and `trunk` are counted with them."""

    QUADS = "quads"
    HAMSTRINGS = "hamstrings"
    GLUTES = "glutes"
    ADDUCTORS = "adductors"
    CALVES = "calves"
    CHEST = "chest"
    BACK = "back"
    TRAPS = "traps"
    SHOULDERS = "shoulders"
    BICEPS = "biceps"
    TRICEPS = "triceps"
    GRIP = "grip"
    TRUNK = "trunk"


BARS = (LoadKind.BAR, LoadKind.TRAP_BAR, LoadKind.SAFETY_BAR)


def one_form(name: str) -> str:
    """A name in the one form in which names are compared: whatever its case, spaces and Unicode spelling."""
    folded = unicodedata.normalize("NFKC", name).casefold()
    return " ".join(unicodedata.normalize("NFKC", folded).split())


def lift_id(name: str) -> str:
    """The id that a lift of this name gets when it is first met: `Back squat` is `back-squat`."""
    return re.sub(r"[^\w]+", "-", one_form(name)).strip("-") or "lift"


LONGEST_NAME = 80
LiftName = Annotated[str, Spelled, Field(min_length=1, max_length=LONGEST_NAME)]
"""What a lift is called."""


class Exercise(Value):
    """One lift.

    `id` stays when the lift is renamed; `former_names` are what it was called before. `body_share` is the part of
    body weight moved; `rep_seconds` the usual time of a rep, `usual_low` to `usual_high` the reps it is usually done
    for (seconds for holds). `prime` muscles give out first, `helping` ones help; among both, `grip` and `trunk` say
    what else is taxed.
    """

    id: str = ""
    name: str
    former_names: tuple[str, ...] = ()
    load_kind: LoadKind
    pattern: str
    prime: tuple[Muscle, ...] = ()
    helping: tuple[Muscle, ...] = ()
    rep_seconds: int = 3
    usual_low: int = 5
    usual_high: int = 15
    body_share: Number = Decimal(0)
    one_sided: Flag = False
    small: Flag = False
    failing_is_safe: Flag = False
    pins: Flag = False
    loads_spine: Flag = False
    unracks: Flag = False
    known: Flag = True

    @model_validator(mode="before")
    @classmethod
    def _with_an_id(cls, fields: Any) -> Any:
        """A lift that was given no id has that of its name."""
        if isinstance(fields, dict) and not fields.get("id") and "name" in fields:
            return {**fields, "id": lift_id(fields["name"])}
        return fields

    @property
    def implements(self) -> int:
        """How many of the written load move at once: two dumbbells count twice in tonnage."""
        return 2 if self.load_kind is LoadKind.DUMBBELLS else 1

    @property
    def is_free(self) -> bool:
        """Whether it is done with free weights rather than a machine or the body alone."""
        return self.load_kind in FREE

    def taxes(self, what: Muscle) -> bool:
        """Whether something, the grip or the trunk above all, is worked by it."""
        return what in self.prime or what in self.helping


FREE = (*BARS, LoadKind.DUMBBELLS, LoadKind.DUMBBELL)

_FLAGS = {
    "safe": "failing_is_safe",
    "pins": "pins",
    "spine": "loads_spine",
    "unracks": "unracks",
    "small": "small",
    "one": "one_sided",
}
"""Words of the table below: failing is safe; it can pin the lifter; it loads the spine; every mini-set costs
an unrack and a rerack; it is a small single-joint lift; it is done one side at a time."""

_TABLE = """
Back squat                 | bar        | squat           | 3 s 3-12  | quads glutes      | adductors trunk              | pins spine unracks
Front squat                | bar        | squat           | 3 s 3-12  | quads             | glutes trunk                 | pins spine unracks
Safety-bar squat           | safety bar | squat           | 3 s 3-12  | quads glutes      | trunk                        | pins spine unracks
Box squat                  | bar        | squat           | 3 s 3-12  | quads glutes      | hamstrings trunk             | pins spine unracks
Hack squat                 | stack      | squat           | 3 s 3-12  | quads             | glutes                       | safe
Goblet squat               | dumbbell   | squat           | 3 s 3-12  | quads             | glutes trunk                 | safe
Split squat                | dumbbells  | lunge           | 3 s 6-15  | quads glutes      | adductors grip               | one
Walking lunge              | dumbbells  | lunge           | 3 s 6-15  | quads glutes      | adductors grip               | one
Step-up                    | dumbbells  | lunge           | 3 s 6-15  | quads glutes      | grip                         | one
Leg press                  | stack      | squat           | 3 s 3-12  | quads glutes      | adductors                    | safe
Leg extension              | stack      | knee extension  | 3 s 8-20  | quads             |                              | safe small
Lying leg curl             | stack      | knee flexion    | 3 s 8-15  | hamstrings        |                              | safe small
Seated leg curl            | stack      | knee flexion    | 3 s 8-15  | hamstrings        |                              | safe small
Nordic curl                | body 0.8   | knee flexion    | 4 s 3-8   | hamstrings        |                              | safe
Standing calf raise        | stack      | calf raise      | 2 s 8-20  | calves            |                              | safe small
Seated calf raise          | stack      | calf raise      | 2 s 8-20  | calves            |                              | safe small
Deadlift                   | bar        | hinge           | 3 s 1-6   | glutes hamstrings | back quads grip trunk        | spine
Sumo deadlift              | bar        | hinge           | 3 s 1-6   | glutes quads      | back adductors grip trunk    | spine
Deficit deadlift           | bar        | hinge           | 3 s 2-6   | glutes hamstrings | back quads grip trunk        | spine
Trap-bar deadlift          | trap bar   | hinge           | 3 s 1-8   | glutes quads      | back grip trunk              | spine
Romanian deadlift          | bar        | hinge           | 3 s 5-12  | hamstrings glutes | back grip trunk              | spine
Good morning               | bar        | hinge           | 3 s 6-12  | hamstrings glutes | trunk                        | pins spine unracks
Back extension             | body 0.5   | hinge           | 3 s 8-20  | glutes hamstrings | trunk                        | safe
Hip thrust                 | bar        | hinge           | 3 s 6-12  | glutes            | hamstrings                   |
Cable pull-through         | stack      | hinge           | 3 s 10-20 | glutes            | hamstrings grip              | safe
Power clean                | bar        | olympic         | 2 s 1-3   | glutes quads      | back grip trunk              | spine
Power snatch               | bar        | olympic         | 2 s 1-3   | glutes quads      | back grip trunk              | spine
Bench press                | bar        | press           | 3 s 4-12  | chest triceps     | shoulders                    | pins unracks
Incline bench press        | bar        | press           | 3 s 4-12  | chest shoulders   | triceps                      | pins unracks
Close-grip bench press     | bar        | press           | 3 s 4-12  | triceps chest     | shoulders                    | pins unracks
Floor press                | bar        | press           | 3 s 4-12  | chest triceps     | shoulders                    | pins unracks
Dumbbell press             | dumbbells  | press           | 3 s 4-12  | chest triceps     | shoulders                    | safe unracks
Incline dumbbell press     | dumbbells  | press           | 3 s 4-12  | chest shoulders   | triceps                      | safe unracks
Machine chest press        | stack      | press           | 3 s 4-12  | chest triceps     | shoulders                    | safe
Cable fly                  | stack      | fly             | 3 s 10-20 | chest             |                              | safe small
Ring dip                   | body 0.95  | press           | 3 s 4-12  | chest triceps     | shoulders trunk              | safe
Dip                        | body 0.95  | press           | 3 s 4-12  | chest triceps     | shoulders                    | safe
Push-up                    | body 0.65  | press           | 2 s 8-30  | chest triceps     | shoulders trunk              | safe
Overhead press             | bar        | overhead press  | 3 s 3-12  | shoulders triceps | trunk                        | spine unracks
Push press                 | bar        | overhead press  | 2 s 2-6   | shoulders triceps | quads trunk                  | spine unracks
Seated dumbbell press      | dumbbells  | overhead press  | 3 s 3-12  | shoulders triceps |                              | safe unracks
Lateral raise              | dumbbells  | raise           | 2 s 10-25 | shoulders         |                              | safe small
Rear-delt raise            | dumbbells  | raise           | 2 s 10-25 | shoulders         | back                         | safe small
Front raise                | dumbbells  | raise           | 2 s 10-25 | shoulders         |                              | safe small
Seal row                   | bar        | row             | 3 s 6-15  | back biceps       | grip                         | safe
Bent-over row              | bar        | row             | 3 s 6-15  | back              | biceps hamstrings grip trunk | spine
One-arm row                | dumbbell   | row             | 3 s 6-15  | back              | biceps grip                  | safe one
Chest-supported row        | stack      | row             | 3 s 6-15  | back biceps       | grip                         | safe
Cable row                  | stack      | row             | 3 s 6-15  | back              | biceps grip                  | safe
Ring row                   | body 0.6   | row             | 3 s 6-15  | back biceps       | grip                         | safe
Face pull                  | stack      | row             | 3 s 10-20 | shoulders back    |                              | safe small
Chin-up                    | body 0.95  | pull-up         | 3 s 3-12  | back biceps       | grip                         | safe
Weighted chin-up           | body 0.95  | pull-up         | 3 s 3-12  | back biceps       | grip                         | safe
Pull-up                    | body 0.95  | pull-up         | 3 s 3-12  | back              | biceps grip                  | safe
Lat pulldown               | stack      | pull-up         | 3 s 3-12  | back biceps       | grip                         | safe
Straight-arm pulldown      | stack      | pull-up         | 3 s 10-20 | back              | triceps                      | safe small
Shrug                      | bar        | raise           | 2 s 8-15  | traps             | grip                         | safe
Barbell curl               | bar        | curl            | 3 s 8-15  | biceps            | grip                         | safe small
Dumbbell curl              | dumbbells  | curl            | 3 s 8-15  | biceps            | grip                         | safe small
Preacher curl              | bar        | curl            | 3 s 8-15  | biceps            |                              | safe small
Hammer curl                | dumbbells  | curl            | 3 s 8-15  | biceps            | grip                         | safe small
Cable curl                 | stack      | curl            | 3 s 8-15  | biceps            | grip                         | safe small
Cable pressdown            | stack      | elbow extension | 3 s 8-15  | triceps           |                              | safe small
Skull crusher              | bar        | elbow extension | 3 s 8-15  | triceps           |                              | small pins
Overhead triceps extension | dumbbell   | elbow extension | 3 s 8-15  | triceps           |                              | small
Wrist curl                 | bar        | grip            | 2 s 10-25 | grip              |                              | safe small
Farmer's carry             | dumbbells  | carry           | 1 s 20-40 | grip traps        | trunk                        | safe
Hollow hold                | body       | trunk           | 1 s 20-60 | trunk             |                              | safe
Plank                      | body       | trunk           | 1 s 20-90 | trunk             |                              | safe
Hanging leg raise          | body 0.4   | trunk           | 3 s 8-20  | trunk             | grip                         | safe
Ab wheel                   | body 0.6   | trunk           | 3 s 8-20  | trunk             |                              | safe
Cable crunch               | stack      | trunk           | 3 s 8-20  | trunk             |                              | safe small
"""
"""Name | load (with the share of body weight moved) | pattern | a rep, usual reps | prime | helping | what it is like.

Common practice; the shares are round numbers from lying and hanging on a scale.
"""


def _lift(row: str) -> Exercise:
    name, load, pattern, usual, prime, helping, flags = (cell.strip() for cell in row.split("|"))
    kind, _, share = load.rpartition(" ") if load.startswith("body ") else (load, "", "0")
    seconds, _, reps = usual.split()
    low, high = reps.split("-")
    return Exercise(
        name=name,
        load_kind=LoadKind(kind),
        pattern=pattern,
        prime=tuple(map(Muscle, prime.split())),
        helping=tuple(map(Muscle, helping.split())),
        rep_seconds=int(seconds),
        usual_low=int(low),
        usual_high=int(high),
        body_share=Decimal(share),
        **{_FLAGS[flag]: True for flag in flags.split()},
    )


class Library:
    """The lifts that are known, found by name or id; later ones stand in for earlier ones of the same id."""

    def __init__(self, lifts: Iterable[Exercise]) -> None:
        self._by_id = {lift.id: lift for lift in lifts}
        former = {one_form(name): lift for lift in self for name in lift.former_names}
        self._by_name = former | {one_form(lift.name): lift for lift in self}

    def __iter__(self) -> Iterator[Exercise]:
        return iter(self._by_id.values())

    def with_lifts(self, own: Iterable[Exercise]) -> "Library":
        """The library together with a lifter's own lifts, which stand in for those of the same id."""
        return Library([*self, *own])

    def find(self, name: str, lift_id: str = "") -> Exercise:
        """Find a lift by its id where one is given, else by its name, present or former, whatever the case.

        A lift the library does not have is allowed: it comes back with `known` false, loads taken as
        written and never rounded, because nothing is known of what it is loaded with.
        """
        found = self._by_id.get(lift_id) or self._by_name.get(one_form(name))
        return found or Exercise(name=name, load_kind=LoadKind.OTHER, pattern="other", known=False)

    def nearest_names(self, name: str, count: int = 3) -> tuple[str, ...]:
        """The present names closest to `name`, best first, for an offer to mend a slip."""
        names = {one_form(lift.name): lift.name for lift in self}
        close = get_close_matches(one_form(name), names, n=count, cutoff=0.6)
        return tuple(names[key] for key in close)


MOST_STAND_INS = 8


def stand_ins(lift: Exercise, library: Library) -> tuple[Exercise, ...]:
    """The first few lifts that can stand in for another."""
    return alike(lift, library)[:MOST_STAND_INS]


def alike(lift: Exercise, library: Library) -> tuple[Exercise, ...]:
    """The lifts of another one's pattern, those that share most of its muscles first."""

    def shared(other: Exercise) -> int:
        return 2 * len(set(lift.prime) & set(other.prime)) + len(set(lift.helping) & set(other.helping))

    others = [other for other in library if other.pattern == lift.pattern and other.id != lift.id and lift.known]
    return tuple(sorted(others, key=lambda other: -shared(other)))


LIBRARY = Library(map(_lift, _TABLE.strip().splitlines()))
"""The lifts Fortis knows."""
