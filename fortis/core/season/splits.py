"""How a week is split, and which lifts fill its sessions: by what a place has and what hurts (common practice)."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from enum import StrEnum
from typing import NamedTuple

from fortis.core.exercises import BARS, Exercise, Library, LoadKind
from fortis.core.loading.kit import Kit


class Joint(StrEnum):
    """What may hurt."""

    KNEES = "knees"
    HIPS = "hips"
    LOWER_BACK = "lower back"
    SHOULDERS = "shoulders"
    ELBOWS = "elbows"
    WRISTS = "wrists"


class Role(StrEnum):
    """What a lift is there for in its session; `AGAIN` is a main lift when it comes a second time in the week."""

    MAIN = "main"
    SECOND = "second"
    SMALL = "small"
    AGAIN = "again"


class Slot(NamedTuple):
    """A place in a session, for a lift of a movement pattern."""

    role: Role
    pattern: str


class Template(NamedTuple):
    """A session of a week by its slots, the most important first."""

    title: str
    slots: tuple[Slot, ...]


class Split(NamedTuple):
    """How a week is split: its sessions in order, and why one would."""

    name: str
    sessions: tuple[Template, ...]
    why: str


class Placed(NamedTuple):
    """A lift in its place in a session."""

    role: Role
    lift: Exercise


def _template(title: str, main: str, second: str, small: str) -> Template:
    roles = zip((Role.MAIN, Role.SECOND, Role.SMALL), (main, second, small), strict=True)
    return Template(title, tuple(Slot(role, name) for role, names in roles for name in names.split(", ") if name))


WHOLE_A = _template("Whole body A", "squat, press", "row, hinge", "raise, trunk")
WHOLE_B = _template("Whole body B", "hinge, overhead press", "pull-up, lunge", "curl, calf raise")
WHOLE_C = _template("Whole body C", "press, squat", "pull-up, knee flexion", "elbow extension, trunk")
UPPER_A = _template("Upper body A", "press, row", "overhead press, pull-up", "curl, elbow extension")
UPPER_B = _template("Upper body B", "overhead press, pull-up", "press, row", "raise, curl")
LOWER_A = _template("Lower body A", "squat", "hinge, lunge", "knee flexion, calf raise, trunk")
LOWER_B = _template("Lower body B", "hinge", "squat, knee flexion", "knee extension, calf raise, trunk")
PUSH = _template("Push", "press", "overhead press, press", "raise, elbow extension")
PULL = _template("Pull", "pull-up, row", "hinge, row", "curl")
LEGS = _template("Legs", "squat", "hinge, lunge", "knee flexion, calf raise")

SPLITS: Mapping[int, tuple[Split, ...]] = {
    2: (
        Split(
            "Whole body twice", (WHOLE_A, WHOLE_B), "Every muscle is trained twice a week, though you come twice."
        ),
        Split("Upper and lower body", (UPPER_A, LOWER_A), "More for each half of the body, but only once a week."),
    ),
    3: (
        Split(
            "Whole body three times",
            (WHOLE_A, WHOLE_B, WHOLE_C),
            "Every muscle is trained two or three times a week: many chances to add something.",
        ),
        Split(
            "Upper, lower, whole body",
            (UPPER_A, LOWER_A, WHOLE_B),
            "Heavy lifts of one half do not tire the other, and each is still trained twice a week.",
        ),
        Split(
            "Push, pull, legs",
            (PUSH, PULL, LEGS),
            "Long, focused sessions with a week to recover; each lift comes only once a week.",
        ),
    ),
    4: (
        Split(
            "Upper and lower body twice",
            (UPPER_A, LOWER_A, UPPER_B, LOWER_B),
            "When lifts are heavy enough to spoil each other, halves are split; each comes twice a week.",
        ),
        Split(
            "Push, pull, legs, whole body",
            (PUSH, PULL, LEGS, WHOLE_B),
            "Focused sessions, and one in which everything comes a second time.",
        ),
    ),
    5: (
        Split(
            "Upper, lower, push, pull, legs",
            (UPPER_A, LOWER_A, PUSH, PULL, LEGS),
            "Everything twice a week, the second time in shorter, focused sessions.",
        ),
        Split(
            "Upper and lower twice, whole body",
            (UPPER_A, LOWER_A, UPPER_B, LOWER_B, WHOLE_C),
            "Halves twice a week and one day in which the main lifts come again.",
        ),
    ),
    6: (
        Split(
            "Push, pull, legs twice",
            (PUSH, PULL, LEGS, PUSH, PULL, LEGS),
            "Six short sessions; everything twice a week. It leaves one day of rest.",
        ),
        Split(
            "Upper and lower three times",
            (UPPER_A, LOWER_A, UPPER_B, LOWER_B, UPPER_A, LOWER_A),
            "Every lift two or three times a week, in small helpings. It leaves one day of rest.",
        ),
    ),
}
WEEKDAYS: Mapping[int, tuple[int, ...]] = {
    2: (0, 3),
    3: (0, 2, 4),
    4: (0, 1, 3, 4),
    5: (0, 1, 2, 4, 5),
    6: (0, 1, 2, 3, 4, 5),
}
"""Days after the first session of a week."""

PREFERRED: Mapping[str, tuple[str, ...]] = {
    "squat": ("Back squat", "Front squat", "Leg press", "Hack squat", "Box squat", "Goblet squat"),
    "hinge": (
        "Deadlift",
        "Romanian deadlift",
        "Trap-bar deadlift",
        "Hip thrust",
        "Cable pull-through",
        "Back extension",
    ),
    "press": (
        "Bench press",
        "Incline bench press",
        "Incline dumbbell press",
        "Dumbbell press",
        "Machine chest press",
        "Push-up",
    ),
    "overhead press": ("Overhead press", "Seated dumbbell press"),
    "row": ("Bent-over row", "Chest-supported row", "Cable row", "One-arm row", "Seal row", "Ring row"),
    "pull-up": ("Chin-up", "Lat pulldown", "Pull-up"),
    "lunge": ("Split squat", "Walking lunge", "Step-up"),
    "knee flexion": ("Lying leg curl", "Seated leg curl", "Nordic curl"),
    "knee extension": ("Leg extension",),
    "calf raise": ("Standing calf raise", "Seated calf raise"),
    "raise": ("Lateral raise", "Rear-delt raise"),
    "curl": ("Dumbbell curl", "Cable curl", "Barbell curl", "Hammer curl"),
    "elbow extension": ("Cable pressdown", "Overhead triceps extension", "Skull crusher"),
    "trunk": ("Cable crunch", "Hanging leg raise", "Ab wheel"),
}
"""Lifts of each pattern, the usual ones first."""
EASY_TO_LEARN = {
    "hinge": ("Romanian deadlift", "Trap-bar deadlift", "Hip thrust", "Cable pull-through", "Back extension"),
    "pull-up": ("Lat pulldown", "Ring row", "Chin-up"),
    "row": ("Cable row", "Chest-supported row", "One-arm row", "Ring row"),
    "knee flexion": ("Lying leg curl", "Seated leg curl"),
    "trunk": ("Cable crunch", "Ab wheel"),
}
"""What those who have trained for less than a year begin with instead."""
_AVOIDED: Mapping[Joint, tuple[str, ...]] = {
    Joint.KNEES: (
        "Leg extension",
        "Split squat",
        "Walking lunge",
        "Step-up",
        "Front squat",
        "Back squat",
        "Hack squat",
        "Goblet squat",
        "Nordic curl",
    ),
    Joint.HIPS: (
        "Split squat",
        "Walking lunge",
        "Step-up",
        "Back squat",
        "Front squat",
        "Sumo deadlift",
        "Deadlift",
    ),
    Joint.LOWER_BACK: ("Back extension", "Cable pull-through"),
    Joint.SHOULDERS: ("Bench press", "Incline bench press", "Incline dumbbell press", "Push-up", "Dip", "Ring dip"),
    Joint.ELBOWS: ("Skull crusher", "Overhead triceps extension", "Barbell curl", "Chin-up", "Pull-up"),
    Joint.WRISTS: ("Front squat", "Barbell curl", "Push-up", "Skull crusher"),
}


def hurts(lift: Exercise, joints: Iterable[Joint]) -> bool:
    """Whether a lift is one of those commonly left out where a joint hurts."""
    return any(
        lift.name in _AVOIDED[joint]
        or (joint is Joint.LOWER_BACK and lift.loads_spine)
        or (joint is Joint.SHOULDERS and lift.pattern == "overhead press")
        for joint in joints
    )


def can_be_done(lift: Exercise, kit: Kit) -> bool:
    """Whether a place has what a lift is loaded with."""
    if lift.load_kind in BARS:
        bar = kit.bar_for(lift.load_kind)
        return bar is not None and (bar.kind is lift.load_kind or lift.load_kind is LoadKind.BAR)
    if lift.load_kind in (LoadKind.DUMBBELL, LoadKind.DUMBBELLS):
        return bool(kit.dumbbells or kit.handles)
    return kit.machine_for(lift) is not None if lift.load_kind is LoadKind.STACK else True


class Lifts:
    """Chooses the lifts of a week: those that matter first, then the usual ones, each once in a session."""

    def __init__(
        self,
        kit: Kit,
        library: Library,
        split: Split,
        wanted: Sequence[Exercise],
        joints: Iterable[Joint],
        *,
        new: bool,
        vary: bool,
    ) -> None:
        self._kit, self._library, self._wanted, self._joints = kit, library, wanted, tuple(joints)
        self._new, self._vary = new, vary
        slots = (slot for template in split.sessions for slot in template.slots)
        self._mains = {slot.pattern for slot in slots if slot.role is Role.MAIN}
        self._times: Counter[Slot] = Counter()
        self.left_out: list[Exercise] = []

    def of(self, template: Template) -> tuple[Placed, ...]:
        """The lifts of a session; a slot that nothing fits stays empty."""
        found: list[Placed] = []
        for slot in template.slots:
            options = [lift for lift in self._options(slot.pattern) if lift not in (each.lift for each in found)]
            if slot.role is Role.SECOND and slot.pattern in self._mains:
                options = options[1:] or options
            if options:
                found.append(Placed(slot.role, options[self._turn(slot, len(options))]))
        return tuple(found)

    def _turn(self, slot: Slot, many: int) -> int:
        """Which of the options it is: the first again where practice counts, else each of two in turn."""
        times = self._times[slot]
        self._times[slot] += 1
        return 0 if slot.role is Role.MAIN and not self._vary else times % min(many, 2)

    def _options(self, pattern: str) -> Iterator[Exercise]:
        names = (EASY_TO_LEARN if self._new else {}).get(pattern) or PREFERRED[pattern]
        wanted = [lift for lift in self._wanted if lift.pattern == pattern]
        usual = [self._library.find(name) for name in names]
        for lift in dict.fromkeys([*wanted, *usual]):
            if not lift.known or not can_be_done(lift, self._kit):
                continue
            if lift not in wanted and hurts(lift, self._joints):
                if lift not in self.left_out:
                    self.left_out.append(lift)
                continue
            yield lift
