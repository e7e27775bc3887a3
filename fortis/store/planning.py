"""Plans with their loads settled from the record, and what finished sessions recommend for the next."""

import json
from collections.abc import Callable, Iterable, Sequence
from datetime import date, datetime, timedelta
from typing import NamedTuple

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.basis import Basis
from fortis.core.cautions.caution import Log, overloaded_sets
from fortis.core.exercises import Library
from fortis.core.loading.kit import Kit
from fortis.core.progression.carried import (
    Asked,
    Carries,
    asked_by,
    carry,
    eased,
    from_earlier,
    loads_carried,
    with_carried,
)
from fortis.core.progression.next_loads import Recommendation, recommendations
from fortis.core.resolution import resolve
from fortis.core.structure.model import Session
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription, lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.tally.sides import weaker_sides
from fortis.core.units import Unit
from fortis.store import bouts, lifter, maxes, places, policies, sessions
from fortis.store.cache import Kept
from fortis.store.lifts import library
from fortis.store.played import conditions, played
from fortis.store.stamp import stamp
from fortis.store.tables import SessionRow

MOST_TO_LEARN_FROM = 12


MOST_BASES = 4
_bases: Kept[Basis] = Kept(MOST_BASES)


def basis(work: UnitOfWork, now: datetime) -> Basis:
    """Everything loads are settled from, as known at `now`.

    Kept for the day, for as long as all that it follows from stays the same.
    """
    kit, day = places.kit(work), lifter.today(work, now)
    return _bases.get_or(work, day, (stamp(work, now), kit), lambda: _basis(work, now, kit))


def _basis(work: UnitOfWork, now: datetime, kit: Kit) -> Basis:
    done, known, about = maxes.recent(work, now), library(work), lifter.lifter(work)
    return Basis(
        kit=kit,
        body_kg=lifter.body_kg(work, lifter.today(work, now)),
        estimates=maxes.today(work, now),
        last=maxes.last_loads(work, done),
        weaker=weaker_sides((bout for performed in done.values() for bout in performed), known),
        library=known,
        warm_ups=about.warm_ups,
        plate_order=about.plate_order,
        ways=about.ways,
    )


def settle(session: Session, known: Basis, recommended: Iterable[Carries] = ()) -> Prescription:
    """Lay a session out and settle its loads from what is known and what last time recommends."""
    laid_out = lay_out(session, known.library, known.weaker)
    carried = carry(laid_out, recommended)
    planned = with_carried(laid_out, carried, known.library)
    return resolve(planned, known, loads_carried(planned, carried))


def settled(row: SessionRow, known: Basis, recommended: Iterable[Carries]) -> Prescription:
    """The plan of a session that has not been started, with its loads settled from what is known."""
    prescription = settle(read(row.written, Unit(row.unit)), known, recommended)
    return prescription.model_copy(update={"title": row.title})


def last_of(work: UnitOfWork, slot: str, before: datetime) -> SessionRow | None:
    """The last finished session of a slot that started before a moment."""
    return next(iter(sessions.finished(work, slot=slot, before=before, limit=1)), None)


MOST_RECOMMENDED = 64
_recommended: Kept[tuple[Recommendation, ...]] = Kept(MOST_RECOMMENDED)


def recommended(work: UnitOfWork, row: SessionRow) -> tuple[Recommendation, ...]:
    """What a finished session recommends for the next of its slot, with what was known right after it.

    Kept for as long as all that it follows from stays the same.
    """
    chosen, kit = policies.all_of(work), sessions.frozen_kit(row) or places.kit(work, row.place_id)
    follows_from = stamp(work), row.started_at, row.adjustments, kit, chosen

    def recommend() -> tuple[Recommendation, ...]:
        done, known = bouts.performed(work, row.id), maxes.estimates(work, sessions.just_after(row))
        return recommendations(played(work, row), done, kit, conditions(work, row).body_kg, known, chosen)

    return _recommended.get_or(work, row.id, follows_from, recommend)


