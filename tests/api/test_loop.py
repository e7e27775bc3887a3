"""Compose, play, add up, and get the next loads: the whole loop over the interface."""

import re
from datetime import timedelta

TEXT = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00"
MET = [(5, 2)] * 3


def test_the_next_session_of_the_name_uses_the_next_loads(client, lifter, today):
    first = lifter.play(TEXT, MET, today)
    past = lifter.past(first)
    assert past["tally"]["tonnage_kg"] == 1500
    assert past["before"] is None
    (load,) = past["next_loads"]
    assert (load["move"], load["was_kg"], load["kg"]) == ("raise", 100, 102.5)
    assert [reason["code"] for reason in load["reasons"]][:2] == ["estimate", "met"]
    lifter.plan(TEXT, today)
    (due,) = client.get("/api/today").json()["due"]
    assert [each["kg"] for each in due["lifts"][0]["loads"]] == [102.5]
    assert due["lifts"][0]["reasons"] == load["reasons"]


def test_a_session_stands_beside_the_last_of_its_name(lifter, today):
    lifter.play("# Other\nBack squat: 5 at 50 kg", [(5, 5)], today)
    first = lifter.play(TEXT, MET, today)
    second = lifter.play(TEXT.replace("# Legs", "# LEGS"), [(5, 3)] * 3, today)
    before = lifter.past(second)["before"]
    assert before["id"] == first
    assert before["tally"]["lifts"][0]["average_kg"] == 100
    assert lifter.past(second)["tally"]["lifts"][0]["average_kg"] == 102.5
    (learned,) = lifter.past(second)["learned"]
    assert learned["before"]["kg"] < learned["after"]["kg"]
    assert learned["after"]["low"] < learned["after"]["kg"] < learned["after"]["high"]


def test_percentages_are_settled_from_what_was_lifted(client, lifter, today):
    lifter.play("Back squat: 1 at 150 kg", [(1, 0)], today)
    lifter.plan("# Next\nBack squat: 3 x 5 at 70%", today)
    (due,) = client.get("/api/today").json()["due"]
    assert due["lifts"][0]["loads"][0]["kg"] == 105


def test_another_set_up_is_another_lift(client, lifter, today):
    lifter.play("Back squat [belt]: 1 at 150 kg", [(1, 0)], today)
    lifter.plan("# Next\nBack squat: 3 x 5 at 70%", today)
    (load,) = client.get("/api/today").json()["due"][0]["lifts"][0]["loads"]
    assert re.search(r"of a max of about 1(?:49|50|51)\.\d kg with belt", load["reasons"][0]["text"])


def test_today_tells_what_is_due_what_comes_and_what_is_under_way(client, lifter, today):
    lifter.plan("# Late\nDip: 5", today - timedelta(days=2))
    lifter.plan("# Now\nDip: 5", today)
    lifter.plan("# Soon\nDip: 5", today + timedelta(days=3))
    lifter.plan("# Some day\nDip: 5")
    view = client.get("/api/today").json()
    assert [each["title"] for each in view["due"]] == ["Now", "Late"]
    assert [each["title"] for each in view["coming"]] == ["Soon", "Some day"]
    lifter.start(view["due"][0]["id"])
    assert client.get("/api/today").json()["started"]["title"] == "Now"


def test_the_ledger_lists_and_opens_every_bout(client, lifter, today):
    session_id = lifter.play(TEXT + "\nDip: 1 set of (8, 20s, 4)", [*MET, (8, 1), (3, 0)], today)
    (row,) = client.get("/api/ledger").json()["sessions"]
    assert (row["id"], row["sets"], row["lifts"]) == (session_id, 4, ["Back squat", "Dip"])
    bouts = lifter.past(session_id)["bouts"]
    assert [(each["asked"], each["bout"]["reps"]) for each in bouts[-2:]] == [("8", 8), ("4", 3)]


def test_without_a_front_end_or_under_api_there_is_nothing(client):
    answer = client.get("/api/nothing")
    assert (answer.status_code, answer.json()["status"]) == (404, 404)


def test_a_lift_goes_on_as_was_chosen_for_it(client, lifter, today):
    text = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2"
    session = lifter.play(text, MET, today)
    kinds = [each["kind"] for each in client.get("/api/policies").json()]
    assert kinds == ["by effort", "fixed step", "more sets", "shorter rests", "keep"]
    (before,) = lifter.past(session)["next_loads"]
    assert (before["policy"]["kind"], before["move"]) == ("by effort", "raise")
    chosen = {"kind": "more sets", "most_sets": 6}
    assert client.put(f"/api/policies/{before['lift_id']}", json=chosen).status_code == 204
    (after,) = lifter.past(session)["next_loads"]
    assert (after["policy"]["kind"], after["move"], after["kg"], after["sets"]) == (
        "more sets",
        "more sets",
        100,
        4,
    )
    lifter.plan(text, today)
    (due,) = client.get("/api/today").json()["due"]
    assert [load["kg"] for load in due["lifts"][0]["loads"]] == [100]
    assert len(lifter.work(due["id"])) == 4
    refused = client.put(f"/api/policies/{before['lift_id']}", json={"kind": "fixed step", "step_kg": -5})
    assert refused.status_code == 422
    assert "step_kg" in refused.text
