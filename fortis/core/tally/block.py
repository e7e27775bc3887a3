"""Two blocks of weeks side by side: what a week of each came to, and what became of every lift.

Blocks can be of any length, so work is told by the week. Work and load of a lift are read together only where it
was mostly done alike in both; where it was not, what differed is told, and the max stands for it, which is learned
from every set as it was done.
"""

from collections import Counter
from collections.abc import Hashable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from statistics import median
from typing import NamedTuple, TypeVar

from fortis.core.exercises import LIBRARY, Library
from fortis.core.sentence import capitalised
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import LiftKey, Tempo
from fortis.core.tally.comparison import (
    LiftDone,
    SessionDone,
    after_words,
    lifts_of,
    rests_apart,
    tempo_words,
)
from fortis.core.tally.costing import Count, LiftCost, most_first
from fortis.core.tally.week import (
    DAYS,
    DayDone,
    Week,
    added_up,
    average_kg,
    average_percent,
    more,
    signed,
    summed,
    tonnage_of,
    work_and_load,
)
from fortis.core.value import Kilograms, Number, Value

MOST_WEEKS = 26
"""A block is no longer than half a year."""


class Span(NamedTuple):
    """So many weeks from a Monday on."""

    monday: date
    weeks: int

    @property
    def after(self) -> date:
        """The Monday after it."""
        return self.monday + timedelta(days=DAYS * self.weeks)

    @property
    def mondays(self) -> Sequence[date]:
        """The Monday of each week."""
        return [self.monday + timedelta(days=DAYS * at) for at in range(self.weeks)]


@dataclass(frozen=True)
class BlockDone:
    """What is known of a block: its sessions in order, and the maxes as known before it and after it.

    `light` are the Mondays of weeks that were light or empty.
    """

    span: Span
    days: Sequence[DayDone]
    sessions: Sequence[SessionDone]
    before: Mapping[LiftKey, Estimate]
    after: Mapping[LiftKey, Estimate]
    light: frozenset[date] = frozenset()


class BlockLift(Value):
    """A lift in a block, with whatever set-ups: sets, reps and tonnage in a week, the average load of a rep.

    The maxes are with the set-up it was mostly done with, as known before the block and after it; None where none
    was known.
    """

    exercise: str
    sets: float
    reps: float
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    max_before_kg: float | None
    max_after_kg: float | None

    @property
    def gained(self) -> float | None:
        """What the max rose by in the block, as a share of it."""
        return self.max_after_kg / self.max_before_kg - 1 if self.max_before_kg and self.max_after_kg else None


class BlockTally(Value):
    """A block added up. What is counted is the mean of a week of it, `sessions` and `sets` and so on.

    `average_kg` and `average_percent` are a rep's. `weeks` are its weeks one by one, `light` the Mondays of those
    that were light.
    """

    monday: date
    weeks: tuple[Week, ...]
    light: tuple[date, ...]
    sessions: float
    seconds: int
    sets: float
    reps: int
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    average_percent: Number | None
    hard_sets: tuple[Count, ...]
    failure_sets: float
    lifts: tuple[BlockLift, ...]


class LiftBeside(Value):
    """A lift in both blocks, or in one of them. `unlike` is what was not alike, empty where it `is_fair`."""

    exercise: str
    earlier: BlockLift | None
    later: BlockLift | None
    is_fair: bool
    unlike: tuple[str, ...]
    text: str


class Blocks(Value):
    """Two blocks side by side, the earlier first. `text` says what became of work and load as a whole."""

    earlier: BlockTally
    later: BlockTally
    text: str
    lifts: tuple[LiftBeside, ...]


class OverlapError(ValueError):
    """The two blocks share weeks."""


def side_by_side(one: BlockDone, other: BlockDone, library: Library = LIBRARY) -> Blocks:
    """Two blocks beside each other, in whatever order they are given. Raises `OverlapError`."""
    earlier, later = sorted((one, other), key=lambda each: each.span.monday)
    if later.span.monday < earlier.span.after:
        raise OverlapError
    ways, ways_later = _ways(earlier, library), _ways(later, library)
    first, second = _block(earlier, ways, library), _block(later, ways_later, library)
    before = {lift.exercise: lift for lift in first.lifts}
    after = {lift.exercise: lift for lift in second.lifts}
    names = dict.fromkeys((*after, *before))
    return Blocks(
        earlier=first,
        later=second,
        text=_whole(first, second),
        lifts=tuple(
            _beside(name, before.get(name), after.get(name), ways.get(name), ways_later.get(name)) for name in names
        ),
    )


