"""Worked examples of common practice; no source but the trade, where none is named."""

from decimal import Decimal

import pytest

from fortis.core.exercises import LIBRARY, LoadKind
from fortis.core.loading.kit import Bar, Kit, read_plates
from fortis.core.loading.nearest import nearest
from fortis.core.performance import PerformedBout
from fortis.core.resolution import resolve
from fortis.core.structure.model import Leave, Rpe, Side, ToFailure, planned_reserve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.tally.work import tonnage

PLACE = Position(group=1, round=1, entry=1, set=1, bout=1)


def sets(exercise, kg, reps, times, side=Side.BOTH):
    return [PerformedBout(position=PLACE, exercise=exercise, kg=Decimal(kg), reps=reps, side=side)] * times


def total_seconds(text):
    return timeline(resolve(lay_out(read(text)))).total_seconds


@pytest.mark.parametrize(
    ("bouts", "kg"),
    [
        (sets("Back squat", 60, 8, 4), 1920),
        (sets("Dumbbell press", "22.5", 10, 1), 450),
        (sets("One-arm row", 30, 10, 1), 600),
        (sets("One-arm row", 30, 10, 1, Side.LEFT) + sets("One-arm row", 30, 10, 1, Side.RIGHT), 600),
        (sets("Back squat", 120, 3, 1) + sets("Back squat", 110, 3, 2), 1020),
        (sets("Back squat", "122.5", 3, 1) + sets("Back squat", "112.5", 3, 3), 1380),
    ],
)
def test_tonnage(bouts, kg):
    assert tonnage(bouts) == kg


def test_bands_count_with_their_mean():
    """100 kg on the bar and a pair measuring 40 kg at lock-out, slack at the bottom: 120 kg a rep."""
    (banded,) = sets("Bench press", 100, 5, 1)
    hung = {"bottom_kg": Decimal(100), "top_kg": Decimal(140), "mean_kg": Decimal(120)}
    assert tonnage([banded.model_copy(update=hung)]) == 600


def test_volume_and_average_load_week_to_week():
    first = sets("Back squat", 120, 3, 1) + sets("Back squat", 110, 3, 2)
    second = sets("Back squat", "122.5", 3, 1) + sets("Back squat", "112.5", 3, 3)
    averages = [tonnage(bouts) / sum(bout.reps for bout in bouts) for bouts in (first, second)]
    assert [round(average, 1) for average in averages] == [Decimal("113.3"), Decimal("115.0")]
    assert round((tonnage(second) / tonnage(first) - 1) * 100, 1) == Decimal("35.3")


def test_rpe_is_ten_less_the_reps_left():
    """Zourdos et al. 2016, from memory."""
    assert [planned_reserve(Rpe(value=rpe)) for rpe in (10, 9, 8, 7, 6)] == [0, 1, 2, 3, 4]
    assert planned_reserve(Leave(low=2, high=3)) == 2
    assert planned_reserve(ToFailure()) == 0


def test_plates_for_180():
    """Plates and bar of the weightlifting and powerlifting technical rules (from memory), without collars."""
    competition = Kit(
        place="platform",
        bars=(Bar(name="20 kg bar", kind=LoadKind.BAR, kg=Decimal(20)),),
        plates=read_plates("4x25 1x20 1x15 1x10 1x5 1x2.5 1x1.25 1x0.5"),
    )
    assert nearest(competition, LIBRARY.find("Back squat"), Decimal(180)).sleeve == (25, 25, 25, 5)


def test_durations():
    assert (
        total_seconds("Seal row: 2 sets of (3, 4, 5, 6, 7) at 12RM within 15s rest 2:30") == 50 * 3 + 8 * 15 + 150
    )
    assert total_seconds("Deadlift: 3 sets of (2, 2, 2) at 87% within 10s rest 3:00") == 474
    assert total_seconds("Split squat: 8 tempo 3-1-1-0") == 40
