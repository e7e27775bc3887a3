"""Sets and maxes told from memory."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY
from fortis.core.remembered import NotRememberedError, read_remembered
from fortis.core.structure.model import SetUp
from fortis.core.units import Unit

SQUAT, DIP = LIBRARY.find("Back squat"), LIBRARY.find("Ring dip")


def told(written, lift=SQUAT, unit=Unit.KG):
    bout = read_remembered(written, lift, SetUp(), unit)
    return bout.reps, bout.kg, bout.body, bout.reserve


@pytest.mark.parametrize(
    ("written", "bout"),
    [
        ("5 at 100 kg leave 2", (5, 100, False, 2)),
        ("5 at 100", (5, 100, False, None)),
        ("3 at 100 kg to failure", (3, 100, False, 0)),
        ("3 at 100 kg rpe 8.5", (3, 100, False, Decimal("1.5"))),
        ("120", (1, 120, False, 0)),
        (" max 120 kg ", (1, 120, False, 0)),
        ("1RM 102,5", (1, Decimal("102.5"), False, 0)),
    ],
)
def test_a_set_or_a_max_is_read_as_the_bout_it_was(written, bout):
    assert told(written) == bout


def test_what_hangs_from_the_belt_comes_on_top_of_the_body():
    assert told("bw+20 kg", DIP) == (1, 20, True, 0)
    assert told("6 at bw+10 kg leave 1", DIP) == (6, 10, True, 1)


@pytest.mark.parametrize(
    "written",
    ["3 x 5 at 100 kg", "(3 at 100 kg, 20s, 2)", "5 at 75%", "6-8 at 80 kg", "max at 80 kg", "5 leave 2"],
)
def test_more_or_less_than_one_set_with_its_load_is_refused_with_what_would_do(written):
    with pytest.raises(NotRememberedError, match=r"^Write one set with its load"):
        told(written)


@pytest.mark.parametrize(
    ("written", "why"),
    [("six at 80", "“six” does not fit here."), ("", "The sets are missing"), ("0 kg", "A load must be above 0")],
)
def test_what_cannot_be_read_is_told_with_why(written, why):
    with pytest.raises(NotRememberedError, match=f"^{why}.* Write one set"):
        told(written)


@given(st.integers(1, 30), st.integers(1, 4_000), st.integers(0, 5))
def test_any_set_comes_back_as_it_was_told(reps, quarters, left):
    kg = Decimal(quarters) / 4
    assert told(f"{reps} at {kg:f} kg leave {left}") == (reps, kg, False, left)
