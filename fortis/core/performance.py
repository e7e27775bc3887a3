"""What was done: bouts performed, beside the place in the plan they belong to."""

from decimal import Decimal
from enum import StrEnum

from pydantic import ConfigDict

from fortis.core.exercises import Exercise, one_form
from fortis.core.structure.counting import Count, least_of, number_of
from fortis.core.structure.model import (
    Effort,
    Lifting,
    LoadTarget,
    RangeOfMotion,
    RepTarget,
    SetUp,
    Side,
    Tempo,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, Position
from fortis.core.value import Kilograms, Number, Value


class Ended(StrEnum):
    """Why a bout ended. The log tells a slip of form and a lift that would not move apart."""

    MET = "target met"
    FORM = "form slipped"
    STUCK = "could not move it"


class LoadSource(StrEnum):
    """Where a load came from."""

    PLAN = "plan"
    ADVICE = "advice"
    OWN = "own choice"


class Asked(Value):
    """What a bout was asked to be as played, whatever the plan becomes later. `kg` is the load settled for it."""

    model_config = ConfigDict(frozen=True, extra="ignore")

    reps: RepTarget
    load: LoadTarget | None = None
    kg: Kilograms | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion = RangeOfMotion.FULL
    lifting: Lifting = Lifting.ALONE

    @property
    def reserve(self) -> Decimal | None:
        """Reps in reserve asked for at least."""
        return planned_reserve(self.effort)


def asked_of(bout: PlannedBout) -> Asked:
    """What a bout of the plan asks."""
    return Asked(
        reps=bout.reps,
        load=bout.load,
        kg=bout.settled.kg if bout.settled else None,
        effort=bout.effort,
        tempo=bout.tempo,
        range_of_motion=bout.range_of_motion,
        lifting=bout.lifting,
    )


class PerformedBout(Value):
    """A bout as it went. `kg` is the load handled (added load for body-weight lifts), None where unknown.

    `lift_id` is the lift's, whatever it is called now. With `body`, `kg` is added to body weight. `bottom_kg`,
    `top_kg` and `mean_kg` are what it weighed low, locked out and over its range, where bands or chains hung.
    `reps` are full reps, `partial_reps` half reps, `seconds` the length of a hold. `reserve` is how many reps were
    left in steps of a half, as said, None where the lifter did not say; with `or_more` it is a lower bound.
    `rep_seconds` are the moments each rep was done, in seconds from the start of the bout, where they were tapped;
    `note` is a cue for next time. `asked` is what was asked as played, `source` where the load came from.
    """

    position: Position
    exercise: str
    lift_id: str = ""
    setup: SetUp = SetUp()
    side: Side = Side.BOTH
    kg: Kilograms | None = None
    body: bool = False
    bottom_kg: Kilograms | None = None
    top_kg: Kilograms | None = None
    mean_kg: Kilograms | None = None
    reps: int = 0
    partial_reps: int = 0
    seconds: int = 0
    reserve: Number | None = None
    or_more: bool = False
    ended: Ended | None = None
    note: str = ""
    rep_seconds: tuple[float, ...] = ()
    asked: Asked | None = None
    source: LoadSource | None = None

    @property
    def count(self) -> Count:
        """What was done."""
        return Count(reps=self.reps, partial_reps=self.partial_reps, seconds=self.seconds)

    def is_of(self, lift: Exercise) -> bool:
        """Whether it is a bout of a lift, whatever that is called now."""
        return self.lift_id == lift.id if self.lift_id else one_form(self.exercise) == one_form(lift.name)

    def number_beside(self, planned: PlannedBout | Asked) -> int:
        """What counts of it beside what was planned or asked."""
        return number_of(planned.reps, planned.range_of_motion, self.count)

    @property
    def left(self) -> Decimal | None:
        """Reps left as far as they are known to the half.

        None where it would not move, unknown where only a bound was told.
        """
        if self.ended is Ended.STUCK:
            return Decimal(0)
        return None if self.or_more else self.reserve


def completed(bout: PerformedBout, planned: PlannedBout, *, ended_given: bool) -> PerformedBout:
    """What a lifter's word implies.

    Why a bout ended follows from its number, and who could not move it had none left. With `ended_given` the
    lifter has just told why it ended. The client repeats this while it has no connection
    (`web/src/session/counting.ts`); both are held to the same cases.
    """
    ended, short = bout.ended, bout.number_beside(planned) < least_of(planned.reps)
    if not ended_given and short and ended is Ended.MET:
        ended = None
    elif not ended_given and not short and ended is None:
        ended = Ended.MET
    stuck = {"reserve": Decimal(0), "or_more": False} if ended is Ended.STUCK else {}
    return bout.model_copy(update={"ended": ended, **stuck})


def is_correction(before: PerformedBout | None, after: PerformedBout | None) -> bool:
    """Whether a later version of a bout contradicts an earlier one rather than completing it."""
    if before is None or after is None:
        return True
    given = ((getattr(before, name), getattr(after, name)) for name in ("kg", "reserve", "ended"))
    return before.count != after.count or any(was is not None and was != now for was, now in given)
