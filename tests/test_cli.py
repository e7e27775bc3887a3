import json
import re
import shutil
import socket
import sqlite3
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from typer.testing import CliRunner

from fortis.cli import app
from fortis.core.season.reading import read_season
from fortis.store.database import open_database

OLDEST_RELEASE = Path(__file__).parent / "store" / "releases" / "0.1.sql"
CLUSTER = "# Pull\nDeadlift: 3 sets of (2, 2, 2) at 87% leave 1 within 10s rest 3:00\n"


def run(*arguments, given=None):
    return CliRunner().invoke(app, list(arguments), input=given)


def test_a_timeline_as_json_from_standard_input():
    result = run("timeline", "-", "--json", given=CLUSTER)
    told = json.loads(result.stdout)
    assert (told["title"], told["total_seconds"]) == ("Pull", 474)
    assert sum(step["seconds"] for step in told["steps"]) == 474
    first, rest = told["steps"][:2]
    assert {
        "kind": "work",
        "seconds": 6,
        "exercise": "Deadlift",
        "group": 1,
        "round": 1,
        "set": 1,
        "bout": 1,
    }.items() <= (first.items())
    assert (first["reps"], first["load"]) == (2, {"percent": 87})
    assert (rest["kind"], rest["seconds"]) == ("rest", 10)


def test_a_timeline_in_words_from_a_file(tmp_path):
    file = tmp_path / "pull.txt"
    file.write_text(CLUSTER)
    assert run("timeline", str(file)).stdout.splitlines()[-1] == "  7:54  in all"


@pytest.mark.parametrize(
    ("arguments", "given", "says"),
    [
        (["-"], "Deadlift: 3 x 5 at 60 stone", "line 1, column 23"),
        (["nowhere.txt"], None, "No such file"),
    ],
)
def test_what_cannot_be_read_ends_with_two(arguments, given, says):
    result = run("timeline", *arguments, given=given)
    assert result.exit_code == 2
    assert says in result.stderr
    assert result.stdout == ""


LOG = """performed_at,exercise,load,unit,reps,rir
2026-03-02T18:05:00Z,Back squat,100,kg,5,2
2026-03-09T18:05:00Z,Back squat,100,kg,6,2
"""


def test_a_log_is_replayed_from_standard_input_as_json_and_from_a_file_in_words(tmp_path):
    told = json.loads(run("replay", "-", "--json", given=LOG).stdout)
    assert [each["predicted"] is None for each in told["bouts"]] == [True, False]
    assert set(told["sessions"][1]["formulas"]) >= {"Epley", "Brzycki"}
    (tmp_path / "log.csv").write_text(LOG)
    assert "2 bouts; 1 of them near failure" in run("replay", str(tmp_path / "log.csv")).stdout
    (tmp_path / "log.csv").write_text(LOG.replace(",5,2", ",5,two"))
    refused = run("replay", str(tmp_path / "log.csv"))
    assert (refused.exit_code, "line 2, rir" in refused.stderr) == (2, True)


def plan(tmp_path, written, *more, log=LOG):
    (tmp_path / "log.csv").write_text(log)
    return run("plan", "-", "--log", str(tmp_path / "log.csv"), "--on", "2026-03-16", *more, given=written)


def test_a_session_is_planned_from_a_log_as_json(tmp_path):
    written = "Back squat: 3 x 5 leave 2; 1 set of (3, 4, 5) leave 1 within 15s\nDip: 5 leave 2\n"
    told = json.loads(plan(tmp_path, written, "--bar", "15", "--plates", "2x20 1x10 1x5 1x2.5", "--json").stdout)
    assert [(each["exercise"], each["set"], each["bout"]) for each in told] == [
        *(("Back squat", number, 1) for number in (1, 2, 3)),
        *(("Back squat", 4, number) for number in (1, 2, 3)),
        ("Dip", 1, 1),
    ]
    third, dip = told[2], told[-1]
    assert 90 <= third["load_kg"] <= 102.5
    assert third["load_kg"] in {15 + 2 * side for side in (35, 37.5, 40, 42.5, 45)}
    assert third["low"] < third["expected_reserve"] < third["high"]
    assert third["expected_reserve"] == pytest.approx(2, abs=1.5)
    assert any("allows" in reason["text"] for reason in third["reasons"])
    assert (dip["load_kg"], dip["expected_reserve"]) == (0, None)
    light = told[3]
    assert light["load_kg"] < third["load_kg"]


