"""How the reps of a bout are counted: full reps, half reps and seconds, and what meets a target."""

from decimal import Decimal
from enum import StrEnum

from fortis.core.structure.model import FixedReps, Hold, MaxReps, RangeOfMotion, RepRange, RepTarget
from fortis.core.structure.prescription import PlannedBout
from fortis.core.value import Value

HALVES = (RangeOfMotion.STRETCHED, RangeOfMotion.SHORTENED)
HOLD_SHARE = 0.95
"""Letting go and looking at the clock take a moment: so much of a hold meets it."""


class Count(Value):
    """What was done of a bout: full reps, half reps, the seconds of a hold."""

    reps: int = 0
    partial_reps: int = 0
    seconds: int = 0


class Counts(StrEnum):
    """What a bout is counted in."""

    REPS = "reps"
    HALF_REPS = "half reps"
    IN_TURN = "full and half reps in turn"
    SECONDS = "seconds"


def counted_in(target: RepTarget, motion: RangeOfMotion) -> Counts:
    """What a bout with this target is counted in."""
    if isinstance(target, Hold):
        return Counts.SECONDS
    if motion in HALVES:
        return Counts.HALF_REPS
    return Counts.IN_TURN if motion is RangeOfMotion.ALTERNATING else Counts.REPS


def count_of(target: RepTarget, motion: RangeOfMotion, number: int) -> Count:
    """What a number told of a bout means. Of alternating full and half reps the first is a full one."""
    match counted_in(target, motion):
        case Counts.SECONDS:
            return Count(seconds=number)
        case Counts.HALF_REPS:
            return Count(partial_reps=number)
        case Counts.IN_TURN:
            return Count(reps=(number + 1) // 2, partial_reps=number // 2)
    return Count(reps=number)


def number_of(target: RepTarget, motion: RangeOfMotion, count: Count) -> int:
    """What counts of a bout beside its target: half reps where those were asked, both where they alternate."""
    match counted_in(target, motion):
        case Counts.SECONDS:
            return count.seconds
        case Counts.HALF_REPS:
            return count.partial_reps
        case Counts.IN_TURN:
            return count.reps + count.partial_reps
    return count.reps


def least_of(target: RepTarget) -> int:
    """The least that meets a target, in reps or in seconds of a hold; 0 where any number does."""
    match target:
        case FixedReps(count=reps) | RepRange(low=reps):
            return reps
        case Hold(seconds=seconds):
            return int(seconds * HOLD_SHARE)
    return 0


def most_of(target: RepTarget) -> int | None:
    """The most that a target asks for; None where it is open."""
    match target:
        case FixedReps(count=reps) | RepRange(high=reps):
            return reps
        case Hold(seconds=seconds):
            return seconds
    return None


def to_the_half(reps: float) -> Decimal:
    """A number of reps to the nearest half, as they are told."""
    return Decimal(round(reps * 2)) / 2


def is_rep_target(target: RepTarget) -> bool:
    """Whether a target asks for so many reps, one or a range."""
    return not isinstance(target, MaxReps | Hold)


def planned_number(target: RepTarget) -> int | None:
    """What counts of a bout done just as planned, the middle of a range; None where only the lifter can say."""
    match target:
        case FixedReps(count=number) | Hold(seconds=number):
            return number
        case RepRange(low=low, high=high):
            return (low + high + 1) // 2
    return None


def as_planned(bout: PlannedBout) -> Count | None:
    """What a bout comes to that is done just as planned; None where only the lifter can say."""
    number = planned_number(bout.reps)
    return None if number is None else count_of(bout.reps, bout.range_of_motion, number)
