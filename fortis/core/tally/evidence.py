"""What the bouts of a lift say about its max: those that are evidence, as the model of strength hears them."""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from enum import StrEnum
from itertools import pairwise
from typing import NamedTuple

from fortis.core.exercises import Exercise
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.performance import Ended, PerformedBout
from fortis.core.strength.carrying import shared, taken
from fortis.core.strength.momentary import LASTING, recovered
from fortis.core.strength.observation import Heard
from fortis.core.structure.model import USUAL_RESERVE, Lifting, LiftKey, RangeOfMotion, Side, lift_key

VAGUE = 2.0
"""How many times further off a bout may be that form ended, or that went over part of the range."""
REMEMBERED = 4.0
"""How many times further off a remembered set may be than one seen: it was some time ago, and on a good day."""
ONLY_TIRES = 0.0


class Timed(NamedTuple):
    """A bout with when it ended, when it began where that was told, and the seconds of rest before where those
    were.
    """

    bout: PerformedBout
    ended_at: datetime
    began_at: datetime | None = None
    rest: float | None = None


class Rested(NamedTuple):
    """A bout with the seconds of rest since the lift's bout before it, and whether it had the set-up asked about.

    `carried` is the share of strength that other lifts have taken since then, `stays` what of it stays for the day.
    """

    bout: PerformedBout
    rest: float
    of_setup: bool = True
    carried: float = 0.0
    stays: float = 0.0


class Tiring(NamedTuple):
    """A bout of some lift in a session: when it ended, and what it took of strength there."""

    lift: Exercise
    ended_at: datetime
    taken: float


def tiring(done: Timed, lift: Exercise) -> Tiring:
    """A bout as it tires other lifts."""
    bout = done.bout
    left = 0.0 if bout.ended is Ended.STUCK else USUAL_RESERVE if bout.reserve is None else float(bout.reserve)
    return Tiring(lift, done.ended_at, taken(bout.reps, left) if bout.reps else 0.0)


class Kind(StrEnum):
    """What kind of bout is evidence of a max."""

    FRESH = "fresh"
    TIRED = "tired"
    CLUSTER = "in a cluster"
    DROP = "in a drop"
    MISSED = "missed"
    REMEMBERED = "remembered"


def kinds(rested: Sequence[Rested]) -> Sequence[Kind]:
    """The kind of each bout of a lift in a session, in the order they were done."""
    alike = Counter((_set_of(each.bout), each.bout.kg) for each in rested)
    found = []
    before: PerformedBout | None = None
    for each in rested:
        found.append(_kind(each.bout, before, alike=alike[_set_of(each.bout), each.bout.kg]))
        before = each.bout
    return found


def _kind(bout: PerformedBout, before: PerformedBout | None, alike: int) -> Kind:
    if bout.ended is Ended.STUCK:
        return Kind.MISSED
    if alike > 1:
        return Kind.CLUSTER
    if before is None:
        return Kind.FRESH
    lighter = _set_of(before) == _set_of(bout) and (bout.kg or 0) < (before.kg or 0)
    return Kind.DROP if lighter else Kind.TIRED


def _set_of(bout: PerformedBout) -> tuple[int, int, int, int, Side]:
    at = bout.position
    return at.group, at.round, at.entry, at.set, bout.side


def by_setup(
    done: Sequence[Timed], lift: Exercise, session: Iterable[Tiring] = ()
) -> Iterator[tuple[LiftKey, list[Rested]]]:
    """The bouts of a lift in a session, in the order they were done, as seen by each set-up it was done with.

    `session` is all that was done in the session, by which other lifts are found that tire this one.
    """
    rests = [0.0, *(_rest(before, each, lift) for before, each in pairwise(done))]
    carried = _carried(done, lift, session)
    keys = [lift_key(lift, each.bout.setup) for each in done]
    for key in dict.fromkeys(keys):
        of_setup = (each == key for each in keys)
        found = zip(done, rests, of_setup, carried, strict=True)
        yield key, [Rested(each.bout, rest, of, *taken) for each, rest, of, taken in found]


