"""The places a lifter trains in, each with its kit; sessions belong to one."""

from collections.abc import Sequence
from decimal import Decimal

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import LoadKind, one_form
from fortis.core.loading.kit import USUAL_PLATES, Bar, Kit, Machine, read_plates
from fortis.formats.documents import from_document, to_document
from fortis.store.lifter import lifter_row
from fortis.store.tables import PlaceRow, SessionRow

USUAL_KIT = Kit(
    place="Gym",
    bars=(
        Bar(name="20 kg bar", kind=LoadKind.BAR, kg=Decimal(20), count=2),
        Bar(name="25 kg trap bar", kind=LoadKind.TRAP_BAR, kg=Decimal(25)),
        Bar(name="25 kg safety bar", kind=LoadKind.SAFETY_BAR, kg=Decimal(25)),
    ),
    plates=read_plates(USUAL_PLATES),
    dumbbells=tuple(Decimal(5) / 2 * step for step in range(1, 21)),
    machines=(Machine(name="Machines and cables"),),
)
"""What an ordinary gym has; the kit until the lifter says what theirs is."""
FIRST = 1


class UnknownPlaceError(LookupError):
    """There is no place of that number."""


class PlaceNameTakenError(ValueError):
    """Another place has that name."""


class LastPlaceError(ValueError):
    """The only place there is cannot be left."""


def places(work: UnitOfWork) -> Sequence[PlaceRow]:
    """All places; a new record has one ordinary gym."""
    rows = work.scalars(select(PlaceRow).order_by(PlaceRow.id)).all()
    if rows:
        return rows
    row = PlaceRow(id=FIRST, kit=to_document(USUAL_KIT))
    work.add(row)
    work.flush()
    return [row]


def current_place(work: UnitOfWork) -> PlaceRow:
    """The place in use."""
    chosen = lifter_row(work).place_id
    rows = places(work)
    return next((row for row in rows if row.id == chosen), rows[0])


def go_to(work: UnitOfWork, place_id: int) -> None:
    """Put a place in use. Raises `UnknownPlaceError`."""
    lifter_row(work).place_id = _get(work, place_id).id


def kit_of(row: PlaceRow) -> Kit:
    """The kit of a place."""
    return from_document(Kit, row.kit)


def kit(work: UnitOfWork, place_id: int | None = None) -> Kit:
    """The kit of a place, or of the one in use."""
    row = work.get(PlaceRow, place_id) if place_id is not None else None
    return kit_of(row or current_place(work))


def kit_at(work: UnitOfWork, place_id: int) -> Kit:
    """The kit of one place. Raises `UnknownPlaceError`."""
    return kit_of(_get(work, place_id))


def save_kit(work: UnitOfWork, new: Kit, place_id: int | None = None) -> PlaceRow:
    """Make `new` the kit of a place, of the one in use where none is named. Raises `UnknownPlaceError`.

    Raises `PlaceNameTakenError` where it would be called as another one.
    """
    row = current_place(work) if place_id is None else _get(work, place_id)
    other = _called(work, new.place)
    if other is not None and other is not row and one_form(kit_of(row).place) != one_form(new.place):
        raise PlaceNameTakenError(new.place)
    row.kit = to_document(new)
    return row


def add_place(work: UnitOfWork, new: Kit) -> PlaceRow:
    """Add a place with its kit; added twice, it is there once.

    Raises `PlaceNameTakenError` where a place with another kit is called so.
    """
    there = _called(work, new.place)
    if there is not None:
        if kit_of(there) != new:
            raise PlaceNameTakenError(new.place)
        return there
    row = PlaceRow(id=max(row.id for row in places(work)) + 1, kit=to_document(new))
    work.add(row)
    work.flush()
    return row


def leave_place(work: UnitOfWork, place_id: int) -> None:
    """Take a place away; its sessions stay and belong to none. Raises `LastPlaceError` for the only one."""
    row = _get(work, place_id)
    if len(places(work)) == 1:
        raise LastPlaceError(place_id)
    if lifter_row(work).place_id == place_id:
        lifter_row(work).place_id = None
    for session in work.scalars(select(SessionRow).where(SessionRow.place_id == place_id)):
        session.place_id = None
    work.flush()
    work.delete(row)


def _called(work: UnitOfWork, name: str) -> PlaceRow | None:
    return next((row for row in places(work) if one_form(kit_of(row).place) == one_form(name)), None)


def _get(work: UnitOfWork, place_id: int) -> PlaceRow:
    places(work)
    row = work.get(PlaceRow, place_id)
    if row is None:
        raise UnknownPlaceError(place_id)
    return row
