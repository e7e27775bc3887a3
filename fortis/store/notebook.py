"""The record as a lifter's notebook: what was done and what is planned, in the written notation."""

from collections.abc import Iterator
from datetime import date
from itertools import groupby
from operator import attrgetter

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.logged_session import put_together
from fortis.core.units import Unit
from fortis.store import sessions
from fortis.store.lifter import lifter
from fortis.store.lifts import library
from fortis.store.log import logged


def notebook(work: UnitOfWork) -> Iterator[str]:
    """Every session as text under its title and day: those that were done, in order, then those planned."""
    known, unit = library(work), lifter(work).unit
    for _, done in groupby(logged(work), key=attrgetter("session")):
        bouts = list(done)
        day = bouts[0].performed_at.date()
        session = put_together(bouts, Unit(unit), known)
        yield _headed(session.session.title, day, session.written)
    for row in sessions.planned(work):
        yield _headed(row.title, row.planned_on, row.written)


def _headed(title: str, day: date | None, written: str) -> str:
    """A text under its title and day."""
    lines = written.strip().splitlines()
    body = lines[1:] if lines[0].startswith("#") else lines
    return "\n".join([f"# {title}, {day or 'planned'}", *body, "", ""])
