"""`python -m bench.trials [LIFTERS]`: how often a trial finds what is there, and what is not."""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from statistics import fmean, median

from fortis.core.season.trial import Verdict
from fortis.simulation.trying import trial_of

LIFTERS = 400
FIRST_SEED = 200
EFFECTS = (0.0, 0.02, 0.04)
WEEKS = (8, 12)


def trials(lifters: int = LIFTERS) -> list[dict[str, object]]:
    """Figures for every length and true effect."""
    with ProcessPoolExecutor() as pool:
        return [_figures(pool, lifters, weeks, effect) for weeks in WEEKS for effect in EFFECTS]


def _figures(pool: ProcessPoolExecutor, lifters: int, weeks: int, effect: float) -> dict[str, object]:
    seeds = range(FIRST_SEED, FIRST_SEED + lifters)
    told = list(pool.map(partial(trial_of, effect=effect, weeks=weeks), seeds))
    changes = [
        (each.change, each.low, each.high) for each in told if None not in (each.change, each.low, each.high)
    ]
    return {
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
