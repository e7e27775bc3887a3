from decimal import Decimal
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY, LoadKind
from fortis.core.loading.kit import (
    Band,
    Bar,
    Chain,
    Handle,
    Machine,
    Plate,
    PlatesError,
    Stretch,
    read_plates,
    write_plates,
)
from fortis.core.loading.nearest import Where, describe_change, nearest, nearest_told, next_above, next_below
from fortis.core.loading.resistance import (
    Combination,
    TooFewMeasuresError,
    resistance_of,
    solve_bands,
    stretch_line,
)
from fortis.core.loading.sharing import Run, shared_plans
from fortis.core.loading.shelf import denominations
from fortis.core.loading.warm_up import School, warm_up
from fortis.core.structure.model import SetUp
from fortis.core.units import Unit, to_kg
from tests.core.kits import FULL, SPARSE, kit

small_runs = st.lists(
    st.integers(0, 16).map(lambda quarters: Decimal(quarters) * Decimal("2.5")), min_size=1, max_size=3
)
SQUAT, CURL, DIP, EXTENSION = map(LIBRARY.find, ("Back squat", "Dumbbell curl", "Dip", "Leg extension"))
plates = st.lists(
    st.tuples(st.sampled_from(["25", "20.4117", "15", "10", "5", "2.5", "1.25"]), st.integers(1, 3)),
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
    built = nearest(kit(" ".join(f"{count}x{kg}" for kg, count in pairs)), SQUAT, wanted)
    assert (abs(built.kg - wanted), built.kg) == min(every)
    assert built.bar_kg + 2 * sum(built.sleeve) == built.kg


def test_the_fewest_plates_heaviest_inside():
    assert nearest(FULL, SQUAT, Decimal(180)).sleeve == (25, 25, 25, 5)
    assert nearest(SPARSE, SQUAT, Decimal(70)).sleeve == (20, 5)


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
    assert nearest(FULL, DIP, Decimal("3.7")).sleeve == (Decimal("2.5"), Decimal("1.25"))
    assert nearest(FULL, LIBRARY.find("Something of their own"), Decimal("43.21")).kg == Decimal("43.21")


def test_a_change_is_told_plate_by_plate():
    heavy, light = (Decimal(25), Decimal(10), Decimal(5)), (Decimal(25), Decimal("2.5"))
    assert describe_change(heavy, light) == "take the outer 5 + 10 off each side, put 2.5 on each side"
    assert describe_change(heavy, heavy[1:]) == "take everything off each side, put 10 + 5 on each side"
    assert describe_change(light, light) == ""
    assert describe_change((), light[1:], belt=True) == "put 2.5 on"


@given(
    st.lists(
        st.tuples(st.sampled_from(["20", "10", "2.5"]), st.integers(1, 5), st.sampled_from([20, 45])),
        min_size=1,
        max_size=3,
        unique_by=lambda each: each[0],
    ),
    st.integers(0, 260),
    st.sampled_from([60, 120, None]),
    st.sampled_from(["0", "2.5"]),
)
def test_odd_plates_collars_and_short_sleeves(plates, wanted, room, collar):
    """One 15 alone, three 1.25s, collars that weigh, plates that do not fit: as trying every stack finds."""
    written = " ".join(f"{Decimal(count) / 2}x{kg}@{thick}mm" for kg, count, thick in plates)
    bar = Bar(name="the bar", kind=LoadKind.BAR, kg=Decimal(20), collar_kg=Decimal(collar), sleeve_mm=room)
    empty = 20 + 2 * Decimal(collar)
    every = [
        (abs(load - wanted), load)
        for counts in product(*[range(count // 2 + 1) for _, count, _ in plates])
        if room is None or sum(c * thick for c, (_, _, thick) in zip(counts, plates, strict=True)) <= room
        for load in [empty + 2 * sum(c * Decimal(kg) for c, (kg, _, _) in zip(counts, plates, strict=True))]
    ]
    built = nearest(kit(written, bars=(bar,)), SQUAT, Decimal(wanted))
    assert (abs(built.kg - wanted), built.kg) == min(every)


def test_pounds_and_kilograms_on_one_bar():
    mixed = kit("1x45lb 1x20 1x2.5lb")
    assert nearest(mixed, SQUAT, to_kg(Decimal(150), Unit.LB)).sleeve == (
        to_kg(Decimal(45), Unit.LB),
        to_kg(Decimal("2.5"), Unit.LB),
    )
    assert nearest(mixed, SQUAT, Decimal(500)).kg == 20 + 40 + 2 * to_kg(Decimal("47.5"), Unit.LB)


def test_handles_machines_and_the_sides_of_the_wanted_load():
    handle = Handle(name="handle", kg=Decimal(2))
    loaded = kit("2x5 2x1.25", handles=(handle,))
    assert nearest(loaded, CURL, Decimal(13)).kg == 12
    assert nearest(loaded, CURL, Decimal(15)).sleeve == (5, Decimal("1.25"))
    lonely = kit("1x5", handles=(handle,))
    assert nearest(lonely, CURL, Decimal(13)).kg == 2
    machines = (
        Machine(name="tower", step_kg=Decimal(5), most_kg=Decimal(60), add_ons=(Decimal("2.5"),)),
        Machine(
            name="press", lifts=("leg press",), first_kg=Decimal(20), step_kg=Decimal(20), most_kg=Decimal(300)
        ),
    )
    gym = kit("1x20", machines=machines)
    assert nearest(gym, EXTENSION, Decimal(43)).kg == Decimal("42.5")
    assert nearest(gym, LIBRARY.find("Leg press"), Decimal(113)).kg == 120
    assert nearest(SPARSE, SQUAT, Decimal(67), Where.BELOW).kg == 60
    assert nearest(SPARSE, SQUAT, Decimal(61), Where.ABOVE).kg == 70
    assert nearest(SPARSE, SQUAT, Decimal(60), Where.ABOVE).kg == 60


def test_plates_are_read_and_written_in_pairs():
    plates = read_plates("2x25 1 x 20, 0.5x15 1.5x1,25 2x45lb 10 1x10@30mm")
    assert [(plate.kg, plate.count) for plate in plates][2:5] == [(20, 2), (15, 1), (10, 4)]
    assert plates[4].thick_mm == 30
    assert write_plates(plates) == "2x25 2x45lb 1x20 0.5x15 2x10@30mm 1.5x1.25"
    assert read_plates(write_plates(plates)) == plates


@pytest.mark.parametrize("text", ["2x", "ten", "0x20", "2x20kgx", "1x-5", "2 by 20", "1x0"])
def test_what_is_no_plate_is_told(text):
    with pytest.raises(PlatesError, match="write 2x20 for two pairs"):
        read_plates(text)


@given(
    st.lists(
        st.tuples(st.integers(1, 20), st.integers(1, 400), st.sampled_from(Unit)),
        max_size=6,
        unique_by=lambda each: each[1:],
    )
)
def test_whatever_plates_there_are_print_back(plates):
    shelf = tuple(Plate(amount=Decimal(eighth) / 8, unit=unit, count=count) for count, eighth, unit in plates)
    assert set(read_plates(write_plates(shelf))) == set(shelf)


def test_a_ramp_rises_to_the_work_load_with_fewer_reps():
    for school in School:
        for work in range(25, 260, 5):
            sets = warm_up(FULL, SQUAT, Decimal(work), school=school, cold=True)
            loads = [each.kg for each in sets]
            assert loads == sorted(set(loads))
            assert all(load < work for load in loads)
            assert all(nearest(FULL, SQUAT, load).kg == load for load in loads)
            assert [each.reps for each in sets] == sorted([each.reps for each in sets], reverse=True)
    assert len(warm_up(FULL, SQUAT, Decimal(140), school=School.MANY)) > len(warm_up(FULL, SQUAT, Decimal(140)))
    assert warm_up(FULL, SQUAT, Decimal(20)) == ()
    assert [(each.kg, each.reps) for each in warm_up(FULL, DIP, Decimal(50))] == [(0, 5), (25, 3)]
    assert [each.kg for each in warm_up(FULL, DIP, Decimal(5))] == [0]
    assert warm_up(FULL, DIP, Decimal(0)) == warm_up(FULL, DIP, Decimal(-20)) == ()
    assert [each.kg for each in warm_up(FULL, EXTENSION, Decimal(60))] == [30, 45]


@given(small_runs, small_runs)
def test_two_bars_loaded_at_once_never_hold_more_than_there_is(first, second):
    have = denominations(read_plates("2x20 1x10 2x5 1x2.5"), 2)
    runs = [Run(tuple(sides), (120,) * len(sides)) for sides in (first, second)]
    plans = shared_plans(have, runs)
    if plans is None:
        alone = [shared_plans(have, [run]) for run in runs]
        together = max(first) + max(second)
        assert None in alone or together > 62 or not fits_at_once(have, first, second)
        return
    for run, plan in zip((first, second), plans, strict=True):
        assert [sum(stack, Decimal(0)) for stack in plan.stacks] == run
    for plate in have:
        held = [max(stack.count(plate.kg) for stack in plan.stacks) for plan in plans]
        assert sum(held) <= plate.most


def fits_at_once(have, first, second):
    """By trying every way to split the plates between the bars."""
    for split in product(*[range(plate.most + 1) for plate in have]):
        mine = [plate._replace(most=count) for plate, count in zip(have, split, strict=True)]
        rest = [plate._replace(most=plate.most - count) for plate, count in zip(have, split, strict=True)]
        if all(makes(mine, side) for side in first) and all(makes(rest, side) for side in second):
            return True
    return False


def makes(have, side):
    counts = product(*[range(plate.most + 1) for plate in have])
    return any(sum(c * plate.kg for c, plate in zip(some, have, strict=True)) == side for some in counts)


def test_a_named_band_counts_as_the_kit_says():
    gym = kit(
        "1x20",
        bands=(Band(name="green", top_kg=Decimal(18), bottom_kg=Decimal(4)),),
        chains=(Chain(name="long", kg=Decimal(16)),),
    )
    assert resistance_of(SetUp(items=("belt", "green bands")), gym).top_kg == 18
    assert resistance_of(SetUp(items=("2 x green band", "long chains")), gym).top_kg == 52
    assert resistance_of(SetUp(items=("bands 30 lb top",)), gym).top_kg == to_kg(Decimal(30), Unit.LB)
    assert resistance_of(SetUp(items=("red bands",)), gym).top_kg == 0
    with pytest.raises(TooFewMeasuresError, match="two different stretches"):
        stretch_line([Stretch(cm=Decimal(30), kg=Decimal(9))] * 2)
    with pytest.raises(TooFewMeasuresError, match="do not tell green, red apart"):
        solve_bands([Combination(bands=("green", "red"), top_kg=Decimal(30))])


@pytest.mark.parametrize(("where", "kg"), [(Where.BELOW, "51.5"), (Where.NEAREST, "52"), (Where.ABOVE, "52")])
def test_a_load_is_told_in_halves_where_nothing_is_known_of_how_it_is_set(where, kg):
    """A written one stays as it is written; what the kit knows is told as the kit has it."""
    unknown, wanted = LIBRARY.find("A lift nobody knows"), Decimal("51.765")
    assert nearest_told(FULL, unknown, wanted, where).kg == Decimal(kg)
    assert nearest(FULL, unknown, wanted, where).kg == wanted
    squat = LIBRARY.find("Back squat")
    assert nearest_told(FULL, squat, wanted, where) == nearest(FULL, squat, wanted, where)