def test_a_plan_in_words_says_what_will_be_missing_and_what_is_not_known(tmp_path):
    said = plan(tmp_path, "Back squat: 8 at 130 kg\nBench press: 5 leave 2\n").stdout
    assert "Back squat, set 1: 8 at 130 kg, likely 7 short" in said or "likely 8 short" in said
    assert "Nothing in the log says how strong this lifter is in the bench press." in said
    before = "2026-03-20T18:05:00Z,Back squat,200,kg,5,2\n"
    assert plan(tmp_path, "Back squat: 5 leave 2", log=LOG + before).stdout.startswith(
        plan(tmp_path, "Back squat: 5 leave 2").stdout
    )


@pytest.mark.parametrize(
    ("more", "log", "says"),
    [
        ((), LOG.replace(",5,2", ",5,two"), "line 2, rir"),
        (("--plates", "lots"), LOG, "lots"),
        (("--bar", "-3"), LOG, "-3"),
    ],
)
def test_a_plan_says_what_it_cannot_read(tmp_path, more, log, says):
    refused = plan(tmp_path, "Back squat: 5 leave 2", *more, log=log)
    assert (refused.exit_code, says in refused.stderr, refused.stdout) == (2, True, "")


def test_demo_and_backup(tmp_path):
    demo, copy = str(tmp_path / "demo.db"), str(tmp_path / "copy.db")
    assert "148 sessions" in run("demo", "--db", demo).stdout
    assert "kept" in run("demo", "--db", demo).stdout
    assert "Copied" in run("backup", copy, "--db", demo).stdout
    again = run("backup", copy, "--db", demo)
    assert (again.exit_code, "exists already" in again.stderr) == (2, True)
    assert run("backup", copy, "--db", str(tmp_path / "none.db")).exit_code == 2


def test_the_record_is_taken_away_as_csv_and_as_a_calendar(tmp_path, demo_at):
    record, out = str(demo_at(tmp_path / "demo.db")), tmp_path / "bouts.csv"
    assert run("export", "--format", "csv", "--out", str(out), "--db", record).stdout == f"Wrote {out}.\n"
    told = run("replay", str(out), "--json")
    with closing(sqlite3.connect(record)) as database:
        (bouts,) = database.execute(
            'select count(*) from bout where taken_back_at is null and "set" > 0'
        ).fetchone()
    assert len([bout for bout in json.loads(told.stdout)["bouts"] if bout["set"]]) == bouts
    assert run("export", "--format", "csv", "--db", record).stdout.splitlines() == out.read_text().splitlines()
    assert run("export", "--format", "ics", "--db", record).stdout.startswith("BEGIN:VCALENDAR")
    again = run("export", "--format", "csv", "--out", str(out), "--db", record)
    assert (again.exit_code, again.stderr) == (2, f"{out}: that file exists already.\n")
    nowhere = run("export", "--format", "csv", "--db", str(tmp_path / "no.db"))
    assert (nowhere.exit_code, "there is no such database" in nowhere.stderr) == (2, True)


def test_load_prints_what_to_put_on():
    told = run("load", "142.5", "--bar", "20", "--plates", "2x25 1x20 1x10 2x5 1x2.5", "--json")
    answer = json.loads(told.stdout)
    assert (answer["total_kg"], answer["sleeve"], answer["rounding_kg"]) == (140, [25, 25, 10], -2.5)
    assert (answer["below_kg"], answer["above_kg"], answer["would_need_kg"]) == (140, 145, 1.25)


