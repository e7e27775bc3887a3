"""The lifts that are known, and the lifter's own among them."""

from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter, HTTPException, Response
from pydantic import BaseModel, Field, ValidationInfo, field_validator

from fortis.api.problems import ProblemDetail
from fortis.api.work import Work, WritingWork, commits
from fortis.core.exercises import Exercise, LiftName, LoadKind, Muscle, one_form
from fortis.core.value import Entered, Flag
from fortis.store import lifts as store

router = APIRouter(prefix="/api/compose/lifts", tags=["compose"])

WritableName = Annotated[LiftName, Field(pattern=r"^[^\[\]:;#\x00-\x1f]+$")]
"""The name of a lift that can stand in a text."""


class LiftToKeep(BaseModel):
    """What a lift of the lifter's own is; its name stands in the address."""

    load_kind: LoadKind
    pattern: str = Field(min_length=1, max_length=40)
    prime: list[Muscle] = Field(min_length=1, max_length=6)
    helping: list[Muscle] = Field(default=[], max_length=8)
    rep_seconds: int = Field(default=3, ge=1, le=20)
    usual_low: int = Field(default=5, ge=1, le=500)
    usual_high: int = Field(default=15, ge=1, le=500)
    body_share: Annotated[Entered, Field(ge=Decimal(0), le=Decimal(1))] = Decimal(0)
    one_sided: Flag = False
    small: Flag = False
    failing_is_safe: Flag = False
    pins: Flag = False
    loads_spine: Flag = False
    unracks: Flag = False

    @field_validator("usual_high")
    @classmethod
    def _rising(cls, high: int, fields: ValidationInfo) -> int:
        if high < fields.data.get("usual_low", high):
            raise ValueError("the usual reps go from fewer to more")
        return high


class LiftView(Exercise):
    """A lift, and whether it is the lifter's own."""

    own: bool


class NewName(BaseModel):
    """What a lift is to be called."""

    name: WritableName


@router.get("")
def lifts(work: Work) -> list[LiftView]:
    """All lifts that are known here by name, the lifter's own marked."""
    own = {lift.id for lift in store.own_lifts(work)}
    known = sorted(store.library(work), key=lambda lift: one_form(lift.name))
    return [LiftView(**lift.model_dump(), own=lift.id in own) for lift in known]


@router.put("/{name:path}", responses={422: {"model": ProblemDetail}})
@commits
def keep_lift(name: WritableName, lift: LiftToKeep, work: WritingWork) -> LiftView:
    """Add a lift of one's own or change one; named as a lift of the library it stands in for it."""
    saved = store.save_lift(work, Exercise(name=name, **lift.model_dump()))
    return LiftView(**saved.model_dump(), own=True)


@router.post("/{name:path}", responses={404: {"model": ProblemDetail}, 409: {"model": ProblemDetail}})
@commits
def rename_lift(name: WritableName, new: NewName, work: WritingWork) -> LiftView:
    """Call a lift otherwise. Its history stays with it, and texts that use the former name still mean it."""
    try:
        renamed = store.rename_lift(work, name, new.name)
    except LookupError as error:
        raise HTTPException(404, f"There is no lift called {name}.") from error
    return LiftView(**renamed.model_dump(), own=True)


@router.delete("/{name:path}", status_code=204)
@commits
def drop_lift(name: WritableName, work: WritingWork) -> Response:
    """Take an own lift away; the library's, where there is one, holds again."""
    store.drop_lift(work, name)
    return Response(status_code=204)
