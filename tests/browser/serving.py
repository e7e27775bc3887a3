"""A Fortis of one's own for a browser test: a process on a free port that can be killed and started again."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]
CHROMIUM = "/usr/bin/chromium"


class Serving:
    """`fortis serve` over one database file."""

    def __init__(self, database: Path) -> None:
        self.database = database
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen | None = None

    def start(self) -> None:
        command = [sys.executable, "-m", "fortis", "serve", "--db", str(self.database), "--port", str(self.port)]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{self.address}/api/today", timeout=2)
                return
            except OSError:
                time.sleep(0.05)
        raise TimeoutError(self.address)

    def kill(self) -> None:
        """As the battery would: no goodbye."""
        if self.process:
            os.kill(self.process.pid, signal.SIGKILL)
            self.process.wait()
            self.process = None
