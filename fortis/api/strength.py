"""Strength: what every lift's max is, what it is known from, and how well Fortis knows the lifter."""

from collections.abc import Iterator, Sequence
from datetime import date, datetime
from typing import Annotated
from uuid import UUID
from zoneinfo import ZoneInfo

from fastapi import APIRouter, HTTPException, Query, Response
from pydantic import BaseModel, Field

from fortis.api.lift_records import Day, LiftRecords, lift_records
from fortis.api.problems import ProblemDetail
from fortis.api.views import Bounds, with_bounds
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.api.written import Written
from fortis.core.exercises import LONGEST_NAME
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.policy import BY_EFFORT, Policy
from fortis.core.remembered import read_remembered
from fortis.core.replay import Summary, replay
from fortis.core.season.stalls import Stall, stalled
from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import recovered
from fortis.core.strength.tracker import Profile, Reading
from fortis.core.structure.model import LiftKey, SetUp
from fortis.core.tally.contrasts import Contrast, What, contrasts
from fortis.core.tally.evidence import Kind, kinds
from fortis.core.tally.sides import sides_of
from fortis.core.units import plain
from fortis.store import lifter, maxes, policies, remembered
from fortis.store.cache import cached
from fortis.store.lifts import library
from fortis.store.maxes import Taught, Trained
from fortis.store.shown import by_what_was_known

router = APIRouter(prefix="/api/strength", tags=["strength"])


class KnownLift(BaseModel):
    """A lift with its set-up whose max is known, how often it was trained, and when last."""

    lift_id: str
    setup_key: str
    exercise: str
    setup: str
    max: Bounds
    sessions: int
    last_on: date


class Called(BaseModel):
    """Reps in reserve as called, and how many there are by all that is known."""

    called: int
    left: float


class Rested(BaseModel):
    """The share of what a bout took that a rest brings back."""

    seconds: int
    share: float


class StrengthView(BaseModel):
    """Every lift that is known, the one done last first."""

    lifts: list[KnownLift]
    recovery: list[Rested]


class Observation(BaseModel):
    """A bout, done or remembered, and the fresh max it speaks for by itself.

    `share` is how much of what its session says it says. With `at_least` the max is a lower bound.
    `reps_to_failure` are those done and left as the lifter's calls are read, where that was told; `load_share` is
    the load as a share of the max as it was known after the session.
    """

    at: datetime
    session_id: str | None
    remembered_id: str | None
    kind: Kind
    words: str
    says: Bounds
    at_least: bool
    share: float
    reps_to_failure: float | None
    load_share: float


class ToRemember(Written):
    """A recent set or a max of a lift with a set-up, in the written notation: `5 at 100 kg leave 2`, `120 kg`."""

    exercise: str = Field(min_length=1, max_length=LONGEST_NAME)
    setup: SetUp = SetUp()


class CurvePoint(BaseModel):
    """The share of the max that allows so many reps to failure, by the lifter's curve and by the usual one."""

    reps: int
    share: float
    usual: float


class Doubted(BaseModel):
    """A bout that is taken for a slip of the finger, and counts for nothing until it is corrected."""

    at: datetime
    session_id: str | None
    words: str


class SidesDay(BaseModel):
    """What each side spoke for in a session by itself, in kg of the load handled."""

    at: datetime
    left_kg: float
    right_kg: float


class Noted(BaseModel):
    """A cue for next time, and the session it was noted in."""

    text: str
    on: date
    session_id: str


class Seen(BaseModel):
    """Sessions with something beside those without, in words."""

    text: str
    contrast: Contrast


class LiftStrength(BaseModel):
    """What is known of one lift with one set-up, and from what; sessions and bouts the oldest first.

    `sides` are of the sessions in which both were done. `calls` are how the lifter's calls in this lift are read,
    `policy` how it is to progress, `cues` what was noted at the lift, the latest first. `stall` says how long
    it has been flat, where that is longer than usual. `seen` is what its sessions say of things that were never
    tried on purpose.
    """

    lift: KnownLift
    policy: Policy
    days: list[Day]
    observations: list[Observation]
    curve: list[CurvePoint]
    calls: list[Called]
    doubted: list[Doubted]
    records: LiftRecords
    sides: list[SidesDay]
    cues: list[Noted]
    stall: Stall | None
    seen: list[Seen]


CALLS = (1, 2, 3, 5)
RESTS = (15, 30, 60, 120, 180, 300)
CURVE_REPS = range(1, 21)


