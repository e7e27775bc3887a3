"""Logs of other making: what their columns hold is guessed, and their bouts are read or told why not."""

import csv
from datetime import UTC, datetime
from decimal import Decimal
from io import StringIO
from itertools import product
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.structure.model import SetUp
from fortis.core.units import Unit, to_kg
from fortis.formats.bout_row import CsvError
from fortis.formats.csv import write_bouts
from fortis.formats.foreign import Holds, Reader, UnreadableError, guess
from fortis.formats.moment import DateOrder, NoMomentError, moment
from fortis.formats.table import Delimiter, Encoding, TableError, layout_of, names_of
from tests.formats.test_export import BOUTS

BERLIN = ZoneInfo("Europe/Berlin")
NOW = datetime(2026, 11, 1, tzinfo=UTC)


@pytest.fixture
def log(tmp_path):
    """Writes a log to a file, and reads it as it is guessed, or as it is told."""

    def written(text, encoding="utf-8", **told):
        path = tmp_path / "log.csv"
        path.write_bytes(text if isinstance(text, bytes) else text.encode(encoding))
        return reader_of(path, **told)

    return written


def reader_of(path, unit=Unit.KG, **told):
    found = guess(path, layout_of(path), unit)
    reading = found.reading.model_copy(update=told)
    reader = Reader(path, reading, BERLIN, NOW)
    reader.doubts = found.doubts
    return reader


def bouts_of(reader):
    return [bout for row in reader.rows() for bout in reader.bouts(row)]


def refusals(reader):
    """What is wrong with each row, in order; None where it is taken."""
    found = []
    for row in reader.rows():
        try:
            reader.bouts(row)
            found.append(None)
        except CsvError as error:
            found.append((error.line, error.column, error.message))
    return found


DAYS = [datetime(2026, 3, day, 18, 30, tzinfo=BERLIN) for day in (2, 4, 16, 28)]
DATES = {DateOrder.DAY_FIRST: "%d/%m/%Y", DateOrder.MONTH_FIRST: "%m/%d/%Y", DateOrder.YEAR_FIRST: "%Y-%m-%d"}
ENCODINGS = ["utf-8", "utf-8-sig", "utf-16", "utf-16-le", "windows-1252"]


@pytest.mark.parametrize(
    ("encoding", "delimiter", "mark", "order"), list(product(ENCODINGS, [",", ";", "\t", "|"], ".,", DATES))
)
def test_however_it_is_written_the_same_bouts_are_read(tmp_path, encoding, delimiter, mark, order):
    told = StringIO()
    writer = csv.writer(told, delimiter=delimiter)
    writer.writerow(["Date", "Time", "Exercise", "Weight (lb)", "Reps", "RPE", "Comment"])
    for day in DAYS:
        for load, reps, rpe in (("102.5", 5, "8"), ("1105", 3, "9.5")):
            numbers = (load.replace(".", mark), reps, rpe.replace(".", mark))
            writer.writerow([day.strftime(DATES[order]), "6:30 pm", "Drücken", *numbers, 'said "go"\nand went'])
    path = tmp_path / "log.csv"
    path.write_bytes(told.getvalue().encode(encoding))
    reader = reader_of(path)
    assert (reader.reading.decimal, reader.reading.dates, reader.reading.unit) == (mark, order, Unit.LB)
    assert not reader.doubts
    first, second, *_ = bouts = bouts_of(reader)
    assert [bout.performed_at for bout in bouts] == [day for day in DAYS for _ in range(2)]
    assert (first.exercise, first.load_kg, first.reps, first.reserve) == (
        "Drücken", to_kg(Decimal("102.5"), Unit.LB), 5, 2
    )  # fmt: skip
    assert (second.set, second.reserve, second.note) == (2, Decimal("0.5"), 'said "go"\nand went')


@given(st.lists(BOUTS, max_size=5))
def test_what_fortis_writes_is_read_back_the_same(tmp_path_factory, bouts):
    path = tmp_path_factory.mktemp("own") / "own.csv"
    path.write_text("".join(write_bouts(bouts)), encoding="utf-8", newline="")
    reader = reader_of(path)
    reader.now = datetime(2200, 1, 1, tzinfo=UTC)
    assert bouts_of(reader) == bouts