def test_load_prints_the_strip_plan_and_the_ramp():
    told = json.loads(run("load", "--sequence", "160,120,96", "--json").stdout)
    assert [each["total_kg"] for each in told["loads"]] == [160, 120, 95]
    assert told["loads"][1]["change"] == "take the outer 20 off each side"
    ramp = run("load", "140", "--warmup").stdout.splitlines()
    assert ramp[0].split() == ["20", "×", "8"]
    assert "each side" in ramp[-1]


@pytest.mark.parametrize(
    ("args", "said"),
    [(["abc"], "abc"), (["100", "--plates", "3y"], "3y"), (["100", "--bar", "-5"], "-5"), ([], "not a weight")],
)
def test_load_says_what_it_cannot_read(args, said):
    told = run("load", *args)
    assert told.exit_code == 2
    assert said in told.stderr


def test_a_single_load_may_have_a_decimal_comma():
    told = json.loads(run("load", "102,5", "--json").stdout)
    assert told["total_kg"] == 102.5
    assert len(json.loads(run("load", "--sequence", "160,120,96", "--json").stdout)["loads"]) == 3


def unreadable(tmp_path, kind):
    path = tmp_path / f"{kind}.db"
    match kind:
        case "folder":
            path.mkdir()
        case "text":
            path.write_text("no database at all, but long enough to look like one " * 40)
        case "foreign":
            with sqlite3.connect(path) as database:
                database.execute("create table recipe (name)")
        case "newer":
            open_database(path)
            with sqlite3.connect(path) as database:
                database.execute("update alembic_version set version_num = '9999'")
        case "under a file":
            path.write_text("")
            path = path / "fortis.db"
        case "locked":
            open_database(path)
    return path


@pytest.mark.parametrize(
    ("kind", "says"),
    [
        ("folder", "is a folder: name a file in it"),
        ("text", "is no database"),
        ("foreign", "is the database of another program"),
        ("newer", "was written by a newer Fortis"),
        ("under a file", "cannot be made"),
    ],
)
def test_a_record_that_cannot_be_opened_is_told_in_a_line(tmp_path, kind, says):
    path = unreadable(tmp_path, kind)
    for command in (["serve"], ["check"]):
        told = run(*command, "--db", str(path))
        assert told.exit_code == 2
        if kind == "under a file" and command == ["check"]:
            continue
        assert "Traceback" not in told.output
        if command == ["serve"]:
            assert says in told.stderr
            assert len(told.stderr.strip().splitlines()) == 1
            assert "Fortis is at" not in told.output


def test_a_record_that_another_program_holds_is_told(tmp_path):
    path = unreadable(tmp_path, "locked")
    holder = sqlite3.connect(path, isolation_level=None)
    holder.execute("begin exclusive")
    told = run("serve", "--db", str(path))
    holder.close()
    assert (told.exit_code, "is in use by another program" in told.stderr) == (2, True)


@pytest.mark.parametrize("port", ["0", "65536", "http"])
def test_an_impossible_port_is_told(port):
    assert run("serve", "--port", port).exit_code == 2


def test_a_busy_port_is_told(tmp_path):
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = str(taken.getsockname()[1])
        told = run("serve", "--db", str(tmp_path / "fortis.db"), "--port", port)
    assert told.exit_code == 2
    assert f"cannot listen at 127.0.0.1, port {port}" in told.stderr
    assert "Fortis is at" not in told.output


def test_check_tells_how_the_record_is(tmp_path, demo_at):
    demo = demo_at(tmp_path / "demo.db")
    assert re.search(r"is sound: \d\d sessions with", run("check", "--db", str(demo)).stdout)
    other = shutil.copy(demo, tmp_path / "other.db")
    with sqlite3.connect(other) as database:
        database.execute("update session set resolved = '{\"sets\": 3}' where started_at is not null")
    told = run("check", "--db", str(other))
    assert (told.exit_code, "cannot be read" in told.stderr) == (2, True)
    assert run("check", "--db", str(tmp_path / "nothing.db")).exit_code == 2


