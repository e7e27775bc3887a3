"""Kits for the tests."""

from decimal import Decimal

from fortis.core.exercises import LoadKind
from fortis.core.loading.kit import Bar, Kit, read_plates


def kit(plates, bar="20", dumbbells=(), **more):
    bars = more.pop("bars", (Bar(name="the bar", kind=LoadKind.BAR, kg=Decimal(bar)),))
    return Kit(
        place="test", bars=bars, plates=read_plates(plates), dumbbells=tuple(map(Decimal, dumbbells)), **more
    )


FULL = kit("3x25 1x20 1x15 1x10 1x5 1x2.5 1x1.25", dumbbells=("20", "22.5"))
SPARSE = kit("2x20 1x10 1x5")
