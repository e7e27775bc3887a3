"""Loads solved through the structure of a set."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.resolution import resolve
from fortis.core.strength.curve import RepCurve
from fortis.core.strength.estimate import estimate
from fortis.core.strength.momentary import Asked, expect
from fortis.core.strength.solving import share_for, spare
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out


def loads(written, max_kg=100.0, lift="Back squat", body_kg=Decimal(80)):
    known = {lift_key(LIBRARY.find(lift), SetUp()): estimate(max_kg, 1, 0)}
    prescription = resolve(lay_out(read(f"{lift}: {written}")), Basis(body_kg=body_kg, estimates=known))
    return [bout.settled and bout.settled for each in prescription.sets for bout in each.bouts]


def kilograms(written, **known):
    return [float(load.kg) for load in loads(written, **known)]


def test_mini_sets_that_grow_start_light_so_that_the_last_is_hard():
    (kg, *others) = kilograms("1 set of (3, 4, 5, 6, 7) leave 1 within 15s")
    assert others == [kg] * 4
    ended = expect([Asked(kg / 100, reps, 15) for reps in (3, 4, 5, 6, 7)])
    assert [each.reps for each in ended] == [3, 4, 5, 6, 7]
    assert ended[-1].left == pytest.approx(1, abs=0.1)
    assert kg < kilograms("3 leave 1")[0] - 15


def test_a_cluster_is_lighter_than_its_first_pair_alone():
    (cluster, _, _), (pair,) = kilograms("1 set of (2, 2, 2) leave 1 within 10s"), kilograms("2 leave 1")
    assert 80 < cluster < pair - 4


def test_a_drop_takes_the_load_down_as_far_as_its_reps_ask():
    first, second = kilograms("1 set of (8, 8 drop 20%) leave 0 within 5s")
    assert second == pytest.approx(0.8 * first, abs=0.1)
    hard = expect([Asked(first / 100, 8, 5), Asked(second / 100, 8, 0)])
    assert min(each.left for each in hard) == pytest.approx(0, abs=0.1)


def test_one_bout_is_what_it_was_and_loads_of_their_own_stay():
    assert kilograms("5 leave 2") == [pytest.approx(82.2, abs=1.5)]
    assert kilograms("1 set of (3 at 90 kg, 5 at 70 kg) leave 1 within 20s") == [90, 70]


def test_what_it_is_for_is_told():
    reasons = loads("1 set of (3, 4, 5) leave 1 within 15s")[0].reasons
    assert reasons[0].text.startswith("An estimated max of 100.0 kg allows ")
    assert reasons[0].text.endswith(" kg for 3 + 4 + 5 leaving 1.")


def test_what_nobody_could_do_has_no_load():
    assert share_for(lambda share: [Asked(share, 500, 0)]) is None
    assert share_for(lambda share: [Asked(share, None, 0)]) is None


PARTS = st.lists(st.tuples(st.integers(1, 6), st.integers(5, 60)), min_size=1, max_size=5)


@given(PARTS, st.floats(0, 3), st.floats(8, 13), st.sampled_from([-1.0, 1.0, 5.0]))
def test_a_solved_set_keeps_just_what_was_asked(parts, keep, endurance, bend):
    curve = RepCurve(endurance=endurance, bend=bend)

    def set_at(share):
        *others, (reps, rest) = parts
        return [*(Asked(share, reps, rest) for reps, rest in others), Asked(share, reps, rest, keep)]

    share = share_for(set_at, curve)
    assert share is not None
    assert spare(set_at(share), curve) == pytest.approx(0, abs=0.02)
    assert spare(set_at(share * 1.03), curve) < 0 < spare(set_at(share * 0.97), curve)
