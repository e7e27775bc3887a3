"""Two sessions side by side, lift by lift: whether it is fair to compare them, and what became of the lift.

Like is compared with like: the same lift with the same set-up. Where the tempo, the sets, the rests or the work
before it were others, no strength is read from the difference; it is told what was not alike.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from itertools import groupby, pairwise
from statistics import fmean, median
from typing import NamedTuple

from fortis.core.exercises import LIBRARY, Exercise, Library
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.performance import PerformedBout
from fortis.core.sentence import capitalised
from fortis.core.strength.curve import DEFAULT_CURVE
from fortis.core.structure.counting import least_of, to_the_half
from fortis.core.structure.model import LiftKey, SetUp, Tempo, lift_key
from fortis.core.units import clock, plain
from fortis.core.value import Value

RESTS_ALIKE = 1.3
"""Rests that differ by no more than this factor are alike."""
SAME_STRENGTH = 0.02
"""Less than so much is no difference of strength: days and calls vary by more (common practice)."""


class DoneBout(NamedTuple):
    """A bout with the moment it was done."""

    bout: PerformedBout
    done_at: datetime


@dataclass(frozen=True)
class SessionDone:
    """One of two sessions: its bouts in the order they were done, and body weight on its day."""

    done: Sequence[DoneBout]
    body_kg: Decimal | None = None


class LiftComparison(Value):
    """A lift with a set-up in a session beside another one.

    `unlike` is what was not alike, empty where it `is_fair`; `fair_with` what would be. `text` says what became of
    it, bout by bout: nothing where the sets were others.
    """

    exercise: str
    lift_id: str
    setup: SetUp
    is_fair: bool
    unlike: tuple[str, ...]
    fair_with: str
    text: str


def compare(now: SessionDone, then: SessionDone, library: Library = LIBRARY) -> tuple[LiftComparison, ...]:
    """The lifts of a session that were done in another one too, with the same set-up, in their order."""
    ours, theirs = lifts_of(now, library), lifts_of(then, library)
    return tuple(_compared(line, theirs[key]) for key, line in ours.items() if key in theirs)


def most_alike(now: SessionDone, then: Iterable[SessionDone], library: Library = LIBRARY) -> int | None:
    """Which of some sessions, the nearest first, has the most lifts that are fair to compare with `now`.

    The nearest of several as good, so the first where nothing is fair; None where there is none. No further one is
    looked at once all lifts are fair to compare.
    """
    lifts, best, most = len(lifts_of(now, library)), None, -1
    for at, other in enumerate(then):
        fair = sum(each.is_fair for each in compare(now, other, library))
        if fair > most:
            best, most = at, fair
        if fair == lifts:
            break
    return best


@dataclass(frozen=True)
class LiftDone:
    """What was done of a lift with a set-up: `before` are the lifts done before it that share its muscles."""

    lift: Exercise
    done: Sequence[DoneBout]
    before: tuple[str, ...]
    body_kg: Decimal | None

    @property
    def tempos(self) -> set[Tempo | None]:
        """The tempos that were asked for; None where none was."""
        return {each.bout.asked.tempo if each.bout.asked else None for each in self.done}

    @property
    def sets(self) -> list[list[int]]:
        """The reps asked of each set, or done where nothing is known to have been asked."""
        sets: dict[tuple[int, int], list[int]] = {}
        for bout, _ in self.done:
            number = least_of(bout.asked.reps) if bout.asked else bout.reps
            sets.setdefault(_set_of(bout), []).append(number)
        return list(sets.values())

    @property
    def rest(self) -> float | None:
        """The usual time from set to set, in seconds: the median; None for one set."""
        apart = [
            (other.done_at - one.done_at).total_seconds()
            for one, other in pairwise(self.done)
            if _set_of(one.bout) != _set_of(other.bout)
        ]
        return median(apart) if apart else None

    def kg(self, bout: PerformedBout) -> Decimal | None:
        """The whole weight that a bout took strength for."""
        return strength_kg(bout.kg, body_part(self.lift, bout.body, self.body_kg))


def _set_of(bout: PerformedBout) -> tuple[int, int]:
    """The set of its lift that a bout belongs to."""
    return bout.position.round, bout.position.set


def lifts_of(session: SessionDone, library: Library) -> dict[LiftKey, LiftDone]:
    """The work of a session by lift and set-up, in the order they were begun."""
    of_lift: dict[LiftKey, list[DoneBout]] = {}
    before: dict[LiftKey, tuple[str, ...]] = {}
    lifts: dict[LiftKey, Exercise] = {}
    for each in session.done:
        if each.bout.position.is_warm_up:
            continue
        lift = library.find(each.bout.exercise, each.bout.lift_id)
        key = lift_key(lift, each.bout.setup)
        if key not in of_lift:
            shared = (done.name for done in lifts.values() if set(done.prime) & set(lift.prime))
            before[key], lifts[key] = tuple(dict.fromkeys(shared)), lift
        of_lift.setdefault(key, []).append(each)
    return {key: LiftDone(lifts[key], done, before[key], session.body_kg) for key, done in of_lift.items()}


def _compared(now: LiftDone, then: LiftDone) -> LiftComparison:
    unlike = tuple(_unlike(now, then))
    return LiftComparison(
        exercise=now.lift.name,
        lift_id=now.lift.id,
        setup=now.done[0].bout.setup,
        is_fair=not unlike,
        unlike=tuple(words for words, _ in unlike),
        fair_with=f"A time {' and '.join(fair for _, fair in unlike)} would be fair to compare." if unlike else "",
        text=_became(now, then, judge=not unlike) if now.sets == then.sets else "",
    )


def _unlike(now: LiftDone, then: LiftDone) -> Iterator[tuple[str, str]]:
    """What was not alike, and with what it would have been."""
    if now.tempos != then.tempos:
        tempo = tempo_words(now.tempos)
        yield f"tempo {tempo} now, {tempo_words(then.tempos)} then", f"with the tempo {tempo}"
    if set(now.before) != set(then.before):
        yield f"{after_words(now.before)} now, {after_words(then.before)} then", after_words(now.before)
    if now.sets != then.sets:
        yield f"{_sets(now)} now, {_sets(then)} then", f"with {_sets(now)}"
    elif apart := rests_apart(now.rest, then.rest):
        words, words_then = apart
        yield f"{words} from set to set now, {words_then} then", f"with {words} from set to set"


def _became(now: LiftDone, then: LiftDone, *, judge: bool) -> str:
    """What became of load, reps and reserve, bout by bout, and what that says of strength."""
    pairs = [(mine.bout, yours.bout) for mine, yours in zip(now.done, then.done, strict=True)]
    weighed = [(now.kg(mine), then.kg(yours)) for mine, yours in pairs]
    loads = [float(one - other) for one, other in weighed if one is not None and other is not None]
    if not loads:
        return ""
    parts = [_changed(fmean(loads), "kg heavier", "kg lighter", "as heavy")]
    if more := sum(mine.reps - yours.reps for mine, yours in pairs):
        parts.append(f"{abs(more)} {'rep' if abs(more) == 1 else 'reps'} {'more' if more > 0 else 'fewer'} in all")
    left = [float(mine.left - yours.left) for mine, yours in pairs if not (mine.left is None or yours.left is None)]
    if left:
        parts.append(f"{_changed(fmean(left), 'more left', 'fewer left', 'as many left')} on average")
    text = capitalised(", ".join(parts))
    told = [
        strength
        for mine, yours in _after_the_same(pairs)
        if (strength := _strength(now, mine, then, yours)) is not None
    ]
    if not judge or not told:
        return f"{text}."
    change = fmean(told)
    if abs(change) < SAME_STRENGTH:
        return f"{text}: the same strength{', used further' if to_the_half(fmean(loads)) > 0 else ''}."
    return f"{text}: about {abs(change) * 100:.0f} % {'stronger' if change > 0 else 'weaker'} on the day."


Pair = tuple[PerformedBout, PerformedBout]


def _after_the_same(pairs: Iterable[Pair]) -> Iterator[Pair]:
    """The bouts that came after as many reps of their set as the other time: the rest were tired otherwise."""
    for _, of_set in groupby(pairs, key=lambda pair: _set_of(pair[0])):
        for mine, yours in of_set:
            yield mine, yours
            if mine.reps != yours.reps:
                break


def _strength(now: LiftDone, mine: PerformedBout, then: LiftDone, yours: PerformedBout) -> float | None:
    """By how much more strength one bout speaks for than another, as a share, by the usual rep curve."""
    found = []
    for line, bout in ((now, mine), (then, yours)):
        kg = line.kg(bout)
        if kg is None or kg <= 0 or bout.left is None or bout.reps < 1 or bout.partial_reps:
            return None
        found.append(float(kg) / DEFAULT_CURVE.share(bout.reps + float(bout.left)))
    return found[0] / found[1] - 1


def _changed(by: float, more: str, less: str, same: str) -> str:
    """A change in steps of a half, in words."""
    half = abs(to_the_half(by))
    return same if not half else f"{plain(half)} {more if by > 0 else less}"


def rests_apart(one: float | None, other: float | None) -> tuple[str, str] | None:
    """Two rests in words, where they are known and not alike."""
    if not one or not other or 1 / RESTS_ALIKE <= one / other <= RESTS_ALIKE:
        return None
    return clock(int(one)), clock(int(other))


def after_words(before: Sequence[str]) -> str:
    """What lifts were done before one, in words."""
    return f"after {', '.join(name.lower() for name in before)}" if before else "with nothing before it"


def tempo_words(tempos: Iterable[Tempo | None]) -> str:
    """At which tempos something was done, in words."""
    return ", ".join(sorted(str(tempo) if tempo else "free" for tempo in tempos))


def _sets(line: LiftDone) -> str:
    """Sets in runs: 3 x 5, 1 x 3 + 2."""
    runs = [(len(list(alike)), " + ".join(map(str, reps))) for reps, alike in groupby(line.sets)]
    return "; ".join(f"{times} x {reps}" for times, reps in runs)
