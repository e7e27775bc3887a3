"""The Ledger by the page, over a log that is longer than any page."""

import tracemalloc
from datetime import date, timedelta
from io import BytesIO
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from bench.log import make_log
from fortis.api.app import create_app
from fortis.api.export import long_file
from fortis.formats.csv import read_bouts


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


def every_week(client):
    """All weeks back to one of the year before the demo's first."""
    until, weeks = None, []
    for _ in range(12):
        page = client.get("/api/ledger/weeks", params={"many": 16} | ({"until": until} if until else {})).json()[
            "weeks"
        ]
        weeks += page
        until = f"{date.fromisoformat(page[0]['monday']) - timedelta(days=7)}"
    return weeks


def test_weeks_hold_every_session_once_and_end_where_asked(long_log):
    latest = long_log.get("/api/ledger/weeks").json()
    assert len(latest["weeks"]) == 8
    assert latest["weeks"][-1]["monday"] <= latest["today"] < latest["weeks"][-1]["monday"][:8] + "99"
    (newest, *_) = long_log.get("/api/ledger").json()["sessions"]
    shown = [each for week in latest["weeks"] for each in week["of"]]
    assert shown[-1]["id"] == newest["id"]
    assert shown[-1]["tonnage_kg"] == newest["tonnage_kg"]
    assert [each["day"] for each in shown] == sorted(each["day"] for each in shown)
    earlier = long_log.get("/api/ledger/weeks", params={"until": latest["weeks"][0]["monday"], "many": 2}).json()
    assert earlier["weeks"][-1] == latest["weeks"][0]
    told = {latest["first"], earlier["first"]}
    assert told == {min(each["monday"] for each in every_week(long_log) if each["of"])}
    for wrong in ({"until": "soon"}, {"until": "0001-01-01"}, {"many": 17}):
        assert long_log.get("/api/ledger/weeks", params=wrong).status_code == 422


def test_how_hard_a_session_was_is_told_changed_and_taken_back(lifter):
    planned = lifter.plan("Back squat: 2 x 5 at 100 kg").json()["id"]
    assert lifter.client.put(f"/api/ledger/{planned}/felt", json={"felt": 7}).status_code == 409
    lifter.start(planned)
    for felt in (7, 8, None):
        assert lifter.client.put(f"/api/ledger/{planned}/felt", json={"felt": felt}).status_code == 204
        assert lifter.client.get(f"/api/ledger/{planned}").json()["felt"] == felt
    for wrong in (11, -1, 7.5, "7"):
        assert lifter.client.put(f"/api/ledger/{planned}/felt", json={"felt": wrong}).status_code == 422


def test_beside_a_session_lies_the_last_one_that_is_fair_to_compare(lifter):
    plain, slow = "# Legs\nBack squat: 5 at 100 kg", "# Legs\nBack squat: 5 at 100 kg tempo 3-1-1-0"
    first, second, third = (lifter.play(written, [(5, 2)]) for written in (plain, slow, plain))
    before = lifter.past(third)["before"]
    assert (before["id"], before["between"], before["compared"][0]["is_fair"]) == (first, 1, True)
    before = lifter.past(second)["before"]
    assert (before["id"], before["between"], before["compared"][0]["is_fair"]) == (first, 0, False)
    assert lifter.past(first)["before"] is None


def test_the_record_is_taken_away(lifter, today):
    done = lifter.play("# =Legs\nBack squat: 2 x 5 at 100 kg", [(5, 2), (4, 0)])
    planned = lifter.plan("# Pull\nRing row: 3 x 8", today).json()["id"]
    bouts = lifter.client.get("/api/export/bouts.csv")
    assert bouts.headers["content-type"].startswith("text/csv")
    assert "attachment" in bouts.headers["content-disposition"]
    first, second = read_bouts(bouts.text.splitlines(keepends=True))
    assert (first.load_kg, first.reps, first.reserve, second.reps) == (100, 5, 2, 4)
    assert first.session == second.session
    assert first.session.startswith("=Legs ")
    assert len(lifter.past(done)["bouts"]) == 2
    calendar = lifter.client.get("/api/export/planned.ics")
    assert calendar.headers["content-type"].startswith("text/calendar")
    assert f"UID:{planned}@fortis" in calendar.text


