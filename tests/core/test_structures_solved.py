"""Each family of structures solved for its loads, against the root of its equation written out bout by bout.

The equation stands here on its own: a rep at a share f of the max costs f / 27.6 of it by the usual curve (9.2 more
reps at three quarters of the max: 9.2 / (1 / 0.75 - 1) = 27.6), a rest brings back 45 % of what is missing with a
time constant of 17 s and the rest with one of 150 s, and a twentieth of every cost stays. The root is `scipy`'s.
"""

from decimal import Decimal
from math import exp

import pytest
from scipy.optimize import brentq

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out

TO_THE_END = None


def bouts(*sets, rest):
    """Sets of bouts (share of the first load, reps, seconds after it, reps to keep), a rest between sets."""
    return [
        (ratio, reps, rest if at == len(each) - 1 else after, keep)
        for each in sets
        for at, (ratio, reps, after, keep) in enumerate(each)
    ]


def least_to_spare(share, asked):
    """Reps left over those to keep, at the hardest bout."""
    missing = stays = 0.0
    spare = []
    for ratio, reps, rest, keep in asked:
        a_rep = share * ratio / 27.6
        left = 1 + (1 - missing - stays - share * ratio) / a_rep
        if reps is not TO_THE_END:
            spare.append(left - reps - keep)
        cost = a_rep * (max(left, 0) if reps is TO_THE_END else reps)
        missing = (missing + 0.95 * cost) * (0.45 * exp(-rest / 17) + 0.55 * exp(-rest / 150))
        stays += 0.05 * cost
    return min(spare)


def straight(sets, reps, keep, rest):
    return bouts(*[[(1, reps, 0, keep)]] * sets, rest=rest)


STRUCTURES = {
    "straight": ("3 x 5 leave 2 rest 180s", straight(3, 5, 2, 180)),
    "top and back-off": (
        "3 leave 1; 2 x 3 at top -10% rest 240s",
        bouts([(1, 3, 0, 1)], [(0.9, 3, 0, 2)], [(0.9, 3, 0, 2)], rest=240),
    ),
    "cluster": (
        "3 sets of (2, 2, 2) leave 1 within 10s rest 240s",
        bouts(*[[(1, 2, 10, 0), (1, 2, 10, 0), (1, 2, 0, 1)]] * 3, rest=240),
    ),
    "single and drop": (
        "5 sets of (1, 25s, 3 drop 16%) leave 1 rest 180s",
        bouts(*[[(1, 1, 25, 0), (0.84, 3, 0, 1)]] * 5, rest=180),
    ),
    "rest-pause": (
        "1 set of (10 to failure, 20s, max to failure, 20s, 2 to failure)",
        bouts([(1, 10, 20, 0), (1, TO_THE_END, 20, 0), (1, 2, 0, 0)], rest=0),
    ),
    "ascending mini-sets": (
        "2 sets of (3, 4, 5, 6, 7) leave 1 within 15s rest 150s",
        bouts(*[[(1, 3, 15, 0), (1, 4, 15, 0), (1, 5, 15, 0), (1, 6, 15, 0), (1, 7, 0, 1)]] * 2, rest=150),
    ),
    "drop": (
        "1 set of (8, 8 drop 20%, 8 drop 20%) leave 0 within 5s",
        bouts([(1, 8, 5, 0), (0.8, 8, 5, 0), (0.64, 8, 0, 0)], rest=0),
    ),
    "a range": ("3 x 8-10 leave 1 rest 120s", straight(3, 8, 1, 120)),
    "every so often": ("10 x 2 leave 3 every 60s", straight(10, 2, 3, 54)),
    "side after side": ("3 x 8 each side leave 2 rest 90s", straight(3, 8, 2, 90 + 29)),
    "pair": ("5 leave 2\n  Seal row: 8 leave 2", straight(3, 5, 2, 60 + 29)),
    "circuit": (
        "5 leave 2\n  Seal row: 8 leave 2\n  Seal row: 8 leave 2",
        straight(3, 5, 2, 120 + 10 + 29 + 10 + 29),
    ),
}
GROUPS = {
    "pair": "pair, 3 rounds, rest 60s:\n  ",
    "circuit": "circuit, 3 rounds, between 10s, rest 120s:\n  ",
}
"""A set of eight rows takes 29 s."""


@pytest.mark.parametrize("structure", STRUCTURES)
def test_the_load_is_the_root_of_the_equation(structure):
    written, asked = STRUCTURES[structure]
    (first, *_) = loads(f"{GROUPS.get(structure, '')}Back squat: {written}")
    root = 100 * brentq(lambda share: least_to_spare(share, asked), 0.45, 1.0)
    assert first == pytest.approx(root, abs=0.25)


@pytest.mark.parametrize("written", ["4 x 3 at 78% leave 2 tempo 2-2-1-0 rest 180s", "6 x 2 at 55% rest 60s"])
def test_a_written_share_stays_a_share(written):
    assert set(loads(f"Back squat: {written}")) == {float(written.split(" at ")[1].partition("%")[0])}


def test_bands_are_part_of_the_weight_where_only_the_max_without_them_is_known():
    """Worked by hand: 30 kg at the top and none at the bottom are 15 kg on average."""
    (plain, *_), (banded, *_) = (
        loads(f"Back squat{setup}: 6 x 2 leave 3 rest 60s") for setup in ("", " [bands 30 kg top]")
    )
    assert banded == pytest.approx(plain - 15, abs=0.01)
    (rep_max,), (with_bands,) = loads("Back squat: 8 at 12RM"), loads("Back squat [bands 30 kg top]: 8 at 12RM")
    assert with_bands == pytest.approx(rep_max - 15, abs=0.01)
    assert loads("Back squat [bands 30 kg top]: 2 at 55%") == [55]
    assert loads("Back squat [bands 300 kg top]: 2 leave 3") == [0]


def test_a_max_known_with_bands_alone_is_more_without_them():
    with_bands = {lift_key(LIBRARY.find("Back squat"), SetUp(items=("bands 30 kg top",))): estimate(85.0, 1, 0)}
    (known, reasons), (other, told) = (
        (float(bout.settled.kg), bout.settled.reasons)
        for setup in (" [bands 30 kg top]", "")
        for each in resolve(lay_out(read(f"Back squat{setup}: 2 leave 3")), Basis(estimates=with_bands)).sets
        for bout in each.bouts
    )
    assert other == pytest.approx(known + 15, abs=0.01)
    assert "pull" not in reasons[0].text
    assert told[0].text.endswith("leaving 3, 15 kg of mean pull added.")


def loads(written):
    known = {lift_key(LIBRARY.find(lift), SetUp()): estimate(100.0, 1, 0) for lift in ("Back squat", "Seal row")}
    prescription = resolve(lay_out(read(written)), Basis(body_kg=Decimal(80), estimates=known))
    squats = [each for each in prescription.sets if each.exercise == "Back squat"]
    return [float(bout.settled.kg) for each in squats for bout in each.bouts]
