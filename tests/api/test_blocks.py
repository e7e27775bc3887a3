"""Blocks side by side over the interface, on the demo's log."""

from datetime import date, timedelta

import pytest
from fastapi.testclient import TestClient

from fortis.api.app import create_app
from fortis.store.database import open_database


@pytest.fixture
def demo(demo_at, tmp_path):
    opened = open_database(demo_at(tmp_path / "demo.db"))
    return TestClient(create_app(opened), base_url="http://localhost", raise_server_exceptions=False)


def test_the_last_weeks_and_the_blocks_of_the_season_have_names(demo):
    last, before, *of_seasons = demo.get("/api/ledger/blocks/known").json()
    assert (last["weeks"], before["weeks"]) == (4, 4)
    apart = date.fromisoformat(last["monday"]) - date.fromisoformat(before["monday"])
    assert apart == timedelta(days=28)
    assert [each["name"] for each in of_seasons] == ["River meet: block 1, building"]


def test_two_blocks_add_up_to_their_weeks(demo):
    last, before = demo.get("/api/ledger/blocks/known").json()[:2]
    query = {"one": last["monday"], "other": before["monday"]}
    found = demo.get("/api/ledger/blocks", params=query).json()
    assert (found["earlier"]["monday"], found["later"]["monday"]) == (before["monday"], last["monday"])
    until = (date.fromisoformat(last["monday"]) + timedelta(days=27)).isoformat()
    weeks = demo.get("/api/ledger/weeks", params={"until": until, "many": 8}).json()["weeks"]
    for block, of_block in ((found["earlier"], weeks[:4]), (found["later"], weeks[4:])):
        assert block["tonnage_kg"] == pytest.approx(sum(week["tonnage_kg"] for week in of_block) / 4, abs=1)
        assert block["sets"] == pytest.approx(sum(week["sets"] for week in of_block) / 4, abs=0.1)
        assert [week["monday"] for week in block["weeks"]] == [week["monday"] for week in of_block]
    squat = next(lift for lift in found["lifts"] if lift["exercise"] == "Front squat")
    assert squat["earlier"]["max_after_kg"] == squat["later"]["max_before_kg"]


@pytest.mark.parametrize(
    ("query", "said"),
    [
        ({"one": "2026-03-02", "other": "2026-03-09"}, "The two blocks share weeks"),
        ({"one": "2026-03-02", "other": "8000-01-06"}, "has weeks that are not over"),
        ({"one": "2026-03-02", "other": "2026-06-01", "one_weeks": 27}, "one_weeks"),
        ({"one": "soon", "other": "2026-06-01"}, "one"),
    ],
)
def test_what_is_no_pair_of_blocks_is_refused_with_a_word(client, query, said):
    answer = client.get("/api/ledger/blocks", params=query)
    assert answer.status_code == 422
    assert said in answer.text
