"""Logs to bring into a record."""

from datetime import timedelta

from typer.testing import CliRunner

from fortis.cli import app


def tired_log(today, weeks=10):
    """Weeks of the same loads, three days each; two reps are left of them at first, in the last two weeks none."""
    lines = ["date;lift;kg;reps;rir"]
    for week in range(weeks, 0, -1):
        for day in (6, 4, 2):
            on = today - timedelta(days=7 * week - day)
            left = 0 if week <= 2 else 2
            lines += [f"{on};{lift};{kg};5;{left}" for lift, kg in (("Back squat", 100), ("Bench press", 80))] * 3
    return "\n".join(lines) + "\n"


def singles_log(today, weeks=12):
    """Weeks of two days of 4 x 5 at 100 kg, the second of them after a single; after it two more reps are left."""
    lines = ["date;lift;kg;reps;rir"]
    for week in range(weeks, 0, -1):
        monday = today - timedelta(days=today.weekday() + 7 * week)
        lines += [f"{monday};Back squat;100;5;2"] * 4
        second = monday + timedelta(days=3)
        lines += [f"{second};Back squat;115;1;2", *[f"{second};Back squat;100;5;4"] * 4]
    return "\n".join(lines) + "\n"


def bring(log, folder, record):
    """Bring a log into a record."""
    file = folder / "log.csv"
    file.write_text(log, encoding="utf-8")
    brought = CliRunner().invoke(app, ["import", str(file), "--db", str(record)])
    assert brought.exit_code == 0, brought.output
