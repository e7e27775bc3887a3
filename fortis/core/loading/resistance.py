"""Bands and chains: loads that grow along the lift, and what each band weighs, from what a scale showed."""

import re
from collections.abc import Sequence
from decimal import Decimal

import numpy as np

from fortis.core.loading.kit import Band, Kit, Stretch
from fortis.core.structure.model import SetUp
from fortis.core.units import Unit, to_kg
from fortis.core.value import Kilograms, Value


class Resistance(Value):
    """What bands and chains add at the bottom and at the top of a lift."""

    bottom_kg: Kilograms = Decimal(0)
    top_kg: Kilograms = Decimal(0)

    @property
    def mean_kg(self) -> Decimal:
        """The mean over the range, where the pull grows evenly."""
        return (self.bottom_kg + self.top_kg) / 2


NONE = Resistance()
_WRITTEN = re.compile(r"(?:bands?|chains?)\b.*?(\d+(?:[.,]\d+)?)\s*(kg|lb)s?(?:\s+top)?", re.IGNORECASE)
_NAMED = re.compile(
    r"(?:(\d)\s*[x×]\s*)?(.+?)\s+(?:bands?|chains?)|(?:bands?|chains?)\s+(?:(\d)\s*[x×]\s*)?(.+)", re.IGNORECASE
)


def resistance_of(setup: SetUp, kit: Kit | None) -> Resistance:
    """What the set-up adds: `bands 30 kg top` as written, `green bands` or `2 x red bands` by name from the kit."""
    bottom, top = Decimal(0), Decimal(0)
    for item in setup.items:
        if written := _WRITTEN.fullmatch(item.strip()):
            unit = Unit.LB if written[2].lower() == "lb" else Unit.KG
            top += to_kg(Decimal(written[1].replace(",", ".")), unit)
        elif kit and (named := _NAMED.fullmatch(item.strip())):
            times, name = int(named[1] or named[3] or 1), (named[2] or named[4]).casefold()
            for band in kit.bands:
                if band.name.casefold() == name:
                    bottom, top = bottom + times * band.bottom_kg, top + times * band.top_kg
            for chain in kit.chains:
                if chain.name.casefold() == name:
                    top += times * chain.kg
    return Resistance(bottom_kg=bottom, top_kg=top)


class Line(Value):
    """A band's pull: `at_rest_kg` with no stretch, and so many kilograms more a centimetre."""

    at_rest_kg: float
    kg_per_cm: float

    def at(self, cm: float) -> float:
        """The pull in kg at a stretch; slack bands pull nothing."""
        return max(self.at_rest_kg + self.kg_per_cm * cm, 0.0)


class TooFewMeasuresError(ValueError):
    """Measures that leave a band's pull open."""


def stretch_line(measured: Sequence[Stretch]) -> Line:
    """The line through what a scale showed, by least squares. Raises `TooFewMeasuresError` under two stretches."""
    if len({stretch.cm for stretch in measured}) < 2:
        raise TooFewMeasuresError("a band's line needs the scale at two different stretches at least")
    slope, rest = np.polyfit([float(each.cm) for each in measured], [float(each.kg) for each in measured], 1)
    return Line(at_rest_kg=float(rest), kg_per_cm=float(slope))


class Combination(Value):
    """Some pairs of bands together, and what they added at the top."""

    bands: tuple[str, ...]
    top_kg: Kilograms


class Solved(Value):
    """What one pair of bands adds at the top, with its standard error; None where nothing is left to check it."""

    name: str
    top_kg: float
    give_or_take_kg: float | None


def solve_bands(combinations: Sequence[Combination]) -> tuple[Solved, ...]:
    """What each pair of bands adds, from combinations that were weighed: linear least squares.

    Raises `TooFewMeasuresError` naming the bands that the combinations do not tell apart. The standard errors
    are those of ordinary least squares, from what the combinations leave unexplained.
    """
    names = sorted({name for each in combinations for name in each.bands})
    counts = np.array([[each.bands.count(name) for name in names] for each in combinations], dtype=float)
    tops = np.array([float(each.top_kg) for each in combinations])
    if not names or np.linalg.matrix_rank(counts) < len(names):
        raise TooFewMeasuresError(
            f"these combinations do not tell {', '.join(names) or 'any band'} apart: weigh one of them alone, "
            "or with fewer of the others"
        )
    found = np.linalg.lstsq(counts, tops, rcond=None)[0]
    spare = len(combinations) - len(names)
    errors: list[float | None] = [None] * len(names)
    if spare > 0:
        left = tops - counts @ found
        variance = float(left @ left) / spare
        errors = [float(each) for each in np.sqrt(np.diag(np.linalg.inv(counts.T @ counts)) * variance)]
    return tuple(
        Solved(name=name, top_kg=float(kg), give_or_take_kg=error)
        for name, kg, error in zip(names, found, errors, strict=True)
    )


def measured_band(name: str, measured: Sequence[Stretch], bottom_cm: Decimal, top_cm: Decimal) -> Band:
    """A band of which the scale told the line, for a lift that stretches it from `bottom_cm` to `top_cm`."""
    line = stretch_line(measured)
    return Band(
        name=name,
        bottom_kg=Decimal(str(round(line.at(float(bottom_cm)), 1))),
        top_kg=Decimal(str(round(line.at(float(top_cm)), 1))),
        measured=tuple(measured),
    )