@router.get("")
def show(work: Work, now: Now) -> StrengthView:
    """Every lift's max as it is known now."""
    course = maxes.course(work, now)
    known = _latest(course)
    return StrengthView(
        lifts=_known(known, course, now),
        recovery=[Rested(seconds=seconds, share=recovered(seconds)) for seconds in RESTS],
    )


@router.get("/lift", responses={404: {"model": ProblemDetail}})
def show_lift(
    work: Work,
    now: Now,
    lift_id: Annotated[str, Query(max_length=200)],
    setup_key: Annotated[str, Query(max_length=1_000)] = "",
) -> LiftStrength:
    """One lift with one set-up: its max over time with every bout that it is known from.

    Its days begin where a bout first told more than a lower bound.
    """
    key = lift_id, setup_key
    course = maxes.course(work, now)
    known = _latest(course)
    lift = next((each for each in _known(known, course, now) if (each.lift_id, each.setup_key) == key), None)
    if lift is None:
        raise HTTPException(404, "Nothing is known of this lift with this set-up yet.")
    calls = known.calls_of(lift_id)
    taught = list(maxes.of_lift(course, key))
    of = taught[0][2].lift
    first_told = next((at for at, (_, _, each) in enumerate(taught) if each.tells_reps), 0)
    days: list[Day] = []
    observations: list[Observation] = []
    doubted: list[Doubted] = []
    for number, (before, after, each) in enumerate(taught):
        at = each.session.started_at
        if found := after.max_of(key, at):
            body_kg = lifter.body_kg(work, each.session.day)
            if number >= first_told:
                days.append(Day(at=at, session_id=_session_of(each), max=Bounds.of(found), body_kg=body_kg))
            observations.extend(_observations(before, each, found.kg, calls))
        doubted.extend(_doubted(before, each))
    return LiftStrength(
        lift=lift,
        policy=policies.all_of(work).get(lift_id, BY_EFFORT),
        days=days,
        observations=observations,
        curve=_curve(known.curve_of(lift_id)),
        calls=[Called(called=called, left=round(called * calls, 1)) for called in CALLS],
        doubted=doubted,
        records=lift_records(work, of, lift.max.kg, key, days, now),
        sides=_sides(course, key),
        cues=_cues(course, key),
        stall=_stall(course, key, known.max_of(key, now), lifter.today(work, now)),
        seen=[
            Seen(text=_contrast_words(each), contrast=each)
            for each in contrasts(by_what_was_known(course, key, ZoneInfo(lifter.lifter(work).zone)))
        ],
    )


@router.get("/foretold")
def show_foretold(work: Work, now: Now) -> Summary:
    """How far off each bout was foretold before it was seen, beside the published formulas."""

    def replayed() -> Summary:
        return replay(maxes.logged(work, now), library(work)).summary

    return cached(work, ("foretold", now.date()), replayed)


@router.put("/remembered/{remembered_id}", status_code=204)
@commits
def remember(remembered_id: UUID, asked: ToRemember, work: WritingWork, now: Now) -> Response:
    """Keep a set or a max the lifter remembers, under an id the client made; told again, it is changed."""
    lift = library(work).find(asked.exercise)
    unit = asked.unit or lifter.lifter(work).unit
    remembered.save(work, str(remembered_id), read_remembered(asked.written, lift, asked.setup, unit), now)
    return Response(status_code=204)


@router.delete("/remembered/{remembered_id}", status_code=204)
@commits
def forget(remembered_id: UUID, work: WritingWork, now: Now) -> Response:
    """Take a remembered set back."""
    remembered.take_back(work, str(remembered_id), now)
    return Response(status_code=204)


_SEEN = {
    What.SINGLE: ("After a heavy single first", "sessions without one"),
    What.REST: ("After long rests", "short ones of the same session"),
    What.ORDER: ("After other lifts with the same muscles", "sessions in which it came first"),
    What.DAYS: ("With four days and more since the last session", "two and fewer"),
    What.HOUR: ("In the evening", "the morning"),
}


def _contrast_words(found: Contrast) -> str:
    """A contrast in words: reps beyond what was to be expected, one way against the other."""
    opening, other = _SEEN[found.what]
    chance = " That may be chance." if found.may_be_chance else ""
    beside = "" if found.what is What.REST else f" beside {found.without}"
    change = with_bounds(found.change, found.low, found.high, "reps")
    return f"{opening} your sets ran {change} against {other}, {found.times} sessions{beside}.{chance}"


def _stall(course: Sequence[Taught], key: LiftKey, known: Estimate | None, today: date) -> Stall | None:
    """Whether the lift is flat for longer than usual, and what the log suggests."""
    done = (taught for taught in course if not taught.session.remembered)
    went = [(taught.session.day, lift) for taught in done for lift in taught.went if lift.key == key]
    return stalled(went, known, today) if known else None