@pytest.mark.parametrize("kind", ["foreign", "newer"])
def test_check_tells_whose_record_it_is(tmp_path, kind):
    path = unreadable(tmp_path, kind)
    told = run("check", "--db", str(path))
    assert (told.exit_code, told.stderr.startswith(f"{path} was" if kind == "newer" else f"{path} is")) == (2, True)


def test_check_reads_a_record_of_an_earlier_release_and_leaves_it_as_it_is(tmp_path):
    path = tmp_path / "old.db"
    with closing(sqlite3.connect(path)) as database:
        database.executescript(OLDEST_RELEASE.read_text(encoding="utf-8"))
    before = path.read_bytes()
    told = run("check", "--db", str(path))
    assert (told.exit_code, "is sound" in told.stdout) == (0, True)
    assert path.read_bytes() == before
    assert [file.name for file in tmp_path.iterdir()] == ["old.db"]


def test_a_copy_is_brought_back_unless_fortis_is_running(tmp_path, demo_at):
    demo, copy = demo_at(tmp_path / "demo.db"), tmp_path / "copy.db"
    run("backup", str(copy), "--db", str(demo))
    with closing(sqlite3.connect(demo)) as database:
        database.executescript("delete from bout_version; delete from bout")
    told = run("restore", str(copy), "--db", str(demo))
    assert (told.exit_code, " sessions with" in told.stdout, "set-aside" in told.stdout) == (0, True, True)
    assert re.search(r"is sound: \d\d sessions with", run("check", "--db", str(demo)).stdout)
    running = open_database(demo)
    with running() as work:
        work.connection()
        told = run("restore", str(copy), "--db", str(demo))
    assert (told.exit_code, "stop Fortis" in told.stderr) == (2, True)
    assert run("restore", str(tmp_path / "nothing.db"), "--db", str(demo)).exit_code == 2


def test_a_backup_of_a_damaged_record_or_to_a_bad_place_is_told(tmp_path):
    record = tmp_path / "fortis.db"
    open_database(record)
    told = run("backup", "/proc/nowhere/copy.db", "--db", str(record))
    assert (told.exit_code, "could not be copied" in told.stderr) == (2, True)


STRANGE = "Tag;Was;Last;Wdh\n3.3.2026;Kniebeuge;102,5;5\n3.3.2026;Kniebeuge;110;x\n4.3.2026;Rad;0;30\n"


@pytest.fixture
def strange(tmp_path):
    (tmp_path / "log.csv").write_text(STRANGE, encoding="windows-1252")
    given = ["--map", "Tag=date", "--map", "Was=lift", "--map", "Last=load"]
    lifts = ["--lift", "Kniebeuge=Back squat", "--lift", "Rad="]
    return ["import", str(tmp_path / "log.csv"), *given, *lifts, "--db", str(tmp_path / "new.db")]


def test_a_log_of_other_making_is_imported_as_it_is_told(strange, tmp_path):
    dry = run(*strange, "--dry-run")
    assert dry.exit_code == 0, dry.stderr
    for said in (
        "cells parted by a semicolon, loads in kg", "  Last: load", "Kniebeuge → Back squat", "Rad → left out",
        "3 rows came to 1 session with 1 bout", "Passed over line 3, Wdh: “x” is no number.",
        "Nothing was written.",
    ):  # fmt: skip
        assert said in dry.stdout
    assert "Wrote 1 session with 1 bout;" in run(*strange).stdout
    written = run("export", "--format", "csv", "--db", str(tmp_path / "new.db")).stdout
    assert "Back squat,,1,1,1,both,102.5,kg" in written
    again = run(*strange)
    assert (again.exit_code, again.stderr) == (2, "There is nothing to write.\n")
    assert "Passed over what the record has already: 1 bout." in again.stdout


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--map", "Gewicht=load"], "the file has no column Gewicht; it has Tag, Was, Last, Wdh"),
        (["--map", "Wdh=mood"], "a column holds no mood; it can hold date, time"),
        (["--map", "Wdh"], "“Wdh” is missing its ="),
        (["--map", "Wdh="], "No column is said to hold the reps"),
        (["--lift", "Bench=Bench press"], "the file has no Bench"),
        (["--decimal", ":"], "“:” stands before no decimals"),
        (["--encoding", "latin"], "Invalid value for '--encoding'"),
    ],
)
def test_what_is_told_wrongly_of_a_log_is_refused(strange, tmp_path, more, says):
    refused = run(*strange, *more)
    assert refused.exit_code == 2
    assert says in refused.stderr
    assert run("export", "--format", "csv", "--db", str(tmp_path / "new.db")).stdout.count("\n") <= 1


