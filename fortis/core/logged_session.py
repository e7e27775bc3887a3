"""A session put together from a log of its bouts: the text and the plan it comes to, and what was done of it.

Nothing is known of what was planned, so the plan is what was done, and nothing is asked of its effort.
"""

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from decimal import Decimal
from itertools import groupby, takewhile, zip_longest
from operator import attrgetter
from statistics import median
from typing import NamedTuple, TypeVar

from fortis.core.cache import cached
from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind
from fortis.core.logged import LoggedBout
from fortis.core.performance import Asked, PerformedBout
from fortis.core.structure.model import (
    BodyPlus,
    Bout,
    Entry,
    FixedReps,
    Group,
    Hold,
    LoadTarget,
    Session,
    Set,
    Sets,
    Side,
    Tempo,
    Terms,
    Weight,
)
from fortis.core.structure.notation import LONGEST_PHASE, LONGEST_SECONDS, MOST_BOUTS_IN_A_SET, MOST_SETS
from fortis.core.structure.prescription import WARM_UP, PlannedBout, PlannedSet, Position, Prescription, Settled
from fortis.core.structure.writing import write
from fortis.core.units import Unit, from_kg

Told = TypeVar("Told")

USUAL_REST = 180
"""Seconds between sets whose times the log does not tell (common practice)."""
SHORT_REST = 15
"""Seconds inside a set whose times the log does not tell (common practice)."""
USUAL_REP = 3
"""Seconds of a rep (common practice)."""
REST_BEFORE_WORK = 60
"""Seconds after warm-ups whose rests the log does not tell."""
REST_STEP = 5
"""Rests are written in steps of so many seconds."""


class DoneBout(NamedTuple):
    """A bout that was done: when it began, where its rest was told, and when it ended."""

    bout: PerformedBout
    began_at: datetime | None
    done_at: datetime


@dataclass(frozen=True)
class LoggedSession:
    """A session as it can be kept: as planned and as text in the notation, settled, and what was done, in order."""

    session: Session
    written: str
    prescription: Prescription
    done: tuple[DoneBout, ...]


@dataclass
class _Line:
    """The bouts of one lift that stand together, its warm-ups apart."""

    lift: Exercise
    warm_ups: list[LoggedBout] = field(default_factory=list)
    sets: dict[int, list[LoggedBout]] = field(default_factory=dict)

    def add(self, bout: LoggedBout) -> None:
        if bout.is_warm_up:
            self.warm_ups.append(bout)
        else:
            self.sets.setdefault(bout.set, []).append(bout)

    @property
    def first(self) -> LoggedBout:
        """What it is known by: its first bout that counts."""
        return next(iter(self.sets.values()), self.warm_ups)[0]


def put_together(bouts: Sequence[LoggedBout], unit: Unit = Unit.KG, library: Library = LIBRARY) -> LoggedSession:
    """Put the bouts of one session together, in the order of their times, which are apart (`spaced`).

    Those of a group are done in turn where each of its lifts has as many sets. Where the log numbers no groups, a
    lift is one for as long as nothing else is done, and lifts that take turns set by set are a group.
    """
    ordered = sorted(bouts, key=attrgetter("performed_at"))
    groups = [even for group in _groups(ordered, library) for even in _even(group)]
    title = _title(ordered[0].session)
    session = Session(title=title, groups=tuple(_group(group, unit) for group in groups))
    placed = list(_placed(groups))
    return LoggedSession(
        session=session,
        written=write(session),
        prescription=Prescription(title=title, sets=tuple(_planned(placed))),
        done=tuple(_done(ordered, placed)),
    )


_DAY = re.compile(r"\s*\d{4}-\d{2}-\d{2}(\s+\d+)?$")


def _title(session: str) -> str:
    """What a session is called, without the day and the number that tell it from others of its name."""
    return " ".join(re.sub(r"[#\x00-\x1f]", " ", _DAY.sub("", session)).split())


# --- which bouts belong together --------------------------------------------------------------------------


