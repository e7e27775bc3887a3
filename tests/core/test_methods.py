"""Every ready-made structure: its notation, its bouts and its seconds, worked by hand."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.cautions.caution import Serious
from fortis.core.cautions.rules import cautions
from fortis.core.exercises import LIBRARY
from fortis.core.resolution import resolve
from fortis.core.structure.methods import METHODS, PURPOSES, UnknownMethodError, find_method, write_method
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.structure.writing import write
from fortis.guide import pages

BY_HAND = {
    "straight": (3, 3 * 15 + 2 * 180),
    "top-back-off": (3, 3 * 9 + 2 * 240),
    "wave": (6, 12 * 3 + 5 * 180),
    "single-then-six": (2, 3 + 240 + 18),
    "cluster": (9, 18 * 3 + 3 * 2 * 10 + 2 * 240),
    "single-drop": (10, 5 * (3 + 25 + 9) + 4 * 180),
    "rest-pause": (3, 30 + 20 + 18 + 20 + 18),
    "ascending": (10, 420),
    "drop": (3, 36 + 5 + 18 + 5 + 18),
    "double": (3, 3 * 27 + 2 * 120),
    "stretched": (4, 33 + 120 + 33 + 120 + 30 + 15),
    "pair": (6, 3 * (27 + 5 + 27) + 2 * 60),
    "circuit": (9, 3 * (36 + 10 + 24 + 10 + 36) + 2 * 120),
    "block": (2 * (480 // 50), (480 // 50) * (16 + 5 + 24) + (480 // 50 - 1) * 5),
    "every": (10, 9 * 60 + 2 * 2),
    "tempo": (3, 3 * 40 + 2 * 120),
    "paused": (4, 4 * 3 * 5 + 3 * 180),
    "sides": (6, 3 * (27 + 5 + 27) + 2 * 90),
    "hold": (3, 3 * 30 + 2 * 60),
    "overload": (2, 2 * 15 + 180),
    "bands": (6, 6 * 6 + 5 * 60),
    "wrapped": (4, 75 * 3 + 3 * 30),
}


@pytest.mark.parametrize("method", METHODS, ids=lambda method: method.id)
def test_notation_bouts_and_seconds(method):
    session = read(write_method(method))
    assert read(write(session)) == session
    laid_out = timeline(resolve(lay_out(session)))
    bouts = sum(step.kind == "work" for step in laid_out.steps)
    assert (bouts, laid_out.total_seconds) == BY_HAND[method.id]


@pytest.mark.parametrize("method", METHODS, ids=lambda method: method.id)
def test_what_fortis_offers_does_not_alarm_fortis(method):
    session = read(write_method(method))
    alarms = {caution.rule for caution in cautions(session, resolve(lay_out(session)))} - {"safeties"}
    serious = [
        caution
        for caution in cautions(session, resolve(lay_out(session)))
        if caution.rule in alarms and caution.serious is not Serious.KNOW
    ]
    assert serious == []
    assert all(LIBRARY.find(lift).known for lift in method.lifts)
    assert method.purpose in PURPOSES
    assert all((method.is_for, method.not_for, method.known, method.disputed))


@given(st.sampled_from(METHODS), st.integers(-5, 500))
def test_any_turn_of_any_dial_is_a_session(method, number):
    turned = {dial.name: number for dial in method.dials}
    assert read(write_method(method, ("Back squat", "Ring row", "Plank"), turned)).groups


def test_lifts_take_their_places_in_order():
    written = write_method(find_method("pair"), ("Push-up", "Chin-up"), {"rounds": 4})
    assert written.splitlines()[0] == "pair, 4 rounds, rest 60s:"
    assert [entry.exercise for entry in read(written).groups[0].entries] == ["Push-up", "Chin-up"]
    with pytest.raises(UnknownMethodError):
        find_method("nothing")


def test_the_guide_is_what_the_structures_say():
    folder = Path(__file__).parents[2] / "docs" / "guide"
    assert {file.name: file.read_text(encoding="utf-8") for file in folder.iterdir()} == pages()
