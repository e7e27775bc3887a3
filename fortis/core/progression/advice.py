"""Advice in the middle of a session: after a bout, what its outcome says about the rest of the exercise.

The rules run before the session too: for every bout and every plausible outcome the advice is known in advance,
so that a phone without a connection looks it up.
"""

from collections.abc import Mapping, Sequence
from decimal import Decimal
from enum import StrEnum

from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import Build, Where, nearest
from fortis.core.performance import Ended
from fortis.core.progression.next_loads import least_reps
from fortis.core.reason import Reason
from fortis.core.strength.estimate import load_for
from fortis.core.structure.model import FixedReps, Hold, MaxReps, RepRange, ToFailure, planned_reserve
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.units import plain
from fortis.core.value import Kilograms, Value

MOST_RESERVE = 5
"""Reserves from here on are all one: plenty."""
CHANGE_FROM = 2
"""A reserve off the plan by so many calls for another load at once; one is watched."""
LEAST_CUT, MOST_CUT, MOST_RISE = Decimal("0.975"), Decimal("0.85"), Decimal("1.05")


class Course(StrEnum):
    """What to do with the rest of an exercise."""

    GO_ON = "go on"
    WATCH = "watch"
    LIGHTER = "lighter"
    HEAVIER = "heavier"
    STOP = "stop"


class Advice(Value):
    """What to do with the rest of an exercise, and why. `kg` is the new load where it changes.

    `side` is what then hangs on each sleeve. `again` is the advice where the set before it was to be watched too.
    """

    course: Course
    text: str
    kg: Kilograms | None = None
    side: tuple[Kilograms, ...] = ()
    reasons: tuple[Reason, ...] = ()
    again: "Advice | None" = None


class Outcome(Value):
    """How a bout went, as far as advice goes: full reps, reps left (None: not told), and why it ended."""

    reps: int
    reserve: int | None = None
    ended: Ended | None = None

    @property
    def key(self) -> str:
        """How the outcome is looked up: `5/2`, `4/-` where no reserve was told, `3/0/form slipped`."""
        left = "-" if self.reserve is None else str(min(self.reserve, MOST_RESERVE))
        return f"{self.reps}/{left}" + ("/form" if self.ended is Ended.FORM else "")


def advise(each: PlannedSet, bout: PlannedBout, outcome: Outcome, sets_left: int, kit: Kit | None) -> Advice | None:
    """Advise on the rest of an exercise after a bout. None where nothing of it is left, or nothing is asked.

    `sets_left` are the sets of the exercise still to come. The estimated max behind the bout, as far as reps and
    reserve tell it, is what a new load is worked out from.
    """
    asked = least_reps(bout.reps)
    if not asked or not sets_left or bout.settled is None or each.is_warm_up:
        return None
    kg = bout.settled.kg
    if outcome.reps < asked - (1 if isinstance(bout.effort, ToFailure) else 0):
        return _short(each, bout, outcome, kit)
    if outcome.ended is Ended.FORM:
        return Advice(
            course=Course.WATCH,
            text=f"Form slipped. Stay at {plain(kg)}, and end the next set before it slips.",
            reasons=(Reason(code="form slipped", text="The form went before the reps did."),),
        )
    planned = planned_reserve(bout.effort)
    if planned is None or outcome.reserve is None or isinstance(bout.effort, ToFailure):
        return None
    spare = outcome.reps - asked if isinstance(bout.reps, FixedReps) else 0
    off = min(outcome.reserve, MOST_RESERVE) + spare - int(planned)
    if off <= -CHANGE_FROM:
        return _change(
            each, bout, outcome, Course.LIGHTER, kit, f"{outcome.reserve} left where {planned} were planned."
        )
    if off == -1:
        return _watch(each, bout, outcome, kit, int(planned))
    if off >= CHANGE_FROM and outcome.reserve >= CHANGE_FROM:
        return _change(
            each, bout, outcome, Course.HEAVIER, kit, f"{outcome.reserve} left where {planned} were planned."
        )
    return Advice(course=Course.GO_ON, text=f"As planned: stay at {plain(kg)}.")


def _short(each: PlannedSet, bout: PlannedBout, outcome: Outcome, kit: Kit | None) -> Advice:
    asked = least_reps(bout.reps)
    why = f"{outcome.reps} of {asked} reps."
    if outcome.reps * 2 < asked and len(each.bouts) == 1 and asked > 2:
        return Advice(
            course=Course.STOP,
            text=f"{why} Under half of what was asked: stop this lift here, the day is not for it.",
            reasons=(
                Reason(code="far short", text=why, values={"asked": Decimal(asked), "done": Decimal(outcome.reps)}),
            ),
        )
    return _change(each, bout, outcome, Course.LIGHTER, kit, why)


