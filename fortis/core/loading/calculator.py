"""What to put on for a load, what is on a bar, what to strip between loads, and the way up."""

from collections.abc import Sequence
from decimal import Decimal, InvalidOperation

from fortis.core.exercises import BARS, LIBRARY, Exercise, LoadKind
from fortis.core.loading.kit import Bar, Kit, Plate
from fortis.core.loading.nearest import BAR_NEEDS, BELT_NEEDS, Build, Where, describe_change, nearest
from fortis.core.loading.shelf import denominations
from fortis.core.loading.strip import NoSuchLoadError, strip_plan
from fortis.core.loading.warm_up import School, WarmUpSet, warm_up
from fortis.core.units import HEAVIEST, plain
from fortis.core.value import Kilograms, Value

A_BAR_LIFT: Exercise = LIBRARY.find("Back squat")
"""Stands for any lift with a plain bar."""


class WeightError(ValueError):
    """A text that is no weight."""


def weight(text: str, *, least: int = 1) -> Decimal:
    """A weight in kilograms as typed, a decimal comma allowed. Raises `WeightError` naming what was typed."""
    try:
        kg = Decimal(text.strip().replace(",", "."))
    except InvalidOperation as error:
        raise WeightError(f"“{text}” is not a weight: write kilograms, like 142.5.") from error
    if not kg.is_finite() or not least <= kg <= HEAVIEST:
        raise WeightError(f"“{text}” is not a weight from {least} to {HEAVIEST:,} kg.")
    return kg


def bar_kit(bar_kg: Decimal, collar_kg: Decimal, plates: tuple[Plate, ...]) -> Kit:
    """A kit of one bar and some plates."""
    bar = Bar(name=f"{plain(bar_kg)} kg bar", kind=LoadKind.BAR, kg=bar_kg, collar_kg=collar_kg)
    return Kit(place="Here", bars=(bar,), plates=plates)


class Loaded(Value):
    """One load as built: each side of the bar from the collar outwards, and what rounding did to it.

    `below_kg` and `above_kg` are the loads beside it; `would_need` says which pair of plates would make the
    wanted one, where a single pair would.
    """

    wanted_kg: Kilograms
    total_kg: Kilograms
    rounding_kg: Kilograms
    sleeve: tuple[Kilograms, ...]
    bar: str | None = None
    bar_kg: Kilograms | None = None
    below_kg: Kilograms | None = None
    above_kg: Kilograms | None = None
    would_need_kg: Kilograms | None = None
    change: str = ""


class Calculated(Value):
    """Loads one after the other with the fewest plates moved, and the warm-up to the first where asked for.

    `moves` counts plates put on or taken off on one side, from empty to empty.
    """

    loads: tuple[Loaded, ...]
    warm_up: tuple[WarmUpSet, ...] = ()
    moves: int | None = None


def calculate(kit: Kit, lift: Exercise, wanted: Sequence[Decimal], school: School | None = None) -> Calculated:
    """Build some loads of a lift from a kit, one after the other."""
    builds = [nearest(kit, lift, kg) for kg in wanted]
    stacks, moves = _stacks(kit, lift, builds)
    loads, before = [], None
    for kg, build, stack in zip(wanted, builds, stacks, strict=True):
        change = "" if before is None else describe_change(before, stack, belt=lift.load_kind is LoadKind.BODY)
        loads.append(_loaded(kit, lift, kg, build._replace(sleeve=stack), change))
        before = stack
    return Calculated(
        loads=tuple(loads),
        warm_up=warm_up(kit, lift, builds[0].kg, school=school, cold=True) if school else (),
        moves=moves,
    )


def _stacks(kit: Kit, lift: Exercise, builds: Sequence[Build]) -> tuple[list[tuple[Decimal, ...]], int | None]:
    needs = BELT_NEEDS if lift.load_kind is LoadKind.BODY else BAR_NEEDS
    if lift.load_kind is LoadKind.BODY or lift.load_kind in BARS:
        bar = kit.bar_for(lift.load_kind) if lift.load_kind in BARS else None
        sides = [sum(build.sleeve, Decimal(0)) for build in builds]
        try:
            plan = strip_plan(denominations(kit.plates, needs), sides, bar.sleeve_mm if bar else None)
        except NoSuchLoadError:
            return [build.sleeve for build in builds], None
        return list(plan.stacks), plan.moves
    return [build.sleeve for build in builds], None


def _loaded(kit: Kit, lift: Exercise, wanted: Decimal, build: Build, change: str) -> Loaded:
    exact = build.kg == wanted
    below, above = (nearest(kit, lift, wanted, where).kg for where in (Where.BELOW, Where.ABOVE))
    return Loaded(
        wanted_kg=wanted,
        total_kg=build.kg,
        rounding_kg=build.kg - wanted,
        sleeve=build.sleeve,
        bar=build.bar,
        bar_kg=build.bar_kg,
        below_kg=None if exact or below > wanted else below,
        above_kg=None if exact or above < wanted else above,
        would_need_kg=None if exact else _one_pair_more(kit, lift, wanted),
        change=change,
    )


_USUAL_PAIRS = tuple(map(Decimal, ("0.25", "0.5", "1", "1.25", "2", "2.5", "5", "10", "15", "20", "25")))
"""Plates that are sold in pairs everywhere (common practice)."""


def _one_pair_more(kit: Kit, lift: Exercise, wanted: Decimal) -> Decimal | None:
    """The lightest pair of plates that would make a load, were it bought."""
    if lift.load_kind not in BARS:
        return None
    for kg in _USUAL_PAIRS:
        richer = kit.model_copy(update={"plates": (*kit.plates, Plate(amount=kg, count=2))})
        if nearest(richer, lift, wanted).kg == wanted:
            return kg
    return None


def weigh(bar: Bar | None, plates: Sequence[Plate]) -> Decimal:
    """What is on a bar: the bar with its collars and the plates of one side counted twice."""
    side = sum((plate.kg * plate.count for plate in plates), Decimal(0))
    return (bar.empty_kg if bar else Decimal(0)) + 2 * side
