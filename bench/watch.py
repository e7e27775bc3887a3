"""`python -m bench.watch [LIFTERS]`: how well the watch tells fatigue, on lifters it was not set by."""

import json
import sys
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from statistics import fmean

from fortis.simulation.fatigue import DUE, FRESH, WeekSeen, year

LIFTERS = 100
FIRST_SEED = 1_000
"""Before it are the lifters by which weights and mark were set."""
BEGINS = 8
"""The week from which there is enough to set the last two weeks beside."""


def watch(lifters: int = LIFTERS) -> dict[str, object]:
    """Figures of a year of each lifter: with spells of bad recovery, without any, and following the watch."""
    seeds = range(FIRST_SEED, FIRST_SEED + lifters)
    with ProcessPoolExecutor() as pool:
        spells = list(pool.map(_with_spells, seeds))
        none = list(pool.map(_without, seeds))
        following = list(pool.map(_following, seeds))
    found = [each for seen in spells for each in _episodes(seen)]
    light = fmean(sum(each.light for each in seen) for seen in following)
    return {
        "lifters": lifters,
        "spells_of_fatigue": len(found),
        "told": round(fmean(each is not None for each in found), 3),
        "weeks_until_told": round(fmean(each for each in found if each is not None), 2),
        "false_alarms_a_year": round(fmean(map(_false_alarms, spells)), 2),
        "alarms_a_year_without_spells": round(fmean(map(_alarms, none)), 2),
        "light_weeks_a_year_following": round(light, 2),
        "weeks_too_tired_a_year": round(fmean(map(_tired, spells)), 2),
        "weeks_too_tired_a_year_following": round(fmean(map(_tired, following)), 2),
    }


def _with_spells(seed: int) -> list[WeekSeen]:
    return list(year(seed))


def _without(seed: int) -> list[WeekSeen]:
    return list(year(seed, spells=0))


def _following(seed: int) -> list[WeekSeen]:
    return list(year(seed, follows=True))


def _episodes(seen: Sequence[WeekSeen]) -> list[int | None]:
    """For every time that fatigue built up, the weeks until the watch told of it, and None where it did not."""
    found: list[int | None] = []
    at = BEGINS
    while at < len(seen):
        if seen[at].fatigue < DUE:
            at += 1
            continue
        over = next((week for week in range(at, len(seen)) if seen[week].fatigue < FRESH), len(seen))
        told = (week for week in range(at - 1, min(over + 2, len(seen))) if seen[week].watch.is_due)
        found.append(next((week - at for week in told), None))
        at = over
    return found


def _false_alarms(seen: Sequence[WeekSeen]) -> int:
    """How often the watch began to say that one is due when nothing had built up, nor had in the weeks before."""
    return sum(
        each.watch.is_due and not before.watch.is_due and max(of.fatigue for of in seen[at - 2 : at + 1]) < FRESH
        for at, (before, each) in enumerate(zip(seen[BEGINS - 1 :], seen[BEGINS:], strict=False), start=BEGINS)
    )


def _alarms(seen: Sequence[WeekSeen]) -> int:
    return sum(
        each.watch.is_due and not before.watch.is_due
        for before, each in zip(seen[BEGINS - 1 :], seen[BEGINS:], strict=False)
    )


def _tired(seen: Sequence[WeekSeen]) -> int:
    return sum(each.fatigue >= DUE for each in seen)


if __name__ == "__main__":
    print(json.dumps(watch(*map(int, sys.argv[1:])), indent=2))
