from decimal import Decimal

import pytest

from fortis.core.basis import Basis
from fortis.core.cautions.caution import Log, Serious
from fortis.core.cautions.rules import NO_LOG, cautions
from fortis.core.exercises import LIBRARY
from fortis.core.performance import PerformedBout
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.structure.writing import write_entry


def found(text, log=NO_LOG):
    session = read(text)
    return cautions(session, resolve(lay_out(session)), log)


def rules(text, log=NO_LOG):
    return [caution.rule for caution in found(text, log)]


def mended(text, rule):
    (remedy,) = [caution.remedy for caution in found(text) if caution.rule == rule]
    return write_entry(remedy.entry)


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Back squat: 3 x 8 at 70%", []),
        ("Deadlift: 3 x 5 to failure", ["unsafe-failure", "early-failure"]),
        ("Leg extension: 2 x 12 leave 1; 12 to failure", []),
        ("Leg extension: 2 x 12 to failure", ["early-failure"]),
        ("Back squat: 1 set of (8, drop 20%)", ["unsafe-failure", "drop-lift"]),
        ("Back squat: 3 x 5 leave 0", ["unsafe-failure", "early-failure", "safeties"]),
        ("Back squat: 2 x 5 leave 2; max", ["unsafe-failure"]),
        ("Back squat: 2 x 5 leave 2; 5 rpe 10", ["unsafe-failure", "safeties"]),
        ("Back squat: 3 x 5 leave 0-1", ["safeties"]),
        ("Leg extension: 1 set of (8 to failure, drop 20% to failure)", []),
        ("Bench press: 3 sets of (2, 2, 2) at 87% within 10s", ["cluster-unrack"]),
        ("Deadlift: 3 sets of (2, 2, 2) at 87% within 10s", []),
        ("Deadlift: 3 sets of (2, 2, 2) at 65% within 10s", ["cluster-light"]),
        ("Seal row: 2 sets of (3, 4, 5, 6, 7) at 12RM within 15s", []),
        ("Seal row: 2 sets of (3, 4, 5, 6, 7) at 8RM within 15s", ["ascending-heavy"]),
        ("Seal row: 2 sets of (3, 4, 5, 6, 7) at 76% within 15s", ["ascending-heavy"]),
        ("Back squat: 1 at 92%", ["safeties"]),
        ("Back squat: 3 at 80% leave 1", ["safeties"]),
        ("Back squat: 5 tempo 8-0-1-0", ["slow-lowering"]),
        ("Leg extension: 5 tempo 8-0-1-0", []),
        ("Deadlift: 2 at 88% tempo 4-0-1-0", ["tempo-maximal"]),
        ("Barbell curl: 1 at 100%", ["small-max"]),
        ("Leg press: 5 x 5 two up one down", ["eccentric-often"]),
        ("Leg extension [wrap 9]: 4 x 15 at 50%", ["wrap-tight", "wrap-heavy", "wrap-health"]),
        ("Leg extension [wrap 6 of 10]: 4 x 15 at 30%", ["wrap-health"]),
        ("pair, 3 rounds:\n  Overhead press: 8\n  Bench press: 8", ["pair-prime"]),
        ("pair, 3 rounds:\n  Deadlift: 8\n  Pull-up: 8", ["pair-helping", "pair-grip"]),
        ("pair, 3 rounds:\n  Ring dip: 8\n  Ring row: 8", []),
        ("Lying leg curl: 1 set of (10 to failure, 5 stretched halves)", ["partials-many"]),
        ("Lying leg curl: 5 x 10; 1 set of (10 to failure, 5 stretched halves)", []),
        ("Something of my own: 8 to failure", []),
    ],
)
def test_what_is_unwise_is_told(text, expected):
    assert rules(text) == expected


