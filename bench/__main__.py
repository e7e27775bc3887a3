"""`python -m bench` prints every figure as JSON. Times in milliseconds."""

import json

from bench.notation import notation
from bench.recording import recording
from fortis.collector import relax

relax()
print(json.dumps({"notation": notation(), "recording": recording()}, indent=2))
