"""The timeline: every bout, rest and change of a laid-out session as steps with expected seconds."""

from collections.abc import Iterator, Sequence
from itertools import groupby, takewhile
from operator import attrgetter
from typing import Any, Literal

from fortis.core.kept import kept
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
from fortis.core.structure.pace import USUAL_PACE, Pace, expected_reps, load_change_seconds, work_seconds
from fortis.core.structure.prescription import Block, PlannedBout, PlannedSet, Prescription, Settled
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

    A rest or a change stands before the work it leads to and carries that work's position. A rest with `every` ends
    so many seconds after the round before it began; work with a `block` is done for as many rounds
    as fit into it.
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
    every: int | None = None
    block: Block | None = None
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
    steps: list[Step] = []
    last_load: dict[str, PlannedBout] = {}
    came_from: str | None = None
    rest = 0
    for _, group in groupby(prescription.sets, key=attrgetter("group")):
        sets = tuple(group)
        lifts = dict.fromkeys(each.exercise for each in sets)
        loads = tuple((lift, last_load[lift]) for lift in lifts if lift in last_load)
        steps += _steps(sets, pace, came_from, rest, loads)
        last_load |= {each.exercise: each.bouts[-1] for each in sets}
        came_from = sets[-1].exercise
        rest = _rest_after(sets[-1], _since_round(steps, sets[-1]))
    return Timeline(title=prescription.title, total_seconds=sum(step.seconds for step in steps), steps=tuple(steps))


@kept(1_024)
def _steps(
    sets: tuple[PlannedSet, ...],
    pace: Pace,
    came_from: str | None,
    rest: int,
    loads: tuple[tuple[str, PlannedBout], ...],
) -> tuple[Step, ...]:
    """The steps of a group that comes `rest` seconds after `came_from`, with the last loads of its lifts."""
    done: list[Step] = []
    last_load = dict(loads)
    works: dict[int, Step] = {}
    every: int | None = None
    for each in sets:
        before = last_load.get(each.exercise)
        for index, bout in enumerate(each.bouts):
            done += [_step("rest", rest, each, bout, short=index > 0, every=every)] if rest else []
            done += _changes(each, bout, before, came_from, rest, pace)
            if id(bout) not in works:
                works[id(bout)] = _work(each, bout, index, pace)
            done.append(_turn_of(works[id(bout)], each))
            rest, every, before, came_from = bout.rest, None, bout, each.exercise
        last_load[each.exercise] = each.bouts[-1]
        rest, every = _rest_after(each, _since_round(done, each)), each.every
    return tuple(done)


def _since_round(steps: Sequence[Step], each: PlannedSet) -> int:
    """Seconds from the start of the round that `each` ends, the rest before the round left out."""
    if each.every is None:
        return 0
    place = (each.group, each.round, each.is_warm_up)
    turn = list(takewhile(lambda step: (step.group, step.round, step.warm_up) == place, reversed(steps)))
    return sum(step.seconds for step in turn) - (turn[-1].seconds if turn[-1].kind == "rest" else 0)


def _rest_after(each: PlannedSet, since_round: int) -> int:
    """The rest after a set: as written, or what is left until the next round is due."""
    return each.rest if each.every is None else max(each.every - since_round, 0)


def _changes(
    each: PlannedSet,
    bout: PlannedBout,
    before: PlannedBout | None,
    came_from: str | None,
    rest: int,
    pace: Pace,
) -> Iterator[Step]:
    """What has to change hands before this bout. It takes the time that a rest leaves over."""
    left = rest

    def change(what: str, seconds: int) -> Step:
        nonlocal left
        over = max(seconds - left, 0)
        left = max(left - seconds, 0)
        return _step("change", over, each, bout, what=what)

    if came_from and came_from != each.exercise:
        yield change("station", pace.station_change)
    elif before and before.side is not bout.side and Side.BOTH not in (before.side, bout.side):
        yield change("side", pace.side_change)
    if before and _differs(before, bout):
        yield change("load", load_change_seconds(bout.settled.plates if bout.settled else 0, pace))


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


def _turn_of(work: Step, each: PlannedSet) -> Step:
    """The work of a bout that several sets share, in one of them."""
    if (work.round, work.set) == (each.round, each.number):
        return work
    return work.model_copy(update={"round": each.round, "set": each.number})


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
        block=each.block,
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