def test_a_row_can_tell_of_several_sets(log):
    reader = log(
        "date,lift,sets,reps,weight\n2026-03-02,Squat,3,5,100\n2026-03-02,Bench,,5/5/4,80\n2026-03-02,Row,,2x8,60"
    )
    assert [(bout.exercise, bout.set, bout.reps, bout.load_kg) for bout in bouts_of(reader)] == [
        *(("Squat", number, 5, 100) for number in (1, 2, 3)),
        ("Bench", 1, 5, 80), ("Bench", 2, 5, 80), ("Bench", 3, 4, 80),
        ("Row", 1, 8, 60), ("Row", 2, 8, 60),
    ]  # fmt: skip


def test_the_load_of_a_cell_has_its_unit_and_may_be_on_the_body(log):
    text = "day,exercise,weight,reps,set,set-up,rir\n" + "\n".join(
        f"2 March 2026,Dip,{load},5,{number},belt; straps,{rir}"
        for load, number, rir in (("bw+20", "W", ""), ("-15", "1", "2+"), ("45 lbs", "2", "1"), ("BW", "3", "-"))
    )
    warm, helped, pounds, bare = bouts_of(log(text))
    assert (warm.load_kg, warm.is_warm_up, warm.setup) == (20, True, SetUp(items=("belt", "straps")))
    assert (helped.load_kg, helped.reserve, helped.or_more) == (-15, 2, True)
    assert (pounds.load_kg, bare.load_kg, bare.reserve) == (to_kg(Decimal(45), Unit.LB), 0, None)


def test_holds_and_rests_are_told_in_many_ways(log):
    text = "date,exercise,reps,duration,rest\n" + "\n".join(
        f"2026-03-02,Plank,,{held},{rest}" for held, rest in (("45", "1:30"), ("0:50", "2 min"), ("30s", "90 secs"))
    )
    assert [(bout.seconds, bout.rest_seconds) for bout in bouts_of(log(text))] == [(45, 90), (50, 120), (30, 90)]


def test_columns_without_names_are_known_by_what_they_hold(log):
    reader = log("2026-03-02;Back squat;100;5\n2026-03-02;Back squat;102.5;5\n2026-03-02;Back squat;97.5;12")
    assert reader.reading.columns == {Holds.DATE: 0, Holds.LIFT: 1, Holds.LOAD: 2, Holds.REPS: 3}
    assert reader.names[2] == "Column 3"
    assert len(bouts_of(reader)) == 3


def test_what_is_in_doubt_is_said(log):
    reader = log("date,exercise,weight,reps\n03/04/2026,Squat,100,5\n05/06/2026,Squat,100,5")
    assert [doubt.split(";")[0] for doubt in reader.doubts] == [
        "Nothing says what the loads are in",
        "The dates can be read in two ways",
        "There are no times of day: the sets of a day are put three minutes apart, from noon on.",
    ]
    assert bouts_of(reader)[0].performed_at == datetime(2026, 4, 3, 12, tzinfo=BERLIN)


