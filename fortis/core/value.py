"""Value objects: frozen, validated once at the edge, trusted inside."""

from decimal import Decimal
from typing import Annotated

from pydantic import BaseModel, ConfigDict, PlainSerializer, WithJsonSchema


class Value(BaseModel):
    """A frozen value. Two values with equal fields are equal."""

    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


Number = Annotated[
    Decimal,
    PlainSerializer(float, return_type=float, when_used="json"),
    WithJsonSchema({"type": "number"}),
]
"""An exact decimal, a plain number in JSON (exact there up to 15 digits, more than any plate needs)."""

Kilograms = Number
"""A load in exact kilograms."""
