"""Copies of the record: whole or not there at all, one a day, old ones let go."""

import sqlite3
from contextlib import closing
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.store import sessions
from fortis.store.backup import (
    DAYS_KEPT,
    WEEKS_KEPT,
    BackupError,
    InUseError,
    back_up,
    bring_back,
    daily,
    damage,
    folder,
)
from fortis.store.database import open_database
from fortis.store.lifter import lifter
from tests.store.test_releases import RELEASES

TODAY = date(2026, 3, 2)
NOW = datetime(2026, 3, 2, 18, 5, tzinfo=UTC)


@pytest.fixture
def path(tmp_path, database):
    with database.begin() as work:
        for number in range(60):
            sessions.save_plan(work, f"{number:036}", "Squat: 5 at 100 kg", lifter(work).unit, None)
    with closing(sqlite3.connect(tmp_path / "fortis.db")) as raw:
        raw.execute("pragma wal_checkpoint(truncate)")
    return tmp_path / "fortis.db"


def spoil(path: Path) -> None:
    """Overwrite a page in the middle of the file."""
    with path.open("r+b") as file:
        file.seek(path.stat().st_size // 2 // 4096 * 4096)
        file.write(b"\xff" * 8192)


def test_a_damaged_record_is_not_backed_up_as_if_it_were_sound(path, tmp_path):
    spoil(path)
    with pytest.raises(BackupError, match=r"damaged|malformed"):
        back_up(path, tmp_path / "copies" / "copy.db")
    assert list((tmp_path / "copies").iterdir()) == []


def test_a_copy_that_cannot_be_made_leaves_nothing(path, tmp_path):
    (tmp_path / "file").write_text("no folder")
    with pytest.raises(BackupError, match="could not be copied"):
        back_up(path, tmp_path / "file" / "copy.db")
    with pytest.raises(BackupError, match="could not be copied"):
        back_up(path, Path("/proc/copy.db"))


def test_a_backup_taken_while_others_write_is_whole(path, tmp_path, database):
    with database.begin() as work:
        work.connection()
        sessions.save_plan(work, "b" * 36, "Squat: 5 at 100 kg", lifter(work).unit, None)
        back_up(path, tmp_path / "copy.db")
    assert damage(tmp_path / "copy.db") == []
    with open_database(tmp_path / "copy.db")() as work:
        assert len(sessions.planned(work)) == 60


def test_one_a_day_is_kept_for_days_then_one_a_week(path):
    days = [TODAY + timedelta(days=number) for number in range(150)]
    for day in days:
        daily(path, day)
        daily(path, day)
    kept = sorted(date.fromisoformat(each.stem.removeprefix("fortis-")) for each in folder(path).iterdir())
    assert kept[-DAYS_KEPT:] == days[-DAYS_KEPT:]
    assert all(day.weekday() == 0 for day in kept[:-DAYS_KEPT])
    assert WEEKS_KEPT - 3 <= len(kept) - DAYS_KEPT <= WEEKS_KEPT


@given(st.lists(st.integers(0, 200), unique=True, min_size=1, max_size=40))
def test_the_copy_of_the_day_is_always_kept_and_files_of_others_stay(tmp_path_factory, days):
    path = tmp_path_factory.mktemp("record") / "fortis.db"
    with sqlite3.connect(path) as database:
        database.execute("create table t (x)")
    folder(path).mkdir()
    (folder(path) / "fortis-before-0005.db").write_text("mine")
    for day in sorted(days):
        assert daily(path, TODAY + timedelta(days=day)).exists()
    assert (folder(path) / "fortis-before-0005.db").read_text() == "mine"


def test_a_clock_that_leaps_ahead_and_back_makes_no_copy_old(path):
    days = [TODAY + timedelta(days=number) for number in range(10)]
    for day in (*days, TODAY + timedelta(days=3_000), days[-1] + timedelta(days=1)):
        daily(path, day)
    kept = {date.fromisoformat(each.stem.removeprefix("fortis-")) for each in folder(path).iterdir()}
    assert {*days, days[-1] + timedelta(days=1)} <= kept


def planned(path):
    database = open_database(path)
    with database() as work:
        found = len(sessions.planned(work))
    database.kw["bind"].dispose()
    return found


def test_a_copy_brought_back_is_what_it_was_and_what_was_there_is_set_aside(path, database, tmp_path):
    copy = tmp_path / "copy.db"
    back_up(path, copy)
    with database.begin() as work:
        sessions.save_plan(work, "c" * 36, "Squat: 5 at 100 kg", lifter(work).unit, None)
    with pytest.raises(InUseError):
        bring_back(copy, path, NOW)
    assert planned(path) == 61
    database.kw["bind"].dispose()
    beside = path.with_name(path.name + "-wal")
    beside.write_bytes(b"what a crash left of another record" * 200)
    aside = bring_back(copy, path, NOW)
    assert planned(path) == 60
    assert (aside.exists(), copy.exists()) == (True, True)
    assert bring_back(copy, tmp_path / "new.db", NOW) is None


@pytest.mark.parametrize("kind", ["damaged", "foreign", "missing"])
def test_what_is_no_sound_copy_is_not_brought_back(path, database, tmp_path, kind):
    database.kw["bind"].dispose()
    before = path.read_bytes()
    copy = tmp_path / "copy.db"
    if kind == "damaged":
        back_up(path, copy)
        spoil(copy)
    elif kind == "foreign":
        with sqlite3.connect(copy) as other:
            other.execute("create table recipe (name)")
    with pytest.raises(FileNotFoundError if kind == "missing" else BackupError):
        bring_back(copy, path, NOW)
    assert path.read_bytes() == before


def test_an_older_form_is_copied_before_it_is_changed(tmp_path):
    path = tmp_path / "old.db"
    with sqlite3.connect(path) as database:
        database.executescript((RELEASES / "0.1.sql").read_text())
        ((before,),) = database.execute("select version_num from alembic_version").fetchall()
    open_database(path)
    (copy,) = folder(path).iterdir()
    with sqlite3.connect(copy) as database:
        assert database.execute("select version_num from alembic_version").fetchall() == [(before,)]
    open_database(path)
    assert len(list(folder(path).iterdir())) == 1
