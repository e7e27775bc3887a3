"""The lifter and their body weight."""

from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork
from tzlocal import get_localzone_name

from fortis.core.loading.warm_up import School
from fortis.core.tally.body_weight import Weighed, interpolated
from fortis.core.units import Unit
from fortis.core.value import Value
from fortis.store.tables import BodyWeightRow, LifterRow


class Lifter(Value):
    """The unit a lifter thinks in, their time zone's name, when they began to train, and how they warm up.

    `training_since` is None where they did not say, `warm_ups` where they plan none.
    """

    unit: Unit
    zone: str
    training_since: date | None = None
    warm_ups: School | None = School.FEW


def lifter_row(work: UnitOfWork) -> LifterRow:
    """The row of the one lifter; a new one thinks in kilograms and lives where this machine does."""
    row = work.get(LifterRow, 1)
    if row is None:
        row = LifterRow(id=1, unit=Unit.KG, zone=get_localzone_name() or "UTC", warm_ups=School.FEW)
        work.add(row)
        work.flush()
    return row


def lifter(work: UnitOfWork) -> Lifter:
    """The lifter."""
    row = lifter_row(work)
    school = School(row.warm_ups) if row.warm_ups else None
    return Lifter(unit=Unit(row.unit), zone=row.zone, training_since=row.training_since, warm_ups=school)


def save_lifter(work: UnitOfWork, unit: Unit, training_since: date | None, warm_ups: School | None) -> None:
    """Keep what the lifter says of themselves."""
    row = lifter_row(work)
    row.unit, row.training_since, row.warm_ups = unit, training_since, warm_ups


def body_weights(work: UnitOfWork) -> Sequence[Weighed]:
    """Every body weight taken, the earliest first."""
    rows = work.scalars(select(BodyWeightRow).order_by(BodyWeightRow.on))
    return [Weighed(on=row.on, kg=row.kg) for row in rows]


def body_kg(work: UnitOfWork, on: date) -> Decimal | None:
    """Body weight on a day, between the weights taken around it; None where none was ever taken."""
    return interpolated(body_weights(work), on)


def save_body_weight(work: UnitOfWork, on: date, kg: Decimal) -> None:
    """Keep a body weight; a second one on a day replaces the first."""
    work.merge(BodyWeightRow(on=on, kg=kg))


def forget_body_weight(work: UnitOfWork, on: date) -> None:
    """Take a body weight away."""
    row = work.get(BodyWeightRow, on)
    if row is not None:
        work.delete(row)