def _groups(bouts: Sequence[LoggedBout], library: Library) -> list[list[_Line]]:
    lifts = {name: library.find(name) for name in {bout.exercise for bout in bouts}}
    if all(bout.group is not None for bout in bouts):
        return [_lines(of_group, lifts) for _, of_group in groupby(sorted(bouts, key=_number), key=_number)]
    runs = list(_runs(bouts, lifts))
    groups: list[list[_Line]] = []
    while runs:
        members, rounds = _turns(runs)
        taken = [bout for run in runs[: members * rounds] for bout in run]
        groups.append(_lines(taken, lifts, apart=rounds == 1))
        del runs[: members * rounds]
    return groups


def _number(bout: LoggedBout) -> int:
    return bout.group or 0


def _lines(bouts: Iterable[LoggedBout], lifts: dict[str, Exercise], apart: bool = False) -> list[_Line]:
    """The lines of a group, a lift each; with `apart` all of it is one line."""
    lines: dict[str, _Line] = {}
    for bout in bouts:
        lift = lifts[bout.exercise]
        lines.setdefault("" if apart else lift.id, _Line(lift)).add(bout)
    return list(lines.values())


def _runs(bouts: Sequence[LoggedBout], lifts: dict[str, Exercise]) -> Iterator[list[LoggedBout]]:
    """Bouts of one lift and set-up that follow each other; warm-ups go with the lift whatever is worn for them."""
    run: list[LoggedBout] = []
    for bout in bouts:
        goes_on = bool(run) and lifts[run[0].exercise].id == lifts[bout.exercise].id
        worn = next((each.setup.key for each in run if not each.is_warm_up), None)
        if goes_on and not bout.is_warm_up and worn not in (None, bout.setup.key):
            goes_on = False
        if not goes_on and run:
            yield run
            run = []
        run.append(bout)
    if run:
        yield run


MOST_IN_TURN = 6
"""Lifts that may take turns: more of them are a list."""


