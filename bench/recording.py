"""Saving a bout over HTTP, beside an empty route of the same framework on the same socket."""

import socket
import tempfile
import threading
import time
from itertools import cycle
from pathlib import Path
from uuid import uuid4

import httpx
import uvicorn
from fastapi import FastAPI

from bench.timing import p50, p95, samples
from fortis.api.app import create_app
from fortis.store.database import open_database

WRITTEN = "# Bench\nBack squat: 50 x 5 at 100 kg leave 2\nBench press: 50 x 5 at 70 kg leave 2"


class _Served:
    def __init__(self, app: FastAPI) -> None:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.server = uvicorn.Server(uvicorn.Config(app, port=self.port, log_level="error"))
        threading.Thread(target=self.server.run, daemon=True).start()
        while not self.server.started:
            time.sleep(0.01)
        self.client = httpx.Client(base_url=f"http://127.0.0.1:{self.port}")


def recording(times: int = 300) -> dict[str, float | int]:
    """Figures for a bout on its way into the record, committed to disk before the answer."""
    empty = FastAPI()
    empty.add_api_route("/", lambda: {})
    floor = _Served(empty)
    idle = samples(lambda: floor.client.get("/").raise_for_status(), times)
    with tempfile.TemporaryDirectory() as folder:
        fortis = _Served(create_app(open_database(Path(folder) / "bench.db"))).client
        session = uuid4()
        fortis.put(f"/api/compose/sessions/{session}", json={"written": WRITTEN}).raise_for_status()
        fortis.post(f"/api/floor/{session}/start").raise_for_status()
        places = cycle([f"1/{number}/1/{number}/1" for number in range(1, 51)])
        body = {"exercise": "Back squat", "kg": 100, "reps": 5, "reserve": 2, "ended": "target met"}
        saved = samples(
            lambda: fortis.put(f"/api/floor/{session}/bouts/{next(places)}", json=body).raise_for_status(), times
        )
    return {
        "bouts": times,
        "save_p50_ms": p50(saved),
        "save_p95_ms": p95(saved),
        "empty_route_p50_ms": p50(idle),
        "empty_route_p95_ms": p95(idle),
        "ratio_to_empty_route_p50": round(p50(saved) / p50(idle), 1),
        "ratio_to_empty_route_p95": round(p95(saved) / p95(idle), 1),
    }
