"""From a prescription to a resolved one: every load settled in kilograms that can be built, with reasons."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from itertools import groupby
from operator import attrgetter

from fortis.core.basis import NO_BASIS, Basis, Carried
from fortis.core.cache import cached
from fortis.core.exercises import Muscle
from fortis.core.line import Line, line_of_each
from fortis.core.line_demand import demand_of
from fortis.core.line_loads import Bouts, LineLoads, Tired, lead_of, waits_for_max
from fortis.core.stacking import stacked
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import is_rep_target
from fortis.core.structure.model import is_lighter
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.warming import warmed

REFERENCE = Estimate(kg=100.0, low=100.0, high=100.0)
"""Any max, where only shares of it are wanted."""
NOTHING_CARRIED: Mapping[Line, Carried] = {}


def resolve(
    prescription: Prescription, basis: Basis = NO_BASIS, carried: Mapping[Line, Carried] = NOTHING_CARRIED
) -> Prescription:
    """Settle every load that can be settled.

    Others stay as asked. `carried` is what last time recommends, by line.
    """
    sets: list[PlannedSet] = []
    warm: frozenset[Muscle] = frozenset()
    for number, group in groupby(prescription.sets, key=attrgetter("group")):
        members = tuple(group)
        own = tuple((line, load) for line, load in carried.items() if line.group == number)
        before = prescription.sets[: prescription.sets.index(members[0])] if _is_solved(members) else ()
        sets += _group(members, basis, warm, own, before)
        warm |= {muscle for each in members for muscle in each.lift.prime}
    return prescription.model_copy(update={"sets": tuple(sets)})


@cached(1_024)
def _group(
    sets: tuple[PlannedSet, ...],
    basis: Basis,
    warm: frozenset[Muscle],
    carried: tuple[tuple[Line, Carried], ...],
    before: tuple[PlannedSet, ...],
) -> tuple[PlannedSet, ...]:
    """The sets of a group with their loads, warm-ups and stacks; `warm` are the muscles that worked before it.

    `before` are the sets before it, where it has loads to be found that they tire.
    """
    lines = line_of_each(sets)
    numbers = {line: number for number, line in enumerate(sorted({*lines}), start=1)}
    apart = tuple(_numbered(each, numbers[line]) for line, each in zip(lines, sets, strict=True))
    own = {numbers[line]: load for line, load in carried if line in numbers}
    loaded = _with_loads(apart, basis, own, before)
    settled = [_numbered(each, was.entry) for was, each in zip(sets, loaded, strict=True)]
    if basis.kit is None:
        return tuple(settled)
    first_sets = {each.entry: each for each in reversed(sets)}
    unknown = {entry for entry, first in first_sets.items() if waits_for_max(first, basis)}
    planned = warmed(settled, basis.kit, basis.warm_ups, warm, unknown) if basis.warm_ups else settled
    return stacked(planned, basis.kit, basis.plate_order)


def _with_loads(
    sets: tuple[PlannedSet, ...], basis: Basis, recommended: Mapping[int, Carried], before: tuple[PlannedSet, ...]
) -> list[PlannedSet]:
    """The sets of a group with their loads; each of its lines has a number of its own, as if it were an entry."""
    first_sets = {each.entry: each for each in reversed(sets)}
    leads = _leads(sets)
    found = [entry for entry, lead in leads.items() if lead.load is None] if _wants_load(sets) else []
    ratios = {
        entry: _ratios(sets, entry, recommended[entry], basis, before) for entry in found if entry in recommended
    }
    tired = {
        entry: _tired(sets, entry, _in_no_kit(sets, entry, basis), before)
        for entry in found
        if entry not in recommended
    }

    def of_line(entry: int, lighter: float = 1.0) -> LineLoads:
        of, allows, own = recommended.get(entry), tired.get(entry, {}), ratios.get(entry, {})
        return LineLoads(basis, first_sets[entry], leads[entry], of, allows, own, lighter)

    lines = {entry: of_line(entry) for entry in leads}
    settled = [lines[each.entry].settled(each) for each in sets]
    if lighter := _lighter(settled, lines, before):
        lines = {entry: of_line(entry, lighter.get(entry, 1.0)) for entry in leads}
        settled = [lines[each.entry].settled(each) for each in sets]
    return settled


def _numbered(each: PlannedSet, entry: int) -> PlannedSet:
    """A set as one of another number in its group."""
    return each if each.entry == entry else each.model_copy(update={"entry": entry})


def _is_solved(sets: Iterable[PlannedSet]) -> bool:
    """Whether what tired the lifts of a group before says something of its loads."""
    sets = list(sets)
    return _wants_load(sets) or any(is_lighter(bout.load) for each in sets for bout in each.bouts)


def _wants_load(sets: Iterable[PlannedSet]) -> bool:
    """Whether some loads of a group are to be found, because it names none."""
    return any(each.bouts[0].load is None and is_rep_target(each.bouts[0].reps) for each in sets)


def _tired(
    sets: tuple[PlannedSet, ...], entry: int, line: LineLoads, before: tuple[PlannedSet, ...]
) -> Mapping[Bouts, Tired]:
    """What each set of a line that names no load allows among all others, in its place in the session.

    `line` has them as if they were fresh, and in no kit.
    """
    own = [each for each in sets if each.entry == entry]
    fresh = [line.settled(each) if each.entry == entry else each for each in sets]
    of_line = [each for each in fresh if each.entry == entry]
    lead = _leads(of_line)[entry]
    if line.max is None or line.part is None or lead.settled is None:
        return {}
    session, beside = Prescription(title="", sets=(*before, *fresh)), line.part + line.more_pull
    demand, lead_kg = demand_of(session, of_line, lead, beside), float(lead.settled.kg + beside)
    alike: dict[Bouts, list[int]] = {}
    for each in own:
        if each.bouts[0].load is None:
            alike.setdefault(each.bouts, []).append(each.number)
    found = {bouts: Tired(1.0, len(numbers)) for bouts, numbers in alike.items()}
    come_back = len([*groupby(each.bouts for each in own)]) > len({each.bouts for each in own})
    for bouts, numbers in [*alike.items()] * (2 if come_back else 1):
        times = demand.times_for(numbers, lead_kg, line.max) if lead_kg > 0 else None
        if times is not None:
            demand = demand.with_loads(numbers, times)
            found[bouts] = found[bouts]._replace(allows=found[bouts].allows * times)
    return found


def _lighter(
    settled: list[PlannedSet], lines: Mapping[int, LineLoads], before: tuple[PlannedSet, ...]
) -> Mapping[int, float]:
    """For lines whose back-offs or drops are too heavy for what they ask, how many times as heavy they can be."""
    found: dict[int, float] = {}
    session = Prescription(title="", sets=(*before, *settled))
    for entry, lead in _leads(settled).items():
        line, own = lines[entry], [each for each in settled if each.entry == entry]
        follow = any(is_lighter(bout.load) for each in own for bout in each.bouts)
        if not follow or lead.settled is None or line.max is None or line.part is None:
            continue
        beside = line.part + line.more_pull
        times = demand_of(session, own, lead, beside).lighter(float(lead.settled.kg + beside), line.max)
        if times < 1:
            found[entry] = times
    return found


def _ratios(
    sets: tuple[PlannedSet, ...], entry: int, carried: Carried, basis: Basis, before: tuple[PlannedSet, ...]
) -> Mapping[Bouts, float]:
    """What sets of a line that names no load weigh by what they ask, as shares of the heaviest; empty: all alike.

    What is carried tells them, else reps and reserve as far as they can: by the max, or by any where none is known.
    """
    own = [each for each in sets if each.entry == entry]
    asks = list(dict.fromkeys(each.asks for each in own))
    if len(asks) < 2:
        return {}
    if len(carried.proportions) == len(asks):
        return dict(zip(asks, map(float, carried.proportions), strict=True))
    fresh, line = _in_no_kit(sets, entry, basis), _in_no_kit(sets, entry, basis)
    fresh.max = line.max = line.max or REFERENCE
    if line.part is None:
        return {}
    line.tired = _tired(sets, entry, fresh, before)
    settled = [(each.asks, line.settled(each).bouts[0].settled) for each in own]
    moved = {asks: float(found.kg + line.part) for asks, found in settled if found}
    heaviest = max(moved.values(), default=0.0)
    return {asks: kg / heaviest for asks, kg in moved.items()} if heaviest > 0 else {}


def _in_no_kit(sets: tuple[PlannedSet, ...], entry: int, basis: Basis) -> LineLoads:
    """A line with nothing carried to it, as if any load could be built."""
    first = next(each for each in sets if each.entry == entry)
    return LineLoads(replace(basis, kit=None), first, _leads(sets)[entry], None)


def _leads(sets: Iterable[PlannedSet]) -> dict[int, PlannedBout]:
    bouts: dict[int, list[PlannedBout]] = {}
    for each in sets:
        bouts.setdefault(each.entry, []).extend(each.bouts)
    return {entry: lead_of(of_entry) for entry, of_entry in bouts.items()}
