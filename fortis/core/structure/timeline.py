"""The timeline: every bout, rest and change of a laid-out session as steps with expected seconds."""

from collections.abc import Iterator
from typing import Any, Literal

from fortis.core.structure.model import (
    BodyPlus,
    Effort,
    Lifting,
    OfPrevious,
    OfTop,
    Percent,
    RangeOfMotion,
    RepMax,
    RepTarget,
    SetUp,
    Shift,
    Side,
    Tempo,
    Weight,
    WeightRange,
)
from fortis.core.structure.pace import USUAL_PACE, Pace, expected_reps, work_seconds
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription, Settled
from fortis.core.structure.writing import write_effort, write_reps
from fortis.core.units import Unit, to_kg
from fortis.core.value import Kilograms, Number, Value

Kind = Literal["work", "rest", "change"]


class StepLoad(Value):
    """A load as far as it is known: kilograms where settled or written, else what was asked.

    With `body` true, `kg` is what is added to body weight.
    """

    kg: Kilograms | None = None
    body: bool | None = None
    percent: Number | None = None
    rep_max: int | None = None
    low_kg: Kilograms | None = None
    high_kg: Kilograms | None = None
    of_previous: Shift | None = None
    of_top: Shift | None = None


class Step(Value):
    """One step. Positions count from 1; `reps` is the number expected, `target` the one asked for.

    A rest or a change stands before the work it leads to and carries that work's position.
    """

    kind: Kind
    seconds: int
    exercise: str
    group: int
    round: int
    entry: int
    set: int
    bout: int
    short: bool = False
    warm_up: bool = False
    what: Literal["load", "side", "station"] | None = None
    side: Side = Side.BOTH
    setup: SetUp = SetUp()
    lifting: Lifting = Lifting.ALONE
    reps: int | None = None
    target: RepTarget | None = None
    asked: str = ""
    load: StepLoad | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion = RangeOfMotion.FULL
    settled: Settled | None = None


class Timeline(Value):
    """A session in time. `total_seconds` is the sum of the steps' seconds."""

    title: str
    total_seconds: int
    steps: tuple[Step, ...]


def timeline(prescription: Prescription, pace: Pace = USUAL_PACE) -> Timeline:
    """Put a laid-out session in time. Rest after the very last set is left out."""
    steps = tuple(_steps(prescription.sets, pace))
    return Timeline(title=prescription.title, total_seconds=sum(step.seconds for step in steps), steps=steps)


def _steps(sets: tuple[PlannedSet, ...], pace: Pace) -> Iterator[Step]:
    last_load: dict[str, PlannedBout] = {}
    previous: PlannedSet | None = None
    since_round = 0
    for each in sets:
        rest = _rest_after(previous, since_round) if previous else 0
        if previous is None or (previous.group, previous.round) != (each.group, each.round):
            since_round = 0
        before = last_load.get(each.exercise)
        came_from = previous
        for index, bout in enumerate(each.bouts):
            steps = [_step("rest", rest, each, bout, short=index > 0)] if rest else []
            steps += _changes(each, bout, before, came_from, rest, pace)
            steps.append(_work(each, bout, index, pace))
            since_round += sum(step.seconds for step in steps if index or step.kind != "rest")
            yield from steps
            rest, before, came_from = bout.rest, bout, each
        last_load[each.exercise] = each.bouts[-1]
        previous = each


def _rest_after(each: PlannedSet, since_round: int) -> int:
    """The rest after a set: as written, or what is left until the next round is due."""
    return each.rest if each.every is None else max(each.every - since_round, 0)


def _changes(
    each: PlannedSet,
    bout: PlannedBout,
    before: PlannedBout | None,
    came_from: PlannedSet | None,
    rest: int,
    pace: Pace,
) -> Iterator[Step]:
    """What has to change hands before this bout. Inside a rest it takes no time of its own."""
    if came_from and came_from.exercise != each.exercise:
        yield _step("change", 0 if rest else pace.station_change, each, bout, what="station")
    elif before and before.side is not bout.side and Side.BOTH not in (before.side, bout.side):
        yield _step("change", 0 if rest else pace.side_change, each, bout, what="side")
    if before and _differs(before, bout):
        yield _step("change", 0 if rest else pace.load_change, each, bout, what="load")


def _differs(before: PlannedBout, bout: PlannedBout) -> bool:
    if before.settled and bout.settled:
        return before.settled.kg != bout.settled.kg
    return isinstance(bout.load, OfPrevious) or (bout.load is not None and before.load != bout.load)


def _step(kind: Kind, seconds: int, each: PlannedSet, bout: PlannedBout, **more: Any) -> Step:
    return Step(
        kind=kind,
        seconds=seconds,
        exercise=each.exercise,
        group=each.group,
        round=each.round,
        entry=each.entry,
        set=each.number,
        bout=bout.number,
        side=bout.side,
        warm_up=each.is_warm_up,
        **more,
    )


def _work(each: PlannedSet, bout: PlannedBout, index: int, pace: Pace) -> Step:
    return _step(
        "work",
        work_seconds(each.lift, bout.reps, bout.tempo, index, pace),
        each,
        bout,
        setup=each.setup,
        reps=expected_reps(bout.reps, index, pace),
        target=bout.reps,
        asked=asked(bout),
        load=step_load(bout),
        effort=bout.effort,
        tempo=bout.tempo,
        range_of_motion=bout.range_of_motion,
        lifting=bout.lifting,
        settled=bout.settled,
    )


def asked(bout: PlannedBout) -> str:
    """What a bout asks for, in words: `8-10 leave 1`, `max to failure`."""
    words = [write_reps(bout.reps)]
    if bout.range_of_motion is not RangeOfMotion.FULL:
        words.append(bout.range_of_motion)
    if bout.lifting is not Lifting.ALONE:
        words.append(bout.lifting)
    if bout.effort:
        words.append(write_effort(bout.effort))
    return " ".join(words)


def step_load(bout: PlannedBout) -> StepLoad | None:
    """The load of a bout as far as it is known."""
    if bout.settled:
        return StepLoad(kg=bout.settled.kg, body=bout.settled.body or None)
    match bout.load:
        case Weight(kg=kg):
            return StepLoad(kg=kg)
        case BodyPlus(kg=kg):
            return StepLoad(kg=kg, body=True)
        case WeightRange(low=low, high=high, unit=unit):
            return StepLoad(low_kg=to_kg(low, Unit(unit)), high_kg=to_kg(high, Unit(unit)))
        case Percent(percent=percent, of=of):
            return StepLoad(percent=percent) if of is None else StepLoad(kg=of.kg * percent / 100)
        case RepMax(reps=reps):
            return StepLoad(rep_max=reps)
        case OfPrevious(shift=shift):
            return StepLoad(of_previous=shift)
        case OfTop(shift=shift):
            return StepLoad(of_top=shift)
    return None
