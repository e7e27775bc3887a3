"""Measuring a call many times over."""

import gc
from collections.abc import Callable, Mapping
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


def interleaved(
    calls: Mapping[str, Callable[[], object]], rounds: int, before: Callable[[], object] = lambda: None
) -> dict[str, list[float]]:
    """Milliseconds of each call, taken in turn, so that a slow spell of the machine falls on all alike.

    `before` runs ahead of every call and is not counted.
    """
    taken: dict[str, list[float]] = {name: [] for name in calls}
    for call in calls.values():
        call()
    gc.collect()
    for _ in range(rounds):
        for name, call in calls.items():
            before()
            start = perf_counter()
            call()
            taken[name].append((perf_counter() - start) * 1000)
    return taken
