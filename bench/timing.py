"""Measuring a call many times over."""

import gc
from collections.abc import Callable
from statistics import median, quantiles
from time import perf_counter


def samples(call: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each of `times` calls, after a tenth as many to warm up."""
    for _ in range(max(times // 10, 1)):
        call()
    gc.collect()
    taken = []
    for _ in range(times):
        start = perf_counter()
        call()
        taken.append((perf_counter() - start) * 1000)
    return taken


def p50(taken: list[float]) -> float:
    """The median."""
    return round(median(taken), 4)


def p95(taken: list[float]) -> float:
    """The value that nineteen in twenty stay under."""
    return round(quantiles(taken, n=20)[-1], 4)
