"""Kits for the tests."""

from decimal import Decimal

from fortis.core.exercises import LoadKind
from fortis.core.loading.kit import Bar, Kit, PlatePairs


def kit(*plates, bar="20", dumbbells=(), **more):
    return Kit(
        place="test",
        bars=(Bar(name="the bar", kind=LoadKind.BAR, kg=Decimal(bar)),),
        plates=tuple(PlatePairs(kg=Decimal(kg), pairs=pairs) for kg, pairs in plates),
        dumbbells=tuple(map(Decimal, dumbbells)),
        **more,
    )


FULL = kit(("25", 3), ("20", 1), ("15", 1), ("10", 1), ("5", 1), ("2.5", 1), ("1.25", 1), dumbbells=("20", "22.5"))
SPARSE = kit(("20", 2), ("10", 1), ("5", 1))
