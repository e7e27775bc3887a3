"""What lifters call the structures of a session, recognised from the pieces it is made of.

The names are common practice; those with `, ` in them are called by any of them.
"""

from collections.abc import Iterable, Iterator
from enum import StrEnum
from itertools import pairwise

from fortis.core.structure.model import (
    Entry,
    FixedReps,
    Group,
    Hold,
    Lifting,
    OfPrevious,
    OfTop,
    Percent,
    RangeOfMotion,
    RepRange,
    Session,
    Set,
    Sets,
    Terms,
    Weight,
    asks_failure,
)


class Structure(StrEnum):
    """The names of structures, in the plural, which the singular is found in."""

    STRAIGHT = "straight sets"
    RANGE = "rep ranges"
    BACK_OFF = "top sets and back-offs"
    WAVE = "waves"
    CLUSTER = "clusters"
    SINGLE_DROP = "singles and drops"
    REST_PAUSE = "rest-pause sets"
    ASCENDING = "ascending mini-sets"
    DROP = "drop sets"
    HALVES = "half reps, partials"
    PAIR = "pairs, supersets"
    CIRCUIT = "circuits"
    BLOCK = "blocks against the clock"
    EVERY = "starts against the clock"
    TEMPO = "tempo"
    PAUSED = "paused reps"
    SIDES = "one side at a time"
    HOLD = "holds"
    OVERLOAD = "lowering overload, eccentric"
    BANDS = "bands"
    CHAINS = "chains"
    WRAPPED = "restricted blood flow"
    FAILURE = "to failure"


_USED = {"band": Structure.BANDS, "chain": Structure.CHAINS, "wrap": Structure.WRAPPED}


def structures(session: Session) -> frozenset[Structure]:
    """The structures of a session."""
    return frozenset(name for group in session.groups for name in _of_group(group))


def _of_group(group: Group) -> Iterator[Structure]:
    if not group.is_straight:
        yield Structure.PAIR if len(group.entries) == 2 else Structure.CIRCUIT
    if group.span:
        yield Structure.BLOCK
    if group.every:
        yield Structure.EVERY
    for entry in group.entries:
        yield from _of_entry(entry)


def _of_entry(entry: Entry) -> Iterator[Structure]:
    used = {name for word, name in _USED.items() for item in entry.setup.items if _begins(item, word)}
    yield from used
    if any(_falls_from_the_top(run) for run in entry.sets[1:]):
        yield Structure.BACK_OFF
    if _is_wave(entry.sets):
        yield Structure.WAVE
    for run in entry.sets:
        if run.every:
            yield Structure.EVERY
        if run.span:
            yield Structure.BLOCK
        if len(run.each.bouts) == 1 and run.count > 1:
            yield Structure.RANGE if isinstance(run.each.bouts[0].reps, RepRange) else Structure.STRAIGHT
        if len(run.each.bouts) > 1 and Structure.WRAPPED not in used:
            yield from _of_bouts(run.each)
        for bout in run.each.bouts:
            yield from _of_terms(bout.terms.over(run.each.terms))
            if isinstance(bout.reps, Hold):
                yield Structure.HOLD
        if any(_fails(run.each)):
            yield Structure.FAILURE


def _begins(item: str, word: str) -> bool:
    return item.casefold().startswith(word)


def _falls_from_the_top(run: Sets) -> bool:
    loads = (bout.terms.over(run.each.terms).load for bout in run.each.bouts)
    return any(isinstance(load, OfTop) and load.shift.amount < 0 for load in loads)


def _is_wave(runs: Iterable[Sets]) -> bool:
    """Whether reps fall set by set, and then fall again from as many."""
    reps = [
        run.each.bouts[0].reps.count
        for run in runs
        if len(run.each.bouts) == 1 and isinstance(run.each.bouts[0].reps, FixedReps)
        for _ in range(run.count)
    ]
    starts = [0, *(at + 1 for at, (one, other) in enumerate(pairwise(reps)) if other > one)]
    falls = [reps[one:other] for one, other in pairwise([*starts, len(reps)])]
    return len(falls) > 1 and falls[0] == falls[1] and len(set(falls[0])) > 1


def _of_bouts(each: Set) -> Iterator[Structure]:
    """The structures of a set of several bouts."""
    terms = [bout.terms.over(each.terms) for bout in each.bouts]
    whole = sum(of.range_of_motion in (None, RangeOfMotion.FULL) for of in terms)
    falls = [_is_lighter(one, other) for one, other in pairwise(terms)]
    rests = [bout.rest or each.within or 0 for bout in each.bouts[:-1]]
    if any(fall and not rest for fall, rest in zip(falls, rests, strict=True)):
        yield Structure.DROP
    elif falls[0] and each.bouts[0].reps == FixedReps(count=1):
        yield Structure.SINGLE_DROP
    elif whole > 1 and all(rests) and not any(falls):
        reps = [bout.reps.count for bout in each.bouts if isinstance(bout.reps, FixedReps)]
        if len(reps) == len(each.bouts) > 2 and all(one < other for one, other in pairwise(reps)):
            yield Structure.ASCENDING
        else:
            yield Structure.REST_PAUSE if all(_fails(each)) else Structure.CLUSTER


def _is_lighter(one: Terms, other: Terms) -> bool:
    """Whether a bout is planned lighter than the one before it, as far as the plan by itself says so."""
    match one.load, other.load:
        case _, OfPrevious(shift=shift):
            return shift.amount < 0
        case Percent(percent=before), Percent(percent=after):
            return after < before
        case Weight(), Weight():
            return other.load.kg < one.load.kg
    return False


def _fails(each: Set) -> Iterator[bool]:
    """Of each bout, whether it goes on until no rep is left; the effort of a set is asked of its last one."""
    for at, bout in enumerate(each.bouts, start=1):
        last = at == len(each.bouts)
        yield asks_failure(bout.reps, bout.terms.effort or (each.terms.effort if last else None))


def _of_terms(terms: Terms) -> Iterator[Structure]:
    if terms.tempo:
        yield Structure.TEMPO
        if terms.tempo.bottom:
            yield Structure.PAUSED
    if terms.side and terms.side.is_each:
        yield Structure.SIDES
    if terms.range_of_motion not in (None, RangeOfMotion.FULL):
        yield Structure.HALVES
    if terms.lifting not in (None, Lifting.ALONE):
        yield Structure.OVERLOAD