def _turns(runs: Sequence[Sequence[LoggedBout]]) -> tuple[int, int]:
    """How many lifts take turns from here on, and how often: `(1, 1)` where the first is done by itself."""
    names = [run[0].exercise if _is_one_set(run) else None for run in runs[: MOST_IN_TURN * MOST_SETS]]
    for members in range(2, min(MOST_IN_TURN, len(names) // 2) + 1):
        turn = names[:members]
        if None in turn or len(set(turn)) < members:
            return 1, 1
        turns = (names[at : at + members] for at in range(0, len(names), members))
        rounds = sum(1 for _ in takewhile(turn.__eq__, turns))
        if rounds > 1:
            return members, rounds
    return 1, 1


def _is_one_set(run: Sequence[LoggedBout]) -> bool:
    return len({bout.set for bout in run if not bout.is_warm_up}) == 1


def _even(group: list[_Line]) -> list[list[_Line]]:
    """A group whose lifts go round together; else each lift for itself."""
    if len({len(line.sets) for line in group}) == 1 and (len(group) == 1 or group[0].sets):
        return [group]
    return [[line] for line in group]


# --- as text and plan -------------------------------------------------------------------------------------


def _group(lines: Sequence[_Line], unit: Unit) -> Group:
    entries = tuple(_entry(line, unit, in_turn=len(lines) > 1) for line in lines)
    rounds = len(lines[0].sets) if len(lines) > 1 else None
    return Group(entries=entries, rounds=rounds)


def _entry(line: _Line, unit: Unit, *, in_turn: bool) -> Entry:
    sets = list(line.sets.values()) or [line.warm_ups]
    written = [_set(bouts, line.lift, unit) for bouts in sets]
    rests = [each[0].rest_seconds for each in sets]
    runs: list[Sets] = []
    at = 0
    for each, alike in groupby(written):
        left = sum(1 for _ in alike)
        while left:
            many = 1 if in_turn else min(left, MOST_SETS)
            rest = None if in_turn else _usual(rests[at + 1 : at + many + 1])
            runs.append(Sets(each=each, count=many, rest=rest))
            at, left = at + many, left - many
    if in_turn and len(set(written)) == 1:
        runs = runs[:1]
    return Entry(exercise=line.lift.name, sets=tuple(runs), setup=line.first.setup)


def _usual(rests: Iterable[int | None]) -> int | None:
    """The usual one of some rests, in steps a lifter would write; None where none is told."""
    told = [rest for rest in rests if rest]
    return min(max(round(median(told) / REST_STEP) * REST_STEP, REST_STEP), LONGEST_SECONDS) if told else None


def _set(bouts: Sequence[LoggedBout], lift: Exercise, unit: Unit) -> Set:
    written = list(_bouts(bouts[:MOST_BOUTS_IN_A_SET], lift, unit))
    load = _common(each.terms.load for each in written)
    within = _common(each.rest for each in written[:-1])
    if len(written) == 1 or (load is None and within is None):
        return Set(bouts=tuple(written))
    left = [
        each.model_copy(
            update={
                "terms": each.terms.model_copy(update={"load": None}) if load else each.terms,
                "rest": None if within else each.rest,
            }
        )
        for each in written
    ]
    return Set(bouts=tuple(left), terms=Terms(load=load), within=within)


def _common(told: Iterable[Told | None]) -> Told | None:
    """What all of them are, None where they differ."""
    (first, *others) = set(told) or {None}
    return None if others else first


def _bouts(bouts: Sequence[LoggedBout], lift: Exercise, unit: Unit) -> Iterator[Bout]:
    """The bouts of a set as a plan has them; one on the left and its like on the right are one on each side."""
    at = 0
    while at < len(bouts):
        bout, after = bouts[at], bouts[at + 1] if at + 1 < len(bouts) else None
        side = None if bout.side is Side.BOTH else bout.side
        if after and {bout.side, after.side} == {Side.LEFT, Side.RIGHT} and _same(bout, after):
            side = Side.EACH if bout.side is Side.LEFT else Side.RIGHT_FIRST
            at += 1
        at += 1
        rest = _usual([bouts[at].rest_seconds]) if at < len(bouts) else None
        terms = Terms(load=_load(bout, lift, unit), tempo=_tempo(bout.tempo), side=side)
        yield Bout(reps=_reps(bout), terms=terms, rest=rest)


def _same(one: LoggedBout, other: LoggedBout) -> bool:
    return (one.reps, one.seconds, one.load_kg) == (other.reps, other.seconds, other.load_kg)


def _reps(bout: LoggedBout) -> FixedReps | Hold:
    return _reps_of(bout.reps, bout.seconds)


@cached(1_024)
def _reps_of(reps: int, seconds: int) -> FixedReps | Hold:
    return Hold(seconds=seconds) if seconds and not reps else FixedReps(count=max(reps, 1))


def _load(bout: LoggedBout, lift: Exercise, unit: Unit) -> LoadTarget | None:
    return _load_of(bout.load_kg, lift.load_kind is LoadKind.BODY, unit)


@cached(4_096)
def _load_of(kg: Decimal, body: bool, unit: Unit) -> LoadTarget | None:
    amount = from_kg(kg, unit)
    if body or kg < 0:
        return BodyPlus(amount=amount, unit=unit)
    return Weight(amount=amount, unit=unit) if amount else None


_TEMPO = re.compile(r"(\d{1,2})-(\d{1,2})-(\d{1,2}|x)-(\d{1,2})")


def _tempo(told: str) -> Tempo | None:
    found = _TEMPO.fullmatch(told.lower())
    if found is None or any(part != "x" and int(part) > LONGEST_PHASE for part in found.groups()):
        return None
    lowering, bottom, lifting, top = found.groups()
    return Tempo(
        lowering=int(lowering),
        bottom=int(bottom),
        lifting="x" if lifting == "x" else int(lifting),
        top=int(top),
    )


# --- as planned and as done -------------------------------------------------------------------------------


class _Placed(NamedTuple):
    """A set of a line in its place: the bouts of it, and the position of the first."""

    at: Position
    line: _Line
    bouts: Sequence[LoggedBout]


def _placed(groups: Sequence[Sequence[_Line]]) -> Iterator[_Placed]:
    """Every set with its place, in the order of the plan: warm-ups, then round by round."""
    for group, lines in enumerate(groups, start=1):
        for entry, line in enumerate(lines, start=1):
            if line.warm_ups:
                yield _Placed(Position(group=group, round=1, entry=entry, set=WARM_UP, bout=1), line, line.warm_ups)
        for number, turn in enumerate(zip(*(line.sets.values() for line in lines), strict=True), start=1):
            for entry, (line, bouts) in enumerate(zip(lines, turn, strict=True), start=1):
                yield _Placed(Position(group=group, round=number, entry=entry, set=number, bout=1), line, bouts)


def _planned(placed: Iterable[_Placed]) -> Iterator[PlannedSet]:
    """What was done as a plan that is settled."""
    for at, line, bouts in placed:
        yield PlannedSet(
            group=at.group,
            round=at.round,
            entry=at.entry,
            number=at.set,
            exercise=line.lift.name,
            lift=line.lift,
            setup=bouts[0].setup if at.is_warm_up else line.first.setup,
            bouts=tuple(
                _planned_bout(number, bout, line.lift, after)
                for number, (bout, after) in enumerate(zip_longest(bouts, bouts[1:]), start=1)
            ),
            rest=REST_BEFORE_WORK if at.is_warm_up else USUAL_REST,
        )


def _planned_bout(number: int, bout: LoggedBout, lift: Exercise, after: LoggedBout | None) -> PlannedBout:
    load = _load(bout, lift, Unit.KG)
    settled = None
    if load is not None:
        body = isinstance(load, BodyPlus)
        settled = Settled(kg=bout.load_kg, wanted_kg=bout.load_kg, body=body, **_pull(bout))
    return PlannedBout(
        number=number,
        reps=_reps(bout),
        load=load,
        tempo=_tempo(bout.tempo),
        side=bout.side,
        rest=(after.rest_seconds or 0) if after else 0,
        settled=settled,
    )


def _pull(bout: LoggedBout) -> dict[str, Decimal | None]:
    """What it weighed low, locked out and on average, where bands or chains hung."""
    bottom, top = bout.bottom_kg, bout.top_kg
    mean = None if bottom is None or top is None else (bottom + top) / 2
    return {"bottom_kg": bottom, "top_kg": top, "mean_kg": mean}


def _done(ordered: Sequence[LoggedBout], placed: Iterable[_Placed]) -> Iterator[DoneBout]:
    """What was done, in order."""
    places = {
        id(bout): (at.model_copy(update={"bout": number}), line.lift)
        for at, line, bouts in placed
        for number, bout in enumerate(bouts, start=1)
    }
    before: datetime | None = None
    for bout in ordered:
        began_at = None
        if before is not None and bout.rest_seconds is not None:
            began_at = min(before + timedelta(seconds=bout.rest_seconds), bout.performed_at)
        before = bout.performed_at
        yield DoneBout(_performed(bout, *places[id(bout)]), began_at, bout.performed_at)


def _performed(bout: LoggedBout, at: Position, lift: Exercise) -> PerformedBout:
    load = _load(bout, lift, Unit.KG)
    return PerformedBout(
        position=at,
        exercise=lift.name,
        lift_id=lift.id,
        setup=bout.setup,
        side=bout.side,
        kg=None if load is None else bout.load_kg,
        body=isinstance(load, BodyPlus),
        **_pull(bout),
        reps=bout.reps,
        partial_reps=bout.partial_reps,
        seconds=bout.seconds,
        reserve=bout.reserve,
        or_more=bout.or_more,
        ended=bout.ended,
        note=bout.note,
        asked=Asked(reps=_reps(bout), tempo=tempo) if (tempo := _tempo(bout.tempo)) else None,
    )


def spaced(bouts: Iterable[LoggedBout]) -> list[LoggedBout]:
    """Bouts of one session with their times apart, the earliest first.

    Where the log does not tell them apart, sets and the bouts in them rest as is usual.
    """
    apart: list[LoggedBout] = []
    for bout in sorted(bouts, key=attrgetter("performed_at")):
        before = apart[-1] if apart else None
        if before and bout.performed_at <= before.performed_at:
            same_set = (before.exercise, before.set, before.is_warm_up) == (
                bout.exercise,
                bout.set,
                bout.is_warm_up,
            )
            rest = (SHORT_REST if same_set else USUAL_REST) if bout.rest_seconds is None else bout.rest_seconds
            took = max(rest + (bout.seconds or bout.reps * USUAL_REP), 1)
            apart.append(bout.model_copy(update={"performed_at": before.performed_at + timedelta(seconds=took)}))
        else:
            apart.append(bout)
    return apart
