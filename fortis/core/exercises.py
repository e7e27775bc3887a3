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
    """One lift. `body_share` is the part of body weight moved; `rep_seconds` the usual time of a rep."""

    name: str
    load_kind: LoadKind
    pattern: str
    prime: tuple[str, ...] = ()
    helping: tuple[str, ...] = ()
    rep_seconds: int = 3
    body_share: Number = Decimal(0)
    failing_is_safe: bool = False
    known: bool = True

    @property
    def implements(self) -> int:
        """How many of the written load move at once: two dumbbells count twice in tonnage."""
        return 2 if self.load_kind is LoadKind.DUMBBELLS else 1


def _lift(
    name: str,
    load_kind: LoadKind,
    pattern: str,
    prime: str,
    helping: str = "",
    *,
    share: str = "0",
    safe: bool = False,
) -> Exercise:
    return Exercise(
        name=name,
        load_kind=load_kind,
        pattern=pattern,
        prime=tuple(prime.split()),
        helping=tuple(helping.split()),
        body_share=Decimal(share),
        failing_is_safe=safe,
    )


_K = LoadKind
LIBRARY: tuple[Exercise, ...] = (
    _lift("Back squat", _K.BAR, "squat", "quads glutes", "back adductors"),
    _lift("Front squat", _K.BAR, "squat", "quads", "glutes back"),
    _lift("Safety-bar squat", _K.SAFETY_BAR, "squat", "quads glutes", "back"),
    _lift("Split squat", _K.DUMBBELLS, "lunge", "quads glutes", "adductors"),
    _lift("Walking lunge", _K.DUMBBELLS, "lunge", "quads glutes", "adductors"),
    _lift("Leg press", _K.STACK, "squat", "quads glutes", safe=True),
    _lift("Leg extension", _K.STACK, "knee extension", "quads", safe=True),
    _lift("Lying leg curl", _K.STACK, "knee flexion", "hamstrings", safe=True),
    _lift("Standing calf raise", _K.STACK, "calf raise", "calves", safe=True),
    _lift("Deadlift", _K.BAR, "hinge", "glutes hamstrings", "back quads grip"),
    _lift("Trap-bar deadlift", _K.TRAP_BAR, "hinge", "glutes quads", "back hamstrings grip"),
    _lift("Romanian deadlift", _K.BAR, "hinge", "hamstrings glutes", "back grip"),
    _lift("Good morning", _K.BAR, "hinge", "hamstrings glutes", "back"),
    _lift("Hip thrust", _K.BAR, "hinge", "glutes", "hamstrings"),
    _lift("Bench press", _K.BAR, "press", "chest triceps", "shoulders"),
    _lift("Incline bench press", _K.BAR, "press", "chest shoulders", "triceps"),
    _lift("Close-grip bench press", _K.BAR, "press", "triceps chest", "shoulders"),
    _lift("Dumbbell press", _K.DUMBBELLS, "press", "chest triceps", "shoulders", safe=True),
    _lift("Overhead press", _K.BAR, "overhead press", "shoulders triceps", "trunk"),
    _lift("Push press", _K.BAR, "overhead press", "shoulders triceps", "quads trunk"),
    _lift("Ring dip", _K.BODY, "press", "chest triceps", "shoulders", share="0.95", safe=True),
    _lift("Dip", _K.BODY, "press", "chest triceps", "shoulders", share="0.95", safe=True),
    _lift("Push-up", _K.BODY, "press", "chest triceps", "shoulders trunk", share="0.65", safe=True),
    _lift("Seal row", _K.BAR, "row", "back biceps", "grip", safe=True),
    _lift("Bent-over row", _K.BAR, "row", "back", "biceps hamstrings grip"),
    _lift("One-arm row", _K.DUMBBELL, "row", "back", "biceps grip", safe=True),
    _lift("Ring row", _K.BODY, "row", "back biceps", "grip", share="0.6", safe=True),
    _lift("Cable row", _K.STACK, "row", "back", "biceps grip", safe=True),
    _lift("Chin-up", _K.BODY, "pull-up", "back biceps", "grip", share="0.95", safe=True),
    _lift("Weighted chin-up", _K.BODY, "pull-up", "back biceps", "grip", share="0.95", safe=True),
    _lift("Pull-up", _K.BODY, "pull-up", "back biceps", "grip", share="0.95", safe=True),
    _lift("Lat pulldown", _K.STACK, "pull-up", "back biceps", "grip", safe=True),
    _lift("Face pull", _K.STACK, "row", "shoulders back", safe=True),
    _lift("Lateral raise", _K.DUMBBELLS, "raise", "shoulders", safe=True),
    _lift("Barbell curl", _K.BAR, "curl", "biceps", "grip", safe=True),
    _lift("Dumbbell curl", _K.DUMBBELLS, "curl", "biceps", "grip", safe=True),
    _lift("Cable pressdown", _K.STACK, "elbow extension", "triceps", safe=True),
    _lift("Hollow hold", _K.BODY, "trunk", "trunk", safe=True),
    _lift("Hanging leg raise", _K.BODY, "trunk", "trunk", "grip", share="0.4", safe=True),
    _lift("Plank", _K.BODY, "trunk", "trunk", safe=True),
)

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
