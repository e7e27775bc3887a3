"""Readiness counts as far as the lifter's own log says it does."""

from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.strength.readiness import FEWEST, MOST, Readiness, Went, meaning


def log(worth, sessions, seed=1, lies=False):
    """Sessions of a lifter whose form follows readiness by so much a point; a liar tells any number."""
    random = Random(seed)
    found = []
    for _ in range(sessions):
        ready = random.choice([1.5, 2, 2.5, 3, 3.5, 4, 4.5])
        form = worth * (ready - 3) + random.gauss(0, 0.02)
        found.append(Went(random.choice([1, 2, 3, 4, 5]) if lies else ready, form))
    return found


BAD = Readiness(sleep=1, calm=2, freshness=1, motivation=2)


def test_what_was_said_is_averaged_and_silence_is_silence():
    assert Readiness(sleep=2, motivation=4).score == 3
    assert Readiness().score is None
    assert meaning(log(0.02, 30)).shift(Readiness()) == 0


def test_nothing_moves_before_there_is_a_log():
    assert meaning([]).shift(BAD) == 0
    assert meaning(log(0.02, FEWEST - 1)).shift(BAD) == 0


def test_a_lifter_whose_days_follow_their_readiness_is_expected_to_lift_less_on_a_bad_one():
    shift = meaning(log(0.015, 40)).shift(BAD)
    assert -0.035 < shift < -0.012


@pytest.mark.parametrize("seed", range(8))
def test_a_liar_does_no_harm(seed):
    assert abs(meaning(log(0.015, 40, seed, lies=True)).shift(BAD)) < 0.01


def test_who_always_says_the_same_is_taken_to_have_said_nothing():
    always = [Went(5.0, form) for _, form in log(0.02, 40)]
    assert meaning(always).shift(Readiness(sleep=5, calm=5)) == 0


@given(st.lists(st.tuples(st.floats(1, 5), st.floats(-0.3, 0.3)), max_size=40))
def test_no_log_moves_it_beyond_a_bound(pairs):
    assert abs(meaning([Went(*pair) for pair in pairs]).shift(BAD)) <= MOST
