"""`python -m bench.trials [LIFTERS]`: how often a trial finds what is there, and what is not."""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from statistics import fmean, median

from fortis.core.season.trial import Verdict
from fortis.simulation.trying import FEWER, SAME, WAVES, Way, trial_of

LIFTERS = 200
FIRST_SEED = 1_000
EFFECTS = (0.0, 0.02, 0.04)
WEEKS = {SAME: (8, 12), FEWER: (8, 12), WAVES: (12, 18)}


def trials(lifters: int = LIFTERS) -> list[dict[str, object]]:
    """Figures for everything that is tried, every length and true effect."""
    with ProcessPoolExecutor() as pool:
        return [
            _figures(pool, lifters, way, weeks, effect)
            for way, lengths in WEEKS.items()
            for weeks in lengths
            for effect in EFFECTS
        ]


def _figures(pool: ProcessPoolExecutor, lifters: int, way: Way, weeks: int, effect: float) -> dict[str, object]:
    seeds = range(FIRST_SEED, FIRST_SEED + lifters)
    told = list(pool.map(partial(trial_of, effect=effect, weeks=weeks, way=way), seeds))
    changes = [
        (each.change, each.low, each.high) for each in told if None not in (each.change, each.low, each.high)
    ]
    return {
        "tried": way.name,
        "weeks": weeks,
        "true_effect": effect,
        "lifters": lifters,
        **{
            str(verdict): round(fmean(each.verdict is verdict for each in told), 3)
            for verdict in Verdict
            if verdict is not Verdict.RUNNING
        },
        "found_on_average": round(fmean(change for change, _, _ in changes), 4),
        "bounds_each_way": round(median((high - low) / 2 for _, low, high in changes), 4),
        "bounds_hold_the_truth": round(fmean(low <= effect <= high for _, low, high in changes), 3),
    }


if __name__ == "__main__":
    print(json.dumps(trials(*map(int, sys.argv[1:])), indent=2))
