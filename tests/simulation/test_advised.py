"""The demo's lifter on the floor: lighter where a set went badly, and no further where it is no day for a lift."""

from datetime import UTC, datetime
from decimal import Decimal

from sqlalchemy import func, select

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.performance import Ended, PerformedBout
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.demo.advised import Advised
from fortis.store.database import open_database
from fortis.store.tables import BoutRow
from tests.core.kits import FULL

PLAN = "Back squat: 4 x 5 at 100 kg leave 2 rest 3:00\nBench press: 2 x 5 at 80 kg leave 2"


def played(*went):
    """The loads of a session bout by bout, None where it was left out, and its changes."""
    plan = resolve(lay_out(read(PLAN)), Basis(kit=FULL))
    advised, kgs = Advised(plan, FULL, None, {}), []
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


def test_the_demo_has_days_that_went_badly_and_none_goes_on_missing(demo_at, tmp_path):
    with open_database(demo_at(tmp_path / "demo.db", datetime(2026, 6, 3, 12, tzinfo=UTC)))() as work:
        by_source = dict(work.execute(select(BoutRow.source, func.count()).group_by(BoutRow.source)).all())
        stuck = work.scalar(select(func.count()).where(BoutRow.ended == Ended.STUCK))
    assert 0 < by_source["advice"] < by_source["plan"] / 10
    assert stuck < sum(by_source.values()) / 40
