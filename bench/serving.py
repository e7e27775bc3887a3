"""An application served to clients on this machine."""

import threading
import time

import httpx
import uvicorn
from fastapi import FastAPI

from tests.serving import free_port


class Served:
    """An application in a thread of its own, with a client that asks it."""

    def __init__(self, app: FastAPI) -> None:
        self.port = free_port()
        self.server = uvicorn.Server(uvicorn.Config(app, port=self.port, log_level="error"))
        threading.Thread(target=self.server.run, daemon=True).start()
        while not self.server.started:
            time.sleep(0.01)
        self.client = self.another_client()

    def another_client(self) -> httpx.Client:
        """A client with a connection of its own."""
        return httpx.Client(base_url=f"http://127.0.0.1:{self.port}", timeout=60)
