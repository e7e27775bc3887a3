"""A session on a card: every bout has its box, with what is asked, its load and the rests between."""

from datetime import date
from decimal import Decimal

from hypothesis import given, settings

from fortis.core.basis import Basis, Carried, Instead
from fortis.core.card import CardBout, card_of
from fortis.core.line import Line
from fortis.core.performance import PerformedBout
from fortis.core.progression.carried import with_carried
from fortis.core.resolution import resolve
from fortis.core.structure.model import FixedReps, Hold
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from tests.core.kits import FULL
from tests.strategies import sessions_of

MONDAY = date(2026, 3, 2)


def card(written, **more):
    session = read(written)
    return card_of(session, lay_out(session), MONDAY, "about 40 min", **more)


def boxes(written, **more):
    return [bout for group in card(written, **more).groups for lift in group.lifts for each in lift.sets
            for bout in each.bouts]  # fmt: skip


def test_what_is_done_before_the_first_lift_is_told():
    assert card("prep: hips 5 min, heat\nSquat: 5 at 60").before == "hips 5:00, heat"
    assert card("Squat: 5 at 60").before == ""


def test_a_box_says_what_is_asked_and_how_heavy_as_far_as_the_plan_tells():
    assert boxes(
        "Squat: 1 set of (1 at 92%, 25s, 3 at 74%); 5 at 100-105 leave 1; 2 x 3 at top -10% rest 4:00"
    ) == [
        CardBout(asked="1", load="92 %", rest="25s"),
        CardBout(asked="3", load="74 %"),
        CardBout(asked="5 leave 1", load="100–105"),
        CardBout(asked="3", load="top -10%"),
        CardBout(asked="3", load="top -10%"),
    ]
    assert boxes("Curl: 1 set of (12 at 12RM to failure, drop 20% to failure)") == [
        CardBout(asked="12 to failure", load="12RM"),
        CardBout(asked="max to failure", load="-20%"),
    ]
    assert boxes("Lunge: 8-10 each side at 20 kg leave 1") == [
        CardBout(asked="left 8-10 leave 1", load="20"),
        CardBout(asked="right 8-10 leave 1", load="20"),
    ]
    assert [box.load for box in boxes("Dip: 5 at bw+20 kg; 5 at bw-15 kg; 5 at bw; 5")] == [
        "bw+20",
        "bw-15",
        "bw",
        "",
    ]


def test_rests_stand_between_sets_and_rounds_and_none_after_the_last():
    (group,) = card("Squat: 3 x 5 at 100 kg rest 3:00").groups
    assert (group.head, [each.rest for each in group.lifts[0].sets]) == ("", ["3:00", "3:00", ""])
    (pair,) = card("pair, 2 rounds, rest 1:30:\n  Ring dip: 8\n  Ring row: 8").groups
    assert pair.head == "pair, 2 rounds, rest 1:30"
    assert [[each.rest for each in lift.sets] for lift in pair.lifts] == [["", ""], ["1:30", ""]]
    (every,) = card("Power clean: 2 x 2 at 60 kg every 1:00").groups
    assert every.lifts[0].sets[0].rest == "every 1:00"


def test_it_says_what_goes_on_the_bar_and_what_was_noted_last_time():
    session = read("Back squat [belt]: 2 x 5 at 100 kg; 3 at 110 kg")
    settled = resolve(lay_out(session), Basis(kit=FULL))
    (group,) = card_of(session, settled, None, "", {"Back squat": "hips lower"}).groups
    (lift,) = group.lifts
    assert (lift.name, lift.setup, lift.written) == ("Back squat", "belt", "2 x 5 at 100 kg; 3 at 110 kg")
    assert lift.hints == (
        "From last time: hips lower",
        f"Each side of the {FULL.bars[0].name}: 25 15 for 100, 25 15 5 for 110",
    )


def test_what_stands_in_for_what_is_written_is_told_and_asked():
    session = read("Back squat: 3 x 5 at 100 kg rest 3:00\nHollow hold: 2 x hold 30s")
    carried = {
        Line(1, 1): Carried(
            was_kg=Decimal(100),
            kg=Decimal(100),
            reps=FixedReps(count=6),
            sets=Instead(of=3, now=4),
            rest=Instead(of=180, now=165),
        ),
        Line(2, 1): Carried(was_kg=Decimal(0), kg=Decimal(0), reps=Hold(seconds=35)),
    }
    squat, hold = (
        group.lifts[0] for group in card_of(session, with_carried(lay_out(session), carried), None, "").groups
    )
    assert squat.written == "3 x 5 at 100 kg rest 3:00, now 4 sets, 6 reps, 2:45 rest"
    assert hold.written == "2 x hold 30s, now 35 s"
    assert len(squat.sets) == 4


def test_what_was_done_fills_the_boxes():
    def done(set_, **more):
        place = Position(group=1, round=set_, entry=1, set=set_, bout=1)
        return PerformedBout(position=place, exercise="Squat", **more)

    bouts = [
        done(1, kg=Decimal(100), reps=5, reserve=Decimal(2)),
        done(2, kg=Decimal("97.5"), reps=4, partial_reps=2, reserve=Decimal("0.5")),
    ]
    assert [box.done for box in boxes("Squat: 3 x 5 at 100 kg", done=bouts)] == [
        "5 at 100 / 2",
        "4 + 2 half at 97.5 / 0.5",
        "",
    ]


@settings(max_examples=40)
@given(sessions_of())
def test_every_bout_has_one_box(session):
    plan = lay_out(session)
    found = card_of(session, plan, None, "")
    assert sum(len(each.bouts) for group in found.groups for lift in group.lifts for each in lift.sets) == sum(
        len(each.bouts) for each in plan.sets
    )
