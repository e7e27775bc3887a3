"""The whole record as JSON: brought into a new record it is the same, and its schema describes it."""

import io
import json
import sqlite3
from datetime import UTC, datetime, timedelta, timezone
from decimal import Decimal
from pathlib import Path
from uuid import uuid4

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.performance import Ended, LoadSource
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.prescription import Position
from fortis.formats.record import (
    BoutKept,
    BoutVersion,
    RecordFileError,
    SessionKept,
    read_record,
    schema,
    write_record,
)
from fortis.store.database import open_database, writing
from fortis.store.tables import ImportRow
from fortis.store.transfer import AT_ONCE, NotEmptyError, about_lifter, all_sessions, bring_in

SCHEMA = Path(__file__).parents[2] / "docs" / "record.schema.json"
DESCRIBED = jsonschema.Draft202012Validator(json.loads(schema()))
NEXT_WEEK = datetime.now(UTC).date() + timedelta(days=7)
SEASON = f"from {NEXT_WEEK}\nbuilding, 1 week:\n  Sunday, Long:\n    Back squat: 5 x 5 at 60 kg"
NOW = datetime(2026, 11, 25, tzinfo=UTC)


def away(database):
    with database() as work:
        return "".join(write_record(about_lifter(work), all_sessions(work)))


def bring(database, text):
    with writing(database).begin() as work:
        return bring_in(work, read_record(io.BytesIO(text.encode())))


def rows(path):
    """Everything in the tables of a record, in order."""
    with sqlite3.connect(path) as database:
        tables = [
            name for (name,) in database.execute("select name from sqlite_master where type = 'table' order by 1")
        ]
        found = {name: sorted(map(repr, database.execute(f'select * from "{name}"'))) for name in tables}
    database.close()
    return found


@pytest.fixture
def lived_in(client, lifter, database):
    """A record with something of everything: planned, begun, corrected, taken back, put aside, told, chosen."""
    done = lifter.play("# Legs\nBack squat [belt]: 2 x 5 at 225 lb leave 2", [(5, 2), (4, 0)])
    lifter.record(done, lifter.work(done)[0], reps=6, reserve=1)
    begun, aside = (lifter.plan(text).json()["id"] for text in ("Row: 3 x 8 at 60 kg", "Dip: 8"))
    address = f"/api/today/{begun}/readiness"
    assert client.put(address, json={"sleep": 2}).status_code == 204
    lifter.start(begun)
    first = lifter.work(begun)[0]
    lifter.record(begun, first, reps=8)
    lifter.take_back(begun, first)
    for method, path, body in (
        ("PUT", f"ledger/{done}/felt", {"felt": 7}),
        ("DELETE", f"compose/sessions/{aside}", None),
        ("PUT", "kit/body-weight?on=2026-03-02", {"kg": 80.5}),
        ("PUT", "policies/back-squat", {"kind": "keep"}),
        ("PUT", f"strength/remembered/{uuid4()}", {"exercise": "Bench press", "written": "5 at 80 kg leave 1"}),
        ("PUT", f"compose/templates/{uuid4()}", {"written": "# Legs\nBack squat: 5"}),
        ("PUT", "compose/set-aside/unsafe-failure?exercise=Deadlift", None),
        ("POST", "compose/lifts/Back squat", {"name": "High-bar squat"}),
        ("PUT", f"season/{uuid4()}", {"written": SEASON}),
    ):
        answer = client.request(method, f"/api/{path}", json=body)
        assert answer.is_success, (path, answer.text)
    with writing(database).begin() as work:
        work.add(
            ImportRow(id="log", name="log.csv", at=NOW, sessions=0, bouts=0, body_weights={"2026-03-02": "80"})
        )
    return database


def test_a_record_brought_into_a_new_one_is_the_same(lived_in, tmp_path):
    text, there = away(lived_in), rows(lived_in.kw["bind"].url.database)
    assert all(there.values())
    DESCRIBED.validate(json.loads(text))
    new = open_database(tmp_path / "new.db")
    assert bring(new, text) == 4
    assert away(new) == text
    assert rows(tmp_path / "new.db") == there
    with pytest.raises(NotEmptyError):
        bring(new, text)


def test_the_demo_and_a_record_of_the_first_release_come_through(tmp_path, demo_at):
    demo_at(tmp_path / "demo.db", NOW)
    with sqlite3.connect(tmp_path / "old.db") as old:
        old.executescript((Path(__file__).parent / "releases" / "0.1.sql").read_text(encoding="utf-8"))
    old.close()
    for name in ("demo", "old"):
        text = away(open_database(tmp_path / f"{name}.db"))
        new = open_database(tmp_path / f"{name}-new.db")
        bring(new, text)
        assert away(new) == text
        if name == "demo":
            assert bring(open_database(tmp_path / "more.db"), text) > AT_ONCE
            assert rows(tmp_path / "demo-new.db") == rows(tmp_path / "demo.db")


