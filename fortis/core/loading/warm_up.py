"""The way up to the work load: from the empty bar, plate by plate where that costs little, reps falling."""

from decimal import Decimal
from enum import StrEnum
from itertools import accumulate, pairwise

from fortis.core.exercises import BARS, Exercise, LoadKind
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import nearest, next_above
from fortis.core.value import Kilograms, Value


class School(StrEnum):
    """How lifters like to warm up: a few big jumps, or many small ones for many rehearsals."""

    FEW = "few big jumps"
    MANY = "many small jumps"


class WarmUpSet(Value):
    """One warm-up set."""

    kg: Kilograms
    reps: int


SHARES: dict[School, tuple[float, ...]] = {
    School.FEW: (0.45, 0.70, 0.87),
    School.MANY: (0.40, 0.55, 0.68, 0.79, 0.88, 0.95),
}
"""Shares of the work load to stop at, the jumps shrinking near the top (common practice)."""
COLD = 0.25
"""An extra stop on the way for the first lift of the day."""
LIGHT_TIMES, HEAVY_TIMES = Decimal("1.6"), Decimal("3.5")
"""Under and over so many empty bars a lift takes fewer or all of the stops."""
PLATE_BY_PLATE = Decimal("0.07")
"""A stop may move by so much of the work load to where only whole plates go on."""
LEAST_JUMP = Decimal("0.06")
LAST_AT_MOST = Decimal("0.97")
REPS = (5, 3, 2, 1, 1, 1, 1, 1)
BAR_REPS = 8
MACHINE_SHARES = (0.5, 0.75)
LIGHT_BELT = Decimal(5)
"""So little from the belt wants no way up but the lift without it."""


def warm_up(
    kit: Kit,
    lift: Exercise,
    work_kg: Decimal,
    *,
    school: School = School.FEW,
    cold: bool = False,
    body: bool = False,
) -> tuple[WarmUpSet, ...]:
    """The warm-up sets before the first work set, lightest first; none where the work is as light as they would be.

    `work_kg` is the load handled, added to body weight where `body` says so. Every load can be built from the
    kit. Bar lifts begin with the empty bar, weighted body-weight lifts with the body alone; dumbbells, machines
    and lifts of which nothing is known take two lighter sets.
    """
    if body or lift.load_kind is LoadKind.BODY:
        return _from_the_belt(kit, lift, work_kg)
    if lift.load_kind in BARS:
        return _with_a_bar(kit, lift, work_kg, school, cold)
    found = [nearest(kit, lift, work_kg * Decimal(str(share))).kg for share in MACHINE_SHARES]
    loads = [kg for kg in dict.fromkeys(found) if kg < work_kg * LAST_AT_MOST]
    return tuple(WarmUpSet(kg=kg, reps=8 - 3 * at) for at, kg in enumerate(loads))


FIRST_STEPS = tuple(map(Decimal, ("1.5", "1.25", "1.2")))
STEP = Decimal("1.15")
"""The way up with a lift that nothing is known of: from one five to the next so many times the load. Who has five
and more left after five at a load fails no five at 1.15 times as much (common practice)."""
MOST_FINDING = 10


def finding(kit: Kit, lift: Exercise) -> tuple[WarmUpSet, ...]:
    """The way up with a lift that nothing is known of: fives from the lightest load, each a little heavier.

    None where the kit has nothing for it, and for body-weight lifts, which have no light load to begin with.
    """
    if lift.load_kind is LoadKind.BODY:
        return ()
    bar = kit.bar_for(lift.load_kind) if lift.load_kind in BARS else None
    first = bar.empty_kg if bar else next_above(kit, lift, Decimal(0))
    if first is None:
        return ()
    loads = [first]
    for at in range(MOST_FINDING - 1):
        wanted = loads[-1] * (FIRST_STEPS[at] if at < len(FIRST_STEPS) else STEP)
        found = nearest(kit, lift, wanted).kg
        higher = found if found > loads[-1] else next_above(kit, lift, loads[-1])
        if higher is None:
            break
        loads.append(higher)
    return tuple(WarmUpSet(kg=kg, reps=REPS[0]) for kg in loads)


def _from_the_belt(kit: Kit, lift: Exercise, work_kg: Decimal) -> tuple[WarmUpSet, ...]:
    """The body alone, then half of what will hang from the belt."""
    if work_kg <= 0:
        return ()
    half = nearest(kit, lift, work_kg / 2).kg if work_kg > LIGHT_BELT else Decimal(0)
    sets = (WarmUpSet(kg=Decimal(0), reps=5), WarmUpSet(kg=half, reps=3))
    return sets if 0 < half < work_kg * LAST_AT_MOST else sets[:1]


def _with_a_bar(kit: Kit, lift: Exercise, work_kg: Decimal, school: School, cold: bool) -> tuple[WarmUpSet, ...]:
    bar = kit.bar_for(lift.load_kind)
    if bar is None or work_kg <= bar.empty_kg or next_above(kit, lift, bar.empty_kg) is None:
        return ()
    shares = SHARES[school]
    if work_kg < bar.empty_kg * LIGHT_TIMES:
        shares = shares[len(shares) // 2 : len(shares) // 2 + 1]
    elif work_kg < bar.empty_kg * HEAVY_TIMES:
        shares = shares[1:] if school is School.MANY else shares
    if cold and work_kg >= bar.empty_kg * LIGHT_TIMES:
        shares = (COLD, *shares)
    whole = [bar.empty_kg + 2 * side for side in accumulate(nearest(kit, lift, work_kg).sleeve)]
    stops = [_stop(kit, lift, work_kg, work_kg * Decimal(str(share)), whole) for share in shares]
    loads = [kg for kg in sorted(set(stops)) if bar.empty_kg < kg <= work_kg * LAST_AT_MOST]
    loads = [kg for before, kg in pairwise([bar.empty_kg, *loads]) if kg - before >= work_kg * LEAST_JUMP]
    sets = [WarmUpSet(kg=kg, reps=reps) for kg, reps in zip(loads, REPS, strict=False)]
    return (WarmUpSet(kg=bar.empty_kg, reps=BAR_REPS), *sets)


def _stop(kit: Kit, lift: Exercise, work_kg: Decimal, wanted: Decimal, whole: list[Decimal]) -> Decimal:
    """A stop near `wanted`: where plates of the work load alone make it, else the nearest load there is."""
    close = [kg for kg in whole if abs(kg - wanted) <= work_kg * PLATE_BY_PLATE and kg < work_kg]
    return min(close, key=lambda kg: abs(kg - wanted)) if close else nearest(kit, lift, wanted).kg
