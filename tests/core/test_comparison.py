"""Two sessions side by side: what is fair to compare, and what became of a lift."""

from datetime import UTC, datetime, timedelta
from decimal import Decimal

import pytest

from fortis.core.performance import PerformedBout, asked_of
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.tally.comparison import DoneBout, SessionDone, compare, most_alike

BEGAN = datetime(2026, 3, 2, 18, tzinfo=UTC)


def session(written, *went, apart=200):
    """A session with a bout every so many seconds: its loads and reserves as (kg, left) or (kg, left, reps)."""
    plan = lay_out(read(written))
    bouts = [(each, bout) for each in plan.sets for bout in each.bouts]
    done = []
    for at, ((each, bout), (kg, left, *reps)) in enumerate(zip(bouts, went, strict=True)):
        performed = PerformedBout(
            position=each.position(bout), exercise=each.exercise, setup=each.setup, kg=kg and Decimal(str(kg)),
            reserve=None if left is None else Decimal(left), reps=reps[0] if reps else bout.reps.count,
            asked=asked_of(bout), body=kg is None,
        )  # fmt: skip
        done.append(DoneBout(performed, BEGAN + timedelta(seconds=apart * at)))
    return SessionDone(done, Decimal(80))


FIVES = "Back squat: 3 x 5 at 100 kg leave 2"


@pytest.mark.parametrize(
    ("now", "then", "text"),
    [
        ([(100, 2)] * 3, [(100, 2)] * 3, "As heavy, as many left on average: the same strength."),
        (
            [("102.5", 1)] * 3,
            [(100, 2)] * 3,
            "2.5 kg heavier, 1 fewer left on average: the same strength, used further.",
        ),
        ([(100, 3)] * 3, [(100, 1)] * 3, "As heavy, 2 more left on average: about 6 % stronger on the day."),
        (
            [(100, 2), (100, 2), (100, 0, 4)],
            [(100, 2)] * 3,
            "As heavy, 1 rep fewer in all, 0.5 fewer left on average: about 3 % weaker on the day.",
        ),
        ([(100, None)] * 3, [("97.5", 2)] * 3, "2.5 kg heavier."),
    ],
)
def test_what_became_of_a_lift(now, then, text):
    """By the usual curve a rep is about 3 % of the load there: 5 with 2 left is 82 %, with 3 left 80 %."""
    (found,) = compare(session(FIVES, *now), session(FIVES, *then))
    assert (found.is_fair, found.unlike, found.text) == (True, (), text)


@pytest.mark.parametrize(
    ("now", "then", "unlike", "fair"),
    [
        (
            session(f"{FIVES} tempo 3-1-1-0", *[(100, 1)] * 3),
            session(FIVES, *[(100, 2)] * 3),
            "tempo 3-1-1-0 now, free then",
            "A time with the tempo 3-1-1-0 would be fair to compare.",
        ),
        (
            session(f"Leg extension: 2 x 12 at 45 kg\n{FIVES}", *[(45, 1)] * 2, *[(100, 0)] * 3),
            session(FIVES, *[(100, 2)] * 3),
            "after leg extension now, with nothing before it then",
            "A time after leg extension would be fair to compare.",
        ),
        (
            session("Back squat: 2 x 5 at 100 kg; 1 set of (3, 2) at 100 kg", *[(100, 2)] * 4),
            session(FIVES, *[(100, 2)] * 3),
            "2 x 5; 1 x 3 + 2 now, 3 x 5 then",
            "A time with 2 x 5; 1 x 3 + 2 would be fair to compare.",
        ),
        (
            session(FIVES, *[(100, 1)] * 3, apart=120),
            session(FIVES, *[(100, 2)] * 3, apart=200),
            "2:00 from set to set now, 3:20 then",
            "A time with 2:00 from set to set would be fair to compare.",
        ),
    ],
)
def test_no_strength_is_read_from_what_was_not_alike(now, then, unlike, fair):
    found = compare(now, then)[-1]
    assert found.exercise == "Back squat"
    assert (found.is_fair, found.unlike, found.fair_with) == (False, (unlike,), fair)
    assert "strong" not in found.text
    assert "weak" not in found.text
    assert (found.text == "") == (" x " in unlike)


def test_another_set_up_is_another_lift():
    assert (
        compare(session("Back squat [belt]: 5 at 100 kg", (100, 2)), session("Back squat: 5 at 100 kg", (100, 2)))
        == ()
    )


SLOW = session(f"{FIVES} tempo 3-1-1-0", *[(100, 1)] * 3)
PLAIN = session(FIVES, *[(100, 2)] * 3)
TWO_LIFTS = session(f"{FIVES}\nRing row: 8 at 10 kg", *[(100, 2)] * 3, (10, 2))


@pytest.mark.parametrize(
    ("now", "then", "at"),
    [
        (PLAIN, [PLAIN, PLAIN], 0),
        (PLAIN, [SLOW, SLOW, PLAIN, PLAIN], 2),
        (PLAIN, [SLOW, SLOW], 0),
        (TWO_LIFTS, [SLOW, PLAIN, TWO_LIFTS], 2),
        (TWO_LIFTS, [SLOW, PLAIN, PLAIN], 1),
        (PLAIN, [], None),
    ],
)
def test_beside_a_session_lies_the_nearest_with_most_that_is_fair_to_compare(now, then, at):
    assert most_alike(now, then) == at


def test_no_session_is_looked_at_beyond_one_that_is_fair_throughout():
    earlier = iter([SLOW, PLAIN, SLOW])
    assert (most_alike(PLAIN, earlier), len(list(earlier))) == (1, 1)


def test_other_muscles_before_it_change_nothing_and_rests_may_drift():
    now = session(f"Ring row: 8 at 10 kg\n{FIVES}", (10, 2), *[(100, 2)] * 3, apart=180)
    assert [each.is_fair for each in compare(now, session(FIVES, *[(100, 2)] * 3, apart=210))] == [True]


def test_bouts_after_fewer_reps_of_their_set_say_nothing_of_strength():
    """A set stopped after ten of twelve leaves more for its drops: only the first bout is judged."""
    drops = "Leg extension: 1 set of (12 at 45 kg to failure, 9 at 36 kg, 8 at 30 kg)"
    now = session(drops, (45, 0, 10), (36, 3, 9), (30, 3, 8))
    (found,) = compare(now, session(drops, (45, 0, 12), (36, 0, 9), (30, 0, 8)))
    assert found.text.endswith("about 5 % weaker on the day.")


def test_body_weight_counts_with_what_hangs_from_it():
    """A dip moves nearly all of the body: four kilograms more of it are four more to lift, to the half."""
    one, other = (session("Ring dip: 2 x 6 at bw leave 2", (None, 2), (None, 2)) for _ in range(2))
    (found,) = compare(SessionDone(one.done, Decimal(84)), other)
    assert found.text.startswith("4 kg heavier, as many left")
