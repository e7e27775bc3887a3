"""Seasons suggested over the interface, and the first one of a lifter who begins."""

from datetime import timedelta
from uuid import uuid4

import pytest


def suggest(client, **wish):
    return client.post("/api/suggestions", json=wish)


def test_a_season_is_suggested_with_reasons_and_nothing_is_planned(client, today):
    found = suggest(client, goal="strength", days=4, lifts="front squat [belt]").json()
    assert [(each["name"], each["way"]) for each in found] == [
        ("Upper and lower body twice", "step loading"),
        ("Push, pull, legs, whole body", "waves"),
    ]
    (first, _) = found
    assert "Front squat [belt]: 3|4|5 x 5 leave 2 rest 3:00" in first["written"]
    assert all(reason["text"] for reason in first["reasons"])
    assert [week["kind"] for week in first["weeks"]] == ["building"] * 6 + ["light"] + ["heavy"] * 3
    assert first["weeks"][0]["monday"] == str(today + timedelta(days=(7 - today.weekday()) % 7))
    assert client.get("/api/season").json()["season"] is None
    checked = client.post("/api/season/text/examine", json={"written": first["written"]}).json()
    assert (checked["problems"], checked["weeks"], checked["sessions"]) == ([], 10, 40)


def test_a_known_max_makes_shares_of_it(client, lifter):
    lifter.play("Back squat: 3 x 5 at 100 kg leave 2", [(5, 2)] * 3)
    (first, *_) = suggest(client, goal="strength").json()
    assert "Back squat: 3|4|5 x 5 at 76% +3% a round leave 2 rest 3:00" in first["written"]
    assert first["weeks"][0]["percent"] == 76


@pytest.mark.parametrize(
    ("wish", "says"),
    [
        ({"lifts": "Bench pres"}, "Lifts that matter: Bench pres is not known. Did you mean Bench press?"),
        ({"lifts": "Dip [belt"}, "Lifts are parted by commas"),
        ({"aim": {"what": "meet", "on": "2020-01-01"}}, "a season leads to a date in 2 to 52 weeks"),
        ({"lifts": ", ".join(["Dip"] * 7)}, "Lifts that matter: these are 7, and 6 at most can."),
        ({"days": 7}, "days: Input should be less than or equal to 6"),
    ],
)
def test_what_cannot_be_is_told(client, wish, says):
    answer = suggest(client, **wish)
    assert answer.status_code == 422
    assert says in answer.json()["detail"]


def test_three_answers_plan_the_first_weeks_and_the_first_session_is_today(client, today):
    assert client.get("/api/today").json()["is_new"]
    address = f"/api/suggestions/first/{uuid4()}"
    first = {"goal": "size", "days": 3, "experience": "less than a year"}
    planned = client.put(address, json=first)
    assert planned.status_code == 200
    assert client.put(address, json=first).json() | {"new": 0} == planned.json() | {"new": 0}
    now = client.get("/api/today").json()
    assert not now["is_new"]
    (due,) = now["due"]
    assert (due["title"], due["planned_on"]) == ("Whole body A", str(today))
    assert due["costing"]["seconds"] < 100 * 60
    assert client.get("/api/kit").json()["lifter"]["training_since"] == str(today)
    assert client.post(f"/api/floor/{due['id']}/start").status_code == 200


def test_what_was_told_of_the_time_trained_stays(client, today):
    since = str(today - timedelta(days=200))
    you = client.get("/api/kit").json()["lifter"]
    told = {name: you[name] for name in ("unit", "warm_ups", "plate_order", "ways")}
    client.put("/api/kit/lifter", json={**told, "training_since": since})
    client.put(f"/api/suggestions/first/{uuid4()}", json={"experience": "less than a year"})
    assert client.get("/api/kit").json()["lifter"]["training_since"] == since
