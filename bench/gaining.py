"""`python -m bench.gaining [LIFTERS]`: a year with loads chosen in three ways, and easing off before a day.

Beside the dose and the tiredness of every set that the made-up lifters have, which nobody knows of real ones, look
at what was missed and how the ways differ, not at how much was gained.
"""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from statistics import fmean

from fortis.simulation.gaining import Way, day_of, year_by

LIFTERS = 200
FIRST_SEED = 3_000


def gaining(lifters: int = LIFTERS) -> dict[str, object]:
    """Figures of a year by each way, and of a day with training eased off before it or not."""
    seeds = range(FIRST_SEED, FIRST_SEED + lifters)
    with ProcessPoolExecutor() as pool:
        ways = {str(way): list(pool.map(partial(year_by, way=way), seeds)) for way in Way}
        eased, trained = (list(pool.map(partial(day_of, peaked=peaked), seeds)) for peaked in (True, False))
    better = sorted(one - other for one, other in zip(eased, trained, strict=True))
    return {
        "lifters": lifters,
        "ways": {
            way: {
                "gained": round(fmean(each.gained for each in years), 4),
                "sets": round(fmean(each.sets for each in years)),
                "gained_in_100_sets": round(fmean(100 * each.gained / each.sets for each in years), 5),
                "missed_in_100_sets": round(fmean(100 * each.missed / each.sets for each in years), 1),
                "weeks_too_tired": round(fmean(each.tired_weeks for each in years), 2),
            }
            for way, years in ways.items()
        },
        "day": {
            "eased": round(fmean(eased), 4),
            "trained_on": round(fmean(trained), 4),
            "better_by": round(fmean(better), 4),
            "worst": round(better[0], 4),
            "best": round(better[-1], 4),
        },
    }


if __name__ == "__main__":
    print(json.dumps(gaining(*map(int, sys.argv[1:])), indent=2))
