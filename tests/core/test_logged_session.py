"""Sessions put together from logs: every bout keeps its numbers and has its place, and the text reads back."""

from datetime import UTC, datetime, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY
from fortis.core.lift_names import as_lift_name, meant
from fortis.core.logged import LoggedBout
from fortis.core.logged_session import put_together, spaced
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.naming import structures
from fortis.core.structure.notation import read
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write
from fortis.core.tally.session import tally
from fortis.core.units import Unit

AT = datetime(2026, 3, 2, 18, tzinfo=UTC)


def bout(exercise, reps, kg=0, **more):
    return LoggedBout(
        performed_at=AT, session="Legs 2026-03-02", exercise=exercise, load_kg=Decimal(kg), reps=reps, **more
    )


def text(*bouts, unit=Unit.KG):
    return put_together(spaced(bouts), unit).written


def sets(exercise, *loads, **more):
    return [bout(exercise, 5, kg, set=number, **more) for number, kg in enumerate(loads, start=1)]


def test_sets_alike_are_one_run_and_a_session_is_called_without_its_day():
    assert text(*sets("Back squat", 100, 100, 105)) == "# Legs\nBack squat: 2 x 5 at 100 kg; 5 at 105 kg\n"


def test_mini_sets_belt_and_pounds():
    cluster = [
        bout("Deadlift", reps, "102.05828325", set=number, bout=place, setup=SetUp(items=("belt",)),
             rest_seconds=240 if place == 1 else 16)
        for number in (1, 2) for place, reps in enumerate((2, 2, 1), start=1)
    ]  # fmt: skip
    assert (
        text(*cluster, unit=Unit.LB)
        == "# Legs\nDeadlift [belt]: 2 sets of (2, 2, 1) at 225 lb within 15s rest 4:00\n"
    )


def test_both_sides_halves_holds_and_the_body():
    assert text(
        bout("Split squat", 8, 20, side=Side.LEFT), bout("Split squat", 8, 20, side=Side.RIGHT, bout=2),
        bout("Dip", 6, -10, partial_reps=2), bout("Plank", 0, seconds=45), bout("Mystery", 0, 0),
    ).splitlines()[1:] == [
        "Split squat: 8 at 20 kg each side", "Dip: 6 at bw-10 kg", "Plank: hold 45s at bw", "Mystery: 1"
    ]  # fmt: skip


@pytest.mark.parametrize("numbered", [True, False])
def test_lifts_that_take_turns_are_a_pair_whether_or_not_the_log_says_so(numbered):
    group = {"group": 1} if numbered else {}
    turns = [
        each for pair in zip(sets("Row", 60, 60, **group), sets("Dip", 0, 0, **group), strict=True) for each in pair
    ]
    after = sets("Curl", 30, 30, **({"group": 2} if numbered else {}))
    assert text(*turns, *after) == (
        "# Legs\npair, 2 rounds:\n  Row: 5 at 60 kg\n  Dip: 5 at bw\nCurl: 2 x 5 at 30 kg\n"
    )


def test_a_lift_that_comes_again_with_other_gear_is_another_line():
    belt = SetUp(items=("belt",))
    squats = [
        *sets("Back squat", 100),
        *[each.model_copy(update={"setup": belt, "set": 2}) for each in sets("Back squat", 140)],
    ]
    assert text(*squats, *sets("Row", 60), *sets("Back squat", 80)).splitlines()[1:] == [
        "Back squat: 5 at 100 kg", "Back squat [belt]: 5 at 140 kg", "Row: 5 at 60 kg", "Back squat: 5 at 80 kg"
    ]  # fmt: skip


def test_warm_ups_go_before_and_are_no_sets():
    warm = [bout("Back squat", 5, kg, set=0, bout=at, is_warm_up=True) for at, kg in enumerate((20, 60), start=1)]
    session = put_together(spaced([*warm, *sets("Back squat", 100, 100)]))
    assert session.written == "# Legs\nBack squat: 2 x 5 at 100 kg\n"
    counted = tally(session.prescription, [each.bout for each in session.done])
    assert (counted.warm_ups, counted.sets, counted.tonnage_kg) == (2, 2, 1000)
    assert [len(each.bouts) for each in session.prescription.sets] == [2, 1, 1]


