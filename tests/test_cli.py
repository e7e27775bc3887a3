import json

import pytest
from typer.testing import CliRunner

from fortis.cli import app

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


def test_demo_and_backup(tmp_path):
    demo, copy = str(tmp_path / "demo.db"), str(tmp_path / "copy.db")
    assert "39 sessions" in run("demo", "--db", demo).stdout
    assert "kept" in run("demo", "--db", demo).stdout
    assert "Copied" in run("backup", copy, "--db", demo).stdout
    again = run("backup", copy, "--db", demo)
    assert (again.exit_code, "exists already" in again.stderr) == (2, True)
    assert run("backup", copy, "--db", str(tmp_path / "none.db")).exit_code == 2
