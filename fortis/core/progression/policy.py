"""How a lift is to progress: what changes from one session to the next. One thing at a time."""

from decimal import Decimal
from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fortis.core.value import Entered, Value


class PolicyKind(StrEnum):
    """What changes while the targets are met."""

    EFFORT = "by effort"
    STEP = "fixed step"
    SETS = "more sets"
    REST = "shorter rests"
    KEEP = "keep"


MEANINGS: dict[PolicyKind, str] = {
    PolicyKind.EFFORT: "The load follows how hard the sets were, and what your max allows for all of them.",
    PolicyKind.STEP: "The same step up each time every rep was done, however hard; down after a miss.",
    PolicyKind.SETS: "The same load, one set more each time all went well; then more load and the plan's sets.",
    PolicyKind.REST: "The same load, shorter rests each time all went well; then more load and the plan's rests.",
    PolicyKind.KEEP: "Nothing changes until you say so.",
}
"""Each kind in a sentence."""


class Policy(Value):
    """How a lift progresses. The numbers are for the kinds that need them.

    `step_kg` is what a fixed step adds; `most_sets` and `least_rest` (seconds) say how far sets and rests go before
    the load changes.
    """

    kind: PolicyKind = PolicyKind.EFFORT
    step_kg: Annotated[Entered, Field(gt=Decimal(0), le=Decimal(50))] = Decimal("2.5")
    most_sets: int = Field(default=5, ge=1, le=20)
    least_rest: int = Field(default=60, ge=10, le=600)


BY_EFFORT = Policy()
REST_STEP = 15
"""Seconds that a rest gets shorter at a time."""
