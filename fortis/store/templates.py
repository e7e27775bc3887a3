"""Session texts kept to be used again."""

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.structure.notation import read
from fortis.core.units import Unit
from fortis.store.sessions import UNTITLED
from fortis.store.tables import TemplateRow


def templates(work: UnitOfWork) -> Sequence[TemplateRow]:
    """All templates by title."""
    return work.scalars(select(TemplateRow).order_by(TemplateRow.title)).all()


def save_template(work: UnitOfWork, template_id: str, written: str, unit: Unit) -> TemplateRow:
    """Keep a text as a template, new or changed. Raises `NotationError` for a text that is no session."""
    title = read(written, unit).title or UNTITLED
    return work.merge(TemplateRow(id=template_id, title=title, written=written, unit=unit))


def delete_template(work: UnitOfWork, template_id: str) -> None:
    """Take a template away."""
    row = work.get(TemplateRow, template_id)
    if row is not None:
        work.delete(row)
