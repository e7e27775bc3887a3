"""What happens to a line next time."""

from decimal import Decimal
from enum import StrEnum

from fortis.core.reason import Reason


class Move(StrEnum):
    """What happens to a line next time."""

    RAISE = "raise"
    MORE_REPS = "more reps"
    MORE_SETS = "more sets"
    SHORTER_RESTS = "shorter rests"
    LONGER_HOLDS = "longer holds"
    NEXT_RUNG = "next rung"
    HOLD = "hold"
    CUT = "cut"


Decision = tuple[Move, Decimal, str, tuple[Reason, ...]]
"""What happens to a line: the move, the load of its lead bout, what to aim for, and why."""
MORE_REPS_AIM = "one more rep a set"
