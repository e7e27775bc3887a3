"""One, ten and fifty clients at a Fortis in a process of its own: each saves a bout, then looks at Today."""

import asyncio
import tempfile
import time
from collections.abc import Awaitable
from itertools import count
from pathlib import Path
from uuid import uuid4

import httpx

from bench.timing import p50, p95
from tests.serving import Serving

CLIENTS = (1, 10, 50)
REQUESTS = 300
LIFTS = ("Back squat", "Bench press", "Seal row", "Front squat", "Ring row")
A_LINE = 40
TEXT = "# Crowd\n" + "\n".join(f"{lift}: {A_LINE} x 5 at 40 kg" for lift in LIFTS)


def clients() -> dict[str, object]:
    """For each number of clients how long a save and a look took, and how many of both a second brought."""
    with tempfile.TemporaryDirectory() as folder:
        serving = Serving(Path(folder) / "log.db")
        serving.start()
        try:
            return {str(many): asyncio.run(_crowd(serving.address, many)) for many in CLIENTS}
        finally:
            serving.stop()


async def _crowd(address: str, many: int) -> dict[str, float]:
    taken: dict[str, list[float]] = {"save": [], "look": []}
    numbers = count()

    async def one(client: httpx.AsyncClient, floor: str) -> None:
        for _ in range(REQUESTS // many):
            shift, number = divmod(next(numbers), A_LINE * len(LIFTS))
            group, at = divmod(number, A_LINE)
            position = f"{group + 1}/{at + 1}/1/{at + 1 + shift}/1"
            done = {"exercise": LIFTS[group], "kg": 40, "reps": 5, "reserve": 2}
            await timed("save", client.put(f"{floor}/bouts/{position}", json=done))
            await timed("look", client.get("/api/today"))

    async def timed(what: str, request: Awaitable[httpx.Response]) -> None:
        began = time.perf_counter()
        (await request).raise_for_status()
        taken[what].append((time.perf_counter() - began) * 1000)

    async with httpx.AsyncClient(base_url=address, timeout=60, limits=httpx.Limits(max_connections=many)) as client:
        session = str(uuid4())
        (await client.put(f"/api/compose/sessions/{session}", json={"written": TEXT})).raise_for_status()
        (await client.post(f"/api/floor/{session}/start")).raise_for_status()
        began = time.perf_counter()
        await asyncio.gather(*(one(client, f"/api/floor/{session}") for _ in range(many)))
        seconds = time.perf_counter() - began
    return {
        "save_p50_ms": p50(taken["save"]),
        "save_p95_ms": p95(taken["save"]),
        "look_p50_ms": p50(taken["look"]),
        "look_p95_ms": p95(taken["look"]),
        "requests_a_second": round(2 * len(taken["save"]) / seconds),
    }
