import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.structure.arranging import doubled, joined, moved, moved_whole, parted, without
from fortis.core.structure.notation import read
from fortis.core.structure.numbers import numbers
from fortis.core.structure.writing import write
from tests.strategies import sessions

DAY = """# Day
# squats first
Back squat: 3 x 5 at 60 kg
Seal row: 3 x 8 at 50 kg  # strict
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8
  Ring row: 8-10
"""


def written(session):
    return write(session).splitlines()[1:]


def test_a_lift_moves_with_its_remarks():
    session = read(DAY)
    assert written(moved(session, (0, 0), 2))[:3] == [
        "Seal row: 3 x 8 at 50 kg  # strict",
        "# squats first",
        "Back squat: 3 x 5 at 60 kg",
    ]
    assert written(moved(session, (2, 0), 0))[:2] == ["Ring dip: 3 x 6-8 rest 1:30", "# squats first"]
    assert written(moved(session, (2, 0), 3))[-2:] == [
        "Ring row: 3 x 8-10 rest 1:30",
        "Ring dip: 3 x 6-8 rest 1:30",
    ]
    assert moved_whole(session, 2, 0).groups == (session.groups[2], *session.groups[:2])
    assert moved_whole(session, 0, 3).groups == (*session.groups[1:], session.groups[0])


def test_lifts_are_paired_and_parted():
    session = read(DAY)
    pair = joined(session, (1, 0), 0)
    assert written(pair)[:4] == [
        "pair:",
        "  # squats first",
        "  Back squat: 3 x 5 at 60 kg",
        "  Seal row: 3 x 8 at 50 kg  # strict",
    ]
    assert written(joined(session, (1, 0), 2))[2:] == [
        "circuit, 3 rounds, rest 1:30:",
        "  Ring dip: 6-8",
        "  Ring row: 8-10",
        "  Seal row: 3 x 8 at 50 kg  # strict",
    ]
    assert written(parted(session, 2))[-2:] == ["Ring dip: 3 x 6-8 rest 1:30", "Ring row: 3 x 8-10 rest 1:30"]
    assert parted(pair, 0).groups == session.groups
    assert joined(session, (2, 0), 2) == session


def test_a_lift_is_doubled_and_taken_out():
    session = read(DAY)
    assert written(doubled(session, (1, 0)))[2:4] == [
        "Seal row: 3 x 8 at 50 kg  # strict",
        "Seal row: 3 x 8 at 50 kg",
    ]
    assert written(without(session, (2, 1)))[-1] == "Ring dip: 3 x 6-8 rest 1:30"
    assert len(without(session, (0, 0)).groups) == 2


@given(sessions, st.data())
def test_whatever_is_arranged_can_be_written_and_keeps_every_lift(session, data):
    group = data.draw(st.integers(0, len(session.groups) - 1))
    place = group, data.draw(st.integers(0, len(session.groups[group].entries) - 1))
    to = data.draw(st.integers(0, len(session.groups)))
    onto = data.draw(st.integers(0, len(session.groups) - 1))
    lifts = names(session)
    for arranged in (
        moved(session, place, to),
        moved_whole(session, group, to),
        joined(session, place, onto),
        parted(session, group),
    ):
        assert names(arranged) == lifts
        titled = arranged.model_copy(update={"title": "Day"})
        assert names(read(write(titled))) == lifts


def names(session):
    return sorted(entry.exercise for group in session.groups for entry in group.entries)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("Back squat: 3 x 5 at 82,5 kg leave 2 rest 3:00", ["3", "5", "82,5", "2", "3:00"]),
        ("  A: 2 sets of (3, 4, 5) at 12RM within 15s # 9", ["2", "3", "4", "5", "12RM", "15s"]),
        ("pair, 3 rounds, between 10s, rest 1:30:", ["3", "10s", "1:30"]),
        ("A: 1 at 92% up 2%, then", []),
        (
            "A: 8 each side 30s apart; drop 20%; 5 at bw-10 lb; 3 at top -5 kg",
            ["8", "30s", "20", "5", "10", "3", "5"],
        ),
    ],
)
def test_the_numbers_of_a_line_are_where_they_say(line, expected):
    found = numbers(line)
    assert [line[number.column - 1 : number.column - 1 + number.length] for number in found] == expected
    assert len({number.label for number in found}) == len(found)


@settings(max_examples=30)
@given(sessions)
def test_a_number_turned_is_read_again(session):
    for line in write(session).splitlines():
        for number in numbers(line):
            at = number.column - 1
            turned = f"{line[:at]}{number.value:f}{number.suffix}{line[at + number.length :]}"
            assert [each.value for each in numbers(turned)] == [each.value for each in numbers(line)]
