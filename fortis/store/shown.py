"""What the sessions of a lift showed of its max, bout by bout."""

from collections.abc import Iterable, Iterator, Sequence
from datetime import date, datetime
from zoneinfo import ZoneInfo

from fortis.core.season.trial import Reading, readings
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import LiftKey
from fortis.core.tally.contrasts import SessionShown
from fortis.core.tally.shown import shown
from fortis.store.maxes import Taught, of_lift


def by_what_was_known(course: Iterable[Taught], key: LiftKey, zone: ZoneInfo) -> Iterator[SessionShown]:
    """The sessions of a lift where the lifter was, each beside the max as it was known before it."""
    before: datetime | None = None
    for taught in course:
        if taught.session.remembered:
            continue
        began = taught.session.started_at
        since, before = began - before if before else None, began
        known = taught.before.max_of(key, began)
        for each in taught.lifts:
            if known and each.key == key:
                yield SessionShown(began.astimezone(zone), since, tuple(shown(each.heard, known)))


def by_kinds(
    course: Iterable[Taught], key: LiftKey, profile: Profile, since: date, now: datetime
) -> Sequence[Reading]:
    """The sessions of a lift from a day on as every kind of lifter has them, by what is known now."""
    known = profile.max_of(key, now)
    if known is None:
        return ()
    sessions = [
        (each.session.day, each.heard)
        for _, _, each in of_lift(course, key)
        if each.session.day >= since and not each.session.remembered
    ]
    return readings(sessions, known, profile.max_by_kind(key, now))
