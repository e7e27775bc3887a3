"""Units against NIST SP 811 (values from memory) and against pint, an independent library."""

from decimal import Decimal

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.units import POUND, Unit, clock, from_kg, plain, to_kg

REGISTRY = pint.UnitRegistry(non_int_type=Decimal)


def test_the_pound_is_exact():
    """International avoirdupois pound, 1959 agreement; NIST SP 811 (from memory)."""
    assert Decimal("0.45359237") == POUND
    assert to_kg(Decimal(100), Unit.LB) == Decimal("45.359237")
    assert to_kg(Decimal(45), Unit.LB) == Decimal("20.41165665")
    assert from_kg(Decimal(100), Unit.LB) == pytest.approx(Decimal("220.46226"), abs=Decimal("0.00001"))


@given(st.decimals(0, 2000, places=2))
def test_pounds_agree_with_pint(amount):
    assert to_kg(amount, Unit.LB) == (amount * REGISTRY.pound).to("kilogram").magnitude


@given(st.decimals(0, 2000, places=2), st.sampled_from(Unit))
def test_there_and_back(amount, unit):
    assert from_kg(to_kg(amount, unit), unit) == amount


def test_how_numbers_are_written():
    """Common practice."""
    assert [plain(Decimal(each)) for each in ("82.50", "100", "1E+2", "0.00")] == ["82.5", "100", "100", "0"]
    assert [clock(each) for each in (25, 60, 90, 240)] == ["25s", "1:00", "1:30", "4:00"]
