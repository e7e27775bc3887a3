"""`python -m bench.views` prints how fast each view of the demo is there on a simulated slow phone, as JSON."""

import subprocess
import tempfile
from pathlib import Path

from bench.serving import Served
from fortis.api.app import create_app
from fortis.demo.log import make_demo
from fortis.garbage_collection import collect_less_often
from fortis.store.database import open_database

SCRIPT = Path(__file__).parent / "lighthouse" / "views.js"

if __name__ == "__main__":
    collect_less_often()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "demo.db"
        make_demo(path)
        served = Served(create_app(open_database(path)))
        subprocess.run(["node", str(SCRIPT), f"http://127.0.0.1:{served.port}"], check=True)
