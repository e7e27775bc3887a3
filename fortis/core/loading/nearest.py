"""The nearest load that can be built, and what hangs where to build it."""

from bisect import bisect_left
from collections import Counter
from decimal import Decimal
from functools import lru_cache

from fortis.core.exercises import BARS, Exercise, LoadKind
from fortis.core.loading.kit import Kit, PlatePairs
from fortis.core.units import plain
from fortis.core.value import Kilograms, Value

Stack = tuple[Decimal, ...]
"""Plates from the collar outwards, heaviest first."""


class Build(Value):
    """A load that can be built. `side` is one sleeve of the bar, or what hangs from the belt."""

    kg: Kilograms
    side: tuple[Kilograms, ...] = ()
    bar: str | None = None
    bar_kg: Kilograms | None = None


def nearest(kit: Kit, exercise: Exercise, wanted: Decimal) -> Build:
    """The buildable load closest to `wanted` kg; of two equally close, the lighter, because it is safer."""
    loads = buildable(kit, exercise)
    if not loads:
        return Build(kg=wanted)
    at = bisect_left(loads, wanted, key=lambda build: build.kg)
    below, above = loads[max(at - 1, 0)], loads[min(at, len(loads) - 1)]
    return below if wanted - below.kg <= above.kg - wanted else above


def next_above(kit: Kit, exercise: Exercise, kg: Decimal) -> Decimal | None:
    """The smallest buildable load over `kg`, or None where there is none or nothing is known."""
    return next((build.kg for build in buildable(kit, exercise) if build.kg > kg), None)


def next_below(kit: Kit, exercise: Exercise, kg: Decimal) -> Decimal | None:
    """The largest buildable load under `kg`, or None where there is none or nothing is known."""
    return next((build.kg for build in reversed(buildable(kit, exercise)) if build.kg < kg), None)


def buildable(kit: Kit, exercise: Exercise) -> tuple[Build, ...]:
    """Every load the kit allows for a lift, lightest first; empty where loads are free (unknown lifts)."""
    return _buildable(kit, exercise.load_kind)


@lru_cache(maxsize=256)
def _buildable(kit: Kit, kind: LoadKind) -> tuple[Build, ...]:
    match kind:
        case LoadKind.DUMBBELLS | LoadKind.DUMBBELL:
            return tuple(Build(kg=kg) for kg in sorted(kit.dumbbells))
        case LoadKind.STACK:
            steps = int(kit.stack_most / kit.stack_step)
            return tuple(Build(kg=kit.stack_step * step) for step in range(1, steps + 1))
        case LoadKind.BODY:
            singles = tuple(PlatePairs(kg=plate.kg, pairs=plate.pairs * 2) for plate in kit.plates)
            return tuple(Build(kg=kg, side=stack) for kg, stack in sorted(_stacks(singles).items()))
    bar = kit.bar_for(kind)
    if kind not in BARS or bar is None:
        return ()
    return tuple(
        Build(kg=bar.kg + 2 * side_kg, side=stack, bar=bar.name, bar_kg=bar.kg)
        for side_kg, stack in sorted(_stacks(kit.plates).items())
    )


@lru_cache(maxsize=64)
def _stacks(plates: tuple[PlatePairs, ...]) -> dict[Decimal, Stack]:
    """Every sum that one sleeve can carry, with the stack of fewest plates that makes it, the big ones first."""
    stacks: dict[Decimal, Stack] = {Decimal(0): ()}
    for plate in sorted(plates, key=lambda plate: -plate.kg):
        for total, stack in list(stacks.items()):
            for count in range(1, plate.pairs + 1):
                kg = total + count * plate.kg
                made = (*stack, *[plate.kg] * count)
                known = stacks.get(kg)
                if known is None or (len(made), known) < (len(known), made):
                    stacks[kg] = made
    return stacks


def describe_change(before: Stack, after: Stack, *, belt: bool = False) -> str:
    """What to take off and put on to get from one stack to the next; empty where nothing moves."""
    off, on = Counter(before) - Counter(after), Counter(after) - Counter(before)
    where = "" if belt else " each side"
    parts = []
    if off:
        parts.append(f"take {_list(off)} off{where}")
    if on:
        parts.append(f"put {_list(on)} on{where}")
    return ", ".join(parts)


def _list(plates: Counter[Decimal]) -> str:
    return " + ".join(plain(plate) for plate in sorted(plates.elements(), reverse=True))
