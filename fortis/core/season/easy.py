"""Easy weeks as the log shows them, planned or not, and how the lifter came back from each."""

from collections.abc import Iterator, Sequence
from datetime import date, timedelta
from statistics import fmean, median

from fortis.core.season.model import LightSchool
from fortis.core.strength.day import FOUR_IN_FIVE
from fortis.core.structure.model import LiftKey
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.tally.went import SessionWent
from fortis.core.value import Value

EASY_SHARE = 0.6
"""A week of less than so much of the usual tonnage is easy: light weeks halve it, more or less."""
USUAL_WEEKS, FEWEST_WEEKS = 4, 2
"""What is usual is the middle of so many weeks of training before it, and told from so many on."""
LIGHT_SHARE = 0.75
"""So is one whose reps were done with less than so much of the usual share of the max, however many they were: half
the load of a week of many sets is as much work as a usual one (common practice)."""
HEAVY_SHARE = 0.85
"""An easy week whose reps were done with so much of the usual share of the max kept its loads heavy."""
MOST_IN_A_ROW = 2
"""So many light weeks may follow each other; more are another way to train for a time (common practice)."""
LOOKED_BACK = timedelta(days=21)
"""A lift is set beside the last time it was trained within so many days before an easy week, and after it."""
CAME_BACK_SPREAD = 0.04
"""How far two sessions of a lift lie apart for no reason that lasts, as a share of its max."""

MEDIAN_SPREAD = 1.2533
"""How much less sure the median of many is than their mean, where they are normal: the root of half of pi."""


class EasyWeek(Value):
    """A week of little or no training after `weeks` of it. `school` is None where nothing was trained."""

    monday: date
    school: LightSchool | None
    weeks: int

    @property
    def ends(self) -> date:
        """Its Sunday."""
        return self.monday + timedelta(days=DAYS - 1)

    def has(self, day: date) -> bool:
        """Whether a day is in it."""
        return self.monday <= day <= self.ends


class CameBack(Value):
    """The first session of a lift after an easy week beside the last before it: its max, as a share above it."""

    exercise: str
    change: float


class Return(Value):
    """How the lifter came back from an easy week: in the middle of its lifts, and between what that should lie."""

    week: EasyWeek
    lifts: tuple[CameBack, ...]
    change: float
    low: float
    high: float


class Served(Value):
    """How a school served the lifter: the mean of so many returns, and between what it should lie."""

    school: LightSchool | None
    times: int
    weeks: float
    change: float
    low: float
    high: float


def easy_weeks(sessions: Sequence[SessionWent], today: date) -> Sequence[EasyWeek]:
    """The easy weeks of a log that are over, its sessions the oldest first; two in a row are two.

    More than `MOST_IN_A_ROW` whose loads stayed heavy are a block of less work, and none of them easy.
    """
    return tuple(_easy_weeks(sessions, monday_of(today)))


def _easy_weeks(sessions: Sequence[SessionWent], this_week: date) -> Iterator[EasyWeek]:
    by_week: dict[date, list[SessionWent]] = {}
    for each in sessions:
        by_week.setdefault(monday_of(each.day), []).append(each)
    usual: list[tuple[float, float]] = []
    short: list[tuple[EasyWeek, tuple[float, float]]] = []
    since, monday = 0, min(by_week, default=this_week)
    while monday < this_week:
        done = by_week.get(monday, [])
        did = tonnage, share = _tonnage(done), _share(done)
        before = usual[-USUAL_WEEKS:]
        usual_kg, usual_share = (median(each) for each in zip(*before, strict=True)) if before else (0.0, 0.0)
        is_light = done and 0 < share < LIGHT_SHARE * usual_share
        is_easy = len(before) >= FEWEST_WEEKS and (tonnage < EASY_SHARE * usual_kg or is_light)
        kept_heavy = bool(done) and share >= HEAVY_SHARE * usual_share
        if is_easy and kept_heavy:
            week = EasyWeek(monday=monday, school=LightSchool.SHORT, weeks=0 if short else since)
            short.append((week, did))
            if len(short) > MOST_IN_A_ROW:
                usual += [did for _, did in short]
                since, short = since + len(short), []
        elif is_easy or done:
            yield from (week for week, _ in short)
            since, short = 0 if short else since, []
            if is_easy:
                yield EasyWeek(monday=monday, school=LightSchool.HALF if done else None, weeks=since)
                since = 0
            else:
                usual.append(did)
                since += 1
        monday += timedelta(days=DAYS)
    yield from (week for week, _ in short)


def weeks_since(sessions: Sequence[SessionWent], easy: Sequence[EasyWeek], today: date) -> int | None:
    """Weeks of training since the last easy one, this one not counted; None without any session."""
    if not sessions:
        return None
    last = max((each.monday for each in easy), default=None)
    first = monday_of(sessions[0].day) if last is None else last + timedelta(days=DAYS)
    return max((monday_of(today) - first).days // DAYS, 0)


def _tonnage(done: Sequence[SessionWent]) -> float:
    return sum(lift.tonnage_kg for each in done for lift in each.lifts)


def _share(done: Sequence[SessionWent]) -> float:
    """The share of the max that a kilogram was lifted with on average; 0 where no max was known."""
    known = [
        (lift.share, lift.tonnage_kg) for each in done for lift in each.lifts if lift.share and lift.tonnage_kg
    ]
    return sum(share * kg for share, kg in known) / sum(kg for _, kg in known) if known else 0.0


def returns(sessions: Sequence[SessionWent], easy: Sequence[EasyWeek]) -> Sequence[Return]:
    """How the lifter came back from each easy week; none of those after which no lift was trained again."""
    return tuple(found for week in easy if (found := _return(sessions, week)))


def _return(sessions: Sequence[SessionWent], week: EasyWeek) -> Return | None:
    before: dict[LiftKey, float] = {}
    after: dict[LiftKey, tuple[str, float]] = {}
    for each in sessions:
        for lift in each.lifts:
            if lift.level is None:
                continue
            if week.monday - LOOKED_BACK <= each.day < week.monday:
                before[lift.key] = lift.level
            elif week.ends < each.day <= week.ends + LOOKED_BACK:
                after.setdefault(lift.key, (lift.exercise, lift.level))
    lifts = tuple(
        CameBack(exercise=exercise, change=level - before[key])
        for key, (exercise, level) in after.items()
        if key in before
    )
    if not lifts:
        return None
    change = median(each.change for each in lifts)
    spread = FOUR_IN_FIVE * CAME_BACK_SPREAD * (MEDIAN_SPREAD if len(lifts) > 2 else 1.0) / len(lifts) ** 0.5
    return Return(week=week, lifts=lifts, change=change, low=change - spread, high=change + spread)


def served(found: Sequence[Return]) -> Sequence[Served]:
    """How each school served, the best first."""
    by_school: dict[LightSchool | None, list[Return]] = {}
    for each in found:
        by_school.setdefault(each.week.school, []).append(each)
    schools = [_served(school, of) for school, of in by_school.items()]
    return tuple(sorted(schools, key=lambda each: -each.change))


def _served(school: LightSchool | None, found: Sequence[Return]) -> Served:
    change, times = fmean(each.change for each in found), len(found)
    spread = sum((each.high - each.change) ** 2 for each in found) ** 0.5 / times
    return Served(
        school=school,
        times=times,
        weeks=fmean(each.week.weeks for each in found),
        change=change,
        low=change - spread,
        high=change + spread,
    )
