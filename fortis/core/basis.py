"""What loads are settled from."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from decimal import Decimal

from fortis.core.exercises import LIBRARY, Library
from fortis.core.loading.kit import Kit
from fortis.core.loading.strip import PlateOrder
from fortis.core.loading.warm_up import School
from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import LiftKey, Side
from fortis.core.value import Kilograms, Value


class Carried(Value):
    """What last time recommends for a line: `kg` where `was_kg` stood, and the line's other loads in proportion.

    `sets` and `rest` (seconds) take the place of those the plan has; None leaves them.
    """

    was_kg: Kilograms
    kg: Kilograms
    sets: int | None = None
    rest: int | None = None
    reasons: tuple[Reason, ...] = ()


@dataclass(frozen=True, eq=False)
class Basis:
    """What loads are settled from: the kit, body weight and the estimated maxes.

    Estimates are of the whole weight moved, body weight included for body-weight lifts. `last` is the heaviest
    load of the latest session with the lift, `weaker` the weaker side of lifts done one side at a time, by lift id.
    """

    kit: Kit | None = None
    body_kg: Decimal | None = None
    estimates: Mapping[LiftKey, Estimate] = field(default_factory=dict)
    last: Mapping[LiftKey, Decimal] = field(default_factory=dict)
    weaker: Mapping[str, Side] = field(default_factory=dict)
    library: Library = LIBRARY
    warm_ups: School | None = None
    plate_order: PlateOrder = PlateOrder.BIG_INSIDE


NO_BASIS = Basis()
