"""The plates there are, and every load they add up to: exact, and quick for large and mixed shelves."""

from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache
from operator import attrgetter
from typing import NamedTuple

from fortis.core.cache import cached
from fortis.core.loading.kit import Plate

Stack = tuple[Decimal, ...]
"""Plates from the collar outwards."""


MOST_ALIKE = 12
"""Plates of one weight that hang in one place: more fit on no sleeve."""
MOST_TOGETHER = 20
"""Plates of all weights that hang in one place."""
HEAVIEST_KG = Decimal(500)
"""What hangs in one place: no sleeve bears more."""
MOST_SUMS = 8_000
"""Sums of half the plates that are kept; beyond that, of the oddest shelves, those of the fewest plates."""


class Way(NamedTuple):
    """One way to make a sum: how many plates, how thick, and which, heaviest first."""

    plates: int
    thick: Decimal
    stack: Stack


class Denomination(NamedTuple):
    """Plates of one weight: how many a place (a sleeve, the belt) can have."""

    kg: Decimal
    most: int
    thick: Decimal


def denominations(plates: Sequence[Plate], needs: int) -> tuple[Denomination, ...]:
    """What each place can have of every plate, heaviest first, where `needs` single plates go on at once.

    A bar needs two (one a side), the belt one, a pair of loaded dumbbells four.
    """
    found = [
        Denomination(plate.kg, min(plate.count // needs, MOST_ALIKE), plate.thick_mm or Decimal(0))
        for plate in plates
        if plate.count // needs
    ]
    return tuple(sorted(found, key=lambda each: -each.kg))


@dataclass(frozen=True, eq=False)
class Shelf:
    """The sums of two halves of the plates; any load is a sum of one and a sum of the other."""

    totals: tuple[tuple[Decimal, ...], tuple[Decimal, ...]]
    ways: tuple[dict[Decimal, tuple[Way, ...]], dict[Decimal, tuple[Way, ...]]]
    room: Decimal | None

    def nearest(self, wanted: Decimal) -> tuple[Decimal, Stack]:
        """The sum closest to `wanted`; of two equally close the lighter one."""
        below, above = self.below(wanted, inclusive=True), self.above(wanted, inclusive=True)
        if below is None or above is None:
            found = below or above
            assert found is not None, "the empty stack is always there"
            return found
        return below if wanted - below[0] <= above[0] - wanted else above

    def below(self, wanted: Decimal, *, inclusive: bool = False) -> tuple[Decimal, Stack] | None:
        """The largest sum under `wanted` (or at it, where `inclusive`), or None where there is none."""
        find = bisect_right if inclusive else bisect_left
        return _best(self, wanted, find, -1, -1)

    def above(self, wanted: Decimal, *, inclusive: bool = False) -> tuple[Decimal, Stack] | None:
        """The smallest sum over `wanted` (or at it, where `inclusive`), or None where there is none."""
        find = bisect_left if inclusive else bisect_right
        return _best(self, wanted, find, 0, 1)

    def way(self, first: Decimal, second: Decimal) -> Way | None:
        """The fewest plates that make two sums together and fit on the sleeve."""
        joined = [
            Way(one.plates + other.plates, one.thick + other.thick, _heaviest_first(one.stack, other.stack))
            for one in self.ways[0][first]
            for other in self.ways[1][second]
        ]
        fitting = [way for way in joined if self.room is None or way.thick <= self.room]
        return min(fitting, key=lambda way: (way.plates, tuple(-kg for kg in way.stack)), default=None)

    def all(self) -> Iterator[tuple[Decimal, Stack]]:
        """Every sum with its stack, in no order; for shelves that are not large."""
        seen: dict[Decimal, Way] = {}
        for first in self.totals[0]:
            for second in self.totals[1]:
                way = self.way(first, second)
                total = first + second
                if way and (total not in seen or way.plates < seen[total].plates):
                    seen[total] = way
        for total, way in seen.items():
            yield total, way.stack


Bisection = Callable[[Sequence[Decimal], Decimal], int]


@cached(8_192)
def _best(shelf: Shelf, wanted: Decimal, find: Bisection, shift: int, step: int) -> tuple[Decimal, Stack] | None:
    best: tuple[Decimal, int, tuple[Decimal, ...], Stack] | None = None
    for first in shelf.totals[0]:
        at = find(shelf.totals[1], wanted - first) + shift
        while 0 <= at < len(shelf.totals[1]):
            total = first + shelf.totals[1][at]
            away = abs(total - wanted)
            if best and away > best[0]:
                break
            way = shelf.way(first, shelf.totals[1][at])
            if way:
                key = (away, way.plates, tuple(-kg for kg in way.stack), way.stack)
                best = min(best, key) if best else key
                break
            at += step
    return (sum(best[3], Decimal(0)), best[3]) if best else None


def _heaviest_first(one: Stack, other: Stack) -> Stack:
    return tuple(sorted(one + other, reverse=True))


@lru_cache(maxsize=128)
def shelf(plates: tuple[Plate, ...], needs: int, room: int | None = None) -> Shelf:
    """The shelf of some plates for a place that needs so many at once and has `room` millimetres for them."""
    return shelf_of(denominations(plates, needs), room)


@lru_cache(maxsize=128)
def shelf_of(have: tuple[Denomination, ...], room: int | None = None) -> Shelf:
    """The shelf of what one place can have."""
    halves = _ways(have[::2]), _ways(have[1::2])
    first, second = (tuple(sorted(half)) for half in halves)
    return Shelf((first, second), halves, Decimal(room) if room is not None else None)


def _ways(have: Sequence[Denomination]) -> dict[Decimal, tuple[Way, ...]]:
    """Every sum of some plates with the ways to make it that are not worse in count and thickness both."""
    ways: dict[Decimal, tuple[Way, ...]] = {Decimal(0): (Way(0, Decimal(0), ()),)}
    for kg, most, thick in have:
        for total, known in list(ways.items()):
            for count in range(1, most + 1):
                sum_kg = total + count * kg
                if sum_kg > HEAVIEST_KG:
                    break
                there = ways.get(sum_kg, ())
                more = count * thick
                made = [
                    Way(way.plates + count, way.thick + more, way.stack + (kg,) * count)
                    for way in known
                    if way.plates + count <= MOST_TOGETHER
                    and (not there or way.plates + count <= there[-1].plates or way.thick + more < there[-1].thick)
                ]
                if made:
                    ways[sum_kg] = _undominated((*there, *made)) if there else tuple(made)
        if len(ways) > MOST_SUMS:
            fewest_first = sorted(ways.items(), key=lambda item: (item[1][0].plates, item[0]))
            ways = dict(fewest_first[:MOST_SUMS])
    return ways


_STACK, _PLATES_AND_THICK = attrgetter("stack"), attrgetter("plates", "thick")


def _undominated(ways: Sequence[Way]) -> tuple[Way, ...]:
    kept: list[Way] = []
    heaviest_first = sorted(ways, key=_STACK, reverse=True)
    for way in sorted(heaviest_first, key=_PLATES_AND_THICK):
        if not kept or way.thick < kept[-1].thick:
            kept.append(way)
    return tuple(kept)
