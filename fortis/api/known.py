"""What is known of the lifter when a request comes, remembered until the record changes."""

from datetime import datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.cautions.caution import Log
from fortis.core.resolution import Basis
from fortis.store import basis
from fortis.store.memory import remembered


def known_of(work: UnitOfWork, title: str, now: datetime) -> Basis:
    """What the loads of a session called `title` are settled from."""
    on = now.date()
    known = remembered(work, ("basis", on), lambda: basis.untitled_basis(work, now))
    key = "basis", on, title.casefold()
    return remembered(work, key, lambda: basis.with_carried(work, known, title, now))


def log_of(work: UnitOfWork, now: datetime) -> Log:
    """What cautions look at beside a plan."""
    return remembered(work, ("log", now.date()), lambda: basis.log(work, now))


def overruns_of(work: UnitOfWork, now: datetime) -> list[float]:
    """How the lifter's sessions ran against their plans."""
    return remembered(work, ("overruns", now.date()), lambda: basis.overruns(work, now))
