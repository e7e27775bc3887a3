"""Two bars loaded at once from one shelf of plates."""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from itertools import islice, product

from fortis.core.loading.shelf import Denomination
from fortis.core.loading.strip import NoSuchLoadError, Stripping, strip_plan

MOST_WAYS = 60
"""Ways to set plates aside for the first bar that are tried, those with the fewest plates first."""
WAYS_A_LOAD = 8


def shared_plans(
    plates: Sequence[Denomination], runs: Sequence[Sequence[Decimal]], room: int | None = None
) -> tuple[Stripping, ...] | None:
    """Strip plans for bars that stay loaded side by side, the fewest plates moved in all.

    `runs` are the side weights of each bar. None where the plates do not reach for all of them at once.
    """
    if len(runs) == 1:
        try:
            return (strip_plan(plates, runs[0], room),)
        except NoSuchLoadError:
            return None
    best: tuple[Stripping, ...] | None = None
    for aside in islice(_ways_to_set_aside(plates, runs[0]), MOST_WAYS):
        others = shared_plans(_without(plates, aside), runs[1:], room)
        if others is None:
            continue
        own = strip_plan(_without(plates, _used(plates, others)), runs[0], room)
        if best is None or _moves((own, *others)) < _moves(best):
            best = own, *others
    return best


def _moves(plans: Sequence[Stripping]) -> int:
    return sum(plan.moves for plan in plans)


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