def test_a_row_that_cannot_be_read_says_where_and_why(log):
    reader = log(
        "date,exercise,weight,reps,unit,rpe,sets\n"
        "2026-03-02,Squat,100,5,kg,8,\n"
        ",Squat,100,5,kg,,\n"
        "31/31/2026,Squat,100,5,kg,,\n"
        "2026-03-02,,100,5,kg,,\n"
        "2026-03-02,Squat,heavy,5,kg,,\n"
        '2026-03-02,Squat,"100,5",5,kg,,\n'
        "2026-03-02,Squat,100,,kg,,\n"
        "2026-03-02,Squat,100,5.5,kg,,\n"
        "2026-03-02,Squat,100,5,stone,,\n"
        "2026-03-02,Squat,100,5,kg,11,\n"
        "2026-03-02,Squat,100,5,kg,,60\n"
        "2027-03-02,Squat,100,5,kg,,\n"
        "0026-03-02,Squat,100,5,kg,,\n"
        "2026-03-02,Squat,9000,5,kg,,\n",
        dates=DateOrder.YEAR_FIRST,
        decimal=".",
    )
    assert [found and (found[1], found[2].replace("“", "").replace("”", "")) for found in refusals(reader)] == [
        None,
        ("date", "is empty"),
        ("date", "31/31/2026: the year does not come first"),
        ("exercise", "is empty"),
        ("weight", "heavy is no load"),
        ("weight", "100,5: decimals are said to follow a point"),
        ("reps", "is empty, so there is no set to take"),
        ("reps", "5.5 is no whole number"),
        ("unit", "stone is no unit; kg and lb are"),
        ("rpe", "11 is not between 0 and 10"),
        ("sets", "over 50 sets in a row"),
        ("date", "2027-03-02 is still to come; look at the order of the date"),
        ("date", "0026-03-02 lies too far back; look at the order of the date"),
        ("load", "9000: Input should be less than or equal to 5000"),
    ]
    assert [found[0] for found in refusals(reader) if found] == list(range(3, 16))


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "The file is empty."),
        (b"\n\n \n", "The file is empty."),
        (b"PK\x03\x04rest", "a spreadsheet or archive, not a table in text"),
        (b"%PDF-1.7", "a PDF"),
        (bytes(range(256)) * 8, "no text"),
        (b'date,exercise,reps\n2026-03-02,"Squat,5\n' + b"x" * 200_000, "From line 2 on"),
        (b",".join([b"x"] * 300), "300 columns"),
    ],
)
def test_a_file_that_is_no_table_is_told_so(log, content, says):
    with pytest.raises(TableError, match=says):
        bouts_of(log(content))


@pytest.mark.parametrize("content", [b"mood,weather\ngood,rain\n", b"date,exercise,weight\n2026-03-02,Squat,100\n"])
def test_a_table_without_bouts_is_told_so(log, content):
    with pytest.raises(UnreadableError, match="No column is said to hold the"):
        log(content)


def test_names_alone_are_no_bouts_and_a_torn_file_loses_its_last_row_only(log):
    whole = "date,exercise,weight,reps,note\n2026-03-02,Squat,100,5,\n2026-03-02,Übung,100,5,süß\n".encode()
    assert bouts_of(log(whole[:31])) == []
    assert len(bouts_of(log(whole[:-2]))) == 2
    assert [found and found[2] for found in refusals(log(whole[: whole.index(b"00,5,s")]))] == [
        None, "is empty, so there is no set to take"
    ]  # fmt: skip


def test_what_the_lifter_says_of_a_file_holds(tmp_path):
    path = tmp_path / "log.csv"
    path.write_text("note\tx,date,exercise,reps,weight\n,2026-03-02,Squat,5,100\n")
    assert layout_of(path).delimiter is Delimiter.COMMA
    by_tab = layout_of(path, delimiter=Delimiter.TAB)
    assert names_of(path, by_tab) == ["note", "x,date,exercise,reps,weight"]
    assert layout_of(path, encoding=Encoding.MAC_ROMAN).encoding is Encoding.MAC_ROMAN


@given(
    st.integers(-(10**8), 2 * 10**9).map(lambda at: datetime.fromtimestamp(at, BERLIN)), st.sampled_from(DateOrder)
)
def test_a_moment_is_read_however_it_is_written(at, order):
    parts = {"day": f"{at.day}", "month": f"{at.month:02}", "year": f"{at.year}"}
    numbers = ".".join(parts[part] for part in order.value.split(", "))
    assert moment(numbers, f"{at:%H:%M:%S}", order, BERLIN) == at
    assert moment(f"{numbers} {at:%I:%M:%S %p}", "", order, BERLIN) == at
    assert moment(f"{at:%d %B %Y, %H:%M:%S}", "", order, BERLIN) == at
    assert moment(at.isoformat(), "", order, UTC) == at


@pytest.mark.parametrize(
    "written", ["", "today", "5", "March", "2 March", "March 2026", "32.1.2026", "1.2", "12:30"]
)
def test_what_is_no_date_is_none(written):
    with pytest.raises(NoMomentError):
        moment(written, "", DateOrder.DAY_FIRST, UTC)
