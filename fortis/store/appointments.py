"""What is planned for a day, as a calendar shows it."""

from collections.abc import Iterator

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.units import Unit
from fortis.formats.calendar import Appointment
from fortis.store import sessions


def appointments(work: UnitOfWork) -> Iterator[Appointment]:
    """The sessions that are planned for a day and not started, the earliest first."""
    for row in sessions.planned(work):
        if row.planned_on is not None:
            seconds = timeline(lay_out(read(row.written, Unit(row.unit)))).total_seconds
            yield Appointment(row.id, row.planned_on, row.title, row.written, max(round(seconds / 60), 1))
