"""The ready-made structures: drawn, explained, turned."""

from fastapi import APIRouter
from pydantic import BaseModel, Field

from fortis.api.lifts import WritableName
from fortis.api.problems import ProblemDetail
from fortis.core.resolution import resolve
from fortis.core.structure.methods import METHODS, Method, find_method, write_method
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import Timeline, timeline

router = APIRouter(prefix="/api/compose/methods", tags=["compose"])


class Structure(BaseModel):
    """A structure in writing, and the steps to draw it from."""

    written: str
    timeline: Timeline


class MethodView(Method, Structure):
    """A ready-made structure in its usual form."""


class Turned(BaseModel):
    """The lifts a structure is for, in order, and its dials as turned."""

    lifts: list[WritableName] = Field(default=[], max_length=6)
    dials: dict[str, int] = {}


@router.get("")
def methods() -> list[MethodView]:
    """The ready-made structures, each with its usual form and the steps to draw it from."""
    return [
        MethodView(**method.model_dump(), written=write_method(method), timeline=_as_written(write_method(method)))
        for method in METHODS
    ]


@router.post("/{method_id}", responses={404: {"model": ProblemDetail}})
def write_structure(method_id: str, asked: Turned) -> Structure:
    """Write a structure for the lifts given, its dials turned."""
    written = write_method(find_method(method_id), tuple(asked.lifts), asked.dials)
    return Structure(written=written, timeline=_as_written(written))


def _as_written(written: str) -> Timeline:
    return timeline(resolve(lay_out(read(written))))
