"""Plates put on the bars of a settled plan, quick to change where time is short, and what to do before a bout."""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from typing import NamedTuple

from fortis.core.exercises import BARS, LoadKind
from fortis.core.loading.kit import Bar, Kit
from fortis.core.loading.nearest import BAR_NEEDS, BELT_NEEDS, describe_change
from fortis.core.loading.sharing import Run, shared_plans
from fortis.core.loading.shelf import denominations
from fortis.core.loading.strip import LONG_REST, PlateOrder, Stripping, moves_between
from fortis.core.reason import Reason
from fortis.core.structure.pace import work_seconds
from fortis.core.structure.prescription import PlannedSet, Settled
from fortis.core.units import plain

_Index = tuple[int, int]
"""A set's index in the plan and a bout's index in the set."""


class _Load(NamedTuple):
    """A load on its way to the bar: where it belongs, what it is, and the seconds since the bar was used."""

    at: _Index
    settled: Settled
    rest: int


def stacked(
    sets: Sequence[PlannedSet], kit: Kit, order: PlateOrder = PlateOrder.BIG_INSIDE
) -> tuple[PlannedSet, ...]:
    """Choose the stacks of a group and tell the changes. It begins with empty bars.

    Members that use the same bar share it where there is only one; bars that stand loaded side by side share the
    plates.
    """
    if not any(bout.settled for each in sets for bout in each.bouts):
        return tuple(sets)
    changed = dict(_group(list(enumerate(sets)), kit, order))
    return tuple(
        _with(each, [changed.get((at, index)) for index in range(len(each.bouts))]) for at, each in enumerate(sets)
    )


def _with(each: PlannedSet, loads: Sequence[Settled | None]) -> PlannedSet:
    """A set with its loads changed; the same one where none is."""
    bouts = tuple(
        bout if settled is None or settled is bout.settled else bout.model_copy(update={"settled": settled})
        for bout, settled in zip(each.bouts, loads, strict=True)
    )
    return each if bouts == each.bouts else each.model_copy(update={"bouts": bouts})


def _group(sets: list[tuple[int, PlannedSet]], kit: Kit, order: PlateOrder) -> Iterator[tuple[_Index, Settled]]:
    runs: dict[str, list[_Load]] = {}
    bars: dict[str, Bar] = {}
    since: dict[str, int] = {}
    for at, each in sets:
        kind = each.lift.load_kind
        bar = kit.bar_for(kind) if kind in BARS else None
        on = f"{each.entry}"
        if bar:
            on = bar.name if bar.count < _entries_on(bar, sets, kit) else f"{bar.name} of {each.entry}"
            bars[on] = bar
        for index, bout in enumerate(each.bouts):
            if bout.settled:
                runs.setdefault(on, []).append(_Load((at, index), bout.settled, since.get(on, LONG_REST)))
            work = work_seconds(each.lift, bout.reps, bout.tempo, index)
            rest = bout.rest if index + 1 < len(each.bouts) else each.rest
            since = {other: seconds + work + rest for other, seconds in since.items()} | {on: rest}
    barred = {on: run for on, run in runs.items() if on in bars}
    yield from _barred(barred, bars, kit, order)
    for on, run in runs.items():
        if on not in bars:
            kind = sets[0][1].lift.load_kind if len(sets) == 1 else _kind_of(sets, run)
            yield from _belted(run, kit, order) if kind is LoadKind.BODY else _picked(run, kind)


def _kind_of(sets: list[tuple[int, PlannedSet]], run: list[_Load]) -> LoadKind:
    first = run[0].at[0]
    return next(each.lift.load_kind for at, each in sets if at == first)


def _entries_on(bar: Bar, sets: list[tuple[int, PlannedSet]], kit: Kit) -> int:
    barred = [each for _, each in sets if each.lift.load_kind in BARS]
    return len({each.entry for each in barred if kit.bar_for(each.lift.load_kind) == bar})


def _barred(
    runs: dict[str, list[_Load]], bars: dict[str, Bar], kit: Kit, order: PlateOrder
) -> Iterator[tuple[_Index, Settled]]:
    if not runs:
        return
    have = denominations(kit.plates, BAR_NEEDS)
    sides = [
        Run(tuple((load.settled.kg - bars[on].empty_kg) / 2 for load in run), tuple(load.rest for load in run))
        for on, run in runs.items()
    ]
    room = min((bar.sleeve_mm for bar in bars.values() if bar.sleeve_mm is not None), default=None)
    plans = shared_plans(have, sides, room, order)
    if plans:
        for run, plan in zip(runs.values(), plans, strict=True):
            yield from _hung(run, plan)
        return
    for run, side in zip(runs.values(), sides, strict=True):
        alone = shared_plans(have, [side], room, order)
        if alone:
            for at, settled in _hung(run, alone[0]):
                yield at, settled.model_copy(update={"reasons": (*settled.reasons, _NOT_AT_ONCE)})


_NOT_AT_ONCE = Reason(
    code="plates shared",
    text="There are not plates enough to leave both bars loaded: strip the one to load the other.",
)


def _belted(run: list[_Load], kit: Kit, order: PlateOrder) -> Iterator[tuple[_Index, Settled]]:
    have = denominations(kit.plates, BELT_NEEDS)
    hung = Run(tuple(max(load.settled.kg, Decimal(0)) for load in run), tuple(load.rest for load in run))
    plans = shared_plans(have, [hung], order=order)
    yield from _hung(run, plans[0], belt=True) if plans else ((load.at, load.settled) for load in run)


def _hung(run: list[_Load], plan: Stripping, *, belt: bool = False) -> Iterator[tuple[_Index, Settled]]:
    hangings = zip(run, plan.stacks, plan.changes(belt=belt), plan.moved(), strict=True)
    for (at, settled, _), stack, change, plates in hangings:
        same = stack == settled.sleeve and not change
        new = {"sleeve": stack, "change": change, "plates": plates}
        yield at, settled if same else settled.model_copy(update=new)


def _picked(run: list[_Load], kind: LoadKind) -> Iterator[tuple[_Index, Settled]]:
    """Loads that are picked rather than built: a pin, a dumbbell."""
    before: Decimal | None = None
    side: tuple[Decimal, ...] = ()
    for at, settled, _ in run:
        change, plates = "", 0
        if settled.sleeve and before is not None:
            change, plates = describe_change(side, settled.sleeve), moves_between(side, settled.sleeve)
        elif before is not None and before != settled.kg:
            match kind:
                case LoadKind.STACK:
                    change = f"move the pin to {plain(settled.kg)}"
                case LoadKind.DUMBBELLS:
                    change = f"take the {plain(settled.kg)}s"
                case LoadKind.DUMBBELL:
                    change = f"take the {plain(settled.kg)}"
        before, side = settled.kg, settled.sleeve
        new = {"change": change, "plates": plates}
        yield at, settled.model_copy(update=new) if change else settled