@dataclass(frozen=True)
class _Way:
    """How a lift was mostly done in a block, and how many sets of it there were."""

    key: LiftKey
    gear: tuple[str, ...]
    before: tuple[str, ...]
    reps: tuple[int, ...]
    tempos: frozenset[Tempo | None]
    rest: float | None
    sets: int


def _ways(block: BlockDone, library: Library) -> Mapping[str, _Way]:
    """How each lift was mostly done, by its name."""
    done: dict[str, list[tuple[LiftKey, LiftDone]]] = {}
    for session in block.sessions:
        for key, each in lifts_of(session, library).items():
            done.setdefault(each.lift.name, []).append((key, each))
    return {name: _way(of_lift) for name, of_lift in done.items()}


def _way(done: Sequence[tuple[LiftKey, LiftDone]]) -> _Way:
    rests = [each.rest for _, each in done if each.rest is not None]
    by_sets = [(key, each, len(each.sets)) for key, each in done]
    return _Way(
        key=_most((key, sets) for key, _, sets in by_sets),
        gear=_most((each.done[0].bout.setup.items, sets) for _, each, sets in by_sets),
        before=_most((tuple(sorted(each.before)), sets) for _, each, sets in by_sets),
        reps=_most((tuple(reps), 1) for _, each in done for reps in each.sets),
        tempos=_most((frozenset(each.tempos), sets) for _, each, sets in by_sets),
        rest=median(rests) if rests else None,
        sets=sum(sets for _, _, sets in by_sets),
    )


Item = TypeVar("Item", bound=Hashable)


def _most(of: Iterable[tuple[Item, int]]) -> Item:
    """What comes most often; of several the first."""
    counts: Counter[Item] = Counter()
    for item, times in of:
        counts[item] += times
    return counts.most_common(1)[0][0]


def _block(done: BlockDone, ways: Mapping[str, _Way], library: Library) -> BlockTally:
    weeks = tuple(added_up(monday, done.days) for monday in done.span.mondays)
    many = done.span.weeks
    lifts = [lift for day in done.days for lift in day.costing.lifts]
    costs: dict[str, list[LiftCost]] = {}
    for lift in lifts:
        costs.setdefault(library.find(lift.exercise).name, []).append(lift)
    hard = {name: round(count / many, 1) for name, count in summed(week.hard_sets for week in weeks).items()}
    return BlockTally(
        monday=done.span.monday,
        weeks=weeks,
        light=tuple(sorted(done.light.intersection(done.span.mondays))),
        sessions=_a_week(sum(week.sessions for week in weeks), many),
        seconds=round(sum(week.seconds for week in weeks) / many),
        sets=_a_week(sum(week.sets for week in weeks), many),
        reps=round(sum(week.reps for week in weeks) / many),
        tonnage_kg=_kg_a_week(sum((week.tonnage_kg for week in weeks), Decimal(0)), many),
        average_kg=average_kg(lifts),
        average_percent=average_percent(lifts),
        hard_sets=most_first(hard),
        failure_sets=_a_week(sum(week.failure_sets for week in weeks), many),
        lifts=tuple(_lift(name, of_lift, ways.get(name), done) for name, of_lift in costs.items()),
    )


def _lift(name: str, costs: Sequence[LiftCost], way: _Way | None, done: BlockDone) -> BlockLift:
    before, after = (known.get(way.key) if way else None for known in (done.before, done.after))
    many = done.span.weeks
    return BlockLift(
        exercise=name,
        sets=_a_week(way.sets if way else 0, many),
        reps=_a_week(float(sum((cost.reps for cost in costs), Decimal(0))), many),
        tonnage_kg=_kg_a_week(tonnage_of(costs), many),
        average_kg=average_kg(costs),
        max_before_kg=before.kg if before else None,
        max_after_kg=after.kg if after else None,
    )


def _a_week(count: float, weeks: int) -> float:
    return round(count / weeks, 1)


def _kg_a_week(kg: Decimal, weeks: int) -> Decimal:
    return Decimal(round(kg / weeks))


