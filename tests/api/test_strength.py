"""What is known of the lifter's strength, as the interface tells it."""

from datetime import timedelta

import pytest

from tests.logs import bring

FIVES = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00"
DROP = "# Drop\nBack squat: 2 sets of (5 at 100 kg, drop 20% to failure) rest 3:00"


def strength(client):
    return client.get("/api/strength").json()


def lift(client, lift_id="back-squat", setup_key=""):
    return client.get("/api/strength/lift", params={"lift_id": lift_id, "setup_key": setup_key})


def test_nothing_is_known_of_a_new_lifter(client):
    assert strength(client)["lifts"] == []
    assert lift(client).status_code == 404
    summary = client.get("/api/strength/foretold").json()
    assert (summary["judged"], summary["coverage"]) == (0, None)


def test_each_session_moves_the_max_and_each_bout_says_what_it_speaks_for(client, lifter, today):
    first = lifter.play(FIVES, [(5, 2), (5, 2), (5, 1)], today - timedelta(days=4))
    lifter.play(FIVES, [(5, 3), (5, 2), (4, 0)], today)
    (known,) = strength(client)["lifts"]
    assert (known["exercise"], known["sessions"]) == ("Back squat", 2)
    assert known["max"]["low"] < known["max"]["kg"] < known["max"]["high"]
    assert known["max"]["kg"] == pytest.approx(124, abs=6)
    found = lift(client).json()
    assert found["days"][0]["session_id"] == first
    assert [each["kind"] for each in found["observations"]] == ["fresh", "tired", "tired"] * 2
    assert found["observations"][0]["words"] == "5 at 100, 2 left"
    for session in {each["session_id"] for each in found["observations"]}:
        shares = [each["share"] for each in found["observations"] if each["session_id"] == session]
        assert sum(shares) == pytest.approx(1)
    curve = found["curve"]
    assert curve[0]["share"] == 1
    assert [point["share"] for point in curve] == sorted((point["share"] for point in curve), reverse=True)


def test_the_max_over_time_begins_where_a_bout_first_told_more_than_a_lower_bound(client, lifter, today):
    first = lifter.play(FIVES.replace("100", "60"), [(5, None)] * 3, today - timedelta(days=8))
    assert [each["session_id"] for each in lift(client).json()["days"]] == [first]
    told = lifter.play(FIVES, [(5, 2)] * 3, today - timedelta(days=4))
    found = lift(client).json()
    assert [each["session_id"] for each in found["days"]] == [told]
    assert [each["at_least"] for each in found["observations"]] == [True] * 3 + [False] * 3


def test_a_correction_is_learned_as_if_it_had_been_told_so_at_once(client, lifter, today):
    session = lifter.play(FIVES, [(5, 2)] * 3, today - timedelta(days=8))
    lifter.play(FIVES, [(5, 2)] * 3, today - timedelta(days=4))
    before = strength(client)["lifts"][0]["max"]["kg"]
    address = f"/api/floor/{session}/bouts/1/1/1/1/1"
    body = {"exercise": "Back squat", "kg": 100, "reps": 9, "reserve": 3}
    assert client.put(address, json=body | {"seen": 1}).status_code == 200
    corrected = strength(client)["lifts"][0]["max"]["kg"]
    assert corrected > before
    assert client.put(address, json=body | {"reps": 5, "reserve": 2, "seen": 2}).status_code == 200
    assert strength(client)["lifts"][0]["max"]["kg"] == pytest.approx(before)


def test_a_discarded_or_unfinished_session_says_nothing(client, lifter, today):
    session = lifter.play(FIVES, [(5, 2)] * 3, today)
    client.delete(f"/api/floor/{session}/finish")
    assert strength(client)["lifts"] == []


def test_a_drop_is_marked_as_one(client, lifter, today):
    lifter.play(DROP, [(5, 2), (8, 0), (5, 1), (6, 0)], today)
    assert [each["kind"] for each in lift(client).json()["observations"]] == [
        "fresh",
        "in a drop",
        "tired",
        "in a drop",
    ]


