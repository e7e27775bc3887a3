"""The weight that is moved in a rep, from the load that is handled.

The conventions are told in docs/arithmetic.md.
"""

from decimal import Decimal

from fortis.core.exercises import Exercise, LoadKind
from fortis.core.loading.kit import Kit
from fortis.core.structure.model import Side

ON_FEET = frozenset({"squat", "lunge", "calf raise"})
SHARE_ON_FEET = Decimal("0.88")
"""The share of body weight that squats and lunges move: all but the shanks and feet, about 12 % of body mass
(Winter's table of body segments, from memory)."""


def body_share(lift: Exercise, body: bool) -> Decimal:
    """The share of body weight that moves with the load. With `body` the load was written as added to body weight.

    A squat or lunge written at `bw` moves most of the body; with a plain weight only the weight counts, as lifters
    count it. Other lifts that are not body-weight lifts move none.
    """
    if lift.body_share:
        return lift.body_share
    return SHARE_ON_FEET if body and lift.pattern in ON_FEET else Decimal(0)


def body_part(lift: Exercise, body: bool, body_kg: Decimal | None) -> Decimal | None:
    """The kilograms of body weight that move with the load; None where they do and body weight is not known."""
    share = body_share(lift, body)
    if not share:
        return Decimal(0)
    return None if body_kg is None else share * body_kg


def sides_of(lift: Exercise, side: Side) -> int:
    """How often each rep of a bout is done.

    A lift done one side at a time, written without sides, is done on both.
    """
    return 2 if lift.one_sided and side is Side.BOTH else 1


def pulley_ratio(lift: Exercise, kit: Kit | None) -> Decimal:
    """What is felt at the handle of what the pin says: 1 but where a machine of the kit says otherwise."""
    machine = kit.machine_for(lift) if kit and lift.load_kind is LoadKind.STACK else None
    return machine.ratio if machine else Decimal(1)


def moved_kg(
    lift: Exercise,
    kg: Decimal | None,
    part: Decimal | None,
    pull_kg: Decimal = Decimal(0),
    ratio: Decimal = Decimal(1),
    implements: int | None = None,
) -> Decimal | None:
    """The whole weight moved in a rep: both dumbbells, the mean pull of bands, the part of body weight.

    `kg` is the load handled and `part` what of the body moves with it, None where either is not known; `implements`
    is how many of the load count, None for all there are. None where nothing is known.
    """
    if kg is None:
        return part or None
    return kg * (implements or lift.implements) * ratio + pull_kg + (part or 0)


def strength_kg(kg: Decimal | None, part: Decimal | None) -> Decimal | None:
    """The load an estimated max is told in: the load handled, with the part of body weight where the lift moves it.

    Bands are part of the set-up and not of the max. None where the load is not known or nothing is moved, as when a
    lift of which nothing is known is done at body weight; or where body weight matters and is not known.
    """
    if part is None:
        return None
    if kg is None and not part:
        return None
    whole = (kg or Decimal(0)) + part
    return whole if whole > 0 else None