def _sides(course: Sequence[Taught], key: LiftKey) -> list[SidesDay]:
    """Left against right, session by session."""
    found = []
    for _, _, each in maxes.of_lift(course, key):
        sides = sides_of(rested.bout for rested in each.rested if rested.of_setup)
        if sides:
            found.append(SidesDay(at=each.session.started_at, left_kg=sides.left_kg, right_kg=sides.right_kg))
    return found


def _cues(course: Sequence[Taught], key: LiftKey) -> list[Noted]:
    """The last notes of a lift, each wording once."""
    noted: dict[str, Noted] = {}
    for _, _, each in reversed(list(maxes.of_lift(course, key))):
        for rested in each.rested:
            if (text := rested.bout.note) and text not in noted and not each.session.remembered:
                noted[text] = Noted(text=text, on=each.session.day, session_id=each.session.id)
    return list(noted.values())[:MOST_CUES]


MOST_CUES = 5


def _latest(course: Sequence[Taught]) -> Profile:
    return course[-1].after if course else Profile()


def _known(known: Profile, course: Sequence[Taught], now: datetime) -> list[KnownLift]:
    """The lifts that are known, the one done last first."""
    done: dict[LiftKey, list[Trained]] = {}
    for each in (each for taught in course for each in taught.lifts):
        done.setdefault(each.key, []).append(each)
    found = []
    for key, of_lift in done.items():
        last = of_lift[-1]
        if max_ := known.max_of(key, now):
            bout = next(each.bout for each in last.rested if each.of_setup)
            found.append(
                KnownLift(
                    lift_id=key[0],
                    setup_key=key[1],
                    exercise=last.lift.name,
                    setup=str(bout.setup),
                    max=Bounds.of(max_),
                    sessions=sum(each.session.remembered is None for each in of_lift),
                    last_on=last.session.day,
                )
            )
    return sorted(found, key=lambda each: (each.last_on, each.sessions), reverse=True)


def _observations(before: Profile, each: Trained, max_kg: float, calls: float) -> Iterator[Observation]:
    readings = before.readings(each.key, each.session.started_at, each.evidence)
    weights = [0.0 if reading is None else _weight(reading) for reading in readings]
    said = iter(zip(readings, weights, strict=True))
    for rested, kind, heard in zip(each.rested, kinds(each.rested), each.heard, strict=True):
        reading, weight = next(said) if heard else (None, 0.0)
        if heard is None or reading is None or not rested.of_setup:
            continue
        told = None if reading.at_least else heard.reps + (heard.left or 0.0) * calls
        yield Observation(
            at=each.session.started_at,
            session_id=_session_of(each),
            remembered_id=each.session.id if each.session.remembered else None,
            kind=Kind.REMEMBERED if each.session.remembered else kind,
            words=_words(rested.bout),
            says=Bounds(kg=reading.kg, low=reading.low, high=max(reading.high, reading.kg)),
            at_least=reading.at_least,
            share=weight / sum(weights),
            reps_to_failure=told,
            load_share=heard.kg / max_kg,
        )


def _doubted(before: Profile, each: Trained) -> Iterator[Doubted]:
    at = each.session.started_at
    doubted = iter(before.doubted(each.key, at, each.evidence))
    for rested, heard in zip(each.rested, each.heard, strict=True):
        if heard and next(doubted):
            yield Doubted(at=at, session_id=_session_of(each), words=_words(rested.bout))


def _session_of(each: Trained) -> str | None:
    return None if each.session.remembered else each.session.id


def _weight(reading: Reading) -> float:
    """How much a bout says: the less, the wider its bounds."""
    return 1 / max((reading.high - reading.low) / reading.kg, 0.01) ** 2


def _words(bout: PerformedBout) -> str:
    kg = "" if bout.kg is None else f" at {'bw' if bout.body else ''}{'+' if bout.body else ''}{plain(bout.kg)}"
    if bout.ended is Ended.STUCK:
        return f"{bout.reps}{kg}, the next would not move"
    if bout.reserve is None:
        return f"{bout.reps}{kg}, reps left not told"
    return f"{bout.reps}{kg}, {plain(bout.reserve)}{' or more' if bout.or_more else ''} left"


def _curve(curve: RepCurve) -> list[CurvePoint]:
    return [CurvePoint(reps=reps, share=curve.share(reps), usual=DEFAULT_CURVE.share(reps)) for reps in CURVE_REPS]
