"""The day of a meet: counted back from the opener by hand, and whatever the opener, in order and below it."""

from decimal import Decimal
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY
from fortis.core.season.attempts import Attempt
from fortis.core.season.meet_day import day_of
from tests.core.kits import FULL

SQUAT = LIBRARY.find("Back squat")


def tries(*kgs):
    return [Attempt(kg=Decimal(kg), chance=chance) for kg, chance in zip(kgs, (0.95, 0.75, 0.4), strict=True)]


def test_the_way_up_is_counted_back_from_the_opener():
    """The last warm-up 8 minutes before it, four minutes from 75 % on, else three; ten of moving before the bar."""
    found = day_of("meet", SQUAT, tries(180, 190, 200), FULL)
    told = [(each.name.value, each.minutes, each.kg, each.reps) for each in found]
    assert told[0] == ("move", told[1][1] + 10, None, 1)
    warming = [(minutes, kg) for name, minutes, kg, _ in told if name == "warm up"]
    assert warming[-1][0] == 8
    for (before, _), (after, kg) in pairwise(warming):
        assert before - after == (4 if kg >= Decimal("0.75") * 180 else 3)
    assert told[-3:] == [("opener", 0, 180, 1), ("second", -10, 190, 1), ("third", -20, 200, 1)]
    opener = found[-3]
    assert (opener.makes, opener.chance, 2 * sum(opener.sleeve) + 20) == (True, 0.95, 180)


def test_at_a_test_less_time_goes_by_and_a_later_lift_is_warm():
    found = day_of("test", SQUAT, tries(180, 190, 200), FULL, first=False)
    assert [each.name.value for each in found].count("move") == 0
    assert [each.minutes for each in found[-4:]] == [5, 0, -5, -10]


def test_a_load_that_the_kit_does_not_make_is_told():
    (*_, third) = day_of("meet", SQUAT, tries("180", "190", "200.7"), FULL)
    assert (third.makes, third.sleeve) == (False, ())


@given(
    st.integers(8, 160).map(lambda steps: Decimal("2.5") * steps), st.sampled_from(["meet", "test"]), st.booleans()
)
def test_everything_is_in_order_and_every_warm_up_lighter_than_the_opener(kg, what, first):
    found = day_of(what, SQUAT, tries(kg, kg + 5, kg + 10), FULL, first=first)
    minutes = [each.minutes for each in found]
    assert minutes == sorted(minutes, reverse=True)
    assert len(set(minutes)) == len(minutes)
    loads = [each.kg for each in found if each.kg is not None]
    assert loads == sorted(loads)
    assert all(each.kg < kg for each in found if each.name.value == "warm up")
