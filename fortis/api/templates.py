"""Session texts kept to be used again."""

from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel

from fortis.api.problems import ProblemDetail
from fortis.api.work import Work, WritingWork, commits
from fortis.api.written import Written
from fortis.store import lifter
from fortis.store.tables import TemplateRow
from fortis.store.templates import delete_template, save_template, templates

router = APIRouter(prefix="/api/compose/templates", tags=["compose"])


class Template(BaseModel):
    """A session's text kept to be used again."""

    id: str
    title: str
    written: str


@router.get("")
def show_templates(work: Work) -> list[Template]:
    """The texts kept to be used again."""
    return [_template(row) for row in templates(work)]


@router.put("/{template_id}", responses={422: {"model": ProblemDetail}})
@commits
def keep_template(template_id: UUID, asked: Written, work: WritingWork) -> Template:
    """Keep a text as a template under an id the client made; kept again, it is changed."""
    unit = asked.unit or lifter.lifter(work).unit
    return _template(save_template(work, str(template_id), asked.written, unit))


@router.delete("/{template_id}", status_code=204)
@commits
def drop_template(template_id: UUID, work: WritingWork) -> Response:
    """Take a template away."""
    delete_template(work, str(template_id))
    return Response(status_code=204)


def _template(row: TemplateRow) -> Template:
    return Template(id=row.id, title=row.title, written=row.written)
