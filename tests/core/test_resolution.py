from decimal import Decimal

import pytest

from fortis.core.basis import Basis, Carried
from fortis.core.exercises import LIBRARY
from fortis.core.line import Line
from fortis.core.loading.warm_up import School
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from tests.core.kits import FULL, SPARSE, kit

SQUAT = lift_key(LIBRARY.find("Back squat"), SetUp())
DIP = lift_key(LIBRARY.find("Dip"), SetUp())


def settled(text, carried=None, **basis):
    prescription = resolve(lay_out(read(text)), Basis(**basis), carried or {})
    return [bout.settled for each in prescription.sets for bout in each.bouts]


def loads(text, **basis):
    return [None if each is None else each.kg for each in settled(text, **basis)]


MAX_150 = {SQUAT: estimate(150.0, 1, 0)}


def test_a_percentage_is_built_and_its_rounding_told():
    (load,) = settled("Back squat: 5 at 70%", kit=SPARSE, estimates=MAX_150)
    assert (load.wanted_kg, load.kg, load.percent) == (105, 100, Decimal("66.7"))
    assert load.sleeve == (20, 20)
    share, rounding, effect = load.reasons
    assert (share.code, rounding.code, effect.code) == ("share of max", "rounding", "rounding effect")
    assert "66.7 % instead of 70 %" in rounding.text
    assert effect.text == "As built, about 2 more left at the end of a set."


@pytest.mark.parametrize(
    ("max_kg", "wanted", "kg"),
    [(142.0, "120.2", 120), (150.0, "127", 120), (153.0, "129.6", 130), (156.0, "132", 130)],
)
def test_a_load_that_nobody_wrote_is_rounded_up_by_little_and_else_down(max_kg, wanted, kg):
    (load,) = settled("Back squat: 5 leave 1", kit=SPARSE, estimates={SQUAT: estimate(max_kg, 1, 0)})
    assert (load.wanted_kg, load.kg) == (Decimal(wanted), kg)


def test_it_is_told_that_such_a_load_is_the_next_lighter():
    (load,) = settled("Back squat: 5 leave 1", kit=SPARSE, estimates={SQUAT: estimate(150.0, 1, 0)})
    assert load.reasons[1].text.startswith("127 kg cannot be built here; the next lighter is 120 kg")


def test_rounding_up_is_told_where_it_costs_the_last_mini_sets():
    """The plates make 73 % of 70 %: ascending mini-sets then stop short (common practice)."""
    maxes = {("seal-row", ""): estimate(82.0, 1, 0)}
    bouts = settled("Seal row: 1 set of (3, 4, 5, 6, 7) at 66% within 15s", kit=SPARSE, estimates=maxes)
    assert bouts[0].kg == 50
    assert "fall short" not in bouts[0].reasons[-1].text
    heavy = kit("2x20")
    bouts = settled("Seal row: 1 set of (3, 4, 5, 6, 7) at 66% within 15s", kit=heavy, estimates=maxes)
    assert bouts[0].kg == 60
    assert bouts[0].reasons[-1].text == "As built, bout 4 of 5 is likely to fall short: 4 of 6 reps."


def test_a_set_up_without_a_max_borrows_one_and_says_so():
    (load,) = settled("Back squat [belt]: 5 at 70%", kit=FULL, estimates=MAX_150)
    assert load.kg == 105
    assert "without this set-up" in load.reasons[0].text


def test_bands_make_a_bottom_a_top_and_a_mean():
    """100 kg and a pair measuring 40 kg at lock-out, slack at the bottom (common practice)."""
    (load,) = settled("Bench press [bands 40 kg top]: 3 at 100 kg", kit=FULL)
    assert (load.bottom_kg, load.top_kg, load.mean_kg) == (100, 140, 120)


def test_two_lifts_share_a_bar_or_the_plates():
    text = "pair, 2 rounds:\n  Bench press: 5 at 70 kg\n  Barbell curl: 8 at 30 kg"
    one = settled(text, kit=SPARSE)
    assert [load.change for load in one][1:3] == ["take the outer 20 off each side", "put 20 on each side"]
    bars = (SPARSE.bars[0].model_copy(update={"count": 2}),)
    bench, curl, again, _ = settled(text, kit=kit("2x20 1x10 2x5", bars=bars))
    assert (bench.sleeve, curl.sleeve, again.change) == ((20, 5), (5,), "")
    scarce = kit("1x20", bars=bars)
    loads = settled("pair, 2 rounds:\n  Bench press: 5 at 60 kg\n  Barbell curl: 8 at 60 kg", kit=scarce)
    assert all(load.reasons[-1].code == "plates shared" for load in loads)


def test_pins_and_dumbbells_are_told():
    loads = settled("Leg extension: 1 set of (8 at 50 kg, drop 20%)", kit=FULL)
    assert [load.change for load in loads] == ["", "move the pin to 40"]
    loads = settled("Dumbbell curl: 8 at 22.5 kg; 8 at 20 kg", kit=FULL)
    assert loads[1].change == "take the 20s"