def test_times_that_are_not_told_are_put_apart():
    apart = [each.performed_at - AT for each in spaced([bout("Row", 5), bout("Row", 5), bout("Row", 5, set=2)])]
    assert apart == [timedelta(), timedelta(seconds=15 + 15), timedelta(seconds=30 + 180 + 15)]


BOUTS = st.builds(
    LoggedBout,
    performed_at=st.integers(0, 3_600).map(lambda seconds: AT + timedelta(seconds=seconds)),
    session=st.just("Legs"),
    exercise=st.sampled_from(["Back squat", "Ring dip", "Split squat", "Farm work", "Plank"]),
    setup=st.sampled_from([SetUp(), SetUp(items=("belt",))]),
    group=st.none() | st.integers(1, 3),
    set=st.integers(1, 4),
    bout=st.integers(1, 3),
    side=st.sampled_from([Side.BOTH, Side.LEFT, Side.RIGHT]),
    load_kg=st.integers(-20, 400).map(lambda halves: Decimal(halves) / 2),
    reps=st.integers(0, 20),
    seconds=st.integers(0, 90),
    reserve=st.none() | st.integers(0, 10).map(Decimal),
    rest_seconds=st.none() | st.integers(0, 600),
    tempo=st.sampled_from(["", "3-1-1-0", "75-1-1-0", "2-0-X-0"]),
    is_warm_up=st.booleans(),
)  # fmt: skip


@given(st.lists(BOUTS, min_size=1, max_size=14), st.booleans(), st.sampled_from(Unit))
def test_every_bout_is_there_once_in_its_place_and_the_text_reads_back(bouts, numbered, unit):
    given_ = [
        each if numbered and each.group else each.model_copy(update={"group": None}) for each in spaced(bouts)
    ]
    session = put_together(given_, unit)
    done = [each.bout for each in session.done]
    assert [(each.reps, each.seconds, each.reserve, each.side) for each in done] == [
        (each.reps, each.seconds, each.reserve, each.side) for each in given_
    ]
    assert [each.done_at for each in session.done] == [each.performed_at for each in given_]
    assert all((each.kg or 0) == was.load_kg for each, was in zip(done, given_, strict=True))
    places = {each.position(planned): each for each in session.prescription.sets for planned in each.bouts}
    assert sorted(map(str, places)) == sorted(str(each.position) for each in done)
    assert all(places[each.position].lift.id == each.lift_id for each in done)
    assert write(read(session.written, unit)) == session.written
    assert structures(read(session.written, unit)) == structures(session.session)
    assert timeline(session.prescription).total_seconds > 0


@pytest.mark.parametrize(
    ("called", "lift"),
    [
        ("back SQUATS", "Back squat"), ("Squat", "Back squat"), ("Barbell Bench Press", "Bench press"),
        ("BB bench", "Bench press"), ("DB Bench Press", "Dumbbell press"), ("Pull ups", "Pull-up"),
        ("Bench Press (Barbell)", "Bench press"), ("OHP", "Overhead press"), ("RDL", "Romanian deadlift"),
        ("Romanian Deadlifts", "Romanian deadlift"), ("Leg Extensions", "Leg extension"),
        ("Lat pull down", "Lat pulldown"),
        ("Tricep pushdown", "Cable pressdown"), ("Farmers walk", "Farmer's carry"), ("Chinups", "Chin-up"),
        ("Front sqaut", "Front squat"),
    ],
)  # fmt: skip
def test_what_others_call_a_lift_is_known(called, lift):
    """Common practice."""
    assert meant(called, LIBRARY).name == lift


@pytest.mark.parametrize("called", ["Kniebeuge", "Cycling", "Sled", "X", ""])
def test_what_resembles_no_lift_is_none(called):
    assert meant(called, LIBRARY) is None


@given(
    st.text(max_size=120)
    | st.sampled_from(["Pair", "circuit, hard", "\U0002f800", "5x5 squat", "3 sets of 8: rows", "Curl (EZ)"])
)
def test_any_name_can_be_written(called):
    name = as_lift_name(called)
    assert read(f"{name}: 3 x 5").groups[0].entries[0].exercise == " ".join(name.split())
