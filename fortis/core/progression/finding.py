"""The first time with a lift: its load is found on the way up, by how many reps are left at each load.

A set of five with five or more left is light: the next one is a little heavier. The first that leaves fewer tells
the max well enough to begin with, and the way up ends there.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import NamedTuple

from fortis.core.adjustments import LoadChange
from fortis.core.basis import Basis
from fortis.core.progression.advice import MOST_RESERVE, Advice, Bar, Course, Outcome
from fortis.core.reason import Reason
from fortis.core.resolution import REFERENCE, resolve
from fortis.core.strength.estimate import max_behind
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.units import plain

CAREFUL = 0.97
"""Of a max that one light set tells, so much is taken for the first session."""
WAY_UP_TO = Decimal("0.92")
"""Of the way up, what is lighter than this share of the heaviest work is still done before it."""
WAY_UP_REPS = 5


class Asked(NamedTuple):
    """A bout whose load is to be found: its set and its number in that, and its share of the max."""

    set: int
    bout: int
    share: float


@dataclass(frozen=True)
class Finding:
    """A way up that finds the loads of a line: its bouts, and what the work asks of the max where that changes."""

    way_up: PlannedSet
    asked: tuple[Asked, ...]
    bar: Bar

    def advise(self, bout: PlannedBout, outcome: Outcome) -> Advice | None:
        """What to do after a bout of the way up; None where nobody said how many were left."""
        if bout.settled is None or (outcome.reserve is None and outcome.number >= WAY_UP_REPS):
            return None
        left = Decimal(0) if outcome.number < WAY_UP_REPS else outcome.reserve or Decimal(0)
        heavier = [each for each in self.way_up.bouts if each.number > bout.number and each.settled]
        if left >= MOST_RESERVE and heavier:
            (following, *_) = heavier
            assert following.settled is not None
            return Advice(
                course=Course.GO_ON,
                text=f"5 or more left: still light. Go on to {plain(following.settled.kg)}.",
            )
        return self._found(bout, outcome.number, left)

    def _found(self, bout: PlannedBout, number: int, left: Decimal) -> Advice | None:
        assert bout.settled is not None
        if not number:
            text = "Too heavy to begin with. Take less, or leave this lift for today."
            return Advice(course=Course.STOP, text=text)
        max_kg = max_behind(float(bout.settled.kg), number + float(left))
        loads = self._loads(max_kg * CAREFUL)
        if not loads:
            return None
        heaviest = max(change.kg for change in loads)
        skipped = tuple(name for at, kg, name in self._way_up if at > bout.number and kg > heaviest * WAY_UP_TO)
        left_words = f"{plain(left)}{' or more' if left >= MOST_RESERVE else ''}"
        text = f"{number} at {plain(bout.settled.kg)} with {left_words} left: a max of about {max_kg:.0f} kg."
        kgs = sorted({change.kg for change in loads})
        work = plain(kgs[0]) if len(kgs) == 1 else f"{plain(kgs[0])} to {plain(kgs[-1])}"
        reason = Reason(
            code="found",
            text=f"{text} To begin with, {CAREFUL:.0%} of it is taken.".replace("%", " %"),
            values={"max_kg": Decimal(str(round(max_kg, 1)))},
        )
        (first, *_) = loads
        return Advice(
            course=Course.FOUND,
            text=f"{text} Work with {work} kg, a little careful the first time.",
            kg=first.kg if len(kgs) == 1 else None,
            sleeve=first.sleeve if len(kgs) == 1 else (),
            loads=loads,
            skipped=skipped,
            reasons=(reason,),
        )

    @cached_property
    def _way_up(self) -> Sequence[tuple[int, Decimal, str]]:
        """The bouts of the way up: their numbers, loads and positions."""
        way_up = self.way_up
        return [(each.number, each.settled.kg, str(way_up.position(each))) for each in way_up.bouts if each.settled]

    def _loads(self, max_kg: float) -> tuple[LoadChange, ...]:
        """The loads of the work, set by set where they change."""
        changes: list[LoadChange] = []
        stands: dict[int, Decimal] = {}
        for each in self.asked:
            build = self.bar.nearest(self.way_up.lift, Decimal(str(round(each.share * max_kg, 2))), body=False)
            if stands.get(each.bout) == build.kg:
                continue
            stands[each.bout] = build.kg
            changes.append(
                LoadChange(
                    set=each.set,
                    bout=each.bout,
                    kg=build.kg,
                    sleeve=build.sleeve,
                    bar=build.bar,
                    bar_kg=build.bar_kg,
                    advised=True,
                )
            )
        return tuple(changes)


def finding_of(sets: Sequence[PlannedSet], bar: Bar) -> Finding | None:
    """What a line's way up finds; None where its loads stand, or it has none that asks how many are left."""
    way_up = next((each for each in sets if each.is_warm_up and any(bout.finds for bout in each.bouts)), None)
    work = tuple(each for each in sets if not each.is_warm_up and each.open_bouts)
    if way_up is None or not work or any(bout.settled for each in work for bout in each.bouts):
        return None
    settled = resolve(Prescription(title="", sets=work), Basis(estimates={work[0].key: REFERENCE}))
    asked: list[Asked] = []
    share_of: dict[int, float] = {}
    for each in settled.sets:
        for bout in each.open_bouts:
            share = float(bout.settled.kg) / REFERENCE.kg if bout.settled else None
            if share is not None and share_of.get(bout.number) != share:
                asked.append(Asked(each.number, bout.number, share))
                share_of[bout.number] = share
    return Finding(way_up, tuple(asked), bar) if asked else None
