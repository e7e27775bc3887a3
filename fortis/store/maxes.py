"""What the record tells of the lifter's strength: current maxes and last loads."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from functools import cached_property, reduce
from operator import attrgetter
from typing import NamedTuple

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import Exercise
from fortis.core.logged import LoggedBout
from fortis.core.performance import PerformedBout
from fortis.core.strength.day import Foretold
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import LiftKey, SetUp, lift_key
from fortis.core.tally.evidence import REMEMBERED, Rested, Timed, by_setup, evidence, tiring
from fortis.core.tally.went import LiftWent, went
from fortis.store import bouts, lifter, remembered, sessions
from fortis.store.bouts import RecordedBout
from fortis.store.cache import Kept
from fortis.store.lifts import library, own_lifts
from fortis.store.tables import SessionRow

STILL_TELLING = timedelta(days=84)
"""Loads of longer ago say little about today's."""


def recent(work: UnitOfWork, now: datetime) -> Mapping[str, Sequence[PerformedBout]]:
    """What was done in the finished sessions that still say something, by their ids, the newest first."""
    begun = sessions.beginnings(work, before=now, since=now - STILL_TELLING)
    done = bouts.of_all(work, [each.id for each in reversed(begun)])
    return {session: tuple(each.bout for each in recorded) for session, recorded in done.items()}


def estimates(work: UnitOfWork, at: datetime) -> Mapping[LiftKey, Estimate]:
    """The max of every lift and set-up as it was known at a moment."""
    return profile(work, at).maxes(at)


def today(work: UnitOfWork, now: datetime) -> Mapping[LiftKey, Estimate]:
    """The max of every lift and set-up today: the same until more is learned, as is all that follows."""
    known = profile(work, now)
    midnight = lifter.begins(work, lifter.today(work, now))
    return known.maxes(max(midnight, known.last_at or midnight))


MOST_KEPT = 300
_profiles: Kept[Profile] = Kept(MOST_KEPT)


def profile(work: UnitOfWork, at: datetime) -> Profile:
    """What was known of the lifter at a moment, from the finished sessions before it and from what they remember.

    What each session added is kept with a stamp of it and of all before it, so that after a change what follows
    from it is worked out again from there on.
    """
    since = _half_year_before(at)
    done = _beginnings(work, at, since)
    stamps = _stamps(work, done)
    known, first = _new(work, since), 0
    for place in range(len(done) - 1, -1, -1):
        if found := _profiles.get(work, (done[place].id, since), stamps[place]):
            known, first = found, place + 1
            break
    for session, stamp, lifts in zip(done[first:], stamps[first:], _lifts(work, done[first:]), strict=True):
        known = _after(work, (session.id, since), stamp, known, lifts)
    return known


class Lesson(NamedTuple):
    """What is known after a lift of a session, and its evidence, each beside what was foretold of it."""

    after: Profile
    beside: Sequence[tuple[Heard, Foretold | None]]


@dataclass(frozen=True)
class Trained:
    """A lift with its set-up in a session, or remembered: what was done, and what of it is evidence of its max."""

    session: sessions.Beginning
    lift: Exercise
    key: LiftKey
    rested: Sequence[Rested]
    heard: Sequence[Heard | None]

    def teach(self, known: Profile) -> Lesson:
        """What it adds to what is known, and its evidence beside what was foretold of it."""
        after, foretold = known.learn(self.key, self.session.started_at, self.evidence, self.lift.prime)
        return Lesson(after, list(zip(self.evidence, foretold, strict=True)))

    @property
    def evidence(self) -> Sequence[Heard]:
        """What of it is evidence."""
        return [each for each in self.heard if each]

    @property
    def tells_reps(self) -> bool:
        """Whether any of it tells the reps to failure, and not only that there were at least so many."""
        return any(each.tells_reps for each in self.evidence)

    def went(self, known: Profile) -> LiftWent:
        """How its bouts with the set-up went, by what was known before the session."""
        foretold = iter(self.teach(known).beside)
        beside = [next(foretold) if heard else None for heard in self.heard]
        own = [at for at, each in enumerate(self.rested) if each.of_setup]
        done = [(self.rested[at].bout, self.heard[at]) for at in own]
        expected = [each[1] for at in own if (each := beside[at])]
        return went(self.key, self.lift.name, done, expected, known.max_of(self.key, self.session.started_at))


