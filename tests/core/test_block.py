"""Two blocks side by side: a week of each, lift by lift, what was alike and what was not."""

from datetime import UTC, date, datetime, time, timedelta

import pytest

from fortis.core.exercises import LIBRARY
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.tally.block import BlockDone, OverlapError, Span, side_by_side
from fortis.core.tally.comparison import SessionDone
from fortis.core.tally.costing import cost_of_performance
from fortis.core.tally.week import DayDone
from tests.core.test_comparison import session

EARLIER, LATER = date(2026, 3, 2), date(2026, 3, 30)
FIVES = "Back squat: 3 x 5 at 100 kg leave 2"
SQUAT = ("back-squat", "")


def block(monday, weeks, *told, before=None, after=None, light=()):
    """A block with a session on each Monday: what is written of it, and the load of every bout."""
    days, sessions = [], []
    for at, (written, kg) in enumerate(told):
        plan = lay_out(read(written))
        many = sum(len(each.bouts) for each in plan.sets)
        done = session(written, *[(kg, 2)] * many)
        on = monday + timedelta(days=7 * at)
        moved = datetime.combine(on, time(18), UTC) - done.done[0].done_at
        sessions.append(SessionDone([each._replace(done_at=each.done_at + moved) for each in done.done]))
        costing = cost_of_performance(plan, [each.bout for each in done.done], 3_600)
        days.append(DayDone(day=on, costing=costing))
    maxes = [{SQUAT: Estimate(kg=kg, low=kg, high=kg)} if kg else {} for kg in (before, after)]
    return BlockDone(Span(monday, weeks), days, sessions, *maxes, frozenset(light))


def test_a_week_of_each_is_told_however_long_they_are():
    """15 reps at 100 kg are 1,500 kg; two such weeks beside four of 15 at 110 kg are 10 % more work a week."""
    earlier = block(EARLIER, 2, *[(FIVES, 100)] * 2, before=120, after=120.6)
    later = block(LATER, 4, *[(FIVES, 110)] * 4, before=120.6, after=126)
    for found in (side_by_side(earlier, later), side_by_side(later, earlier)):
        assert (found.earlier.monday, found.later.monday) == (EARLIER, LATER)
        assert [float(each.tonnage_kg) for each in (found.earlier, found.later)] == [1500, 1650]
        assert (found.later.sets, found.later.reps, found.later.sessions) == (3, 15, 1)
        assert {each.name: each.count for each in found.later.hard_sets}["quads"] == 3
        assert found.text == "A week of the later: tonnage +10.0 %, average load +10.0 %: more work, and heavier."
        (squat,) = found.lifts
        assert (squat.is_fair, squat.unlike) == (True, ())
        assert squat.text == (
            "Tonnage +10.0 % a week, average load +10.0 %: more work, and heavier. "
            "In the later the max rose by 4.5 %, in the earlier it stood."
        )


@pytest.mark.parametrize(
    ("written", "unlike"),
    [
        (f"{FIVES} tempo 3-1-1-0", "tempo 3-1-1-0 in the later, free in the earlier"),
        (
            f"Leg extension: 2 x 12 at 45 kg\n{FIVES}",
            "after leg extension in the later, with nothing before it in the earlier",
        ),
        (
            "Back squat [belt]: 3 x 5 at 100 kg leave 2",
            "with belt in the later, with no set-up in the earlier",
        ),
        (
            "Back squat: 3 x 3 at 100 kg leave 2",
            "mostly sets of 3 in the later, of 5 in the earlier",
        ),
    ],
)
def test_what_was_not_done_alike_is_told_and_the_load_is_not_read(written, unlike):
    found = side_by_side(block(EARLIER, 2, *[(FIVES, 100)] * 2), block(LATER, 2, *[(written, 100)] * 2))
    squat = next(each for each in found.lifts if each.exercise == "Back squat")
    assert (squat.is_fair, squat.unlike) == (False, (unlike,))
    assert not any(read in squat.text for read in ("work", "heavier", "lighter"))


def test_how_a_lift_was_mostly_done_is_what_counts():
    odd = (f"Leg extension: 2 x 12 at 45 kg\n{FIVES}", 100)
    found = side_by_side(block(EARLIER, 3, *[(FIVES, 100)] * 3), block(LATER, 3, (FIVES, 100), (FIVES, 100), odd))
    squat, extension = found.lifts
    assert squat.is_fair
    assert (extension.earlier, extension.is_fair, extension.text) == (None, False, "")
    assert "leg extension in only one of them" in found.text


def test_a_lift_that_was_renamed_is_one_lift():
    squat = LIBRARY.find("Back squat")
    renamed = LIBRARY.with_lifts([squat.model_copy(update={"name": "Low-bar", "former_names": ("Back squat",)})])
    found = side_by_side(block(EARLIER, 2, (FIVES, 100)), block(LATER, 2, (FIVES, 100)), renamed)
    assert [(each.exercise, each.is_fair) for each in found.lifts] == [("Low-bar", True)]


def test_a_light_week_in_one_of_them_is_told_and_taken_out():
    light = EARLIER + timedelta(days=7)
    earlier = block(EARLIER, 2, (FIVES, 100), ("Back squat: 1 x 5 at 100 kg leave 2", 100), light=[light])
    found = side_by_side(earlier, block(LATER, 2, *[(FIVES, 100)] * 2))
    assert found.earlier.light == (light,)
    assert found.text == (
        "A week of the later: tonnage +50.0 %, average load +0.0 %. The earlier has a light week in it: without "
        "light weeks the tonnage of a week is +0.0 %."
    )


def test_blocks_that_share_a_week_are_refused_and_an_empty_one_is_told():
    with pytest.raises(OverlapError):
        side_by_side(block(EARLIER, 2, (FIVES, 100)), block(EARLIER + timedelta(days=7), 2, (FIVES, 100)))
    found = side_by_side(block(EARLIER, 2), block(LATER, 2, (FIVES, 100)))
    assert found.text == "In one of them nothing was lifted that has a tonnage."
    assert [each.earlier for each in found.lifts] == [None]