def test_warm_ups_come_before_the_work_and_fewer_where_the_muscles_are_warm():
    plan = resolve(
        lay_out(read("Back squat: 3 x 5 at 120 kg\nFront squat: 5 at 90 kg\nLeg extension: 10 at 40 kg")),
        Basis(kit=FULL, warm_ups=School.FEW),
    )
    first, *_ = plan.sets
    assert first.is_warm_up
    assert [bout.settled.kg for bout in first.bouts] == [20, 30, 55, 85, 105]
    assert [bout.reps.count for bout in first.bouts] == [8, 5, 3, 2, 1]
    warm = [each for each in plan.sets if each.is_warm_up]
    assert [(each.exercise, len(each.bouts)) for each in warm] == [("Back squat", 5), ("Front squat", 2)]
    assert [each.exercise for each in plan.work_sets] == ["Back squat"] * 3 + ["Front squat", "Leg extension"]
    assert first.bouts[1].settled.change == "put 5 on each side"


def test_bands_go_on_one_pair_at_a_time():
    plan = resolve(
        lay_out(read("Bench press [green bands, red bands]: 3 at 60 kg")), Basis(kit=FULL, warm_ups=School.FEW)
    )
    assert [bout.settled.note for bout in plan.sets[0].bouts][-1] == "with green bands"


@pytest.mark.parametrize(
    ("text", "kg"),
    [
        ("Back squat: 1 at 100%", [150]),
        ("Back squat: 5 at 12RM", [Decimal("107.5")]),
        ("Back squat: 5 leave 2", [Decimal("122.5")]),
        ("Back squat: 5", [Decimal("122.5")]),
        ("Back squat: 5 at 120-130 kg leave 4", [120]),
        ("Back squat: 5 at 100-110 kg leave 0", [110]),
        ("Back squat: 1 at 150; 3 at top -10%", [150, 135]),
        ("Back squat: 1 set of (5 at 100, drop 20%)", [100, 80]),
        ("Back squat: 1 set of (5 at 100, 3)", [100, 100]),
        ("Back squat: max", [None]),
        ("Front squat: 5 at 70%", [None]),
        ("Back squat: 5 at 225 lb", [Decimal("102.5")]),
    ],
)
def test_what_each_target_comes_to(text, kg):
    assert loads(text, kit=FULL, estimates=MAX_150) == kg


@pytest.mark.parametrize(
    ("text", "kg"),
    [
        ("Sled drag: 3 at 80%; 3 at top -10%", [62, 56]),
        ("Sled drag: 1 set of (8 at 80%, drop 20%)", [62, "49.5"]),
        ("Sled drag: 5 at 61.2", ["61.2"]),
        ("Sled drag: 5 at 135 lb", ["61.23496995"]),
    ],
)
def test_what_is_worked_out_for_a_lift_nobody_knows_is_a_round_number(text, kg):
    """80 % of 77.3 kg is 61.84, a tenth less than 62 is 55.8, a fifth 49.6: nobody sets those."""
    sled = lift_key(LIBRARY.find("Sled drag"), SetUp())
    found = settled(text, kit=FULL, estimates={sled: estimate(77.3, 1, 0)})
    assert [each.kg for each in found] == [Decimal(each) for each in kg]
    assert not any(reason.code == "rounding" for each in found for reason in each.reasons)


def test_body_weight_lifts_count_the_body():
    maxes = {DIP: estimate(115.0, 1, 0)}
    assert loads("Dip: 3 at 90%", kit=FULL, estimates=maxes, body_kg=Decimal(80)) == [Decimal("27.5")]
    assert loads("Dip: 3 at 90%", kit=FULL, estimates=maxes) == [None]
    assert loads("Dip: 3; 3 at bw-20 kg; 3 at bw+10", kit=FULL) == [0, -20, 10]


def test_what_last_time_recommends_moves_the_loads_of_its_line():
    carried = {Line(1, 1): Carried(was_kg=Decimal(100), kg=Decimal(105))}
    assert loads("Back squat: 5 at 100", kit=FULL, carried=carried) == [105]
    assert loads("Back squat: 5 at 100; 5 at 80", kit=FULL, carried=carried) == [105, 85]
    second = {Line(2, 1): carried[Line(1, 1)]}
    assert loads("Front squat: 5 at 60\nBack squat: 5 at 100", kit=FULL, carried=second) == [60, 105]


def test_a_miss_is_cut_once_where_the_max_has_come_down_too():
    missed = {Line(1, 1): Carried(was_kg=Decimal(135), kg=Decimal("127.5"))}
    assert loads("Back squat: 2 at 90%", kit=FULL, estimates=MAX_150, carried=missed) == [Decimal("127.5")]
    fallen = {SQUAT: estimate(140.0, 1, 0)}
    assert loads("Back squat: 2 at 90%", kit=FULL, estimates=fallen, carried=missed) == [Decimal("125")]


