"""A Fortis in a process of its own over a new record, and many who use it at the same moment."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from threading import Barrier
from uuid import uuid4

import httpx
import pytest

from tests.serving import Serving


@pytest.fixture
def serve():
    """Starts a server over a record; all of them are stopped in the end."""
    started: list[Serving] = []

    def over(record: Path) -> Serving:
        started.append(Serving(record))
        started[-1].start()
        return started[-1]

    yield over
    for each in started:
        each.stop()


@pytest.fixture
def serving(serve, tmp_path):
    return serve(tmp_path / "fortis.db")


class Crowd:
    """Several devices at one server, each with a connection of its own."""

    def __init__(self, address: str) -> None:
        self.address = address

    def client(self) -> httpx.Client:
        return httpx.Client(base_url=self.address, timeout=60, verify=False)

    def at_once(self, calls: list[Callable[[httpx.Client], httpx.Response]]) -> list[httpx.Response]:
        """The answers to calls that all set out at the same moment."""
        start = Barrier(len(calls))

        def one(call: Callable[[httpx.Client], httpx.Response]) -> httpx.Response:
            with self.client() as client:
                start.wait()
                return call(client)

        with ThreadPoolExecutor(len(calls)) as threads:
            return list(threads.map(one, calls))


@pytest.fixture
def crowd(serving):
    return Crowd(serving.address)


@pytest.fixture
def session(crowd):
    """A session under way."""
    session_id = str(uuid4())
    with crowd.client() as client:
        text = "# Legs\nBack squat: 40 x 5 at 100 kg leave 2\nRing row: 3 x 8 at bw"
        client.put(f"/api/compose/sessions/{session_id}", json={"written": text}).raise_for_status()
        client.post(f"/api/floor/{session_id}/start").raise_for_status()
    return session_id
