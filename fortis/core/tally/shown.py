"""What each bout of a lift shows of its max, all read alike: by one curve, with the tiredness before it."""

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import LASTING, recovered
from fortis.core.strength.observation import Heard, to_failure

EASIEST = 0.4
"""Shares of the max below this say nothing of it."""


class BoutShown(NamedTuple):
    """A bout of which the reps to failure are told.

    `place` is its place among those of the lift (from 0), `reps` those done, `share` its load as a share of the
    max, `rest` the seconds before it, `tired` says that other lifts came before. `left` are the reps that were to
    be left, `off` those beyond what was to be expected, `form` the same as a share of the max.
    """

    place: int
    reps: int
    share: float
    rest: float
    tired: bool
    left: float
    off: float
    form: float


def shown(heard: Iterable[Heard | None], known: Estimate) -> Iterator[BoutShown]:
    """What the bouts of a lift in a session show beside a max."""
    missing = lasting = carried = 0.0
    for place, bout in enumerate(heard):
        if bout is None or bout.kg <= 0:
            continue
        share = bout.kg / known.kg
        cost = known.curve.cost(share)
        missing = missing * (1 - recovered(bout.rest)) + bout.carried
        lasting += bout.stays
        carried += bout.carried
        possible = 1 + (1 - missing - lasting - share) / cost
        if bout.tells_reps and bout.vague and share >= EASIEST:
            off = to_failure(bout, known.calls) - possible
            yield BoutShown(place, bout.reps, share, bout.rest, carried > 0, possible - bout.reps, off, off * cost)
        spent = min(bout.reps, max(possible, 0.0)) * cost
        missing += spent * (1 - LASTING)
        lasting += spent * LASTING
