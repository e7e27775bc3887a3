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


def bring(log, folder, record):
    """Bring a log into a record."""
    file = folder / "log.csv"
    file.write_text(log, encoding="utf-8")
    brought = CliRunner().invoke(app, ["import", str(file), "--db", str(record)])
    assert brought.exit_code == 0, brought.output
