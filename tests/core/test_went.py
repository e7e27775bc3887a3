"""How a lift of a session went, worked out by hand."""

from decimal import Decimal
from math import log

import pytest

from fortis.core.performance import Asked, Ended, PerformedBout
from fortis.core.strength.curve import RepCurve
from fortis.core.strength.day import Foretold
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
from fortis.core.structure.model import FixedReps, Leave, RepRange
from fortis.core.structure.prescription import Position
from fortis.core.tally.went import BoutWent, SessionWent, is_missed, went

KNOWN = Estimate(kg=120, low=115, high=125, curve=RepCurve(endurance=10.2))
ASKED = Asked(reps=FixedReps(count=5), effort=Leave(low=2, high=2))


def bout(reps, reserve=None, ended=Ended.MET, asked=ASKED, rep_seconds=()):
    return PerformedBout(
        position=Position(group=1, round=1, entry=1, set=1, bout=1),
        exercise="Back squat",
        kg=Decimal(90),
        reps=reps,
        reserve=None if reserve is None else Decimal(reserve),
        ended=ended,
        asked=asked,
        rep_seconds=rep_seconds,
    )


def test_form_is_what_the_first_told_bout_shows_above_what_was_expected():
    """At 75 % of 120 kg, 10.2 reps by the curve; a rep costs a quarter of the max by 10.2, as the model has it."""
    done = [
        (bout(5), Heard(90, 0, 5)),
        (bout(5, 3, rep_seconds=(2.0, 4.5, 7.0, 10.0, 13.0)), Heard(90, 180, 5, 3)),
        (bout(2, 0), Heard(90, 180, 2, 0)),
    ]
    expected = [Foretold(10.2, 9, 11), Foretold(10.0, 9, 11), Foretold(9.0, 8, 10)]
    found = went(("back squat", ""), "Back squat", done, expected, KNOWN)
    assert found.form == pytest.approx((8 - 10.0) * KNOWN.curve.cost(0.75))
    assert found.level == pytest.approx(log(120) + found.form)
    assert (found.asked, found.missed) == (3, 1)
    assert (found.tonnage_kg, found.share) == (1080, pytest.approx(0.75))
    assert found.bouts == (BoutWent(0, 90, 5, None, None), BoutWent(1, 90, 5, 8, 2.6), BoutWent(2, 90, 2, 2, None))


def test_nothing_known_or_told_shows_nothing():
    told = went(("back squat", ""), "Back squat", [(bout(5, 2), Heard(90, 0, 5, 2))], [None], None)
    untold = went(("back squat", ""), "Back squat", [(bout(5), Heard(90, 0, 5))], [Foretold(10, 9, 11)], KNOWN)
    for each in (told, untold):
        assert (each.form, each.level) == (None, None)
    assert SessionWent(None, (told, untold)).form is None


@pytest.mark.parametrize(
    ("done", "missed"),
    [
        (bout(5, 2), False),
        (bout(5, "1.5"), False),
        (bout(5, 1), True),
        (bout(4, 2), True),
        (bout(5, 0, Ended.STUCK), True),
        (bout(8, asked=Asked(reps=RepRange(low=8, high=10))), False),
        (bout(7, asked=Asked(reps=RepRange(low=8, high=10))), True),
        (bout(3, 0, asked=None), False),
    ],
)
def test_a_bout_is_missed_that_falls_short_in_reps_or_by_a_rep_in_what_was_to_be_left(done, missed):
    assert is_missed(done) is missed
