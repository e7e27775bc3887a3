"""The nearest load that can be built, and what hangs where to build it."""

from bisect import bisect_left, bisect_right
from collections.abc import Iterator
from decimal import ROUND_CEILING, ROUND_FLOOR, ROUND_HALF_DOWN, Decimal
from enum import StrEnum
from typing import NamedTuple

from fortis.core.exercises import BARS, Exercise, LoadKind
from fortis.core.loading.kit import Bar, Handle, Kit
from fortis.core.loading.shelf import Shelf, Stack, shelf
from fortis.core.units import plain

BELT_NEEDS, BAR_NEEDS = 1, 2


class Build(NamedTuple):
    """A load that can be built. `sleeve` is what hangs on one end of the bar or handle, or from the belt."""

    kg: Decimal
    sleeve: Stack = ()
    bar: str | None = None
    bar_kg: Decimal | None = None


class Where(StrEnum):
    """On which side of the wanted load to look."""

    NEAREST = "nearest"
    BELOW = "below"
    ABOVE = "above"


UNKNOWN_STEP = Decimal("0.5")
"""How finely a load is told where nothing is known of how it is set (common practice)."""
LEAST_ROUNDING, LEAST_OF_WORKED_OUT = Decimal("0.05"), Decimal("0.25")
"""Loads that are closer are one to who reads them; what is worked out is not known to the tenth of a kilogram."""
_ROUNDING = {Where.NEAREST: ROUND_HALF_DOWN, Where.BELOW: ROUND_FLOOR, Where.ABOVE: ROUND_CEILING}
ASSISTANCE_STEP = Decimal("2.5")
"""How finely help is measured: a step of a machine that helps, about a thinner band (common practice)."""


def nearest(kit: Kit, lift: Exercise, wanted: Decimal, where: Where = Where.NEAREST) -> Build:
    """The buildable load closest to `wanted` kg; of two equally close, the lighter, because it is safer.

    `BELOW` and `ABOVE` keep to one side of it, at it included; where there is nothing on that side the closest on
    the other is given. Lifts of which nothing is known have what is wanted. Help with a body-weight lift, a load
    below zero, comes in steps of `ASSISTANCE_STEP`.
    """
    return _closest(kit, lift, wanted, where) or Build(kg=wanted)


def nearest_told(kit: Kit, lift: Exercise, wanted: Decimal, where: Where = Where.NEAREST) -> Build:
    """As `nearest`, for a load that was worked out and is to be told.

    Where nothing is known of how a lift is loaded it comes in steps of `UNKNOWN_STEP`: nobody sets 51.765 kg.
    """
    if found := _closest(kit, lift, wanted, where):
        return found
    steps = (wanted / UNKNOWN_STEP).to_integral_value(_ROUNDING[where])
    return Build(kg=steps * UNKNOWN_STEP or Decimal(0))


def is_known(kit: Kit, lift: Exercise, kg: Decimal) -> bool:
    """Whether anything is known of how a lift is loaded near some weight."""
    return _closest(kit, lift, kg, Where.NEAREST) is not None


def is_rounded(kit: Kit, lift: Exercise, wanted: Decimal, kg: Decimal, *, written: bool = False) -> bool:
    """Whether a load differs from the wanted one, written or worked out, because nothing nearer can be built.

    A round number for a lift that can be loaded in any way does not.
    """
    least = LEAST_ROUNDING if written else LEAST_OF_WORKED_OUT
    return abs(kg - wanted) >= (least if is_known(kit, lift, Decimal(0)) else UNKNOWN_STEP)


def _closest(kit: Kit, lift: Exercise, wanted: Decimal, where: Where) -> Build | None:
    """The buildable load closest to `wanted` kg; None where nothing is known of how the lift is loaded."""
    below = _below(kit, lift, wanted, inclusive=True)
    if below and below.kg == wanted:
        return below
    above = _above(kit, lift, wanted, inclusive=True)
    if below is None or above is None:
        return below or above
    if where is not Where.NEAREST:
        return below if where is Where.BELOW else above
    return below if wanted - below.kg <= above.kg - wanted else above


def next_above(kit: Kit, lift: Exercise, kg: Decimal) -> Decimal | None:
    """The smallest buildable load over `kg`, or None where there is none or nothing is known."""
    above = _above(kit, lift, kg, inclusive=False)
    return above.kg if above else None


def next_below(kit: Kit, lift: Exercise, kg: Decimal) -> Decimal | None:
    """The largest buildable load under `kg`, or None where there is none or nothing is known."""
    below = _below(kit, lift, kg, inclusive=False)
    return below.kg if below else None


