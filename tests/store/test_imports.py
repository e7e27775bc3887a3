"""Logs taken into the record: whole or not at all, once, and back out again."""

import sqlite3
from contextlib import closing
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

import pytest
from sqlalchemy import func, select

from fortis.core.units import Unit
from fortis.formats.csv import write_bouts
from fortis.formats.foreign import Reader, guess
from fortis.formats.table import layout_of
from fortis.store import bouts, imports, lifter, sessions
from fortis.store.check import read_all
from fortis.store.database import open_database, writing
from fortis.store.imports import Plan, examine, stage
from fortis.store.lifts import library
from fortis.store.log import logged
from fortis.store.records import bests
from fortis.store.staging import Staged
from fortis.store.tables import ImportRow, SessionRow

NOW = datetime(2026, 11, 25, tzinfo=UTC)
LOG = (
    "date,exercise,weight,reps,rir,bodyweight\n"
    "2026-03-02,Squat,100,5,2,80\n2026-03-02,Squat,100,5,1,80\n2026-03-02,Sled,50,20,,80\n"
    "2026-03-04,Bench,80,5,2,81\n"
)


@pytest.fixture
def take_in(tmp_path):
    """Reads a text and writes it into a record, as far as that is wanted."""

    def taken(database, text, *, written=True, now=NOW, lifts=()):
        path = tmp_path / "log.csv"
        path.write_text(text, encoding="utf-8", newline="")
        reader = Reader(path, guess(path, layout_of(path), Unit.KG).reading, ZoneInfo("UTC"), NOW)
        staged = Staged(tmp_path / "staged.db")
        with database() as work:
            read = stage(reader, staged, library(work))
            plan = Plan({**read.suggestions, **dict(lifts)})
            examined = examine(work, staged, read, plan)
        import_id = imports.write(database, "log.csv", staged, plan, now) if written else None
        return examined, import_id

    return taken


def seen(database):
    """The sessions that are seen, with how many bouts each has."""
    with database() as work:
        return [(row.title, len(bouts.of(work, row.id))) for row in sessions.finished(work)]


def csv_of(database):
    with database() as work:
        return "".join(write_bouts(logged(work)))


def test_what_is_taken_away_and_brought_to_a_new_record_is_the_same(tmp_path, take_in, demo_at):
    demo_at(tmp_path / "demo.db", NOW)
    away = csv_of(open_database(tmp_path / "demo.db"))
    database = open_database(tmp_path / "new.db")
    with database.begin() as work:
        lifter.lifter_row(work).zone = "Europe/Berlin"
    examined, _ = take_in(database, away)
    assert (examined.sessions, examined.bouts, examined.rows_passed_over) == (36, away.count("\n") - 1, 0)
    with open_database(tmp_path / "new.db")() as work:
        back = list(logged(work))
    with open_database(tmp_path / "demo.db")() as work:
        assert back == list(logged(work))
        assert read_all(work).unreadable == ()
    again, _ = take_in(database, away, written=False)
    assert (again.bouts, again.there_already) == (0, examined.bouts)


def test_it_tells_what_it_comes_to_before_anything_is_written(database, take_in):
    examined, _ = take_in(database, LOG + "yesterday,Squat,100,5,,\n", written=False, lifts={"Sled": ""})
    assert (examined.rows, examined.sessions, examined.bouts) == (5, 2, 3)
    assert (examined.first, examined.last) == (date(2026, 3, 2), date(2026, 3, 4))
    assert [(each.name, each.suggested, each.sure) for each in examined.lifts] == [
        ("Squat", "Back squat", False), ("Bench", "Bench press", False), ("Sled", "", False)
    ]  # fmt: skip
    assert [(over.line, over.column) for over in examined.passed_over] == [(6, "date")]
    assert [each.written for each in examined.previews] == [
        "Bench press: 5 at 80 kg\n", "Back squat: 2 x 5 at 100 kg\n"
    ]  # fmt: skip
    assert seen(database) == []


