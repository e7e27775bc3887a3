"""The structures of a session are called what lifters call them."""

import pytest
from hypothesis import given, settings

from fortis.core.structure.methods import METHODS, write_method
from fortis.core.structure.naming import Structure, structures
from fortis.core.structure.notation import read
from tests.strategies import sessions_of

NAMES = {
    "straight": {"STRAIGHT"},
    "top-back-off": {"STRAIGHT", "BACK_OFF"},
    "wave": {"WAVE"},
    "single-then-six": set(),
    "cluster": {"CLUSTER"},
    "single-drop": {"SINGLE_DROP"},
    "rest-pause": {"REST_PAUSE", "FAILURE"},
    "ascending": {"ASCENDING"},
    "drop": {"DROP", "FAILURE"},
    "double": {"RANGE"},
    "stretched": {"HALVES", "RANGE", "FAILURE"},
    "pair": {"PAIR"},
    "circuit": {"CIRCUIT"},
    "block": {"BLOCK", "PAIR"},
    "every": {"EVERY", "STRAIGHT"},
    "tempo": {"TEMPO", "PAUSED", "STRAIGHT"},
    "paused": {"TEMPO", "PAUSED", "STRAIGHT"},
    "sides": {"SIDES", "RANGE"},
    "hold": {"HOLD", "STRAIGHT"},
    "overload": {"OVERLOAD", "STRAIGHT"},
    "bands": {"BANDS", "STRAIGHT"},
    "wrapped": {"WRAPPED"},
}


@pytest.mark.parametrize("method", METHODS, ids=lambda method: method.id)
def test_a_ready_made_structure_is_known_by_its_name(method):
    assert structures(read(write_method(method))) == {Structure[name] for name in NAMES[method.id]}


@pytest.mark.parametrize(
    ("written", "names"),
    [
        ("Squat: 5 at 100 kg", set()),
        ("Squat: 3 at 100; 2 at 105; 1 at 110", set()),
        ("Squat: 2 x 3 at 100; 2 x 3 at 105", {"STRAIGHT"}),
        ("Squat: 3 at 100; 2 at 105; 3 at 102; 2 at 107", {"WAVE"}),
        ("Curl: 1 set of (8 at 20 kg, 8 at 15 kg to failure)", {"DROP", "FAILURE"}),
        ("Curl: 1 set of (8 at 20 kg, 8 at 25 kg)", set()),
        ("Squat: 2 sets of (3 at 100 kg, 20s, 5 at 80 kg)", set()),
        ("Squat: 5 at 100 kg; 2 x 5 at top +5%", {"STRAIGHT"}),
        ("Curl: 2 x max", {"STRAIGHT", "FAILURE"}),
        ("Squat [chains 20 kg, belt]: 3 x 2 at 60% every 1:00", {"CHAINS", "STRAIGHT", "EVERY"}),
        ("Curl: 2 sets of (5, 5) at 20 kg leave 0 within 15s", {"CLUSTER", "FAILURE"}),
    ],
)
def test_what_only_looks_like_one_is_none(written, names):
    assert structures(read(written)) == {Structure[name] for name in names}


@settings(max_examples=40)
@given(sessions_of())
def test_every_session_can_be_named(session):
    assert structures(session) <= set(Structure)
