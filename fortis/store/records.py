"""The best of every lift, set-up and tempo, as the whole record has it."""

import json
from collections.abc import Collection, Iterable, Sequence
from datetime import date, datetime
from decimal import Decimal
from typing import Any, NamedTuple

from sqlalchemy import Float, cast, func, null, select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import LoadKind
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.remembered import NOWHERE
from fortis.core.structure.model import Lifting, LiftKey, RangeOfMotion, SetUp, Side, Tempo
from fortis.core.tally.records import Alike, Best, Bests, tempo_key
from fortis.core.tally.work import Conditions, tonnage
from fortis.formats.documents import from_document
from fortis.store import lifter, sessions
from fortis.store.cache import Kept
from fortis.store.lifts import library
from fortis.store.stamp import finished_stamp, stamp
from fortis.store.tables import BoutRow, SessionRow


def alike(bout: PerformedBout) -> Alike | None:
    """What a bout is comparable with; None where it is with none: halves, help, no load, no full rep."""
    asked = bout.asked
    if bout.kg is None or not bout.reps or bout.position.is_warm_up:
        return None
    if asked and (asked.range_of_motion is not RangeOfMotion.FULL or asked.lifting is not Lifting.ALONE):
        return None
    return Alike(bout.lift_id, bout.setup.key, tempo_key(asked.tempo if asked else None))


MOST_KEPT = 32
_bests: Kept[Bests] = Kept(MOST_KEPT)


def bests(work: UnitOfWork, lift_ids: Collection[str], before: datetime) -> Bests:
    """What was done of some lifts in the finished sessions before a moment: each load and reps once.

    Kept for as long as those sessions stay as they are: what is done in the one under way changes nothing.
    """
    key, follows_from = frozenset(lift_ids), (finished_stamp(work, before), lifter.lifter(work).zone)
    return _bests.get_or(work, key, follows_from, lambda: _read_bests(work, lift_ids, before))


def _read_bests(work: UnitOfWork, lift_ids: Collection[str], before: datetime) -> Bests:
    each_once = BoutRow.lift_id, BoutRow.alike, BoutRow.setup, BoutRow.kg, BoutRow.reps
    query = (
        select(*each_once, func.min(BoutRow.done_at), func.max(BoutRow.done_at))
        .where(
            BoutRow.lift_id.in_(lift_ids),
            BoutRow.alike.is_not(None),
            BoutRow.session_id.not_in(select(SessionRow.id).where(sessions.others(before))),
        )
        .group_by(*each_once)
    )
    found: dict[Alike, dict[tuple[Decimal, int], Best]] = {}
    rows: Iterable[Any] = work.execute(query)
    for lift_id, tempo, setup, kg, reps, first, last in rows:
        key = Alike(lift_id, SetUp(items=tuple(setup)).key, _tempo(tempo))
        of_kind = found.setdefault(key, {})
        # the database tells 0 from 0.0, and a set-up from the same in another order
        days = [lifter.today(work, first), lifter.today(work, last)]
        if same := of_kind.get((kg, reps)):
            days += [same.on, same.last_on or same.on]
        of_kind[kg, reps] = Best(kg, reps, min(days), max(days))
    return {key: list(of_kind.values()) for key, of_kind in found.items()}


class Volume(NamedTuple):
    """What a lift with a set-up came to on a day: its tonnage, and the most it weighed at the top."""

    on: date
    tonnage_kg: Decimal
    top_kg: Decimal | None


_volumes: Kept[Sequence[Volume]] = Kept(MOST_KEPT)


def volumes(work: UnitOfWork, key: LiftKey, before: datetime) -> Sequence[Volume]:
    """What a lift with a set-up came to in each finished session before a moment, the earliest first.

    Kept for as long as those sessions, and all that their bouts are counted by, stay as they are.
    """
    return _volumes.get_or(work, key, stamp(work, before), lambda: _added_up(work, key, before))


def _added_up(work: UnitOfWork, key: LiftKey, before: datetime) -> Sequence[Volume]:
    """Bouts alike are added up by the database: a long log has far more of them than of sessions."""
    lift_id, setup_key = key
    stacked = library(work).find("", lift_id).load_kind is LoadKind.STACK
    alike_columns = (BoutRow.exercise, BoutRow.setup, BoutRow.side, BoutRow.body, BoutRow.kg, BoutRow.mean_kg)
    query = (
        select(
            SessionRow.id,
            SessionRow.started_at,
            SessionRow.zone,
            (SessionRow.kit if stacked else null()).label("gym"),
            func.sum(BoutRow.reps).label("reps"),
            func.sum(BoutRow.partial_reps).label("partial_reps"),
            func.max(cast(BoutRow.top_kg, Float)).label("top"),
            *alike_columns,
        )
        .join(SessionRow, SessionRow.id == BoutRow.session_id)
        .where(BoutRow.lift_id == lift_id, BoutRow.taken_back_at.is_(None), BoutRow.set > 0)
        .where(
            SessionRow.finished_at.is_not(None), SessionRow.discarded_at.is_(None), SessionRow.started_at < before
        )
        .group_by(SessionRow.id, *alike_columns)
        .order_by(SessionRow.started_at, SessionRow.id)
    )
    adding = _Adding(work)
    found: dict[str, Volume] = {}
    for row in work.execute(query):
        if SetUp(items=tuple(row.setup)).key != setup_key:
            continue
        on = sessions.day_in(row.zone, row.started_at)
        done = PerformedBout(
            position=NOWHERE,
            exercise=row.exercise,
            lift_id=lift_id,
            side=Side(row.side),
            body=row.body,
            kg=row.kg,
            mean_kg=row.mean_kg,
            reps=row.reps,
            partial_reps=row.partial_reps,
        )
        so_far = found.get(row.id, Volume(on, Decimal(0), None))
        tops = [kg for kg in (so_far.top_kg, row.top and Decimal(str(row.top))) if kg is not None]
        total = so_far.tonnage_kg + adding.tonnage(done, on, row.gym)
        found[row.id] = Volume(on, total, max(tops, default=None))
    return list(found.values())


class _Adding:
    """Adds up bouts in the lifter's way; the kits of gyms are read once each."""

    def __init__(self, work: UnitOfWork) -> None:
        self.work, self.known, self.ways = work, library(work), lifter.lifter(work).ways
        self._kits: dict[str, Kit] = {}

    def tonnage(self, done: PerformedBout, on: date, kit: dict[str, Any] | None) -> Decimal:
        """What a bout comes to that was done on a day with a kit."""
        under = Conditions(lifter.body_kg(self.work, on), self._kit(kit), self.ways)
        return tonnage([done], under, self.known)

    def _kit(self, kept: dict[str, Any] | None) -> Kit | None:
        if kept is None:
            return None
        name = json.dumps(kept, sort_keys=True)
        return self._kits.get(name) or self._kits.setdefault(name, from_document(Kit, kept))


def _tempo(asked: str) -> str:
    return tempo_key(Tempo.model_validate_json(asked)) if asked else ""
