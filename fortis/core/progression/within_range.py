"""A load planned as a range, settled on the floor by how the last warm-up moved."""

from collections.abc import Sequence
from decimal import Decimal

from fortis.core.adjustments import LoadChange
from fortis.core.line import by_line
from fortis.core.loading.nearest import Build, Where
from fortis.core.progression.advice import Bar, Loaded, load_changes
from fortis.core.structure.model import OfPrevious, OfTop, WeightRange
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.value import Kilograms, Value


class Choice(Value):
    """A load inside a planned range: how the last warm-up moved, the load, and the change of the plan it takes."""

    moved: str
    kg: Kilograms
    loads: tuple[LoadChange, ...]


HEAVY, AS_USUAL, LIGHT = "heavy", "as usual", "light"


def choices(prescription: Prescription, bar: Bar) -> dict[str, tuple[Choice, ...]]:
    """For the first bout of every line whose load is a range: the lightest of it, the settled one, the heaviest.

    By the position of the bout; those alone that differ.
    """
    found: dict[str, tuple[Choice, ...]] = {}
    for sets in by_line(prescription).values():
        work = [each for each in sets if not each.is_warm_up and each.open_bouts]
        if not work:
            continue
        first = work[0].open_bouts[0]
        if isinstance(first.load, WeightRange) and first.settled is not None:
            ways = _ways(work, first, first.load, bar)
            if len(ways) > 1:
                found[str(work[0].position(first))] = ways
    return found


def _ways(work: Sequence[PlannedSet], first: PlannedBout, load: WeightRange, bar: Bar) -> tuple[Choice, ...]:
    assert first.settled is not None
    low, high = load.bounds_kg
    lift, body, was = work[0].lift, first.settled.body, first.settled.kg
    lightest, heaviest = bar.nearest(lift, low, body=body, where=Where.ABOVE), bar.nearest(lift, high, body=body)
    wanted = {lightest.kg: HEAVY} | {heaviest.kg: LIGHT} | {was: AS_USUAL}
    wanted = {kg: moved for kg, moved in wanted.items() if low <= kg <= high or kg == was}
    ways = sorted(wanted.items())
    return tuple(Choice(moved=moved, kg=kg, loads=_changes(work, first, was, kg, bar)) for kg, moved in ways)


def _changes(
    work: Sequence[PlannedSet], first: PlannedBout, was: Decimal, kg: Decimal, bar: Bar
) -> tuple[LoadChange, ...]:
    """The bouts that were to have the same load get the other one, and those told by the top set follow."""
    if kg == was:
        return ()
    assert first.settled is not None
    lift, body = work[0].lift, first.settled.body

    def to(load: Decimal) -> Build:
        return bar.nearest(lift, load * kg / was if was else kg, body=body, where=Where.NEAREST)

    follow = (
        Loaded(each.number, bout.number, bout.settled.kg)
        for each in work
        for bout in each.bouts
        if bout.settled and (bout.load == first.load or isinstance(bout.load, OfTop | OfPrevious))
    )
    return load_changes(follow, to)
