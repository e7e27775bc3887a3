"""A lift that is flat for longer than usual for this lifter, and what the log suggests to try.

It rose when three sessions together showed clearly more than the best before. What was done since the last rise is
set beside what was done while it rose; what differs is told, or what has been the same all along (common practice).
"""

from collections.abc import Iterator, Sequence
from datetime import date, timedelta
from decimal import Decimal
from itertools import pairwise
from math import inf, log
from statistics import fmean, median, pstdev
from typing import NamedTuple

from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate
from fortis.core.tally.went import LiftWent
from fortis.core.value import Value

TOGETHER = 3
"""So many sessions together show a max: one alone is as good or bad as its day."""
RISE = 0.015
"""It rose where they show so much more than the best before, as a share: less is chance."""
LEAST_WEEKS, USUAL_WEEKS, TIMES = 6.0, 3.0, 2.0
"""A lift is flat for long after so many times the usual weeks between rises, and six at least; usual is three where
there were too few rises to tell."""
FEWEST_RISES, FEWEST_SESSIONS = 3, 5
GONE = timedelta(days=21)
"""A lift that was not trained for so long is not flat: it rests."""
BREAK = timedelta(days=14)
LESS, MORE = 0.75, 1.4
"""Shares of what was done while it rose that are worth a word."""
FURTHER, AT_THE_END = 0.7, 0.5
"""Reps left: so many more than while it rose, and so few that nearly every set goes to its end."""
OFTEN = 1.5
"""Times a week under which coming twice is the first thing to try."""
ALIKE = 0.15
"""Reps that vary by less than such a share of their mean are the same all along."""


class Stall(Value):
    """A lift that is flat since a day, for `weeks`; `usual` ones lie between its rises, where that is known."""

    since: date
    weeks: float
    usual: float | None
    suggestions: tuple[Reason, ...]


class _Done(NamedTuple):
    """What was done of a lift in a time, by the week and by the set."""

    times: float
    sets: float
    left: float | None
    reps: float


def stalled(went: Sequence[tuple[date, LiftWent]], known: Estimate, today: date) -> Stall | None:
    """Whether a lift is flat for longer than usual, by its sessions, the oldest first.

    `known` is its max as it is known today, with the curve and the calls by which all sessions are read alike: what
    was learned of those since is no gain.
    """
    told = [(on, shown) for on, each in went if (shown := _shown(each, known)) is not None]
    rises = _rises(told)
    if not rises or today - told[-1][0] > GONE:
        return None
    since, weeks = rises[-1], (told[-1][0] - rises[-1]) / timedelta(weeks=1)
    between = [(after - before) / timedelta(weeks=1) for before, after in pairwise(rises)]
    usual = median(between) if len(rises) > FEWEST_RISES else None
    flat = [(on, each) for on, each in went if on > since]
    if weeks < max(LEAST_WEEKS, TIMES * (USUAL_WEEKS if usual is None else usual)) or len(flat) < FEWEST_SESSIONS:
        return None
    rose = [(on, each) for on, each in went if since - timedelta(weeks=2 * weeks) <= on <= since]
    return Stall(since=since, weeks=weeks, usual=usual, suggestions=tuple(_suggestions(rose, flat)))


def _shown(lift: LiftWent, known: Estimate) -> float | None:
    """The logarithm of the most that a session showed by one bout; None where nobody said how many were left."""
    shown = [
        log(bout.kg / known.curve.share(max(bout.reps + (bout.to_failure - bout.reps) * known.calls, 1.0)))
        for bout in lift.bouts
        if bout.to_failure is not None and bout.kg > 0
    ]
    return max(shown, default=None)


def _rises(told: Sequence[tuple[date, float]]) -> list[date]:
    """When it was first known, and every day on which three sessions showed clearly more than the best before."""
    rises: list[date] = []
    best = -inf
    for at in range(TOGETHER - 1, len(told)):
        shown = fmean(level for _, level in told[at - TOGETHER + 1 : at + 1])
        if shown >= best + RISE:
            rises.append(told[at][0])
            best = shown
    return rises


