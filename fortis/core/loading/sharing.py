"""Two bars loaded at once from one shelf of plates."""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from itertools import islice, product
from typing import NamedTuple

from fortis.core.loading.shelf import Denomination
from fortis.core.loading.strip import NoSuchLoadError, PlateOrder, Stripping, cost_of, strip_plan

MOST_WAYS = 60
"""Ways to set plates aside for the first bar that are tried, those with the fewest plates first."""
WAYS_A_LOAD = 8


class Run(NamedTuple):
    """The loads of one bar: the kilograms on one sleeve, and the seconds before each."""

    sides: tuple[Decimal, ...]
    rests: tuple[int, ...]


def shared_plans(
    plates: Sequence[Denomination],
    runs: Sequence[Run],
    room: int | None = None,
    order: PlateOrder = PlateOrder.BIG_INSIDE,
) -> tuple[Stripping, ...] | None:
    """Strip plans for bars that stay loaded side by side, the cheapest in all.

    None where the plates do not reach for all of them at once.
    """
    first = runs[0]
    if len(runs) == 1:
        try:
            return (strip_plan(plates, first.sides, room, first.rests, order),)
        except NoSuchLoadError:
            return None
    best: tuple[int, tuple[Stripping, ...]] | None = None
    for aside in islice(_ways_to_set_aside(plates, first.sides), MOST_WAYS):
        others = shared_plans(_without(plates, aside), runs[1:], room, order)
        if others is None:
            continue
        left = _without(plates, _used(plates, others))
        plans = strip_plan(left, first.sides, room, first.rests, order), *others
        cost = sum(cost_of(plan.stacks, run.rests, order) for plan, run in zip(plans, runs, strict=True))
        if best is None or cost < best[0]:
            best = cost, plans
    return best[1] if best else None


def _ways_to_set_aside(plates: Sequence[Denomination], sides: Sequence[Decimal]) -> Iterator[tuple[int, ...]]:
    """Counts of each plate with which every load of a run can be made, the fewest plates first."""
    ways = [list(islice(_ways_to_make(plates, side), WAYS_A_LOAD)) for side in dict.fromkeys(sides)]
    chosen = islice(product(*ways), 5_000)
    needed = {tuple(map(max, zip(*counts, strict=True))) for counts in chosen}
    yield from sorted(needed, key=lambda counts: (sum(counts), counts))


def _ways_to_make(plates: Sequence[Denomination], side: Decimal) -> Iterator[tuple[int, ...]]:
    """Counts of each plate that make a side weight, the heavy plates first."""
    if not plates:
        if not side:
            yield ()
        return
    heaviest, rest = plates[0], plates[1:]
    for count in range(min(heaviest.most, int(side / heaviest.kg)), -1, -1):
        for others in _ways_to_make(rest, side - count * heaviest.kg):
            yield (count, *others)


def _without(plates: Sequence[Denomination], aside: Sequence[int]) -> tuple[Denomination, ...]:
    return tuple(plate._replace(most=plate.most - count) for plate, count in zip(plates, aside, strict=True))


def _used(plates: Sequence[Denomination], plans: Sequence[Stripping]) -> tuple[int, ...]:
    """How many of each plate some plans hold at most."""
    return tuple(
        sum(max((stack.count(plate.kg) for stack in plan.stacks), default=0) for plan in plans) for plate in plates
    )
