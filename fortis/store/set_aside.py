"""Cautions the lifter has set aside for good, for one lift or for all."""

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.cautions.caution import Caution
from fortis.store.tables import SetAsideRow

EVERY_LIFT = ""
"""Stands for all lifts."""


def set_aside(work: UnitOfWork, rule: str, lift_id: str = EVERY_LIFT) -> None:
    """Set a rule aside for a lift, or for all. Twice is once."""
    work.merge(SetAsideRow(rule=rule, lift_id=lift_id))


def bring_back(work: UnitOfWork, rule: str, lift_id: str = EVERY_LIFT) -> None:
    """Let a rule speak again."""
    row = work.get(SetAsideRow, (rule, lift_id))
    if row is not None:
        work.delete(row)


def all_set_aside(work: UnitOfWork) -> frozenset[tuple[str, str]]:
    """Every rule set aside, with the id of the lift it was set aside for."""
    return frozenset((row.rule, row.lift_id) for row in work.scalars(select(SetAsideRow)))


def heard(work: UnitOfWork, cautions: tuple[Caution, ...]) -> tuple[Caution, ...]:
    """The cautions that have not been set aside."""
    silent = all_set_aside(work)
    return tuple(
        caution
        for caution in cautions
        if not {(caution.rule, EVERY_LIFT), (caution.rule, caution.lift_id)} & silent
    )
