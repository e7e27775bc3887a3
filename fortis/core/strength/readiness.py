"""How ready a lifter is before a session, and how far that says anything of the day: as far as their own log does.

Sleep, calm, freshness and motivation are told from 1 to 5. How sessions went beside what was to be expected is set
against how ready the lifter was, both beside their usual, by a regression that begins with "it says nothing" and is
moved by evidence alone (ridge regression; Hoerl and Kennard 1970, from memory).
"""

from collections.abc import Sequence
from statistics import mean
from typing import Annotated, NamedTuple

from pydantic import Field

from fortis.core.value import Value

Told = Annotated[int, Field(ge=1, le=5)]
"""Told from 1, poor, to 5, good."""


class Readiness(Value):
    """How ready a lifter is, as far as they said: 5 is good in all of it."""

    sleep: Told | None = None
    calm: Told | None = None
    freshness: Told | None = None
    motivation: Told | None = None

    @property
    def score(self) -> float | None:
        """The mean of what was said; None where nothing was."""
        said = [each for each in (self.sleep, self.calm, self.freshness, self.motivation) if each is not None]
        return mean(said) if said else None


class Went(NamedTuple):
    """A session: how ready the lifter was, and how far it went above or below the max as known, as a share."""

    score: float
    form: float


SPREAD = 0.025
"""How far a session may lie off what was to be expected, for all other reasons."""
LIKELY = 0.01
"""What a point of readiness may be worth, as a share of the max, before anything is known."""
FEWEST = 6
"""Sessions that it takes before readiness counts at all."""
MOST = 0.04
"""No readiness moves what is expected further than this."""


class Meaning(NamedTuple):
    """What readiness is worth to a lifter: a share of the max a point above their usual, by so many sessions."""

    worth: float
    usual: float
    sessions: int

    def shift(self, readiness: Readiness) -> float:
        """How far to move what is expected today, as a share of it: 0 while too little is known."""
        score = readiness.score
        if score is None or self.sessions < FEWEST:
            return 0.0
        return min(max(self.worth * (score - self.usual), -MOST), MOST)


def meaning(went: Sequence[Went]) -> Meaning:
    """What readiness has been worth, by sessions of which it was told."""
    if not went:
        return Meaning(0.0, 3.0, 0)
    usual, expected = mean(each.score for each in went), mean(each.form for each in went)
    away = [(each.score - usual, each.form - expected) for each in went]
    squares = sum(score**2 for score, _ in away)
    worth = sum(score * form for score, form in away) / (squares + (SPREAD / LIKELY) ** 2)
    return Meaning(worth, usual, len(went))
