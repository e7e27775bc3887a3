"""Taking the record away and bringing a log in: rows a second, memory, and what sqlite3 by itself needs."""

import csv
import resource
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from datetime import datetime, timedelta
from io import StringIO
from pathlib import Path
from time import perf_counter

from fortis.demo.log import make_demo
from fortis.formats.csv import write_bouts
from fortis.formats.record import write_record
from fortis.store.database import Database, open_database
from fortis.store.log import logged
from fortis.store.transfer import about_lifter, all_sessions

LENGTHS = (4, 24)
"""How many times twelve weeks: memory must not grow with them."""
BLOCK = timedelta(days=84)


def exchange() -> dict[str, object]:
    """Figures for the demo record, and for logs made of it."""
    with tempfile.TemporaryDirectory() as folder:
        make_demo(Path(folder) / "demo.db")
        database = open_database(Path(folder) / "demo.db")
        rows = _bouts(database)
        logs = {blocks: _log(Path(folder) / f"{blocks}.csv", rows, blocks) for blocks in LENGTHS}
        imports = {str(blocks * (len(rows) - 1)): _brought(log) for blocks, log in logs.items()}
        return {"export": _taken_away(database), "import_rows": imports}


def _bouts(database: Database) -> list[list[str]]:
    """The log of the demo, the names of its columns first."""
    with database() as work:
        return list(csv.reader(StringIO("".join(write_bouts(logged(work))))))


def _log(path: Path, rows: list[list[str]], blocks: int) -> Path:
    """A log of the demo's twelve weeks over and over, back through the years."""
    with path.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow(rows[0])
        for block in range(blocks, 0, -1):
            for at, session, *rest in rows[1:]:
                writer.writerow([datetime.fromisoformat(at) - block * BLOCK, f"{session} {block}", *rest])
    return path


def _taken_away(database: Database) -> dict[str, float]:
    figures = {}
    with database() as work:
        for name, pieces in (
            ("csv_rows_a_second", write_bouts(logged(work))),
            ("json_sessions_a_second", write_record(about_lifter(work), all_sessions(work))),
        ):
            began = perf_counter()
            many = sum(1 for _ in pieces)
            figures[name] = round(many / (perf_counter() - began))
    return figures


def _brought(log: Path) -> dict[str, float]:
    """An import in a process of its own, beside the same rows parsed by csv and written twice by sqlite3."""
    with log.open(encoding="utf-8") as lines:
        many = sum(1 for _ in lines) - 1
    began = perf_counter()
    command = [sys.executable, "-m", "fortis", "import", str(log), "--db", str(log.with_suffix(".db"))]
    subprocess.run(command, check=True, capture_output=True)
    seconds = perf_counter() - began
    floor = _floor(log)
    return {
        "seconds": round(seconds, 1),
        "rows_a_second": round(many / seconds),
        "floor_rows_a_second": round(many / floor),
        "ratio_to_floor": round(seconds / floor, 1),
        "peak_mb": round(resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000),
    }


def _floor(log: Path) -> float:
    began = perf_counter()
    database = sqlite3.connect(log.with_suffix(".floor"))
    with closing(database) as raw, raw, log.open(encoding="utf-8", newline="") as lines:
        rows = csv.reader(lines)
        columns = next(rows)
        named, holes = ", ".join(f'"{name}"' for name in columns), ", ".join("?" * len(columns))
        for table in ("bout", "version"):
            raw.execute(f"create table {table} ({named})")
        for row in rows:
            for table in ("bout", "version"):
                raw.execute(f"insert into {table} values ({holes})", row)
    return perf_counter() - began
