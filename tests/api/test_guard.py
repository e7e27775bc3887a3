"""Foreign pages, foreign names, foreign forms: none of them reaches the record."""

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from fortis.api.app import create_app
from fortis.cli import app
from tests.api.test_bounds import GYM

KEEP = {"kit": GYM}


@pytest.mark.parametrize("host", ["evil.example", "localhost.evil.example", "127.0.0.1.evil.example", "", "[::1"])
def test_a_name_that_merely_resolves_to_this_machine_is_not_answered(client, host):
    for path in ("/api/today", "/api/kit", "/"):
        answer = client.get(path, headers={"Host": host})
        assert (answer.status_code, answer.headers["Content-Type"]) == (421, "application/problem+json")


@pytest.mark.parametrize("host", ["localhost", "localhost:8000", "127.0.0.1:8000", "[::1]:8000", "LOCALHOST"])
def test_the_names_of_this_machine_are_answered(client, host):
    assert client.get("/api/today", headers={"Host": host}).status_code == 200


def test_the_name_it_was_told_is_answered(database):
    named = TestClient(create_app(database, names=["gym.home", "0.0.0.0"]), base_url="http://gym.home:8000")
    assert named.get("/api/today").status_code == 200
    assert named.get("/api/today", headers={"Host": "0.0.0.0"}).status_code == 421


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"},
        {"Origin": "http://localhost:3000"},
        {"Origin": "null"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site", "Origin": "http://localhost"},
    ],
)
def test_another_page_writes_nothing(client, lifter, headers):
    session = lifter.plan("Back squat: 5 at 100 kg").json()["id"]
    assert client.post(f"/api/floor/{session}/start", headers=headers).status_code == 403
    assert client.delete(f"/api/compose/sessions/{session}", headers=headers).status_code == 403
    assert client.put("/api/kit/places/1", json=KEEP, headers=headers).status_code == 403
    assert client.get(f"/api/floor/{session}").json()["started_at"] is None


@pytest.mark.parametrize(
    "headers", [{}, {"Origin": "http://localhost"}, {"Sec-Fetch-Site": "same-origin"}, {"Sec-Fetch-Site": "none"}]
)
def test_its_own_pages_and_programs_write(client, headers):
    assert client.put("/api/kit/places/1", json=KEEP, headers=headers).status_code == 200


@pytest.mark.parametrize("sent_as", ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data", ""])
def test_what_a_form_could_send_is_not_taken(client, sent_as):
    answer = client.put("/api/kit/body-weight", content=b'{"kg": 80}', headers={"Content-Type": sent_as})
    assert (answer.status_code, answer.headers["Content-Type"]) == (415, "application/problem+json")


def test_a_long_body_is_not_read(client):
    answer = client.post("/api/compose/examine", json={"written": "a" * 20_000_000})
    assert (answer.status_code, answer.json()["title"]) == (413, "Too long")

    def endless():
        for _ in range(40):
            yield b" " * 100_000

    answer = client.post("/api/compose/examine", content=endless(), headers={"Content-Type": "application/json"})
    assert (answer.status_code, answer.headers["Content-Type"]) == (413, "application/problem+json")


def test_the_longest_text_fits(client):
    assert client.post("/api/compose/examine", json={"written": "é" * 199_000}).status_code == 200


def test_every_answer_says_what_a_page_may_do(client):
    for path in ("/api/today", "/", "/icon.svg", "/api/nothing", "/api/floor/x"):
        headers = client.get(path).headers
        policy = dict(part.split(" ", 1) for part in headers["Content-Security-Policy"].split("; "))
        assert (policy["default-src"], policy["frame-ancestors"]) == ("'self'", "'none'")
        assert "unsafe" not in headers["Content-Security-Policy"]
        assert headers["X-Content-Type-Options"] == "nosniff"
        assert headers["Referrer-Policy"] == "no-referrer"


def test_others_are_let_in_only_where_that_is_meant():
    told = CliRunner().invoke(app, ["serve", "--host", "0.0.0.0"])
    assert told.exit_code == 2
    assert "everybody who reaches this machine could read and write the record" in told.output
