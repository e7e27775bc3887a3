"""Value objects: frozen, validated once at the edge, trusted inside."""

import re
import unicodedata
from datetime import date
from decimal import Decimal
from typing import Annotated

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, PlainSerializer, WithJsonSchema


class Value(BaseModel):
    """A frozen value. Two values with equal fields are equal."""

    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


Number = Annotated[
    Decimal,
    PlainSerializer(float, return_type=float, when_used="json"),
    WithJsonSchema({"type": "number"}),
]
"""An exact decimal, a plain number in JSON (exact there up to 15 digits, more than any plate needs)."""


def one_spelling(name: str) -> str:
    """A name as it is kept: accents in one Unicode form (NFC), one space between words."""
    return " ".join(unicodedata.normalize("NFC", name).split())


Spelled = AfterValidator(one_spelling)
"""Keeps a name in one spelling."""

Flag = Annotated[bool, Field(strict=True)]
"""Yes or no, and nothing that might be read as either."""


def _as_a_date(told: object) -> object:
    if isinstance(told, date) or (isinstance(told, str) and ISO_DATE.fullmatch(told)):
        return told
    raise ValueError("a date is written as year, month and day, like 2026-03-14")


ISO_DATE = re.compile(r"\d{4}-\d{2}-\d{2}")
Day = Annotated[date, BeforeValidator(_as_a_date)]
"""A date as it is written: no number is one."""

MOST_DIGITS = 40
Entered = Annotated[Number, Field(max_digits=MOST_DIGITS)]
"""A number as somebody entered it, or as it was worked out: neither has more digits."""

Kilograms = Number
"""A load in exact kilograms."""
