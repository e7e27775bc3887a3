"""Saving a bout over HTTP, beside the same rows committed by sqlite3 and an empty route of the framework."""

import sqlite3
import tempfile
from decimal import Decimal
from itertools import count
from pathlib import Path
from uuid import UUID, uuid4

from fastapi import FastAPI

from bench.serving import Served
from bench.timing import interleaved, p50, p95
from fortis.api.app import create_app
from fortis.api.floor import At, BoutDone, Saved
from fortis.api.work import Device, Now
from fortis.store.database import open_database

WRITTEN = "# Bench\nBack squat: 30 x 5 at 100 kg leave 2\nBench press: 30 x 5 at 70 kg leave 2"
BOUTS = 60
PLACE = "/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}"


class _Raw:
    """The same rows committed by sqlite3 itself, with the same pragmas."""

    def __init__(self, path: Path) -> None:
        self.connection = sqlite3.connect(path, isolation_level=None)
        names = [row[1] for row in self.connection.execute("pragma table_info(bout)")]
        columns = ", ".join(f'"{name}"' for name in names)
        self.bout = list(self.connection.execute(f"select {columns} from bout limit 1").fetchone())
        self.version = list(self.connection.execute("select * from bout_version limit 1").fetchone())
        for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
            self.connection.execute(f"PRAGMA {pragma}")
        self.sets = count(1000)
        self.into_bout = f"insert into bout ({columns}) values ({', '.join('?' * len(self.bout))})"
        self.into_version = f"insert into bout_version values ({', '.join('?' * len(self.version))})"
        self.id, self.set = names.index("id"), names.index("set")

    def insert(self) -> None:
        self.bout[self.id] = self.version[0] = str(uuid4())
        self.bout[self.set] = next(self.sets)
        self.connection.execute("BEGIN IMMEDIATE")
        self.connection.execute(self.into_bout, self.bout)
        self.connection.execute(self.into_version, self.version)
        self.connection.execute("COMMIT")


def _nothing(session_id: UUID, at: At, done: BoutDone, now: Now, device: Device = "") -> Saved:  # noqa: ARG001
    return Saved(version=1, tonnage_kg=Decimal(0))


def recording(times: int = 300) -> dict[str, float | int]:
    """Figures for new bouts on their way into the record, each committed to disk before the answer.

    The floor is the same rows committed by sqlite3 itself, four times over, and an empty route of the framework.
    What the framework takes to read the same request and do nothing is told beside it.
    """
    empty = FastAPI()
    empty.add_api_route("/", lambda: {})
    empty.add_api_route(f"/api/floor{PLACE}", _nothing, methods=["PUT"])
    floor = Served(empty)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "bench.db"
        fortis = Served(create_app(open_database(path))).client
        sessions = [uuid4() for _ in range(times // BOUTS + 1)]
        for session in sessions:
            fortis.put(f"/api/compose/sessions/{session}", json={"written": WRITTEN}).raise_for_status()
            fortis.post(f"/api/floor/{session}/start").raise_for_status()
        places = (
            f"{session}/bouts/{group}/{number}/1/{number}/1"
            for session in sessions
            for group in (1, 2)
            for number in range(1, 31)
        )
        body = {"exercise": "Back squat", "kg": 100, "reps": 5, "reserve": 2, "ended": "target met"}

        def save() -> None:
            fortis.put(f"/api/floor/{next(places)}", json=body).raise_for_status()

        def nothing() -> None:
            floor.client.put(f"/api/floor/{sessions[0]}/bouts/1/1/1/1/1", json=body).raise_for_status()

        save()
        raw = _Raw(path)
        calls = {
            "save": save,
            "empty": lambda: floor.client.get("/").raise_for_status(),
            "nothing": nothing,
            "raw": raw.insert,
        }
        taken = interleaved(calls, times)
    saved, idle, inserted = taken["save"], taken["empty"], taken["raw"]
    bar = 4 * p50(inserted) + p50(idle)
    return {
        "bouts": times,
        "save_p50_ms": p50(saved),
        "save_p95_ms": p95(saved),
        "empty_route_p50_ms": p50(idle),
        "empty_route_p95_ms": p95(idle),
        "read_and_do_nothing_p50_ms": p50(taken["nothing"]),
        "raw_insert_p50_ms": p50(inserted),
        "raw_insert_p95_ms": p95(inserted),
        "ratio_to_empty_route_p50": round(p50(saved) / p50(idle), 1),
        "ratio_to_four_inserts_and_an_empty_route": round(p50(saved) / bar, 2),
    }
