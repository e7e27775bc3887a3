from decimal import Decimal
from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY
from fortis.core.loading.nearest import buildable, describe_change, nearest, next_above, next_below
from tests.core.kits import FULL, SPARSE, kit

SQUAT, CURL, DIP, EXTENSION = map(LIBRARY.find, ("Back squat", "Dumbbell curl", "Dip", "Leg extension"))
plates = st.lists(
    st.tuples(st.sampled_from(["25", "20.41165665", "15", "10", "5", "2.5", "1.25"]), st.integers(1, 3)),
    min_size=1,
    max_size=4,
    unique_by=lambda pair: pair[0],
)


@given(plates, st.integers(0, 1500).map(lambda fifth: Decimal(fifth) / 5))
def test_nearest_is_what_trying_every_stack_finds(pairs, wanted):
    every = [
        (abs(20 + 2 * total - wanted), 20 + 2 * total)
        for counts in product(*[range(count + 1) for _, count in pairs])
        if (total := sum((Decimal(kg) * count for (kg, _), count in zip(pairs, counts, strict=True)), Decimal(0)))
        >= 0
    ]
    built = nearest(kit(*pairs), SQUAT, wanted)
    assert (abs(built.kg - wanted), built.kg) == min(every)
    assert built.bar_kg + 2 * sum(built.side) == built.kg


def test_the_fewest_plates_heaviest_inside():
    assert nearest(FULL, SQUAT, Decimal(180)).side == (25, 25, 25, 5)
    assert nearest(SPARSE, SQUAT, Decimal(70)).side == (20, 5)


def test_of_two_equally_near_the_lighter():
    assert nearest(SPARSE, SQUAT, Decimal("35")).kg == 30


def test_beyond_the_kit_the_heaviest_and_below_it_the_bar():
    assert nearest(SPARSE, SQUAT, Decimal(500)).kg == 130
    assert nearest(SPARSE, SQUAT, Decimal(1)).kg == 20
    assert next_above(SPARSE, SQUAT, Decimal(130)) is None
    assert next_below(SPARSE, SQUAT, Decimal(20)) is None


def test_each_kind_of_load_has_its_own_steps():
    assert nearest(FULL, CURL, Decimal(24)).kg == Decimal("22.5")
    assert nearest(FULL, EXTENSION, Decimal(43)).kg == 45
    assert nearest(FULL, DIP, Decimal("3.7")).side == (Decimal("2.5"), Decimal("1.25"))
    assert nearest(FULL, LIBRARY.find("Something of their own"), Decimal("43.21")).kg == Decimal("43.21")
    assert buildable(FULL, LIBRARY.find("Something of their own")) == ()


def test_a_change_is_told_plate_by_plate():
    heavy, light = (Decimal(25), Decimal(10), Decimal(5)), (Decimal(25), Decimal("2.5"))
    assert describe_change(heavy, light) == "take 10 + 5 off each side, put 2.5 on each side"
    assert describe_change(light, light) == ""
    assert describe_change((), light[1:], belt=True) == "put 2.5 on"
