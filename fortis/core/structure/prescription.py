"""The plan laid out bout by bout: rounds unrolled, terms merged, climbs counted, rests put in their places."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from itertools import count
from typing import NamedTuple

from fortis.core.cache import cached
from fortis.core.exercises import LIBRARY, Exercise, Library
from fortis.core.reason import Reason
from fortis.core.structure.model import (
    BodyPlus,
    Bout,
    Effort,
    Entry,
    FixedReps,
    Group,
    Hold,
    Lifting,
    LiftKey,
    LoadTarget,
    Percent,
    Preparation,
    RangeOfMotion,
    RepRange,
    RepTarget,
    Session,
    Set,
    Sets,
    SetUp,
    Shift,
    Side,
    Tempo,
    Weight,
    lift_key,
)
from fortis.core.structure.pace import USUAL_PACE, work_seconds
from fortis.core.units import clock, from_kg
from fortis.core.value import Kilograms, Number, Value

STRENGTH_REST = 180
"""Usual rest in seconds after sets of five and fewer (common practice: 3 to 5 minutes)."""
SIZE_REST = 120
"""Usual rest after longer sets (common practice: 2 to 3 minutes)."""
GROUP_REST = 60
"""Usual rest after a round of a pair or circuit (common practice: about a minute)."""
MOST_ROUNDS_THAT_FIT = 60
MOST_EXTRA = 20
"""Sets that can be added to one entry on the floor."""
WARM_UP = 0
"""The number of the set that is a lift's warm-up; work sets count from 1."""


class Position(Value):
    """A position in a session: all counted from 1. `round` is the turn of the group, `set` the lift's own count.

    Set 0 is the lift's warm-up.
    """

    group: int
    round: int
    entry: int
    set: int
    bout: int

    @property
    def is_warm_up(self) -> bool:
        """Whether this belongs to a warm-up."""
        return self.set == WARM_UP

    def __str__(self) -> str:
        return f"{self.group}.{self.round}.{self.entry}.{self.set}.{self.bout}"


class Settled(Value):
    """A load decided for one bout: what goes on, what was wanted, and why.

    `kg` can be built from the kit; `sleeve` is what hangs on each end of the bar (or from the belt), outwards, on a
    bar of `bar_kg`; so many `plates` are put on or taken off there before the bout. `percent` is what `kg` is of
    the estimated max after rounding. With bands or chains `bottom_kg`, `top_kg` and `mean_kg` are what the lift
    weighs low, locked out and over its range. `advised` is a load that was changed on the floor by advice.
    """

    kg: Kilograms
    wanted_kg: Kilograms
    percent: Number | None = None
    bar: str | None = None
    bar_kg: Kilograms | None = None
    sleeve: tuple[Kilograms, ...] = ()
    body: bool = False
    bottom_kg: Kilograms | None = None
    top_kg: Kilograms | None = None
    mean_kg: Kilograms | None = None
    change: str = ""
    plates: int = 0
    note: str = ""
    reasons: tuple[Reason, ...] = ()
    advised: bool = False


class PlannedBout(Value):
    """One bout of the plan. `rest` is the short rest after it inside the set; `climbed` is a climb still to add.

    `left_out` says that it was taken out of the plan on the floor, `finds` that the reps left after it tell the
    load of what it leads up to. `reps_of` is what is written, where more stands in for it by now.
    """

    number: int
    reps: RepTarget
    reps_of: RepTarget | None = None
    load: LoadTarget | None = None
    climbed: Shift | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion = RangeOfMotion.FULL
    side: Side = Side.BOTH
    lifting: Lifting = Lifting.ALONE
    rest: int = 0
    settled: Settled | None = None
    left_out: bool = False
    finds: bool = False

    @property
    def as_written(self) -> "PlannedBout":
        """The same without what changes from time to time: its load, its rest, what stands in for its reps."""
        own = {"settled": None, "left_out": False, "rest": 0, "reps": self.reps_of or self.reps, "reps_of": None}
        return self.model_copy(update=own)


class Block(Value):
    """A block against the clock, in which as many rounds are done as fit. `number` tells those of a group apart."""

    number: int
    seconds: int


class Missed(Value):
    """The load that was too much for a line, how many times of it ago, and how often in a row by then.

    Reps were missed at it, or sets were taken lighter.
    """

    kg: Kilograms
    ago: int = 1
    in_a_row: int = 1


