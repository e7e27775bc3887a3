"""Addresses that nobody should type, and methods that an address does not have: told, and never a fault."""

import pytest

from tests.api.test_bounds import GYM

FAR = "9" * 25


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("PUT", f"/api/kit/places/{FAR}", {"kit": GYM}),
        ("PUT", f"/api/kit/current/{FAR}", None),
        ("DELETE", f"/api/kit/places/{FAR}", None),
        ("POST", "/api/kit/load", {"wanted": [100], "place_id": int(FAR)}),
    ],
)
def test_a_number_beyond_all_numbers_is_told(client, method, path, body):
    answer = client.request(method, path, json=body)
    assert (answer.status_code, answer.headers["Content-Type"]) == (422, "application/problem+json")


@pytest.mark.parametrize("path", ["/%00", "/" + "a" * 5_000, "/assets/%00", "/api/nothing"])
def test_there_is_nothing_at_an_odd_address(client, path):
    answer = client.get(path)
    assert (answer.status_code, answer.headers["Content-Type"]) == (404, "application/problem+json")


def test_a_file_outside_is_not_served(client):
    assert "root:" not in client.get("/..%2f..%2f..%2f..%2fetc/passwd").text


@pytest.mark.parametrize("day", ["0001-01-01", "9999-12-31"])
def test_both_ends_of_the_calendar_are_days(client, lifter, day):
    assert client.put(f"/api/kit/body-weight?on={day}", json={"kg": 80}).status_code == 204
    session = lifter.plan("Back squat: 5 at 100 kg", None).json()["id"]
    body = {"written": "Back squat: 5 at 100 kg", "planned_on": day}
    assert client.put(f"/api/compose/sessions/{session}", json=body).status_code == 200
    for path in ("/api/kit", "/api/today", f"/api/floor/{session}"):
        assert client.get(path).status_code == 200


@pytest.mark.parametrize(
    ("method", "path", "allowed"),
    [
        ("PATCH", "/api/today", "GET, HEAD"),
        ("GET", "/api/kit/load", "POST"),
        ("DELETE", "/api/compose/examine", "POST"),
        ("PATCH", "/api/compose/lifts/Deadlift", "DELETE, POST, PUT"),
        ("POST", "/floor", "GET, HEAD"),
    ],
)
def test_a_method_that_an_address_does_not_have_is_told_with_those_it_has(client, method, path, allowed):
    answer = client.request(method, path)
    assert answer.status_code == (405 if allowed else 404)
    assert answer.headers.get("Allow") == allowed
    assert client.post("/api/nothing").status_code == 404


def test_head_is_get_without_the_body(client):
    for path in ("/api/today", "/api/compose/lifts", "/", "/icon.svg"):
        head, get = client.head(path), client.get(path)
        assert (head.status_code, head.content) == (200, b"")
        assert head.headers["Content-Type"] == get.headers["Content-Type"]


def test_a_lift_may_have_a_slash_in_its_name(client):
    lift = {"load_kind": "bar", "pattern": "pull", "prime": ["back"]}
    assert client.put("/api/compose/lifts/Clean%2Fjerk", json=lift).json()["name"] == "Clean/jerk"
    renamed = client.post("/api/compose/lifts/Clean%2Fjerk", json={"name": "Clean / jerk"})
    assert renamed.json()["name"] == "Clean / jerk"
    assert client.delete("/api/compose/lifts/Clean%20%2F%20jerk").status_code == 204
    assert not any(lift["own"] for lift in client.get("/api/compose/lifts").json())
