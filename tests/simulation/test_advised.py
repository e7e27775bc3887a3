"""The demo's lifter on the floor: lighter where a set went badly, and no further where it is no day for a lift."""

from datetime import UTC, datetime
from decimal import Decimal

from sqlalchemy import func, select

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.advice_table import NONE_KNOWN
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.demo.advised import Advised
from fortis.store.database import open_database
from fortis.store.tables import BoutRow
from tests.core.kits import FULL

PLAN = "Back squat: 4 x 5 at 100 kg leave 2 rest 3:00\nBench press: 2 x 5 at 80 kg leave 2"


def played(*went, text=PLAN, maxes=NONE_KNOWN):
    """The loads of a session bout by bout, None where it was left out, and its changes."""
    plan = resolve(lay_out(read(text)), Basis(kit=FULL, estimates=maxes))
    advised, kgs = Advised(plan, FULL, None, maxes), []
    outcomes = iter(went)
    for each in plan.sets:
        position = each.position(each.bouts[0])
        bout = advised.bout(position)
        if bout is None:
            kgs.append(None)
            continue
        reps, left = next(outcomes, (5, 2))
        ended = Ended.STUCK if reps < 5 else Ended.MET
        own = {"kg": bout.settled.kg, "reps": reps, "reserve": Decimal(left), "ended": ended}
        advised.done(PerformedBout(position=position, exercise=each.exercise, lift_id=each.lift.id, **own))
        kgs.append(float(bout.settled.kg))
    return kgs, advised.adjustments


def test_as_planned_nothing_changes():
    kgs, adjustments = played()
    assert kgs == [100] * 4 + [80] * 2
    assert adjustments == Adjustments()


def test_a_missed_set_makes_the_rest_of_its_lift_lighter():
    kgs, adjustments = played((5, 2), (4, 0))
    assert kgs == [100, 100, 90, 90, 80, 80]
    (change,) = adjustments.loads["1.1"]
    assert (change.set, change.kg, change.advised) == (3, 90, True)


def test_a_set_that_is_a_little_hard_is_watched_first():
    assert played((5, 1), (5, 2))[0] == [100] * 4 + [80] * 2
    assert played((5, 1), (5, 1))[0][2] < 100


def test_under_half_of_the_reps_ends_a_lift_and_no_other():
    kgs, adjustments = played((2, 0))
    assert kgs == [100, None, None, None, 80, 80]
    assert len(adjustments.skipped) == 3


def test_both_kinds_of_sets_of_an_exercise_follow():
    """What is left of the fives goes lighter, and the eights after them with the day."""
    maxes = {lift_key(LIBRARY.find("Back squat"), SetUp()): Estimate(kg=150, low=146, high=154)}
    text = "Back squat: 2 x 5 at 85%; 2 x 8 leave 2"
    as_planned = (5, 1), (8, 3), (8, 2)
    (fives, _, eights, _), _ = played((5, 1), *as_planned, text=text, maxes=maxes)
    kgs, adjustments = played((4, 0), *as_planned, text=text, maxes=maxes)
    assert kgs[0] == fives > kgs[1]
    assert kgs[2] == kgs[3] < eights
    assert [change.set for change in adjustments.loads["1.1"]] == [2, 3]


def test_the_demo_has_days_that_went_badly_and_none_goes_on_missing(demo_at, tmp_path):
    with open_database(demo_at(tmp_path / "demo.db", datetime(2026, 6, 3, 12, tzinfo=UTC)))() as work:
        by_source = dict(work.execute(select(BoutRow.source, func.count()).group_by(BoutRow.source)).all())
        stuck = work.scalar(select(func.count()).where(BoutRow.ended == Ended.STUCK))
    assert 0 < by_source["advice"] < by_source["plan"] / 10
    assert stuck < sum(by_source.values()) / 40
