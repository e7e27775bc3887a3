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
