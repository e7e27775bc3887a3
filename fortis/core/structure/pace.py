"""How long things take that nobody writes down: reps, changes, and the reps to expect of an open target."""

from fortis.core.exercises import Exercise
from fortis.core.structure.model import FixedReps, Hold, MaxReps, RepRange, RepTarget, Tempo
from fortis.core.value import Value


class Pace(Value):
    """How long things take that nobody writes down, in seconds (common practice, the lifter's own later).

    A change of load takes `load_change`, the first plate a side included, and `plate` more for every further one.
    """

    load_change: int = 5
    plate: int = 3
    side_change: int = 5
    station_change: int = 5
    reps_to_failure: int = 10
    reps_after_short_rest: int = 6


USUAL_PACE = Pace()


def load_change_seconds(plates: int, pace: Pace = USUAL_PACE) -> int:
    """Seconds to change a load by so many plates put on or taken off on one side; 0 or 1 for a pin, a pair."""
    return pace.load_change + pace.plate * max(plates - 1, 0)


def expected_reps(target: RepTarget, index: int, pace: Pace = USUAL_PACE) -> int | None:
    """Reps to expect of a target, the middle of a range; None for a hold. `index` is its index in the set."""
    match target:
        case FixedReps(count=reps):
            return reps
        case RepRange(low=low, high=high):
            return (low + high + 1) // 2
        case MaxReps():
            return pace.reps_after_short_rest if index else pace.reps_to_failure
    return None


def work_seconds(
    lift: Exercise, target: RepTarget, tempo: Tempo | None, index: int, pace: Pace = USUAL_PACE
) -> int:
    """Seconds under load to expect of one bout on one side: from the tempo, or the lift's usual rep time."""
    if isinstance(target, Hold):
        return target.seconds
    return (expected_reps(target, index, pace) or 0) * (tempo.seconds if tempo else lift.rep_seconds)
