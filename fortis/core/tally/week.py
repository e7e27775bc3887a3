"""Weeks of training: what each came to, how even its load was, and what is usual for the lifter."""

from collections.abc import Iterable, Sequence
from datetime import date, timedelta
from decimal import Decimal
from statistics import fmean, pstdev, quantiles

from fortis.core.tally.costing import Costing, Count, LiftCost, in_zones, most_first
from fortis.core.value import Kilograms, Number, Value

DAYS = 7
LEAST_WEEKS = 4
"""What is usual is told from so many weeks with training on."""


class DayDone(Value):
    """A session on its day: what it came to, and how hard it was as a whole (0 to 10), where that was told."""

    day: date
    costing: Costing
    felt: int | None = None

    @property
    def load(self) -> Decimal | None:
        """The session's load: how hard it was times its minutes (Foster 1998). None where that was not told."""
        return None if self.felt is None else Decimal(self.felt * round(self.costing.seconds / 60))


class WeekLift(Value):
    """A lift in a week, with whatever set-ups. `average_kg` is a rep's, None without loaded reps."""

    exercise: str
    reps: Number
    tonnage_kg: Kilograms
    average_kg: Kilograms | None


class Week(Value):
    """A week from `monday` on. `lifts` are in the order they were done.

    `average_kg` and `average_percent` are a rep's, None without loaded reps or a known max. `load` is that of all
    sessions, `monotony` its daily mean by its daily standard deviation (of the population), `strain` their product;
    None where a session's was not told, and without any spread.
    """

    monday: date
    sessions: int
    seconds: int
    work_seconds: int
    sets: int
    reps: int
    tonnage_kg: Kilograms
    average_kg: Kilograms | None
    average_percent: Number | None
    lifts: tuple[WeekLift, ...]
    zones: tuple[Count, ...]
    hard_sets: tuple[Count, ...]
    failure_sets: int
    partial_reps: int
    overloaded_reps: int
    load: Number | None
    monotony: float | None
    strain: float | None


class Usual(Value):
    """How many of something named are usual for the lifter in a week: the middle half of their weeks."""

    name: str
    low: float
    high: float


def monday_of(day: date) -> date:
    """The Monday of a day's week."""
    return day - timedelta(days=day.weekday())


def added_up(monday: date, done: Sequence[DayDone]) -> Week:
    """Add up a week; of `done` what lies in it counts."""
    of_week = [each for each in done if monday_of(each.day) == monday]
    costings = [each.costing for each in of_week]
    lifts = [lift for costing in costings for lift in costing.lifts]
    total = sum((costing.tonnage_kg for costing in costings), Decimal(0))
    loads = _daily(monday, of_week)
    load, monotony = (None, None) if loads is None else (sum(loads, Decimal(0)), _monotony(loads))
    return Week(
        monday=monday,
        sessions=len(of_week),
        seconds=sum(costing.seconds for costing in costings),
        work_seconds=sum(costing.work_seconds for costing in costings),
        sets=sum(costing.sets for costing in costings),
        reps=sum(costing.reps for costing in costings),
        tonnage_kg=total,
        average_kg=average_kg(lifts),
        average_percent=average_percent(lifts),
        lifts=tuple(
            _lift(exercise, [lift for lift in lifts if lift.exercise == exercise])
            for exercise in dict.fromkeys(lift.exercise for lift in lifts)
        ),
        zones=in_zones(summed(costing.zones for costing in costings)),
        hard_sets=most_first(summed(costing.hard_sets for costing in costings)),
        failure_sets=sum(costing.failure_sets for costing in costings),
        partial_reps=sum(costing.partial_reps for costing in costings),
        overloaded_reps=sum(costing.overloaded_reps for costing in costings),
        load=load,
        monotony=monotony,
        strain=None if load is None or monotony is None else float(load) * monotony,
    )


def usual_hard_sets(weeks: Iterable[Week]) -> tuple[Usual, ...]:
    """Hard sets a week that are usual for the lifter, by muscle: of the weeks with training; none of too few."""
    trained = [{each.name: float(each.count) for each in week.hard_sets} for week in weeks if week.sessions]
    if len(trained) < LEAST_WEEKS:
        return ()
    found = []
    for muscle in dict.fromkeys(name for week in trained for name in week):
        low, _, high = quantiles([week.get(muscle, 0.0) for week in trained], n=4, method="inclusive")
        found.append(Usual(name=muscle, low=low, high=high))
    return tuple(found)


