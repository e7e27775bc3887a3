"""Body weight on a day, from the days it was taken."""

from bisect import bisect_right
from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from fortis.core.value import Kilograms, Value


class Weighed(Value):
    """A body weight taken."""

    on: date
    kg: Kilograms


def interpolated(weighed: Sequence[Weighed], on: date) -> Decimal | None:
    """Body weight in kg on a day: on the line between the weights before and after, the nearest one beyond them.

    `weighed` has the earliest first. To a hundredth of a kilogram; None where there is none at all.
    """
    if not weighed:
        return None
    at = bisect_right(weighed, on, key=lambda each: each.on)
    if at == 0 or at == len(weighed):
        return weighed[max(at - 1, 0)].kg
    before, after = weighed[at - 1], weighed[at]
    if before.on == on:
        return before.kg
    share = Decimal((on - before.on).days) / (after.on - before.on).days
    return round(before.kg + (after.kg - before.kg) * share, 2)
