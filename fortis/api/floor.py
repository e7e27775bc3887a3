"""Floor: a session played, every bout saved as it happens."""

from collections.abc import Callable
from datetime import date, datetime, timedelta
from decimal import Decimal
from functools import reduce
from typing import Annotated, NamedTuple
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Depends, HTTPException, Path, Response
from pydantic import AwareDatetime, BaseModel, Field

from fortis.api import lookups
from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, card
from fortis.api.work import Device, Now, Work, WritingDatabase, WritingWork, commits, in_turn
from fortis.core.adjustments import Adjustments, Change, Load, until_followed, with_change
from fortis.core.exercises import LiftName, LoadKind, stand_ins
from fortis.core.foretelling import foretell
from fortis.core.loading.moved import body_share
from fortis.core.loading.resistance import resistance_of
from fortis.core.performance import Ended, LoadSource, PerformedBout, asked_of
from fortis.core.played import as_played
from fortis.core.progression.advice import Bar
from fortis.core.progression.advice_table import AdviceTable, all_advice
from fortis.core.progression.within_range import Choice, choices
from fortis.core.strength.curve import DEFAULT_CURVE
from fortis.core.strength.observation import Heard
from fortis.core.strength.slowing import SLOWING, Slowing
from fortis.core.strength.tracker import is_believable
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.pace import USUAL_PACE, Pace
from fortis.core.structure.prescription import Position, Prescription
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.tally.work import Conditions, tonnage
from fortis.core.units import Unit, plain
from fortis.core.value import Entered, Flag, Kilograms
from fortis.store import bouts, lifter, places, recording, sessions
from fortis.store.database import Database, engine_of
from fortis.store.in_play import InPlay, at_hand, in_play
from fortis.store.lifts import library
from fortis.store.played import conditions, last_prepared
from fortis.store.recording import Provenance
from fortis.store.sessions import NotStartedError
from fortis.store.tables import SessionRow
from fortis.store.transaction import transaction

router = APIRouter(
    prefix="/api/floor", tags=["floor"], responses={404: {"model": ProblemDetail}, 422: {"model": ProblemDetail}}
)


MOST_LOOKED_BACK = 30
"""Sessions looked back on for cues."""


class Recorded(BaseModel):
    """A bout in the record. `version` counts how often it was recorded.

    `tonnage_kg` is what it adds to the tonnage. `rest_seconds` is the rest really taken before it. Where nobody
    said when it began, `began_at` is None, and so is the rest.
    """

    bout: PerformedBout
    tonnage_kg: Kilograms
    began_at: datetime | None
    done_at: datetime
    rest_seconds: int | None
    version: int


class Cue(BaseModel):
    """What the lifter noted at a lift the last time there was anything to note."""

    exercise: str
    text: str
    on: datetime


class Changes(BaseModel):
    """What a device changed of the plan, one change after the other."""

    changes: list[Change] = Field(min_length=1, max_length=1000)


class FloorView(SessionCard):
    """A session to play, with everything that playing it without a connection needs.

    `timeline` is the session as planned, `adjustments` what was changed of it since, `advice` that of the session
    as it is played. `choices` are the loads of planned ranges, by the position of their first bout. `stand_ins`
    has for each lift of the plan those that can be done instead. `prepared_on` has for each preparation the last
    day before on which it was done, in the order of the plan; None where it never was.
    """

    unit: Unit
    timeline: Timeline
    pace: Pace
    bouts: list[Recorded]
    adjustments: Adjustments
    advice: AdviceTable
    choices: dict[str, tuple[Choice, ...]]
    slowing: list[Slowing]
    cues: list[Cue]
    stand_ins: dict[str, list[str]]
    prepared_on: list[date | None]


class Saved(BaseModel):
    """The version in which a bout was saved, and what it adds to the tonnage.

    `word` says what was put right about what was told, such as a time to come.
    """

    version: int
    tonnage_kg: Kilograms
    word: str = ""


class TakenBack(BaseModel):
    """The version in which a bout was taken back; None where there was none."""

    version: int | None


class Finished(BaseModel):
    """When a session was finished, where that was before it could be said."""

    finished_at: AwareDatetime | None = None


