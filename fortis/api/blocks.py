"""Blocks of weeks side by side: those of the seasons, and any other run of weeks."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import date, datetime, timedelta
from itertools import groupby
from typing import Annotated

from fastapi import APIRouter, HTTPException, Query
from pydantic import BaseModel

from fortis.api.weeks import FIRST_DAY, LAST_DAY
from fortis.api.work import Now, Work
from fortis.core.season.easy import easy_weeks
from fortis.core.season.weeks import weeks as season_weeks
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import LiftKey
from fortis.core.tally.block import MOST_WEEKS, BlockDone, Blocks, OverlapError, Span, side_by_side
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.units import Unit
from fortis.core.value import Day
from fortis.store import lifter, maxes, seasons, went
from fortis.store.lifts import library
from fortis.store.tables import SeasonRow
from fortis.store.weeks import done_within

router = APIRouter(prefix="/api/ledger/blocks", tags=["ledger"])

USUAL_WEEKS = 4
"""What is looked at where no block is chosen: so many weeks beside so many before them."""
MOST_SEASONS = 8


class KnownBlock(BaseModel):
    """A block by its name: whole weeks that are over, from `monday` on."""

    name: str
    monday: date
    weeks: int


@router.get("/known")
def known(work: Work, now: Now) -> list[KnownBlock]:
    """The last weeks and those before them, then the blocks of the latest seasons, the last block first."""
    this_week = monday_of(lifter.today(work, now))
    last = this_week - timedelta(days=DAYS * USUAL_WEEKS)
    before = last - timedelta(days=DAYS * USUAL_WEEKS)
    usual = [
        KnownBlock(name=f"The last {USUAL_WEEKS} whole weeks", monday=last, weeks=USUAL_WEEKS),
        KnownBlock(name=f"The {USUAL_WEEKS} weeks before those", monday=before, weeks=USUAL_WEEKS),
    ]
    return usual + [block for row in seasons.latest(work, MOST_SEASONS) for block in _of_season(row, this_week)]


def _of_season(row: SeasonRow, this_week: date) -> Sequence[KnownBlock]:
    """The blocks of a season as far as they are over, the last first."""
    season = seasons.season_of(row)
    over = [week for week in season_weeks(season, Unit(row.unit)) if week.monday < this_week]

    def found() -> Iterator[KnownBlock]:
        for number, of_block in groupby(over, key=lambda week: week.block):
            mondays = [week.monday for week in of_block]
            weeks = (mondays[-1] - mondays[0]).days // DAYS + 1
            kind = season.blocks[number - 1].kind
            yield KnownBlock(name=f"{season.title}: block {number}, {kind}", monday=mondays[0], weeks=weeks)

    return [block for block in reversed(list(found())) if block.weeks <= MOST_WEEKS]


Monday = Annotated[Day, Query(ge=FIRST_DAY, le=LAST_DAY)]
Many = Annotated[int, Query(ge=1, le=MOST_WEEKS)]


@router.get("")
def beside(
    work: Work,
    now: Now,
    one: Monday,
    other: Monday,
    one_weeks: Many = USUAL_WEEKS,
    other_weeks: Many = USUAL_WEEKS,
) -> Blocks:
    """Two blocks, each from the week of a day on, side by side: whichever is the earlier is told first."""
    spans = Span(monday_of(one), one_weeks), Span(monday_of(other), other_weeks)
    if late := next((span for span in spans if span.after > monday_of(lifter.today(work, now))), None):
        raise HTTPException(
            422, f"The block from {late.monday} on has weeks that are not over: choose weeks that are, or fewer."
        )
    try:
        latest = maxes.profile(work, lifter.begins(work, max(span.after for span in spans)))
        return side_by_side(_done(work, spans[0], latest), _done(work, spans[1], latest), library(work))
    except OverlapError as error:
        raise HTTPException(422, "The two blocks share weeks: choose two that do not.") from error


def _done(work: Work, span: Span, latest: Profile) -> BlockDone:
    done = done_within(work, span.monday, span.after - timedelta(days=1))

    def known(at: datetime) -> Mapping[LiftKey, Estimate]:
        return maxes.profile(work, at).read_as(latest).maxes(at)

    easy = easy_weeks(went.sessions_went(work, lifter.begins(work, span.after)), span.after)
    return BlockDone(
        span,
        [each.day for each in done],
        [each.session for each in done],
        known(lifter.begins(work, span.monday)),
        known(lifter.begins(work, span.after)),
        frozenset(each.monday for each in easy),
    )
