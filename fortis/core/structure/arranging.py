"""A session put in another order: entries moved, paired, parted, doubled and taken out.

Places are `(group, entry)`, counted from 0. Whatever is moved keeps its remarks.
"""

from collections.abc import Sequence

from fortis.core.structure.model import Entry, Group, Session

EntryAt = tuple[int, int]


def without(session: Session, at: EntryAt) -> Session:
    """The session with an entry taken out. A pair that loses one is no pair any more."""
    group, entry = at
    groups = list(session.groups)
    members = list(groups[group].entries)
    del members[entry]
    groups[group : group + 1] = regrouped(groups[group], members)
    return session.model_copy(update={"groups": tuple(groups)})


def doubled(session: Session, at: EntryAt) -> Session:
    """The session with a copy of an entry after it, on its own."""
    entry = _own(session.groups[at[0]], session.groups[at[0]].entries[at[1]])
    copy = entry.model_copy(update={"before": (), "remark": ""})
    return _inserted(session, at[0] + 1, Group(entries=(copy,)))


def moved(session: Session, at: EntryAt, to: int) -> Session:
    """The session with an entry on its own before group `to` (as counted before the move; the count is the end)."""
    group = session.groups[at[0]]
    alone = Group(entries=(_own(group, group.entries[at[1]]),))
    if group.is_straight:
        alone = group
    rest = without(session, at)
    gone = len(session.groups) - len(rest.groups)
    return _inserted(rest, to - gone if to > at[0] else to, alone)


def moved_whole(session: Session, group: int, to: int) -> Session:
    """The session with a whole group before group `to` (as counted before the move)."""
    groups = list(session.groups)
    taken = groups.pop(group)
    groups.insert(to - 1 if to > group else to, taken)
    return session.model_copy(update={"groups": tuple(groups)})


def joined(session: Session, at: EntryAt, onto: int) -> Session:
    """The session with an entry done in turn with those of group `onto`."""
    if at[0] == onto:
        return session
    entry = _own(session.groups[at[0]], session.groups[at[0]].entries[at[1]])
    target = session.groups[onto]
    ordered = (entry, *target.entries) if at[0] < onto and target.is_straight else (*target.entries, entry)
    groups = list(session.groups)
    groups[onto] = target.model_copy(update={"entries": ordered})
    return without(session.model_copy(update={"groups": tuple(groups)}), at)


def parted(session: Session, group: int) -> Session:
    """The session with a pair or circuit turned into lifts on their own, one after the other."""
    groups = list(session.groups)
    together = groups[group]
    if not together.is_straight:
        entries = [_own(together, entry) for entry in together.entries]
        entries[0] = _with_remarks_of(together, entries[0])
        groups[group : group + 1] = [Group(entries=(entry,)) for entry in entries]
    return session.model_copy(update={"groups": tuple(groups)})


def _inserted(session: Session, at: int, group: Group) -> Session:
    groups = (*session.groups[:at], group, *session.groups[at:])
    return session.model_copy(update={"groups": groups})


def regrouped(group: Group, members: Sequence[Entry]) -> list[Group]:
    """A group with other members: none is no group, and one is a lift on its own."""
    if not members:
        return []
    if len(members) > 1:
        return [group.model_copy(update={"entries": tuple(members)})]
    return [Group(entries=(_with_remarks_of(group, _own(group, members[0])),))]


def _own(group: Group, entry: Entry) -> Entry:
    """A member as it stands on its own: a single set repeated every round becomes that many sets."""
    if group.is_straight:
        return entry
    runs = entry.sets
    if len(runs) == 1 and runs[0].count == 1 and runs[0].span is None:
        span = {"span": group.span} if group.span else {"count": group.rounds or 1}
        runs = (runs[0].model_copy(update={**span, "rest": runs[0].rest or group.rest, "every": group.every}),)
        if group.every:
            runs = (runs[0].model_copy(update={"rest": None}),)
    return entry.model_copy(update={"sets": runs})


def _with_remarks_of(group: Group, entry: Entry) -> Entry:
    return entry.model_copy(
        update={"before": (*group.before, *entry.before), "remark": entry.remark or group.remark}
    )
