"""What a lift is: how it is loaded, what it trains, how long a rep takes, whether failing is safe."""

from decimal import Decimal
from difflib import get_close_matches
from enum import StrEnum
from functools import lru_cache

from fortis.core.value import Number, Value


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


BARS = (LoadKind.BAR, LoadKind.TRAP_BAR, LoadKind.SAFETY_BAR)


class Exercise(Value):
    """One lift.

    `body_share` is the part of body weight moved; `rep_seconds` the usual time of a rep. `prime` muscles
    give out first, `helping` ones help; among both, `grip` and `trunk` say what else is taxed.
    """

    name: str
    load_kind: LoadKind
    pattern: str
    prime: tuple[str, ...] = ()
    helping: tuple[str, ...] = ()
    rep_seconds: int = 3
    body_share: Number = Decimal(0)
    one_sided: bool = False
    small: bool = False
    failing_is_safe: bool = False
    pins: bool = False
    loads_spine: bool = False
    unracks: bool = False
    known: bool = True

    @property
    def implements(self) -> int:
        """How many of the written load move at once: two dumbbells count twice in tonnage."""
        return 2 if self.load_kind is LoadKind.DUMBBELLS else 1

    @property
    def is_free(self) -> bool:
        """Whether it is done with free weights rather than a machine or the body alone."""
        return self.load_kind in FREE

    def taxes(self, what: str) -> bool:
        """Whether `grip` or `trunk` is worked by it."""
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
Back squat               | bar         | squat           | quads glutes          | adductors trunk           | pins spine unracks
Front squat              | bar         | squat           | quads                 | glutes trunk              | pins spine unracks
Safety-bar squat         | safety bar  | squat           | quads glutes          | trunk                     | pins spine unracks
Box squat                | bar         | squat           | quads glutes          | hamstrings trunk          | pins spine unracks
Hack squat               | stack       | squat           | quads                 | glutes                    | safe
Goblet squat             | dumbbell    | squat           | quads                 | glutes trunk              | safe
Split squat              | dumbbells   | lunge           | quads glutes          | adductors grip            | one
Walking lunge            | dumbbells   | lunge           | quads glutes          | adductors grip            | one
Step-up                  | dumbbells   | lunge           | quads glutes          | grip                      | one
Leg press                | stack       | squat           | quads glutes          | adductors                 | safe
Leg extension            | stack       | knee extension  | quads                 |                           | safe small
Lying leg curl           | stack       | knee flexion    | hamstrings            |                           | safe small
Seated leg curl          | stack       | knee flexion    | hamstrings            |                           | safe small
Nordic curl              | body 0.8    | knee flexion    | hamstrings            |                           | safe
Standing calf raise      | stack       | calf raise      | calves                |                           | safe small
Seated calf raise        | stack       | calf raise      | calves                |                           | safe small
Deadlift                 | bar         | hinge           | glutes hamstrings     | back quads grip trunk     | spine
Sumo deadlift            | bar         | hinge           | glutes quads          | back adductors grip trunk | spine
Deficit deadlift         | bar         | hinge           | glutes hamstrings     | back quads grip trunk     | spine
Trap-bar deadlift        | trap bar    | hinge           | glutes quads          | back grip trunk           | spine
Romanian deadlift        | bar         | hinge           | hamstrings glutes     | back grip trunk           | spine
Good morning             | bar         | hinge           | hamstrings glutes     | trunk                     | pins spine unracks
Back extension           | body 0.5    | hinge           | glutes hamstrings     | trunk                     | safe
Hip thrust               | bar         | hinge           | glutes                | hamstrings                |
Cable pull-through       | stack       | hinge           | glutes                | hamstrings grip           | safe
Power clean              | bar         | olympic         | glutes quads          | back grip trunk           | spine
Power snatch             | bar         | olympic         | glutes quads          | back grip trunk           | spine
Bench press              | bar         | press           | chest triceps         | shoulders                 | pins unracks
Incline bench press      | bar         | press           | chest shoulders       | triceps                   | pins unracks
Close-grip bench press   | bar         | press           | triceps chest         | shoulders                 | pins unracks
Floor press              | bar         | press           | chest triceps         | shoulders                 | pins unracks
Dumbbell press           | dumbbells   | press           | chest triceps         | shoulders                 | safe unracks
Incline dumbbell press   | dumbbells   | press           | chest shoulders       | triceps                   | safe unracks
Machine chest press      | stack       | press           | chest triceps         | shoulders                 | safe
Cable fly                | stack       | fly             | chest                 |                           | safe small
Ring dip                 | body 0.95   | press           | chest triceps         | shoulders trunk           | safe
Dip                      | body 0.95   | press           | chest triceps         | shoulders                 | safe
Push-up                  | body 0.65   | press           | chest triceps         | shoulders trunk           | safe
Overhead press           | bar         | overhead press  | shoulders triceps     | trunk                     | spine unracks
Push press               | bar         | overhead press  | shoulders triceps     | quads trunk               | spine unracks
Seated dumbbell press    | dumbbells   | overhead press  | shoulders triceps     |                           | safe unracks
Lateral raise            | dumbbells   | raise           | shoulders             |                           | safe small
Rear-delt raise          | dumbbells   | raise           | shoulders             | back                      | safe small
Front raise              | dumbbells   | raise           | shoulders             |                           | safe small
Seal row                 | bar         | row             | back biceps           | grip                      | safe
Bent-over row            | bar         | row             | back                  | biceps hamstrings grip trunk | spine
One-arm row              | dumbbell    | row             | back                  | biceps grip               | safe one
Chest-supported row      | stack       | row             | back biceps           | grip                      | safe
Cable row                | stack       | row             | back                  | biceps grip               | safe
Ring row                 | body 0.6    | row             | back biceps           | grip                      | safe
Face pull                | stack       | row             | shoulders back        |                           | safe small
Chin-up                  | body 0.95   | pull-up         | back biceps           | grip                      | safe
Weighted chin-up         | body 0.95   | pull-up         | back biceps           | grip                      | safe
Pull-up                  | body 0.95   | pull-up         | back                  | biceps grip               | safe
Lat pulldown             | stack       | pull-up         | back biceps           | grip                      | safe
Straight-arm pulldown    | stack       | pull-up         | back                  | triceps                   | safe small
Shrug                    | bar         | raise           | traps                 | grip                      | safe
Barbell curl             | bar         | curl            | biceps                | grip                      | safe small
Dumbbell curl            | dumbbells   | curl            | biceps                | grip                      | safe small
Preacher curl            | bar         | curl            | biceps                |                           | safe small
Hammer curl              | dumbbells   | curl            | biceps                | grip                      | safe small
Cable curl               | stack       | curl            | biceps                | grip                      | safe small
Cable pressdown          | stack       | elbow extension | triceps               |                           | safe small
Skull crusher            | bar         | elbow extension | triceps               |                           | small pins
Overhead triceps extension | dumbbell  | elbow extension | triceps               |                           | small
Wrist curl               | bar         | grip            | grip                  |                           | safe small
Farmer's carry           | dumbbells   | carry           | grip traps            | trunk                     | safe
Hollow hold              | body        | trunk           | trunk                 |                           | safe
Plank                    | body        | trunk           | trunk                 |                           | safe
Hanging leg raise        | body 0.4    | trunk           | trunk                 | grip                      | safe
Ab wheel                 | body 0.6    | trunk           | trunk                 |                           | safe
Cable crunch             | stack       | trunk           | trunk                 |                           | safe small
"""
"""Name | load (with the share of body weight moved) | pattern | prime | helping | what it is like.