class BoutDone(BaseModel):
    """A bout as it went. `kg` is the load handled, the added one for body-weight lifts (negative: assistance).

    `reserve` is in steps of a half, with `or_more` a lower bound. `seen` is the version that a correction was
    made from.
    """

    exercise: LiftName
    setup: SetUp = SetUp()
    side: Side = Side.BOTH
    kg: Load | None = None
    reps: int = Field(ge=0, le=500)
    partial_reps: int = Field(default=0, ge=0, le=500)
    seconds: int = Field(default=0, ge=0, le=3600)
    reserve: Annotated[Entered, Field(ge=Decimal(0), le=Decimal(10), multiple_of=Decimal("0.5"))] | None = None
    or_more: Flag = False
    ended: Ended | None = None
    note: str = Field(default="", max_length=500)
    rep_seconds: list[Annotated[float, Field(ge=0, le=3600)]] = Field(default=[], max_length=500)
    began_at: AwareDatetime | None = None
    done_at: AwareDatetime | None = None
    seen: int | None = None


Counted = Annotated[int, Path(ge=1, le=1000)]
WarmUpOrSet = Annotated[int, Path(ge=0, le=1000)]


async def _position(group: Counted, round: Counted, entry: Counted, set: WarmUpOrSet, bout: Counted) -> Position:
    return Position(group=group, round=round, entry=entry, set=set, bout=bout)


At = Annotated[Position, Depends(_position)]
"""The position in the session that a bout's address names."""


@router.get("/{session_id}")
def show(session_id: UUID, work: Work, now: Now) -> FloorView:
    """A session to play."""
    return _view(work, sessions.get(work, str(session_id)), now)


def _view(work: Work, row: SessionRow, now: datetime) -> FloorView:
    started = row.started_at is not None
    planned = sessions.frozen(row) if started else lookups.plan_of(work, row, now)
    known, adjustments = library(work), sessions.adjustments(row)
    as_it_is = as_played(planned, adjustments, known)
    as_it_was, followed = until_followed(adjustments)
    under = conditions(work, row)
    kit = under.kit or places.kit(work, row.place_id)
    body_kg = under.body_kg if started else lifter.body_kg(work, lifter.today(work, now))
    lifts = {each.exercise: each.lift for each in (*planned.sets, *as_it_is.sets)}
    bar = Bar(kit, body_kg)
    in_time, known_then = timeline(planned), lookups.basis_of(work, row, now)
    return FloorView(
        **card(row).model_dump(),
        unit=Unit(row.unit),
        timeline=in_time if started else foretell(in_time, planned, known_then),
        pace=USUAL_PACE,
        bouts=recorded(work, row),
        adjustments=adjustments,
        advice=all_advice(
            as_played(planned, as_it_was, known),
            bar,
            known_then.estimates,
            lookups.bests(work, as_it_is, now),
            followed,
        ),
        choices=choices(planned, bar),
        slowing=list(SLOWING),
        cues=cues_of(work, row, as_it_is, now),
        stand_ins={name: [other.name for other in stand_ins(lift, known)] for name, lift in lifts.items()},
        prepared_on=last_prepared(work, planned.prep, row.started_at or now),
    )


def recorded(work: Work, row: SessionRow) -> list[Recorded]:
    """The bouts of a session in the record, in the order they were done."""
    found = []
    under, known = conditions(work, row), library(work)
    before: datetime | None = None
    for done in bouts.of(work, row.id):
        rest = None
        if done.began_at and before:
            rest = max(round((done.began_at - before).total_seconds()), 0)
        found.append(
            Recorded(
                bout=done.bout,
                tonnage_kg=tonnage([done.bout], under, known),
                began_at=done.began_at,
                done_at=done.done_at,
                rest_seconds=rest,
                version=done.version,
            )
        )
        before = done.done_at
    return found


def cues_of(work: Work, row: SessionRow, prescription: Prescription, now: datetime) -> list[Cue]:
    """For each lift of the session as played the notes of the last session that has any for it."""
    wanted = {each.lift.id: each.exercise for each in prescription.sets}
    cues: list[Cue] = []
    known = library(work)
    before = sessions.finished_ids(work, before=row.started_at or now, limit=MOST_LOOKED_BACK)
    for done in bouts.of_all(work, before).values():
        noted = [each for each in done if each.bout.note]
        found = [(each, known.find(each.bout.exercise, each.bout.lift_id).id) for each in noted]
        cues += [
            Cue(exercise=wanted[lift_id], text=each.bout.note, on=each.done_at)
            for each, lift_id in found
            if lift_id in wanted
        ]
        for _, lift_id in found:
            wanted.pop(lift_id, None)
    return cues


