"""A file is brought, read as the lifter says, agreed to, and taken back."""

import time

import pytest

from fortis.api.waiting import MOST_WAITING

LOG = "datum;übung;kg;wdh\n02.03.2026;Kniebeuge;102,5;5\n02.03.2026;Bench;80;8\n03.03.2026;Bench;80;\n"
BYTES = {"Content-Type": "application/octet-stream"}


@pytest.fixture
def bring(client):
    def brought(content=LOG, name="log.csv"):
        content = content if isinstance(content, bytes) else content.encode()
        answer = client.post("/api/imports/files", params={"name": name}, content=content, headers=BYTES)
        assert answer.status_code == 201, answer.text
        return settled(client, answer.json())

    return brought


def settled(client, file):
    """The file once nothing is going on with it."""
    for _ in range(500):
        if file["state"] not in ("reading", "writing"):
            return file
        time.sleep(0.01)
        file = client.get(f"/api/imports/files/{file['id']}").json()
    raise AssertionError(file)


def test_from_a_file_to_the_ledger_and_back_out(client, bring):
    file = bring()
    address = f"/api/imports/files/{file['id']}"
    assert file["read_as"] == {
        "encoding": "utf-8", "delimiter": "semicolon", "columns": ["date", "lift", "load", "reps"],
        "unit": "kg", "decimal": ",", "dates": "day, month, year",
    }  # fmt: skip
    assert (file["examined"]["bouts"], file["examined"]["rows_passed_over"]) == (2, 1)
    file = settled(client, client.put(f"{address}/lifts", json={"Kniebeuge": "Back squat"}).json())
    assert file["lifts"] == {"Kniebeuge": "Back squat", "Bench": "Bench press"}
    assert "Back squat: 5 at 102.5 kg" in file["examined"]["previews"][0]["written"]
    assert client.get("/api/ledger").json()["sessions"] == []
    assert client.post(f"{address}/write").status_code == 202
    file = settled(client, client.get(address).json())
    (done,) = client.get("/api/imports").json()
    assert (file["state"], done["id"], done["name"], done["bouts"]) == ("written", file["import_id"], "log.csv", 2)
    (session,) = client.get("/api/ledger").json()["sessions"]
    assert (session["tonnage_kg"], session["lifts"]) == (102.5 * 5 + 80 * 8, ["Back squat", "Bench press"])
    past = client.get(f"/api/ledger/{session['id']}")
    assert past.status_code == 200
    assert client.post(f"{address}/write").status_code == 409
    assert client.post(f"/api/imports/{done['id']}/take-back").json()["taken_back_at"]
    assert client.get("/api/ledger").json()["sessions"] == []
    assert client.post(f"/api/imports/{done['id']}/bring-back").json()["taken_back_at"] is None
    assert len(client.get("/api/ledger").json()["sessions"]) == 1


def test_it_is_read_as_the_lifter_says(client, bring):
    file = bring()
    address = f"/api/imports/files/{file['id']}"
    told = {**file["read_as"], "unit": "lb", "columns": ["date", "lift", None, "reps"]}
    file = settled(client, client.put(f"{address}/reading", json=told).json())
    assert "Bench press: 8" in file["examined"]["previews"][0]["written"]
    lost = settled(client, client.put(f"{address}/reading", json={**told, "columns": [None, "lift"]}).json())
    assert (lost["state"], lost["why"]) == ("refused", "No column is said to hold the date.")
    assert client.post(f"{address}/write").status_code == 409
    other = settled(client, client.put(f"{address}/reading", json={**told, "delimiter": "tab"}).json())
    assert (other["state"], len(other["names"])) == ("refused", 1)
    assert settled(client, client.put(f"{address}/reading", json=told).json())["state"] == "read"


def test_a_file_that_is_no_table_is_refused_and_can_go(client, bring):
    file = bring(b"PK\x03\x04")
    assert (file["state"], file["read_as"]) == ("refused", None)
    assert "spreadsheet" in file["why"]
    address = f"/api/imports/files/{file['id']}"
    for path, body in (("lifts", {}), ("write", None)):
        assert (
            client.request("PUT" if body is not None else "POST", f"{address}/{path}", json=body).status_code == 409
        )
    assert client.delete(address).status_code == 204
    assert client.delete(address).status_code == 204
    assert client.get(address).status_code == 404


def test_a_whole_record_does_not_come_in_here(client, bring):
    away = client.get("/api/export/record.json")
    assert away.json()["format"] == "fortis record"
    assert "a new record only" in bring(away.content)["why"]
    assert client.get("/api/export/record.schema.json").json()["title"] == "Record"
    assert client.get("/api/export/sessions.txt").text == ""


def test_only_so_many_files_wait(client, bring):
    files = [bring()["id"] for _ in range(MOST_WAITING + 1)]
    waiting = [client.get(f"/api/imports/files/{each}").status_code for each in files]
    assert waiting == [404] + [200] * MOST_WAITING


def test_a_file_comes_as_bytes_and_nothing_else_does(client):
    as_text = client.post(
        "/api/imports/files", params={"name": "x"}, content=b"x", headers={"Content-Type": "text/plain"}
    )
    assert as_text.status_code == 415
    as_bytes = client.put("/api/kit/body-weight", content=b"{}", headers=BYTES)
    assert as_bytes.status_code == 415
    huge = client.post("/api/imports/files", params={"name": "x"}, headers={**BYTES, "Content-Length": "999999999"})
    assert huge.status_code == 413