class PlannedSet(Value):
    """One set of the plan in its place. `lift` is what was known of the exercise when it was laid out.

    `rest` is the rest after it, in seconds. Where `every` is given, the rest lasts instead until so many
    seconds after its round began. `rung_of` is the lift and set-up that are written, where another rung of their
    ladder stands in for them, `rest_of` the rest that is written, where a shorter one does. `added` says that the
    set is none of those written, `missed` what its line missed lately, `lighter` how many times as heavy as
    written its back-offs and drops are, where they fell short.
    """

    group: int
    round: int
    entry: int
    number: int
    exercise: str
    lift: Exercise
    setup: SetUp
    bouts: tuple[PlannedBout, ...]
    rest: int
    every: int | None = None
    block: Block | None = None
    rung_of: LiftKey | None = None
    rest_of: int | None = None
    added: bool = False
    missed: Missed | None = None
    lighter: Number | None = None

    @property
    def is_warm_up(self) -> bool:
        """Whether this is the warm-up of its lift, which counts for nothing but time."""
        return self.number == WARM_UP

    @property
    def key(self) -> LiftKey:
        """What makes it comparable: the lift, and its set-up."""
        return lift_key(self.lift, self.setup)

    @property
    def asks(self) -> tuple[PlannedBout, ...]:
        """What it asks, as it is written."""
        return tuple(bout.as_written for bout in self.bouts)

    @property
    def written_rest(self) -> int:
        """The rest after it that is written, whatever stands in for it."""
        return self.rest if self.rest_of is None else self.rest_of

    @property
    def open_bouts(self) -> tuple[PlannedBout, ...]:
        """Its bouts without those left out."""
        return tuple(bout for bout in self.bouts if not bout.left_out)

    def worn(self, bout: PlannedBout) -> SetUp:
        """What of the set-up is worn for one of this set's bouts; what comes on by reps is not for warm-ups."""
        match bout.reps:
            case FixedReps(count=reps) | RepRange(high=reps) if not self.is_warm_up:
                return self.setup.worn(bout.settled.kg if bout.settled else None, reps)
        return self.setup.worn(bout.settled.kg if bout.settled else None, 0)

    def position(self, bout: PlannedBout) -> Position:
        """Where one of this set's bouts stands in the session."""
        return Position(group=self.group, round=self.round, entry=self.entry, set=self.number, bout=bout.number)


class Prescription(Value):
    """A session laid out: what prepares for it, and its sets in the order they are done."""

    title: str
    sets: tuple[PlannedSet, ...]
    prep: tuple[Preparation, ...] = ()

    @property
    def work_sets(self) -> tuple[PlannedSet, ...]:
        """The sets that count: without the warm-ups, and without what was left out."""
        return tuple(
            each if len(bouts) == len(each.bouts) else each.model_copy(update={"bouts": bouts})
            for each in self.sets
            if not each.is_warm_up and (bouts := each.open_bouts)
        )

    def by_entry(self) -> dict[tuple[int, int], list[PlannedSet]]:
        """The sets of every entry, warm-ups included, by its group and its number in that."""
        sets: dict[tuple[int, int], list[PlannedSet]] = {}
        for each in self.sets:
            sets.setdefault((each.group, each.entry), []).append(each)
        return sets

    def beyond(self, at: Position) -> str | None:
        """In words what of a position the session cannot have, with `MOST_EXTRA` sets added; None where it can."""
        sets = [each for each in self.sets if (each.group, each.entry) == (at.group, at.entry)]
        if not sets:
            return f"no lift {at.entry} in group {at.group}"
        for name, number, most in (
            ("set", at.set, max(each.number for each in sets) + MOST_EXTRA),
            ("round", at.round, max(each.round for each in sets) + MOST_EXTRA),
            ("bout", at.bout, max(bout.number for each in sets for bout in each.bouts)),
        ):
            if number > most:
                return f"no {name} {number} of {sets[0].exercise.lower()}: {most} at most"
        return None


def instead_words(work: Sequence[PlannedSet]) -> str:
    """What stands in for the sets, reps and rests written for a line, in words; empty where nothing does."""
    told = [f"{len(work)} sets"] if any(each.added for each in work) else []
    match work[0].bouts[0]:
        case PlannedBout(reps=FixedReps(count=reps) as now, reps_of=FixedReps() | RepRange() as written) if (
            now != written
        ):
            told.append(f"{reps} reps")
        case PlannedBout(reps=Hold(seconds=held), reps_of=Hold(seconds=written)) if held != written:
            told.append(f"{held} s")
    if work[0].rest != work[0].written_rest:
        told.append(f"{clock(work[0].rest)} rest")
    return ", ".join(told)


