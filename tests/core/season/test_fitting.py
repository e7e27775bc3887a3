"""A week made to fit: fewer sessions, only the main lifts, another place."""

from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY, one_form
from fortis.core.loading.kit import Kit
from fortis.core.season.fitting import Wanted, fitted
from fortis.core.season.splits import can_be_done
from fortis.core.structure.notation import read
from fortis.core.structure.writing import write
from tests.core.kits import FULL
from tests.strategies import sessions as any_session

PRESS = """# Press
Bench press: 4 x 5 at 75 kg leave 2 rest 3:00
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 at bw+5 kg leave 2
  Barbell curl: 8-10 leave 1
Overhead press: 3 x 6-8 at 40 kg leave 2 rest 2:00
"""
PULL = """# Pull
prep: hips 5:00
Deadlift [belt]: 3 sets of (2, 2, 2) at 82% leave 1 within 10s rest 4:00
Chin-up: 4 x 3 at bw+20 kg leave 1 rest 3:00
"""
LEGS = """# Legs
Front squat: 4 x 3 at 85% rest 3:00
Leg extension: 2 x 12-15 leave 1
Chin-up: 2 x 5
"""
WEEK = [read(each) for each in (PRESS, PULL, LEGS)]
HOTEL = Kit(place="Hotel", bars=(), plates=(), dumbbells=(5, 10, 15, 20), machines=())


def texts(wanted, week=WEEK):
    fit = fitted(week, wanted, LIBRARY)
    return [each and write(each) for each in fit.sessions], list(fit.lost)


def lifts(text):
    return [entry.exercise for group in read(text).groups for entry in group.entries]


def test_what_fits_stays_as_it_is():
    assert texts(Wanted()) == ([PRESS, PULL, LEGS], [])
    assert texts(Wanted(sessions=9, kit=FULL))[0] == [PRESS, PULL, LEGS]


def test_three_sessions_in_two_keep_what_comes_first_in_each():
    (first, second, third), lost = texts(Wanted(sessions=2))
    assert lifts(first) == ["Bench press", "Front squat", "Ring dip", "Barbell curl"]
    assert (second, third) == (PULL, None)
    assert lost == [
        "Left out: Overhead press (3 sets), Chin-up (2 sets), Leg extension (2 sets). What comes first is kept."
    ]


def test_one_session_has_the_first_lift_of_all():
    (only, *others), lost = texts(Wanted(sessions=1))
    assert lifts(only) == ["Bench press", "Deadlift", "Front squat"]
    assert others == [None, None]
    assert "Ring dip (3 sets), Barbell curl (3 sets)" in lost[0]
    assert "Chin-up (6 sets)" in lost[0]


def test_a_lift_is_not_done_twice_in_a_session():
    (only, _), lost = texts(
        Wanted(sessions=1), [read("# A\nSquat: 3 x 5\nRow: 5"), read("# B\nsquat: 2 x 3\nDip: 5")]
    )
    assert lifts(only) == ["Squat", "Row"]
    assert "squat (2 sets)" in lost[0]


def test_only_the_main_lifts_are_the_first_two_groups():
    (press, pull, legs), lost = texts(Wanted(main=True))
    assert lifts(press) == ["Bench press", "Ring dip", "Barbell curl"]
    assert pull == PULL
    assert lifts(legs) == ["Front squat", "Leg extension"]
    assert lost == ["Left out: Overhead press (3 sets), Chin-up (2 sets). What comes first is kept."]


def test_at_a_place_without_bars_lifts_with_the_same_muscles_stand_in():
    (press, pull, legs), lost = texts(Wanted(kit=HOTEL))
    assert (
        press
        == """# Press
Dumbbell press: 4 x 8-10 leave 2 rest 3:00
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 at bw+5 kg leave 2
  Dumbbell curl: 8-10 leave 2
Seated dumbbell press: 3 x 6-8 leave 2 rest 2:00
"""
    )
    assert pull.startswith("# Pull\nprep: hips 5:00\n")
    assert "Deadlift" not in pull
    assert legs.startswith("# Legs\nGoblet squat: 4 x 8-10 leave 2 rest 3:00\n")
    assert lost[0].startswith("Dumbbell press for bench press, Dumbbell curl for barbell curl, ")
    assert lost[0].endswith(": loads are found as you go, and tell little of what they stand in for.")


def test_where_nothing_stands_in_a_lift_is_left_out_and_its_pair_is_none():
    own = LIBRARY.with_lifts(
        [LIBRARY.find("Wrist curl").model_copy(update={"id": "odd", "name": "Odd", "pattern": "odd"})]
    )
    week = [read("# A\npair, 3 rounds, rest 1:00:\n  Odd: 10\n  Push-up: 8\nDip: 5\n")]
    fit = fitted(week, Wanted(kit=HOTEL), own)
    assert write(fit.sessions[0]) == "# A\nPush-up: 3 x 8 rest 1:00\nDip: 5\n"
    assert fit.lost == ("Hotel has nothing for these, nor for anything like them: Odd.",)
    nothing = fitted([read("# A\nOdd: 10")], Wanted(kit=HOTEL), own)
    assert nothing.sessions == (None,)


@settings(max_examples=30)
@given(
    st.lists(any_session, min_size=1, max_size=4),
    st.none() | st.integers(1, 4),
    st.booleans(),
    st.sampled_from([None, HOTEL, FULL]),
)
def test_whatever_fits_can_be_read_and_done_and_is_no_longer(week, many, main, kit):
    fit = fitted(week, Wanted(many, main, kit), LIBRARY)
    assert len(fit.sessions) == len(week)
    longest = max(len(each.groups) for each in week)
    for session in filter(None, fit.sessions):
        again = read(write(session))
        assert again.groups
        assert len(again.groups) <= max(longest * 4, len(week))  # a pair that loses members may leave several
        for entry in (entry for group in again.groups for entry in group.entries):
            lift = LIBRARY.find(entry.exercise)
            assert kit is None or not lift.known or can_be_done(lift, kit)
    if many:
        assert sum(each is not None for each in fit.sessions) <= many
    planned = {one_form(entry.exercise) for each in week for group in each.groups for entry in group.entries}
    done = {one_form(name) for each in fit.sessions if each for name in lifts(write(each))}
    assert kit or done <= planned
