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
LARGEST_RISE = Decimal("1.05")
"""A rise above 5 % in one go is no little (common practice: 2 to 5 %)."""
RISE_A_REP = Decimal("0.0125")
"""So much more for each rep left beyond the plan, whatever the max is thought to be: half of what a rep takes."""