def test_the_own_log_is_foretold_beside_the_formulas(client, lifter, today):
    for days in range(12, -1, -4):
        lifter.play(FIVES, [(5, 2), (5, 2), (5, 1)], today - timedelta(days=days))
    summary = client.get("/api/strength/foretold").json()
    assert (summary["bouts"], summary["judged"]) == (12, 9)
    assert summary["reps_error"]["Fortis"] < 1.5
    assert "Epley" in summary["reps_error"]


SHARES = "# First\nBack squat: 3 x 5 at 75% leave 2"


def remember(client, written, exercise="Back squat", remembered_id="11111111-1111-4111-8111-111111111111"):
    body = {"exercise": exercise, "written": written}
    return client.put(f"/api/strength/remembered/{remembered_id}", json=body)


def due(client):
    (session,) = client.get("/api/today").json()["due"]
    (line,) = session["lifts"]
    return line, [step["foretold"] for step in session["timeline"]["steps"] if step["kind"] == "work"]


def test_where_nothing_is_known_a_remembered_set_settles_the_load_and_foretells(client, lifter, today):
    lifter.plan(SHARES, today)
    line, foretold = due(client)
    assert (line["waits_for_max"], line["loads"], set(foretold)) == (True, [], {None})
    assert remember(client, "5 at 100 kg leave 2").status_code == 204
    line, foretold = due(client)
    assert not line["waits_for_max"]
    assert float(line["loads"][0]["kg"]) == pytest.approx(93, abs=3)
    assert foretold[-1]["reps"] == 5
    (known,) = strength(client)["lifts"]
    assert known["sessions"] == 0
    assert known["max"]["kg"] == pytest.approx(125, abs=3)
    (seen,) = lift(client).json()["observations"]
    assert (seen["kind"], seen["session_id"]) == ("remembered", None)


def test_told_twice_under_one_id_it_is_changed_and_it_can_be_taken_back(client, lifter, today):
    lifter.plan(SHARES, today)
    for written in ("100", "100", "max 140 kg"):
        assert remember(client, written).status_code == 204
        assert strength(client)["lifts"][0]["max"]["kg"] == pytest.approx(
            140 if "140" in written else 100, rel=0.02
        )
    found = lift(client).json()
    assert [each["words"] for each in found["observations"]] == ["1 at 140, 0 left"]
    address = f"/api/strength/remembered/{found['observations'][0]['remembered_id']}"
    assert [client.delete(address).status_code for _ in range(2)] == [204, 204]
    assert strength(client)["lifts"] == []
    assert due(client)[0]["waits_for_max"]


def test_what_was_seen_outweighs_what_was_remembered(client, lifter, today):
    remember(client, "max 160 kg")
    lifter.play(FIVES, [(5, 2), (5, 1), (4, 0)], today)
    known = strength(client)["lifts"][0]["max"]["kg"]
    assert known == pytest.approx(125, abs=8)


def test_what_is_no_set_is_refused_with_what_would_do(client):
    refused = remember(client, "3 x 5 at 100 kg")
    assert refused.status_code == 422
    assert refused.json()["detail"].startswith("Write one set with its load, such as 5 at 100 kg leave 2")
    assert remember(client, "100 kg", exercise="").status_code == 422


def test_a_slip_of_the_finger_is_asked_about_and_counts_for_nothing(client, lifter, today):
    for day in (8, 4):
        lifter.play(FIVES, [(5, 2)] * 3, today - timedelta(days=day))
    before = strength(client)["lifts"][0]["max"]["kg"]
    session = lifter.plan(FIVES, today).json()["id"]
    lifter.start(session)
    first, *others = lifter.work(session)
    slipped = lifter.record(session, first, kg=1000, reps=5, reserve=2).json()
    assert slipped["word"].startswith("5 at 1000 kg, with a max of about 12")
    for step in others:
        assert lifter.record(session, step, reps=5, reserve=2).json()["word"] == ""
    client.post(f"/api/floor/{session}/finish")
    assert strength(client)["lifts"][0]["max"]["kg"] == pytest.approx(before, rel=0.02)
    (doubted,) = lift(client).json()["doubted"]
    assert (doubted["session_id"], doubted["words"]) == (session, "5 at 1000, 2 left")