def test_an_import_is_taken_back_whole_and_brought_back(database, take_in):
    with database.begin() as work:
        lifter.save_body_weight(work, date(2026, 3, 4), Decimal(90))
    _, import_id = take_in(database, LOG)

    def weighed():
        with database() as work:
            return [(f"{each.on:%d}", each.kg) for each in lifter.last_body_weights(work, 9)]

    def best():
        with database() as work:
            return bests(work, ["back-squat"], NOW)

    assert seen(database) == [("Session", 1), ("Session", 3)]
    assert weighed() == [("04", 90), ("02", 80)]
    assert best()
    for _ in range(2):
        with writing(database).begin() as work:
            imports.take_back(work, import_id, NOW)
    assert (seen(database), weighed(), best()) == ([], [("04", 90)], {})
    for _ in range(2):
        with writing(database).begin() as work:
            imports.bring_back(work, import_id)
    assert (seen(database), weighed()) == ([("Session", 1), ("Session", 3)], [("04", 90), ("02", 80)])
    with database() as work:
        assert [(row.sessions, row.bouts) for row in imports.all_imports(work)] == [(2, 4)]
        with pytest.raises(imports.UnknownImportError):
            imports.take_back(work, "nobody", NOW)


def test_a_growing_log_brings_what_is_new(database, take_in):
    take_in(database, LOG)
    examined, _ = take_in(database, LOG + "2026-03-04,Bench,80,4,0,81\n2026-03-06,Squat,105,5,,\n")
    assert (examined.there_already, examined.bouts, examined.sessions) == (4, 2, 2)
    assert sorted(seen(database)) == [("Session", 1), ("Session", 1), ("Session", 1), ("Session", 3)]


def test_a_session_of_more_bouts_than_one_can_have_is_told_and_not_taken(database, take_in):
    text = "date,exercise,weight,reps\n" + "2026-03-02,Squat,100,5\n" * 1_001 + "2026-03-03,Squat,100,5\n"
    examined, _ = take_in(database, text)
    assert (examined.too_long, examined.sessions, examined.bouts) == (1, 1, 1)
    assert seen(database) == [("Session", 1)]


def test_sessions_of_one_name_on_other_days_are_others_and_share_their_slot(database, take_in):
    days = "".join(f"2026-03-0{day} 18:00,Push day,Bench,80,5\n" for day in (2, 5))
    take_in(database, "date,session,exercise,weight,reps\n" + days)
    with database() as work:
        second, first = sessions.finished(work)
        assert (first.title, first.slot, first.started_at.hour) == ("Push day", second.slot, 18)
        assert first.id != second.id


def test_nothing_is_seen_of_one_that_was_killed_and_the_next_clears_it(database, take_in, monkeypatch):
    def killed(*_):
        raise KeyboardInterrupt

    monkeypatch.setattr(imports, "_show", killed)
    with pytest.raises(KeyboardInterrupt):
        take_in(database, LOG)
    monkeypatch.undo()

    def rows():
        with database() as work:
            return [work.scalar(select(func.count()).select_from(table)) for table in (ImportRow, SessionRow)]

    assert (seen(database), rows()) == ([], [1, 2])
    with database() as work:
        assert imports.all_imports(work) == []
    take_in(database, LOG)
    assert (len(seen(database)), rows()) == (2, [2, 4])
    take_in(database, LOG.replace("2026", "2025"), now=NOW + timedelta(days=2))
    assert (len(seen(database)), rows()) == (4, [2, 4])


def test_others_write_while_a_log_is_taken_in(tmp_path, database, take_in, monkeypatch):
    written = []
    record_all = imports.record_all
    path = database.kw["bind"].url.database

    def meanwhile(work, *given):
        record_all(work, *given)
        work.commit()
        with closing(sqlite3.connect(path, timeout=0.1)) as other, other:
            other.execute("insert into body_weight values (?, '80', null)", (f"2020-01-{len(written) + 1:02}",))
        written.append(seen(database))

    monkeypatch.setattr(imports, "record_all", meanwhile)
    monkeypatch.setattr(imports, "AT_ONCE", 1)
    take_in(database, LOG)
    assert written == [[], []]
    assert len(seen(database)) == 2
