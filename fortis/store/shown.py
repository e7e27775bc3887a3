"""What the sessions of a lift showed of its max, bout by bout."""

from collections.abc import Iterable, Iterator
from datetime import date, datetime
from zoneinfo import ZoneInfo

from fortis.core.season.trial import SessionTried
from fortis.core.strength.estimate import Estimate
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


def by_one_max(course: Iterable[Taught], key: LiftKey, known: Estimate, since: date) -> Iterator[SessionTried]:
    """The sessions of a lift from a day on, all of them beside one max."""
    for _, _, each in of_lift(course, key):
        if each.session.day >= since and not each.session.remembered:
            yield SessionTried(each.session.day, tuple(shown(each.heard, known)))
