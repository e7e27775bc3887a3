"""Finding sessions by what is said of them: words of their plan, structures, lifts and set-ups, notes, dates."""

from calendar import month_abbr, month_name
from collections.abc import Iterator

from sqlalchemy import ColumnElement, String, and_, exists, func, or_, type_coerce

from fortis.core.exercises import Library, one_form
from fortis.store.tables import BoutRow, SessionRow

MOST_WORDS = 12
_MONTHS = {
    name.casefold(): number for names in (month_name, month_abbr) for number, name in enumerate(names) if name
} | {"sept": 9}


def found_by(text: str, lifts: Library) -> ColumnElement[bool]:
    """What sessions must meet to be found: each of the first `MOST_WORDS` in their plan, their bouts or their date.

    A plan is found by what its structures are called too, a lift by what it is called now and was called before.
    """
    return and_(True, *(or_(*_meets(word, lifts)) for word in one_form(text).split()[:MOST_WORDS]))


def _meets(word: str, lifts: Library) -> Iterator[ColumnElement[bool]]:
    yield SessionRow.title.icontains(word, autoescape=True)
    yield SessionRow.written.icontains(word, autoescape=True)
    yield SessionRow.structures.icontains(word, autoescape=True)
    told = (BoutRow.exercise, type_coerce(BoutRow.setup, String), BoutRow.note)
    called = [lift.id for lift in lifts if any(word in one_form(name) for name in (lift.name, *lift.former_names))]
    in_a_bout = or_(*(column.icontains(word, autoescape=True) for column in told), BoutRow.lift_id.in_(called))
    yield exists().where(BoutRow.session_id == SessionRow.id, BoutRow.taken_back_at.is_(None), in_a_bout)
    yield func.strftime("%Y-%m-%d", SessionRow.started_at).startswith(word, autoescape=True)
    if month := _MONTHS.get(word):
        yield func.strftime("%m", SessionRow.started_at) == f"{month:02}"
    if word.isdecimal() and 1 <= int(word) <= 31:
        yield func.strftime("%d", SessionRow.started_at) == f"{int(word):02}"
