"""Kilograms, pounds and seconds: exact conversions and how they are written."""

from decimal import ROUND_HALF_EVEN, Decimal
from enum import StrEnum

POUND = Decimal("0.45359237")
"""Kilograms in one pound, exactly (international avoirdupois pound, 1959 agreement; NIST SP 811)."""

HEAVIEST = Decimal(2_000)
"""The most that a load can be, in kilograms: more than anyone lifts."""


class Unit(StrEnum):
    """The two units lifters load in."""

    KG = "kg"
    LB = "lb"


def to_kg(amount: Decimal, unit: Unit) -> Decimal:
    """Turn an amount in `unit` into exact kilograms."""
    return amount * POUND if unit is Unit.LB else amount


def from_kg(kg: Decimal, unit: Unit) -> Decimal:
    """Turn kilograms into `unit`, to a millionth (a third of a gram is beyond any scale in a gym)."""
    if unit is Unit.KG:
        return kg
    return (kg / POUND).quantize(Decimal("0.000001"), ROUND_HALF_EVEN)


def plain(number: Decimal) -> str:
    """Write a decimal as a lifter would: no exponent and no trailing zeros, `82.5`, `100`."""
    text = f"{number:f}"
    return (text.rstrip("0").rstrip(".") if "." in text else text) or "0"


def clock(seconds: int) -> str:
    """Write a duration as the notation does: `45s` below a minute, `90s` as `1:30` from there on."""
    return f"{seconds}s" if seconds < 60 else f"{seconds // 60}:{seconds % 60:02d}"
