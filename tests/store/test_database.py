import json
import sqlite3
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, date, datetime
from decimal import Decimal
from threading import Barrier

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.resolution import resolve
from fortis.core.season.easy import easy_weeks
from fortis.core.season.model import LightSchool
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, Prescription, lay_out
from fortis.core.tally.body_weight import Weighed, interpolated
from fortis.demo.log import MAXES, WEEKLY_GAIN, make_demo
from fortis.formats.documents import FromTheFutureError, from_document, to_document
from fortis.store import bouts, lifter, maxes, places, recording, seasons, sessions, went
from fortis.store.backup import back_up
from fortis.store.cache import cached, note_versions
from fortis.store.database import WRITES, open_database, writing
from fortis.store.tables import Table
from tests.strategies import sessions as any_session


def test_the_migrations_make_the_tables_the_code_means(database):
    with database.kw["bind"].connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Table.metadata) == []


def test_write_ahead_and_foreign_keys_are_on(database):
    with database.kw["bind"].connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1


def test_a_second_opening_finds_everything(tmp_path):
    path = tmp_path / "fortis.db"
    with open_database(path).begin() as work:
        lifter.save_body_weight(work, datetime(2026, 1, 1, tzinfo=UTC).date(), Decimal("81.65"))
    with open_database(path).begin() as work:
        assert lifter.body_kg(work, datetime(2026, 2, 1, tzinfo=UTC).date()) == Decimal("81.65")


@given(
    st.dictionaries(st.dates(date(2025, 1, 1), date(2026, 12, 31)), st.integers(50, 150), max_size=12), st.data()
)
@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_body_weight_on_a_day_is_the_same_read_around_it_or_from_all_there_is(database, weights, data):
    known = [Weighed(on=on, kg=Decimal(kg)) for on, kg in sorted(weights.items())]
    days = data.draw(st.lists(st.dates(date(2024, 6, 1), date(2027, 6, 1)), min_size=1, max_size=9))
    with database() as work:
        for each in known:
            lifter.save_body_weight(work, each.on, each.kg)
        assert [lifter.body_kg(work, day) for day in days] == [interpolated(known, day) for day in days]


def test_what_was_worked_out_of_an_older_look_is_not_kept_for_a_newer_one(database):
    def lightest(work):
        return cached(work, "lightest", lambda: min(each.kg for each in lifter.last_body_weights(work, 9)))

    day = datetime(2026, 1, 1, tzinfo=UTC).date()
    to_write = writing(database)
    for units_of_work in (database, to_write):
        note_versions(units_of_work)
    with to_write.begin() as work:
        lifter.save_body_weight(work, day, Decimal(82))
    with database() as before, database() as after:
        lifter.lifter(before)
        with to_write.begin() as work:
            lifter.save_body_weight(work, day, Decimal(81))
        assert lightest(before) == 82
        assert lightest(after) == 81
        assert lightest(before) == 82
    with to_write.begin() as work:
        assert lightest(work) == 81


def test_a_backup_is_whole_and_never_overwrites(tmp_path, database):
    with database.begin() as work:
        sessions.save_plan(work, "a" * 36, "Squat: 5 at 100", lifter.lifter(work).unit, None)
        back_up(tmp_path / "fortis.db", tmp_path / "copy" / "fortis.db")
    back_up(tmp_path / "fortis.db", tmp_path / "second.db")
    rows = sqlite3.connect(tmp_path / "second.db").execute("select written from session").fetchall()
    assert rows == [("Squat: 5 at 100",)]
    with pytest.raises(FileExistsError):
        back_up(tmp_path / "fortis.db", tmp_path / "second.db")
    with pytest.raises(FileNotFoundError):
        back_up(tmp_path / "nothing.db", tmp_path / "third.db")


@given(any_session)
@settings(max_examples=40, deadline=None)
def test_a_frozen_prescription_comes_back_exactly(session):
    prescription = resolve(lay_out(session))
    stored = json.loads(json.dumps(to_document(prescription)))
    again = from_document(Prescription, stored)
    assert [bout.load for each in again.sets for bout in each.bouts] == [
        bout.load for each in prescription.sets for bout in each.bouts
    ]
    assert to_document(again) == stored


def test_a_document_of_a_later_release_is_refused_by_name():
    with pytest.raises(FromTheFutureError, match="Kit of version 99"):
        from_document(Kit, {"version": 99, "place": "x"})


def test_a_kit_of_an_earlier_release_beyond_today_s_bounds_is_still_read():
    plates = [{"amount": 25 - size / 2, "unit": "kg", "count": 2} for size in range(40)]
    fine = {"name": "Old tower", "first_kg": 1, "step_kg": 0.01, "most_kg": 100}
    kit = from_document(
        Kit, {"version": 1, "place": "Old gym", "plates": plates, "machines": [fine, {"name": "Row"}]}
    )
    assert (len(kit.plates), kit.plates[0].kg) == (20, 25)
    assert [machine.most_kg for machine in kit.machines] == [5, 120]
    assert from_document(Kit, to_document(kit)) == kit


