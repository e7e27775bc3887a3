"""How each lift is to progress."""

from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel

from fortis.api.problems import ProblemDetail
from fortis.api.work import WritingWork, commits
from fortis.core.progression.policy import MEANINGS, Policy, PolicyKind
from fortis.store import policies

router = APIRouter(prefix="/api/policies", tags=["policies"])


class PolicyMeaning(BaseModel):
    """A way to progress, and what it means in a sentence."""

    kind: PolicyKind
    meaning: str


@router.get("")
def meanings() -> list[PolicyMeaning]:
    """The ways a lift can progress."""
    return [PolicyMeaning(kind=kind, meaning=meaning) for kind, meaning in MEANINGS.items()]


@router.put("/{lift_id:path}", status_code=204, responses={422: {"model": ProblemDetail}})
@commits
def choose(
    lift_id: Annotated[str, Path(min_length=1, max_length=200)], policy: Policy, work: WritingWork
) -> Response:
    """Choose how a lift progresses, with every set-up; what was recommended for it is worked out anew."""
    policies.choose(work, lift_id, policy)
    return Response(status_code=204)
