"""The kit of one place: bars, plates, dumbbells, stacks."""

from decimal import Decimal

from fortis.core.exercises import LoadKind
from fortis.core.value import Kilograms, Value


class Bar(Value):
    """A bar, by what it is for."""

    name: str
    kind: LoadKind
    kg: Kilograms


class PlatePairs(Value):
    """So many pairs of one plate."""

    kg: Kilograms
    pairs: int


class Kit(Value):
    """What is in one place. `stack_step` and `stack_most` describe the pin of machines and cables."""

    place: str
    bars: tuple[Bar, ...] = ()
    plates: tuple[PlatePairs, ...] = ()
    dumbbells: tuple[Kilograms, ...] = ()
    stack_step: Kilograms = Decimal(5)
    stack_most: Kilograms = Decimal(120)

    def bar_for(self, kind: LoadKind) -> Bar | None:
        """The bar a kind of lift uses, or the plain bar where there is none of its own."""
        by_kind = {bar.kind: bar for bar in self.bars}
        return by_kind.get(kind) or by_kind.get(LoadKind.BAR)
