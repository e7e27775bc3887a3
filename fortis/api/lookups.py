"""What requests ask of the record again and again, cached until the record changes."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.basis import Basis
from fortis.core.cautions.caution import Log
from fortis.core.progression.carried import Carries
from fortis.core.structure.prescription import Prescription
from fortis.store import planning
from fortis.store.cache import cached
from fortis.store.lifter import today
from fortis.store.played import played
from fortis.store.tables import SessionRow


def basis(work: UnitOfWork, now: datetime) -> Basis:
    """What loads are settled from."""
    return cached(work, ("basis", today(work, now)), lambda: planning.basis(work, now))


def carried_to(work: UnitOfWork, slot: str, now: datetime) -> Sequence[Carries]:
    """What the last session of a slot carries to the next one."""
    key = "carried", today(work, now), slot
    return cached(work, key, lambda: planning.carried_to(work, slot, now))


def plan_of(work: UnitOfWork, row: SessionRow, now: datetime) -> Prescription:
    """A session with its loads settled: as it is played, or from the record as it stands."""
    if row.started_at is not None:
        return played(work, row)
    return planning.settled(row, basis(work, now), carried_to(work, row.slot, now))


def log(work: UnitOfWork, now: datetime) -> Log:
    """What cautions look at beside a plan."""
    return cached(work, ("log", today(work, now)), lambda: planning.log(work, now))


def overruns(work: UnitOfWork, now: datetime) -> list[float]:
    """How the lifter's sessions ran against their plans."""
    return cached(work, ("overruns", today(work, now)), lambda: planning.overruns(work, now))
