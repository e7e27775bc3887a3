"""The watch: whether the log shows that a light week is due, by signs that lifters and coaches go by.

Each sign sets the last two weeks beside the six before them. Of each the best and the worst session are left out,
so that one bad day is none; what cannot be told counts as nothing. The signs are common practice, their weights and
the mark are set by made-up lifters who tire (see `docs/model.md`).
"""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from datetime import date, timedelta
from enum import StrEnum
from statistics import fmean, median

from fortis.core.season.easy import EasyWeek, weeks_since
from fortis.core.structure.model import LiftKey
from fortis.core.tally.went import BoutWent, LiftWent, SessionWent
from fortis.core.value import Value

RECENT, BEFORE = timedelta(days=14), timedelta(days=42)
"""What is looked at, and what that is set beside."""
FEWEST_SESSIONS = 3
"""Sessions that it takes on either side before the watch says anything."""
MARK = 0.45
"""From here on a light week is due."""


class Mark(StrEnum):
    """What the watch looks at."""

    MISSED = "missed targets"
    FALLING = "estimates falling"
    RESERVE = "reserve at equal loads"
    PACE = "pace at equal loads"
    READINESS = "readiness"
    WEEKS = "weeks since the last light one"


WEIGHTS: Mapping[Mark, float] = {
    Mark.MISSED: 0.2,
    Mark.FALLING: 0.4,
    Mark.RESERVE: 0.25,
    Mark.PACE: 0.1,
    Mark.READINESS: 0.15,
    Mark.WEEKS: 0.15,
}
"""What each sign counts where all of it is there: no one reaches the mark alone."""
FULL: Mapping[Mark, float] = {
    Mark.MISSED: 0.25,
    Mark.FALLING: 0.025,
    Mark.RESERVE: 1.5,
    Mark.PACE: 0.06,
    Mark.READINESS: 0.8,
    Mark.WEEKS: 4.0,
}
"""How far from usual a sign is there in full: a share of the bouts asked, of the max, reps, a share of the seconds
of a rep, points of five, and weeks beyond `PATIENT`."""
NOISE: Mapping[Mark, float] = {
    Mark.MISSED: 0.05,
    Mark.FALLING: 0.008,
    Mark.RESERVE: 0.2,
    Mark.PACE: 0.02,
    Mark.READINESS: 0.25,
    Mark.WEEKS: 0.0,
}
"""What is nothing out of the usual."""
PATIENT = 3
"""Weeks of building that nobody calls long (common practice: three or four)."""


class Sign(Value):
    """A sign: how far from usual, in its own unit (see `FULL`), None where that cannot be told, and what it counts.

    `strength` is from 0, nothing out of the usual, to 1, all of it. `lifts` are those that show it, `sessions` how
    many sessions it was told by.
    """

    mark: Mark
    off: float | None
    strength: float
    weight: float
    lifts: tuple[str, ...] = ()
    sessions: int = 0

    @property
    def counts(self) -> float:
        """What it adds."""
        return self.weight * self.strength


class Watch(Value):
    """What the watch shows. `known` is False while there are too few sessions to say anything.

    `weeks_since` are those of training since the last easy week, if there `was_easy` one, or since the log begins.
    """

    known: bool
    signs: tuple[Sign, ...]
    weeks_since: int | None
    was_easy: bool

    @property
    def total(self) -> float:
        """What all signs come to."""
        return sum(each.counts for each in self.signs)

    @property
    def is_due(self) -> bool:
        """Whether a light week is due."""
        return self.known and self.total >= MARK


def watched(sessions: Sequence[SessionWent], easy: Sequence[EasyWeek], today: date) -> Watch:
    """Look at the sessions of the last eight weeks, the oldest first, and at the easy weeks there were.

    After an easy week everything begins anew: what was before it shows nothing of now.
    """
    since = max([today - RECENT, *(each.ends for each in easy if each.ends <= today)])
    hard = [each for each in sessions if not any(week.has(each.day) for week in easy)]
    recent = [each for each in hard if since < each.day <= today]
    before = [each for each in hard if today - RECENT - BEFORE < each.day <= since]
    many = weeks_since(sessions, easy, today)
    known = len(recent) >= FEWEST_SESSIONS and len(before) >= FEWEST_SESSIONS
    signs = tuple(_signs(before, recent, many)) if known else ()
    return Watch(known=known, signs=signs, weeks_since=many, was_easy=bool(easy))


