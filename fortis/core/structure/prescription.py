"""The plan laid out bout by bout: rounds unrolled, terms merged, climbs counted, rests put in their places."""

from collections.abc import Iterator
from decimal import Decimal
from itertools import count

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
    LoadTarget,
    Percent,
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
)
from fortis.core.structure.pace import USUAL_PACE, work_seconds
from fortis.core.units import from_kg
from fortis.core.value import Kilograms, Number, Value

STRENGTH_REST = 180
"""Usual rest in seconds after sets of five and fewer (common practice: 3 to 5 minutes)."""
SIZE_REST = 120
"""Usual rest after longer sets (common practice: 2 to 3 minutes)."""
GROUP_REST = 60
"""Usual rest after a round of a pair or circuit (common practice: about a minute)."""
MOST_ROUNDS_THAT_FIT = 60


class Position(Value):
    """A place in a session: all counted from 1. `round` is the turn of the group, `set` the lift's own count."""

    group: int
    round: int
    entry: int
    set: int
    bout: int

    def __str__(self) -> str:
        return f"{self.group}.{self.round}.{self.entry}.{self.set}.{self.bout}"


class Settled(Value):
    """A load decided for one bout: what goes on, what was wanted, and why.

    `kg` can be built from the kit; `side` is what hangs on each sleeve (or from the belt) outwards, on a
    bar of `bar_kg`. `percent` is what `kg` is of the estimated max after rounding.
    """

    kg: Kilograms
    wanted_kg: Kilograms
    percent: Number | None = None
    bar: str | None = None
    bar_kg: Kilograms | None = None
    side: tuple[Kilograms, ...] = ()
    body: bool = False
    change: str = ""
    reasons: tuple[Reason, ...] = ()


class PlannedBout(Value):
    """One bout of the plan. `rest` is the short rest after it inside the set; `climbed` is a climb still to add."""

    number: int
    reps: RepTarget
    load: LoadTarget | None = None
    climbed: Shift | None = None
    effort: Effort | None = None
    tempo: Tempo | None = None
    range_of_motion: RangeOfMotion = RangeOfMotion.FULL
    side: Side = Side.BOTH
    lifting: Lifting = Lifting.ALONE
    rest: int = 0
    settled: Settled | None = None


class PlannedSet(Value):
    """One set of the plan in its place.

    `rest` is the rest after it, in seconds. Where `every` is given, the rest lasts instead until so many
    seconds after its round began.
    """

    group: int
    round: int
    entry: int
    number: int
    exercise: str
    setup: SetUp
    bouts: tuple[PlannedBout, ...]
    rest: int
    every: int | None = None

    def position(self, bout: PlannedBout) -> Position:
        """Where one of this set's bouts stands in the session."""
        return Position(group=self.group, round=self.round, entry=self.entry, set=self.number, bout=bout.number)


class Prescription(Value):
    """A session laid out: its sets in the order they are done."""

    title: str
    sets: tuple[PlannedSet, ...]


def lay_out(session: Session) -> Prescription:
    """Unroll a session into its sets, in the order they are done."""
    sets: list[PlannedSet] = []
    for number, group in enumerate(session.groups, start=1):
        sets += _straight(number, group) if group.is_straight else _in_turn(number, group)
    return Prescription(title=session.title, sets=tuple(sets))


def _straight(number: int, group: Group) -> Iterator[PlannedSet]:
    entry = group.entries[0]
    for turn, (each, step, rest) in enumerate(_unrolled(entry), start=1):
        planned = _planned(number, turn, 1, turn, entry, each.each, step, rest or _usual_rest(each.each))
        yield planned.model_copy(update={"every": each.every})


def _in_turn(number: int, group: Group) -> Iterator[PlannedSet]:
    """Go round the members; one with a single set repeats it every round, others do one of theirs a round."""
    members = [list(_unrolled(entry)) for entry in group.entries]
    rounds = max(_rounds_that_fit(group) or group.rounds or 1, *(len(member) for member in members))
    turns = [
        (turn, index)
        for turn in range(rounds)
        for index, member in enumerate(members)
        if len(member) == 1 or turn < len(member)
    ]
    for place, (turn, index) in enumerate(turns):
        member = members[index]
        run, step, rest = member[turn] if len(member) > 1 else (member[0][0], turn, member[0][2])
        last_of_round = place + 1 == len(turns) or turns[place + 1][0] > turn
        after = _after_round(group) if last_of_round else (group.between or 0)
        planned = _planned(
            number, turn + 1, index + 1, turn + 1, group.entries[index], run.each, step, rest or after
        )
        yield planned.model_copy(update={"every": group.every if last_of_round else None})


def _after_round(group: Group) -> int:
    """The rest after a round: as written, none in a block against the clock, else the usual one."""
    return group.rest or (0 if group.span else GROUP_REST)


def _rounds_that_fit(group: Group) -> int | None:
    """How many rounds a block of so many minutes takes at the usual pace, one at least."""
    if group.span is None:
        return None
    seconds = _after_round(group) + (group.between or 0) * (len(group.entries) - 1)
    for entry in group.entries:
        each = entry.sets[0].each
        sides = 2 if each.terms.side is Side.EACH else 1
        for index, bout in enumerate(each.bouts):
            tempo = bout.terms.tempo or each.terms.tempo
            seconds += sides * work_seconds(entry.exercise, bout.reps, tempo, index) + (
                bout.rest or each.within or 0
            )
        seconds += USUAL_PACE.station_change
    return min(max(group.span // max(group.every or seconds, 1), 1), MOST_ROUNDS_THAT_FIT)


def _unrolled(entry: Entry) -> Iterator[tuple[Sets, int, int | None]]:
    """The run each set of an entry belongs to, its step within that (for climbs), and the rest after it.

    A rest written once at the end of the line holds for the runs before it too.
    """
    for index, run in enumerate(entry.sets):
        rest = next((later.rest for later in entry.sets[index:] if later.rest), None)
        for step in range(run.count):
            yield run, step, rest


def _usual_rest(each: Set) -> int:
    match each.bouts[0].reps:
        case FixedReps(count=reps) | RepRange(high=reps):
            return STRENGTH_REST if reps <= 5 else SIZE_REST
        case Hold():
            return GROUP_REST
    return SIZE_REST


def _planned(
    group: int, turn: int, entry: int, number: int, of: Entry, each: Set, step: int, rest: int
) -> PlannedSet:
    numbers = count(1)
    bouts: list[PlannedBout] = []
    whole_set_sided = each.terms.side is Side.EACH
    for side in (Side.LEFT, Side.RIGHT) if whole_set_sided else (None,):
        for index, bout in enumerate(each.bouts):
            bouts += _sided(each, index, bout, step, side, numbers)
    bouts[-1] = bouts[-1].model_copy(update={"rest": 0})
    return PlannedSet(
        group=group,
        round=turn,
        entry=entry,
        number=number,
        exercise=of.exercise,
        setup=of.setup,
        bouts=tuple(bouts),
        rest=rest,
    )


def _sided(
    each: Set, index: int, bout: Bout, step: int, side: Side | None, numbers: Iterator[int]
) -> list[PlannedBout]:
    """One bout, twice where it is done on each side; left first, logged apart."""
    last = index + 1 == len(each.bouts)
    terms = bout.terms.over(each.terms)
    load, climbed = _climb(terms.load, terms.climb, step)
    asked = side or terms.side or Side.BOTH
    sides = (Side.LEFT, Side.RIGHT) if asked is Side.EACH else (asked,)
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
            rest=short_rest if this_side is sides[-1] else 0,
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
