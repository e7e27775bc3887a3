"""What the sessions of a lift showed of its max, bout by bout."""

from collections.abc import Iterator
from datetime import date, datetime
from zoneinfo import ZoneInfo

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.season.trial import SessionTried
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import LiftKey
from fortis.core.tally.contrasts import SessionShown
from fortis.core.tally.shown import shown
from fortis.store import lifter, maxes


def by_what_was_known(work: UnitOfWork, key: LiftKey, at: datetime) -> Iterator[SessionShown]:
    """The sessions of a lift until a moment, each beside the max as it was known before it."""
    zone = ZoneInfo(lifter.lifter(work).zone)
    before: datetime | None = None
    for taught in maxes.course(work, at):
        began = taught.session.started_at
        since = began - before if before else None
        if not taught.session.remembered:
            before = began
        known = taught.before.max_of(key, began)
        for each in taught.lifts:
            if each.key == key and known and not taught.session.remembered:
                yield SessionShown(began.astimezone(zone), since, tuple(shown(each.heard, known)))


def by_one_max(
    work: UnitOfWork, key: LiftKey, known: Estimate, since: date, at: datetime
) -> Iterator[SessionTried]:
    """The sessions of a lift from a day until a moment, all of them beside one max."""
    for _, _, each in maxes.of_lift(maxes.course(work, at), key):
        if each.session.day >= since and not each.session.remembered:
            yield SessionTried(each.session.day, tuple(shown(each.heard, known)))
