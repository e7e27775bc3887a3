"""What a long log costs: one year and twenty, each figure beside the same rows read with sqlite3 itself."""

import re
import sqlite3
import tempfile
from collections.abc import Callable
from datetime import UTC, datetime
from itertools import count
from pathlib import Path
from time import perf_counter, sleep
from uuid import uuid4

import httpx

from bench.log import TEXTS, make_log
from bench.serving import Served
from bench.timing import p50, p95
from fortis.api.app import create_app

TIMES = 15
A_LOOK_SECONDS = 1.5
"""As long as nobody is at Today without having seen it; by then what starting needs has been worked out."""
RECENT = "finished_at is not null and started_at > datetime('now', '-84 days')"
LAST = "finished_at is not null order by started_at desc limit"


def years() -> dict[str, object]:
    """Figures for both lengths, and how each grows from the one to the other."""
    one, twenty = _figures(1), _figures(20)
    growth = {
        name: round(twenty[name]["p50_ms"] / one[name]["p50_ms"], 2) for name in one if isinstance(one[name], dict)
    }
    return {"one_year": one, "twenty_years": twenty, "growth": growth}


def _figures(length: int) -> dict[str, object]:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "log.db"
        began = perf_counter()
        served = Served(create_app(make_log(path, length)))
        made = perf_counter() - began
        raw = sqlite3.connect(path)
        sessions, bouts = (
            raw.execute(f"select count(*) from {table}").fetchone()[0] for table in ("session", "bout")
        )
        figures: dict[str, object] = {"sessions": sessions, "bouts": bouts, "made_in_s": round(made, 1)}
        for name, (prepare, call, floor) in _calls(served.client, raw).items():
            figures[name] = _beside(prepare, call, floor)
        return figures


Call = Callable[[], object]


def _calls(client: httpx.Client, raw: sqlite3.Connection) -> dict[str, tuple[Call, Call, Call]]:
    """For each name what goes ahead of a call, the call, and its floor. A bout is saved ahead of everything."""
    written = count(1)

    def planned(on: str | None = None) -> str:
        """A session like none before it: what was worked out for another does not serve."""
        session, more = str(uuid4()), next(written)
        text = re.sub(r"at (\d+) kg", lambda at: f"at {int(at[1]) + more} kg", TEXTS[0])
        client.put(f"/api/compose/sessions/{session}", json={"written": text, "planned_on": on}).raise_for_status()
        return session

    playing, sets, due = planned(), count(1), ""
    client.post(f"/api/floor/{playing}/start").raise_for_status()

    def save() -> None:
        done = {"exercise": "Back squat", "kg": 100, "reps": 5, "reserve": 2}
        round_before, number = divmod(next(sets), 10)
        position = f"1/{round_before + 1}/1/{number + 1}/1"
        client.put(f"/api/floor/{playing}/bouts/{position}", json=done).raise_for_status()

    def plan_and_come_back() -> None:
        nonlocal due
        due = planned(str(datetime.now(UTC).date()))
        client.get("/api/today").raise_for_status()

    def and_look_at_it() -> None:
        plan_and_come_back()
        sleep(A_LOOK_SECONDS)

    def read(which: str, columns: str) -> list[str]:
        rows = raw.execute(f"select id, {columns} from session where {which}").fetchall()
        return [row[0] for row in rows]

    def read_bouts(ids: list[str]) -> None:
        raw.execute(f"select * from bout where session_id in ({', '.join('?' * len(ids))})", ids).fetchall()

    card = "slot, title, written, unit, planned_on, started_at, finished_at, discarded_at, zone, kit, adjustments"

    def recent() -> None:
        read_bouts(read(RECENT, card))

    def recent_and_plans() -> None:
        recent()
        read(f"{LAST} 12", f"{card}, resolved")

    def page() -> None:
        read_bouts(read(f"{LAST} 31", card))

    def get(path: str) -> Call:
        return lambda: client.get(path).raise_for_status()

    def examine() -> None:
        client.post("/api/compose/examine", json={"written": TEXTS[1]}).raise_for_status()

    def start() -> None:
        client.post(f"/api/floor/{due}/start").raise_for_status()

    def weeks() -> None:
        ids = read(f"{LAST} 27", f"{card}, resolved")
        read_bouts(ids)

    def words() -> None:
        raw.execute(
            "select id from session where finished_at is not null and written like '%zither%' or exists (select 1 "
            "from bout where session_id = session.id and (exercise like '%zither%' or note like '%zither%'))"
        ).fetchall()

    def lift() -> None:
        half_a_year = (
            "select id from session where finished_at is not null and started_at > datetime('now', '-182 days')"
        )
        raw.execute(f"select * from bout where session_id in ({half_a_year})").fetchall()
        raw.execute(
            "select session_id, kg, sum(reps) from bout where lift_id = 'back-squat' group by session_id, kg"
        ).fetchall()

    (past,) = read(f"{LAST} 1", card)
    slot = f"slot = (select slot from session where id = '{past}') and {LAST} 13"

    def session_page() -> None:
        read_bouts(read(slot, f"{card}, resolved"))
        lift()

    def all_lifts() -> None:
        raw.execute("select lift_id, setup, max(kg), max(done_at) from bout group by lift_id, setup").fetchall()

    def one_session() -> None:
        read(f"id = '{playing}'", f"{card}, resolved")

    return {
        "today": (save, get("/api/today"), recent),
        "start": (and_look_at_it, start, recent),
        "start_at_once": (plan_and_come_back, start, recent),
        "save": (lambda: None, save, one_session),
        "examine": (save, examine, recent_and_plans),
        "ledger_page": (save, get("/api/ledger"), page),
        "ledger_weeks": (save, get("/api/ledger/weeks"), weeks),
        "ledger_session": (save, get(f"/api/ledger/{past}"), session_page),
        "strength": (save, get("/api/strength"), all_lifts),
        "strength_lift": (save, get("/api/strength/lift?lift_id=back-squat"), lift),
        "ledger_find_nothing": (save, get("/api/ledger?find=zither"), words),
    }


def _beside(prepare: Call, call: Call, floor: Call) -> dict[str, float]:
    """A call beside its floor, after both were made once.

    The floor is taken before and after, when the server is at rest: it works ahead once Today was sent.
    """
    taken: dict[str, list[float]] = {"call": [], "floor": []}

    def take(name: str, each: Call) -> None:
        began = perf_counter()
        each()
        taken[name].append((perf_counter() - began) * 1000)

    def floors() -> None:
        sleep(A_LOOK_SECONDS)
        for _ in range(TIMES):
            take("floor", floor)

    floor()
    floors()
    for _ in range(TIMES + 1):
        prepare()
        take("call", call)
    floors()
    first = taken["call"].pop(0)
    return {
        "first_ms": round(first, 1),
        "p50_ms": p50(taken["call"]),
        "p95_ms": p95(taken["call"]),
        "floor_p50_ms": p50(taken["floor"]),
        "ratio_to_floor": round(p50(taken["call"]) / p50(taken["floor"]), 1),
    }
