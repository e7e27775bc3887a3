"""What was done: bouts performed, beside the place in the plan they belong to."""

from enum import StrEnum

from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.prescription import Position
from fortis.core.value import Kilograms, Value


class Ended(StrEnum):
    """Why a bout ended. The log tells a slip of form and a lift that would not move apart."""

    MET = "target met"
    FORM = "form slipped"
    STUCK = "could not move it"


class PerformedBout(Value):
    """A bout as it went. `kg` is the load handled (added load for body-weight lifts), None where unknown.

    `reps` are full reps, `partial_reps` the half reps after them, `seconds` the length of a hold. `reserve`
    is how many reps were left, None where the lifter did not say. `rep_seconds` are the moments each rep was
    done, in seconds from the start of the bout, where they were tapped; `note` is a cue for next time.
    """

    position: Position
    exercise: str
    setup: SetUp = SetUp()
    side: Side = Side.BOTH
    kg: Kilograms | None = None
    reps: int = 0
    partial_reps: int = 0
    seconds: int = 0
    reserve: int | None = None
    ended: Ended | None = None
    note: str = ""
    rep_seconds: tuple[float, ...] = ()
