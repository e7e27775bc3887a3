"""`python -m bench` prints every figure as JSON. Times in milliseconds."""

import json

from bench.loading import loading
from bench.notation import notation
from bench.recording import recording
from fortis.collector import relax

relax()
print(json.dumps({"notation": notation(), "loading": loading(), "recording": recording()}, indent=2))