def test_a_pound_plate_is_exact_through_the_record(database):
    with database.begin() as work:
        row = sessions.save_plan(work, "b" * 36, "Odd lift: 5 at 45 lb", lifter.lifter(work).unit, None)
        sessions.start(row, resolve(lay_out(read(row.written))), places.USUAL_KIT, datetime.now(UTC))
    with database.begin() as work:
        row = sessions.get(work, "b" * 36)
        assert sessions.frozen(row).sets[0].bouts[0].settled.kg == Decimal("20.41165665")


def test_the_demo_is_twelve_weeks_of_everything_and_the_same_each_time(tmp_path):
    now = datetime(2026, 6, 1, 12, tzinfo=UTC)
    told = []
    for name in ("one.db", "two.db"):
        assert make_demo(tmp_path / name, now) == 36
        with open_database(tmp_path / name).begin() as work:
            done = sessions.finished(work)
            told.append([bout for row in done for bout in bouts.performed(work, row.id)])
            titles = {row.title for row in done}
            due = [row.title for row in sessions.planned(work) if row.planned_on == now.date()]
            ahead = seasons.season_of(seasons.underway(work))
    assert told[0] == told[1]
    assert len(done) == 36
    assert {"Press and row", "Pull", "Legs", "Legs, light"} <= titles
    assert due == ["Press and row"]
    assert (ahead.weeks, ahead.starts.isoformat(), ahead.aim.on.isoformat()) == (13, "2026-04-27", "2026-07-25")
    assert any(bout.ended == "could not move it" for bout in told[0])
    assert any(bout.position.entry == 2 for bout in told[0])
    assert any(bout.position.bout > 2 for bout in told[0])


def test_the_demo_has_a_year_behind_it(tmp_path):
    """Two seasons that are over, light weeks of both schools, a week away, and maxes known for what they are.

    On a Saturday, so that the week does not begin with the session of today.
    """
    now = datetime(2026, 6, 6, 12, tzinfo=UTC)
    assert make_demo(tmp_path / "year.db", now, year=True) == 148
    with open_database(tmp_path / "year.db").begin() as work:
        done = sessions.finished(work)
        over = seasons.latest(work, 3)
        left = [row for row in seasons.of_season(work, over[-1].id).values() if not row.started_at]
        known = {key[0]: each for key, each in maxes.estimates(work, now).items()}
        easy = easy_weeks(went.sessions_went(work, now), now.date())
        titles = [seasons.season_of(row).title for row in over]
    assert (sessions.day_of(done[-1]), sessions.day_of(done[0])) == (date(2025, 6, 2), date(2026, 6, 3))
    assert titles == ["River meet", "Winter, test", "Autumn, build"]
    assert [bool(row.discarded_at) for row in left] == [True, True]
    schools = [each.school for each in easy]
    assert [schools.count(school) for school in (LightSchool.HALF, LightSchool.SHORT, None)] == [2, 5, 1]
    for lift in ("Front squat", "Bench press"):
        found, true = known[LIBRARY.find(lift).id], MAXES[lift] * (1 + WEEKLY_GAIN) ** 12
        assert found.low < true < found.high


def test_two_devices_at_the_same_moment_never_overwrite_each_other(database):
    """Each round both correct the same version at once: one is taken, the other is told so."""
    with database.begin() as work:
        row = sessions.save_plan(work, "c" * 36, "Back squat: 5 at 100", lifter.lifter(work).unit, None)
        sessions.start(row, resolve(lay_out(read(row.written))), places.USUAL_KIT, datetime.now(UTC))
    bout = PerformedBout(position=Position(group=1, round=1, entry=1, set=1, bout=1), exercise="Back squat")
    gate = Barrier(2)

    def correct(device, reps, seen):
        gate.wait()
        now = datetime.now(UTC)
        by = recording.Provenance(at=now, done_at=now, device=device)
        try:
            with database.begin() as work:
                work.connection(execution_options=WRITES)
                return recording.record(work, "c" * 36, bout.model_copy(update={"reps": reps}), by, seen)
        except recording.ChangedElsewhereError as error:
            return error.version * -1

    with ThreadPoolExecutor(2) as devices:
        for version in range(1, 21):
            seen = version - 1 or None
            answers = list(devices.map(correct, ("one", "two"), (version, version + 100), (seen, seen)))
            assert sorted(answers) == [-version, version]
    with database.begin() as work:
        assert len(bouts.versions(work, "c" * 36, bout.position)) == 20
