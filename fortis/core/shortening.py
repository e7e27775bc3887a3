"""A session that has to fit a time: what costs least is left out first, and it is said what is lost.

A set is worth what it adds: the first of a lift and of a muscle most, each further one less. The lift that a
session begins with weighs most, a small one least. Sets are left out one by one, the least worth for its minutes
first; the first set of the first lift always stays.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from fortis.core.adjustments import Adjustments
from fortis.core.exercises import Exercise
from fortis.core.played import as_played
from fortis.core.structure.prescription import PlannedSet, Prescription
from fortis.core.structure.timeline import timeline
from fortis.core.value import Value

FIRST_LIFT, OTHER_LIFT, SMALL_LIFT = 3.0, 1.0, 0.3
"""What the first set of a lift is worth beside the first for a muscle: 1 (common practice)."""
HELPS = 0.5
"""A set counts half for a muscle that only helps (common practice)."""


class Lost(Value):
    """What a lift loses: so many of its work sets."""

    exercise: str
    sets: int
    of: int


class Shortened(Value):
    """A session shortened to `seconds`: the bouts left out by their positions, and what each lift loses.

    `fits` is False where even the shortest takes longer than was asked.
    """

    seconds: int
    skipped: tuple[str, ...] = ()
    lost: tuple[Lost, ...] = ()
    fits: bool = True


def shortened(prescription: Prescription, seconds: int) -> Shortened:
    """Shorten a settled session to so many seconds."""
    left_out: list[str] = []
    now, takes = prescription, timeline(prescription).total_seconds
    while takes > seconds:
        found = _least_worth(now, takes)
        if found is None:
            break
        left_out += found.positions
        now, takes = found.then, found.takes
    return Shortened(
        seconds=takes,
        skipped=tuple(left_out),
        lost=tuple(_lost(prescription, now)),
        fits=takes <= seconds,
    )


@dataclass(frozen=True)
class _Choice:
    """A set to leave out: what goes with it, the session without it, what that takes, and worth lost a second."""

    positions: tuple[str, ...]
    then: Prescription
    takes: int
    cost: float


def _least_worth(prescription: Prescription, takes: int) -> _Choice | None:
    """The set that is worth least for the time it takes; None where none can be left out."""
    work = prescription.work_sets
    worth = _worth(work)
    choices = []
    for positions, left in _can_go(prescription):
        then = _without(prescription, positions)
        saved = takes - (after := timeline(then).total_seconds)
        if saved > 0:
            choices.append(_Choice(positions, then, after, (worth - _worth(left)) / saved))
    return min(choices, key=lambda choice: choice.cost, default=None)


def _can_go(prescription: Prescription) -> list[tuple[tuple[str, ...], tuple[PlannedSet, ...]]]:
    """The last set of each lift, with its warm-up where it is the only one; and the work that is left then.

    What goes by the clock stays whole.
    """
    work = prescription.work_sets
    found = []
    for sets in prescription.by_entry().values():
        own = [each for each in sets if not each.is_warm_up and each.open_bouts]
        if not own or own[-1].every is not None or own[-1].block is not None:
            continue
        only = len(own) == 1
        if only and own[0].lift == work[0].lift:
            continue
        going = [own[-1], *(each for each in sets if only and each.is_warm_up)]
        positions = tuple(str(each.position(bout)) for each in going for bout in each.open_bouts)
        last = own[-1].group, own[-1].entry, own[-1].number
        left = tuple(each for each in work if (each.group, each.entry, each.number) != last)
        found.append((positions, left))
    return found


def _worth(work: Sequence[PlannedSet]) -> float:
    """What some work sets are worth: each lift and each muscle by its first set, its second, and so on."""
    lifts: dict[str, list[float]] = {}
    muscles: dict[str, float] = {}
    worth = 0.0
    first = work[0].lift.id if work else ""
    for each in work:
        done = lifts.setdefault(each.lift.id, [])
        done.append(_weight(each.lift, first=each.lift.id == first))
        worth += done[-1] / len(done)
        for muscle, share in _muscles(each.lift):
            before = muscles.get(muscle, 0.0)
            muscles[muscle] = before + share
            worth += share / (before + 1)
    return worth


def _weight(lift: Exercise, *, first: bool) -> float:
    return FIRST_LIFT if first else SMALL_LIFT if lift.small else OTHER_LIFT


def _muscles(lift: Exercise) -> list[tuple[str, float]]:
    return [*((muscle, 1.0) for muscle in lift.prime), *((muscle, HELPS) for muscle in lift.helping)]


def _without(prescription: Prescription, positions: Sequence[str]) -> Prescription:
    return as_played(prescription, Adjustments(skipped=tuple(positions))) if positions else prescription


def _lost(before: Prescription, after: Prescription) -> list[Lost]:
    lost = []
    for entry, sets in before.by_entry().items():
        had = _work(sets)
        has = _work(after.by_entry()[entry])
        if has < had:
            lost.append(Lost(exercise=sets[0].exercise, sets=had - has, of=had))
    return lost


def _work(sets: Sequence[PlannedSet]) -> int:
    return sum(not each.is_warm_up and bool(each.open_bouts) for each in sets)
