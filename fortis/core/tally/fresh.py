"""The max behind the first bout of a lift that says something."""

from collections.abc import Iterable
from decimal import Decimal

from fortis.core.exercises import Exercise
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.performance import PerformedBout
from fortis.core.strength.estimate import Estimate, estimate


def fresh_estimate(bouts: Iterable[PerformedBout], lift: Exercise, body_kg: Decimal | None) -> Estimate | None:
    """The max behind the first bout of a lift that says something: full reps done and reserve told.

    Later bouts are tired ones; comparing them with fresh ones as equals reads fatigue as weakness. A reserve told
    as so many or more is a lower bound, used where no bout says more.
    """
    bound: Estimate | None = None
    for bout in bouts:
        kg = strength_kg(bout.kg, body_part(lift, bout.body, body_kg))
        reserve = bout.left if bout.left is not None else bout.reserve
        if kg is None or reserve is None or not bout.reps:
            continue
        if bout.left is not None:
            return estimate(float(kg), bout.reps, float(reserve))
        bound = bound or estimate(float(kg), bout.reps, float(reserve), or_more=True)
    return bound
