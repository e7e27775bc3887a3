"""`python -m bench` prints every figure as JSON. Times in milliseconds."""

import json

from bench.loading import loading
from bench.notation import notation
from bench.recording import recording
from bench.years import years
from fortis.garbage_collection import collect_less_often

collect_less_often()
print(
    json.dumps({"notation": notation(), "loading": loading(), "recording": recording(), "years": years()}, indent=2)
)
