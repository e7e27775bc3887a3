"""`python -m bench.model` judges the model of strength by made-up lifters and prints the table of docs/model.md.

The max as it was known before each session, from the lift's seventh on, beside the truth.
"""

import csv
import sys
import tempfile
from collections import Counter
from collections.abc import Iterable
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from statistics import mean, median
from typing import NamedTuple

from fortis.core.replay import MODEL, MOST_JUDGED, NEAR_FAILURE, Replayed, replay
from fortis.core.strength.formulas import FORMULAS
from fortis.formats.csv import read_bouts
from fortis.simulation.log import KINDS, write

LIFTERS, WEEKS, FIRST_SEED, SESSIONS_BEFORE = 8, 26, 2_000, 6


COLUMNS = (
    "Lifters", "Median error", "Mean error", "Best formula, median", "Best formula, mean", "In the bounds",
    "Reps off", "In their bounds",
)  # fmt: skip


class Judged(NamedTuple):
    """How far off the max was by Fortis and each formula, as shares of it, and whether it lay between the bounds.

    And for bouts near failure how far off the reps to failure were that were foretold, from those that were truly
    there, and whether these lay between the bounds.
    """

    errors: dict[str, list[float]]
    covered: list[bool]
    reps: list[float]
    reps_covered: list[bool]


def main(lifters: int) -> None:
    """Print the table."""
    with ProcessPoolExecutor() as processes:
        judged = list(processes.map(_judge, KINDS, [lifters] * len(KINDS)))
    print(f"| {' | '.join(COLUMNS)} |")
    print("|---" * len(COLUMNS) + "|")
    for kind, of_kind in zip(KINDS, judged, strict=True):
        print(_row(kind, of_kind))
    print(_row("all", _together(judged)))


def _judge(kind: str, lifters: int) -> Judged:
    found = []
    with tempfile.TemporaryDirectory() as folder:
        for seed in range(FIRST_SEED, FIRST_SEED + lifters):
            log, truth = write(Path(folder), kind, WEEKS, seed)
            with log.open(encoding="utf-8", newline="") as lines:
                replayed = replay(read_bouts(lines))
            with truth.open(encoding="utf-8", newline="") as lines:
                found.append(_judged(replayed, list(csv.DictReader(lines))))
    return _together(found)


def _judged(replayed: Replayed, truth: list[dict[str, str]]) -> Judged:
    true = {(row["session"], row["exercise"]): float(row["max_kg"]) for row in truth}
    errors: dict[str, list[float]] = {name: [] for name in (MODEL, *FORMULAS)}
    covered = []
    seen: Counter[tuple[str, str]] = Counter()
    for each in replayed.sessions:
        seen[each.exercise, each.setup] += 1
        if seen[each.exercise, each.setup] <= SESSIONS_BEFORE or each.before is None or not each.formulas:
            continue
        max_kg = true[each.session, each.exercise]
        covered.append(each.before.low <= max_kg <= each.before.high)
        for name, kg in {MODEL: each.before.kg, **each.formulas}.items():
            errors[name].append(abs(kg / max_kg - 1))
    return Judged(errors, covered, *_reps(replayed, truth))


def _reps(replayed: Replayed, truth: list[dict[str, str]]) -> tuple[list[float], list[bool]]:
    """How far off the reps foretold of each bout near failure were, and whether the true ones were within."""
    off, within = [], []
    true = {
        (row["exercise"], row["performed_at"], row["set"], row["bout"]): float(row["reps_to_failure"])
        for row in truth
    }
    for each in replayed.bouts:
        there = true[each.exercise, each.performed_at.isoformat(), str(each.set), str(each.bout)]
        near = 0 <= there - each.reps <= NEAR_FAILURE and there <= MOST_JUDGED
        if each.predicted and near:
            off.append(abs(each.predicted.reps_to_failure - there))
            within.append(each.predicted.low <= there <= each.predicted.high)
    return off, within


def _together(judged: Iterable[Judged]) -> Judged:
    together = Judged({name: [] for name in (MODEL, *FORMULAS)}, [], [], [])
    for each in judged:
        for name, errors in each.errors.items():
            together.errors[name].extend(errors)
        together.covered.extend(each.covered)
        together.reps.extend(each.reps)
        together.reps_covered.extend(each.reps_covered)
    return together


def _row(name: str, judged: Judged) -> str:
    errors = judged.errors
    best = min(FORMULAS, key=lambda formula: median(errors[formula]))
    best_mean = min(FORMULAS, key=lambda formula: mean(errors[formula]))
    cells = [
        name.replace("-", ", "),
        f"{median(errors[MODEL]):.1%}",
        f"{mean(errors[MODEL]):.1%}",
        f"{median(errors[best]):.1%} ({best})",
        f"{mean(errors[best_mean]):.1%} ({best_mean})",
        f"{mean(judged.covered):.0%}",
        f"{mean(judged.reps):.1f}",
        f"{mean(judged.reps_covered):.0%}",
    ]
    return f"| {' | '.join(cells)} |"


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else LIFTERS)
