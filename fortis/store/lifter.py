"""The lifter, their places and their body weight."""

from datetime import date
from decimal import Decimal

from sqlalchemy import select
from sqlalchemy.orm import Session as Unit_of_work
from tzlocal import get_localzone_name

from fortis.core.exercises import LoadKind
from fortis.core.loading.kit import Bar, Kit, PlatePairs
from fortis.core.units import Unit
from fortis.core.value import Value
from fortis.store.tables import BodyWeightRow, LifterRow, PlaceRow


class Lifter(Value):
    """The unit a lifter thinks in, their time zone's name, and when they began to train, where they said so."""

    unit: Unit
    zone: str
    training_since: date | None = None


USUAL_KIT = Kit(
    place="Gym",
    bars=(
        Bar(name="20 kg bar", kind=LoadKind.BAR, kg=Decimal(20)),
        Bar(name="25 kg trap bar", kind=LoadKind.TRAP_BAR, kg=Decimal(25)),
        Bar(name="25 kg safety bar", kind=LoadKind.SAFETY_BAR, kg=Decimal(25)),
    ),
    plates=tuple(
        PlatePairs(kg=Decimal(kg), pairs=pairs)
        for kg, pairs in (("25", 4), ("20", 2), ("15", 1), ("10", 2), ("5", 2), ("2.5", 2), ("1.25", 1))
    ),
    dumbbells=tuple(Decimal(5) / 2 * step for step in range(1, 21)),
)
"""What an ordinary gym has; the kit until the lifter says what theirs is."""


def lifter(work: Unit_of_work) -> Lifter:
    """The lifter; a new database has one who thinks in kilograms and lives where this machine does."""
    row = work.get(LifterRow, 1)
    if row is None:
        row = LifterRow(id=1, unit=Unit.KG, zone=get_localzone_name() or "UTC")
        work.add(row)
        work.flush()
    return Lifter(unit=Unit(row.unit), zone=row.zone, training_since=row.training_since)


def kit(work: Unit_of_work) -> Kit:
    """The kit of the place in use."""
    row = work.scalars(select(PlaceRow).limit(1)).first()
    return Kit.model_validate(row.kit) if row else USUAL_KIT


def save_kit(work: Unit_of_work, new: Kit) -> None:
    """Make `new` the kit of the place in use."""
    work.merge(PlaceRow(id=1, kit=new.model_dump(mode="json")))


def body_kg(work: Unit_of_work, on: date) -> Decimal | None:
    """Body weight on a day: the latest one taken by then, else the earliest there is."""
    before = select(BodyWeightRow).where(BodyWeightRow.on <= on).order_by(BodyWeightRow.on.desc())
    row = work.scalars(before.limit(1)).first()
    row = row or work.scalars(select(BodyWeightRow).order_by(BodyWeightRow.on).limit(1)).first()
    return row.kg if row else None


def save_body_weight(work: Unit_of_work, on: date, kg: Decimal) -> None:
    """Keep a body weight; a second one on a day replaces the first."""
    work.merge(BodyWeightRow(on=on, kg=kg))
