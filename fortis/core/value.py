"""Value objects: frozen, validated once at the edge, trusted inside."""

import unicodedata
from decimal import Decimal
from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, PlainSerializer, WithJsonSchema


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

MOST_DIGITS = 40
Entered = Annotated[Number, Field(max_digits=MOST_DIGITS)]
"""A number as somebody entered it, or as it was worked out: neither has more digits."""

Kilograms = Number
"""A load in exact kilograms."""
