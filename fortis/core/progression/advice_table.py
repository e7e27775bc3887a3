"""The advice of a whole session, worked out before it is asked for.

For every bout and every plausible outcome the advice is known in advance, so that a phone without a connection
looks it up. Where two outcomes count together, the advice after the second is with the first.
"""

from collections.abc import Hashable, Iterable, Mapping, Sequence
from dataclasses import replace
from decimal import Decimal
from itertools import pairwise
from typing import NamedTuple

from fortis.core.adjustments import LoadChange
from fortis.core.cache import cached
from fortis.core.line import by_line
from fortis.core.line_demand import demand_of
from fortis.core.line_loads import lead_of
from fortis.core.loading.moved import body_part
from fortis.core.performance import Ended
from fortis.core.played import entry_name
from fortis.core.progression.advice import (
    MOST_RESERVE,
    SAME_LIFT,
    SAME_MUSCLES,
    Advice,
    Bar,
    Judged,
    Line,
    Loaded,
    Other,
    OtherBout,
    Outcome,
    Placed,
    believed,
    is_added,
)
from fortis.core.progression.expectation import LineAsks
from fortis.core.progression.finding import Finding, finding_of
from fortis.core.progression.lifted import with_others
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import is_rep_target, least_of, most_of
from fortis.core.structure.model import LiftKey
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.structure.timeline import timeline
from fortis.core.tally.records import Alike, Bests, tempo_key
from fortis.core.units import plain
from fortis.core.value import Value

Maxes = Mapping[LiftKey, Estimate]
"""The maxes that were known before a session."""
NONE_KNOWN: Maxes = {}
NONE_DONE: Bests = {}
Followed = Mapping[str, Sequence[LoadChange]]
"""By entry the changes of loads since it followed the day."""
NONE_FOLLOWED: Followed = {}

NOT_TOLD = ""
_LEFT = (None, *(Decimal(half) / 2 for half in range(int(MOST_RESERVE) * 2 + 1)))
"""Reserves that are told apart: not told, and none to plenty in steps of a half."""
_BELIEVED = {missing: [believed(left, missing) for left in _LEFT] for missing in (1, 2)}
"""What is believed of them by the reps that are missing; beyond two it is the same."""
_ENDED = (None, Ended.FORM)
NUMBERS_OVER = 2
MOST_NUMBER = 32


class AdviceTable(Value):
    """All advice of a session, to be looked up.

    `positions` has by the position of a bout, and by the load it was to be done with, the number of its table. A
    table has the number of an advice, -1 for none, by what counts of the bout, then by `reserves` (the reserve as
    said, `5+` for five or more, empty where not told), then by `ended`. `lifted` has the number of an advice by the
    entry of a bout, the load it was to be done with, and another one that was lifted.
    """

    advice: tuple[Advice, ...] = ()
    reserves: Mapping[str, int] = {}
    ended: Mapping[str, int] = {}
    tables: tuple[tuple[tuple[tuple[int, ...], ...], ...], ...] = ()
    positions: Mapping[str, Mapping[str, int]] = {}
    lifted: Mapping[str, Mapping[str, Mapping[str, int]]] = {}


def lines_of(
    prescription: Prescription,
    bar: Bar,
    maxes: Maxes = NONE_KNOWN,
    bests: Bests = NONE_DONE,
    followed: Followed = NONE_FOLLOWED,
) -> list[Line]:
    """The lines of a session as they stood before any followed the day; `followed` is what was changed since.

    How other lines follow the day is told of the loads that they had before.
    """
    steps = timeline(prescription).steps
    at = {(each.group, each.entry, each.number): at for at, each in enumerate(prescription.sets)}
    lines = []
    for of_line in by_line(prescription).values():
        sets = tuple(each for each in of_line if not each.is_warm_up and each.open_bouts)
        if not sets:
            continue
        first, lead = sets[0], lead_of([bout for each in sets for bout in each.open_bouts])
        part = body_part(first.lift, is_added(sets), bar.body_kg)
        demand = demand_of(prescription, sets, lead, part or Decimal(0), steps)
        asks = LineAsks(demand.parts, maxes.get(first.key), part)
        places = tuple(at[each.group, each.entry, each.number] for each in sets)
        kind = Alike(first.lift.id, first.setup.key, tempo_key(first.bouts[0].tempo))
        since = tuple(followed.get(entry_name(first), ()))
        lines.append(Line(sets, places, asks, (), bar, tuple(bests.get(kind, ())), since))
    return [
        replace(
            line, others=tuple(found for other in lines if other is not line and (found := _other(other, line)))
        )
        for line in lines
    ]


