"""A caution, and the plan it is about."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import StrEnum

from fortis.core.exercises import Exercise
from fortis.core.performance import PerformedBout
from fortis.core.structure.model import Entry, Lifting, Session
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.value import Value


class Serious(StrEnum):
    """How serious a caution is."""

    KNOW = "good to know"
    LOOK = "look twice"
    RISK = "can hurt you"


class Remedy(Value):
    """What to do instead: a label for the button, and the entry as it would be."""

    label: str
    entry: Entry


class Caution(Value):
    """One caution. `group` and `entry` count from 1; `disputed` says how the schools differ, where they do.

    A lifter may set the rule aside for good, for one lift or for all.
    """

    rule: str
    serious: Serious
    text: str
    reason: str
    group: int
    entry: int
    exercise: str
    lift_id: str
    disputed: str = ""
    remedy: Remedy | None = None


@dataclass(frozen=True)
class PlannedEntry:
    """One entry of a plan with everything a rule looks at; `sets` are laid out and settled."""

    group: int
    number: int
    entry: Entry
    exercise: Exercise
    sets: tuple[PlannedSet, ...]

    @property
    def bouts(self) -> list[PlannedBout]:
        """All bouts in order."""
        return [bout for each in self.sets for bout in each.bouts]

    def caution(
        self,
        rule: str,
        serious: Serious,
        text: str,
        reason: str,
        *,
        disputed: str = "",
        remedy: Remedy | None = None,
    ) -> Caution:
        """A caution about this entry."""
        return Caution(
            rule=rule,
            serious=serious,
            text=text,
            reason=reason,
            group=self.group,
            entry=self.number,
            exercise=self.exercise.name,
            lift_id=self.exercise.id,
            disputed=disputed,
            remedy=remedy,
        )


@dataclass(frozen=True)
class Log:
    """The log's share in a caution: the work done in the seven days before, and whether the lifter is new to it.

    `overloaded_sets` are those lowered with more than can be lifted. `novice` is under a year of training.
    """

    bouts: tuple[PerformedBout, ...] = ()
    overloaded_sets: int = 0
    novice: bool = False


def overloaded_sets(performed: Iterable[PerformedBout]) -> int:
    """The sets of a session in which more was lowered than can be lifted."""
    overloaded = (bout.position for bout in performed if bout.asked and bout.asked.lifting is not Lifting.ALONE)
    return len({(at.group, at.entry, at.set) for at in overloaded})


def planned_entries(session: Session, prescription: Prescription) -> Iterator[PlannedEntry]:
    """Every entry of a session beside its laid-out sets."""
    by_entry = prescription.by_entry()
    for number, group in enumerate(session.groups, start=1):
        for at, entry in enumerate(group.entries, start=1):
            sets = tuple(each for each in by_entry[number, at] if not each.is_warm_up)
            yield PlannedEntry(number, at, entry, sets[0].lift, sets)