def _below(kit: Kit, lift: Exercise, kg: Decimal, *, inclusive: bool) -> Build | None:
    found = list(_candidates(kit, lift, kg, inclusive=inclusive, upwards=False))
    return max(found, key=lambda build: (build.kg, -len(build.sleeve)), default=None)


def _above(kit: Kit, lift: Exercise, kg: Decimal, *, inclusive: bool) -> Build | None:
    found = list(_candidates(kit, lift, kg, inclusive=inclusive, upwards=True))
    return min(found, key=lambda build: (build.kg, len(build.sleeve)), default=None)


def _candidates(kit: Kit, lift: Exercise, kg: Decimal, *, inclusive: bool, upwards: bool) -> Iterator[Build]:
    """The closest load on one side from each thing the lift can be loaded with."""
    if lift.load_kind is LoadKind.BODY and (kg < 0 or (kg == 0 and not upwards)):
        yield from _assistance(kg, inclusive=inclusive, upwards=upwards)
        return
    match lift.load_kind:
        case LoadKind.DUMBBELL | LoadKind.DUMBBELLS:
            yield from _fixed(kit.dumbbells, kg, inclusive=inclusive, upwards=upwards)
            for handle in kit.handles:
                if handle.count >= lift.implements:
                    yield from _loaded(handle, kit, 2 * lift.implements, kg, inclusive=inclusive, upwards=upwards)
        case LoadKind.STACK:
            machine = kit.machine_for(lift)
            if machine:
                yield from _fixed(machine.pins(), kg, inclusive=inclusive, upwards=upwards)
        case LoadKind.BODY if kit.belt:
            found = _side(shelf(kit.plates, BELT_NEEDS), kg, inclusive=inclusive, upwards=upwards)
            if found:
                yield Build(kg=found[0], sleeve=found[1])
        case kind if kind in BARS:
            bar = kit.bar_for(kind)
            if bar:
                yield from _loaded(bar, kit, BAR_NEEDS, kg, inclusive=inclusive, upwards=upwards)


def _assistance(kg: Decimal, *, inclusive: bool, upwards: bool) -> Iterator[Build]:
    """The closest step of help on one side; no help at all is the last step up."""
    steps = kg / ASSISTANCE_STEP
    whole = steps.to_integral_value(ROUND_CEILING if upwards else ROUND_FLOOR)
    if whole == steps and not inclusive:
        whole += 1 if upwards else -1
    yield Build(kg=whole * ASSISTANCE_STEP or Decimal(0))


def _fixed(loads: tuple[Decimal, ...], kg: Decimal, *, inclusive: bool, upwards: bool) -> Iterator[Build]:
    ordered = sorted(loads)
    if upwards:
        at = (bisect_left if inclusive else bisect_right)(ordered, kg)
    else:
        at = (bisect_right if inclusive else bisect_left)(ordered, kg) - 1
    if 0 <= at < len(ordered):
        yield Build(kg=ordered[at])


def _loaded(
    bar: Bar | Handle, kit: Kit, needs: int, kg: Decimal, *, inclusive: bool, upwards: bool
) -> Iterator[Build]:
    plates = shelf(kit.plates, needs, bar.sleeve_mm)
    found = _side(plates, (kg - bar.empty_kg) / 2, inclusive=inclusive, upwards=upwards)
    if found:
        yield Build(kg=bar.empty_kg + 2 * found[0], sleeve=found[1], bar=bar.name, bar_kg=bar.empty_kg)


def _side(plates: Shelf, kg: Decimal, *, inclusive: bool, upwards: bool) -> tuple[Decimal, Stack] | None:
    return plates.above(kg, inclusive=inclusive) if upwards else plates.below(kg, inclusive=inclusive)


def describe_change(before: Stack, after: Stack, *, belt: bool = False) -> str:
    """What to take off and put on to get from one stack to the next, outermost first; empty where nothing moves."""
    same = shared(before, after)
    off, on = before[same:], after[same:]
    where = "" if belt else " each side"
    parts = []
    if off:
        whole = not same and len(off) > 1
        what = "everything" if whole else f"{'the outer ' if same else ''}{_list(off[::-1])}"
        parts.append(f"take {what} off{where}")
    if on:
        parts.append(f"put {_list(on)} on{where}")
    return ", ".join(parts)


def shared(before: Stack, after: Stack) -> int:
    """How many plates from the collar on can stay."""
    same = 0
    for one, other in zip(before, after, strict=False):
        if one != other:
            break
        same += 1
    return same


def _list(plates: Stack) -> str:
    return " + ".join(map(plain, plates))
