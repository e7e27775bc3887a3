"""What loads are settled from."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal

from fortis.core.conventions import USUAL, Conventions
from fortis.core.exercises import LIBRARY, Library
from fortis.core.loading.kit import Kit
from fortis.core.loading.strip import PlateOrder
from fortis.core.loading.warm_up import School
from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import FixedReps, Hold, LiftKey, SetUp, Side
from fortis.core.structure.prescription import Missed
from fortis.core.value import Kilograms, Number, Value


class Rung(Value):
    """A lift with its set-up that stands in for the one that is written."""

    exercise: str
    setup: SetUp


class Instead(Value):
    """A number `now` in place of the one written, `of`: where another is written by then, that one stands."""

    of: int
    now: int

    def beside(self, written: int) -> int:
        """What to do where so much is written."""
        return self.now if written == self.of else written


class Carried(Value):
    """What last time recommends for a line: `kg` where `was_kg` stood, and the line's other loads in proportion.

    `sets`, `rest` (seconds) and `reps` (or seconds of a hold) take the place of those the plan has, `rung` that of
    its lift and set-up; None leaves them. `missed` is what the line missed lately, `lighter` how many times
    as heavy as written its back-offs and drops are, where they fell short. `proportions` are what its sets that
    name no load weigh as shares of the heaviest, in the order of what they ask; empty where the max is to tell.
    """

    was_kg: Kilograms
    kg: Kilograms
    sets: Instead | None = None
    rest: Instead | None = None
    reps: FixedReps | Hold | None = None
    rung: Rung | None = None
    missed: Missed | None = None
    lighter: Number | None = None
    proportions: tuple[Decimal, ...] = ()
    reasons: tuple[Reason, ...] = ()


@dataclass(frozen=True, eq=False)
class Basis:
    """What loads are settled from: the kit, body weight and the estimated maxes.

    Estimates are of the whole weight moved, body weight included for body-weight lifts. `last` is the heaviest
    load of the latest session with the lift, `weaker` the weaker side of lifts done one side at a time, by lift id.
    `ways` is how the lifter counts.
    """

    kit: Kit | None = None
    body_kg: Decimal | None = None
    estimates: Mapping[LiftKey, Estimate] = field(default_factory=dict)
    last: Mapping[LiftKey, Decimal] = field(default_factory=dict)
    weaker: Mapping[str, Side] = field(default_factory=dict)
    library: Library = LIBRARY
    warm_ups: School | None = None
    plate_order: PlateOrder = PlateOrder.BIG_INSIDE
    ways: Conventions = USUAL

    def on_a_day(self, form: float) -> "Basis":
        """The same with every max so much higher or lower, as a share of it."""
        if not form:
            return self
        moved = {key: max_.times(1 + form) for key, max_ in self.estimates.items()}
        return replace(self, estimates=moved)


NO_BASIS = Basis()
