"""The lifts a lifter has added or changed, beside the library's."""

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import LIBRARY, Exercise, Library
from fortis.store.tables import LiftRow


def own_lifts(work: UnitOfWork) -> tuple[Exercise, ...]:
    """The lifter's own lifts, by name."""
    rows = work.scalars(select(LiftRow).order_by(LiftRow.name))
    return tuple(Exercise.model_validate(row.lift) for row in rows)


def library(work: UnitOfWork) -> Library:
    """Every lift that is known here: the library with the lifter's own over it."""
    own = own_lifts(work)
    return LIBRARY.with_lifts(own) if own else LIBRARY


def save_lift(work: UnitOfWork, lift: Exercise) -> None:
    """Keep a lift, new or changed. One named as a lift of the library stands in for it."""
    work.merge(LiftRow(name=lift.name.casefold(), lift=lift.model_dump(mode="json")))


def forget_lift(work: UnitOfWork, name: str) -> None:
    """Take an own lift away; what the library says of that name, if anything, holds again."""
    row = work.get(LiftRow, name.casefold())
    if row is not None:
        work.delete(row)
