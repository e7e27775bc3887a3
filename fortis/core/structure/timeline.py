"""The timeline: every bout, rest and change of a laid-out session as steps with expected seconds."""

from collections.abc import Collection, Iterator, Sequence
from decimal import Decimal
from itertools import groupby, takewhile
from operator import attrgetter
from typing import Any, Literal

from fortis.core.cache import cached
from fortis.core.structure.counting import Counts, counted_in, least_of, most_of, planned_number
from fortis.core.structure.model import (
    BodyPlus,
    Effort,
    Gear,
    Lifting,
    OfPrevious,
    OfTop,
    Percent,
    Preparation,
    RangeOfMotion,
    RepMax,
    RepTarget,
    SetUp,
    Shift,
    Side,
    Tempo,
    Weight,
    WeightRange,
    planned_reserve,
)
from fortis.core.structure.pace import USUAL_PACE, Pace, expected_reps, load_change_seconds, work_seconds
from fortis.core.structure.prescription import Block, PlannedBout, PlannedSet, Prescription, Settled
from fortis.core.structure.writing import write_effort, write_reps
from fortis.core.units import clock
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


class Foretold(Value):
    """What to expect of a bout: full reps, and reps left after them."""

    reps: int
    left: float


class Step(Value):
    """One step. Positions count from 1; `reps` is the number expected, `target` the one asked for.

    A rest or a change stands before the work it leads to and carries that work's position. A rest with `every`
    ends so many seconds after the round before it began; work with a `block` is done for as many rounds as fit
    into it. `left_out` are steps of work taken out of the plan on the floor, and the rests that led to it. Work
    says what follows it: `then_rest` seconds, or `then_every` where the next round starts by the clock;
    `load_seconds` is what changing the load before it takes. `counts` is what it is counted in, `least` what
    meets its target, `most` the most it asks for, `as_planned` what is done when it is done as planned: none
    where only the lifter can say; `reserve` are the reps to be left. `setup` is what is worn for it,
    `gear` where that hangs on its load or reps. `finds` says that the reps left after it tell the load of what it
    leads up to. `shape` tells its set in words, and `pitch`
    is the height its load is drawn at: kilograms, per cent, or, where only the way from one bout to the next is
    known, parts of 100. `foretold` is what to expect of it, where the max of its lift is known.
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
    gear: tuple[Gear, ...] = ()
    lifting: Lifting = Lifting.ALONE
    reps: int | None = None
    target: RepTarget | None = None
    asked: str = ""
    load: StepLoad | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion = RangeOfMotion.FULL
    settled: Settled | None = None
    then_rest: int | None = None
    then_every: int | None = None
    load_seconds: int | None = None
    counts: Counts | None = None
    least: int | None = None
    most: int | None = None
    as_planned: int | None = None
    reserve: Number | None = None
    shape: str = ""
    pitch: Number | None = None
    left_out: bool = False
    finds: bool = False
    foretold: Foretold | None = None


class Timeline(Value):
    """A session in time. `total_seconds` is the sum of its preparation and its steps, those left out not counted.

    A way up that finds a load ends with the first bout that tells it: as many of its bouts are counted as that
    usually takes.
    """

    title: str
    total_seconds: int
    steps: tuple[Step, ...]
    prep: tuple[Preparation, ...] = ()


USUAL_WAY_UP = 4
"""Bouts of a way up before one tells the load (common practice)."""


def _is_beyond_usual(step: Step, finding: Collection[tuple[int, int]]) -> bool:
    """Whether a step belongs to the part of a way up that is seldom gone, by the entries whose load is found."""
    return step.warm_up and step.bout > USUAL_WAY_UP and (step.group, step.entry) in finding


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
        for each in sets:
            for bout in each.open_bouts[-1:]:
                last_load[each.exercise], came_from = bout, each.exercise
        rest = _rest_after(sets[-1], _since_round(steps, sets[-1]))
    finding = {(step.group, step.entry) for step in steps if step.finds}
    lifting = sum(step.seconds for step in steps if not step.left_out and not _is_beyond_usual(step, finding))
    total = sum(each.takes for each in prescription.prep) + lifting
    return Timeline(title=prescription.title, total_seconds=total, steps=tuple(steps), prep=prescription.prep)


@cached(1_024)
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
    works: dict[tuple[int, bool], Step] = {}
    known = _Loads()
    shapes: dict[int, str] = {}
    pitches: dict[int, _Pitch] = {}
    every: int | None = None
    for each in sets:
        if id(each.bouts) not in shapes:
            shapes[id(each.bouts)] = shape_of(each)
        shape, pitch = shapes[id(each.bouts)], pitches.setdefault(each.entry, _Pitch())
        for index, bout in enumerate(each.bouts):
            done += [_step("rest", rest, each, bout, short=index > 0, every=every)] if rest else []
            if not bout.left_out:
                done += _changes(each, bout, last_load.get(each.exercise), came_from, rest, pace, known)
                last_load[each.exercise], came_from = bout, each.exercise
            last = index + 1 == len(each.bouts)
            own = {
                "round": each.round,
                "set": each.number,
                "then_rest": each.rest if last else bout.rest,
                "then_every": each.every if last else None,
                "shape": shape,
                "pitch": pitch.of(known.of(bout)),
            }
            key = id(bout), last
            if key not in works:
                works[key] = _work(each, bout, index, pace, known.of(bout), own)
                done.append(works[key])
            else:
                done.append(works[key].model_copy(update=own))
            rest, every = bout.rest, None
        rest, every = _rest_after(each, _since_round(done, each)), each.every
    return tuple(done)


def _since_round(steps: Sequence[Step], each: PlannedSet) -> int:
    """Seconds from the start of the round that `each` ends, the rest before the round left out."""
    if each.every is None:
        return 0
    turn = (each.group, each.round, each.is_warm_up)
    of_turn = list(takewhile(lambda step: (step.group, step.round, step.warm_up) == turn, reversed(steps)))
    counted = [step for step in of_turn if not step.left_out]
    lead = of_turn[-1].seconds if of_turn[-1].kind == "rest" and not of_turn[-1].left_out else 0
    return sum(step.seconds for step in counted) - lead


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
    known: "_Loads",
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
    if before and _differs(known.of(before), known.of(bout)):
        yield change("load", load_change_seconds(bout.settled.plates if bout.settled else 0, pace))


def _differs(before: StepLoad | None, load: StepLoad | None) -> bool:
    """Whether another load goes on, as far as loads are known; a drop changes it whatever it comes to."""
    return load is not None and load is not before and (load.of_previous is not None or load != before)


class _Loads:
    """The loads of bouts as far as they are known, each worked out once."""

    def __init__(self) -> None:
        self.known: dict[int, tuple[PlannedBout, StepLoad | None]] = {}

    def of(self, bout: PlannedBout) -> StepLoad | None:
        """The load of a bout."""
        if id(bout) not in self.known:
            self.known[id(bout)] = bout, step_load(bout)
        return self.known[id(bout)][1]


def _step(kind: Kind, seconds: int, each: PlannedSet, bout: PlannedBout, **more: Any) -> Step:
    place = {"round": each.round, "set": each.number}
    return Step(
        kind=kind,
        seconds=seconds,
        exercise=each.exercise,
        group=each.group,
        entry=each.entry,
        bout=bout.number,
        side=bout.side,
        warm_up=each.is_warm_up,
        left_out=bout.left_out,
        **(place | more),
    )


class _Pitch:
    """How high the loads of a line are drawn, one after the other."""

    def __init__(self) -> None:
        self.previous = UNKNOWN_PITCH
        self.top: Decimal | None = None

    def of(self, load: StepLoad | None) -> Decimal:
        """The height of a bout; one told relative to another stands so far from it."""
        load = load or NO_LOAD
        known = load.kg if load.kg is not None else load.percent
        relative = load.of_previous or load.of_top
        base = (self.top or UNKNOWN_PITCH) if load.of_top else self.previous
        if known is None and relative:
            known = base * (1 + relative.amount / 100) if relative.unit == "%" else base + relative.amount
        found = self.previous if known is None else round(known, 3)
        if not relative:
            self.top = max(self.top or found, found)
        self.previous = found
        return found


UNKNOWN_PITCH = Decimal(100)
NO_LOAD = StepLoad()


def shape_of(each: PlannedSet) -> str:
    """A set in words, without its load: `2 + 2 + 2, 10 s between, leave 1`."""
    sides = {bout.side for bout in each.bouts}
    both = {Side.LEFT, Side.RIGHT} <= sides
    own = [bout for bout in each.bouts if not (both and bout.side is not each.bouts[0].side)]
    words = [" + ".join(write_reps(bout.reps) for bout in own)]
    rests = {bout.rest for bout in own[:-1]}
    if len(rests) == 1 and (rest := rests.pop()):
        words.append(f"{clock(rest)} between")
    if both:
        words.append("each side")
    if own[-1].tempo:
        words.append(f"tempo {own[-1].tempo}")
    if own[-1].effort:
        words.append(write_effort(own[-1].effort))
    return ", ".join(words)


def _work(
    each: PlannedSet, bout: PlannedBout, index: int, pace: Pace, load: StepLoad | None, own: dict[str, Any]
) -> Step:
    """The work of a bout; `own` is what it does not share with the same bout of other sets."""
    return _step(
        "work",
        work_seconds(each.lift, bout.reps, bout.tempo, index, pace),
        each,
        bout,
        setup=each.worn(bout),
        gear=each.setup.gear if each.worn(bout) is not each.setup else (),
        reps=expected_reps(bout.reps, index, pace),
        target=bout.reps,
        asked=asked(bout),
        load=load,
        effort=bout.effort,
        tempo=bout.tempo,
        range_of_motion=bout.range_of_motion,
        lifting=bout.lifting,
        settled=bout.settled,
        block=each.block,
        load_seconds=load_change_seconds(bout.settled.plates if bout.settled else 0, pace),
        counts=counted_in(bout.reps, bout.range_of_motion),
        least=least_of(bout.reps),
        most=most_of(bout.reps),
        as_planned=planned_number(bout.reps),
        reserve=planned_reserve(bout.effort),
        finds=bout.finds,
        **own,
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
        case WeightRange(bounds_kg=(low, high)):
            return StepLoad(low_kg=low, high_kg=high)
        case Percent(percent=percent, of=of):
            return StepLoad(percent=percent) if of is None else StepLoad(kg=of.kg * percent / 100)
        case RepMax(reps=reps):
            return StepLoad(rep_max=reps)
        case OfPrevious(shift=shift):
            return StepLoad(of_previous=shift)
        case OfTop(shift=shift):
            return StepLoad(of_top=shift)
    return None
