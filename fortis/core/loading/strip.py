"""The strip plan: for a run of loads on one bar, the stacks that cost the least time where time is short.

A plate moved inside a set or within a minute costs many times one moved in a long rest, and between the two stands
the habit of lifters to hang the big plates inside: it is given up where a hurried strip gains by it.

What comes off must lie outermost, so a plate that goes on while others lie under it comes off before they do:
the spans of loads over which plates lie are nested. The plan is the cheapest set of nested spans that makes
every load exactly. It is found from the inside out over all spans of loads and all sets of plates that can lie
under them, the sets side by side in one array.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from functools import lru_cache
from itertools import groupby, pairwise

import numpy as np
from numpy.typing import NDArray

from fortis.core.cache import cached
from fortis.core.loading.nearest import describe_change, shared
from fortis.core.loading.shelf import Denomination, Stack, shelf_of
from fortis.core.value import Kilograms, Value

MOST_SETS_OF_PLATES = 4_000
"""Beyond this many the plates are thinned out to those of the heaviest-first stacks: still good, maybe not best."""
_NEVER = 1 << 52
_MOVE = 1 << 14
"""A plate moved counts this much, and a gram of it far less: first the fewest plates, then the lightest."""
HURRIED = 60
"""A change with less than so many seconds before it is hurried (common practice.

A minute is enough to change plates).
"""
HURRIED_COST = 200
"""What a plate moved in a hurry costs, counted in plates moved in a long rest."""
OUT_OF_ORDER_COST = 40
"""What a plate hung outside a lighter one costs, counted the same way."""
LONG_REST = 3_600


class PlateOrder(StrEnum):
    """How a lifter likes plates hung where there is time."""

    BIG_INSIDE = "big plates inside"
    FEWEST = "fewest plates moved"


class Stripping(Value):
    """The stacks of a run of loads, one side of the bar each, and the plates moved on that side in all.

    `moves` counts each plate put on or taken off, from the empty bar and back to it.
    """

    stacks: tuple[tuple[Kilograms, ...], ...]
    moves: int

    def changes(self, *, belt: bool = False) -> tuple[str, ...]:
        """What to do before each load, in words; empty where nothing moves."""
        before: Stack = ()
        words = []
        for stack in self.stacks:
            words.append(describe_change(before, stack, belt=belt))
            before = stack
        return tuple(words)

    def moved(self) -> tuple[int, ...]:
        """How many plates are put on or taken off before each load."""
        pairs = pairwise(((), *self.stacks))
        return tuple(moves_between(before, stack) for before, stack in pairs)


class NoSuchLoadError(ValueError):
    """A load that the plates cannot make exactly. `kg` is one side."""

    def __init__(self, kg: Decimal) -> None:
        self.kg = kg
        super().__init__(f"no plates make {kg} kg on one side")


def moves_of(stacks: Sequence[Stack]) -> int:
    """Plates put on and taken off on one side to go through some stacks, from empty to empty."""
    return sum(moves_between(before, after) for before, after in pairwise(((), *stacks, ())))


def cost_of(stacks: Sequence[Stack], rests: Sequence[int], order: PlateOrder = PlateOrder.BIG_INSIDE) -> int:
    """What some stacks cost: plates moved, hurried ones and those hung outside lighter ones counting more.

    `rests` are the seconds before each stack. The unit is a plate moved in a long rest.
    """
    cost = 0
    for before, after, rest in zip(((), *stacks), (*stacks, ()), (*rests, LONG_REST), strict=True):
        cost += moves_between(before, after) * _weight(rest)
        if order is PlateOrder.BIG_INSIDE:
            new = range(shared(before, after), len(after))
            cost += OUT_OF_ORDER_COST * sum(any(under < after[at] for under in after[:at]) for at in new)
    return cost


def _weight(rest: int) -> int:
    """What a plate moved costs that has so many seconds."""
    return HURRIED_COST if rest < HURRIED else 1


def moves_between(before: Stack, after: Stack) -> int:
    """Plates put on and taken off on one side to get from one stack to the next."""
    return len(before) + len(after) - 2 * shared(before, after)


def strip_plan(
    plates: Sequence[Denomination],
    sides: Sequence[Decimal],
    room: int | None = None,
    rests: Sequence[int] | None = None,
    order: PlateOrder = PlateOrder.BIG_INSIDE,
) -> Stripping:
    """Choose the stacks for a run of side weights that cost the least. Raises `NoSuchLoadError`.

    `sides` are the kilograms on one sleeve, load by load; `room` the millimetres there are for plates; `rests` the
    seconds before each load, long ones where not given.
    """
    hurried = tuple(rest < HURRIED for rest in rests or (LONG_REST,) * len(sides))
    return _planned(tuple(plates), tuple(sides), room, hurried, order)


@cached(1_024)
def _planned(
    plates: tuple[Denomination, ...],
    sides: tuple[Decimal, ...],
    room: int | None,
    hurried: tuple[bool, ...],
    order: PlateOrder,
) -> Stripping:
    loads, places, weights = _without_repeats(sides, hurried)
    if (lightest := min(loads, default=Decimal(0))) < 0:
        raise NoSuchLoadError(lightest)
    if len(loads) == 1:
        alone = _by_itself(plates, loads[0], room)
        return Stripping(stacks=(alone,) * len(sides), moves=moves_of((alone,)))
    bundles = _bundles(plates, max(loads, default=Decimal(0)), room)
    if not bundles.by_weight.issuperset(loads):
        every = tuple(_by_itself(plates, side, room) for side in sides)
        return Stripping(stacks=every, moves=moves_of(every))
    stacks: list[Stack] = []
    for is_empty, grouped in groupby(loads, key=lambda load: not load):
        run, start = list(grouped), len(stacks)
        if is_empty:
            stacks += [()] * len(run)
        else:
            stacks += _Search(bundles, run, weights[start : start + len(run) + 1], order).stacks()
    every = tuple(stacks[at] for at in places)
    return Stripping(stacks=every, moves=moves_of(every))


def _by_itself(plates: tuple[Denomination, ...], side: Decimal, room: int | None) -> Stack:
    """The fewest plates for one load, whatever the others are.

    All there is to say of a single load, and the way out where there are too many sets of plates.
    """
    found = shelf_of(plates, room).below(side, inclusive=True)
    if found is None or found[0] != side:
        raise NoSuchLoadError(side)
    return found[1]


def _without_repeats(
    sides: Sequence[Decimal], hurried: Sequence[bool]
) -> tuple[list[Decimal], list[int], list[int]]:
    """The loads with runs of the same made one, for each given load its place among them, and what moves cost.

    The costs are those of a plate moved before each load, and one for after the last. A load that comes again after
    a longer rest than before it stays for itself: then other plates can make it, ready for a hurry to come. Where
    the rest is no longer, those plates could as well have gone on the first time.
    """
    loads: list[Decimal] = []
    places: list[int] = []
    weights: list[int] = []
    for side, in_a_hurry in zip(sides, hurried, strict=True):
        weight = HURRIED_COST if in_a_hurry else 1
        if not loads or loads[-1] != side or weight < weights[-1]:
            loads.append(side)
            weights.append(weight)
        places.append(len(loads) - 1)
    return loads, places, [*weights, 1]


@dataclass(frozen=True)
class _Bundles:
    """All sets of plates that can be on a sleeve, the ones with fewer plates first.

    `onto[i, d]` is the set that set `i` becomes with one more plate of denomination `d`; the last row stands
    for what cannot be. `weights` are in exact units of the smallest part of a kilogram that occurs;
    `out_of_order[i, d]` is what the habit of big plates inside costs there.
    """

    kgs: tuple[Decimal, ...]
    weights: NDArray[np.int64]
    layers: tuple[slice, ...]
    onto: NDArray[np.int64]
    costs: NDArray[np.int64]
    out_of_order: NDArray[np.int64]
    by_weight: frozenset[Decimal]
    unit: Decimal


@lru_cache(maxsize=64)
def _bundles(plates: tuple[Denomination, ...], heaviest: Decimal, room: int | None) -> _Bundles:
    counts = _counts(plates, heaviest, room)
    index = {some: at for at, some in enumerate(counts)}
    nothing = len(counts)
    onto = np.full((nothing + 1, max(len(plates), 1)), nothing, dtype=np.int64)
    for some, at in index.items():
        for kind in range(len(plates)):
            more = (*some[:kind], some[kind] + 1, *some[kind + 1 :])
            onto[at, kind] = index.get(more, nothing)
    totals = [_weigh(plates, some) for some in counts]
    places = max((_decimals(plate.kg) for plate in plates), default=0)
    unit = Decimal(1).scaleb(-places)
    sizes = [sum(some) for some in counts]
    layers = []
    for size in range(max(sizes) + 1):
        first = sizes.index(size) if size in sizes else 0
        layers.append(slice(first, first + sizes.count(size)))
    return _Bundles(
        kgs=tuple(plate.kg for plate in plates),
        weights=np.array([int(each / unit) for each in totals], dtype=np.int64),
        layers=tuple(layers),
        onto=onto,
        costs=np.array(
            [_MOVE + min(int(plate.kg * 20), _MOVE // 64) for plate in plates] or [_MOVE], dtype=np.int64
        ),
        out_of_order=_out_of_order(plates, counts),
        by_weight=frozenset(totals),
        unit=unit,
    )


def _counts(plates: tuple[Denomination, ...], heaviest: Decimal, room: int | None) -> list[tuple[int, ...]]:
    """How many of each plate, for every set of plates that fits and is not too heavy; those with fewer first."""
    found: list[tuple[tuple[int, ...], Decimal, Decimal]] = [((), Decimal(0), Decimal(0))]
    for plate in plates:
        found = [
            ((*some, count), kg + count * plate.kg, thick + count * plate.thick)
            for some, kg, thick in found
            for count in range(plate.most + 1)
            if kg + count * plate.kg <= heaviest and (room is None or thick + count * plate.thick <= room)
        ]
        if len(found) > MOST_SETS_OF_PLATES:
            found = sorted(found, key=lambda each: sum(each[0]))[:MOST_SETS_OF_PLATES]
    return sorted((some for some, _, _ in found), key=sum)


def _out_of_order(plates: tuple[Denomination, ...], counts: Sequence[tuple[int, ...]]) -> NDArray[np.int64]:
    """What one more plate of each denomination costs over each set: something where a lighter one lies under it."""
    found = np.zeros((len(counts) + 1, max(len(plates), 1)), dtype=np.int64)
    for at, some in enumerate(counts):
        lightest = max((kind for kind, count in enumerate(some) if count), default=-1)
        found[at, : max(lightest, 0)] = OUT_OF_ORDER_COST * _MOVE
    return found


def _decimals(kg: Decimal) -> int:
    """How many decimals a plate is told in."""
    return max(-int(kg.normalize().as_tuple().exponent), 0)


def _weigh(plates: tuple[Denomination, ...], counts: tuple[int, ...]) -> Decimal:
    return sum((plate.kg * count for plate, count in zip(plates, counts, strict=False)), Decimal(0))


class _Search:
    """The cheapest nested spans for some loads.

    `weights` are what a plate moved costs before each load and after the last. `open[n][:, a]` has for every set
    of plates what the `n` loads from the `a`th on cost on top of it, and `spanning[n][:, a]` what they cost where
    one more plate lies under all of them.
    """

    def __init__(
        self, bundles: _Bundles, loads: Sequence[Decimal], weights: Sequence[int], order: PlateOrder
    ) -> None:
        self.bundles = bundles
        self.loads = np.array([int(load / bundles.unit) for load in loads], dtype=np.int64)
        self.weights = np.array(weights, dtype=np.int64)
        self.habit = bundles.out_of_order if order is PlateOrder.BIG_INSIDE else np.zeros_like(bundles.out_of_order)
        self.exact = bundles.weights[:, None] == self.loads[None, :]
        self.open = [np.zeros((len(bundles.weights) + 1, len(loads) + 1), dtype=np.int64)]
        self.spanning = [self.open[0]]
        lightest = self.loads
        for length in range(1, len(loads) + 1):
            if length > 1:
                lightest = np.minimum(lightest[:-1], self.loads[length - 1 :])
            self._fill(length, lightest)

    def _fill(self, length: int, lightest: NDArray[np.int64]) -> None:
        """Work out what all spans of a length cost over every set of plates, from those with most plates down."""
        spans = len(lightest)
        costs = np.full((len(self.bundles.weights) + 1, spans), _NEVER, dtype=np.int64)
        spanning = costs.copy()
        best = costs.copy()
        for head in range(1, length):
            apart = self.spanning[head][:, :spans] + self.open[length - head][:, head : head + spans]
            np.minimum(best, apart, out=best)
        rest = self.open[length - 1][:-1, 1 : spans + 1]
        np.minimum(best[:-1], np.where(self.exact[:, :spans], rest, _NEVER), out=best[:-1])
        possible = self.bundles.weights[:, None] <= lightest[None, :]
        moved = self.weights[:spans] + self.weights[length : length + spans]
        for layer in reversed(self.bundles.layers):
            for kind, move in enumerate(self.bundles.costs):
                one_more = costs[self.bundles.onto[layer, kind]] + move * moved + self.habit[layer, kind, None]
                np.minimum(spanning[layer], one_more, out=spanning[layer])
            done = np.minimum(best[layer], spanning[layer])
            costs[layer] = np.where(possible[layer], done, _NEVER)
        self.open.append(costs)
        self.spanning.append(spanning)

    def stacks(self) -> list[Stack]:
        """The stacks of the cheapest plan, load by load."""
        stacks: list[list[Decimal]] = [[] for _ in self.loads]
        todo: list[tuple[int, int, int]] = [(0, len(self.loads) - 1, 0)]
        while todo:
            first, last, under = todo.pop()
            if first > last:
                continue
            cost = self._cost(first, last, under)
            if self.exact[under, first] and self._cost(first + 1, last, under) == cost:
                todo.append((first + 1, last, under))
                continue
            end = self._end_of_span(first, last, under, cost)
            moved = self.weights[first] + self.weights[end + 1]
            above = self.open[end - first + 1][self.bundles.onto[under], first]
            kind = int(np.argmin(above + self.bundles.costs * moved + self.habit[under]))
            for at in range(first, end + 1):
                stacks[at].append(self.bundles.kgs[kind])
            todo.append((end + 1, last, under))
            todo.append((first, end, int(self.bundles.onto[under, kind])))
        return [tuple(stack) for stack in _heavy_inside(stacks)]

    def _cost(self, first: int, last: int, under: int) -> int:
        return int(self.open[last - first + 1][under, first])

    def _end_of_span(self, first: int, last: int, under: int, cost: int) -> int:
        """Where the span of the plate put on for the first load ends; the longest of the cheapest."""
        for end in range(last, first - 1, -1):
            spanning = int(self.spanning[end - first + 1][under, first])
            if spanning + self._cost(end + 1, last, under) == cost:
                return end
        raise AssertionError("a cost that no span explains")


def _heavy_inside(stacks: list[list[Decimal]]) -> list[list[Decimal]]:
    """Plates that go on and come off together can lie in any order: the heavy ones inside."""
    for at, stack in enumerate(stacks):
        before = stacks[at - 1] if at else []
        kept = shared(tuple(before), tuple(stack))
        following = stacks[at + 1 :]
        fresh = stack[kept:]
        stays = [_stays(stack, kept + depth, following) for depth in range(len(fresh))]
        start = 0
        while start < len(fresh):
            end = start
            while end < len(fresh) and stays[end] == stays[start]:
                end += 1
            ordered = sorted(fresh[start:end], reverse=True)
            for later in (stack, *following[: stays[start]]):
                later[kept + start : kept + end] = ordered
            start = end
    return stacks


def _stays(stack: list[Decimal], depth: int, following: list[list[Decimal]]) -> int:
    """For how many of the following loads the plate at `depth` stays where it is."""
    stays = 0
    for later in following:
        if later[: depth + 1] != stack[: depth + 1]:
            break
        stays += 1
    return stays
