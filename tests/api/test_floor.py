from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from fortis.api.work import now
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
        assert lifter.record(session_id, squat, reps=5, reserve=2).json() == {
            "tonnage_kg": 500,
            "version": 1,
            "word": "",
        }
    corrected = lifter.record(session_id, squat, reps=4, reserve=0, ended="could not move it", seen=1)
    assert corrected.json()["version"] == 2
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert recorded["bout"]["reps"] == 4
    assert recorded["bout"]["ended"] == "could not move it"


def test_a_bout_can_be_taken_back(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5)
    for _ in range(2):
        assert lifter.take_back(session_id, squat).json() == {"version": 2}
    assert client.get(f"/api/floor/{session_id}").json()["bouts"] == []
    assert lifter.record(session_id, squat, reps=4).json()["version"] == 3


def test_a_bout_counts_by_the_plan_the_lifts_and_the_ways_as_they_are_when_it_is_saved(client, lifter, today):
    session = lifter.plan("Dumbbell press: 4 x 10 at 20 kg leave 2", today).json()["id"]
    lifter.start(session)
    steps = iter(lifter.work(session))

    def counted(**done):
        saved = lifter.record(session, next(steps), reps=10, **done).json()["tonnage_kg"]
        recorded = client.get(f"/api/floor/{session}").json()["bouts"][-1]
        assert recorded["tonnage_kg"] == saved
        return saved, recorded["bout"]["source"]

    assert counted() == (400, "plan")
    client.put("/api/kit/lifter", json={"unit": "kg", "ways": {"both_dumbbells": False}})
    assert counted() == (200, "plan")
    own = {"load_kind": "dumbbell", "pattern": "press", "prime": ["chest"]}
    assert client.put("/api/compose/lifts/Dumbbell press", json=own).status_code == 200
    client.put("/api/kit/lifter", json={"unit": "kg", "ways": {"both_dumbbells": True}})
    assert counted() == (200, "plan")
    swap = {"swapped": {"1.1": {"lift": "Bench press", "set": 0}}}
    client.patch(f"/api/floor/{session}/adjustments", json={"changes": [{"before": {}, "after": swap}]})
    assert counted() == (200, "own choice")


HARD = """Back squat: 3 x 5 at 100 kg leave 2
Dip: 2 x 8 at bw+10 leave 2
Leg press: 2 sets of (8 at 100 leave 2, drop 20%)
Plank: hold 30s
"""


def test_bouts_saved_by_the_driver_alone_are_those_that_a_unit_of_work_saves(
    client, lifter, today, database, monkeypatch
):
    for days, kg in ((20, 80), (-20, 84.44)):
        on = (today - timedelta(days=days)).isoformat()
        assert client.put("/api/kit/body-weight", json={"kg": kg}, params={"on": on}).status_code == 204

    def saved():
        session = lifter.plan(HARD, today).json()["id"]
        lifter.start(session)
        first, *steps = lifter.work(session)
        told = [lifter.record(session, first, reps=5, reserve=1.5).json()]
        with monkeypatch.context() as patched:
            for name in alone:
                patched.setattr(name, lambda *_: None)
            for number, step in enumerate(steps):
                went = {"reps": 5, "reserve": 5, "or_more": True, "note": f"\u00e9 {number}", "ended": "target met"}
                held = {"reps": 0, "seconds": 31} if step["exercise"] == "Plank" else {"rep_seconds": [2.5, 3]}
                told.append(lifter.record(session, step, **went | held).json())
        with database() as work:
            mine = work.connection().exec_driver_sql("select * from bout where session_id = ?", (session,))
            rows = [row._asdict() for row in mine]
            versions = work.connection().exec_driver_sql(
                "select document from bout_version join bout on id = bout_id where session_id = ?", (session,)
            )
            documents = versions.scalars().all()
        for row in rows:
            del row["id"], row["session_id"], row["done_at"]
        return told, rows, sorted(documents)

    alone = ["fortis.api.floor._any"]
    by_driver = saved()
    alone = ["fortis.api.floor._new"]
    assert saved() == by_driver
    assert [each["word"] for each in by_driver[0]] == [""] * len(by_driver[0])
    assert len(by_driver[1]) == len(by_driver[2]) == 10
    weighs = (80 + 84.44) / 2
    squats, dips = [500.0] * 3, [pytest.approx(5 * (0.95 * weighs + 10), abs=0.001)] * 2
    assert [each["tonnage_kg"] for each in by_driver[0]][:5] == [*squats, *dips]


