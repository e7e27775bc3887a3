"""Records of earlier releases, opened, brought up to date and played on: a release adds one and changes none."""

import json
import sqlite3
from datetime import UTC, date, datetime
from decimal import Decimal
from pathlib import Path
from uuid import UUID

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import String, select, type_coerce

from fortis.api.app import create_app
from fortis.core.performance import LoadSource
from fortis.core.units import Unit
from fortis.store import bouts, lifter, sessions
from fortis.store.database import open_database
from fortis.store.lifts import library
from fortis.store.naming import named
from fortis.store.played import added_up, conditions, played
from fortis.store.tables import BoutRow, SessionRow
from tests.conftest import Lifter

RELEASES = Path(__file__).parent / "releases"


@pytest.fixture(params=sorted(RELEASES.glob("*.sql")), ids=lambda path: path.stem)
def release(request, tmp_path):
    """A record of a release, still as that left it."""
    path = tmp_path / "old.db"
    connection = sqlite3.connect(path)
    connection.executescript(request.param.read_text(encoding="utf-8"))
    connection.close()
    return path


def session(work, number):
    return sessions.get(work, str(UUID(int=1000 + number)))


def test_nothing_is_lost(release):
    before = sqlite3.connect(release)
    address = 'session_id, "group", round, entry, "set", bout'
    numbers = "exercise, kg, reps, partial_reps, reserve, ended, note"
    told = sorted(map(tuple, before.execute(f"select {address}, {numbers} from bout")))
    before.close()
    with open_database(release).begin() as work:
        found = sorted(
            (
                row.session_id, *(getattr(row, name) for name in ("group", "round", "entry", "set", "bout")),
                row.exercise, None if row.kg is None else str(row.kg), row.reps, row.partial_reps,
                None if row.reserve is None else int(row.reserve), row.ended, row.note,
            )
            for row in work.query(BoutRow)
        )  # fmt: skip
        assert found == told
        assert (
            len(bouts.versions(work, session(work, 4).id, bouts.performed(work, session(work, 4).id)[-1].position))
            == 1
        )


def test_its_sessions_are_found_by_their_structures(release):
    with open_database(release).begin() as work:
        for row in work.query(SessionRow):
            assert row.structures == named(row.written, Unit(row.unit))
        assert any(row.structures for row in work.query(SessionRow))


def test_its_set_ups_are_found_in_their_own_letters(release):
    """They are searched as they stand in the file, where earlier releases wrote Gürtel as G\\u00fcrtel."""
    with sqlite3.connect(release) as before:
        before.execute("update bout set setup = ?", (json.dumps(["Gürtel", "5 cm höher"]),))
    with open_database(release).begin() as work:
        (first, *others) = work.query(BoutRow)
        assert all(row.setup == ["Gürtel", "5 cm höher"] for row in (first, *others))
        assert work.scalars(select(BoutRow.id).where(type_coerce(BoutRow.setup, String).icontains("gürtel"))).all()
        first.setup = ["Fußbank"]
    with sqlite3.connect(release) as after:
        kept = {setup for (setup,) in after.execute("select setup from bout")}
    assert kept == {'["Gürtel","5 cm höher"]', '["Fußbank"]'}


def test_what_was_asked_comes_from_the_plan_as_it_was_played(release):
    with open_database(release).begin() as work:
        row = session(work, 3)
        by_position = {str(bout.position): bout for bout in bouts.performed(work, row.id)}
        moved, extra, swapped = (by_position[at] for at in ("1.2.1.2.1", "1.4.1.4.1", "2.1.2.1.1"))
        assert (moved.asked.kg, moved.source) == (Decimal("72.5"), LoadSource.ADVICE)
        assert (extra.asked.reps.count, extra.note) == (5, "elbows in")
        assert (swapped.exercise, swapped.lift_id, swapped.body, swapped.asked.kg) == (
            "Face pull", "face-pull", False, None,
        )  # fmt: skip
        assert by_position["2.1.1.1.1"].body
        plan = played(work, row)
        assert next(each.exercise for each in plan.work_sets if each.group == 2) == "Face pull"
        assert {each.group for each in plan.sets[-4:]} == {2}
        assert [bout.settled.kg for each in plan.work_sets if each.group == 1 for bout in each.bouts] == [
            Decimal("72.5")
        ] * 4


def test_sessions_of_a_title_share_a_slot_and_the_kit_is_frozen(release):
    with open_database(release).begin() as work:
        uppers = [session(work, number) for number in (1, 3, 5)]
        assert {row.slot for row in uppers} == {uppers[0].id}
        assert session(work, 2).slot == session(work, 4).slot != uppers[0].slot
        assert sessions.frozen_kit(uppers[0]).place == "Gym"
        assert library(work).find("landmine press").id == "landmine-press"


def test_a_later_weigh_in_corrects_an_earlier_session(release):
    with open_database(release).begin() as work:
        row = session(work, 1)
        before = conditions(work, row).body_kg
        dips = added_up(work, row).tonnage_kg
        lifter.save_body_weight(work, date(2026, 9, 1), before + 2)
        assert added_up(work, row).tonnage_kg > dips


def test_it_plays_on(release):
    client = TestClient(
        create_app(open_database(release)), base_url="http://localhost", raise_server_exceptions=False
    )
    told = Lifter(client)
    today = client.get("/api/today").json()
    assert today["started"]["id"] == str(UUID(int=1005))
    view = client.get(f"/api/floor/{UUID(int=1005)}").json()
    done = len(view["bouts"])
    open_step = [step for step in view["timeline"]["steps"] if step["kind"] == "work"][done]
    assert told.record(str(UUID(int=1005)), open_step, reps=5, reserve=2).status_code == 200
    first = view["bouts"][0]
    step = {
        **first["bout"]["position"],
        "exercise": "Bench press",
        "setup": {"items": []},
        "side": "both",
        "load": {"kg": 20},
    }
    assert told.record(str(UUID(int=1005)), step, reps=9, seen=first["version"]).json()["version"] == 2
    assert client.post(f"/api/floor/{UUID(int=1005)}/finish").status_code == 200
    for number in range(1, 6):
        past = client.get(f"/api/ledger/{UUID(int=1000 + number)}")
        assert past.status_code == 200, past.text
    planned = client.get(f"/api/floor/{UUID(int=2000)}").json()
    assert planned["state"] == "planned"
    again = client.post(f"/api/floor/{UUID(int=2000)}/start").json()
    assert again["timeline"]["steps"][0]["load"]["kg"] > 0
    assert datetime.fromisoformat(again["started_at"]) <= datetime.now(UTC)
