from uuid import uuid4

import pytest

TEXT = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00\nDip: 2 x 8 at bw+10 leave 2"


@pytest.fixture
def session_id(lifter, today):
    return lifter.plan(TEXT, today).json()["id"]


def test_starting_twice_is_starting_once(lifter, session_id):
    first, second = lifter.start(session_id), lifter.start(session_id)
    assert first["state"] == "started"
    assert first["started_at"] == second["started_at"]
    assert len(first["timeline"]["steps"]) == len(second["timeline"]["steps"])


def test_a_bout_sent_twice_is_one_and_sent_anew_is_corrected(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    for _ in range(2):
        assert lifter.record(session_id, squat, reps=5, reserve=2).json() == {"tonnage_kg": 500}
    lifter.record(session_id, squat, reps=4, reserve=0, ended="could not move it")
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert recorded["bout"]["reps"] == 4
    assert recorded["bout"]["ended"] == "could not move it"


def test_a_bout_can_be_taken_back(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5)
    assert lifter.take_back(session_id, squat).json() == {"tonnage_kg": 0}
    assert lifter.take_back(session_id, squat).status_code == 200
    assert client.get(f"/api/floor/{session_id}").json()["bouts"] == []


def test_a_bout_that_comes_before_the_start_starts_the_session(client, lifter, session_id):
    lifter.record(session_id, lifter.work(session_id)[0], reps=5)
    assert client.get(f"/api/floor/{session_id}").json()["state"] == "started"


def test_loads_stay_as_they_were_at_the_start(client, lifter, session_id, today):
    lifter.start(session_id)
    lifter.plan(TEXT.replace("100 kg", "60 kg"), today, session_id)
    assert lifter.work(session_id)[0]["load"]["kg"] == 100


def test_when_a_bout_was_done_is_kept_through_corrections(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5, done_at="2026-01-02T03:04:05Z")
    lifter.record(session_id, squat, reps=4, done_at="2026-01-02T09:09:09Z")
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert recorded["done_at"] == "2026-01-02T03:04:05Z"


@pytest.mark.parametrize(
    ("went", "field"),
    [
        ({"reps": -1}, "reps"),
        ({"reps": 501}, "reps"),
        ({"reps": 5, "reserve": 11}, "reserve"),
        ({"reps": 5, "kg": 100_000}, "kg"),
        ({"reps": 5, "kg": "heavy"}, "kg"),
        ({"reps": 5, "ended": "bored"}, "ended"),
    ],
)
def test_a_bout_that_cannot_be_is_refused_by_name(client, lifter, session_id, went, field):
    lifter.start(session_id)
    answer = lifter.record(session_id, lifter.work(session_id)[0], **went)
    assert answer.status_code == 422
    assert field in answer.json()["fields"][0]["field"]
    assert client.get(f"/api/floor/{session_id}").json()["bouts"] == []


def test_finishing_wants_a_start_and_happens_once(client, lifter, session_id):
    assert client.post(f"/api/floor/{session_id}/finish").status_code == 409
    lifter.start(session_id)
    first = client.post(f"/api/floor/{session_id}/finish").json()
    assert client.post(f"/api/floor/{session_id}/finish").json() == first
    assert client.get(f"/api/floor/{uuid4()}").status_code == 404