def _other(line: Line, of: Line) -> Other | None:
    """A line as far as it follows the day of another; None where it does not, or is over by then."""
    lift, judged, part = line.sets[0].lift, of.sets[0].lift, line.asks.part
    follows = SAME_LIFT if lift.id == judged.id else SAME_MUSCLES if set(lift.prime) & set(judged.prime) else None
    if follows is None or part is None or line.at[-1] < of.at[0]:
        return None
    bouts = [
        OtherBout(at, Loaded(each.number, bout.number, bout.settled.kg))
        for at, each in zip(line.at, line.sets, strict=True)
        for bout in each.open_bouts
        if bout.settled and is_rep_target(bout.reps) and at > of.at[0]
    ]
    own = part, is_added(line.sets), follows, tuple(bouts)
    return Other(line.entry, line.sets[0].exercise, lift, *own) if bouts else None


def all_advice(
    prescription: Prescription,
    bar: Bar,
    maxes: Maxes = NONE_KNOWN,
    bests: Bests = NONE_DONE,
    followed: Followed = NONE_FOLLOWED,
) -> AdviceTable:
    """The advice for every bout of a session as played, its outcomes, and the loads that advice leads to.

    It is told as it was before any line followed the day, and `followed` is what was changed since. `maxes` are
    those that were known before the session, `bests` what was done before it.
    """
    advice: list[Advice] = []
    tables: list[Table] = []
    positions: dict[str, dict[str, int]] = {}
    lifted: dict[str, dict[str, dict[str, int]]] = {}
    moved: dict[str, set[tuple[LoadChange, ...]]] = {}

    def add(told: _Told) -> None:
        for position, kg, table in told.places:
            positions.setdefault(position, {})[kg] = len(tables) + table
        tables.extend(_moved_on(table, len(advice)) for table in told.tables)
        for planned, other, number in told.lifted:
            lifted.setdefault(told.entry, {}).setdefault(planned, {})[other] = len(advice) + number
        advice.extend(told.advice)
        for entry, loads in told.moves:
            moved.setdefault(entry, set()).add(loads)

    for of_entry in prescription.by_entry().values():
        if finding := finding_of(of_entry, bar):
            add(_finding(finding))
    lines = lines_of(prescription, bar, maxes, bests, followed)
    for line in lines:
        add(_told(line, tuple(sorted(moved.get(line.entry, ()), key=repr))))
    return AdviceTable(
        advice=tuple(advice),
        reserves=_reserve_names(),
        ended={NOT_TOLD: 0, Ended.MET: 0, Ended.FORM: 1, Ended.STUCK: 0},
        tables=tuple(tables),
        positions=positions,
        lifted=lifted,
    )


Table = tuple[tuple[tuple[int, ...], ...], ...]


def _moved_on(table: Table, by: int) -> Table:
    moved = {ended: tuple(at if at < 0 else at + by for at in ended) for ended in set().union(*table)}
    return tuple(tuple(map(moved.__getitem__, number)) for number in table)


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


class _Told(NamedTuple):
    """The advice of one line, its tables, and for each position and load the number of a table.

    `moves` are the changes of other lines that it leads to, `lifted` the numbers of the advice after another load
    than the planned one was lifted, by both.
    """

    entry: str
    advice: tuple[Advice, ...]
    tables: tuple[Table, ...]
    places: tuple[tuple[str, str, int], ...]
    moves: tuple[tuple[str, tuple[LoadChange, ...]], ...]
    lifted: tuple[tuple[str, str, int], ...] = ()


@cached(256, waited_for=True)
def _told(line: Line, moved: tuple[tuple[LoadChange, ...], ...]) -> _Told:
    """The tables of a line as it came to stand, and as it would stand after each change of load that leads there.

    `moved` are the changes that other lines lead to.
    """
    making, stages = _Making(), line.stages()
    for (before, _), (_, until) in pairwise(stages):
        making.tabled(before, [each for each in before.sets if each.number < until])
    now = stages[-1].line
    changes = [
        *[(loads, 0) for loads in moved],
        *_changes(making.tabled(now, now.sets)).items(),
    ]
    for loads, number in changes[:MOST_CHANGES]:
        if len(making.tables) > MOST_TABLES:
            break
        changed = now.with_loads([change.after(number) for change in loads])
        making.tabled(changed, changed.sets)
    places = tuple((position, kg, table) for (position, kg), table in making.places.items())
    every = (one for advice in making.advice for one in (advice, advice.again) if one)
    moves = {(other.entry, other.loads) for one in every for other in one.others}
    advice, lifted = list(making.advice), []
    for planned_kg, others in with_others(now).items():
        for kg, after in others.items():
            lifted.append((load_name(planned_kg), load_name(kg), len(advice)))
            advice.append(after)
    moved_on = tuple(sorted(moves, key=repr))
    return _Told(line.entry, tuple(advice), tuple(making.tables), places, moved_on, tuple(lifted))


