"""Many devices that write at the same moment: one answer holds, nothing is lost, everybody is told."""

import sqlite3
from collections import Counter
from uuid import uuid4

from tests.serving import rows

TEXT = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2\nRing row: 3 x 8 at bw"


def bout(session, number, reps, device, seen=None):
    address = f"/api/floor/{session}/bouts/1/{number}/1/{number}/1"
    body = {"exercise": "Back squat", "kg": 100, "reps": reps, "seen": seen}
    return lambda client: client.put(address, json=body, headers={"Fortis-Device": device})


def codes(answers):
    return sorted(answer.status_code for answer in answers)


def test_of_two_answers_for_one_bout_the_first_is_taken_and_the_other_is_a_conflict(crowd, serving, session):
    for number in range(1, 41):
        answers = crowd.at_once([bout(session, number, 5, "phone"), bout(session, number, 4, "computer")])
        assert codes(answers) == [200, 409]
        taken = next(reps for answer, reps in zip(answers, (5, 4), strict=True) if answer.status_code == 200)
        (refused,) = (answer for answer in answers if answer.status_code == 409)
        assert refused.json()["there"]["bout"]["reps"] == taken
        assert refused.json()["there"]["version"] == 1
        assert rows(serving, 'select reps, version from bout where "set" = ?', number) == [(taken, 1)]
    assert rows(serving, "select count(*) from bout_version") == [(40,)]


def test_of_two_corrections_of_what_both_saw_the_first_is_taken(crowd, serving, session):
    for number in range(1, 21):
        crowd.at_once([bout(session, number, 5, "phone")])
        answers = crowd.at_once([bout(session, number, 4, "phone", 1), bout(session, number, 3, "computer", 1)])
        assert codes(answers) == [200, 409]
        assert rows(serving, 'select max(version) from bout where "set" = ?', number) == [(2,)]


def test_the_same_answer_from_two_devices_is_one_bout(crowd, serving, session):
    for number in range(1, 21):
        answers = crowd.at_once([bout(session, number, 5, "phone"), bout(session, number, 5, "computer")])
        assert codes(answers) == [200, 200]
    assert rows(serving, "select count(*), max(version) from bout") == [(20, 1)]


def test_different_changes_of_the_plan_both_hold(crowd, session):
    adjustments = f"/api/floor/{session}/adjustments"
    with crowd.client() as client:
        before = client.get(f"/api/floor/{session}").json()["adjustments"]
    for extra in range(1, 21):
        one = {"before": before, "after": {**before, "extra": {**before["extra"], "1.1": extra}}}
        other = {"before": before, "after": {**before, "extra": {**before["extra"], "2.1": extra}}}
        answers = crowd.at_once(
            [
                lambda client, change=change: client.patch(adjustments, json={"changes": [change]})
                for change in (one, other)
            ]
        )
        assert codes(answers) == [200, 200]
        with crowd.client() as client:
            before = client.get(f"/api/floor/{session}").json()["adjustments"]
        assert before["extra"] == {"1.1": extra, "2.1": extra}


def test_several_starts_are_one(crowd, serving):
    for session in (str(uuid4()) for _ in range(5)):
        with crowd.client() as client:
            client.put(f"/api/compose/sessions/{session}", json={"written": TEXT})
        start = f"/api/floor/{session}/start"
        answers = crowd.at_once([lambda client, start=start: client.post(start)] * 3)
        assert codes(answers) == [200] * 3
        assert len({answer.json()["started_at"] for answer in answers}) == 1


LIFT = {"load_kind": "bar", "pattern": "squat", "prime": ["quads"]}


def test_the_same_new_thing_written_by_several_is_one(crowd, serving):
    session, template = str(uuid4()), str(uuid4())
    same = {
        "session": lambda client: client.put(f"/api/compose/sessions/{session}", json={"written": TEXT}),
        "template": lambda client: client.put(f"/api/compose/templates/{template}", json={"written": TEXT}),
        "lift": lambda client: client.put("/api/compose/lifts/Zercher squat", json=LIFT),
        "body_weight": lambda client: client.put("/api/kit/body-weight?on=2026-03-02", json={"kg": 80}),
        "set_aside": lambda client: client.put("/api/compose/set-aside/failure?exercise=Deadlift"),
    }
    for table, write in same.items():
        answers = crowd.at_once([write] * 6)
        assert set(codes(answers)) <= {200, 204}, table
        assert len({answer.text for answer in answers}) == 1
        assert rows(serving, f"select count(*) from {table}") == [(1,)]


def test_the_same_new_place_sent_by_several_is_one(crowd, serving):
    kit = {"kit": {"place": "Barn"}, "plates": "2x20 1x10"}
    answers = crowd.at_once([lambda client: client.post("/api/kit/places", json=kit)] * 6)
    assert codes(answers) == [201] * 6
    assert len({answer.json()["id"] for answer in answers}) == 1
    assert rows(serving, "select count(*) from place") == [(2,)]


def test_a_new_record_is_first_looked_at_by_many(crowd):
    looks = ("/api/today", "/api/kit", "/api/ledger", "/api/compose/lifts")
    answers = crowd.at_once([lambda client, path=path: client.get(path) for path in looks * 6])
    assert codes(answers) == [200] * 24


def test_forty_eight_at_once_are_all_served(crowd, serving, session):
    mixed = [bout(session, number, 5, f"device {number}") for number in range(1, 25)]
    looks = ("/api/today", "/api/kit", "/api/ledger", f"/api/floor/{session}")
    mixed += [lambda client, path=path: client.get(path) for path in looks * 4]
    mixed += [lambda client: client.post("/api/compose/examine", json={"written": TEXT})] * 8
    for _ in range(3):
        answers = crowd.at_once(mixed)
        assert Counter(codes(answers)) == {200: 48}
    assert rows(serving, "select count(*) from bout") == [(24,)]


def test_while_another_process_writes_for_long_the_others_are_told_when_to_come_back(crowd, serving, session):
    other = sqlite3.connect(serving.database, isolation_level=None)
    other.execute("begin immediate")
    try:
        saving, reading = crowd.at_once([bout(session, 1, 5, "phone"), lambda client: client.get("/api/today")])
        assert (saving.status_code, saving.headers["Retry-After"]) == (503, "2")
        assert saving.headers["Content-Type"] == "application/problem+json"
        assert "Try again" in saving.json()["detail"]
        assert reading.status_code == 200
    finally:
        other.rollback()
        other.close()
    assert codes(crowd.at_once([bout(session, 1, 5, "phone")])) == [200]
