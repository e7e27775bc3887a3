"""What the last session recommends, carried to the lines of the next one that ask the same."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fortis.core.basis import Carried
from fortis.core.resolution import Line
from fortis.core.structure.model import LiftKey
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription

Target = tuple[tuple[PlannedBout, ...], ...]
"""The whole of what a line asks: the bouts of its sets, those alike in a row named once."""


@dataclass(frozen=True)
class Carries:
    """What is carried to a line of the next session, and the line it belongs to: its lift and all that it asked."""

    key: LiftKey
    target: Target
    carried: Carried


def target_of(sets: Iterable[PlannedSet]) -> Target:
    """The whole of what a line asks, whatever was settled for it and however many sets alike there are in a row."""
    found: list[tuple[PlannedBout, ...]] = []
    for each in sets:
        if each.is_warm_up:
            continue
        bare = tuple(bout.model_copy(update={"settled": None, "left_out": False, "rest": 0}) for bout in each.bouts)
        if not found or found[-1] != bare:
            found.append(bare)
    return tuple(found)


def carry(prescription: Prescription, recommended: Iterable[Carries]) -> Mapping[Line, Carried]:
    """What is recommended for each line of a plan that asks what a line of the last session asked.

    The same lift on two lines that ask the same gets what each line got, in their order.
    """
    waiting: dict[tuple[LiftKey, Target], list[Carried]] = {}
    for each in recommended:
        waiting.setdefault((each.key, each.target), []).append(each.carried)
    found: dict[Line, Carried] = {}
    if not waiting:
        return found
    for line, sets in prescription.by_entry().items():
        if own := waiting.get((sets[0].key, target_of(sets))):
            found[line] = own.pop(0) if len(own) > 1 else own[0]
    return found