@router.patch("/{session_id}/adjustments")
@commits
def adjust(session_id: UUID, changed: Changes, work: WritingWork, now: Now) -> Adjustments:
    """Change the plan on the floor. What another device changed meanwhile stays; sent twice is sent once."""
    row = sessions.get(work, str(session_id))
    _start(work, row, now)
    adjustments = reduce(with_change, changed.changes, sessions.adjustments(row))
    sessions.adjust(row, adjustments)
    return adjustments


@router.post("/{session_id}/start")
async def start(session_id: UUID, starting: WritingWork, work: Work, now: Now) -> FloorView:
    """Start a session: its loads are settled and stay so. A second start changes nothing."""
    await _started(session_id, now, work=starting)
    return await to_thread.run_sync(show, session_id, work, now)


@commits
def _started(session_id: UUID, now: datetime, *, work: WritingWork) -> None:
    """Write that it was started. What playing it needs is worked out after: nobody who writes waits for it."""
    _start(work, sessions.get(work, str(session_id)), now)


@router.put("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", responses={409: {"model": ProblemDetail}})
async def record(
    session_id: UUID, at: At, done: BoutDone, database: WritingDatabase, now: Now, device: Device = ""
) -> Saved:
    """Save a bout in its position. Sent twice it is one bout; sent with other numbers it is corrected."""
    told = _Told(str(session_id), at, done, now, device)
    return await in_turn(lambda: _new(database, told) or _any(database, told))


class _Told(NamedTuple):
    """A bout as a device told it."""

    session_id: str
    at: Position
    done: BoutDone
    now: datetime
    device: str

    def bout(self, playing: InPlay) -> tuple[PerformedBout, Provenance, str]:
        """The bout, where it comes from, and a word about what is odd; empty where nothing is."""
        by, word = _provenance(playing, self.done.began_at, self.done.done_at, self.now, self.device)
        if self.at not in playing.planned and (beyond := playing.prescription.beyond(self.at)) is not None:
            raise HTTPException(422, f"The session has {beyond}.")
        bout = _performed(playing, self.at, self.done)
        return bout, by, word or _question(playing, bout)


def _new(database: Database, told: _Told) -> Saved | None:
    """Save a bout that is new, of a session at hand, as nearly every one is. None for any other."""
    with transaction(engine_of(database)) as writing:
        playing = at_hand(writing, told.session_id)
        if playing is None:
            return None
        bout, by, word = told.bout(playing)
        if not recording.record_new(writing.driver, playing.id, bout, by):
            return None
        tonnage_kg = _tonnage(playing, bout, lambda: lifter.body_kg_at_once(writing, playing.day))
    return Saved(version=1, tonnage_kg=tonnage_kg, word=word)


def _any(database: Database, told: _Told) -> Saved:
    """Save a bout of any session, started with it where it was not, new or corrected."""
    with database.begin() as work:
        playing = _in_play(work, told.session_id, told.now)
        bout, by, word = told.bout(playing)
        version = recording.record(work, playing.id, bout, by, told.done.seen)
        tonnage_kg = _tonnage(playing, bout, lambda: lifter.body_kg(work, playing.day))
    return Saved(version=version, tonnage_kg=tonnage_kg, word=word)


def _in_play(work: Work, session_id: str, now: datetime) -> InPlay:
    """A session under way, started now where it was not."""
    try:
        return in_play(work, session_id)
    except NotStartedError:
        _start(work, sessions.get(work, session_id), now)
        work.flush()
        return in_play(work, session_id)


def _question(playing: InPlay, bout: PerformedBout) -> str:
    """What to ask of a bout that cannot be so by the max its load was settled from; empty where nothing is odd."""
    each, planned = playing.planned.get(bout.position, (None, None))
    settled = planned.settled if planned else None
    if each is None or each.lift.id != bout.lift_id or settled is None or settled.body or not settled.percent:
        return ""
    max_kg = float(settled.kg / settled.percent * 100)
    if bout.kg is None or is_believable(max_kg, DEFAULT_CURVE, Heard(float(bout.kg), 0.0, bout.reps)):
        return ""
    return (
        f"{bout.reps} at {plain(bout.kg)} kg, with a max of about {max_kg:.0f} kg? It is kept as told, and says "
        "nothing of your max until you correct it."
    )


