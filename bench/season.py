"""A season of sixteen weeks suggested, planned, planned again when it changes, and drawn, beside raw inserts."""

import sqlite3
import tempfile
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from functools import partial
from pathlib import Path
from time import perf_counter
from uuid import uuid4

from bench.log import make_log
from bench.serving import Served
from bench.timing import p50, p95
from fortis.api.app import create_app

TIMES = 12
SESSIONS = 48
DAY = """    Back squat: 3|4|5 x 5 at {percent}% +3% a round leave 2 rest 3:00
    Bench press: 3 x 6-8 at 60 kg +2.5 kg a round leave 2
    pair, 2|3|3 rounds, rest 1:30:
      Split squat: 8 each side at 20 kg leave 2
      Seal row: 8-10 leave 1
"""


def season() -> dict[str, object]:
    """Figures of a record with a year of sessions."""
    with tempfile.TemporaryDirectory() as folder:
        served = Served(create_app(make_log(Path(folder) / "log.db", 1)))
        raw = sqlite3.connect(Path(folder) / "raw.db")
        raw.execute("create table session (id text primary key, written text, planned_on text)")
        season_id = str(uuid4())
        taken: dict[str, list[float]] = {"suggest": [], "replan": [], "show": [], "floor": []}
        first = _ms(lambda: _save(served, season_id, 75))
        for number in range(TIMES):
            taken["suggest"].append(_ms(partial(_suggest, served, number)))
            taken["replan"].append(_ms(partial(_save, served, season_id, 70 + number % 2)))
            taken["show"].append(_ms(lambda: served.client.get("/api/season").raise_for_status()))
            taken["floor"].append(_ms(lambda: _insert(raw)))
        measures = (("p50", p50), ("p95", p95))
        figures = {f"{name}_{which}_ms": of(taken[name]) for name in taken for which, of in measures}
        return {"sessions": SESSIONS, "first_plan_ms": round(first, 1), **figures}


def _save(served: Served, season_id: str, percent: int) -> None:
    monday = datetime.now(UTC).date() + timedelta(days=7)
    lines = DAY.format(percent=percent)
    days = "".join(f"  {day}, {day} session:\n{lines}" for day in ("Monday", "Wednesday", "Friday"))
    written = f"# Bench\nfrom {monday}\nbuilding, 4 rounds of 4 weeks:\n{days}"
    served.client.put(f"/api/season/{season_id}", json={"written": written}).raise_for_status()


def _suggest(served: Served, number: int) -> None:
    """Three seasons of sixteen weeks, to a date."""
    on = datetime.now(UTC).date() + timedelta(weeks=16)
    wish = {"goal": "strength", "minutes": 60 + number, "aim": {"what": "meet", "on": str(on)}}
    served.client.post("/api/suggestions", json=wish).raise_for_status()


def _insert(raw: sqlite3.Connection) -> None:
    rows = [(str(uuid4()), DAY, "2026-01-01") for _ in range(SESSIONS)]
    with raw:
        raw.executemany("insert into session values (?, ?, ?)", rows)


def _ms(call: Callable[[], object]) -> float:
    began = perf_counter()
    call()
    return (perf_counter() - began) * 1000
