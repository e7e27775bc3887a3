"""What the watch shows, in words: whether a light week is due, and how those that were served the lifter."""

from datetime import date, datetime, timedelta

from fastapi import APIRouter
from pydantic import BaseModel

from fortis.api.views import with_bounds
from fortis.api.work import Now, Work
from fortis.core.season.easy import Served, easy_weeks, returns, served
from fortis.core.season.model import LightSchool
from fortis.core.season.reading import easy_mondays
from fortis.core.season.watch import MARK, NOISE, Mark, Sign, Watch, watched
from fortis.core.tally.week import DAYS, monday_of
from fortis.store import lifter, seasons
from fortis.store.cache import cached
from fortis.store.went import sessions_went

router = APIRouter(prefix="/api/watch", tags=["season"])

MOST_NAMED = 3
"""More lifts than these are a number."""


class SignView(BaseModel):
    """A sign in words, what it counts, and what it would count where all of it is there."""

    mark: Mark
    text: str
    counts: float
    weight: float


class ServedView(BaseModel):
    """How the weeks of a school served, in words. `change` is the share above the last time before, with bounds."""

    school: LightSchool | None
    text: str
    times: int
    change: float
    low: float
    high: float


class WatchView(BaseModel):
    """What the watch shows. `total` is what all signs come to; from `mark` on a light week is due.

    `planned` says that the season has one, or a week off, in this week or the next.
    """

    is_due: bool
    planned: bool
    text: str
    total: float
    mark: float
    signs: list[SignView]
    served: list[ServedView]


@router.get("")
def show(work: Work, now: Now) -> WatchView:
    """What the watch shows now."""
    return cached(work, ("watch", lifter.today(work, now)), lambda: _watch(work, now))


def _watch(work: Work, now: datetime) -> WatchView:
    today, sessions = lifter.today(work, now), sessions_went(work, now)
    easy = easy_weeks(sessions, today)
    found = watched(sessions, easy, today)
    return WatchView(
        is_due=found.is_due,
        planned=_is_planned(work, monday_of(today)),
        text=_verdict(found),
        total=round(found.total, 3),
        mark=MARK,
        signs=[
            SignView(mark=each.mark, text=_words(each, found), counts=round(each.counts, 3), weight=each.weight)
            for each in found.signs
        ],
        served=[
            ServedView(
                school=each.school,
                text=_served(each),
                times=each.times,
                change=round(each.change, 4),
                low=round(each.low, 4),
                high=round(each.high, 4),
            )
            for each in served(returns(sessions, easy))
        ],
    )


def _is_planned(work: Work, monday: date) -> bool:
    """Whether the season has a light week, or a week off, from a Monday on or in the week after."""
    row = seasons.underway(work)
    if row is None:
        return False
    return not easy_mondays(seasons.season_of(row)).isdisjoint((monday, monday + timedelta(days=DAYS)))


def _verdict(found: Watch) -> str:
    if not found.known:
        return "There are too few sessions yet to tell, on either side of the last two weeks."
    if found.is_due:
        return "The log says that a light week is due."
    if found.total >= MARK / 2:
        return "There are signs, but not enough of them for a light week."
    return "Nothing in the log calls for a light week."


UNTOLD = {
    Mark.MISSED: "Too few planned sets to tell.",
    Mark.FALLING: "Too few sets with reps left told to tell.",
    Mark.RESERVE: "Too few sets with the same load as before to tell.",
    Mark.PACE: "Too few sets with every rep tapped to tell.",
    Mark.READINESS: "Not told often enough before sessions.",
    Mark.WEEKS: "No training yet.",
}
QUIET = {
    Mark.MISSED: "As many targets are met as usual.",
    Mark.FALLING: "Sessions show what they showed before, or more.",
    Mark.RESERVE: "The same loads leave as much as before.",
    Mark.PACE: "The same loads move as fast as before.",
    Mark.READINESS: "As ready as usual.",
}


def _words(sign: Sign, found: Watch) -> str:
    if sign.mark is Mark.WEEKS:
        many = found.weeks_since or 0
        weeks = f"{many} week{'' if many == 1 else 's'} of training"
        return f"{weeks} since the last light one." if found.was_easy else f"{weeks}, and no light one in the log."
    if sign.off is None:
        return UNTOLD[sign.mark]
    if sign.off <= NOISE[sign.mark]:
        return QUIET[sign.mark]
    of = _named(sign.lifts)
    match sign.mark:
        case Mark.MISSED:
            return f"{sign.off * 100:.0f} in 100 sets more than usual fall short of their target{of}."
        case Mark.FALLING:
            return f"Sessions show {sign.off * 100:.1f} % less than in the weeks before{of}."
        case Mark.RESERVE:
            return f"The same loads leave {sign.off:.1f} reps less than before{of}."
        case Mark.PACE:
            return f"A rep with the same load takes {sign.off * 100:.0f} % longer than before{of}."
    return f"You have felt {sign.off:.1f} of five points less ready than usual."


def _named(lifts: tuple[str, ...]) -> str:
    if not lifts:
        return ""
    more = len(lifts) - MOST_NAMED
    return f": {', '.join(lifts[:MOST_NAMED])}{f' and {more} more' if more > 0 else ''}"


def _served(each: Served) -> str:
    after = {
        LightSchool.SHORT: "heavy and short weeks",
        LightSchool.HALF: "weeks with light loads",
        None: "weeks without training",
    }[each.school]
    times = "once" if each.times == 1 else f"{each.times} times"
    change = with_bounds(each.change, each.low, each.high, "%", 100)
    weeks = round(each.weeks)
    came = f", {weeks} {'week' if weeks == 1 else 'weeks'} in" if weeks else ""
    return f"After {after} you came back {change}, {times}{came}."
