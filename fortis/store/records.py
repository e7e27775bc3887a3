"""The best of every lift, set-up and tempo, as the whole record has it."""

from collections.abc import Collection, Mapping, Sequence
from datetime import date, datetime
from decimal import Decimal
from typing import NamedTuple

from sqlalchemy import exists, func, select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.performance import PerformedBout
from fortis.core.structure.model import Lifting, LiftKey, RangeOfMotion, SetUp, Tempo
from fortis.core.tally.records import Alike, Best, tempo_key
from fortis.core.tally.work import tonnage
from fortis.store import bouts, lifter, sessions
from fortis.store.lifts import library
from fortis.store.played import conditions
from fortis.store.tables import BoutRow, SessionRow


def alike(bout: PerformedBout) -> Alike | None:
    """What a bout is comparable with; None where it is with none: halves, help, no load, no full rep."""
    asked = bout.asked
    if bout.kg is None or not bout.reps or bout.position.is_warm_up:
        return None
    if asked and (asked.range_of_motion is not RangeOfMotion.FULL or asked.lifting is not Lifting.ALONE):
        return None
    return Alike(bout.lift_id, bout.setup.key, tempo_key(asked.tempo if asked else None))


def bests(work: UnitOfWork, lift_ids: Collection[str], before: datetime) -> Mapping[Alike, Sequence[Best]]:
    """What was done of some lifts in the finished sessions before a moment: each load and reps once."""
    asked = BoutRow.asked
    tempo, motion, lifting = (
        func.json_extract(asked, f"$.{name}") for name in ("tempo", "range_of_motion", "lifting")
    )
    query = (
        select(
            BoutRow.lift_id,
            BoutRow.setup,
            tempo,
            BoutRow.kg,
            BoutRow.reps,
            func.min(BoutRow.done_at),
            func.max(BoutRow.done_at),
        )
        .join(SessionRow, SessionRow.id == BoutRow.session_id)
        .where(
            BoutRow.lift_id.in_(lift_ids),
            BoutRow.taken_back_at.is_(None),
            BoutRow.set > 0,
            BoutRow.reps > 0,
            BoutRow.kg.is_not(None),
            SessionRow.finished_at.is_not(None),
            SessionRow.discarded_at.is_(None),
            SessionRow.started_at < before,
            func.coalesce(motion, RangeOfMotion.FULL.value) == RangeOfMotion.FULL.value,
            func.coalesce(lifting, Lifting.ALONE.value) == Lifting.ALONE.value,
        )
        .group_by(BoutRow.lift_id, BoutRow.setup, tempo, BoutRow.kg, BoutRow.reps)
    )
    found: dict[Alike, list[Best]] = {}
    for lift_id, setup, asked_tempo, kg, reps, first, last in work.execute(query):
        key = Alike(lift_id, SetUp(items=tuple(setup)).key, _tempo(asked_tempo))
        days = lifter.today(work, first), lifter.today(work, last)
        found.setdefault(key, []).append(Best(Decimal(kg), reps, *days))
    return found


class Volume(NamedTuple):
    """What a lift with a set-up came to on a day: its tonnage, and the most it weighed at the top."""

    on: date
    tonnage_kg: Decimal
    top_kg: Decimal | None


def volumes(work: UnitOfWork, key: LiftKey, before: datetime) -> Sequence[Volume]:
    """What a lift with a set-up came to in each finished session before a moment, the earliest first."""
    lift_id, setup_key = key
    query = (
        select(SessionRow)
        .where(
            SessionRow.finished_at.is_not(None), SessionRow.discarded_at.is_(None), SessionRow.started_at < before
        )
        .where(exists().where(BoutRow.session_id == SessionRow.id, BoutRow.lift_id == lift_id))
        .order_by(SessionRow.started_at)
    )
    known = library(work)
    found = []
    for rows in work.scalars(query).partitions(AT_ONCE):
        done = bouts.of_all(work, [row.id for row in rows])
        for row in rows:
            of_lift = [
                bout
                for bout in (each.bout for each in done[row.id])
                if bout.lift_id == lift_id and bout.setup.key == setup_key and not bout.position.is_warm_up
            ]
            if of_lift and (day := sessions.day_of(row)):
                tops = [bout.top_kg for bout in of_lift if bout.top_kg is not None]
                total = tonnage(of_lift, conditions(work, row), known)
                found.append(Volume(day, total, max(tops, default=None)))
    return found


AT_ONCE = 100
"""Sessions that are read at once."""


def _tempo(asked: str | None) -> str:
    return "" if asked is None else tempo_key(Tempo.model_validate_json(asked))
