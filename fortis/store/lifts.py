"""The lifts a lifter has added or changed, beside the library's."""

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.cache import cached
from fortis.core.exercises import LIBRARY, Exercise, Library, one_form
from fortis.formats.documents import from_document, to_document
from fortis.store.tables import LiftRow

KNOWN = "library"
"""Under this a unit of work keeps the library it has read."""


class NameTakenError(ValueError):
    """Another lift has that name."""


def own_lifts(work: UnitOfWork) -> tuple[Exercise, ...]:
    """The lifter's own lifts, by name."""
    lifts = (from_document(Exercise, lift) for (lift,) in work.connection().execute(select(LiftRow.lift)))
    return tuple(sorted(lifts, key=lambda lift: one_form(lift.name)))


def library(work: UnitOfWork) -> Library:
    """Every lift that is known here: the library with the lifter's own over it."""
    if KNOWN not in work.info:
        work.info[KNOWN] = _with_own(own_lifts(work))
    known: Library = work.info[KNOWN]
    return known


@cached(8)
def _with_own(own: tuple[Exercise, ...]) -> Library:
    """The same library for the same lifts, so that what follows from it can be kept."""
    return LIBRARY.with_lifts(own) if own else LIBRARY


def save_lift(work: UnitOfWork, lift: Exercise) -> Exercise:
    """Keep a lift, new or changed. One named as a lift that is known stands in for it, with its history."""
    known = library(work).find(lift.name)
    saved = lift.model_copy(update={"id": known.id, "former_names": known.former_names})
    _save(work, saved)
    return saved


def rename_lift(work: UnitOfWork, name: str, new_name: str) -> Exercise:
    """Call a lift otherwise. Its history stays, and texts that use the former name still mean it.

    Raises `NameTakenError` where another lift is called so, `LookupError` where there is no such lift.
    """
    lifts = library(work)
    lift, other = lifts.find(name), lifts.find(new_name)
    if not lift.known:
        raise LookupError(name)
    if other.known and other.id != lift.id:
        raise NameTakenError(new_name)
    former = tuple(each for each in (*lift.former_names, lift.name) if one_form(each) != one_form(new_name))
    renamed = lift.model_copy(update={"name": new_name, "former_names": tuple(dict.fromkeys(former))})
    _save(work, renamed)
    return renamed


def drop_lift(work: UnitOfWork, name: str) -> None:
    """Take an own lift away; what the library says of it, if anything, holds again."""
    row = work.get(LiftRow, library(work).find(name).id)
    if row is not None:
        work.delete(row)
        work.info.pop(KNOWN, None)


def _save(work: UnitOfWork, lift: Exercise) -> None:
    work.merge(LiftRow(id=lift.id, lift=to_document(lift)))
    work.info.pop(KNOWN, None)
