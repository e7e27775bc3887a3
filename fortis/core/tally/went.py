"""How a session went, lift by lift: what it says of the max by itself, what was missed, what equal loads took."""

from collections.abc import Sequence
from datetime import date
from math import log
from typing import NamedTuple

from fortis.core.performance import Ended, PerformedBout
from fortis.core.strength.day import Foretold
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import LiftKey, SetUp

FEWEST_TIMED = 3
"""Reps of a bout from which its pace is told."""


class BoutWent(NamedTuple):
    """A bout: its `place` among those of the lift (from 0), the weight moved in kg, and its reps.

    `to_failure` are the reps done and called left, None where that was not told; `pace` is the seconds a rep took,
    None where they were not tapped.
    """

    place: int
    kg: float
    reps: int
    to_failure: float | None
    pace: float | None


class LiftWent(NamedTuple):
    """A lift with its set-up in a session.

    `level` is the logarithm of the max that its first told bout speaks for by itself, and `form` how far that is
    above or below what was expected, as a share; None where nothing was known of the lift, or nothing told. Of the
    `asked` bouts `missed` fell short in reps, or in what was to be left. `share` is the share of the max that a rep
    was done with on average, None where no max was known.
    """

    key: LiftKey
    exercise: str
    setup: SetUp
    level: float | None
    form: float | None
    asked: int
    missed: int
    tonnage_kg: float
    share: float | None
    bouts: tuple[BoutWent, ...]


class SessionWent(NamedTuple):
    """A session on its day, and how ready the lifter was for it, 1 to 5, where that was told."""

    day: date
    lifts: tuple[LiftWent, ...]
    readiness: float | None = None

    @property
    def form(self) -> float | None:
        """How far the session was above or below what was expected, as a share, over its lifts."""
        found = [each.form for each in self.lifts if each.form is not None]
        return sum(found) / len(found) if found else None


def went(
    key: LiftKey,
    exercise: str,
    done: Sequence[tuple[PerformedBout, Heard | None]],
    foretold: Sequence[Foretold | None],
    known: Estimate | None,
) -> LiftWent:
    """How a lift went, by its bouts and what of each is evidence.

    `foretold` is what was expected of the evidence in order, `known` the max before the session.
    """
    heard = [each for _, each in done if each]
    form = _form(list(zip(heard, foretold, strict=True)), known)
    asked = [bout for bout, _ in done if bout.asked]
    reps = sum(each.reps for each in heard)
    tonnage = sum(each.kg * each.reps for each in heard)
    return LiftWent(
        key=key,
        exercise=exercise,
        setup=done[0][0].setup,
        level=None if form is None or known is None else log(known.kg) + form,
        form=form,
        asked=len(asked),
        missed=sum(map(is_missed, asked)),
        tonnage_kg=tonnage,
        share=tonnage / reps / known.kg if known and reps else None,
        bouts=tuple(_bout(place, *each) for place, each in enumerate(done) if each[1]),
    )


def _form(beside: Sequence[tuple[Heard, Foretold | None]], known: Estimate | None) -> float | None:
    """How far the first told bout was off, in shares of the max: later ones tell of the tiredness before them."""
    if known is None:
        return None
    for heard, expected in beside:
        if expected and heard.tells_reps:
            reps = heard.reps + (heard.left or 0.0) * known.calls
            return (reps - expected.reps) * known.curve.cost(heard.kg / known.kg)
    return None


def is_missed(bout: PerformedBout) -> bool:
    """Whether a bout fell short of what was asked: in reps, or by a rep or more in what was to be left."""
    asked = bout.asked
    if asked is None:
        return False
    if bout.ended is Ended.STUCK and (asked.reserve or 0) > 0:
        return True
    if bout.number_beside(asked) < least_of(asked.reps):
        return True
    return bool(asked.reserve and bout.left is not None and bout.left <= asked.reserve - 1)


def _bout(place: int, bout: PerformedBout, heard: Heard | None) -> BoutWent:
    assert heard
    pace = bout.rep_seconds[-1] / len(bout.rep_seconds) if len(bout.rep_seconds) >= FEWEST_TIMED else None
    to_failure = heard.reps + (heard.left or 0.0) if heard.tells_reps else None
    return BoutWent(place, heard.kg, heard.reps, to_failure, pace)