def history(client, session_id, step):
    at = "/".join(str(step[name]) for name in ("group", "round", "entry", "set", "bout"))
    return client.get(f"/api/ledger/{session_id}/bouts/{at}").json()


def test_every_version_of_a_bout_is_kept(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5, reserve=2)
    lifter.record(session_id, squat, reps=4, reserve=0, seen=1)
    lifter.take_back(session_id, squat, seen=2)
    told = history(client, session_id, squat)
    assert [each["version"] for each in told] == [1, 2, 3]
    assert [each["bout"] and each["bout"]["reps"] for each in told] == [5, 4, None]
    assert all(each["at"] and each["device"] == "test" for each in told)
    assert [each["position"]["set"] for each in lifter.past(session_id)["taken_back"]] == [1]


def test_what_only_completes_a_bout_is_no_correction(client, lifter, session_id):
    lifter.start(session_id)
    squat, other, *_ = lifter.work(session_id)
    lifter.record(session_id, squat, reps=5)
    lifter.record(session_id, squat, reps=5, reserve=2, note="hips lower", seen=1)
    lifter.record(session_id, other, reps=5, reserve=2)
    lifter.record(session_id, other, reps=4, reserve=0, seen=1)
    client.post(f"/api/floor/{session_id}/finish")
    assert [each["corrected"] for each in lifter.past(session_id)["bouts"]] == [False, True]
    assert [each["version"] for each in history(client, session_id, squat)] == [2]
    assert [each["bout"]["reps"] for each in history(client, session_id, other)] == [5, 4]


def test_a_device_that_saw_less_takes_nothing_back_unasked(client, lifter, session_id):
    """Another device corrected the bout meanwhile: the lifter settles it."""
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5)
    lifter.record(session_id, squat, reps=6, seen=1)
    stale = lifter.take_back(session_id, squat, seen=1)
    assert (stale.status_code, stale.json()["there"]["version"]) == (409, 2)
    assert lifter.take_back(session_id, squat, device="other").status_code == 409
    assert client.get(f"/api/floor/{session_id}").json()["bouts"][0]["bout"]["reps"] == 6
    assert lifter.take_back(session_id, squat, seen=2).status_code == 200
    late = lifter.record(session_id, squat, reps=7, seen=2)
    assert (late.status_code, late.json()["there"]) == (409, {"bout": None, "version": 3})


def test_a_bout_keeps_what_was_asked_and_where_its_load_came_from(client, lifter, session_id, today):
    text = "# Bands\nBench press [bands 30 kg top]: 2 x 3 at 60 kg leave 2 tempo 3-1-1-0\nDip: 6 at bw+10 leave 1"
    session_id = lifter.plan(text, today).json()["id"]
    lifter.start(session_id)
    bench, again, dip = lifter.work(session_id)
    lifter.record(session_id, bench, reps=3, reserve=2.5)
    lifter.record(session_id, again, reps=3, kg=65, reserve=5, or_more=True)
    lifter.record(session_id, dip, reps=6)
    first, second, third = (each["bout"] for each in client.get(f"/api/floor/{session_id}").json()["bouts"])
    assert (first["bottom_kg"], first["top_kg"], first["mean_kg"]) == (60, 90, 75)
    assert (first["asked"]["kg"], first["asked"]["effort"]["low"], first["source"]) == (60, 2, "plan")
    assert first["asked"]["tempo"]["lowering"] == 3
    assert (first["reserve"], first["or_more"]) == (2.5, False)
    assert (second["reserve"], second["or_more"], second["source"]) == (5, True, "own choice")
    assert (third["body"], third["lift_id"]) == (True, "dip")


