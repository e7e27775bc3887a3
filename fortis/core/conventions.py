"""How work is counted where lifters differ."""

from enum import StrEnum

from fortis.core.value import Flag, Value


class Points(StrEnum):
    """Whose coefficients tell a load beside body weight in points."""

    MEN = "men"
    WOMEN = "women"


class Conventions(Value):
    """How a lifter counts: the usual way, where they did not choose.

    `both_dumbbells` moves two in a rep of a pair, `body_weight` adds its share to the tonnage of body-weight lifts,
    `halves` counts a half rep as half a rep, in place of none. `points` are those lifts are told in, if any.
    """

    both_dumbbells: Flag = True
    body_weight: Flag = True
    halves: Flag = False
    points: Points | None = None


USUAL = Conventions()
