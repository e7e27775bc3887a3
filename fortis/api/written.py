"""A text in the written notation, as it comes from a client."""

from pydantic import BaseModel, Field

from fortis.core.structure.notation import LONGEST_TEXT
from fortis.core.units import Unit


class Written(BaseModel):
    """A text in the written notation; loads without a unit are in `unit`, the lifter's own where not given."""

    written: str = Field(max_length=2 * LONGEST_TEXT)
    unit: Unit | None = None
