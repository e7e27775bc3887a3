"""The way from text to cost for sessions of 30 and 300 lines, beside lark's own parse of the same text."""

from collections.abc import Callable
from itertools import count

from bench.timing import interleaved, p50, p95, samples
from fortis.core.basis import Basis
from fortis.core.cache import clear_caches
from fortis.core.resolution import resolve
from fortis.core.structure.notation import parse_line, read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write
from fortis.core.tally.costing import cost_of_plan
from fortis.store.places import USUAL_KIT

LINES = """Front squat [belt]: 5 sets of (1 at 92% up 2%, 25s, 3 at 74%) rest {rest}s
Trap-bar deadlift [high handles]: 3 sets of (2, 2, 2) at 87% leave 1 within 10s rest {rest}s
Leg extension: 1 set of (12 to failure, drop 20% to failure, drop 20% to failure) rest {rest}s
Overhead press: 3 x 5 at {kg} kg leave 2 rest {rest}s
Split squat: 3 x 8-10 each side leave 1 tempo 3-1-1-0 rest {rest}s
"""
BASIS = Basis(kit=USUAL_KIT)


def notation() -> dict[str, object]:
    """Figures for both lengths, and how the whole grows from the one to the other (10 is linear).

    Everything is measured as if it were asked for the first time; `again` is the whole with one line changed.
    """
    short, long = _figures(6, 60), _figures(60, 12)
    growth = long["whole_p50_ms"] / short["whole_p50_ms"]
    return {"lines_30": short, "lines_300": long, "growth_for_ten_times_the_lines": round(growth, 1)}


def _figures(times: int, runs: int) -> dict[str, float]:
    text = "# A session\n" + "".join(LINES.format(kg=60 + each, rest=120 + each) for each in range(times))
    lines = text.splitlines()[1:]
    changed = count(200)
    session = read(text)
    laid_out = lay_out(session)
    settled = resolve(laid_out, BASIS)
    seconds = timeline(settled).total_seconds

    def whole(of: str = text) -> None:
        read_session = read(of)
        write(read_session)
        prescription = resolve(lay_out(read_session), BASIS)
        cost_of_plan(prescription, timeline(prescription).total_seconds)

    def again() -> None:
        whole(text.replace(" 60 kg", f" {next(changed)} kg", 1))

    parts: dict[str, Callable[[], object]] = {
        "lark_parse": lambda: [parse_line(line) for line in lines],
        "read": lambda: read(text),
        "write": lambda: write(session),
        "lay_out": lambda: lay_out(session),
        "resolve": lambda: resolve(laid_out, BASIS),
        "timeline": lambda: timeline(settled),
        "cost": lambda: cost_of_plan(settled, seconds),
    }
    taken = interleaved({**parts, "whole": whole}, runs, before=clear_caches)
    whole()
    taken["again"] = samples(again, runs)
    figures = {f"{name}_p50_ms": p50(times) for name, times in taken.items()}
    figures["whole_p95_ms"] = p95(taken["whole"])
    figures["whole_to_lark_parse"] = round(figures["whole_p50_ms"] / figures["lark_parse_p50_ms"], 2)
    return figures