def test_records_of_a_lift_beside_body_weight(client, lifter, today):
    for day, kg in ((40, 80), (0, 78)):
        client.put("/api/kit/body-weight", params={"on": str(today - timedelta(days=day))}, json={"kg": kg})
    me = client.get("/api/kit").json()["lifter"]
    ways = {**me["ways"], "points": "men"}
    assert client.put("/api/kit/lifter", json={"unit": "kg", "ways": ways}).status_code == 204
    lifter.play(FIVES.replace("100", "105"), [(5, 1), (5, 1), (4, 0)], today - timedelta(days=40))
    lifter.play(FIVES, [(5, 2), (6, 1), (6, 0)], today - timedelta(days=3))
    records = lift(client).json()["records"]
    assert [(best["reps"], best["kg"], best["short_kg"]) for best in records["bests"]] == [(5, 105, 0), (6, 100, 0)]
    assert records["bests"][0]["times_body"] == round(105 / 78, 2)
    assert (records["most_in_session"]["kg"], records["most_in_session"]["on"]) == (
        1_700,
        str(today),
    )
    assert records["most_in_week"]["kg"] == 1_700 + 14 * 105
    assert (records["most_at_top"], records["best_max"]["kg"]) == (None, pytest.approx(122, abs=4))
    assert records["days"] == []
    relative = records["relative"]
    assert relative["points"] == pytest.approx(0.69 * lift(client).json()["lift"]["max"]["kg"], rel=0.03)
    assert relative["held"] is None


def test_a_session_is_counted_in_the_lifters_way(client, lifter, today):
    done = lifter.play("Dumbbell press: 10 at 22.5 kg leave 2", [(10, 2)], today)
    assert lifter.past(done)["tally"]["tonnage_kg"] == 450
    ways = {"both_dumbbells": False, "body_weight": True, "halves": False, "points": None}
    client.put("/api/kit/lifter", json={"unit": "kg", "ways": ways})
    assert lifter.past(done)["tally"]["tonnage_kg"] == 225
    assert client.get("/api/ledger").json()["sessions"][0]["tonnage_kg"] == 225
    assert client.get("/api/ledger/weeks").json()["weeks"][-1]["tonnage_kg"] == 225


def test_left_against_right_session_by_session(client, lifter, today):
    text = "Split squat: 2 x 8 at 20 kg each side leave 2"
    lifter.play(text, [(8, 2), (8, 0), (8, 2), (8, 0)], today)
    (day,) = lift(client, "split-squat").json()["sides"]
    assert day["left_kg"] / day["right_kg"] == pytest.approx(1.05, abs=0.02)
    lifter.play(FIVES, [(5, 2)] * 3, today)
    assert lift(client).json()["sides"] == []


def test_a_lift_that_is_flat_for_long_is_told_with_what_to_try(client, tmp_path, today):
    """Fourteen weeks of the same sets once a week: coming twice is the first thing to try."""
    lines = ["date;lift;kg;reps;rir"]
    for week in range(14, 0, -1):
        lines += [f"{today - timedelta(days=7 * week - 3)};Back squat;100;5;2"] * 3
    bring("\n".join(lines) + "\n", tmp_path, tmp_path / "fortis.db")
    stall = client.get("/api/strength/lift", params={"lift_id": "back-squat"}).json()["stall"]
    assert stall["weeks"] >= 10
    assert [each["code"] for each in stall["suggestions"]] == ["frequency", "range"]
    assert "1.0 times a week" in stall["suggestions"][0]["text"]
