"""The day of a meet or a test: the way up to each opener, counted back from it, and the attempts after it.

Minutes are common practice: the last warm-up some minutes before the opener, a heavy one four minutes after the one
before it, a light one three; attempts ten minutes apart at a meet, where others lift between, and five at a test.
"""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from enum import StrEnum

from fortis.core.exercises import Exercise
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import nearest
from fortis.core.loading.warm_up import School, WarmUpSet, warm_up
from fortis.core.season.attempts import Attempt
from fortis.core.value import Kilograms, Value

LAST_WARM_UP = {"meet": 8, "test": 5}
BETWEEN_ATTEMPTS = {"meet": 10, "test": 5}
BETWEEN_HEAVY, BETWEEN_LIGHT = 4, 3
HEAVY = Decimal("0.75")
"""From this share of the opener on a warm-up is heavy."""
MOVING = 10
"""Minutes of moving before the bar is touched."""


class Doing(StrEnum):
    """What is done at a time."""

    MOVING = "move"
    WARM_UP = "warm up"
    OPENER = "opener"
    SECOND = "second"
    THIRD = "third"


class DayStep(Value):
    """What is done so many minutes before the opener, after it where they are below zero.

    `sleeve` are the plates on each side of the `bar`, where the kit at hand `makes` the load; `chance` is an
    attempt's.
    """

    name: Doing
    minutes: int
    kg: Kilograms | None = None
    reps: int = 1
    bar: str | None = None
    sleeve: tuple[Kilograms, ...] = ()
    makes: bool = True
    chance: float | None = None


def day_of(
    what: str, lift: Exercise, attempts: Sequence[Attempt], kit: Kit, *, first: bool = True
) -> tuple[DayStep, ...]:
    """All there is to do for a lift on the day, in order, at a `meet` or a `test`; the `first` lift begins cold."""
    opener = attempts[0].kg
    way_up = warm_up(kit, lift, opener, school=School.MANY, cold=first)
    warming = list(_counted_back(way_up, opener, LAST_WARM_UP[what]))
    found = [_built(lift, kit, each) for each in warming]
    if first:
        begins = (warming[0].minutes if warming else LAST_WARM_UP[what]) + MOVING
        found.insert(0, DayStep(name=Doing.MOVING, minutes=begins))
    for at, (name, attempt) in enumerate(zip((Doing.OPENER, Doing.SECOND, Doing.THIRD), attempts, strict=False)):
        told = DayStep(name=name, minutes=-at * BETWEEN_ATTEMPTS[what], kg=attempt.kg, chance=attempt.chance)
        found.append(_built(lift, kit, told))
    return tuple(found)


def _counted_back(way_up: Sequence[WarmUpSet], opener: Decimal, last: int) -> Iterator[DayStep]:
    """The warm-ups with their minutes, each so many before the one after it."""
    minutes = [last]
    for each in reversed(way_up[1:]):
        minutes.append(minutes[-1] + (BETWEEN_HEAVY if each.kg >= HEAVY * opener else BETWEEN_LIGHT))
    for each, before in zip(way_up, reversed(minutes[: len(way_up)]), strict=True):
        yield DayStep(name=Doing.WARM_UP, minutes=before, kg=each.kg, reps=each.reps)


def _built(lift: Exercise, kit: Kit, each: DayStep) -> DayStep:
    """The same with what is on the bar."""
    if each.kg is None:
        return each
    build = nearest(kit, lift, each.kg)
    if build.kg != each.kg:
        return each.model_copy(update={"makes": False})
    return each.model_copy(update={"bar": build.bar, "sleeve": build.sleeve})