def _signs(before: Sequence[SessionWent], recent: Sequence[SessionWent], many: int | None) -> Iterator[Sign]:
    yield _missed(before, recent)
    yield _falling(before, recent)
    yield _at_equal_loads(Mark.RESERVE, before, recent, _less_left)
    yield _at_equal_loads(Mark.PACE, before, recent, _slower)
    yield _readiness(before, recent)
    yield _sign(Mark.WEEKS, None if many is None else float(max(many - PATIENT, 0)))


Off = tuple[date, str, float]
"""What a lift of a session shows: the day, the lift, how far from usual."""


def _sign(mark: Mark, off: float | None, lifts: Iterable[str] = (), sessions: int = 0) -> Sign:
    beyond = 0.0 if off is None else (off - NOISE[mark]) / (FULL[mark] - NOISE[mark])
    return Sign(
        mark=mark,
        off=off,
        strength=min(max(beyond, 0.0), 1.0),
        weight=WEIGHTS[mark],
        lifts=tuple(dict.fromkeys(lifts)),
        sessions=sessions,
    )


def _of(mark: Mark, found: Sequence[Off]) -> Sign:
    """A sign by what the lifts of some sessions show, the best and the worst session left out."""
    days = {day: fmean(off for of, _, off in found if of == day) for day, _, _ in found}
    if len(days) < FEWEST_SESSIONS:
        return _sign(mark, None)
    inner = sorted(days, key=lambda day: days[day])[1:-1]
    others = [each for each in found if each[0] in inner]
    off = fmean(each for _, _, each in others)
    lifts = [lift for _, lift, each in sorted(others, key=lambda each: -each[2]) if each > NOISE[mark]]
    return _sign(mark, off, lifts, len(days))


def _missed(before: Sequence[SessionWent], recent: Sequence[SessionWent]) -> Sign:
    """Bouts that fell short of what was asked, beside how many usually do."""
    asked = sum(lift.asked for each in before for lift in each.lifts)
    if not asked:
        return _sign(Mark.MISSED, None)
    usual = sum(lift.missed for each in before for lift in each.lifts) / asked
    found = [
        (each.day, lift.exercise, lift.missed / lift.asked - usual)
        for each in recent
        for lift in each.lifts
        if lift.asked
    ]
    return _of(Mark.MISSED, found)


def _falling(before: Sequence[SessionWent], recent: Sequence[SessionWent]) -> Sign:
    """What each lift of a session says of its max, below what the weeks before said in the middle."""
    levels: dict[LiftKey, list[float]] = {}
    for lift in _lifts(before):
        if lift.level is not None:
            levels.setdefault(lift.key, []).append(lift.level)
    found = [
        (each.day, lift.exercise, median(levels[lift.key]) - lift.level)
        for each in recent
        for lift in each.lifts
        if lift.level is not None and lift.key in levels
    ]
    return _of(Mark.FALLING, found)


def _at_equal_loads(
    mark: Mark,
    before: Sequence[SessionWent],
    recent: Sequence[SessionWent],
    beside: Callable[[BoutWent, BoutWent], float | None],
) -> Sign:
    """What bouts show beside the latest of the weeks before with the same load at the same place of the lift."""
    was: dict[tuple[LiftKey, int, float], BoutWent] = {}
    for lift in _lifts(before):
        was |= {(lift.key, bout.place, bout.kg): bout for bout in lift.bouts}
    found = []
    for each in recent:
        for lift in each.lifts:
            pairs = [(was.get((lift.key, bout.place, bout.kg)), bout) for bout in lift.bouts]
            offs = [off for then, now in pairs if then and (off := beside(then, now)) is not None]
            if offs:
                found.append((each.day, lift.exercise, fmean(offs)))
    return _of(mark, found)


def _less_left(then: BoutWent, now: BoutWent) -> float | None:
    if then.to_failure is None or now.to_failure is None:
        return None
    return then.to_failure - now.to_failure


def _slower(then: BoutWent, now: BoutWent) -> float | None:
    if then.pace is None or now.pace is None or then.reps != now.reps:
        return None
    return now.pace / then.pace - 1


def _readiness(before: Sequence[SessionWent], recent: Sequence[SessionWent]) -> Sign:
    told = [each.readiness for each in before if each.readiness is not None]
    if not told:
        return _sign(Mark.READINESS, None)
    usual = fmean(told)
    found = [(each.day, "", usual - each.readiness) for each in recent if each.readiness is not None]
    return _of(Mark.READINESS, found).model_copy(update={"lifts": ()})


def _lifts(sessions: Iterable[SessionWent]) -> Iterator[LiftWent]:
    return (lift for each in sessions for lift in each.lifts)