def lay_out(session: Session, library: Library = LIBRARY, weaker: Mapping[str, Side] | None = None) -> Prescription:
    """Unroll a session into its sets, in the order they are done.

    `weaker` has the weaker side of lifts done one side at a time, by the lift's id; left where none is known.
    """
    known = weaker or {}
    sets: list[PlannedSet] = []
    for number, group in enumerate(session.groups, start=1):
        lifts = tuple(library.find(entry.exercise) for entry in group.entries)
        sides = tuple(known.get(lift.id, Side.LEFT) for lift in lifts)
        sets += _group(number, group, lifts, sides)
    prep = tuple(item for line in session.prep for item in line.items)
    return Prescription(title=session.title, sets=tuple(sets), prep=prep)


@cached(1_024)
def _group(
    number: int, group: Group, lifts: tuple[Exercise, ...], weaker: tuple[Side, ...]
) -> tuple[PlannedSet, ...]:
    members = [
        _Member(entry, at, lift, side)
        for at, (entry, lift, side) in enumerate(zip(group.entries, lifts, weaker, strict=True), start=1)
    ]
    return tuple(_straight(number, members[0]) if group.is_straight else _in_turn(number, group, members))


class _Unrolled(NamedTuple):
    """A set of an entry: the run it belongs to, its step within that (for climbs), the rest after it, its block."""

    run: Sets
    step: int
    rest: int | None
    block: Block | None


@dataclass(frozen=True)
class _Member:
    """An entry in its place in the group, with what is known of its lift."""

    entry: Entry
    at: int
    lift: Exercise
    weaker: Side
    laid_out: dict[tuple[int, int], tuple[PlannedBout, ...]] = field(default_factory=dict)

    def unrolled(self) -> Iterator[_Unrolled]:
        """Every set of the entry. A rest written once at the end of the line holds for the runs before it too."""
        for index, run in enumerate(self.entry.sets):
            rest = next((later.rest for later in self.entry.sets[index:] if later.rest), None)
            block = Block(number=index + 1, seconds=run.span) if run.span else None
            for step in range(self.sets_of(run)):
                yield _Unrolled(run, step, rest, block)

    def sets_of(self, run: Sets) -> int:
        """How many sets a run has: as written, or as many as fit its block of minutes."""
        if run.span is None:
            return run.count
        return _that_fit(run.span, run.every or self.seconds(run.each) + (run.rest or _usual_rest(run.each)))

    def seconds(self, each: Set) -> int:
        """What one set takes at the usual pace, its short rests included."""
        sides = 2 if each.terms.side and each.terms.side.is_each else 1
        return sum(
            sides * work_seconds(self.lift, bout.reps, bout.terms.tempo or each.terms.tempo, index)
            + (bout.rest or each.within or 0)
            for index, bout in enumerate(each.bouts)
        )

    def planned(
        self, group: int, turn: int, each: Set, step: int, rest: int, every: int | None, block: Block | None
    ) -> PlannedSet:
        """One set of the plan: the member's set number `turn`, which is step `step` of its run."""
        return PlannedSet(
            group=group,
            round=turn,
            entry=self.at,
            number=turn,
            exercise=self.entry.exercise,
            lift=self.lift,
            setup=self.entry.setup,
            bouts=self._bouts(each, step),
            rest=rest,
            every=every,
            block=block,
        )

    def _bouts(self, each: Set, step: int) -> tuple[PlannedBout, ...]:
        """The bouts of a set; sets of a run without a climb share theirs."""
        climbs = each.terms.climb or any(bout.terms.climb for bout in each.bouts)
        key = id(each), step if climbs else 0
        if key not in self.laid_out:
            self.laid_out[key] = tuple(_bouts(each, step, self.weaker))
        return self.laid_out[key]


def _straight(number: int, member: _Member) -> Iterator[PlannedSet]:
    for turn, (run, step, rest, block) in enumerate(member.unrolled(), start=1):
        rest_after = rest or _usual_rest(run.each)
        yield member.planned(number, turn, run.each, step, rest_after, run.every, block)


def _in_turn(number: int, group: Group, of: list[_Member]) -> Iterator[PlannedSet]:
    """Go round the members; one with a single set repeats it every round, others do one of theirs a round."""
    members = [list(member.unrolled()) for member in of]
    block = Block(number=1, seconds=group.span) if group.span else None
    rounds = max(_rounds_that_fit(group, of) or group.rounds or 1, *(len(member) for member in members))
    turns = [
        (turn, index)
        for turn in range(rounds)
        for index, member in enumerate(members)
        if len(member) == 1 or turn < len(member)
    ]
    for at, (turn, index) in enumerate(turns):
        member = members[index]
        run, step, rest, _ = member[turn] if len(member) > 1 else member[0]._replace(step=turn)
        last_of_round = at + 1 == len(turns) or turns[at + 1][0] > turn
        after = _after_round(group) if last_of_round else (group.between or 0)
        every = group.every if last_of_round else None
        yield of[index].planned(number, turn + 1, run.each, step, rest or after, every, block)


