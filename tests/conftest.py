"""What many tests share: a fresh record, and the interface over it."""

import fcntl
import shutil
from datetime import UTC, date, datetime
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from fortis.api.app import create_app
from fortis.core.units import Unit
from fortis.demo.log import make_demo
from fortis.garbage_collection import collect_less_often
from fortis.store.database import open_database
from fortis.store.lifter import save_lifter
from tests import ahead

ahead.go()
collect_less_often()
settings.register_profile("fortis", deadline=None)
settings.load_profile("fortis")


@pytest.fixture
def database(tmp_path):
    """A new record whose lifter plans no warm-ups: most tests are about the work sets."""
    opened = open_database(tmp_path / "fortis.db")
    with opened.begin() as work:
        save_lifter(work, Unit.KG, training_since=None, warm_ups=None)
    return opened


@pytest.fixture(scope="session")
def demo_at(tmp_path_factory):
    """Puts the demo at a path, as it is now or on a day: it is made once for all workers, and copied."""
    folder = tmp_path_factory.getbasetemp().parent / "demo"
    folder.mkdir(exist_ok=True)

    def put(path, now=None):
        made = folder / f"{(now or datetime.now(UTC)).date()}.db"
        with (folder / "lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            if not made.exists():
                make_demo(made, now)
        return shutil.copy(made, path)

    return put


@pytest.fixture
def client(database):
    return TestClient(create_app(database), base_url="http://localhost", raise_server_exceptions=False)


@pytest.fixture
def today():
    return datetime.now(UTC).astimezone().date()


class Lifter:
    """Uses the interface as the screens do."""

    def __init__(self, client):
        self.client = client

    def plan(self, written, on: date | None = None, session_id=None):
        session_id = session_id or str(uuid4())
        body = {"written": written, "planned_on": on and on.isoformat()}
        return self.client.put(f"/api/compose/sessions/{session_id}", json=body)

    def start(self, session_id):
        return self.client.post(f"/api/floor/{session_id}/start").json()

    def work(self, session_id):
        steps = self.client.get(f"/api/floor/{session_id}").json()["timeline"]["steps"]
        return [step for step in steps if step["kind"] == "work" and not step["warm_up"]]

    def record(self, session_id, step, **went):
        place = "/".join(str(step[name]) for name in ("group", "round", "entry", "set", "bout"))
        body = {
            "exercise": step["exercise"],
            "setup": step["setup"],
            "side": step["side"],
            "kg": step["load"] and step["load"]["kg"],
            **went,
        }
        headers = {"Fortis-Device": "test"}
        return self.client.put(f"/api/floor/{session_id}/bouts/{place}", json=body, headers=headers)

    def take_back(self, session_id, step, seen=None, device="test"):
        place = "/".join(str(step[name]) for name in ("group", "round", "entry", "set", "bout"))
        query = {} if seen is None else {"seen": seen}
        headers = {"Fortis-Device": device}
        return self.client.delete(f"/api/floor/{session_id}/bouts/{place}", params=query, headers=headers)

    def play(self, written, went, on=None):
        """Plan, start, record (reps, reserve) bout by bout, and finish. Returns the session's id."""
        session_id = self.plan(written, on).json()["id"]
        self.start(session_id)
        for step, (reps, reserve) in zip(self.work(session_id), went, strict=True):
            assert self.record(session_id, step, reps=reps, reserve=reserve).status_code == 200
        assert self.client.post(f"/api/floor/{session_id}/finish").status_code == 200
        return session_id

    def past(self, session_id):
        return self.client.get(f"/api/ledger/{session_id}").json()


@pytest.fixture
def lifter(client):
    return Lifter(client)