@dataclass(frozen=True)
class Taught:
    """What was known before a finished session and after it, and the lifts that were learned from."""

    session: sessions.Beginning
    before: Profile
    lifts: Sequence[Trained]
    after: Profile

    @cached_property
    def went(self) -> tuple[LiftWent, ...]:
        """How each lift with evidence in it went, by what was known before."""
        return tuple(each.went(self.before) for each in self.lifts if any(each.heard))


MOST_TAUGHT = 800
"""More than the sessions of a year: each is asked for in turn, so that fewer would all be gone by the next time."""
_taught: Kept[Taught] = Kept(MOST_TAUGHT)


class CallsBeside(NamedTuple):
    """The calls of a lift in a session beside what was to be expected of its bouts.

    `off` is how many more were called on average than this lifter would usually call, by all that was known before
    each bout.
    """

    lift: Exercise
    setup: SetUp
    bouts: int
    off: float


def calls_beside(work: UnitOfWork, row: SessionRow) -> Sequence[CallsBeside]:
    """How far the calls of a finished session were from what was to be expected, lift by lift."""
    if row.started_at is None:
        return []
    known = profile(work, row.started_at)
    begun = sessions.beginnings(work, before=sessions.just_after(row), since=row.started_at)
    done = [each for each in begun if each.id == row.id]
    found = []
    for each in (each for lifts in _lifts(work, done) for each in lifts):
        known_after, beside = each.teach(known)
        calls = known.calls_of(each.key[0])
        off = [
            (heard.left or 0.0) - (expected.reps - heard.reps) / calls
            for heard, expected in beside
            if expected and heard.tells_reps and not heard.failed
        ]
        known = known_after
        if off:
            setup = next(rested.bout.setup for rested in each.rested if rested.of_setup)
            found.append(CallsBeside(each.lift, setup, len(off), sum(off) / len(off)))
    return found


def course(work: UnitOfWork, at: datetime) -> Sequence[Taught]:
    """What each session taught up to a moment, the oldest first.

    What a session taught is kept for as long as it and all before it stay as they are.
    """
    since = _half_year_before(at)
    done = _beginnings(work, at, since)
    stamps = _stamps(work, done)
    kept = [_taught.get(work, (each.id, since), stamp) for each, stamp in zip(done, stamps, strict=True)]
    lifts = iter(_lifts(work, [session for session, found in zip(done, kept, strict=True) if not found]))
    taught, known = [], _new(work, since)
    for session, stamp, was in zip(done, stamps, kept, strict=True):
        found = was
        if found is None:
            trained, key = next(lifts), (session.id, since)
            found = Taught(session, known, trained, _after(work, key, stamp, known, trained))
            _taught.keep(work, key, stamp, found)
        taught.append(found)
        known = found.after
    return taught


def of_lift(course: Iterable[Taught], key: LiftKey) -> Iterator[tuple[Profile, Profile, Trained]]:
    """What was known before and after each session of a lift with a set-up, with what was done in it."""
    for taught in course:
        for each in taught.lifts:
            if each.key == key:
                yield taught.before, taught.after, each


def _after(
    work: UnitOfWork, key: tuple[str, datetime], stamp: int, before: Profile, lifts: Sequence[Trained]
) -> Profile:
    """What is known after a session, learned where it is not at hand."""
    return _profiles.get_or(
        work, key, stamp, lambda: reduce(lambda known, each: each.teach(known).after, lifts, before)
    )


def logged(work: UnitOfWork, at: datetime) -> Sequence[LoggedBout]:
    """The bouts that the maxes of a moment were learned from, as a log tells them; those with a load only."""
    done = sessions.beginnings(work, before=at, since=_half_year_before(at))
    recorded, lifts = bouts.of_all(work, [each.id for each in done]), library(work)
    return [
        LoggedBout(
            performed_at=each.done_at,
            session=session.id,
            exercise=lifts.find(each.bout.exercise, each.bout.lift_id).name,
            **each.bout.model_dump(include=_AS_LOGGED),
            group=each.bout.position.group,
            set=each.bout.position.set,
            bout=each.bout.position.bout,
            load_kg=each.bout.kg,
            body_kg=lifter.body_kg(work, session.day),
            is_warm_up=each.bout.position.is_warm_up,
        )
        for session in done
        for each in recorded[session.id]
        if each.bout.kg is not None
    ]


_AS_LOGGED = {"setup", "side", "reps", "partial_reps", "seconds", "reserve", "or_more", "ended"}


