"""Records: the most reps at a load, the most load for so many reps, each for the same set-up and tempo.

A light set can be a record that nobody means: one counts only where it comes near the best there is.
"""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from decimal import Decimal
from itertools import groupby
from operator import attrgetter
from typing import NamedTuple

from fortis.core.strength.estimate import MOST_REPS, max_behind
from fortis.core.structure.model import Tempo
from fortis.core.value import Kilograms, Value

NEAR_THE_BEST = 0.9
"""Of the best max that any bout speaks for by the usual curve, a record speaks for so much at least."""
MOST_TOLD = 2
"""Records told of a lift in a session."""


class Best(NamedTuple):
    """So many full reps done with a load, the day that was done first, and the day it was done last, if known."""

    kg: Decimal
    reps: int
    on: date
    last_on: date | None = None


class Alike(NamedTuple):
    """What makes two bouts comparable: the lift by its id, the set-up in one form, the tempo as written."""

    lift_id: str
    setup_key: str
    tempo: str


def tempo_key(tempo: Tempo | None) -> str:
    """A tempo in one form; empty where none was asked."""
    return "" if tempo is None else str(tempo)


Bests = Mapping[Alike, Sequence[Best]]
"""What was done before, by what it is comparable with."""


class Record(Value):
    """Reps at a load that were never done before; `was` is the nearest to it until then.

    `more_load` says that the load is new for so many reps, not the reps for the load.
    """

    kg: Kilograms
    reps: int
    was_kg: Kilograms
    was_reps: int
    was_on: date
    more_load: bool


Done = tuple[Decimal, int]
"""A load in kg, and full reps with it."""
NOTHING = Decimal(0)


def records(done: Iterable[Done], before: Sequence[Best], part: Decimal = NOTHING) -> list[Record]:
    """The records among loads and full reps, the best first; none where there was nothing before.

    `part` is the share of body weight moved with each load.
    """
    if not before:
        return []
    least = NEAR_THE_BEST * max(_worth(each.kg, each.reps, part) for each in before)
    new = {
        (kg, reps)
        for kg, reps in done
        if reps and not any(_beats(each, kg, reps) for each in before) and _worth(kg, reps, part) >= least
    }
    best = [each for each in new if not any(other != each and _at_least(other, each) for other in new)]
    best.sort(key=lambda each: (-_worth(each[0], each[1], part), each))
    return [_record(kg, reps, before) for kg, reps in best[:MOST_TOLD]]


def within_reach(kg: Decimal, reps: int, before: Sequence[Best], part: Decimal = NOTHING) -> Record | None:
    """The record that is at hand where so many reps are likely at a load: one rep more than ever."""
    if not before:
        return None
    most = max((each.reps for each in before if each.kg >= kg), default=0)
    found = records([(kg, most + 1)], before, part) if reps > most else []
    return found[0] if found else None


def best_by_reps(before: Sequence[Best], most: int = 12) -> list[Best]:
    """The heaviest load for one rep, for two, and so on, those only that nothing with more reps covers."""
    found: list[Best] = []
    for reps in range(1, most + 1):
        able = [each for each in before if each.reps >= reps]
        if not able:
            break
        heaviest = max(able, key=lambda each: (each.kg, each.reps, -each.on.toordinal()))
        if not found or found[-1] != heaviest:
            found.append(heaviest)
    return found


def lately(before: Sequence[Best], since: date) -> list[Best]:
    """The heaviest loads by reps among what was done again since a day, each with the day it was done last."""
    again = [each._replace(on=each.last_on) for each in before if each.last_on and each.last_on >= since]
    return best_by_reps(again)


def short_of(best: Best, recent: Sequence[Best]) -> Decimal | None:
    """The kilograms that the best lately for so many reps stays short of the record; None where it is far off.

    Nought where the record is of lately itself.
    """
    able = [each.kg for each in recent if each.reps >= best.reps]
    short = best.kg - max(able) if able else None
    return short if short is not None and short <= (1 - Decimal(str(NEAR_THE_BEST))) * abs(best.kg) else None


def record_days(done: Sequence[Best], part: Decimal = NOTHING) -> list[tuple[date, Record]]:
    """The best record of each day that had one, the earliest first; the first day of all has none."""
    found: list[tuple[date, Record]] = []
    before: list[Best] = []
    for day, of_day in groupby(sorted(done, key=attrgetter("on")), key=attrgetter("on")):
        new = list(of_day)
        for record in records([(each.kg, each.reps) for each in new], before, part)[:1]:
            found.append((day, record))
        before += new
    return found


def _record(kg: Decimal, reps: int, before: Sequence[Best]) -> Record:
    """A record beside the most reps at its load until then, else beside the most load for its reps."""
    at_load = max((each for each in before if each.kg == kg), key=lambda each: each.reps, default=None)
    for_reps = max((each for each in before if each.reps >= reps), key=lambda each: each.kg, default=None)
    lighter = max(before, key=lambda each: (each.reps, each.kg))
    was = at_load if at_load and (for_reps is None or for_reps.kg < kg * Decimal("0.9")) else for_reps or lighter
    return Record(kg=kg, reps=reps, was_kg=was.kg, was_reps=was.reps, was_on=was.on, more_load=was.kg < kg)


def _beats(each: Best, kg: Decimal, reps: int) -> bool:
    return each.kg >= kg and each.reps >= reps


def _at_least(other: Done, each: Done) -> bool:
    return other[0] >= each[0] and other[1] >= each[1]


def _worth(kg: Decimal, reps: int, part: Decimal) -> float:
    return max_behind(float(kg + part), min(max(reps, 1), MOST_REPS))
