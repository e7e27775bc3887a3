"""From a prescription to a resolved one: every load settled in kilograms that can be built, with reasons."""

from collections.abc import Iterable, Mapping
from itertools import groupby
from operator import attrgetter

from fortis.core.basis import NO_BASIS, Basis, Carried
from fortis.core.cache import cached
from fortis.core.exercises import Muscle
from fortis.core.line_loads import LineLoads, lead_of
from fortis.core.stacking import stacked
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.warming import warmed

Line = tuple[int, int]
"""A line of a plan: its group, and its number in that."""
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
        own = tuple(sorted((entry, load) for (of, entry), load in carried.items() if of == number))
        sets += _group(members, basis, warm, own)
        warm |= {muscle for each in members for muscle in each.lift.prime}
    return prescription.model_copy(update={"sets": tuple(sets)})


@cached(1_024)
def _group(
    sets: tuple[PlannedSet, ...], basis: Basis, warm: frozenset[Muscle], carried: tuple[tuple[int, Carried], ...]
) -> tuple[PlannedSet, ...]:
    """The sets of a group with their loads, warm-ups and stacks; `warm` are the muscles that worked before it."""
    first_sets = {each.entry: each for each in reversed(sets)}
    recommended = dict(carried)
    lines = {
        entry: LineLoads(basis, first_sets[entry], lead, recommended.get(entry))
        for entry, lead in _leads(sets).items()
    }
    settled = []
    for each in sets:
        settled.append(lines[each.entry].settled(each))
    if basis.kit is None:
        return tuple(settled)
    planned = warmed(settled, basis.kit, basis.warm_ups, warm) if basis.warm_ups else settled
    return stacked(planned, basis.kit, basis.plate_order)


def _leads(sets: Iterable[PlannedSet]) -> dict[int, PlannedBout]:
    bouts: dict[int, list[PlannedBout]] = {}
    for each in sets:
        bouts.setdefault(each.entry, []).extend(each.bouts)
    return {entry: lead_of(of_entry) for entry, of_entry in bouts.items()}