LOOKED_BACK, MOST_LOOKED_AT = timedelta(weeks=6), 8
"""A line that the last session of its slot did not have, because that was a light one or another week of a wave,
goes on from the last one that had it, so long and so many sessions ago at most."""


class Behind(NamedTuple):
    """A session of a slot that is over: when it was, and what is written for it."""

    id: str
    day: date
    written: str
    unit: Unit

    def asks(self, known: Library) -> frozenset[Asked]:
        """The lines it had as it is written."""
        return asked_by(lay_out(read(self.written, self.unit), known))


class Slot(NamedTuple):
    """The sessions of a slot that can carry something to its next one, the last one first.

    `idle` is how long ago anything was trained, `known` the lifts as they are now.
    """

    behind: tuple[Behind, ...]
    idle: timedelta
    known: Library


def slot_of(work: UnitOfWork, slot: str, now: datetime) -> Slot:
    """What is behind of a slot."""
    latest = next(iter(sessions.finished(work, before=now, limit=1)), None)
    if latest is None or latest.started_at is None:
        return Slot((), timedelta(0), library(work))
    rows = sessions.finished(work, slot=slot, before=now, limit=MOST_LOOKED_AT)
    recent = [row for row in rows if row is rows[0] or now - (row.started_at or now) <= LOOKED_BACK]
    behind = (
        Behind(row.id, sessions.day_in(row.zone, row.started_at or now), row.written, Unit(row.unit))
        for row in recent
    )
    return Slot(tuple(behind), now - latest.started_at, library(work))


def carries_of(work: UnitOfWork, session_id: str) -> Sequence[Carries]:
    """What a finished session carries to the next of its slot."""
    return [each.carries for each in recommended(work, sessions.get(work, session_id))]


def carried_to(slot: Slot, session: Session, carries_of: Callable[[str], Sequence[Carries]]) -> Sequence[Carries]:
    """What the sessions of a slot carry to the lines of the next one: less after a time without any training.

    `carries_of` tells what one of them does, by its id.
    """
    found: list[Carries] = []
    missing = set(asked_by(lay_out(session, slot.known)))
    for number, each in enumerate(slot.behind):
        if number and not (missing and missing & each.asks(slot.known)):
            continue
        carries = carries_of(each.id)
        if number:
            carries = [from_earlier(own, each.day) for own in carries if own.line in missing]
        found += carries
        missing -= {own.line for own in carries}
    return [eased(each, slot.idle) for each in found]


def log(work: UnitOfWork, now: datetime) -> Log:
    """What cautions look at beside a plan: the seven days before a moment, and how long the lifter has trained."""
    rows = sessions.finished(work, before=now, since=now - timedelta(days=7))
    recorded = bouts.of_all(work, [row.id for row in rows])
    done = [[each.bout for each in recorded[row.id]] for row in rows]
    return Log(
        bouts=tuple(bout for performed in done for bout in performed if not bout.position.is_warm_up),
        overloaded_sets=sum(map(overloaded_sets, done)),
        novice=lifter.is_novice(work, lifter.today(work, now)),
    )


def overruns(work: UnitOfWork, now: datetime) -> list[float]:
    """For each of the lifter's last sessions, the time it took as a multiple of that planned, as it was played."""
    rows = sessions.finished(work, before=now, limit=MOST_TO_LEARN_FROM)
    planned = [_planned_seconds(work, row) for row in rows]
    done = bouts.of_all(work, [row.id for row in rows])
    return [
        sessions.time_on_the_floor(row, done[row.id]).total_seconds() / seconds
        for row, seconds in zip(rows, planned, strict=True)
        if seconds
    ]


_seconds: Kept[int] = Kept(2 * MOST_TO_LEARN_FROM)


def _planned_seconds(work: UnitOfWork, row: SessionRow) -> int:
    """How long a session was to take as it was played: its plan is frozen, so only a change on the floor counts."""
    as_changed = row.started_at, json.dumps(row.adjustments)
    return _seconds.get_or(work, row.id, as_changed, lambda: timeline(played(work, row)).total_seconds)