def _new(work: UnitOfWork, at: datetime) -> Profile:
    """What is known of a lifter of whom nothing was seen."""
    return Profile.of_novice() if lifter.is_novice(work, at.date()) else Profile()


def _beginnings(work: UnitOfWork, before: datetime, since: datetime) -> Sequence[sessions.Beginning]:
    """The finished sessions and the remembered sets within a time, the oldest first."""
    told = remembered.told(work, before=before, since=since)
    found = [sessions.Beginning(each, at, lifter.today(work, at), bout) for each, at, bout in told]
    return sorted([*sessions.beginnings(work, before=before, since=since), *found], key=attrgetter("started_at"))


def _half_year_before(at: datetime) -> datetime:
    """When the half of the year before that of a moment began: the same for months, so that what is kept stays."""
    half = at.replace(month=1 if at.month <= 6 else 7, day=1, hour=0, minute=0, second=0, microsecond=0)
    return half.replace(month=1) if half.month == 7 else half.replace(year=half.year - 1, month=7)


def _stamps(work: UnitOfWork, done: Sequence[sessions.Beginning]) -> Sequence[int]:
    """For each session what changes when it, or anything before it that it is understood by, does."""
    versions = bouts.versions_of(work, [each.id for each in done])
    stamp = hash((own_lifts(work), lifter.lifter(work).training_since))
    stamps = []
    for each in done:
        stamp = hash((stamp, each, versions.get(each.id, 0), lifter.body_kg(work, each.day)))
        stamps.append(stamp)
    return stamps


def _lifts(work: UnitOfWork, done: Sequence[sessions.Beginning]) -> Sequence[Sequence[Trained]]:
    recorded = bouts.of_all(work, [each.id for each in done if not each.remembered])
    return [
        [_remembered(work, each, each.remembered)] if each.remembered else _trained(work, each, recorded[each.id])
        for each in done
    ]


def _trained(work: UnitOfWork, session: sessions.Beginning, recorded: Sequence[RecordedBout]) -> Sequence[Trained]:
    body_kg, lifts = lifter.body_kg(work, session.day), library(work)
    by_lift: dict[str, tuple[Exercise, list[Timed]]] = {}
    for each in recorded:
        if not each.bout.position.is_warm_up:
            lift = lifts.find(each.bout.exercise, each.bout.lift_id)
            timed = Timed(each.bout, each.done_at, each.began_at)
            by_lift.setdefault(lift.id, (lift, []))[1].append(timed)
    tired = [tiring(each, lift) for lift, done in by_lift.values() for each in done]
    return [
        Trained(session, lift, key, rested, evidence(rested, lift, body_kg))
        for lift, done in by_lift.values()
        for key, rested in by_setup(done, lift, tired)
    ]


def _remembered(work: UnitOfWork, told: sessions.Beginning, bout: PerformedBout) -> Trained:
    """A remembered set as a session of its own: it was some time ago, so it says less than one that was seen."""
    lift = library(work).find(bout.exercise, bout.lift_id)
    rested = [Rested(bout, 0.0)]
    heard = evidence(rested, lift, lifter.body_kg(work, told.day))
    return Trained(
        told, lift, lift_key(lift, bout.setup), rested, [each and each._replace(vague=REMEMBERED) for each in heard]
    )


def last_loads(work: UnitOfWork, done: Mapping[str, Sequence[PerformedBout]]) -> Mapping[LiftKey, Decimal]:
    """The heaviest load of each lift and set-up in the latest of some sessions that had it, the newest first."""
    last: dict[LiftKey, Decimal] = {}
    for session, performed in done.items():
        last = {**_heaviest(work, session, performed), **last}
    return last


_heaviest_of: Kept[Mapping[LiftKey, Decimal]] = Kept(bouts.MOST_KEPT)


def _heaviest(work: UnitOfWork, session: str, performed: Sequence[PerformedBout]) -> Mapping[LiftKey, Decimal]:
    """The heaviest load of each lift and set-up in a session, the way up left out."""
    known = library(work)

    def read() -> Mapping[LiftKey, Decimal]:
        heaviest: dict[LiftKey, Decimal] = {}
        for bout in performed:
            if bout.kg is not None and not bout.position.is_warm_up:
                key = lift_key(known.find(bout.exercise, bout.lift_id), bout.setup)
                heaviest[key] = max(bout.kg, heaviest.get(key, bout.kg))
        return heaviest

    return _heaviest_of.get_or(work, session, (performed, known), read)