def _lift(exercise: str, of_lift: Sequence[LiftCost]) -> WeekLift:
    return WeekLift(
        exercise=exercise,
        reps=sum((lift.reps for lift in of_lift), Decimal(0)),
        tonnage_kg=tonnage_of(of_lift),
        average_kg=average_kg(of_lift),
    )


def tonnage_of(lifts: Iterable[LiftCost]) -> Decimal:
    """The tonnage of some lifts, as far as their loads are known."""
    return sum((lift.tonnage_kg or Decimal(0) for lift in lifts), Decimal(0))


def average_kg(lifts: Sequence[LiftCost]) -> Decimal | None:
    """The tonnage of some lifts by their loaded reps; None without any."""
    loaded = sum(lift.reps for lift in lifts if lift.tonnage_kg)
    return round(tonnage_of(lifts) / loaded, 1) if loaded else None


def _daily(monday: date, done: Sequence[DayDone]) -> list[Decimal] | None:
    """The load of each day of a week; None where a session's was not told, or there was none."""
    loads = [each.load for each in done]
    if not loads or any(load is None for load in loads):
        return None
    days = [Decimal(0)] * DAYS
    for each, load in zip(done, loads, strict=True):
        days[(each.day - monday).days] += load or Decimal(0)
    return days


def _monotony(daily: Sequence[Decimal]) -> float | None:
    loads = [float(load) for load in daily]
    spread = pstdev(loads)
    return fmean(loads) / spread if spread else None


def average_percent(lifts: Iterable[LiftCost]) -> Decimal | None:
    """The share of the max of a rep of some lifts, of those whose max is known; None without any."""
    known = [(lift.average_percent, lift.reps) for lift in lifts if lift.average_percent is not None]
    many = sum((reps for _, reps in known), Decimal(0))
    return round(sum((percent * reps for percent, reps in known), Decimal(0)) / many, 1) if many else None


def summed(counted: Iterable[Iterable[Count]]) -> dict[str, Decimal]:
    """Counts of several added up by name."""
    counts: dict[str, Decimal] = {}
    for each in (count for counts_of in counted for count in counts_of):
        counts[each.name] = counts.get(each.name, Decimal(0)) + each.count
    return counts


_SAME = Decimal(1)
"""Changes under so many per cent are none."""
_WORK = {1: "more work", 0: "as much work", -1: "less work"}
_LOAD = {1: "and heavier", 0: "at about the same load", -1: "and lighter"}


def beside(week: Week, before: Week) -> str:
    """What became of work and load since the week before, read together; empty where nothing compares.

    An average over other lifts is another average: where the lifts were not the same, that is told instead.
    """
    if not (week.tonnage_kg and before.tonnage_kg and week.average_kg and before.average_kg):
        return ""
    names, names_before = ({lift.exercise for lift in each.lifts} for each in (week, before))
    if new := sorted(names - names_before) + sorted(names_before - names):
        others = ", ".join(name.lower() for name in new)
        return f"No fair comparison with the week before: {others} in only one of them. Compare lift by lift."
    work, load = more(week.tonnage_kg, before.tonnage_kg), more(week.average_kg, before.average_kg)
    return (
        f"Tonnage {signed(work)} %, average load {signed(load)} % on the week before: {work_and_load(work, load)}."
    )


def more(now: Decimal, before: Decimal) -> Decimal:
    """How much more something is than it was, in per cent."""
    return (now / before - 1) * 100


def work_and_load(work: Decimal, load: Decimal) -> str:
    """Changes of work and load, in per cent, read together."""
    return f"{_WORK[_way(work)]}, {_LOAD[_way(load)]}"


def _way(percent: Decimal) -> int:
    return 0 if abs(percent) < _SAME else 1 if percent > 0 else -1


def signed(percent: Decimal) -> str:
    """A change in per cent, with its sign."""
    return f"{'−' if percent < 0 else '+'}{abs(percent):.1f}"
