"""What counts of a session, bout by bout, planned or done: one way to count for both.

The conventions are told in docs/arithmetic.md.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from fortis.core.conventions import USUAL, Conventions
from fortis.core.exercises import LIBRARY, Exercise, Library
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part, moved_kg, pulley_ratio, sides_of
from fortis.core.performance import Ended, PerformedBout
from fortis.core.structure.counting import as_planned, count_of, least_of
from fortis.core.structure.model import Lifting, SetUp, asks_failure, planned_reserve
from fortis.core.structure.pace import expected_reps, work_seconds
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription

HARD_WITHIN = 4
"""A set that ends within so many reps of failure counts as hard (common practice)."""


@dataclass(frozen=True)
class Conditions:
    """Under what a session is counted: body weight on that day, the kit of its gym, and the lifter's ways."""

    body_kg: Decimal | None = None
    kit: Kit | None = None
    ways: Conventions = USUAL


NO_CONDITIONS = Conditions()


@dataclass(frozen=True)
class BoutWork:
    """One bout as far as it counts. `reps`, `partial_reps` and `seconds` are of both sides where both work.

    `moved_kg` is the whole weight moved in a rep and `handled_kg` the load in the hands, None where not known;
    `percent` is of the max of that day, `seconds` are those under load.
    """

    position: Position
    lift: Exercise
    exercise: str
    setup: SetUp
    reps: int
    partial_reps: int
    handled_kg: Decimal | None
    moved_kg: Decimal | None
    percent: Decimal | None
    seconds: int
    hard: bool
    failed: bool
    overloaded: bool
    changes_load: bool
    halves_count: bool = False

    @property
    def counted_reps(self) -> Decimal:
        """The reps that count: the full ones, and half of the half ones where those count."""
        return self.reps + (Decimal(self.partial_reps) / 2 if self.halves_count else Decimal(0))

    @property
    def set_key(self) -> tuple[int, int, int]:
        """The set it belongs to."""
        return self.position.group, self.position.entry, self.position.set

    @property
    def tonnage_kg(self) -> Decimal | None:
        """The reps that count times the weight moved; None where that is not known."""
        return None if self.moved_kg is None else self.counted_reps * self.moved_kg


def planned_work(prescription: Prescription, under: Conditions = NO_CONDITIONS) -> tuple[BoutWork, ...]:
    """What a plan comes to when it is done as planned, warm-ups and what was left out not counted."""
    return tuple(
        _planned(each, bout, each.bouts.index(bout), under)
        for each in prescription.work_sets
        for bout in each.bouts
    )


def performed_work(
    prescription: Prescription,
    performed: Iterable[PerformedBout],
    under: Conditions = NO_CONDITIONS,
    library: Library = LIBRARY,
) -> tuple[BoutWork, ...]:
    """What was done of a session as it was played, in the order it was done, warm-ups not counted.

    A bout of another lift than the one in its place of the plan counts as what it is.
    """
    planned = {
        each.position(bout): (each, bout)
        for each in prescription.sets
        for bout in each.bouts
        if not each.is_warm_up
    }
    work = []
    for done in performed:
        if done.position.is_warm_up:
            continue
        each, bout = planned.get(done.position, (None, None))
        lift = library.find(done.exercise, done.lift_id)
        same = each is not None and each.lift.id == lift.id
        work.append(_performed(done, lift, bout if same else None, under))
    return tuple(work)


def _planned(each: PlannedSet, bout: PlannedBout, index: int, under: Conditions) -> BoutWork:
    number = expected_reps(bout.reps, index) or 0
    count = as_planned(bout) or count_of(bout.reps, bout.range_of_motion, number)
    times = sides_of(each.lift, bout.side)
    settled = bout.settled
    pull = settled.mean_kg - settled.kg if settled and settled.mean_kg is not None else Decimal(0)
    kg = settled.kg if settled else None
    return BoutWork(
        position=each.position(bout),
        lift=each.lift,
        exercise=each.exercise,
        setup=each.worn(bout),
        reps=count.reps * times,
        partial_reps=count.partial_reps * times,
        handled_kg=kg,
        moved_kg=_moved(each.lift, kg, bool(settled and settled.body), pull, under),
        percent=settled.percent if settled else None,
        seconds=times * work_seconds(each.lift, bout.reps, bout.tempo, index),
        hard=_meant_hard(bout),
        failed=asks_failure(bout.reps, bout.effort),
        overloaded=bout.lifting is not Lifting.ALONE,
        changes_load=bool(settled and settled.change),
        halves_count=under.ways.halves,
    )


