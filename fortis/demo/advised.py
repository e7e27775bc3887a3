"""A session under way whose lifter takes the advice of the Floor where it goes badly."""

from decimal import Decimal

from fortis.core.adjustments import Adjustments
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.played import as_played, entry_name
from fortis.core.progression.advice import Advice, Bar, Course, Outcome
from fortis.core.progression.advice_table import Maxes, lines_of
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position, Prescription


class Advised:
    """A session under way: its `plan` as it stands, and the `adjustments` it comes from."""

    def __init__(self, prescription: Prescription, kit: Kit, body_kg: Decimal | None, maxes: Maxes) -> None:
        self.adjustments = Adjustments()
        self._planned = prescription
        self._lines = lines_of(prescription, Bar(kit, body_kg), maxes)
        self._was_off: dict[str, str | None] = {}
        self._stands(prescription)

    def bout(self, position: Position) -> PlannedBout | None:
        """A bout as it stands; None where it was left out."""
        bout = self._bouts[position][1]
        return None if bout.left_out else bout

    def done(self, performed: PerformedBout) -> None:
        """Take the advice after a bout, where it is to go on lighter, or to stop."""
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
        elif advice.course is Course.LIGHTER:
            changed = {entry: [change.after(each.number) for change in advice.loads]}
            for other in advice.others:
                changed.setdefault(other.entry, []).extend(other.loads)
            changed = {name: changes for name, changes in changed.items() if changes}
            loads = {name: (*own.loads.get(name, ()), *changes) for name, changes in changed.items()}
            self.adjustments = own.model_copy(update={"loads": own.loads | loads})
            self._lines = [
                line.with_loads(changed[line.entry]) if line.entry in changed else line for line in self._lines
            ]
        self._stands(as_played(self._planned, self.adjustments))

    def _stands(self, plan: Prescription) -> None:
        self.plan = plan
        self._bouts = {each.position(bout): (each, bout) for each in plan.sets for bout in each.bouts}