def test_a_share_of_a_body_weight_lift_is_one_of_the_whole_weight_moved():
    """80 kg of body, 95 % of it moved, and 20: 96 kg; a tenth off is 86.4, which leaves 10.4 to hang."""
    weighed = {"kit": FULL, "body_kg": Decimal(80)}
    assert loads("Dip: 3 at bw+20; 5 at top -10%", **weighed) == [20, 10]
    assert loads("Dip: 1 set of (5 at bw+20, drop 20%)", **weighed) == [20, Decimal("1.25")]
    assert loads("Dip: 1 set of (5 at bw, drop 20%)", **weighed) == [0, -15]
    assert loads("Dip: 1 set of (5 at bw+20, drop 20%)", kit=FULL) == [20, None]


def test_the_max_of_another_set_up_is_a_guide_flagged_and_less_sure():
    handles = lift_key(LIBRARY.find("Trap-bar deadlift"), SetUp(items=("high handles",)))
    own = {handles: estimate(170.0, 3, 1)}
    (plain_pull,) = settled("Trap-bar deadlift: 3 at 80%", kit=FULL, estimates=own)
    (high,) = settled("Trap-bar deadlift [High-handles]: 3 at 80%", kit=FULL, estimates=own)
    assert "with high handles" in plain_pull.reasons[0].text
    assert "a guide only" in plain_pull.reasons[0].text
    assert "guide" not in high.reasons[0].text


def test_warm_ups_of_a_pair_all_come_before_round_one():
    text = "pair, 2 rounds:\n  Bench press: 5 at 70 kg\n  Bent-over row: 8 at 60 kg"
    plan = resolve(lay_out(read(text)), Basis(kit=FULL, warm_ups=School.FEW))
    assert [(each.exercise, each.number) for each in plan.sets] == [
        ("Bench press", 0), ("Bent-over row", 0),
        ("Bench press", 1), ("Bent-over row", 1), ("Bench press", 2), ("Bent-over row", 2),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "way_up"),
    [
        ("Weighted chin-up: 3 at bw+50 kg", [0, 25]),
        ("Dumbbell press: 8 at 22.5 kg", [20]),
        ("Leg press: 10 at 100 kg", [50, 75]),
        ("Sled push: 10 at 80 kg", [40, 60]),
        ("Leg extension: 10 at 50 kg", []),
    ],
)
def test_every_kind_of_load_has_its_way_up(text, way_up):
    plan = resolve(lay_out(read(text)), Basis(kit=FULL, warm_ups=School.FEW))
    assert [bout.settled.kg for each in plan.sets if each.is_warm_up for bout in each.bouts] == way_up


@pytest.mark.parametrize(
    ("text", "seconds"),
    [
        ("Back squat: 1 set of (5 at 140, 5 at 120)", [5]),
        ("Back squat: 1 set of (5 at 100, 5 at 40, 5 at 100)", [5 + 3, 5 + 3]),
        ("Back squat: 1 set of (3 at 180, 15s, 8 at 60)", [0]),
        ("Back squat: 1 set of (3 at 217.5, 5s, 8 at 20)", [5 + 3 * 5 - 5]),
        ("Leg extension: 1 set of (12 at 45, 12 at 30)", [5]),
    ],
)
def test_a_load_change_takes_as_long_as_its_plates_and_a_rest_covers_it(text, seconds):
    """The first plate a side in five seconds, each further one in three: common practice."""
    laid_out = timeline(resolve(lay_out(read(text)), Basis(kit=FULL)))
    assert [step.seconds for step in laid_out.steps if step.what == "load"] == seconds


def test_a_load_change_is_told_from_bout_to_bout():
    first, second, third = settled("Back squat: 1 set of (5 at 100, drop 20%); 5 at 100", kit=FULL)
    assert first.change == "put 25 + 5 + 10 on each side"
    assert second.change == "take the outer 10 off each side"
    assert third.change == "take the outer 5 off each side, put 15 on each side"


def test_a_start_every_minute_is_not_made_late_by_the_warm_up():
    text = "Back squat: 3 x 2 at 100 every 60s\npair, 2 rounds, every 120s:\n  Dip: 5\n  Ring row: 5"
    laid_out = timeline(resolve(lay_out(read(text)), Basis(kit=FULL, warm_ups=School.MANY)))
    assert any(step.warm_up for step in laid_out.steps)
    starts = {}
    at = 0
    for step in laid_out.steps:
        if step.kind == "work" and not step.warm_up and step.bout == 1:
            starts.setdefault((step.group, step.round), at)
        at += step.seconds
    assert starts[1, 3] - starts[1, 2] == starts[1, 2] - starts[1, 1] == 60
    assert starts[2, 2] - starts[2, 1] == 120
