"""A load beside body weight: how many times that it is, and in points that compare lifters of any weight."""

from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import NamedTuple

from fortis.core.conventions import Points

_DOTS: Mapping[Points, tuple[float, ...]] = {
    Points.MEN: (-307.75076, 24.0900756, -0.1918759221, 0.0007391293, -0.0000010930),
    Points.WOMEN: (-57.96288, 13.6175032, -0.1126655495, 0.0005158568, -0.0000010706),
}
_BODIES: Mapping[Points, tuple[int, int]] = {Points.MEN: (40, 210), Points.WOMEN: (40, 150)}


def dots(kg: float, body_kg: float, points: Points) -> float:
    """The points of a load, or a total of loads, lifted at a body weight, both in kg: published as DOTS, in 2019.

    Lighter and heavier bodies than the formula is for count as its ends.
    """
    low, high = _BODIES[points]
    body = min(max(body_kg, low), high)
    return 500 * kg / sum(factor * body**power for power, factor in enumerate(_DOTS[points]))


STANDS = 0.02
"""A max that moved by less stands: days vary by as much."""
LOST = 0.015
"""Body weight that fell by such a share has fallen: scales vary by less from week to week."""


class Moment(NamedTuple):
    """A max and the body weight of its day, in kg."""

    max_kg: float
    body_kg: Decimal | None


def held_while_lighter(days: Sequence[Moment]) -> float | None:
    """The kilograms of body weight lost over some days while the max stood or rose; None where that is not so."""
    weighed = [day for day in days if day.body_kg]
    if len(weighed) < 2:
        return None
    first, last = weighed[0], weighed[-1]
    assert first.body_kg is not None
    assert last.body_kg is not None
    lost = first.body_kg - last.body_kg
    if lost < Decimal(str(LOST)) * first.body_kg or last.max_kg < first.max_kg * (1 - STANDS):
        return None
    return float(lost)
