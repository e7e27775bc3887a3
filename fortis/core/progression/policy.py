"""How a lift is to progress: what changes from one session to the next. One thing at a time."""

from decimal import Decimal
from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from fortis.core.value import Entered, Spelled, Value


class PolicyKind(StrEnum):
    """What changes while the targets are met."""

    EFFORT = "by effort"
    STEP = "fixed step"
    REPS = "double progression"
    SETS = "more sets"
    REST = "shorter rests"
    RANGE = "a longer range"
    LADDER = "a ladder"
    KEEP = "keep"


MEANINGS: dict[PolicyKind, str] = {
    PolicyKind.EFFORT: "The load follows how hard the sets were, and what your max allows for all of them.",
    PolicyKind.STEP: "The same step up each time every rep was done, however hard; down after a miss.",
    PolicyKind.REPS: "The same load, one rep more each time all went well, up to the top of the range that is "
    "written, or by so many reps where none is; then more load, and the first reps again.",
    PolicyKind.SETS: "The same load, one set more each time all went well; then more load and the plan's sets.",
    PolicyKind.REST: "The same load, shorter rests each time all went well; then more load and the plan's rests.",
    PolicyKind.RANGE: "The same load, from the next pin or box each time all went well; then more load.",
    PolicyKind.LADDER: "The next lift or set-up of your ladder each time all went well; holds get longer first.",
    PolicyKind.KEEP: "Nothing changes until you say so.",
}
"""Each kind in a sentence."""


COUNTING = (PolicyKind.REPS, PolicyKind.SETS, PolicyKind.REST)
"""What takes turns with the load: reps, sets or rests change up to an end, and then the load does."""
CLIMBING = (PolicyKind.RANGE, PolicyKind.LADDER)
"""What goes from rung to rung."""
FEWEST_RUNGS, MOST_RUNGS = 2, 20
Rung = Annotated[str, Spelled, Field(min_length=1, max_length=80)]


class Policy(Value):
    """How a lift progresses. The numbers are for the kinds that need them.

    `step_kg` is what a fixed step adds; `more_reps` (beyond those written, where no range is), `most_sets` and
    `least_rest` (seconds) say how far reps, sets and rests go before the load changes. `rungs` are those of a
    range (items of the set-up) or a ladder (lifts, with their set-up in brackets), the first one first; `rung_at`
    is how many seconds a hold takes to the next.
    """

    kind: PolicyKind = PolicyKind.EFFORT
    step_kg: Annotated[Entered, Field(gt=Decimal(0), le=Decimal(50))] = Decimal("2.5")
    more_reps: int = Field(default=3, ge=1, le=20)
    most_sets: int = Field(default=5, ge=1, le=20)
    least_rest: int = Field(default=60, ge=10, le=600)
    rungs: Annotated[tuple[Rung, ...], Field(max_length=MOST_RUNGS)] = ()
    rung_at: int = Field(default=30, ge=5, le=600)

    @model_validator(mode="after")
    def _has_rungs(self) -> Self:
        if self.kind in CLIMBING and len(self.rungs) < FEWEST_RUNGS:
            raise ValueError(f"{self.kind} needs two rungs at least, the first one first, like “pin 8, pin 7”")
        return self


BY_EFFORT = Policy()
REST_STEP = 15
"""Seconds that a rest gets shorter at a time."""
