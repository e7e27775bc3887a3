"""The lifter and their body weight."""

from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

from sqlalchemy import Date, Select, String, bindparam, func, select, type_coerce
from sqlalchemy.orm import Session as UnitOfWork
from tzlocal import get_localzone_name

from fortis.core.conventions import USUAL, Conventions
from fortis.core.loading.strip import PlateOrder
from fortis.core.loading.warm_up import School
from fortis.core.tally.body_weight import Weighed, interpolated
from fortis.core.units import Unit
from fortis.core.value import Value
from fortis.formats.documents import from_document, to_document
from fortis.store.tables import BodyWeightRow, LifterRow
from fortis.store.transaction import Prepared, Transaction

LIFTER = "lifter"
"""Under this a unit of work holds on to the row of the lifter: SQLAlchemy lets go of rows that nobody holds."""
WEIGHED = "body weights"
"""Under this a unit of work keeps the body weights it has read, by period."""
DAYS_AT_ONCE = 128


class Lifter(Value):
    """The unit a lifter thinks in, their time zone's name, when they began to train, and how they warm up.

    `training_since` is None where they did not say, `warm_ups` where they plan none. `plate_order` is how they like
    their plates hung, `ways` how they count.
    """

    unit: Unit
    zone: str
    training_since: date | None = None
    warm_ups: School | None = School.FEW
    plate_order: PlateOrder = PlateOrder.BIG_INSIDE
    ways: Conventions = USUAL


def lifter_row(work: UnitOfWork) -> LifterRow:
    """The row of the one lifter; a new one thinks in kilograms and lives where this machine does."""
    row = work.get(LifterRow, 1)
    if row is None:
        row = LifterRow(
            id=1,
            unit=Unit.KG,
            zone=get_localzone_name() or "UTC",
            warm_ups=School.FEW,
            plate_order=PlateOrder.BIG_INSIDE,
        )
        work.add(row)
        work.flush()
    work.info[LIFTER] = row
    return row


def lifter(work: UnitOfWork) -> Lifter:
    """The lifter."""
    row = lifter_row(work)
    school = School(row.warm_ups) if row.warm_ups else None
    return Lifter(
        unit=Unit(row.unit),
        zone=row.zone,
        training_since=row.training_since,
        warm_ups=school,
        plate_order=PlateOrder(row.plate_order),
        ways=from_document(Conventions, row.ways) if row.ways else USUAL,
    )


NOVICE_FOR = timedelta(days=365)


def is_novice(work: UnitOfWork, on: date) -> bool:
    """Whether the lifter had trained for less than a year on a day; not, where they did not say."""
    since = lifter(work).training_since
    return since is not None and on - since < NOVICE_FOR


def save_lifter(
    work: UnitOfWork,
    unit: Unit,
    training_since: date | None,
    warm_ups: School | None,
    plate_order: PlateOrder = PlateOrder.BIG_INSIDE,
    ways: Conventions = USUAL,
) -> None:
    """Keep what the lifter says of themselves."""
    row = lifter_row(work)
    row.unit, row.training_since, row.warm_ups, row.plate_order = unit, training_since, warm_ups, plate_order
    row.ways = to_document(ways)


def today(work: UnitOfWork, moment: datetime) -> date:
    """The date where the lifter lives."""
    return moment.astimezone(ZoneInfo(lifter(work).zone)).date()


def begins(work: UnitOfWork, on: date) -> datetime:
    """When a day begins where the lifter lives."""
    return datetime.combine(on, time.min, ZoneInfo(lifter(work).zone))


def last_body_weights(work: UnitOfWork, many: int) -> Sequence[Weighed]:
    """The last so many body weights taken, the newest first."""
    query = select(BodyWeightRow.on, BodyWeightRow.kg).order_by(BodyWeightRow.on.desc()).limit(many)
    return [Weighed(on=on, kg=kg) for on, kg in work.execute(query)]


def weighed(work: UnitOfWork) -> str:
    """Every body weight with its day, in one text: another one wherever any of them is another."""
    each = type_coerce(BodyWeightRow.on, String) + ":" + type_coerce(BodyWeightRow.kg, String)
    return work.scalar(select(func.group_concat(each))) or ""


def body_kg(work: UnitOfWork, on: date) -> Decimal | None:
    """Body weight on a day, between the weights taken around it; None where none was ever taken."""
    known: dict[int, Sequence[Weighed]] = work.info.setdefault(WEIGHED, {})
    period = on.toordinal() // DAYS_AT_ONCE
    if period not in known:
        known[period] = _around(work, period)
    return interpolated(known[period], on)


def body_kg_at_once(writing: Transaction, on: date) -> Decimal | None:
    """The same by the driver alone."""
    rows = _AROUND_AT_ONCE.run(writing.driver, {"first": on, "last": on})
    return interpolated([Weighed.model_validate({"on": day, "kg": kg}) for day, kg in rows], on)


def _around(work: UnitOfWork, period: int) -> Sequence[Weighed]:
    """The body weights of a period with the last one before it and the first one after it."""
    first = date.fromordinal(max(period * DAYS_AT_ONCE, 1))
    last = date.fromordinal(min((period + 1) * DAYS_AT_ONCE - 1, date.max.toordinal()))
    return [Weighed(on=on, kg=kg) for on, kg in work.execute(_AROUND, {"first": first, "last": last})]


def _weighed_around() -> Select[date, Decimal]:
    day, first, last = BodyWeightRow.on, bindparam("first", type_=Date), bindparam("last", type_=Date)
    since = select(func.coalesce(func.max(day), first)).where(day <= first).scalar_subquery()
    until = select(func.coalesce(func.min(day), last)).where(day >= last).scalar_subquery()
    return select(day, BodyWeightRow.kg).where(day >= since, day <= until).order_by(day)


_AROUND = _weighed_around()
_AROUND_AT_ONCE = Prepared(_AROUND)


def save_body_weight(work: UnitOfWork, on: date, kg: Decimal) -> None:
    """Keep a body weight; a second one on a day replaces the first."""
    work.merge(BodyWeightRow(on=on, kg=kg, import_id=None))
    work.info.pop(WEIGHED, None)


def delete_body_weight(work: UnitOfWork, on: date) -> None:
    """Take a body weight away."""
    row = work.get(BodyWeightRow, on)
    if row is not None:
        work.delete(row)
    work.info.pop(WEIGHED, None)
