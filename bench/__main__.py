"""`python -m bench` prints every figure as JSON; with names, those only. Times in milliseconds."""

import json
import sys

from bench.clients import clients
from bench.exchange import exchange
from bench.loading import loading
from bench.notation import notation
from bench.recording import recording
from bench.season import season
from bench.strength import strength
from bench.years import years
from fortis.garbage_collection import collect_less_often

BENCHMARKS = {
    "notation": notation,
    "loading": loading,
    "recording": recording,
    "clients": clients,
    "years": years,
    "strength": strength,
    "exchange": exchange,
    "season": season,
}

collect_less_often()
print(json.dumps({name: BENCHMARKS[name]() for name in sys.argv[1:] or BENCHMARKS}, indent=2))