def _whole(earlier: BlockTally, later: BlockTally) -> str:
    """What became of work and load as a whole; where the lifts were others, that averages do not compare."""
    if not (earlier.tonnage_kg and later.tonnage_kg and earlier.average_kg and later.average_kg):
        return "In one of them nothing was lifted that has a tonnage."
    names, names_later = ({lift.exercise for lift in each.lifts} for each in (earlier, later))
    work = more(later.tonnage_kg, earlier.tonnage_kg)
    if others := sorted(names ^ names_later):
        return (
            f"Tonnage {signed(work)} % a week. Average loads are not fair to compare, so look lift by lift: "
            f"{', '.join(name.lower() for name in others)} in only one of them."
        )
    load = more(later.average_kg, earlier.average_kg)
    changes = f"tonnage {signed(work)} %, average load {signed(load)} %"
    if without := _without_light(earlier, later):
        return f"A week of the later: {changes}. {without}"
    return f"A week of the later: {changes}: {work_and_load(work, load)}."


def _without_light(earlier: BlockTally, later: BlockTally) -> str:
    """What became of the tonnage of a week that was not light, where one block has more light ones."""
    shares = [len(block.light) / len(block.weeks) for block in (earlier, later)]
    usual = [_usual_kg(block) for block in (earlier, later)]
    if shares[0] == shares[1] or not all(usual):
        return ""
    found = [(name, len(block.light)) for name, block in (("earlier", earlier), ("later", later)) if block.light]
    told = " and ".join(f"the {name} has {_light_words(many)} in it" for name, many in found)
    change = signed(more(usual[1], usual[0]))
    return f"{capitalised(told)}: without light weeks the tonnage of a week is {change} %."


def _light_words(many: int) -> str:
    return "a light week" if many == 1 else f"{many} light weeks"


def _usual_kg(block: BlockTally) -> Decimal:
    """The tonnage of a week that was not light."""
    weeks = [week.tonnage_kg for week in block.weeks if week.monday not in block.light]
    return sum(weeks, Decimal(0)) / len(weeks) if weeks else Decimal(0)


def _beside(
    name: str, earlier: BlockLift | None, later: BlockLift | None, way: _Way | None, way_later: _Way | None
) -> LiftBeside:
    unlike = tuple(_unlike(way, way_later)) if way and way_later else ()
    return LiftBeside(
        exercise=name,
        earlier=earlier,
        later=later,
        is_fair=bool(way and way_later) and not unlike,
        unlike=unlike,
        text=_became(earlier, later, fair=not unlike) if earlier and later else "",
    )


def _unlike(earlier: _Way, later: _Way) -> Iterator[str]:
    """What was not alike in how a lift was mostly done."""
    if earlier.gear != later.gear:
        yield f"{_gear(later)} in the later, {_gear(earlier)} in the earlier"
    if earlier.tempos != later.tempos:
        yield f"tempo {tempo_words(later.tempos)} in the later, {tempo_words(earlier.tempos)} in the earlier"
    if earlier.before != later.before:
        yield f"{after_words(later.before)} in the later, {after_words(earlier.before)} in the earlier"
    if earlier.reps != later.reps:
        yield f"mostly sets of {_reps(later)} in the later, of {_reps(earlier)} in the earlier"
    elif apart := rests_apart(later.rest, earlier.rest):
        yield f"{apart[0]} from set to set in the later, {apart[1]} in the earlier"


def _gear(way: _Way) -> str:
    return f"with {', '.join(way.gear)}" if way.gear else "with no set-up"


def _reps(way: _Way) -> str:
    return " + ".join(map(str, way.reps))


NO_GAIN = 0.01
"""A max that moved less has not moved: estimates are no better (common practice)."""


def _became(earlier: BlockLift, later: BlockLift, *, fair: bool) -> str:
    """What became of a lift: its work and load, and what the max did in each block."""
    parts = []
    if earlier.tonnage_kg and later.tonnage_kg and earlier.average_kg and later.average_kg:
        work, load = more(later.tonnage_kg, earlier.tonnage_kg), more(later.average_kg, earlier.average_kg)
        parts.append(f"Tonnage {signed(work)} % a week, average load {signed(load)} %")
        if fair:
            parts[-1] += f": {work_and_load(work, load)}"
    if earlier.gained is not None and later.gained is not None:
        parts.append(f"In the later the max {_gain(later.gained)}, in the earlier it {_gain(earlier.gained)}")
    return " ".join(f"{part}." for part in parts)


def _gain(gained: float) -> str:
    return "stood" if abs(gained) < NO_GAIN else f"{'rose' if gained > 0 else 'fell'} by {abs(gained) * 100:.1f} %"