def _done(of: Sequence[tuple[date, LiftWent]]) -> _Done:
    weeks = max((of[-1][0] - of[0][0]) / timedelta(weeks=1), 1.0)
    bouts = [bout for _, each in of for bout in each.bouts]
    left = [bout.to_failure - bout.reps for bout in bouts if bout.to_failure is not None]
    times = (len(of) - 1) / weeks
    return _Done(
        times=times,
        sets=times * len(bouts) / len(of),
        left=fmean(left) if left else None,
        reps=fmean(bout.reps for bout in bouts) if bouts else 0.0,
    )


def _suggestions(rose: Sequence[tuple[date, LiftWent]], flat: Sequence[tuple[date, LiftWent]]) -> Iterator[Reason]:
    """What differs from when it rose, else what has been the same all along."""
    now = _done(flat)
    then = _done(rose) if len(rose) >= FEWEST_SESSIONS else None
    found = [*_breaks(flat), *_frequency(then, now), *_volume(then, now), *_effort(then, now)]
    found += _range(flat, now)
    if not found:
        text = (
            "What you do is what it rose by. For four weeks try one other thing: waves, a heavy single before "
            "lighter sets, clusters, or another range of reps; then look whether it rose."
        )
        found = [Reason(code="same", text=text)]
    yield from found


def _breaks(flat: Sequence[tuple[date, LiftWent]]) -> Iterator[Reason]:
    longest = max((after - before for (before, _), (after, _) in pairwise(flat)), default=timedelta())
    if longest >= BREAK:
        weeks = round(longest / timedelta(weeks=1))
        yield _told("break", f"There was a break of {weeks} weeks in it: some of it is only the way back.", weeks)


def _frequency(then: _Done | None, now: _Done) -> Iterator[Reason]:
    if then and now.times < LESS * then.times:
        text = (
            f"You train it {now.times:.1f} times a week since, {then.times:.1f} while it rose: come as often again."
        )
        yield _told("frequency", text, now.times, then.times)
    elif now.times < OFTEN:
        text = f"You train it {now.times:.1f} times a week: twice is about twice the chances to add something."
        yield _told("frequency", text, now.times)


def _volume(then: _Done | None, now: _Done) -> Iterator[Reason]:
    if then and now.sets < LESS * then.sets:
        text = f"{now.sets:.0f} sets a week since, {then.sets:.0f} while it rose: add some of them again."
        yield _told("volume", text, now.sets, then.sets)
    elif then and now.sets > MORE * then.sets:
        text = f"{now.sets:.0f} sets a week since, {then.sets:.0f} while it rose: the rest may only tire you."
        yield _told("volume", text, now.sets, then.sets)


def _effort(then: _Done | None, now: _Done) -> Iterator[Reason]:
    if now.left is None:
        return
    if then and then.left is not None and now.left > then.left + FURTHER:
        text = f"You stop with {now.left:.1f} left, {then.left:.1f} while it rose: go as near again."
        yield _told("effort", text, now.left, then.left)
    elif now.left < AT_THE_END:
        text = f"Nearly every set goes to its end, {now.left:.1f} left: leave one or two for four weeks."
        yield _told("effort", text, now.left)


def _range(flat: Sequence[tuple[date, LiftWent]], now: _Done) -> Iterator[Reason]:
    reps = [bout.reps for _, each in flat for bout in each.bouts]
    if len(reps) > 1 and pstdev(reps) < ALIKE * now.reps:
        other = "threes and fives" if now.reps > 6 else "sixes to tens"
        text = f"It has been sets of about {now.reps:.0f} all along: try {other} for four weeks."
        yield _told("range", text, now.reps)


def _told(code: str, text: str, *numbers: float) -> Reason:
    names = ("now", "then")
    values = {name: Decimal(str(round(number, 2))) for name, number in zip(names, numbers, strict=False)}
    return Reason(code=code, text=text, values=values)
