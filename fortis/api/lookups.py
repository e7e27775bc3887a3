"""What requests ask of the record again and again, cached until the record changes."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.basis import Basis
from fortis.core.cautions.caution import Log
from fortis.core.progression.carried import Carries
from fortis.core.strength.readiness import Meaning
from fortis.core.structure.model import Session
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.records import Bests
from fortis.core.units import Unit
from fortis.store import planning, readiness, records, went
from fortis.store.cache import cached
from fortis.store.lifter import today
from fortis.store.played import played
from fortis.store.tables import SessionRow


def basis(work: UnitOfWork, now: datetime) -> Basis:
    """What loads are settled from."""
    return cached(work, ("basis", today(work, now)), lambda: planning.basis(work, now))


def basis_of(work: UnitOfWork, row: SessionRow, now: datetime) -> Basis:
    """What the loads of a session are settled from: the maxes as they are expected on the day."""
    shift = readiness_shift(work, row, now)
    if not shift:
        return basis(work, now)
    return cached(work, ("basis", today(work, now), shift), lambda: basis(work, now).on_a_day(shift))


def readiness_meant(work: UnitOfWork, now: datetime) -> Meaning:
    """What readiness has been worth to the lifter."""
    return cached(work, ("readiness", today(work, now)), lambda: went.readiness_meant(work, now))


def readiness_shift(work: UnitOfWork, row: SessionRow, now: datetime) -> float:
    """How far readiness moves what is expected of a session that is not over."""
    said = readiness.told(work, row.id)
    return 0.0 if said.score is None else readiness_meant(work, now).shift(said)


def bests(work: UnitOfWork, prescription: Prescription, now: datetime) -> Bests:
    """What was done before with the lifts of a session that is not over."""
    lifts = frozenset(each.lift.id for each in prescription.sets)
    return cached(work, ("bests", today(work, now), lifts), lambda: records.bests(work, lifts, now))


def carried_to(work: UnitOfWork, slot: str, session: Session, now: datetime) -> Sequence[Carries]:
    """What the sessions of a slot carry to the lines of the next one."""
    behind = cached(work, ("slot", today(work, now), slot), lambda: planning.slot_of(work, slot, now))
    return planning.carried_to(
        behind, session, lambda each: cached(work, ("carried", each), lambda: planning.carries_of(work, each))
    )


def plan_of(work: UnitOfWork, row: SessionRow, now: datetime) -> Prescription:
    """A session with its loads settled: as it is played, or from the record as it stands."""
    if row.started_at is not None:
        return played(work, row)
    session = read(row.written, Unit(row.unit))
    return planning.settled(row, basis_of(work, row, now), carried_to(work, row.slot, session, now))


def log(work: UnitOfWork, now: datetime) -> Log:
    """What cautions look at beside a plan."""
    return cached(work, ("log", today(work, now)), lambda: planning.log(work, now))


def overruns(work: UnitOfWork, now: datetime) -> list[float]:
    """How the lifter's sessions ran against their plans."""
    return cached(work, ("overruns", today(work, now)), lambda: planning.overruns(work, now))