@cached(64)
def _finding(finding: Finding) -> _Told:
    """The tables of a way up that finds a load, and the loads of the work it leads to."""
    advice: dict[Advice, int] = {}
    tables: list[Table] = []
    places = []
    for bout in finding.way_up.bouts:
        if bout.settled is None:
            continue

        def advised(number: int, left: Decimal | None, of: PlannedBout = bout) -> int:
            found = finding.advise(of, Outcome(number, left))
            return -1 if found is None else advice.setdefault(found, len(advice))

        places.append((str(finding.way_up.position(bout)), load_name(bout.settled.kg), len(tables)))
        tables.append(
            tuple(
                tuple((advised(number, left),) * len(_ENDED) for left in _LEFT)
                for number in range(least_of(bout.reps) + NUMBERS_OVER + 1)
            )
        )
    moves = dict.fromkeys((entry_name(finding.way_up), each.loads) for each in advice if each.loads)
    return _Told(entry_name(finding.way_up), tuple(advice), tuple(tables), tuple(places), tuple(moves))


def _changes(advised: Iterable[tuple[int, Iterable[Advice]]]) -> dict[tuple[LoadChange, ...], int]:
    """The changes of load that are advised, each with the number of the first set that does."""
    changes: dict[tuple[LoadChange, ...], int] = {}
    for number, after in advised:
        for one in after:
            for loads in (one.loads, one.again.loads if one.again else ()):
                if loads:
                    changes.setdefault(loads, number)
    return changes


class _Making:
    """Fills the tables of a line; the same advice, and the same table, is kept once."""

    def __init__(self) -> None:
        self.advice: dict[Advice, int] = {}
        self.tables: dict[Table, int] = {}
        self.places: dict[tuple[str, str], int] = {}
        self.placed: dict[Hashable, Placed] = {}
        self.known: dict[Hashable, tuple[Table, list[Advice]]] = {}

    def tabled(self, line: Line, sets: Iterable[PlannedSet]) -> list[tuple[int, list[Advice]]]:
        """Fill the tables of sets of a line where they are not known yet. Returns what is advised by set."""
        found = []
        for each in sets:
            for bout in each.open_bouts:
                if bout.settled is None:
                    continue
                place = str(each.position(bout)), load_name(bout.settled.kg)
                if place in self.places:
                    continue
                placed = line.placed(each, bout)
                if placed is None or placed.is_last:
                    continue
                alike = placed.kind, line.expected(each, bout)
                if alike not in self.known:
                    of_kind = self.placed.setdefault(placed.kind, placed)
                    self.known[alike] = self._table(Judged(of_kind, alike[1]))
                table, advised = self.known[alike]
                if advised:
                    self.places[place] = self.tables.setdefault(table, len(self.tables))
                found.append((each.number, advised))
        return found

    def _table(self, judged: Judged) -> tuple[Table, list[Advice]]:
        placed = judged.placed
        most, least = most_of(placed.bout.reps), placed.least
        if most is None:
            return (), []
        numbers: dict[int, int] = {}
        advised: list[Advice] = []

        def number_of(number: int, left: Decimal | None, ended: Ended | None) -> int:
            found = judged.advise(Outcome(number, left, ended))
            if found is None:
                return -1
            if id(found) not in numbers:
                numbers[id(found)] = self.advice.setdefault(found, len(self.advice))
                advised.append(found)
            return numbers[id(found)]

        of_form = number_of(least, None, Ended.FORM)

        def row(number: int) -> tuple[tuple[int, ...], ...]:
            """What is advised after so many reps: form counts where all were done, calls where asked for."""
            if placed.is_far_short(number):
                return ((number_of(number, None, None),) * 2,) * len(_LEFT)
            if number < least:
                told = _BELIEVED[min(least - number, 2)]
                found = {left: number_of(number, left, None) for left in dict.fromkeys(told)}
                return tuple((found[left],) * 2 for left in told)
            if placed.planned is None:
                return ((number_of(least, None, None), of_form),) * len(_LEFT)
            return tuple((number_of(number, left, None), of_form) for left in _LEFT)

        table = tuple(map(row, range(min(most, MOST_NUMBER - NUMBERS_OVER) + NUMBERS_OVER + 1)))
        return table, advised
