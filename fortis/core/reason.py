"""Reasons as data: why a load or a next step is what it is, in one sentence and in numbers."""

from pydantic import Field

from fortis.core.value import Number, Value


class Reason(Value):
    """One reason. `code` names the rule, `text` says it to the lifter, `values` are the numbers in it."""

    code: str
    text: str
    values: dict[str, Number] = Field(default_factory=dict)

    def __hash__(self) -> int:
        return hash((self.code, self.text))
