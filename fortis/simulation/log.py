"""The logs of made-up lifters as CSV, with the truth beside: months of straight sets, clusters, drops and waves."""

import csv
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, fields, replace
from datetime import UTC, datetime, timedelta
from itertools import product
from math import exp
from pathlib import Path
from random import Random
from typing import NamedTuple

from fortis.simulation.lifter import CURVES, RECOVERIES, MadeUpLifter, made_up

KINDS = tuple("-".join(kind) for kind in product(CURVES, RECOVERIES))
"""Every kind of lifter: a curve and a way to recover."""
MAXES = {"Back squat": 140.0, "Bench press": 100.0, "Deadlift": 170.0, "Overhead press": 62.5}
DAYS = {
    0: ("Back squat", "Bench press", "Overhead press"),
    2: ("Deadlift", "Back squat"),
    4: ("Back squat", "Bench press"),
}
"""Lifts of the days of a week."""
SHARING = {"Bench press": "Overhead press", "Deadlift": "Back squat"}
"""Which lift is tired by which one before it, by some of what is missing in that."""
BELTED = "Back squat"
"""What is done with a belt in every other week, for some per cent more."""
BEGINS = datetime(2025, 1, 6, 18, 0, tzinfo=UTC)
STEP_KG = 2.5
BETWEEN_LIFTS = 240
GAINS_HALVE = 26
"""The week in which gains are half of what they were at first: strength comes ever more slowly."""
MISTYPED = 0.004
"""The share of rows with a load or its reps ten times over."""


MOST_TYPED_KG, MOST_TYPED_REPS = 2_000, 500
"""No form takes more."""


class Bout(NamedTuple):
    """A bout to do: the share of the max that is believed in, the reps (None: to failure), the rest before it."""

    share: float
    reps: int | None
    rest: float


STRUCTURES: Mapping[str, Sequence[Sequence[Bout]]] = {
    "straight": [[Bout(0.78, 5, 180)]] * 4,
    "clusters": [[Bout(0.86, 2, 240), Bout(0.86, 2, 15), Bout(0.86, 2, 15)]] * 3,
    "drop": [[Bout(0.75, None, 180), Bout(0.6, None, 5), Bout(0.48, None, 5)]] * 2,
    "rest-pause": [[Bout(0.75, None, 200), Bout(0.75, None, 20), Bout(0.75, None, 20)]],
    "ascending": [[Bout(0.66, reps, 15 if reps > 3 else 200) for reps in (3, 4, 5, 6, 7)]] * 2,
    "wave": [[Bout(share, reps, 210)] for _ in range(2) for share, reps in ((0.84, 3), (0.88, 2), (0.92, 1))],
    "single and back-offs": [[Bout(0.92, 1, 240)], *[[Bout(0.78, 5, 150)]] * 3],
}
"""Sets of bouts; the structures change from one session of a lift to the next."""
LIGHT = ([Bout(0.62, 5, 120)],) * 3
"""A session of a light week."""


@dataclass(frozen=True)
class Row:
    """A line of the log. `load` and `reps` are as typed."""

    performed_at: datetime
    session: str
    exercise: str
    set: int
    bout: int
    load: float
    reps: int
    rir: str
    ended: str
    rest_before_s: int
    setup: str = ""
    unit: str = "kg"


class Truth(NamedTuple):
    """What a lifter had: the fresh max in a lift on a day, whatever that day's form, and the reps to failure that
    were there when a bout began, with what had come before it and the form of the day.
    """

    performed_at: datetime
    session: str
    exercise: str
    max_kg: float
    set: int
    bout: int
    reps_to_failure: float


@dataclass(frozen=True)
class Person:
    """Somebody's lifts, what a belt is worth, and how much of what one lift misses another one misses too."""

    lifts: Mapping[str, MadeUpLifter]
    belt: float
    carried: float