def _after_round(group: Group) -> int:
    """The rest after a round: as written, none in a block against the clock, else the usual one."""
    return group.rest or (0 if group.span else GROUP_REST)


def _rounds_that_fit(group: Group, members: list[_Member]) -> int | None:
    """How many rounds a block of so many minutes takes at the usual pace."""
    if group.span is None:
        return None
    seconds = _after_round(group) + (group.between or 0) * (len(members) - 1)
    for member in members:
        seconds += member.seconds(member.entry.sets[0].each) + USUAL_PACE.station_change
    return _that_fit(group.span, group.every or seconds)


def _that_fit(span: int, seconds: int) -> int:
    """How many times so many seconds go into a block, once at least."""
    return min(max(span // max(seconds, 1), 1), MOST_ROUNDS_THAT_FIT)


def _usual_rest(each: Set) -> int:
    match each.bouts[0].reps:
        case FixedReps(count=reps) | RepRange(high=reps):
            return STRENGTH_REST if reps <= 5 else SIZE_REST
        case Hold():
            return GROUP_REST
    return SIZE_REST


def _bouts(each: Set, step: int, weaker: Side) -> list[PlannedBout]:
    numbers = count(1)
    bouts: list[PlannedBout] = []
    whole_set_sided = each.terms.side is not None and each.terms.side.is_each
    for side in _sides(each.terms.side, weaker) if whole_set_sided else (None,):
        if side and bouts:
            bouts[-1] = bouts[-1].model_copy(update={"rest": each.terms.apart or 0})
        for index, bout in enumerate(each.bouts):
            bouts += _sided(each, index, bout, step, side, weaker, numbers)
    return bouts


def _sides(side: Side | None, weaker: Side) -> tuple[Side, ...]:
    """The sides that work, in their order."""
    match side:
        case Side.EACH:
            return Side.LEFT, Side.RIGHT
        case Side.RIGHT_FIRST:
            return Side.RIGHT, Side.LEFT
        case Side.WEAKER_FIRST:
            return (Side.RIGHT, Side.LEFT) if weaker is Side.RIGHT else (Side.LEFT, Side.RIGHT)
    return (side or Side.BOTH,)


def _sided(
    each: Set, index: int, bout: Bout, step: int, side: Side | None, weaker: Side, numbers: Iterator[int]
) -> list[PlannedBout]:
    """One bout, twice where it is done on each side, logged apart."""
    last = index + 1 == len(each.bouts)
    terms = bout.terms.over(each.terms)
    load, climbed = _climb(terms.load, terms.climb, step)
    sides = _sides(side or terms.side, weaker)
    short_rest = 0 if last else bout.rest or each.within or 0
    return [
        PlannedBout(
            number=next(numbers),
            reps=bout.reps,
            load=load,
            climbed=climbed,
            effort=bout.terms.effort or (each.terms.effort if last else None),
            tempo=terms.tempo,
            range_of_motion=terms.range_of_motion or RangeOfMotion.FULL,
            side=this_side,
            lifting=terms.lifting or Lifting.ALONE,
            rest=short_rest if this_side is sides[-1] else terms.apart or 0,
        )
        for this_side in sides
    ]


def _climb(load: LoadTarget | None, climb: Shift | None, step: int) -> tuple[LoadTarget | None, Shift | None]:
    """Add a climb to the load of set `step` (from 0): points of the max to a percentage, a share or weight else."""
    if climb is None or step == 0:
        return load, None
    total = climb.model_copy(update={"amount": climb.amount * step})
    match load:
        case Percent(percent=percent) if climb.unit == "%":
            return Percent(percent=percent + total.amount), None
        case Weight() | BodyPlus():
            return shifted(load, total), None
    return load, total


def shifted(load: Weight | BodyPlus, shift: Shift) -> Weight | BodyPlus:
    """A load up or down by a share or a weight, in the unit it was typed in."""
    if shift.unit == "%":
        amount = load.amount * (1 + shift.amount / 100)
    elif shift.unit == load.unit:
        amount = load.amount + shift.amount
    else:
        amount = load.amount + from_kg(shift.kg, load.unit)
    return load.model_copy(update={"amount": amount if isinstance(load, BodyPlus) else max(amount, Decimal(0))})
