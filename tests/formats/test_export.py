"""The record as open formats: what is written is read back the same, by Fortis and by others."""

import csv
from datetime import UTC, date, datetime, timedelta, timezone
from decimal import Decimal

import vobject
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.logged import LoggedBout
from fortis.core.performance import Ended
from fortis.core.structure.model import SetUp, Side
from fortis.formats.calendar import Appointment, write_calendar
from fortis.formats.csv import read_bouts, write_bouts

TEXT = st.text(st.characters(codec="utf-8", exclude_categories=["Cc", "Cs", "Zl", "Zp"]), min_size=1, max_size=20)
ONE_LINE = TEXT.map(lambda text: " ".join(text.split())).filter(bool)
ITEMS = st.lists(st.sampled_from(["belt", "deficit 5 cm", "-2 pins", "=high handles"]), max_size=3, unique=True)
KG = st.decimals(0, 400, places=4)
BOUTS = st.builds(
    LoggedBout,
    performed_at=st.integers(0, 4 * 10**9).map(lambda at: datetime.fromtimestamp(at, timezone(timedelta(hours=2)))),
    session=ONE_LINE,
    exercise=st.sampled_from(["Back squat", "=Row", "'=Row", "-Pull", "+Push", "@home", "It's a lift", "Drücken"]),
    setup=ITEMS.map(lambda items: SetUp(items=tuple(items))),
    group=st.integers(1, 9),
    set=st.integers(0, 9),
    bout=st.integers(1, 9),
    side=st.sampled_from(Side),
    load_kg=st.decimals(-100, 400, places=4),
    bottom_kg=st.none() | KG,
    top_kg=st.none() | KG,
    body_kg=st.none() | KG,
    reps=st.integers(0, 100),
    partial_reps=st.integers(0, 20),
    seconds=st.integers(0, 300),
    reserve=st.none() | st.integers(0, 10).map(lambda halves: Decimal(halves) / 2),
    ended=st.none() | st.sampled_from(Ended),
    rest_seconds=st.none() | st.integers(1, 3_600),
    tempo=st.sampled_from(["", "3-1-1-0", "2-0-x-0"]),
    note=st.just("") | ONE_LINE,
).map(lambda bout: bout.model_copy(update={"is_warm_up": bout.set == 0}))


@given(st.lists(BOUTS, max_size=4))
def test_bouts_written_are_read_back_the_same(bouts):
    assert list(read_bouts(write_bouts(bouts))) == bouts


@given(st.lists(BOUTS, max_size=3))
def test_no_cell_is_one_that_a_spreadsheet_would_run(bouts):
    """Common practice: a text that begins with =, +, -, @ may be run; numbers that do are numbers."""
    columns, *rows = csv.reader(write_bouts(bouts))
    for row in rows:
        for name in ("session", "exercise", "setup", "note"):
            assert not row[columns.index(name)].startswith(("=", "+", "-", "@", "\t", "\r"))


def test_a_lower_bound_stays_one_and_an_empty_log_has_its_columns():
    (written,) = list(write_bouts([]))
    assert written.startswith("performed_at,session,exercise,")
    bout = LoggedBout(
        performed_at=datetime(2026, 3, 2, tzinfo=UTC), session="Legs", exercise="Back squat", load_kg=Decimal(100),
        reps=5, reserve=Decimal(5), or_more=True,
    )  # fmt: skip
    assert ",5+," in list(write_bouts([bout]))[1]
    assert list(read_bouts(write_bouts([bout]))) == [bout]


def test_the_calendar_is_read_by_another_library():
    """vobject."""
    written = "# Legs, heavy; März\nBack squat: 5 x 5 at 100 kg leave 2 rest 3:00\n" * 3
    sessions = [
        Appointment("1", date(2026, 3, 2), "Legs, heavy; März", written, 65),
        Appointment("2", date(2026, 12, 31), "Pull", "Ring row: 3 x 8", 20),
    ]
    read = vobject.readOne(write_calendar(sessions, datetime(2026, 3, 1, tzinfo=UTC)).decode())
    first, second = read.vevent_list
    assert first.summary.value == "Legs, heavy; März, about 65 min"
    assert first.description.value == written
    assert (first.dtstart.value, first.dtend.value) == (date(2026, 3, 2), date(2026, 3, 3))
    assert second.dtend.value == date(2027, 1, 1)
    assert {each.uid.value for each in read.vevent_list} == {"1@fortis", "2@fortis"}