def simulate(kind: str, weeks: int, seed: int) -> tuple[list[Row], list[Truth]]:
    """The log of a lifter of a kind, the same for the same seed, and the truth of every bout."""
    random = Random(f"{kind} {seed}")
    curve, recovery = kind.split("-")
    lifters = {
        exercise: made_up(random, usual * random.uniform(0.6, 1.4), curve, recovery)
        for exercise, usual in MAXES.items()
    }
    habit = next(iter(lifters.values()))
    for lifter in lifters.values():
        lifter.bias, lifter.recovery = habit.bias, habit.recovery
        lifter.endurance = habit.endurance * exp(random.gauss(0, 0.08))
    person = Person(lifters, belt=1 + random.uniform(0.02, 0.08), carried=random.uniform(0.1, 0.5))
    weekly_gain = random.choice([0.001, 0.003, 0.012])
    layoff = random.randrange(4, max(weeks, 5))
    rows: list[Row] = []
    truths: list[Truth] = []
    for week in range(weeks):
        if week in (layoff, layoff + 1):
            gain = -0.02
        else:
            gain = random.gauss(weekly_gain / (1 + week / GAINS_HALVE), 0.004)
            for day, exercises in DAYS.items():
                _train(random, person, exercises, week, day, rows, truths)
        for lifter in lifters.values():
            lifter.max_kg *= exp(gain + random.gauss(0, 0.003))
    return [_typed(random, row) for row in rows], truths


def _train(
    random: Random,
    person: Person,
    exercises: Sequence[str],
    week: int,
    day: int,
    rows: list[Row],
    truths: list[Truth],
) -> None:
    clock = BEGINS + timedelta(weeks=week, days=day)
    session = f"week {week + 1}, day {day + 1}"
    names = list(STRUCTURES)
    for exercise in exercises:
        person.lifts[exercise].wake_up()
    for turn, exercise in enumerate(exercises):
        lifter = person.lifts[exercise]
        if turn:
            before = person.lifts[exercises[turn - 1]]
            before.rest(BETWEEN_LIFTS)
            if SHARING.get(exercises[turn - 1]) == exercise:
                lifter.tire(person.carried * before.missing, person.carried * before.gone)
        clock += timedelta(seconds=BETWEEN_LIFTS)
        belted = exercise == BELTED and week % 2 == 1
        helped = person.belt if belted else 1.0
        believed = lifter.max_kg * helped * exp(random.gauss(-0.02, 0.04))
        light = week % 8 == 7
        sets = LIGHT if light else STRUCTURES[names[(week * 3 + day + turn) % len(names)]]
        for number, bouts in enumerate(sets, start=1):
            for place, bout in enumerate(bouts, start=1):
                lifter.rest(bout.rest)
                clock += timedelta(seconds=bout.rest)
                kg = max(round(believed * bout.share / STEP_KG) * STEP_KG, STEP_KG)
                done, left = lifter.lift(kg / helped, bout.reps)
                clock += timedelta(seconds=3 * done)
                stuck = bout.reps is None or done < bout.reps
                told = "0" if stuck else lifter.called(left)
                ended = "muscle" if stuck else "target"
                max_kg = lifter.max_kg * helped
                truths.append(Truth(clock, session, exercise, max_kg, number, place, done + left))
                rest, setup = round(bout.rest), "belt" if belted else ""
                rows.append(Row(clock, session, exercise, number, place, kg, done, told, ended, rest, setup))


def _typed(random: Random, row: Row) -> Row:
    """A row as it was typed: seldom with a nought too many."""
    if random.random() >= MISTYPED:
        return row
    if random.random() < 0.5 and row.load * 10 <= MOST_TYPED_KG:
        return replace(row, load=row.load * 10)
    return replace(row, reps=min(row.reps * 10, MOST_TYPED_REPS))


def write(folder: Path, kind: str, weeks: int, seed: int) -> tuple[Path, Path]:
    """Write the log of a lifter and its truth into a folder, as two CSVs; returns their paths."""
    rows, truths = simulate(kind, weeks, seed)
    folder.mkdir(parents=True, exist_ok=True)
    log, truth = (folder / f"{kind}-{seed}.{what}.csv" for what in ("log", "truth"))
    columns = [field.name for field in fields(Row)]
    _write(log, columns, ([_cell(getattr(row, name)) for name in columns] for row in rows))
    _write(truth, list(Truth._fields), ([_cell(cell) for cell in each] for each in truths))
    return log, truth


def _cell(value: object) -> str:
    return (
        value.isoformat()
        if isinstance(value, datetime)
        else f"{value:g}"
        if isinstance(value, float)
        else str(value)
    )


def _write(path: Path, columns: Sequence[str], rows: Iterator[Sequence[str]]) -> None:
    with path.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow(columns)
        writer.writerows(rows)
