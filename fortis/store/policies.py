"""How each lift is to progress, where the lifter chose."""

from collections.abc import Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.progression.policy import Policy
from fortis.formats.documents import from_document, to_document
from fortis.store.tables import PolicyRow


def choose(work: UnitOfWork, lift_id: str, policy: Policy) -> None:
    """Choose how a lift progresses, by its id."""
    work.merge(PolicyRow(lift_id=lift_id, policy=to_document(policy)))


def all_of(work: UnitOfWork) -> Mapping[str, Policy]:
    """The policies that were chosen, by the lift's id."""
    return {row.lift_id: from_document(Policy, row.policy) for row in work.scalars(select(PolicyRow))}
