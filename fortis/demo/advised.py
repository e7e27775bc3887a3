"""A session under way whose lifter takes advice of the Floor: as a rule where it goes badly."""

from collections.abc import Sequence, Set
from decimal import Decimal

from fortis.core.adjustments import Adjustments, LoadChange, until_followed
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.played import as_played, entry_name, with_loads
from fortis.core.progression.advice import Advice, Bar, Course, Outcome
from fortis.core.progression.advice_table import Maxes, lines_of
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription

LIGHTER = frozenset({Course.LIGHTER})
"""Who goes lighter where it is advised, and never heavier."""


class Advised:
    """A session under way: its `plan` as it stands, and the `adjustments` it comes from.

    Other loads are taken where the advice is one of the courses that are `taken`.
    """

    def __init__(
        self,
        prescription: Prescription,
        kit: Kit,
        body_kg: Decimal | None,
        maxes: Maxes,
        taken: Set[Course] = LIGHTER,
    ) -> None:
        self.adjustments = Adjustments()
        self._planned, self._bar, self._maxes, self._taken = prescription, Bar(kit, body_kg), maxes, taken
        self._was_off: dict[str, str | None] = {}
        self._stands(prescription)

    def bout(self, position: Position) -> PlannedBout | None:
        """A bout as it stands; None where it was left out."""
        bout = self._bouts[position][1]
        return None if bout.left_out else bout

    def done(self, performed: PerformedBout) -> None:
        """Take the advice after a bout, where that is of a course that is taken, or to stop."""
        each, bout = self._bouts[performed.position]
        entry = entry_name(each)
        line = next((line for line in self._lines if line.holds(each)), None)
        if line is None:
            return
        outcome = Outcome(performed.number_beside(bout), performed.reserve, performed.ended)
        advice, before = line.advise(each, bout, outcome), self._was_off.get(entry)
        self._was_off[entry] = advice.was if advice else None
        if advice and advice.again and advice.was == before:
            advice = advice.again
        if advice:
            self._take(advice, entry, each)

    def _take(self, advice: Advice, entry: str, each: PlannedSet) -> None:
        own = self.adjustments
        if advice.course is Course.STOP:
            to_come = [
                str(other.position(bout))
                for other, bout in self._bouts.values()
                if entry_name(other) == entry and other.number > each.number
            ]
            self.adjustments = own.model_copy(update={"skipped": (*own.skipped, *to_come)})
        elif advice.course in self._taken:
            self._move(entry, [change.after(each.number) for change in advice.loads])
            for other in advice.others:
                self._move(other.entry, other.loads)
        if self.adjustments != own:
            self._stands(as_played(self._planned, self.adjustments))

    def _move(self, entry: str, changes: Sequence[LoadChange]) -> None:
        """Change loads of an entry, those that are still to be changed."""
        sets = [each for each in self.plan.sets if entry_name(each) == entry]
        if open_ := tuple(change for change in changes if with_loads(sets, [change]) != sets):
            loads = self.adjustments.loads
            moved = {entry: (*loads.get(entry, ()), *open_)}
            self.adjustments = self.adjustments.model_copy(update={"loads": loads | moved})

    def _stands(self, plan: Prescription) -> None:
        self.plan = plan
        as_it_was, followed = until_followed(self.adjustments)
        lines = lines_of(as_played(self._planned, as_it_was), self._bar, self._maxes, followed=followed)
        self._lines = [line.stages()[-1].line for line in lines]
        self._bouts = {each.position(bout): (each, bout) for each in plan.sets for bout in each.bouts}
