"""A session put in order by hand: its lifts moved and paired, its numbers turned."""

from enum import StrEnum

from fastapi import APIRouter
from pydantic import BaseModel, Field

from fortis.api.problems import ProblemDetail
from fortis.api.work import Work
from fortis.api.written import Written
from fortis.core.structure.arranging import EntryAt, doubled, joined, moved, moved_whole, parted, without
from fortis.core.structure.model import Session
from fortis.core.structure.notation import LONGEST_LINE, NotationError, Reading, examine
from fortis.core.structure.numbers import WrittenNumber, numbers
from fortis.core.structure.writing import write
from fortis.store import lifter

router = APIRouter(prefix="/api/compose", tags=["compose"])


class OneLine(BaseModel):
    """One line of a text."""

    line: str = Field(max_length=LONGEST_LINE)


class Act(StrEnum):
    """What can be done to the lift on a line; `before` and `onto` are about the lift on the target line."""

    EARLIER = "earlier"
    LATER = "later"
    PAIR = "pair"
    PART = "part"
    COPY = "copy"
    REMOVE = "remove"
    BEFORE = "before"
    ONTO = "onto"


class Arranging(Written):
    """A text, a line in it, and what to do to its lift. `before` without a target is to the end."""

    line: int = Field(ge=1)
    act: Act
    target: int | None = Field(default=None, ge=1)


class Arranged(BaseModel):
    """The text arranged anew, and the line to go to."""

    written: str
    line: int


@router.post("/numbers")
def show_numbers(asked: OneLine) -> list[WrittenNumber]:
    """The numbers of a line, each with its place, so that they can be turned by hand."""
    return list(numbers(asked.line))


@router.post("/arrange", responses={422: {"model": ProblemDetail}})
def arrange(asked: Arranging, work: Work) -> Arranged:
    """The text with a lift moved, paired, parted, doubled or taken out; the rest of it in its canonical form.

    A text with slips in it is refused, because what cannot be read cannot be kept in its place.
    """
    reading = examine(asked.written, asked.unit or lifter.lifter(work).unit)
    if reading.problems:
        raise NotationError(reading.problems)
    entry_at = _entry_on(reading, asked.line)
    target = _entry_on(reading, asked.target) if asked.target else None
    session, group = _arranged(reading.session, asked.act, entry_at, target)
    written = write(session)
    return Arranged(written=written, line=examine(written).lines[group][0] if session.groups else 1)


def _entry_on(reading: Reading, line: int) -> EntryAt:
    """The entry on a line, the first of its group for the line that opens one, the last above it for any other."""
    entries = [
        (line, (group, entry)) for group, lines in enumerate(reading.lines) for entry, line in enumerate(lines)
    ]
    above = [entry_at for at, entry_at in entries if at <= line]
    following = next((entry_at for at, entry_at in entries if at > line), None)
    on_it = any(at == line for at, _ in entries)
    if not on_it and following and following[1] == 0 and len(reading.lines[following[0]]) > 1:
        return following
    return above[-1] if above else (0, 0)


def _arranged(session: Session, act: Act, entry_at: EntryAt, target: EntryAt | None) -> tuple[Session, int]:
    """The session arranged anew, and the group to go to."""
    group, end = entry_at[0], len(session.groups)
    match act:
        case Act.EARLIER:
            return (moved_whole(session, group, group - 1), group - 1) if group else (session, group)
        case Act.LATER:
            return (moved_whole(session, group, group + 2), group + 1) if group + 1 < end else (session, group)
        case Act.PAIR:
            return (joined(session, (group + 1, 0), group), group) if group + 1 < end else (session, group)
        case Act.PART:
            return parted(session, group), group
        case Act.COPY:
            return doubled(session, entry_at), group + 1
        case Act.REMOVE:
            rest = without(session, entry_at)
            return rest, max(min(group, len(rest.groups) - 1), 0)
        case Act.ONTO if target:
            onto = target[0]
            result = joined(session, entry_at, onto)
            return result, onto - (1 if group < onto and len(result.groups) < end else 0)
    to = end if target is None else target[0]
    result = moved(session, entry_at, to)
    return result, to - (1 if group < to and len(result.groups) <= end else 0)
