"""A Fortis of one's own for a test, on a free port: a thread, or a process that can be killed."""

import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.request
from contextlib import closing
from pathlib import Path

import uvicorn

from fortis.api.app import create_app
from fortis.store.database import open_database

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--font-render-hinting=none",
]
CHROMIUM = shutil.which("chromium-headless-shell") or shutil.which("chromium") or "chromium"
"""The shell does without the windows that nobody sees: a third less work."""


def free_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


def rows(serving, query, *values):
    """What the record of a served Fortis holds."""
    with closing(sqlite3.connect(serving.database)) as database:
        return database.execute(query, values).fetchall()


class Threaded:
    """Fortis over one database file in a thread of the test's own process: there at once, not to be killed."""

    def __init__(self, database: Path) -> None:
        self.database = database
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        app = create_app(open_database(self.database))
        self.server = uvicorn.Server(uvicorn.Config(app, port=self.port, log_level="warning", lifespan="off"))
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        while not self.server.started:
            time.sleep(0.01)

    def stop(self) -> None:
        self.server.should_exit = True
        self.thread.join()


class Serving:
    """`fortis serve` over one database file, in a process that can be killed and started again."""

    def __init__(self, database: Path) -> None:
        self.database = database
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen | None = None

    def start(self) -> None:
        own = ["--db", str(self.database), "--port", str(self.port)]
        command = [sys.executable, "-m", "tests.ahead", "serve", *own]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        latest = time.monotonic() + 180
        while time.monotonic() < latest:
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

    stop = kill