def test_a_session_goes_on_a_card_before_it_is_played_and_after(lifter, today):
    planned = lifter.plan("# Légs\nBack squat: 2 x 5 at 100 kg", today).json()["id"]
    done = lifter.play("# Légs\nBack squat: 2 x 5 at 100 kg", [(5, 2), (4, 0)])
    for session, words in ((planned, "about"), (done, "0 min on the floor, 9 reps, 900 kg")):
        card = lifter.client.get(f"/api/export/sessions/{session}/card.pdf")
        assert card.headers["content-type"] == "application/pdf"
        assert card.headers["content-disposition"] == "attachment; filename*=UTF-8''L%C3%A9gs.pdf"
        text = PdfReader(BytesIO(card.content)).pages[0].extract_text()
        assert words in text
        assert "Each side of the 20 kg bar: 25" in text
        assert ("4 / 0" in text) == (session == done)
    assert lifter.client.get(f"/api/export/sessions/{uuid4()}/card.pdf").status_code == 404


def test_a_long_file_is_never_whole_in_memory():
    tracemalloc.start()
    try:
        answer = long_file(("x" * 100_000 for _ in range(200)), "text/plain", "long.txt")
        _, most = tracemalloc.get_traced_memory()
    finally:
        tracemalloc.stop()
    assert answer.headers["content-length"] == "20000000"
    assert most < 5_000_000


def found(lifter, *words):
    answer = lifter.client.get("/api/ledger", params={"find": " ".join(words)})
    return [each["title"] for each in answer.json()["sessions"]]


def test_sessions_are_found_by_what_is_said_of_them(lifter, today):
    texts = {
        "Heavy": "Back squat [belt]: 1 x 5 at 100 kg",
        "Easy": "Front squat: 1 set of (5 at 60 kg, drop 20% to failure)",
        "100% of it": "Ring row: 1 x 8",
    }
    for title, line in texts.items():
        session = lifter.plan(f"# {title}\n{line}").json()["id"]
        lifter.start(session)
        (step, *_) = lifter.work(session)
        lifter.record(session, step, reps=5, kg=step["load"]["kg"], note="hips lower" if title == "Heavy" else "")
        lifter.client.post(f"/api/floor/{session}/finish")
    assert found(lifter) == ["100% of it", "Easy", "Heavy"]
    assert found(lifter, "squat") == ["Easy", "Heavy"]
    assert found(lifter, "SQUAT", "belt") == ["Heavy"]
    assert found(lifter, "hips") == ["Heavy"]
    assert found(lifter, "drop", "sets") == found(lifter, "failure") == ["Easy"]
    assert found(lifter, "clusters") == []
    edited = lifter.plan("# Heavy\nBack squat: 2 sets of (2, 2) at 80 kg within 20s").json()["id"]
    lifter.start(edited)
    lifter.client.post(f"/api/floor/{edited}/finish")
    assert found(lifter, "clusters") == ["Heavy"]
    lifter.client.delete(f"/api/compose/sessions/{edited}")
    assert found(lifter, "100%") == ["100% of it"]
    assert found(lifter, "%_%") == []
    assert found(lifter, str(today.year), f"{today:%B}", "ring") == ["100% of it"]
    assert found(lifter, f"{today:%b}", str(today.day), "ring") == ["100% of it"]
    assert found(lifter, "1987") == []
    lifter.client.post("/api/compose/lifts/Front squat", json={"name": "Rack squat"})
    assert found(lifter, "rack") == found(lifter, "front") == ["Easy"]
    assert lifter.client.get("/api/ledger", params={"find": "x" * 201}).status_code == 422