def _watch(each: PlannedSet, bout: PlannedBout, outcome: Outcome, kit: Kit | None, planned: int) -> Advice:
    lighter = _load(each, bout, outcome, Course.LIGHTER, kit)
    words = "none left" if outcome.reserve == 0 else f"{outcome.reserve} left"
    text = f"{words.capitalize()} where {planned} {'was' if planned == 1 else 'were'} planned."
    reasons = (Reason(code="harder than planned", text=text),)
    if lighter is None:
        return Advice(course=Course.WATCH, text=text, reasons=reasons)
    again = Advice(
        course=Course.LIGHTER,
        text=f"Again {text.lower()} Drop to {plain(lighter.kg)}.",
        kg=lighter.kg,
        side=lighter.side,
        reasons=reasons,
    )
    text += f" If the next set ends so too, drop to {plain(lighter.kg)}."
    return Advice(course=Course.WATCH, text=text, reasons=reasons, again=again)


def _change(
    each: PlannedSet, bout: PlannedBout, outcome: Outcome, course: Course, kit: Kit | None, why: str
) -> Advice:
    assert bout.settled is not None
    build = _load(each, bout, outcome, course, kit)
    code = "harder than planned" if course is Course.LIGHTER else "easier than planned"
    reason = Reason(code=code, text=why)
    if build is None:
        if course is Course.HEAVIER:
            return Advice(
                course=Course.GO_ON, text=f"{why} No load in reach is a small step up: add a rep instead."
            )
        text = f"{why} Nothing lighter is close: rest longer, and stop a rep earlier."
        return Advice(course=Course.WATCH, text=text, reasons=(reason,))
    way = "Drop to" if course is Course.LIGHTER else "Go to"
    text = f"{why} {way} {plain(build.kg)} for the rest."
    return Advice(course=course, text=text, kg=build.kg, side=build.side, reasons=(reason,))


def _load(each: PlannedSet, bout: PlannedBout, outcome: Outcome, course: Course, kit: Kit | None) -> Build | None:
    """The load that the outcome allows for what was asked: a little less at least, a little more at most."""
    assert bout.settled is not None
    kg = bout.settled.kg
    left = min(outcome.reserve or 0, MOST_RESERVE)
    share = Decimal(str(load_for(1.0, least_reps(bout.reps), int(planned_reserve(bout.effort) or 0))))
    told = Decimal(str(load_for(1.0, max(outcome.reps, 1), left)))
    wanted = kg * share / told
    if course is Course.LIGHTER:
        wanted = min(max(wanted, kg * MOST_CUT), kg * LEAST_CUT)
        found = nearest(kit, each.lift, wanted, Where.BELOW) if kit else Build(kg=wanted)
        return found if kg * MOST_CUT - 1 <= found.kg < kg else None
    wanted = min(wanted, kg * MOST_RISE)
    found = nearest(kit, each.lift, wanted, Where.BELOW) if kit else Build(kg=wanted)
    return found if found.kg > kg else None


def outcomes(bout: PlannedBout) -> list[Outcome]:
    """Every plausible outcome of a bout: no rep to a few over, each reserve, told or not, and with bad form."""
    match bout.reps:
        case FixedReps(count=most) | RepRange(high=most):
            pass
        case MaxReps() | Hold():
            return []
    found = []
    for reps in range(min(most, 30) + 3):
        found += [Outcome(reps=reps, reserve=left) for left in (None, *range(MOST_RESERVE + 1))]
        found += [Outcome(reps=reps, reserve=left, ended=Ended.FORM) for left in (None, *range(MOST_RESERVE + 1))]
    return found


class AdviceTable(Value):
    """All advice of a session: `places` names a table for each bout, a table has the advice by outcome."""

    advice: tuple[Advice, ...] = ()
    tables: tuple[Mapping[str, int], ...] = ()
    places: Mapping[str, int] = {}


def all_advice(prescription: Prescription, kit: Kit | None) -> AdviceTable:
    """The advice for every bout and every plausible outcome."""
    advice: dict[Advice, int] = {}
    tables: list[dict[str, int]] = []
    known: dict[tuple[object, ...], int] = {}
    places: dict[str, int] = {}
    for each in prescription.work_sets:
        left = _sets_left(prescription.work_sets, each)
        for bout in each.bouts:
            settled = bout.settled.kg if bout.settled else None
            same = (each.exercise, bout.reps, bout.effort, settled, left > 0, len(each.bouts) == 1)
            if same not in known:
                advised = ((outcome.key, advise(each, bout, outcome, left, kit)) for outcome in outcomes(bout))
                known[same] = len(tables)
                tables.append({key: advice.setdefault(each_, len(advice)) for key, each_ in advised if each_})
            if tables[known[same]]:
                places[str(each.position(bout))] = known[same]
    return AdviceTable(advice=tuple(advice), tables=tuple(tables), places=places)


def _sets_left(sets: Sequence[PlannedSet], each: PlannedSet) -> int:
    return sum(
        (other.group, other.entry) == (each.group, each.entry) and other.number > each.number for other in sets
    )
