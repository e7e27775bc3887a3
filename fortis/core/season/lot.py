"""Which light weeks serve a lifter, by lot: of every two one of each school, and what the lifter came back with.

The answer is a difference of means with Welch's bounds, told when no week that was drawn is still to come.
"""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from random import Random

from fortis.core.season.easy import Return
from fortis.core.season.model import LightSchool, LightWeek, Season
from fortis.core.season.reading import blocks_by_monday
from fortis.core.season.trial import BOUNDS, FEWEST, Outcome, more, stands
from fortis.core.tally.contrasts import welch

MOST_WEEKS = 24
"""Light weeks drawn: nobody is told to wait for more."""


def light_weeks(season: Season) -> dict[date, LightWeek]:
    """The light weeks of a season that a school makes, by their Mondays; of light blocks those of one week."""
    blocks = {
        day: LightWeek(monday=day, school=block.school, by_lot=block.by_lot)
        for day, block in blocks_by_monday(season).items()
        if block.school and block.rounds * block.weeks == 1
    }
    return dict(sorted((blocks | {week.monday: week for week in season.light}).items()))


def draw_schools(many: int, before: Iterable[LightSchool], random: Random) -> Sequence[LightSchool]:
    """The schools of so many light weeks: of every two one of each, counted on from those drawn before."""
    found: list[LightSchool] = []
    earlier = list(before)
    odd = earlier.count(LightSchool.SHORT) - earlier.count(LightSchool.HALF)
    while len(found) < many:
        if odd:
            found.append(LightSchool.HALF if odd > 0 else LightSchool.SHORT)
            odd = 0
        else:
            found += random.sample(list(LightSchool), 2)
    return found[:many]


def beside(returns: Iterable[Return], by_lot: Mapping[date, LightSchool], *, is_over: bool) -> Outcome:
    """How much better the lifter came back from heavy short weeks than from ones with half the load.

    `tried` counts the heavy and short ones, `usual` the others; the change is a share of the max.
    """
    came_back = {each.week.monday: each.change for each in returns if each.week.monday in by_lot}
    short, half = (
        [change for day, change in came_back.items() if by_lot[day] is school]
        for school in (LightSchool.SHORT, LightSchool.HALF)
    )
    if min(len(short), len(half)) < FEWEST:
        return stands(len(short), len(half), None, is_over=is_over)
    change, within = found = welch(short, half, BOUNDS)
    more_weeks = more(len(came_back), change, within, most=MOST_WEEKS)
    return stands(len(short), len(half), found, more_weeks, is_over=is_over)
