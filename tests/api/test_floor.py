from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from fortis.store.tables import SessionRow

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
        assert lifter.record(session_id, squat, reps=5, reserve=2).json() == {"tonnage_kg": 500, "version": 1}
    corrected = lifter.record(session_id, squat, reps=4, reserve=0, ended="could not move it", seen=1)
    assert corrected.json()["version"] == 2
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert recorded["bout"]["reps"] == 4
    assert recorded["bout"]["ended"] == "could not move it"


def test_a_bout_can_be_taken_back(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5)
    assert lifter.take_back(session_id, squat).json() == {"tonnage_kg": 0, "version": None}
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
    lifter.record(session_id, squat, reps=4, done_at="2026-01-02T09:09:09Z", seen=1)
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


@pytest.mark.parametrize(
    ("said", "kept"),
    [
        (timedelta(minutes=-10), timedelta(minutes=-10)),
        (timedelta(hours=3), timedelta(0)),
        (timedelta(days=-2), timedelta(minutes=-30)),
    ],
)
def test_a_session_finished_offline_ended_when_it_did(client, lifter, session_id, database, said, kept):
    """A clock that is off is brought in between the start and now."""
    lifter.start(session_id)
    now = datetime.now(UTC)
    with database.begin() as work:
        work.get(SessionRow, session_id).started_at = now - timedelta(minutes=30)
    body = {"finished_at": (now + said).isoformat()}
    answer = client.post(f"/api/floor/{session_id}/finish", json=body).json()
    finished = datetime.fromisoformat(answer["finished_at"])
    assert abs(finished - (now + kept)) < timedelta(seconds=5)


def test_a_finished_session_is_opened_again_with_all_its_bouts(client, lifter):
    session_id = lifter.play("# Day\nBack squat: 2 x 5 at 60 kg", [(5, 2), (5, 1)])
    assert client.delete(f"/api/floor/{session_id}/finish").status_code == 204
    view = client.get(f"/api/floor/{session_id}").json()
    assert (view["state"], view["finished_at"], len(view["bouts"])) == ("started", None, 2)
    assert client.post(f"/api/floor/{session_id}/finish").status_code == 200


def test_a_time_without_a_zone_is_refused_by_name(client, lifter, session_id):
    lifter.start(session_id)
    answer = client.post(f"/api/floor/{session_id}/finish", json={"finished_at": "2026-01-01T10:00:00"})
    assert (answer.status_code, answer.json()["fields"][0]["field"]) == (422, "finished_at")
    answer = lifter.record(session_id, lifter.work(session_id)[0], reps=5, done_at="2026-01-01T10:00:00")
    assert (answer.status_code, answer.json()["fields"][0]["field"]) == (422, "done_at")


def test_two_answers_for_one_bout_are_never_settled_in_silence(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5, reserve=2)
    other = lifter.record(session_id, squat, reps=3, reserve=0)
    assert other.status_code == 409
    there = other.json()["there"]
    assert (there["bout"]["reps"], there["version"]) == (5, 1)
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert recorded["bout"]["reps"] == 5
    assert lifter.record(session_id, squat, reps=3, reserve=0, seen=1).json()["version"] == 2
    assert lifter.record(session_id, squat, reps=3, reserve=0).status_code == 200


def test_advice_is_there_for_every_plausible_outcome(client, lifter, session_id):
    view = lifter.start(session_id)
    table = view["advice"]["tables"][view["advice"]["places"]["1.1.1.1.1"]]
    advice = view["advice"]["advice"]

    def advised(key):
        return advice[table[key]]

    assert advised("5/2")["course"] == "go on"
    assert advised("5/1")["again"]["course"] == "lighter"
    assert (advised("4/0")["course"], advised("4/0")["kg"] < 100) == ("lighter", True)
    assert advised("2/0")["course"] == "stop"
    assert advised("5/5")["course"] == "heavier"
    assert "1.3.1.3.1" not in view["advice"]["places"]


def test_notes_come_back_when_the_lift_comes_back(client, lifter, today):
    session_id = lifter.plan("# Legs\nBack squat: 5 at 100 kg", today).json()["id"]
    lifter.start(session_id)
    lifter.record(session_id, lifter.work(session_id)[0], reps=5, note="hips lower", rep_seconds=[1.5, 3.2])
    client.post(f"/api/floor/{session_id}/finish")
    following = lifter.start(lifter.plan("# Other\nBack squat [belt]: 5", today).json()["id"])
    assert [(cue["exercise"], cue["text"]) for cue in following["cues"]] == [("Back squat", "hips lower")]
    (bout,) = client.get(f"/api/ledger/{session_id}").json()["bouts"]
    assert bout["bout"]["rep_seconds"] == [1.5, 3.2]


def test_what_was_changed_on_the_floor_is_kept(client, lifter, session_id):
    lifter.start(session_id)
    changed = {
        "extra": {"1.1": 1},
        "swapped": {"2.1": "Push-up"},
        "skipped": ["1.1.1.3.1"],
        "order": [2, 1],
        "within": {"1": [2, 1]},
    }
    path = f"/api/floor/{session_id}/adjustments"

    def change(before, after):
        return client.patch(path, json={"changes": [{"before": before, "after": after}]})

    assert change({}, changed).status_code == 200
    kept = client.get(f"/api/floor/{session_id}").json()["adjustments"]
    assert {key: kept[key] for key in changed} == changed
    told = change({}, {"extra": {"2.1": 2}}).json()
    assert told["extra"] == {"1.1": 1, "2.1": 2}
    assert told["skipped"] == changed["skipped"]
    wrong = change({}, {"extra": {"one": 1}})
    assert wrong.status_code == 422


def test_a_lift_done_instead_is_not_judged_as_the_planned_one(client, lifter, session_id):
    lifter.start(session_id)
    for step in lifter.work(session_id)[:3]:
        lifter.record(session_id, {**step, "exercise": "Leg press"}, reps=2, reserve=0)
    client.post(f"/api/floor/{session_id}/finish")
    assert lifter.past(session_id)["next_loads"] == []
