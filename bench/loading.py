"""Strip plans: a session of 40 loads, and how the cost grows, beside settling each load for itself."""

from decimal import Decimal
from random import Random

from bench.timing import interleaved, p50, p95
from fortis.core.cache import clear_caches
from fortis.core.loading.kit import USUAL_PLATES, read_plates
from fortis.core.loading.shelf import denominations, shelf
from fortis.core.loading.strip import strip_plan

PLATES = read_plates(USUAL_PLATES)
LIFTS = (140, 100, 120, 80, 60)


def loading() -> dict[str, object]:
    """Figures for a real session of five lifts, and for single runs of random loads up to 200."""
    have, obvious = denominations(PLATES, 2), shelf(PLATES, 2)
    session = _session()
    sums = sorted(total for total, _ in obvious.all() if total <= 90)
    runs = {str(many): Random(many).choices(sums, k=many) for many in (10, 20, 40, 100, 200)}
    calls = {
        "plan": lambda: strip_plan(have, session),
        "each_for_itself": lambda: [obvious.nearest(side) for side in session],
    }
    taken = interleaved(calls, 12, before=clear_caches)
    planned = {name: lambda run=run: strip_plan(have, run) for name, run in runs.items()}
    growth = interleaved(planned, 2, before=clear_caches)
    return {
        "loads": len(session),
        "plan_p50_ms": p50(taken["plan"]),
        "plan_p95_ms": p95(taken["plan"]),
        "each_for_itself_p50_ms": p50(taken["each_for_itself"]),
        "ratio": round(p50(taken["plan"]) / p50(taken["each_for_itself"]), 1),
        "one_run_of_random_loads_p50_ms": {name: p50(times) for name, times in growth.items()},
    }


def _session() -> list[Decimal]:
    """Side weights of five lifts of eight loads: the way up, three work sets, three back-offs, the bar emptied."""
    sides: list[Decimal] = []
    for kg in LIFTS:
        ramp = [Decimal(share) * kg / 100 for share in (40, 70)]
        loads = [*ramp, Decimal(kg), Decimal(kg) * 9 / 10, Decimal(kg), Decimal(kg) * 8 / 10]
        sides += [round((load - 20) / 5) * Decimal("2.5") for load in loads] + [Decimal(0)] * 2
    return [max(side, Decimal(0)) for side in sides]
