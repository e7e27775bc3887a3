"""What the model of strength costs: a ten-year log replayed, and the estimate after a bout."""

import csv
import tempfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from time import perf_counter

from bench.timing import p50, p95, samples
from fortis.core.replay import replay
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.formats.csv import read_bouts
from fortis.simulation.log import write

BEGINS = datetime(2026, 1, 5, 18, tzinfo=UTC)
SQUAT = ("back-squat", "")
LIFTERS = 3
"""A long log is that of three made-up lifters as one, each with lifts of their own."""


def strength() -> dict[str, object]:
    """Figures for a year and for ten, and how a bout's cost grows from the one to the other."""
    one, ten = _replayed(52), _replayed(520)
    profile = Profile()
    for day in range(0, 40, 4):
        profile, _ = profile.learn(SQUAT, BEGINS + timedelta(days=day), [Heard(100, 180, 5, 2)] * 4)
    at = BEGINS + timedelta(days=44)

    def estimate() -> None:
        profile.learn(SQUAT, at, [Heard(100, 120, 3, 2)] * 20)[0].max_of(SQUAT, at)

    taken = samples(estimate, 100)
    return {
        "one_year": one,
        "ten_years": ten,
        "growth_of_a_bout": round(ten["replay_ms_a_bout"] / one["replay_ms_a_bout"], 2),
        "estimate_after_the_last_of_20_bouts_p50_ms": p50(taken),
        "estimate_after_the_last_of_20_bouts_p95_ms": p95(taken),
    }


def _replayed(weeks: int) -> dict[str, float]:
    with tempfile.TemporaryDirectory() as folder:
        files = [write(Path(folder), "hyperbola-twofold", weeks, number)[0] for number in range(LIFTERS)]
        floor = read = 0.0
        log = []
        for number, file in enumerate(files):
            with file.open(encoding="utf-8", newline="") as lines:
                began = perf_counter()
                for _ in csv.reader(lines):
                    pass
                floor += perf_counter() - began
                lines.seek(0)
                began = perf_counter()
                bouts = list(read_bouts(lines))
                read += perf_counter() - began
            log += [bout.model_copy(update={"exercise": f"{bout.exercise} {number}"}) for bout in bouts]
    began = perf_counter()
    replay(log)
    taken = perf_counter() - began
    return {
        "bouts": len(log),
        "csv_floor_s": round(floor, 3),
        "read_s": round(read, 2),
        "replay_s": round(taken, 2),
        "replay_ms_a_bout": round(1000 * taken / len(log), 3),
    }