def _tonnage(playing: InPlay, bout: PerformedBout, body_kg: Callable[[], Decimal | None]) -> Decimal:
    """What a bout adds to the tonnage; body weight is looked up only where it is moved."""
    moves_body = body_share(playing.known.find(bout.exercise, bout.lift_id), bout.body) != 0
    under = Conditions(body_kg() if moves_body else None, playing.kit, playing.ways)
    return tonnage([bout], under, playing.known)


@router.delete(
    "/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", responses={409: {"model": ProblemDetail}}
)
@commits
def take_back(
    session_id: UUID, at: At, work: WritingWork, now: Now, seen: int | None = None, device: Device = ""
) -> TakenBack:
    """Take a bout back. The record keeps what it was."""
    row = sessions.get(work, str(session_id))
    by = Provenance(at=now, done_at=now, device=device)
    return TakenBack(version=recording.take_back(work, row.id, at, by, seen))


@router.post("/{session_id}/finish", responses={409: {"model": ProblemDetail}})
@commits
def finish(session_id: UUID, work: WritingWork, now: Now, finished: Finished | None = None) -> SessionCard:
    """Finish a session. A second finish changes nothing."""
    row = sessions.get(work, str(session_id))
    sessions.finish(row, (finished and finished.finished_at) or now, now)
    return card(row)


@router.delete("/{session_id}/finish", status_code=204)
@commits
def reopen(session_id: UUID, work: WritingWork) -> Response:
    """Open a finished session again: it is under way as it was."""
    sessions.reopen(sessions.get(work, str(session_id)))
    return Response(status_code=204)


def _start(work: Work, row: SessionRow, now: datetime) -> None:
    if row.started_at is None:
        plan = lookups.plan_of(work, row, now)
        place = places.current_place(work)
        row.zone = lifter.lifter(work).zone
        row.place_id = place.id
        sessions.start(row, plan, places.kit_of(place), now)


SLACK = timedelta(minutes=2)
"""Clocks of two devices are never quite together."""


def _provenance(
    playing: InPlay, began_at: datetime | None, done_at: datetime | None, now: datetime, device: str
) -> tuple[Provenance, str]:
    """When a bout was done, as far as it can be.

    Not before its session, not to come. And a word where it was put right.
    """
    claimed = done_at or now
    ended = max(min(claimed, now), playing.started_at)
    began = min(max(began_at, playing.started_at), ended) if began_at else None
    word = ""
    if abs(claimed - ended) > SLACK:
        word = (
            f"This device's clock says {claimed:%d %B %Y, %H:%M} UTC, which is "
            f"{'to come' if claimed > now else 'before the session began'}: the bout is kept at {ended:%H:%M} UTC."
        )
    return Provenance(at=now, done_at=ended, began_at=began, device=device), word


_AS_TOLD = BoutDone.model_fields.keys() - {"began_at", "done_at", "seen", "rep_seconds"}
"""What a bout is kept with as it was told."""


def _performed(playing: InPlay, at: Position, done: BoutDone) -> PerformedBout:
    """A bout as it is kept: as told, with what was asked as played, and what hung on it."""
    lift = playing.known.find(done.exercise)
    each, planned = playing.planned.get(at, (None, None))
    same = each is not None and each.lift.id == lift.id
    settled = planned.settled if planned and same else None
    pulls = resistance_of(done.setup, playing.kit)
    hung = done.kg if pulls.top_kg and done.kg is not None else None
    source = None
    if settled and done.kg is not None:
        planned_source = LoadSource.ADVICE if settled.advised else LoadSource.PLAN
        source = planned_source if done.kg == settled.kg else LoadSource.OWN
    return PerformedBout(
        **{name: getattr(done, name) for name in _AS_TOLD},
        position=at,
        lift_id=lift.id,
        body=lift.load_kind is LoadKind.BODY or bool(settled and settled.body),
        bottom_kg=None if hung is None else hung + pulls.bottom_kg,
        top_kg=None if hung is None else hung + pulls.top_kg,
        mean_kg=None if hung is None else hung + pulls.mean_kg,
        rep_seconds=tuple(done.rep_seconds),
        asked=asked_of(planned) if planned else None,
        source=source or (LoadSource.OWN if done.kg is not None else None),
    )
