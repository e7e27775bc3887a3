"""A recent set or a max as a lifter remembers it, told where nothing is known of a lift yet."""

import re

from fortis.core.exercises import Exercise, LoadKind
from fortis.core.performance import Ended, PerformedBout
from fortis.core.structure.model import (
    BodyPlus,
    FixedReps,
    Leave,
    RangeOfMotion,
    SetUp,
    Side,
    Weight,
    planned_reserve,
)
from fortis.core.structure.notation import NotationError, read
from fortis.core.structure.prescription import PlannedBout, Position, lay_out
from fortis.core.units import Unit

NOWHERE = Position(group=1, round=1, entry=1, set=1, bout=1)
"""It belongs to no session: it stands by itself."""
_MAX = re.compile(r"(?:(?:max|1 ?rm)\s*)?((?:bw\s*\+\s*)?[\d.,]+\s*(?:kg|lb)?)", re.IGNORECASE)


class NotRememberedError(ValueError):
    """What was told is no set with its load, and no max; `why` where that is known."""

    def __init__(self, why: str = "") -> None:
        how = "Write one set with its load, such as 5 at 100 kg leave 2, or a max, such as 120 kg."
        super().__init__(f"{why} {how}".strip())


def read_remembered(written: str, lift: Exercise, setup: SetUp, unit: Unit) -> PerformedBout:
    """A set as it is written in the notation, or a bare load: a max, which is one rep with none left.

    Raises `NotRememberedError` for what cannot be read, and for more or less than one such set.
    """
    max_ = _MAX.fullmatch(written.strip())
    try:
        session = read(f"Lift: 1 at {max_[1]} to failure" if max_ else f"Lift: {' '.join(written.split())}", unit)
    except NotationError as error:
        raise NotRememberedError(error.problems[0].message.partition(" Expected")[0]) from error
    bouts = [bout for each in lay_out(session).sets for bout in each.bouts]
    if len(bouts) != 1 or not _is_plain(bouts[0]):
        raise NotRememberedError
    (bout,) = bouts
    assert isinstance(bout.reps, FixedReps)
    assert isinstance(bout.load, Weight | BodyPlus)
    return PerformedBout(
        position=NOWHERE,
        exercise=lift.name,
        lift_id=lift.id,
        setup=setup,
        kg=bout.load.kg,
        body=isinstance(bout.load, BodyPlus) or lift.load_kind is LoadKind.BODY,
        reps=bout.reps.count,
        reserve=planned_reserve(bout.effort),
        ended=Ended.MET,
    )


def _is_plain(bout: PlannedBout) -> bool:
    """Whether it is a number of full reps with a load, and with one number of reps left where that is told."""
    effort = bout.effort
    return (
        isinstance(bout.reps, FixedReps)
        and isinstance(bout.load, Weight | BodyPlus)
        and bout.range_of_motion is RangeOfMotion.FULL
        and bout.side is Side.BOTH
        and not (isinstance(effort, Leave) and effort.low != effort.high)
    )
