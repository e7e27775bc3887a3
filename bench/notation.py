"""Reading a 30-line session and putting it in time, beside `json.loads` of a text of the same size."""

import json

from bench.timing import p50, p95, samples
from fortis.core.resolution import resolve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline

LINES = """Front squat [belt]: 5 sets of (1 at 92% up 2%, 25s, 3 at 74%) rest 3:00
Trap-bar deadlift [high handles]: 3 sets of (2, 2, 2) at 87% leave 1 within 10s rest 4:00
Leg extension: 1 set of (12 to failure, drop 20% to failure, drop 20% to failure)
Overhead press: 3 x 5 at 60 kg leave 2 rest 3:00
Split squat: 3 x 8-10 each side leave 1 tempo 3-1-1-0 rest 90s
"""
SESSION = "# Thirty lines\n" + LINES * 6


def notation() -> dict[str, float | int]:
    """Figures for the whole way from text to timeline."""
    same_size = json.dumps(SESSION.splitlines())
    floor = samples(lambda: json.loads(same_size), 500)
    reading = samples(lambda: read(SESSION), 60)
    whole = samples(lambda: timeline(resolve(lay_out(read(SESSION)))), 60)
    return {
        "lines": SESSION.count("\n") - 1,
        "read_p50_ms": p50(reading),
        "read_to_timeline_p50_ms": p50(whole),
        "read_to_timeline_p95_ms": p95(whole),
        "json_loads_p50_ms": p50(floor),
        "ratio_to_json_loads": round(p50(whole) / p50(floor), 1),
    }