def test_the_published_schema_is_that_of_today():
    """A stale one is renewed with `make docs/record.schema.json`."""
    assert SCHEMA.read_text(encoding="utf-8") == schema()
    jsonschema.Draft202012Validator.check_schema(json.loads(schema()))


DIGITS = st.decimals(0, 999, places=20)
MOMENTS = st.integers(0, 4 * 10**15).map(lambda at: datetime.fromtimestamp(at / 1e6, timezone(timedelta(hours=2))))
KEPT = st.builds(
    BoutKept,
    position=st.builds(Position, **{name: st.integers(0, 9) for name in Position.model_fields}),
    exercise=st.text(max_size=20), lift_id=st.text(max_size=9), setup=st.just(SetUp(items=("belt",))),
    side=st.sampled_from(Side), kg=st.none() | DIGITS, bottom_kg=st.none() | DIGITS, top_kg=st.none() | DIGITS,
    mean_kg=st.none(), reps=st.integers(0, 50), reserve=st.none() | st.sampled_from([Decimal("0.5"), Decimal(2)]),
    or_more=st.booleans(), ended=st.none() | st.sampled_from(Ended), note=st.text(max_size=20),
    rep_seconds=st.lists(st.floats(0, 600), max_size=3).map(tuple), asked=st.none(),
    source=st.none() | st.sampled_from(LoadSource), began_at=st.none() | MOMENTS, done_at=MOMENTS,
    device=st.text(max_size=9), taken_back_at=st.none() | MOMENTS, version=st.integers(1, 9),
    versions=st.lists(
        st.builds(BoutVersion, version=st.integers(1, 9), at=MOMENTS, device=st.text(max_size=9), bout=st.none()),
        max_size=2,
    ).map(tuple),
)  # fmt: skip
SESSIONS = st.lists(
    st.builds(
        SessionKept,
        id=st.uuids().map(str), slot=st.text(max_size=9), title=st.text(max_size=20), written=st.text(max_size=50),
        unit=st.sampled_from(["kg", "lb"]), planned_on=st.none() | st.dates(), started_at=st.none() | MOMENTS,
        finished_at=st.none(), discarded_at=st.none(), zone=st.none(), place_id=st.none(), kit=st.none(),
        resolved=st.none(), adjustments=st.none(), felt=st.none() | st.integers(0, 10),
        import_id=st.none(), readiness=st.none(),
        bouts=st.lists(KEPT, max_size=2).map(tuple),
    ),
    max_size=3,
)  # fmt: skip


@given(SESSIONS)
def test_what_is_written_is_read_back_exactly(sessions):
    about = read_record(io.BytesIO(EMPTY.encode())).about
    text = "".join(write_record(about, sessions))
    assert list(read_record(io.BytesIO(text.encode())).sessions) == sessions
    DESCRIBED.validate(json.loads(text))


LIFTER = {"unit": "kg", "zone": "UTC", "plate_order": "big plates inside"}
PARTS = (
    "places",
    "body_weights",
    "lifts",
    "templates",
    "set_aside",
    "remembered",
    "policies",
    "imports",
    "seasons",
)
EMPTY = json.dumps(
    {
        "format": "fortis record", "version": 1,
        "about": {"lifter": LIFTER, **{part: [] for part in PARTS}}, "sessions": [],
    }
)  # fmt: skip


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "torn or no JSON"),
        ("[]", "no record of Fortis"),
        ('{"format": "something else"}', "no record of Fortis"),
        (EMPTY.replace('"version": 1', '"version": 2'), "version 2; this Fortis reads 1"),
        (EMPTY.replace('"unit": "kg"', '"unit": "stone"'), "about.lifter.unit: Input should be 'kg' or 'lb'"),
        (EMPTY[:-4], "torn or no JSON"),
        (EMPTY.replace('"sessions": []', '"sessions": [{"id": "1"}]'), "session 1.slot: Field required"),
    ],
)
def test_a_file_that_is_no_record_is_told_and_nothing_is_kept(tmp_path, text, says):
    database = open_database(tmp_path / "new.db")
    before = rows(tmp_path / "new.db")
    with pytest.raises(RecordFileError, match=says.replace("[", r"\[")):
        bring(database, text)
    assert rows(tmp_path / "new.db") == before
