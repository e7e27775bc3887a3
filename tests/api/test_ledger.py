"""The Ledger by the page, over a log that is longer than any page."""

from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from bench.log import make_log
from fortis.api.app import create_app


@pytest.fixture
def long_log(tmp_path):
    app = create_app(make_log(tmp_path / "long.db", 1))
    return TestClient(app, base_url="http://localhost", raise_server_exceptions=False)


def test_page_after_page_is_the_whole_log_each_session_once(long_log):
    found, pages, asked = [], [], {"limit": 40}
    while len(pages) < 10:
        page = long_log.get("/api/ledger", params=asked).json()
        pages.append(len(page["sessions"]))
        found += page["sessions"]
        asked["before"] = found[-1]["id"]
        if not page["more"]:
            break
    assert pages == [40, 40, 40, 30]
    assert len({each["id"] for each in found}) == 150
    assert [each["started_at"] for each in found] == sorted((each["started_at"] for each in found), reverse=True)
    opened = long_log.get(f"/api/ledger/{found[0]['id']}").json()
    assert found[0]["tonnage_kg"] == opened["tally"]["tonnage_kg"]


def test_a_page_says_how_long_it_may_be_and_what_it_follows(long_log):
    assert len(long_log.get("/api/ledger").json()["sessions"]) == 30
    assert long_log.get("/api/ledger", params={"limit": 101}).status_code == 422
    assert long_log.get("/api/ledger", params={"before": str(uuid4())}).status_code == 404