def _carried(done: Sequence[Timed], lift: Exercise, session: Iterable[Tiring]) -> Sequence[tuple[float, float]]:
    """For each bout of a lift what other lifts took from it since its bout before.

    That is what rests bring back, as far as it has not come back yet, and what stays for the day.
    """
    others = [(each, share) for each in session if (share := shared(lift, each.lift)) and each.taken]
    carried, since = [], datetime.min.replace(tzinfo=UTC)
    for each in done:
        began = each.began_at or each.ended_at - timedelta(seconds=each.bout.reps * lift.rep_seconds)
        between = [(other, share) for other, share in others if since < other.ended_at <= each.ended_at]
        since = each.ended_at
        tired = [(share * other.taken, _missing(began - other.ended_at)) for other, share in between]
        missing = sum(share * missing for share, missing in tired) * (1 - LASTING)
        carried.append((missing, LASTING * sum(share for share, _ in tired)))
    return carried


def _missing(rest: timedelta) -> float:
    """What is still missing after a rest, the usual one where it was only written down then."""
    seconds = rest / timedelta(seconds=1)
    return 1 - recovered(seconds if seconds > 0 else USUAL_REST)


USUAL_REST, USUAL_REST_INSIDE = 180.0, 15.0
"""Seconds between sets, and between the bouts of a set, where nobody knows (common practice)."""


def _rest(before: Timed, each: Timed, lift: Exercise) -> float:
    """The rest before a bout, the usual one where it was only written down then: no set is done in no time."""
    if each.rest is not None:
        return each.rest
    usual = timedelta(seconds=each.bout.seconds or each.bout.reps * lift.rep_seconds)
    rest = ((each.began_at or each.ended_at - usual) - before.ended_at) / timedelta(seconds=1)
    if rest > 0 or (each.began_at is not None and each.ended_at - each.began_at >= usual / 2):
        return max(rest, 0.0)
    return USUAL_REST_INSIDE if _set_of(before.bout) == _set_of(each.bout) else USUAL_REST


def evidence(bouts: Iterable[Rested], lift: Exercise, body_kg: Decimal | None) -> Sequence[Heard | None]:
    """The bouts of a lift in a session, in the order they were done; None for those that say nothing.

    Where sides were done apart, one side speaks: what it does hardly tires the other. Bouts with another set-up,
    and those with help, tire and say nothing else.
    """
    found = list(bouts)
    side = _side_of(each.bout for each in found)
    return [_heard(each, lift, body_kg) if each.bout.side is side else None for each in found]


def _side_of(bouts: Iterable[PerformedBout]) -> Side:
    """The side with the most bouts, both where none were done apart."""
    many = Counter(bout.side for bout in bouts)
    return max((Side.BOTH, Side.LEFT, Side.RIGHT), key=lambda side: many[side])


def _heard(rested: Rested, lift: Exercise, body_kg: Decimal | None) -> Heard | None:
    bout = rested.bout
    kg = strength_kg(bout.kg, body_part(lift, bout.body, body_kg))
    if kg is None or not (bout.reps or bout.ended is Ended.STUCK):
        return None
    return Heard(
        kg=float(kg),
        rest=rested.rest,
        reps=bout.reps,
        left=None if bout.reserve is None else float(bout.reserve),
        or_more=bout.or_more,
        failed=bout.ended is Ended.STUCK,
        vague=_vagueness(rested),
        carried=rested.carried,
        stays=rested.stays,
    )


def _vagueness(rested: Rested) -> float:
    asked = rested.bout.asked
    if not rested.of_setup or (asked and asked.lifting is not Lifting.ALONE):
        return ONLY_TIRES
    partial = asked is not None and asked.range_of_motion is not RangeOfMotion.FULL
    return VAGUE if partial or rested.bout.ended is Ended.FORM else 1.0