def test_a_file_that_cannot_be_imported_is_told(tmp_path):
    (tmp_path / "sheet.csv").write_bytes(b"PK\x03\x04")
    for name, says in (("sheet.csv", "a spreadsheet or archive"), ("nowhere.csv", "No such file")):
        refused = run("import", str(tmp_path / name), "--db", str(tmp_path / "new.db"))
        assert (refused.exit_code, says in refused.stderr) == (2, True)


def test_a_whole_record_goes_away_and_comes_into_a_new_one_only(tmp_path, demo_at):
    old, new, away = (str(tmp_path / name) for name in ("old.db", "new.db", "away.json"))
    demo_at(old)
    assert run("export", "--format", "json", "--out", away, "--db", old).exit_code == 0
    assert "Nothing was written." in run("import", away, "--dry-run", "--db", new).stdout
    assert re.search(r"\d\d sessions", run("import", away, "--db", new).stdout)
    assert run("export", "--format", "json", "--db", new).stdout == Path(away).read_text(encoding="utf-8")
    refused = run("import", away, "--db", old)
    assert (refused.exit_code, "only into one without sessions" in refused.stderr) == (2, True)
    Path(away).write_text(Path(away).read_text(encoding="utf-8").replace('"place_id":1', '"place_id":7', 1))
    torn = run("import", away, "--db", str(tmp_path / "third.db"))
    assert (torn.exit_code, "contradict each other" in torn.stderr) == (2, True)
    text = run("export", "--format", "txt", "--db", old).stdout
    assert text.startswith("# Press and row, 20")
    assert text.count("# Legs") > 12


SEASON = "# Winter\nfrom {monday}\nbuilding, 2 weeks:\n  Tuesday, Legs:\n    Back squat: 3|4 x 5 at 100 kg\n"


def test_a_season_comes_from_a_file_and_goes_to_one(tmp_path):
    text = SEASON.format(monday=datetime.now(UTC).date() + timedelta(days=14))
    file, record, out = tmp_path / "winter.txt", tmp_path / "record.db", tmp_path / "out.txt"
    file.write_text(text, encoding="utf-8")
    shown = run("season", str(file), "--db", str(record), "--dry-run")
    assert "Week 2, from" in shown.output
    assert "Back squat: 4 x 5 at 100 kg" in shown.output
    missing = run("season", "--db", str(record))
    assert (missing.exit_code, "There is no season under way" in missing.output) == (2, True)
    for words in ("2 sessions planned, 0 changed, 0 taken out", "0 sessions planned, 0 changed, 0 taken out"):
        planned = run("season", str(file), "--db", str(record))
        assert words in planned.output
    assert run("season", "--db", str(record), "--out", str(out)).exit_code == 0
    again = read_season(out.read_text(encoding="utf-8"))
    assert again == read_season(text)
    assert "there already" in run("season", "--db", str(record), "--out", str(out)).output
    file.write_text(text.replace("100 kg", "100 kilo"), encoding="utf-8")
    wrong = run("season", str(file), "--db", str(record))
    assert wrong.exit_code == 2
    assert "winter.txt, line 5, column " in wrong.output
    for lost in (tmp_path / "none.txt", tmp_path):
        assert run("season", str(lost), "--db", str(record)).exit_code == 2
