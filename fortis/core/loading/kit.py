"""The kit of one place: bars, plates, dumbbells, machines, bands, chains, and how plates are written."""

import re
from collections.abc import Iterable
from decimal import Decimal
from typing import Annotated

from pydantic import Field, model_validator

from fortis.core.exercises import Exercise, LoadKind, one_form
from fortis.core.units import Unit, plain, to_kg
from fortis.core.value import Entered, Flag, Kilograms, Spelled, Value

Name = Annotated[str, Spelled, Field(min_length=1, max_length=60)]
Heft = Annotated[Entered, Field(gt=Decimal(0), le=Decimal(1000))]
Extra = Annotated[Entered, Field(ge=Decimal(0), le=Decimal(1000))]
Millimetres = Annotated[int, Field(ge=10, le=1000)]
Some = Annotated[int, Field(ge=1, le=50)]
MOST_SIZES = 20
"""Weights of plates in one place, kilograms and pounds together."""
MOST_PINS = 400
MOST_PLATES = 200
MOST_AMOUNT = 500


class Bar(Value):
    """A bar, by what it is for. `collar_kg` is one collar, `sleeve_mm` the room for plates on one end."""

    name: Name
    kind: LoadKind
    kg: Heft
    collar_kg: Extra = Decimal(0)
    sleeve_mm: Millimetres | None = None
    count: Some = 1
    note: Annotated[str, Field(max_length=200)] = ""

    @property
    def empty_kg(self) -> Decimal:
        """The bar with its collars and no plates."""
        return self.kg + 2 * self.collar_kg


class Handle(Value):
    """A dumbbell handle to be loaded with plates, `count` of them."""

    name: Name
    kg: Heft
    collar_kg: Extra = Decimal(0)
    sleeve_mm: Millimetres | None = None
    count: Some = 2

    @property
    def empty_kg(self) -> Decimal:
        """The handle with its collars and no plates."""
        return self.kg + 2 * self.collar_kg


class Plate(Value):
    """Plates of one weight: `count` single ones, as typed in their unit; `thick_mm` where it is known."""

    amount: Annotated[Entered, Field(gt=Decimal(0), le=Decimal(MOST_AMOUNT))]
    unit: Unit = Unit.KG
    count: Annotated[int, Field(ge=1, le=MOST_PLATES)]
    thick_mm: Annotated[Entered, Field(gt=Decimal(0), le=Decimal(500))] | None = None

    @property
    def kg(self) -> Decimal:
        """One plate in exact kilograms."""
        return to_kg(self.amount, self.unit)


class Machine(Value):
    """A machine or cable with a pin. Without `lifts` it stands for all that have none of their own.

    The pin goes from `first_kg` to `most_kg` in steps; each of `add_ons` can lie on top. `ratio` is what is
    felt at the handle of what the pin says: a half where the cable runs over a moving pulley.
    """

    name: Name
    lifts: Annotated[tuple[Name, ...], Field(max_length=100)] = ()
    first_kg: Heft = Decimal(5)
    step_kg: Heft = Decimal(5)
    most_kg: Heft = Decimal(120)
    add_ons: Annotated[tuple[Heft, ...], Field(max_length=6)] = ()
    ratio: Annotated[Entered, Field(gt=Decimal(0), le=Decimal(4))] = Decimal(1)

    @model_validator(mode="after")
    def _not_too_fine(self) -> "Machine":
        if self.most_kg - self.first_kg > self.step_kg * MOST_PINS:
            raise ValueError(
                f"{self.name} would have more than {MOST_PINS} pins: make its steps larger than "
                f"{plain(self.step_kg)} kg, or its heaviest pin lighter"
            )
        return self

    def pins(self) -> tuple[Decimal, ...]:
        """Every load it can be set to, lightest first."""
        steps = int((self.most_kg - self.first_kg) / self.step_kg) if self.step_kg else 0
        loads = {self.first_kg + self.step_kg * step for step in range(steps + 1)}
        for extra in self.add_ons:
            loads |= {load + extra for load in loads}
        return tuple(sorted(loads))


class Stretch(Value):
    """What a scale showed with a band stretched so far."""

    cm: Annotated[Entered, Field(ge=Decimal(0), le=Decimal(1000))]
    kg: Annotated[Entered, Field(ge=Decimal(0), le=Decimal(1000))]


class Band(Value):
    """A pair of bands by its name. `top_kg` is what the pair adds locked out, `measured` how it is known."""

    name: Name
    top_kg: Extra
    bottom_kg: Extra = Decimal(0)
    give_or_take_kg: Kilograms | None = None
    measured: Annotated[tuple[Stretch, ...], Field(max_length=50)] = ()


class Chain(Value):
    """A pair of chains: all of it off the floor at the top, none at the bottom."""

    name: Name
    kg: Heft


ANY_MACHINE = Machine(name="Machines and cables")


