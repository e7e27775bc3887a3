"""Advice in the middle of a session: after a bout, what its outcome says about the rest of the exercise.

The rules run before the session too: for every bout and every plausible outcome the advice is known in advance,
so that a phone without a connection looks it up.
"""

from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from typing import NamedTuple

from fortis.core.adjustments import LoadChange
from fortis.core.cache import cached
from fortis.core.exercises import Exercise
from fortis.core.loading.kit import Kit
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import Build, Where, nearest
from fortis.core.performance import Ended
from fortis.core.played import with_loads
from fortis.core.reason import Reason
from fortis.core.strength.estimate import load_for
from fortis.core.structure.counting import is_rep_target, least_of, most_of
from fortis.core.structure.model import FixedReps, OfPrevious, ToFailure, planned_reserve
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.units import plain
from fortis.core.value import Kilograms, Number, Value

MOST_RESERVE = Decimal(5)
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

    `sleeve` is what then hangs on each end of the bar, and `loads` is the change of the plan that it takes, its
    sets counted from the one judged. `again` is the advice where the set before it was to be watched too.
    """

    course: Course
    text: str
    kg: Kilograms | None = None
    sleeve: tuple[Kilograms, ...] = ()
    loads: tuple[LoadChange, ...] = ()
    reasons: tuple[Reason, ...] = ()
    again: "Advice | None" = None


class Outcome(Value):
    """How a bout went, as far as advice goes: what counts of it, reps left (None: not told), and why it ended."""

    number: int
    reserve: Number | None = None
    ended: Ended | None = None


@dataclass(frozen=True)
class Bar:
    """What advice has to load with: the kit, and body weight where it is known."""

    kit: Kit | None = None
    body_kg: Decimal | None = None


Moves = dict[Decimal, tuple[LoadChange, ...]]
"""What becomes of the sets to come, by the new load of the bout that was judged."""


def advise(
    each: PlannedSet,
    bout: PlannedBout,
    outcome: Outcome,
    following: Sequence[PlannedSet],
    bar: Bar,
    moves: Moves | None = None,
) -> Advice | None:
    """Advise on the rest of an exercise after a bout. None where nothing of it is left, or nothing is asked.

    `following` are the sets of the exercise still to come, `moves` what is known already of changing their loads.
    The estimated max behind the bout, as far as reps and reserve tell it, is what a new load is worked out from.
    """
    asked = least_of(bout.reps)
    if not is_rep_target(bout.reps) or not following or bout.settled is None or each.is_warm_up:
        return None
    judged = _Judged(each, bout, outcome, following, bar, {} if moves is None else moves)
    kg = bout.settled.kg
    if outcome.number < asked - (1 if isinstance(bout.effort, ToFailure) else 0):
        return judged.short()
    if outcome.ended is Ended.FORM:
        return Advice(
            course=Course.WATCH,
            text=f"Form slipped. Stay at {judged.load(kg)}, and end the next set before it slips.",
            reasons=(Reason(code="form slipped", text="The form went before the reps did."),),
        )
    planned = planned_reserve(bout.effort)
    if planned is None or outcome.reserve is None or isinstance(bout.effort, ToFailure):
        return None
    spare = outcome.number - asked if isinstance(bout.reps, FixedReps) else 0
    off = min(outcome.reserve, MOST_RESERVE) + spare - planned
    reserve = min(outcome.reserve, MOST_RESERVE)
    or_more = " or more" if reserve == MOST_RESERVE else ""
    left = f"{plain(reserve)}{or_more} left where {plain(planned)} {'was' if planned == 1 else 'were'} planned."
    if off <= -CHANGE_FROM:
        return judged.change(Course.LIGHTER, left)
    if off <= -1:
        return judged.watch(planned)
    if off >= CHANGE_FROM and outcome.reserve >= CHANGE_FROM:
        return judged.change(Course.HEAVIER, left)
    if off < 0:
        return Advice(course=Course.GO_ON, text=f"Half a rep harder than planned: stay at {judged.load(kg)}.")
    return Advice(course=Course.GO_ON, text=f"As planned: stay at {judged.load(kg)}.")


@dataclass(frozen=True)
class _Judged:
    """A bout with its outcome, what is still to come of its exercise, and what there is to load with."""

    each: PlannedSet
    bout: PlannedBout
    outcome: Outcome
    following: Sequence[PlannedSet]
    bar: Bar
    moves: "Moves"

    @property
    def kg(self) -> Decimal:
        assert self.bout.settled is not None
        return self.bout.settled.kg

    @property
    def lift(self) -> Exercise:
        return self.each.lift

    @property
    def part(self) -> Decimal | None:
        assert self.bout.settled is not None
        return body_part(self.lift, self.bout.settled.body, self.bar.body_kg)

    def load(self, kg: Decimal) -> str:
        """A load in words."""
        assert self.bout.settled is not None
        if not self.bout.settled.body:
            return plain(kg)
        return f"bw{'+' if kg > 0 else '−'}{plain(abs(kg))}" if kg else "bw"

    def short(self) -> Advice:
        asked, done = least_of(self.bout.reps), self.outcome.number
        why = f"{done} of {asked} reps."
        if done * 2 < asked and len(self.each.bouts) == 1 and asked > 2:
            values = {"asked": Decimal(asked), "done": Decimal(done)}
            return Advice(
                course=Course.STOP,
                text=f"{why} Under half of what was asked: stop this lift here, today is not the day for it.",
                reasons=(Reason(code="far short", text=why, values=values),),
            )
        return self.change(Course.LIGHTER, why)

    def watch(self, planned: Decimal) -> Advice:
        lighter = self._build(Course.LIGHTER)
        words = "none left" if not self.outcome.reserve else f"{plain(self.outcome.reserve)} left"
        text = f"{words.capitalize()} where {plain(planned)} {'was' if planned == 1 else 'were'} planned."
        reasons = (Reason(code="harder than planned", text=text),)
        loads = self._moved(lighter) if lighter else ()
        if lighter is None or not loads:
            return Advice(course=Course.WATCH, text=text, reasons=reasons)
        again = Advice(
            course=Course.LIGHTER,
            text=f"Again {text.lower()} Drop to {self.load(lighter.kg)}.",
            kg=lighter.kg,
            sleeve=lighter.sleeve,
            loads=loads,
            reasons=reasons,
        )
        text += f" If the next set ends so too, drop to {self.load(lighter.kg)}."
        return Advice(course=Course.WATCH, text=text, reasons=reasons, again=again)

    def change(self, course: Course, why: str) -> Advice:
        build = self._build(course)
        code = "harder than planned" if course is Course.LIGHTER else "easier than planned"
        reason = Reason(code=code, text=why)
        loads = self._moved(build) if build else ()
        if build is None or not loads:
            if course is Course.HEAVIER:
                text = f"{why} No load in reach is a small step up: add a rep instead."
                return Advice(course=Course.GO_ON, text=text)
            text = f"{why} Nothing lighter is close: rest longer, and stop a rep earlier."
            return Advice(course=Course.WATCH, text=text, reasons=(reason,))
        way = "Drop to" if course is Course.LIGHTER else "Go to"
        text = f"{why} {way} {self.load(build.kg)} for the rest."
        return Advice(course=course, text=text, kg=build.kg, sleeve=build.sleeve, loads=loads, reasons=(reason,))

    def _build(self, course: Course) -> Build | None:
        """The load that the outcome allows for what was asked: a little less at least, a little more at most.

        Worked out of the whole weight moved; where body weight is not known, a step up or down is all that can be
        said.
        """
        part = self.part or Decimal(0)
        moved = self.kg + part
        planned = float(planned_reserve(self.bout.effort) or 0)
        share = Decimal(str(load_for(1.0, least_of(self.bout.reps), planned)))
        far_short = self.outcome.number < least_of(self.bout.reps) - 1
        reserve = _believed(self.outcome.reserve) if far_short else self.outcome.reserve
        left = float(min(reserve or Decimal(0), MOST_RESERVE))
        share_done = Decimal(str(load_for(1.0, max(self.outcome.number, 1), left)))
        wanted = moved * share / share_done
        if course is Course.LIGHTER:
            wanted = min(max(wanted, moved * MOST_CUT), moved * LEAST_CUT)
            found = self._nearest(wanted - part)
            lowest = moved * MOST_CUT - part - (Decimal("2.5") if part else 1)
            return found if lowest <= found.kg < self.kg else None
        found = self._nearest(min(wanted, moved * MOST_RISE) - part)
        return found if found.kg > self.kg else None

    def _nearest(self, kg: Decimal) -> Build:
        bare = self.bout.settled is not None and self.bout.settled.body and kg == 0
        return Build(kg=kg) if self.bar.kit is None or bare else nearest(self.bar.kit, self.lift, kg, Where.BELOW)

    def _moved(self, build: Build) -> tuple[LoadChange, ...]:
        """What becomes of the sets to come."""
        if build.kg not in self.moves:
            self.moves[build.kg] = self._worked_out(build)
        return self.moves[build.kg]

    def _worked_out(self, build: Build) -> tuple[LoadChange, ...]:
        """The same bout of each set to come in proportion, and what hangs together with it."""
        part = self.part or Decimal(0)
        ratio = (build.kg + part) / (self.kg + part) if self.kg + part else Decimal(1)
        changes: dict[tuple[int, Decimal], LoadChange] = {}
        for later in self.following:
            for bout in _together(later, self.bout.number):
                assert bout.settled is not None
                was = bout.settled.kg
                if (bout.number, was) in changes:
                    continue
                found = build if was == self.kg else self._nearest((was + part) * ratio - part)
                if found.kg != was:
                    changes[bout.number, was] = LoadChange(
                        set=later.number - self.each.number,
                        bout=bout.number,
                        was_kg=was,
                        kg=found.kg,
                        sleeve=found.sleeve,
                        advised=True,
                    )
        return tuple(changes.values())


def _together(later: PlannedSet, number: int) -> Iterator[PlannedBout]:
    """The bout of a set that stands where the judged one stood, those of its load, and the drops from it."""
    same = next((bout for bout in later.open_bouts if bout.number == number and bout.settled), None)
    if same is None or same.settled is None:
        return
    following = False
    for bout in later.bouts:
        following = bout is same or (following and isinstance(bout.load, OfPrevious))
        if bout.settled and not bout.left_out and (following or bout.settled.kg == same.settled.kg):
            yield bout


def _believed(left: Decimal | None) -> Decimal | None:
    """Who misses a target by two reps and more had one left at most, whatever they call it."""
    return None if left is None else min(Decimal(int(left)), Decimal(1))


NOT_TOLD = ""
_LEFT = (None, *(Decimal(half) / 2 for half in range(int(MOST_RESERVE) * 2 + 1)))
"""Reserves that are told apart: not told, and none to plenty in steps of a half."""
_ENDED = (None, Ended.FORM)
NUMBERS_OVER = 2
MOST_NUMBER = 32


class AdviceTable(Value):
    """All advice of a session, to be looked up.

    `positions` has by the position of a bout, and by the load it was to be done with, the number of its table. A
    table has the number of an advice, -1 for none, by what counts of the bout, then by `reserves` (the reserve as
    said, `5+` for five or more, empty where not told), then by `ended`.
    """

    advice: tuple[Advice, ...] = ()
    reserves: Mapping[str, int] = {}
    ended: Mapping[str, int] = {}
    tables: tuple[tuple[tuple[tuple[int, ...], ...], ...], ...] = ()
    positions: Mapping[str, Mapping[str, int]] = {}


def all_advice(prescription: Prescription, bar: Bar) -> AdviceTable:
    """The advice for every bout of a session as played, its outcomes, and the loads that advice leads to."""
    advice: list[Advice] = []
    tables: list[Table] = []
    positions: dict[str, dict[str, int]] = {}
    for sets in prescription.by_entry().values():
        line = _line(tuple(each for each in sets if not each.is_warm_up and each.open_bouts), bar)
        for position, kg, table in line.places:
            positions.setdefault(position, {})[kg] = len(tables) + table
        tables += [_moved_on(table, len(advice)) for table in line.tables]
        advice += line.advice
    return AdviceTable(
        advice=tuple(advice),
        reserves=_reserve_names(),
        ended={NOT_TOLD: 0, Ended.MET: 0, Ended.FORM: 1, Ended.STUCK: 0},
        tables=tuple(tables),
        positions=positions,
    )


Table = tuple[tuple[tuple[int, ...], ...], ...]


def _moved_on(table: Table, by: int) -> Table:
    return tuple(tuple(tuple(at if at < 0 else at + by for at in ended) for ended in number) for number in table)


def load_name(kg: Decimal) -> str:
    """A load as the client names it: the shortest decimal of a double."""
    return repr(float(kg)).removesuffix(".0")


def _reserve_names() -> dict[str, int]:
    """Every way to tell a reserve, with its row in a table; beyond `MOST_RESERVE` all are one."""
    names = {NOT_TOLD: 0}
    for half in range(21):
        at = 1 + min(half, int(MOST_RESERVE) * 2)
        name = plain(Decimal(half) / 2)
        names |= {name: at, f"{name}+": at}
    return names


MOST_CHANGES, MOST_TABLES = 40, 80
"""So many changes of a line's loads are followed, into so many tables: more than any line of a real session makes.
After another one the advice comes from the server."""


class _Line(NamedTuple):
    """The advice of one line, its tables, and for each position and load the number of a table."""

    advice: tuple[Advice, ...]
    tables: tuple[Table, ...]
    places: tuple[tuple[str, str, int], ...]


@cached(256)
def _line(sets: tuple[PlannedSet, ...], bar: Bar) -> _Line:
    """The tables of a line as it stands, and as it would stand after each change of load that they advise."""
    making = _Making(bar)
    for loads, number in list(making.tabled(sets).items())[:MOST_CHANGES]:
        if len(making.tables) > MOST_TABLES:
            break
        making.tabled(with_loads(sets, [change.after(number) for change in loads]))
    places = tuple((position, kg, table) for (position, kg), table in making.places.items())
    return _Line(tuple(making.advice), tuple(making.tables), places)


def _alike(each: PlannedSet, bout: PlannedBout, following: Sequence[PlannedSet]) -> Hashable:
    """What two bouts of a line share whose advice is the same.

    What they ask, and the sets to come but for repeats.
    """
    to_come: dict[Hashable, int] = {}
    for later in following:
        shape = tuple(
            (other.number, other.settled and other.settled.kg, isinstance(other.load, OfPrevious))
            for other in later.open_bouts
        )
        to_come.setdefault(shape, later.number - each.number)
    kg = bout.settled and bout.settled.kg
    asked = bout.number, bout.reps, bout.effort, bout.range_of_motion, kg, len(each.bouts)
    return asked, tuple(to_come.items())


class _Making:
    """Fills the tables of a line; the same advice, and the same table, is kept once."""

    def __init__(self, bar: Bar) -> None:
        self.bar = bar
        self.advice: dict[Advice, int] = {}
        self.tables: dict[Table, int] = {}
        self.places: dict[tuple[str, str], int] = {}
        self.known: dict[Hashable, tuple[Table, list[Advice]]] = {}

    def tabled(self, sets: Sequence[PlannedSet]) -> dict[tuple[LoadChange, ...], int]:
        """Fill the tables of some sets where they are not known yet.

        Returns the changes of load they advise, each with the number of the first set that does.
        """
        changes: dict[tuple[LoadChange, ...], int] = {}
        for at, each in enumerate(sets):
            for bout in each.open_bouts:
                if bout.settled is None:
                    continue
                place = str(each.position(bout)), load_name(bout.settled.kg)
                if place in self.places:
                    continue
                following = sets[at + 1 :]
                alike = _alike(each, bout, following)
                if alike not in self.known:
                    self.known[alike] = self._table(each, bout, following)
                table, advised = self.known[alike]
                if advised:
                    self.places[place] = self.tables.setdefault(table, len(self.tables))
                for one in advised:
                    for loads in (one.loads, one.again.loads if one.again else ()):
                        if loads:
                            changes.setdefault(loads, each.number)
        return changes

    def _table(
        self, each: PlannedSet, bout: PlannedBout, following: Sequence[PlannedSet]
    ) -> tuple[Table, list[Advice]]:
        most = most_of(bout.reps) if is_rep_target(bout.reps) and following else None
        if most is None:
            return (), []
        least = least_of(bout.reps)
        moves: Moves = {}
        known: dict[tuple[int, Decimal | None, Ended | None], Advice | None] = {}

        def number_of(number: int, left: Decimal | None, ended: Ended | None) -> int:
            if number < least - 1:
                left, ended = _believed(left), None
            key = number, left, ended
            if key not in known:
                outcome = Outcome.model_construct(number=number, reserve=left, ended=ended)
                known[key] = advise(each, bout, outcome, following, self.bar, moves)
            found = known[key]
            return -1 if found is None else self.advice.setdefault(found, len(self.advice))

        table = tuple(
            tuple(tuple(number_of(number, left, ended) for ended in _ENDED) for left in _LEFT)
            for number in range(min(most, MOST_NUMBER - NUMBERS_OVER) + NUMBERS_OVER + 1)
        )
        return table, [found for found in known.values() if found]
