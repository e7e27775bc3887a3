"""What the model of strength costs: a ten-year log replayed, the estimate after a bout, a session planned."""

import csv
import gzip
import tempfile
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from pathlib import Path
from time import perf_counter

from bench.timing import p50, p95, samples
from fortis.core.basis import Basis
from fortis.core.cache import clear_caches
from fortis.core.loading.calculator import bar_kit
from fortis.core.loading.kit import USUAL_PLATES, read_plates
from fortis.core.performance import PerformedBout
from fortis.core.progression.advice import Bar
from fortis.core.progression.advice_table import AdviceTable, all_advice
from fortis.core.progression.next_loads import recommendations
from fortis.core.replay import replay
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import planned_reserve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
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
        "session": _planned(),
    }


PLAN = """Back squat: 5 x 5 leave 2
Bench press: 5 x 5 leave 2
Seal row: 1 set of (3, 4, 5, 6, 7) leave 1 within 15s
Deadlift: 2 sets of (2, 2) leave 1 within 10s; 1 x 1 leave 2
pair, 5 rounds, rest 1:30:
  Front squat: 8 leave 2
  Overhead press: 8 leave 2
Leg extension: 5 x 12 leave 1
Calf raise: 5 x 15 leave 1
"""
"""Forty bouts, and not one load named."""


def _planned() -> dict[str, float]:
    """A session settled through its structure, and what it recommends for the next once it is done."""
    laid_out = lay_out(read(PLAN))
    maxes = {each.key: estimate(100.0, 3, 1) for each in laid_out.sets}
    kit = bar_kit(Decimal(20), Decimal(0), read_plates(USUAL_PLATES))
    settled = resolve(laid_out, Basis(kit=kit, estimates=maxes))
    done = [
        PerformedBout(
            position=each.position(bout),
            exercise=each.exercise,
            kg=bout.settled.kg,
            reps=least_of(bout.reps),
            reserve=planned_reserve(bout.effort),
        )
        for each in settled.sets
        for bout in each.bouts
        if bout.settled
    ]
    plan = samples(lambda: resolve(laid_out, Basis(kit=kit, estimates=maxes)), 100)
    after = samples(lambda: recommendations(settled, done, kit, None, maxes), 50)
    bar = Bar(kit)

    def told() -> AdviceTable:
        clear_caches()
        return all_advice(settled, bar, maxes)

    tables = samples(told, 40)
    size = len(gzip.compress(told().model_dump_json().encode()))
    return {
        "bouts": len(done),
        "plan_p50_ms": p50(plan),
        "plan_p95_ms": p95(plan),
        "next_loads_p50_ms": p50(after),
        "next_loads_p95_ms": p95(after),
        "advice_tables_p50_ms": p50(tables),
        "advice_tables_p95_ms": p95(tables),
        "advice_tables_gzip_kb": round(size / 1000),
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
