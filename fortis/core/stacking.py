"""Plates put on the bars of a settled plan so that the fewest move, and what to do before each bout in words."""

from collections.abc import Iterator, Sequence
from decimal import Decimal

from fortis.core.exercises import BARS, LoadKind
from fortis.core.loading.kit import Bar, Kit
from fortis.core.loading.nearest import BAR_NEEDS, BELT_NEEDS, describe_change
from fortis.core.loading.sharing import shared_plans
from fortis.core.loading.shelf import denominations
from fortis.core.loading.strip import Stripping, moves_between
from fortis.core.reason import Reason
from fortis.core.structure.prescription import PlannedSet, Settled
from fortis.core.units import plain

_Place = tuple[int, int]
"""A set's index in the plan and a bout's index in the set."""


def stacked(sets: Sequence[PlannedSet], kit: Kit) -> tuple[PlannedSet, ...]:
    """Choose the stacks of a group and tell the changes. It begins with empty bars.

    Members that use the same bar share it where there is only one; bars that stand loaded side by side share the
    plates.
    """
    if not any(bout.settled for each in sets for bout in each.bouts):
        return tuple(sets)
    changed = dict(_group(list(enumerate(sets)), kit))
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


def _group(sets: list[tuple[int, PlannedSet]], kit: Kit) -> Iterator[tuple[_Place, Settled]]:
    runs: dict[str, list[tuple[_Place, Settled]]] = {}
    bars: dict[str, Bar] = {}
    for at, each in sets:
        kind = each.lift.load_kind
        bar = kit.bar_for(kind) if kind in BARS else None
        on = f"{each.entry}"
        if bar:
            on = bar.name if bar.count < _entries_on(bar, sets, kit) else f"{bar.name} of {each.entry}"
            bars[on] = bar
        for index, bout in enumerate(each.bouts):
            if bout.settled:
                runs.setdefault(on, []).append(((at, index), bout.settled))
    barred = {on: run for on, run in runs.items() if on in bars}
    yield from _barred(barred, bars, kit)
    for on, run in runs.items():
        if on not in bars:
            kind = sets[0][1].lift.load_kind if len(sets) == 1 else _kind_of(sets, run)
            yield from _belted(run, kit) if kind is LoadKind.BODY else _picked(run, kind)


def _kind_of(sets: list[tuple[int, PlannedSet]], run: list[tuple[_Place, Settled]]) -> LoadKind:
    first = run[0][0][0]
    return next(each.lift.load_kind for at, each in sets if at == first)


def _entries_on(bar: Bar, sets: list[tuple[int, PlannedSet]], kit: Kit) -> int:
    barred = [each for _, each in sets if each.lift.load_kind in BARS]
    return len({each.entry for each in barred if kit.bar_for(each.lift.load_kind) == bar})


def _barred(
    runs: dict[str, list[tuple[_Place, Settled]]], bars: dict[str, Bar], kit: Kit
) -> Iterator[tuple[_Place, Settled]]:
    if not runs:
        return
    have = denominations(kit.plates, BAR_NEEDS)
    sides = [[(settled.kg - bars[on].empty_kg) / 2 for _, settled in run] for on, run in runs.items()]
    room = min((bar.sleeve_mm for bar in bars.values() if bar.sleeve_mm is not None), default=None)
    plans = shared_plans(have, sides, room)
    if plans:
        for run, plan in zip(runs.values(), plans, strict=True):
            yield from _told(run, plan)
        return
    for run, side in zip(runs.values(), sides, strict=True):
        alone = shared_plans(have, [side], room)
        if alone:
            for place, settled in _told(run, alone[0]):
                yield place, settled.model_copy(update={"reasons": (*settled.reasons, _NOT_AT_ONCE)})


_NOT_AT_ONCE = Reason(
    code="plates shared",
    text="There are not plates enough to leave both bars loaded: strip the one to load the other.",
)


def _belted(run: list[tuple[_Place, Settled]], kit: Kit) -> Iterator[tuple[_Place, Settled]]:
    have = denominations(kit.plates, BELT_NEEDS)
    plans = shared_plans(have, [[max(settled.kg, Decimal(0)) for _, settled in run]])
    yield from _told(run, plans[0], belt=True) if plans else run


def _told(
    run: list[tuple[_Place, Settled]], plan: Stripping, *, belt: bool = False
) -> Iterator[tuple[_Place, Settled]]:
    told = zip(run, plan.stacks, plan.changes(belt=belt), plan.moved(), strict=True)
    for (place, settled), stack, change, plates in told:
        same = stack == settled.side and not change
        new = {"side": stack, "change": change, "plates": plates}
        yield place, settled if same else settled.model_copy(update=new)


def _picked(run: list[tuple[_Place, Settled]], kind: LoadKind) -> Iterator[tuple[_Place, Settled]]:
    """Loads that are picked rather than built: a pin, a dumbbell."""
    before: Decimal | None = None
    side: tuple[Decimal, ...] = ()
    for place, settled in run:
        change, plates = "", 0
        if settled.side and before is not None:
            change, plates = describe_change(side, settled.side), moves_between(side, settled.side)
        elif before is not None and before != settled.kg:
            match kind:
                case LoadKind.STACK:
                    change = f"move the pin to {plain(settled.kg)}"
                case LoadKind.DUMBBELLS:
                    change = f"take the {plain(settled.kg)}s"
                case LoadKind.DUMBBELL:
                    change = f"take the {plain(settled.kg)}"
        before, side = settled.kg, settled.side
        new = {"change": change, "plates": plates}
        yield place, settled.model_copy(update=new) if change else settled
