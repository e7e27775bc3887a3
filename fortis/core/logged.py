"""A bout as a log tells it, whoever kept the log: what was lifted, when, and what was said of it."""

from datetime import datetime
from decimal import Decimal

from fortis.core.performance import Ended
from fortis.core.structure.model import SetUp, Side
from fortis.core.value import Value


class LoggedBout(Value):
    """One line of a log. Loads in exact kilograms; `load_kg` is what was handled, or added to body weight.

    `session` is what its bouts have in common, `set` and `bout` its place among those of its exercise, `group` the
    lifts done in turn that it belongs to, None where the log numbers none.
    `bottom_kg` and `top_kg` are what it weighed low and locked out, where bands or chains hung. `reserve` is how
    many reps were left, None where that was not told; with `or_more` it is a lower bound. `rest_seconds` is the
    rest before it, None where that is not known.
    """

    performed_at: datetime
    session: str
    exercise: str
    setup: SetUp = SetUp()
    group: int | None = None
    set: int = 1
    bout: int = 1
    side: Side = Side.BOTH
    load_kg: Decimal
    bottom_kg: Decimal | None = None
    top_kg: Decimal | None = None
    body_kg: Decimal | None = None
    reps: int
    partial_reps: int = 0
    seconds: int = 0
    reserve: Decimal | None = None
    or_more: bool = False
    ended: Ended | None = None
    rest_seconds: int | None = None
    tempo: str = ""
    is_warm_up: bool = False
    note: str = ""

    @property
    def to_failure(self) -> Decimal | None:
        """Full reps to failure as they turned out or were called; None where nobody said, or only a bound."""
        if self.ended is Ended.STUCK:
            return Decimal(self.reps)
        return None if self.reserve is None or self.or_more else self.reps + self.reserve
