"""The lines of a plan: the sets of a lift whose loads hang together."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from fortis.core.structure.counting import is_rep_target
from fortis.core.structure.model import OfPrevious, OfTop
from fortis.core.structure.prescription import PlannedSet, Prescription


class Line(NamedTuple):
    """Which sets of a plan: their group, and their number in that.

    Where some of those name a load and others leave it to be found, each kind is a line of its own: `unnamed` says
    that it is the second.
    """

    group: int
    entry: int
    unnamed: bool = False


def line_of_each(sets: Iterable[PlannedSet]) -> Sequence[Line]:
    """The line of each of some sets: of whole groups, in their order."""
    found: list[tuple[int, int, bool]] = []
    last: dict[tuple[int, int], bool] = {}
    naming: set[tuple[int, int]] = set()
    for each in sets:
        at = each.group, each.entry
        if not each.is_warm_up and (unnamed := _unnamed(each)) is not None:
            last[at] = unnamed
            if not unnamed:
                naming.add(at)
        found.append((*at, not each.is_warm_up and last.get(at, False)))
    return [Line(group, entry, unnamed and (group, entry) in naming) for group, entry, unnamed in found]


def _unnamed(each: PlannedSet) -> bool | None:
    """Whether the load of a set is to be found for what it asks; None where it follows from others."""
    first = each.bouts[0]
    if isinstance(first.load, OfTop | OfPrevious):
        return None
    if first.load is not None:
        return False
    return True if is_rep_target(first.reps) else None


def by_line(prescription: Prescription) -> dict[Line, list[PlannedSet]]:
    """The sets of every line, warm-ups included."""
    found: dict[Line, list[PlannedSet]] = {}
    for line, each in zip(line_of_each(prescription.sets), prescription.sets, strict=True):
        found.setdefault(line, []).append(each)
    return found
