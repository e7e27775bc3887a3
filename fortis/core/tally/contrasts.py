"""What the log says of things that were never tried on purpose: sessions with them beside sessions without.

Each session is read by what was known before it, so that getting stronger is no difference. It is seen, not tried:
whatever else went along with them goes along in the numbers. Bounds are Welch's, four in five.
"""

from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import datetime, timedelta
from enum import StrEnum
from statistics import fmean, median, variance
from typing import NamedTuple

from scipy.special import stdtrit

from fortis.core.tally.shown import BoutShown
from fortis.core.value import Value

FEWEST = 4
"""Sessions each way from which a difference is told."""
HEAVY, FEW = 0.87, 2
"""A bout that a session opens with for its own sake: from such a share of the max, for so many reps at most."""
SETS = 3
"""Reps from which a bout is one of the sets that are set beside each other."""
LONG, SHORT = 1.25, 1.0
"""Rests beside the usual one, from which and below which they count as long and as short."""
RESTED, SOON = timedelta(days=3, hours=12), timedelta(days=2, hours=12)
"""Time since the last session of any lift, from which and below which it counts as long and as short."""
NOON, EVENING = 12, 17
BOUNDS = 0.8


class What(StrEnum):
    """What is set beside what."""

    SINGLE = "a heavy single first"
    REST = "long rests"
    ORDER = "after other lifts"
    DAYS = "days of rest"
    HOUR = "in the evening"


class Contrast(Value):
    """Reps beyond what was to be expected: how many more with something than without, and the sessions each way."""

    what: What
    times: int
    without: int
    change: float
    low: float
    high: float

    @property
    def may_be_chance(self) -> bool:
        """Whether the bounds hold no difference at all."""
        return self.low <= 0 <= self.high


class SessionShown(NamedTuple):
    """A session of a lift: when it began where the lifter was, the time since the last session, and its bouts."""

    began: datetime
    since: timedelta | None
    bouts: Sequence[BoutShown]

    @property
    def off(self) -> float | None:
        """The reps by which its sets went beyond what was to be expected, on average."""
        found = [each.off for each in self.bouts if each.reps >= SETS]
        return fmean(found) if found else None


def contrasts(sessions: Iterable[SessionShown]) -> Iterator[Contrast]:
    """What of a lift's sessions can be set beside each other."""
    told = [(each, off) for each in sessions if (off := each.off) is not None]
    for what, has in _SPLITS.items():
        split = [(has(each), off) for each, off in told]
        ones, others = ([off for of, off in split if of is way] for way in (True, False))
        if min(len(ones), len(others)) >= FEWEST:
            yield _beside(what, ones, others)
    pairs = list(_rests([each for each, _ in told]))
    if len(pairs) >= FEWEST:
        yield _paired(What.REST, pairs)


def _single(session: SessionShown) -> bool | None:
    """Whether it opened with a heavy single or double."""
    first = session.bouts[0]
    if first.share >= HEAVY and first.reps <= FEW:
        return True
    return None if any(each.share >= HEAVY for each in session.bouts) else False


def _order(session: SessionShown) -> bool | None:
    """Whether lifts with the same muscles came before it."""
    return session.bouts[0].tired


def _days(session: SessionShown) -> bool | None:
    if session.since is None:
        return None
    return True if session.since >= RESTED else False if session.since <= SOON else None


def _hour(session: SessionShown) -> bool | None:
    hour = session.began.hour
    return True if hour >= EVENING else False if hour < NOON else None


_SPLITS: dict[What, Callable[[SessionShown], bool | None]] = {
    What.SINGLE: _single,
    What.ORDER: _order,
    What.DAYS: _days,
    What.HOUR: _hour,
}


def _rests(sessions: Sequence[SessionShown]) -> Iterator[float]:
    """For every session that has sets after long rests and after short ones the difference, the day the same."""
    sets = [[each for each in session.bouts if each.place and each.reps >= SETS] for session in sessions]
    rests = [each.rest for of in sets for each in of]
    usual = median(rests) if rests else 0.0
    for of in sets:
        long = [each.off for each in of if each.rest >= LONG * usual]
        short = [each.off for each in of if each.rest < SHORT * usual]
        if long and short:
            yield fmean(long) - fmean(short)


def welch(ones: Sequence[float], others: Sequence[float], bounds: float = BOUNDS) -> tuple[float, float]:
    """How far the mean of some, two at least, lies above that of others, and how far off that may be either way."""
    parts = [variance(of) / len(of) for of in (ones, others)]
    whole = sum(parts)
    free = 1.0
    if whole:
        free = whole**2 / sum(part**2 / (len(of) - 1) for part, of in zip(parts, (ones, others), strict=True))
    return fmean(ones) - fmean(others), _within(whole, free, bounds)


def _within(spread: float, free: float, bounds: float) -> float:
    return float(stdtrit(free, (1 + bounds) / 2) * spread**0.5)


def _beside(what: What, ones: Sequence[float], others: Sequence[float]) -> Contrast:
    return _contrast(what, len(ones), len(others), *welch(ones, others))


def _paired(what: What, found: Sequence[float]) -> Contrast:
    within = _within(variance(found) / len(found), len(found) - 1, BOUNDS)
    return _contrast(what, len(found), len(found), fmean(found), within)


def _contrast(what: What, times: int, without: int, change: float, within: float) -> Contrast:
    return Contrast(
        what=what, times=times, without=without, change=change, low=change - within, high=change + within
    )