def _performed(done: PerformedBout, lift: Exercise, bout: PlannedBout | None, under: Conditions) -> BoutWork:
    times = sides_of(lift, done.side)
    pull = done.mean_kg - done.kg if done.mean_kg is not None and done.kg is not None else Decimal(0)
    settled = bout.settled if bout else None
    lifting = done.asked.lifting if done.asked else bout.lifting if bout else Lifting.ALONE
    return BoutWork(
        position=done.position,
        lift=lift,
        exercise=done.exercise,
        setup=done.setup,
        reps=done.reps * times,
        partial_reps=done.partial_reps * times,
        handled_kg=done.kg,
        moved_kg=_moved(lift, done.kg, done.body, pull, under),
        percent=_percent_done(bout, done),
        seconds=times * _seconds_done(lift, bout, done),
        hard=_was_hard(bout, done),
        failed=_reached_failure(bout, done),
        overloaded=lifting is not Lifting.ALONE,
        changes_load=bool(settled and settled.change),
        halves_count=under.ways.halves,
    )


def _moved(lift: Exercise, kg: Decimal | None, body: bool, pull: Decimal, under: Conditions) -> Decimal | None:
    part = body_part(lift, body, under.body_kg) if under.ways.body_weight else Decimal(0)
    implements = None if under.ways.both_dumbbells else 1
    return moved_kg(lift, kg, part, pull, pulley_ratio(lift, under.kit), implements)


def _seconds_done(lift: Exercise, bout: PlannedBout | None, done: PerformedBout) -> int:
    """Seconds under load on one side: those of a hold, as tapped rep by rep, or else by the tempo asked."""
    if done.seconds or done.rep_seconds:
        return done.seconds or round(done.rep_seconds[-1])
    tempo = done.asked.tempo if done.asked else bout.tempo if bout else None
    return (done.reps + done.partial_reps) * (tempo.seconds if tempo else lift.rep_seconds)


def _meant_hard(bout: PlannedBout) -> bool:
    """Whether a bout is meant to be hard: within `HARD_WITHIN` of failure, or with no effort asked."""
    reserve = planned_reserve(bout.effort)
    return reserve is None or reserve <= HARD_WITHIN


def _was_hard(bout: PlannedBout | None, done: PerformedBout) -> bool:
    """Whether a bout was hard.

    By the reserve told; where none was, as hard as it was meant if it met its target.
    """
    if done.left is not None:
        return (done.reps > 0 or done.partial_reps > 0 or done.seconds > 0) and done.left <= HARD_WITHIN
    if done.or_more:
        return done.reserve is not None and done.reserve < HARD_WITHIN and bout is not None and _meant_hard(bout)
    return bout is not None and _meant_hard(bout) and _met(bout, done)


def _reached_failure(bout: PlannedBout | None, done: PerformedBout) -> bool:
    """Whether a bout ended with none left; where nothing was told, as it was meant if it met its target."""
    if done.left is not None:
        return done.left == 0
    if done.or_more or bout is None:
        return False
    return asks_failure(bout.reps, bout.effort) and _met(bout, done)


def _met(bout: PlannedBout, done: PerformedBout) -> bool:
    return done.number_beside(bout) >= least_of(bout.reps) and done.ended is not Ended.STUCK


def _percent_done(bout: PlannedBout | None, done: PerformedBout) -> Decimal | None:
    """How heavy it was in per cent of the max of that day, where another load than the planned one went on."""
    settled = bout.settled if bout else None
    if settled is None or settled.percent is None:
        return None
    if done.kg is None or settled.body or not settled.kg or done.kg == settled.kg:
        return settled.percent
    return round(settled.percent * done.kg / settled.kg, 1)


NOTHING_PLANNED = Prescription(title="", sets=())


def tonnage(
    performed: Iterable[PerformedBout], under: Conditions = NO_CONDITIONS, library: Library = LIBRARY
) -> Decimal:
    """Full reps times the weight moved, summed, in kg. Warm-ups do not count, and half reps are only recorded."""
    work = performed_work(NOTHING_PLANNED, performed, under, library)
    return sum((bout.tonnage_kg or Decimal(0) for bout in work), Decimal(0))
