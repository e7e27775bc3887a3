"""What befalls a server and its disk: whatever was acknowledged is in the record, once, and the record is sound."""

import re
import shutil
import signal
import sqlite3
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from functools import partial
from random import Random
from threading import Barrier, Timer
from uuid import uuid4

import httpx
import pytest

from fortis.store.backup import damage
from fortis.store.database import open_database
from tests.server.conftest import Crowd
from tests.serving import free_port, rows
from tests.store.test_releases import RELEASES

WRITERS = 200
A_LINE = 40
LIFTS = ("Back squat", "Bench press", "Seal row", "Front squat", "Ring row")
TEXT = "# Long\n" + "\n".join(f"{lift}: {A_LINE} x 5 at 40 kg" for lift in LIFTS)


def begun(address):
    """The address of a long session under way."""
    session = str(uuid4())
    with httpx.Client(base_url=address, timeout=60, verify=False) as client:
        client.put(f"/api/compose/sessions/{session}", json={"written": TEXT}).raise_for_status()
        client.post(f"/api/floor/{session}/start").raise_for_status()
    return f"/api/floor/{session}"


def save(client, floor, number, reps=5):
    group, at = divmod(number, A_LINE)
    position = f"{group + 1}/{at + 1}/1/{at + 1}/1"
    return client.put(f"{floor}/bouts/{position}", json={"exercise": LIFTS[group], "kg": None, "reps": reps})


def acknowledged(address, floor, barrier, number):
    """The number of a bout that the server said it has; None where it did not get to say so."""
    with httpx.Client(base_url=address, timeout=30, verify=False) as client:
        barrier.wait()
        try:
            return number if save(client, floor, number).status_code == 200 else None
        except httpx.HTTPError:
            return None


def in_the_record(serving):
    """How often each position is in the record, by the number of its bout."""
    found = rows(serving, 'select ("group" - 1) * 40 + round - 1, count(*) from bout group by 1')
    return dict(found)


def is_sound(path):
    return damage(path) == []


def test_killed_while_two_hundred_write_it_keeps_what_it_acknowledged(serving):
    random = Random(7)
    floor = begun(serving.address)
    said = set()
    for _ in range(3):
        barrier = Barrier(WRITERS, Timer(random.uniform(0.3, 1.2), serving.kill).start)
        with ThreadPoolExecutor(WRITERS) as writers:
            write = partial(acknowledged, serving.address, floor, barrier)
            said |= set(writers.map(write, range(WRITERS))) - {None}
        while serving.process:
            time.sleep(0.01)
        assert is_sound(serving.database)
        serving.start()
        found = in_the_record(serving)
        assert said <= found.keys()
        assert set(found.values()) <= {1}
    assert said


def test_two_servers_on_one_record_write_as_one(serve, tmp_path):
    first, second = (serve(tmp_path / "fortis.db") for _ in range(2))
    floor = begun(first.address)
    crowds = [Crowd(first.address), Crowd(second.address)]
    with ThreadPoolExecutor(2) as both:
        calls = [partial(save, floor=floor, number=number) for number in range(40)]
        told = both.map(lambda crowd: crowd.at_once(calls), crowds)
        answers = [answer for of_one in told for answer in of_one]
    assert {answer.status_code for answer in answers} == {200}
    with crowds[1].client() as client:
        conflict = save(client, floor, 3, reps=4)
    assert conflict.status_code == 409
    with crowds[0].client() as client:
        told = client.get(floor).json()["bouts"]
    assert [len(told), {each["version"] for each in told}] == [40, {1}]
    for each in (first, second):
        each.stop()
    assert is_sound(tmp_path / "fortis.db")


@pytest.fixture
def small_disk(tmp_path):
    """A disk of three megabytes."""
    place = tmp_path / "disk"
    place.mkdir()
    mounted = subprocess.run(["mount", "-t", "tmpfs", "-o", "size=3m", "tmpfs", str(place)], capture_output=True)
    if mounted.returncode:
        pytest.skip("a disk of one's own is only to be had as root")
    yield place
    subprocess.run(["umount", "--lazy", str(place)], check=True)


def test_a_full_disk_is_told_and_nothing_is_lost(small_disk, serve):
    serving = serve(small_disk / "fortis.db")
    floor = begun(serving.address)
    stuffing = small_disk / "holiday.mov"
    with httpx.Client(base_url=serving.address, timeout=30) as client:
        assert save(client, floor, 0).status_code == 200
        free = shutil.disk_usage(small_disk).free
        stuffing.write_bytes(b"x" * (free - 40_000))
        said = {0}
        for number in range(1, 200):
            answer = save(client, floor, number)
            if answer.status_code != 200:
                break
            said.add(number)
        assert (answer.status_code, answer.json()["title"]) == (507, "The disk is full")
        assert client.get("/api/today").status_code == 200
        stuffing.unlink()
        assert save(client, floor, number).status_code == 200
    assert in_the_record(serving).keys() == said | {number}
    serving.stop()
    assert is_sound(small_disk / "fortis.db")


def test_a_record_that_may_only_be_read_is_told_in_a_line(small_disk):
    path = small_disk / "fortis.db"
    open_database(path).kw["bind"].dispose()
    subprocess.run(["mount", "-o", "remount,ro", str(small_disk)], check=True)
    command = [sys.executable, "-m", "fortis", "serve", "--db", str(path), "--port", str(free_port())]
    told = subprocess.run(command, capture_output=True, text=True, timeout=60)
    assert told.returncode == 2
    assert re.search("may only be read|who may read and write it", told.stderr)
    assert len(told.stderr.strip().splitlines()) == 1


def test_killed_while_its_form_changes_a_record_is_of_the_old_form_or_the_new(tmp_path):
    old = tmp_path / "old.db"
    with closing(sqlite3.connect(old)) as database:
        database.executescript(next(RELEASES.glob("*.sql")).read_text(encoding="utf-8"))
        told = database.execute("select count(*), sum(reps) from bout").fetchone()
    opening = "import sys; from pathlib import Path; from fortis.store.database import open_database; "
    opening += "open_database(Path(sys.argv[1])); print('open')"
    interrupted = 0
    for number in range(10):
        path = tmp_path / str(number) / "record.db"
        path.parent.mkdir()
        shutil.copy(old, path)
        process = subprocess.Popen([sys.executable, "-c", opening, str(path)], stdout=subprocess.PIPE)
        beside = path.with_name("record.db-wal")
        deadline = time.monotonic() + 20
        while not beside.exists() and process.poll() is None and time.monotonic() < deadline:
            time.sleep(0.002)
        time.sleep(number * 0.02)
        process.send_signal(signal.SIGKILL)
        interrupted += b"open" not in process.communicate()[0]
        assert is_sound(path)
        with open_database(path)() as work:
            found = work.connection().exec_driver_sql("select count(*), sum(reps) from bout").one()
        assert tuple(found) == told
    assert interrupted