Common practice; the shares are round numbers from lying and hanging on a scale.
"""


def _lift(row: str) -> Exercise:
    name, load, pattern, prime, helping, flags = (cell.strip() for cell in row.split("|"))
    kind, _, share = load.rpartition(" ") if load.startswith("body ") else (load, "", "0")
    return Exercise(
        name=name,
        load_kind=LoadKind(kind),
        pattern=pattern,
        prime=tuple(prime.split()),
        helping=tuple(helping.split()),
        body_share=Decimal(share),
        **{_FLAGS[flag]: True for flag in flags.split()},
    )


LIBRARY: tuple[Exercise, ...] = tuple(map(_lift, _TABLE.strip().splitlines()))
"""The lifts Fortis knows."""

_BY_NAME = {lift.name.casefold(): lift for lift in LIBRARY}


@lru_cache(maxsize=1024)
def find(name: str) -> Exercise:
    """Find a lift by name, whatever its case.

    A lift the library does not have is allowed: it comes back with `known` false, loads taken as
    written and never rounded, because nothing is known of what it is loaded with.
    """
    found = _BY_NAME.get(name.casefold())
    return found or Exercise(name=name, load_kind=LoadKind.OTHER, pattern="other", known=False)


def nearest_names(name: str, count: int = 3) -> tuple[str, ...]:
    """The library's names closest to `name`, best first, for an offer to mend a slip."""
    close = get_close_matches(name.casefold(), _BY_NAME, n=count, cutoff=0.6)
    return tuple(_BY_NAME[key].name for key in close)
