"""A week made to fit: fewer sessions, only the main lifts, or the kit of another place, and what is lost by it.

What comes first in a session is kept, what comes last goes first. A lift that a place has nothing for is done by
the one that shares most of its muscles, in its usual range, with two left: its load is found as it goes (common
practice).
"""

from collections import Counter
from collections.abc import Container, Iterator, Sequence
from itertools import zip_longest
from typing import NamedTuple

from fortis.core.exercises import Exercise, Library, alike, one_form
from fortis.core.loading.kit import Kit
from fortis.core.season.splits import can_be_done
from fortis.core.structure.arranging import regrouped
from fortis.core.structure.model import (
    Bout,
    Entry,
    Group,
    Hold,
    Leave,
    RepRange,
    RepTarget,
    Session,
    Set,
    Sets,
    Side,
    Terms,
)

MAIN_GROUPS = 2
"""What stays of a session where only the main lifts are done."""
LEFT = Leave(low=2, high=2)
FEWEST_REPS, RANGE = 8, 2
"""Reps of a lift that stands in for a heavy one: what else there is to load is seldom as heavy."""
MOST_SECONDS = 30


class Fitted(NamedTuple):
    """Sessions that fit; None for one that is done with the others. `lost` says in sentences what is lost."""

    sessions: tuple[Session | None, ...]
    lost: tuple[str, ...]


class Wanted(NamedTuple):
    """What a week is to fit: so many `sessions`, only the `main` lifts, the kit of a `place`; None where all is."""

    sessions: int | None = None
    main: bool = False
    kit: Kit | None = None


def fitted(week: Sequence[Session], wanted: Wanted, library: Library) -> Fitted:
    """The sessions of a week in order, made to fit."""
    swapping = _Swapping(wanted.kit, library) if wanted.kit else None
    here = [swapping.session(each) if swapping else each for each in week]
    many = len(here) if wanted.sessions is None else max(min(wanted.sessions, len(here)), 1)
    merged = _merged(here, many)
    kept = [_main(each) if wanted.main else each for each in merged]
    found: list[Session | None] = [*kept, *([None] * (len(here) - many))]
    lost = [*(swapping.words(_sets(kept)) if swapping else ()), *_left_out(here, kept)]
    return Fitted(tuple(each if each and each.groups else None for each in found), tuple(lost))


def _main(session: Session) -> Session:
    return session.model_copy(update={"groups": session.groups[:MAIN_GROUPS]})


def _merged(week: Sequence[Session], many: int) -> list[Session]:
    """The first sessions with what comes first in the others, no longer than before where each finds a place.

    A lift that a session has already is not done twice in it.
    """
    parts = [[each] for each in week[:many]]
    for number, other in enumerate(week[many:]):
        parts[number % many].append(other)
    return [_together(of) for of in parts]


def _together(of: Sequence[Session]) -> Session:
    """Sessions as one: what comes first in each, then what comes second, as much as the first of them has."""
    ranked = [group for rank in zip_longest(*(each.groups for each in of)) for group in rank if group]
    groups: list[Group] = []
    have: set[str] = set()
    for group in ranked if len(of) > 1 else ():
        lifts = {one_form(entry.exercise) for entry in group.entries}
        if len(groups) < max(len(of[0].groups), len(of)) and not have & lifts:
            groups.append(group)
            have |= lifts
    return of[0].model_copy(update={"groups": tuple(groups)}) if groups else of[0]


def _left_out(before: Sequence[Session], after: Sequence[Session]) -> Iterator[str]:
    """The lifts that come less often than before, with the sets that fall away."""
    if fewer := _sets(before) - _sets(after):
        told = ", ".join(f"{name} ({sets} set{'' if sets == 1 else 's'})" for name, sets in fewer.items())
        yield f"Left out: {told}. What comes first is kept."


def _sets(of: Sequence[Session]) -> Counter[str]:
    """The sets of every lift."""
    found: Counter[str] = Counter()
    for group in (group for session in of for group in session.groups):
        for entry in group.entries:
            many = sum(run.count for run in entry.sets)
            found[entry.exercise] += many if many > 1 else group.rounds or 1
    return found


class _Swapping:
    """Puts lifts that a place has kit for in place of those it has none for."""

    def __init__(self, kit: Kit, library: Library) -> None:
        self.kit, self.library = kit, library
        self.instead: dict[str, str] = {}
        self.without: list[str] = []

    def session(self, session: Session) -> Session:
        """A session with the lifts that can be done; a pair that loses one is no pair any more."""
        have = {one_form(entry.exercise) for group in session.groups for entry in group.entries}
        groups: list[Group] = []
        for group in session.groups:
            groups += regrouped(group, [found for entry in group.entries if (found := self._entry(entry, have))])
        return session.model_copy(update={"groups": tuple(groups)})

    def _entry(self, entry: Entry, have: set[str]) -> Entry | None:
        lift = self.library.find(entry.exercise)
        if not lift.known or can_be_done(lift, self.kit):
            return entry
        for other in alike(lift, self.library):
            if can_be_done(other, self.kit) and one_form(other.name) not in have:
                have.add(one_form(other.name))
                self.instead.setdefault(entry.exercise, other.name)
                return _by(entry, other)
        if entry.exercise not in self.without:
            self.without.append(entry.exercise)
        return None

    def words(self, done: Container[str]) -> Iterator[str]:
        """What is lost by it, of the lifts that are done."""
        instead = [f"{other} for {_small(lift)}" for lift, other in self.instead.items() if other in done]
        if instead:
            yield f"{', '.join(instead)}: loads are found as you go, and tell little of what they stand in for."
        if self.without:
            yield f"{self.kit.place} has nothing for these, nor for anything like them: {', '.join(self.without)}."


def _small(name: str) -> str:
    return name[0].lower() + name[1:]


def _by(entry: Entry, lift: Exercise) -> Entry:
    """As many sets with another lift, its load left open."""
    reps = _reps(entry.sets[0], lift)
    terms = Terms(effort=None if isinstance(reps, Hold) else LEFT, side=Side.EACH if lift.one_sided else None)
    sets = Sets(
        each=Set(bouts=(Bout(reps=reps, terms=terms),)),
        count=sum(run.count for run in entry.sets),
        rest=entry.sets[-1].rest,
    )
    return Entry(exercise=lift.name, sets=(sets,), before=entry.before, remark=entry.remark)


def _reps(run: Sets, lift: Exercise) -> RepTarget:
    """The reps of a lift that stands in: those that were asked where they are many, else its usual ones."""
    if lift.rep_seconds == 1:
        return Hold(seconds=min(max(lift.usual_low, 20), MOST_SECONDS))
    asked = run.each.bouts[0].reps
    if isinstance(asked, RepRange) and asked.low >= lift.usual_low:
        return asked
    low = max(lift.usual_low, FEWEST_REPS)
    return RepRange(low=low, high=low + RANGE)