class Kit(Value):
    """What is in one place. `heights` are boxes and deficits in centimetres."""

    place: Name
    bars: Annotated[tuple[Bar, ...], Field(max_length=40)] = ()
    plates: Annotated[tuple[Plate, ...], Field(max_length=MOST_SIZES)] = ()
    dumbbells: Annotated[tuple[Heft, ...], Field(max_length=100)] = ()
    handles: Annotated[tuple[Handle, ...], Field(max_length=20)] = ()
    machines: Annotated[tuple[Machine, ...], Field(max_length=100)] = (ANY_MACHINE,)
    bands: Annotated[tuple[Band, ...], Field(max_length=40)] = ()
    chains: Annotated[tuple[Chain, ...], Field(max_length=20)] = ()
    belt: Flag = True
    heights: Annotated[tuple[Entered, ...], Field(max_length=40)] = ()

    def bar_for(self, kind: LoadKind) -> Bar | None:
        """The bar a kind of lift uses, or the plain bar where there is none of its own."""
        by_kind = {bar.kind: bar for bar in reversed(self.bars)}
        return by_kind.get(kind) or by_kind.get(LoadKind.BAR)

    def machine_for(self, lift: Exercise) -> Machine | None:
        """The machine a lift is done on.

        Its own, whatever the lift was called then, else the one that stands for all.
        """
        names = {one_form(name) for name in (lift.name, *lift.former_names)}
        own = (machine for machine in self.machines if names.intersection(map(one_form, machine.lifts)))
        any_lift = (machine for machine in self.machines if not machine.lifts)
        return next(own, None) or next(any_lift, None)


class PlatesError(ValueError):
    """A text that is no list of plates."""


class NoPlateError(PlatesError):
    """A word that stands for no plates."""

    def __init__(self, word: str) -> None:
        super().__init__(
            f"“{word[:40]}” is not a number of pairs and a plate: write 2x20 for two pairs of 20 kg, "
            "2x45lb for pounds, 0.5x15 for a single plate, 2x25@42mm where the thickness matters."
        )


_PLATES = re.compile(
    r"(?:(?P<pairs>\d{1,2}(?:[.,][05])?)\s*[x×*]\s*)?(?P<amount>\d{1,3}(?:[.,]\d{1,4})?)\s*(?P<unit>kgs?|lbs?)?"
    r"(?:@(?P<thick>\d{1,3}(?:[.,]\d)?)\s*mm)?",
    re.IGNORECASE,
)


USUAL_PLATES = "4x25 2x20 1x15 2x10 2x5 2x2.5 1x1.25"
"""Pairs of plates beside a rack, where nobody said what there is."""


def read_plates(text: str, unit: Unit = Unit.KG) -> tuple[Plate, ...]:
    """Read plates as lifters count them, in pairs: `2x20 1x10 0.5x15`. Raises `PlatesError`.

    A plate without a count is one pair; half a pair is a single plate. The same plate twice is added up.
    """
    counts: dict[tuple[Decimal, Unit], Plate] = {}
    for word in re.split(r"[\s;]+|,\s+", re.sub(r"\s*([x×*@])\s*", r"\1", text.strip())):
        if not word:
            continue
        match = _PLATES.fullmatch(word.rstrip(","))
        if match is None:
            raise NoPlateError(word)
        pairs, amount = _decimal(match["pairs"] or "1"), _decimal(match["amount"])
        own = unit if not match["unit"] else Unit.LB if match["unit"].lower().startswith("lb") else Unit.KG
        known = counts.get((amount, own))
        count = int(pairs * 2) + (known.count if known else 0)
        thick = _decimal(match["thick"]) if match["thick"] else known.thick_mm if known else None
        if not amount or not pairs or amount > MOST_AMOUNT or (thick is not None and not 0 < thick <= 500):
            raise NoPlateError(word)
        if count > MOST_PLATES:
            raise PlatesError(f"“{word}” makes more than {MOST_PLATES} plates of one weight; enter fewer.")
        counts[amount, own] = Plate(
            amount=amount,
            unit=own,
            count=count,
            thick_mm=thick,
        )
    if len(counts) > MOST_SIZES:
        raise PlatesError(f"These are {len(counts)} different plates; one place holds {MOST_SIZES} at most.")
    return tuple(sorted(counts.values(), key=lambda plate: -plate.kg))


def write_plates(plates: Iterable[Plate]) -> str:
    """Write plates so that `read_plates` reads them again, heaviest first."""
    words = []
    for plate in sorted(plates, key=lambda plate: -plate.kg):
        unit = "" if plate.unit is Unit.KG else "lb"
        thick = f"@{plain(plate.thick_mm)}mm" if plate.thick_mm else ""
        words.append(f"{plain(Decimal(plate.count) / 2)}x{plain(plate.amount)}{unit}{thick}")
    return " ".join(words)


def _decimal(text: str) -> Decimal:
    return Decimal(text.replace(",", "."))