def test_the_rest_really_taken_is_known(client, lifter, session_id, database):
    lifter.start(session_id)
    first, second, *_ = lifter.work(session_id)
    now = datetime.now(UTC)
    with database.begin() as work:
        work.get(SessionRow, session_id).started_at = now - timedelta(minutes=30)
    ago = lambda seconds: (now - timedelta(seconds=seconds)).isoformat()  # noqa: E731
    lifter.record(session_id, first, reps=5, began_at=ago(300), done_at=ago(280))
    lifter.record(session_id, second, reps=5, began_at=ago(100), done_at=ago(80))
    one, other = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert (one["rest_seconds"], other["rest_seconds"]) == (None, 180)


@pytest.mark.parametrize(("said", "words"), [(timedelta(days=1800), "to come"), (timedelta(days=-9), "before")])
def test_a_time_that_cannot_be_is_put_right_with_a_word(client, lifter, session_id, said, words):
    lifter.start(session_id)
    told = lifter.record(
        session_id, lifter.work(session_id)[0], reps=5, done_at=(datetime.now(UTC) + said).isoformat()
    )
    assert words in told.json()["word"]
    (recorded,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert abs(datetime.fromisoformat(recorded["done_at"]) - datetime.now(UTC)) < timedelta(minutes=1)


def test_a_bout_that_comes_before_the_start_starts_the_session(client, lifter, session_id):
    lifter.record(session_id, lifter.work(session_id)[0], reps=5)
    assert client.get(f"/api/floor/{session_id}").json()["state"] == "started"


def test_a_started_session_keeps_its_text_and_its_loads(client, lifter, session_id, today):
    lifter.start(session_id)
    refused = lifter.plan(TEXT.replace("100 kg", "60 kg"), today, session_id)
    assert (refused.status_code, refused.json()["title"]) == (409, "The session is being played")
    assert lifter.plan(TEXT, today, session_id).status_code == 200
    assert client.get(f"/api/compose/sessions/{session_id}").json()["written"] == TEXT
    assert lifter.work(session_id)[0]["load"]["kg"] == 100


def test_when_a_bout_was_done_is_kept_through_corrections(client, lifter, session_id):
    lifter.start(session_id)
    squat = lifter.work(session_id)[0]
    lifter.record(session_id, squat, reps=5)
    (before,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    lifter.record(session_id, squat, reps=4, seen=1)
    (after,) = client.get(f"/api/floor/{session_id}").json()["bouts"]
    assert (after["done_at"], after["bout"]["reps"]) == (before["done_at"], 4)


@pytest.mark.parametrize(
    ("went", "field"),
    [
        ({"reps": -1}, "reps"),
        ({"reps": 501}, "reps"),
        ({"reps": 5, "reserve": 11}, "reserve"),
        ({"reps": 5, "reserve": 1.3}, "reserve"),
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


@pytest.mark.parametrize("leap", [timedelta(days=-400), timedelta(days=400)])
def test_a_server_s_clock_that_leaps_leaves_no_bout_before_its_session(client, lifter, session_id, leap):
    lifter.start(session_id)
    step = lifter.work(session_id)[0]
    client.app.dependency_overrides[now] = lambda: datetime.now(UTC) + leap
    assert lifter.record(session_id, step, reps=5, reserve=2).status_code == 200
    assert client.post(f"/api/floor/{session_id}/finish").status_code == 200
    client.app.dependency_overrides.clear()
    past = lifter.past(session_id)
    (bout,) = past["bouts"]
    assert past["started_at"] <= bout["done_at"] <= past["finished_at"]
    assert client.get("/api/today").status_code == 200
    assert [each["id"] for each in client.get("/api/ledger").json()["sessions"]] == [session_id]


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
    known = view["advice"]
    table = known["tables"][known["positions"]["1.1.1.1.1"]["100"]]

    def advised(number, reserve):
        return known["advice"][table[number][known["reserves"][reserve]][0]]

    assert advised(5, "2")["course"] == "go on"
    assert advised(5, "1")["again"]["course"] == "lighter"
    assert (advised(4, "0")["course"], advised(4, "0")["kg"] < 100) == ("lighter", True)
    assert advised(2, "0")["course"] == "stop"
    assert advised(5, "5+")["course"] == "heavier"
    assert "1.3.1.3.1" not in known["positions"]


def test_advice_taken_is_advice_for_the_session_as_it_is_played(client, lifter, session_id):
    known = lifter.start(session_id)["advice"]
    table = known["tables"][known["positions"]["1.1.1.1.1"]["100"]]
    lighter = known["advice"][table[5][known["reserves"]["0"]][0]]
    path = f"/api/floor/{session_id}/adjustments"
    after = {"loads": {"1.1": [{**change, "set": 1 + change["set"]} for change in lighter["loads"]]}}
    client.patch(path, json={"changes": [{"before": {}, "after": after}]})
    view = client.get(f"/api/floor/{session_id}").json()
    assert next(iter(view["advice"]["positions"]["1.2.1.2.1"])) == str(lighter["kg"]).removesuffix(".0")
    second = lifter.work(session_id)[1]
    lifter.record(session_id, second, reps=5, kg=lighter["kg"])
    bout = client.get(f"/api/floor/{session_id}").json()["bouts"][0]["bout"]
    assert (bout["source"], bout["asked"]["kg"]) == ("advice", lighter["kg"])


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
        "swapped": {"2.1": {"lift": "Push-up", "set": 1}},
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
    swap = {"swapped": {"1.1": {"lift": "Leg press", "set": 0}}, "extra": {"1.1": 1}}
    client.patch(f"/api/floor/{session_id}/adjustments", json={"changes": [{"before": {}, "after": swap}]})
    steps = lifter.work(session_id)[:3]
    steps.append({**steps[-1], "round": 4, "set": 4})
    for step in steps:
        lifter.record(session_id, {**step, "exercise": "Leg press"}, reps=5, reserve=2, kg=120)
    client.post(f"/api/floor/{session_id}/finish")
    past = lifter.past(session_id)
    assert [(load["exercise"], load["was_kg"]) for load in past["next_loads"]] == [("Leg press", 120)]
    assert [(lift["exercise"], lift["sets"], lift["hard_sets"]) for lift in past["tally"]["lifts"]] == [
        ("Leg press", 4, 4)
    ]
    assert [each["asked"] for each in past["bouts"]] == ["5 leave 2"] * 4
    again = lifter.plan(TEXT).json()["id"]
    assert [step["load"]["kg"] for step in lifter.work(again)[:3]] == [100] * 3


def test_what_is_done_before_the_first_lift_is_kept_and_remembered(client, lifter, today):
    text = f"# Hips\nprep: hip drills 5 min, Heat on the elbow\n{TEXT.splitlines()[1]}"
    first = lifter.plan(text, today).json()["id"]
    floor = lifter.start(first)
    assert floor["timeline"]["prep"] == [
        {"what": "hip drills", "seconds": 300},
        {"what": "Heat on the elbow", "seconds": None},
    ]
    assert floor["prepared_on"] == [None, None]
    before, ticked = floor["adjustments"], {"prepared": [2]}
    change = {"changes": [{"before": before, "after": before | ticked}]}
    for _ in range(2):
        kept = client.patch(f"/api/floor/{first}/adjustments", json=change)
        assert kept.json()["prepared"] == [2]
    lifter.record(first, lifter.work(first)[0], reps=5)
    client.post(f"/api/floor/{first}/finish")
    past = client.get(f"/api/ledger/{first}").json()["prepared"]
    assert [(each["item"]["what"], each["done"]) for each in past] == [
        ("hip drills", False),
        ("Heat on the elbow", True),
    ]
    second = lifter.plan(text.replace("Heat", "heat"), today).json()["id"]
    assert client.get(f"/api/floor/{second}").json()["prepared_on"] == [None, today.isoformat()]
    wrong = {"changes": [{"before": before, "after": before | {"prepared": [0]}}]}
    assert client.patch(f"/api/floor/{first}/adjustments", json=wrong).status_code == 422