@pytest.mark.parametrize(
    ("text", "rule", "line"),
    [
        ("Deadlift: 3 x 5 to failure", "unsafe-failure", "Deadlift: 3 x 5 leave 2"),
        ("Skull crusher: 10 to failure", "unsafe-failure", "Skull crusher: 10 leave 1"),
        (
            "Seal row: (3, 4, 5) at 8RM within 15s",
            "ascending-heavy",
            "Seal row: 1 set of (3, 4, 5) at 12RM within 15s",
        ),
        ("Deadlift: (2, 2) at 65% within 9s", "cluster-light", "Deadlift: 1 set of (2, 2) at 85% within 9s"),
        ("Leg curl [wrap 9]: 15", "wrap-tight", "Leg curl [wrap 7]: 15"),
    ],
)
def test_a_remedy_is_the_line_as_it_should_be(text, rule, line):
    assert mended(text, rule) == line


def test_a_remedy_mends():
    for text in (
        "Deadlift: 3 x 5 to failure",
        "Seal row: (3, 4, 5, 6) at 8RM within 15s",
        "Deadlift [wrap 9]: 5 at 20%",
    ):
        for caution in found(text):
            if caution.remedy:
                assert caution.rule not in rules(write_entry(caution.remedy.entry))


def test_the_week_counts_partials_too():
    position = Position(group=1, round=1, entry=1, set=1, bout=1)
    done = PerformedBout(position=position, exercise="Pull-up", kg=Decimal(0), reps=20, partial_reps=20)
    text = "Lying leg curl: 5 x 10; 1 set of (10, 5 stretched halves)"
    assert rules(text, Log(bouts=(done,))) == ["partials-many"]


def test_every_caution_has_its_reason_and_the_dangerous_come_from_what_can_hurt():
    everything = found("Deadlift: 3 x 5 to failure\nBack squat: 1 at 95%\nBarbell curl: 1 at 100%")
    assert all(caution.text and caution.reason for caution in everything)
    assert {caution.rule for caution in everything if caution.serious is Serious.RISK} == {
        "unsafe-failure", "safeties", "small-max",
    }  # fmt: skip


def test_lowering_overload_is_counted_over_the_week():
    text = "Leg press: 2 x 5 two up one down"
    assert rules(text) == []
    assert rules(text, Log(overloaded_sets=3)) == ["eccentric-often"]
    assert rules("Leg press: 2 x 5", Log(overloaded_sets=9)) == []


def test_a_first_year_needs_no_failure():
    text = "Leg extension: 3 x 12; 12 to failure"
    assert rules(text) == []
    assert rules(text, Log(novice=True)) == ["novice-failure"]


def test_a_remedy_replaces_any_load():
    wrapped = "Leg press [wrap 6]: 3 sets of (10, 8) at 100 kg within 30s"
    maxes = {lift_key(LIBRARY.find("Leg press"), SetUp(items=("wrap 6",))): estimate(150.0, 1, 0)}
    prescription = resolve(lay_out(read(wrapped)), Basis(estimates=maxes))
    (heavy,) = [each for each in cautions(read(wrapped), prescription) if each.rule == "wrap-heavy"]
    assert write_entry(heavy.remedy.entry) == "Leg press [wrap 6]: 3 sets of (10, 8) at 30% within 30s"


def test_a_remedy_gives_a_bare_max_an_effort():
    assert mended("Back squat: 2 x 5 leave 2; max", "unsafe-failure") == "Back squat: 2 x 5 leave 2; max leave 2"


@pytest.mark.parametrize(
    ("text", "mend"),
    [
        ("Leg extension: 2 sets of (12 leave 1, drop 20%, max)", "Leg extension: 2 sets of (12 leave 1, drop 20%)"),
        ("Leg extension: 1 set of (12 at 40 kg to failure, max)", "Leg extension: 12 at 40 kg to failure"),
    ],
)
def test_nothing_is_left_right_after_a_bout_that_goes_to_the_end(text, mend):
    assert mended(text, "nothing-left") == mend


@pytest.mark.parametrize(
    "sets",
    [
        "1 set of (12 to failure, drop 20%, drop 20%)",
        "1 set of (max at 40 kg, 20s, max)",
        "1 set of (max, max, max) within 15s",
        "1 set of (max to failure, max stretched halves)",
        "1 x max; 1 x max",
        "1 x max each side",
    ],
)
def test_after_a_rest_a_drop_or_with_less_range_something_is(sets):
    assert "nothing-left" not in rules(f"Leg extension: {sets}")
