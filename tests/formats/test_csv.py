import csv
import io
from datetime import UTC, datetime
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.performance import Ended
from fortis.core.structure.model import Side
from fortis.formats.bout_row import COLUMNS, CsvError
from fortis.formats.csv import read_bouts

HEAD = "performed_at,exercise,load,unit,reps"
ROW = "2026-03-02T18:05:00+01:00,Back squat,100,kg,5"


def read(*lines):
    return list(read_bouts("\n".join(lines).splitlines(keepends=True)))


def test_five_columns_are_enough():
    (bout,) = read(HEAD, ROW)
    assert (bout.exercise, bout.load_kg, bout.reps, bout.session) == ("Back squat", 100, 5, "2026-03-02")
    assert bout.performed_at == datetime(2026, 3, 2, 17, 5, tzinfo=UTC)
    assert (bout.set, bout.bout, bout.reserve, bout.rest_seconds) == (1, 1, None, None)


def test_every_column_in_any_order_with_a_mark_at_the_start():
    told = {
        "performed_at": "2026-03-02T18:05:00Z", "session": "Legs, heavy", "exercise": "Deadlift",
        "setup": "belt; deficit 5 cm", "group": "2", "set": "3", "bout": "2", "side": "left",
        "load": "225,5", "unit": "lb", "bottom_load": "225", "top_load": "275", "bodyweight": "180",
        "reps": "4", "partial_reps": "1", "seconds": "30", "rir": "5+", "ended": "muscle", "rest_before_s": "20",
        "tempo": "3-1-1-0",
        "warmup": "false", "note": "bar path, “long”",
    }  # fmt: skip
    assert set(told) == set(COLUMNS)
    text = io.StringIO()
    writer = csv.DictWriter(text, sorted(told, reverse=True))
    writer.writeheader()
    writer.writerow(told)
    (bout,) = read(*("\ufeff" + text.getvalue()).splitlines())
    assert bout.load_kg == Decimal("225.5") * Decimal("0.45359237")
    assert (bout.setup.items, bout.side, bout.ended) == (("belt", "deficit 5 cm"), Side.LEFT, Ended.STUCK)
    assert (bout.reserve, bout.or_more, bout.note, bout.rest_seconds) == (5, True, "bar path, “long”", 20)
    assert bout.body_kg == 180 * Decimal("0.45359237")


def test_sets_and_bouts_without_numbers_are_counted_as_they_come():
    plain = read(HEAD, ROW, ROW, ROW.replace("Back squat", "Deadlift"), ROW)
    assert [(bout.exercise, bout.set, bout.bout) for bout in plain] == [
        ("Back squat", 1, 1), ("Back squat", 2, 1), ("Deadlift", 1, 1), ("Back squat", 3, 1),
    ]  # fmt: skip
    clusters = read(f"{HEAD},set", f"{ROW},1", f"{ROW},1", f"{ROW},2", f"{ROW},0")
    assert [(bout.set, bout.bout) for bout in clusters] == [(1, 1), (1, 2), (2, 1), (0, 1)]
    assert [bout.is_warm_up for bout in clusters] == [False, False, False, True]


@pytest.mark.parametrize(
    ("lines", "says"),
    [
        ([], "line 1: there is no column performed_at"),
        (["performed_at,exercise,load,unit"], "there is no column reps"),
        ([f"{HEAD},reserve"], "line 1, reserve: not known; there are performed_at"),
        ([f"{HEAD},reps"], "line 1, reps: stands twice"),
        ([HEAD, ROW, ROW.replace("100", "heavy")], "line 3, load: “heavy”"),
        ([HEAD, ROW.replace(",100,", ",,")], "line 2, load: is missing"),
        ([HEAD, ROW.replace("+01:00", "")], "line 2, performed_at: “2026-03-02T18:05:00”"),
        ([HEAD, ROW.replace("kg", "stone")], "line 2, unit: “stone”"),
        ([HEAD, ROW.replace(",5", ",-1")], "line 2, reps: “-1”"),
        ([HEAD, ROW.replace("100", "2001")], "is more than anyone lifts"),
        ([f"{HEAD},rir", f"{ROW},about two"], "line 2, rir: “about two”: reps in steps of a half"),
        ([f"{HEAD},ended", f"{ROW},tired"], "line 2, ended: “tired”: one of target, form, muscle"),
        ([f"{HEAD},warmup", f"{ROW},maybe"], "line 2, warmup: “maybe”: true or false"),
        ([HEAD, f"{ROW},and more"], "line 2: 6 cells under 5 columns"),
    ],
)
def test_what_cannot_be_read_is_told_with_its_place(lines, says):
    with pytest.raises(CsvError) as raised:
        read(*lines)
    assert says in str(raised.value)


@given(
    st.text(max_size=200)
    | st.lists(st.sampled_from([HEAD, ROW, f"{ROW},x", "", ",,,,"]), max_size=5).map("\n".join)
)
def test_any_text_is_read_or_refused(text):
    try:
        found = list(read_bouts(text.splitlines(keepends=True)))
    except CsvError:
        return
    assert all(bout.load_kg <= 2000 for bout in found)


@given(st.decimals(Decimal("0.25"), Decimal(500), places=2), st.sampled_from(["kg", "lb"]), st.integers(0, 30))
def test_units_are_exact(load, unit, reps):
    (bout,) = read(HEAD, f"2026-03-02T18:05:00Z,Back squat,{load},{unit},{reps}")
    assert bout.load_kg == (load if unit == "kg" else load * Decimal("0.45359237"))
    assert bout.reps == reps
