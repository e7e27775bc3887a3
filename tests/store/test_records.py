"""What the record says of the best of a lift, added up by the database, is what each session adds up to."""

from datetime import UTC, datetime

import pytest
from sqlalchemy import select, update

from fortis.core.conventions import Conventions
from fortis.core.loading.kit import Machine
from fortis.core.units import Unit
from fortis.store import bouts, lifter, places, sessions
from fortis.store.database import open_database
from fortis.store.played import added_up
from fortis.store.records import alike, bests, volumes
from fortis.store.tables import BoutRow
from tests.conftest import Lifter

FIVE = {"reps": {"kind": "reps", "count": 5}}
NOW = datetime(2026, 11, 25, tzinfo=UTC)


@pytest.mark.parametrize("ways", [Conventions(), Conventions(both_dumbbells=False, body_weight=False, halves=True)])
def test_volumes_are_those_of_the_sessions(tmp_path, ways, demo_at):
    demo_at(tmp_path / "demo.db", NOW)
    database = open_database(tmp_path / "demo.db")
    with database.begin() as work:
        lifter.save_lifter(work, Unit.KG, None, None, ways=ways)
    by_lift = {}
    with database() as work:
        for row in reversed(sessions.finished(work)):
            for lift in added_up(work, row).lifts:
                by_lift.setdefault(lift.key, []).append((sessions.day_of(row), lift.tonnage_kg))
        assert len(by_lift) == 10
        for key, told in by_lift.items():
            assert [(each.on, each.tonnage_kg) for each in volumes(work, key, NOW)] == told


def test_bests_are_those_of_the_bouts(tmp_path, demo_at):
    """Also with bouts that compare with none: taken back, warm-ups, halves, help, no rep, no load."""
    demo_at(tmp_path / "demo.db", NOW)
    database = open_database(tmp_path / "demo.db")
    with database.begin() as work:
        ids = iter(work.scalars(select(BoutRow.id).where(BoutRow.lift_id == "front-squat").order_by(BoutRow.id)))
        for change in (
            {"taken_back_at": NOW},
            {"set": 0},
            {"reps": 0},
            {"kg": None},
            {"asked": {**FIVE, "range_of_motion": "stretched halves"}},
            {"asked": {**FIVE, "lifting": "helped up"}},
            {"asked": {**FIVE, "tempo": {"lowering": 4, "bottom": 0, "lifting": "x", "top": 0}}},
            {"asked": None},
        ):
            work.execute(update(BoutRow).where(BoutRow.id == next(ids)).values(**change))
    with database() as work:
        told = {}
        for row in sessions.finished(work):
            for each in bouts.of(work, row.id):
                if key := alike(each.bout):
                    day = lifter.today(work, each.done_at)
                    told.setdefault((key, each.bout.kg, each.bout.reps), []).append(day)
        lifts = {key.lift_id for key, _, _ in told}
        found = {
            (key, best.kg, best.reps): [best.on, best.last_on]
            for key, of_lift in bests(work, lifts, NOW).items()
            for best in of_lift
        }
    assert len({key.tempo for key, _, _ in told}) > 1
    assert found == {key: [min(days), max(days)] for key, days in told.items()}


def test_a_pulley_and_bands_count_as_they_did_in_the_gym(client, database, today):
    lifter_ = Lifter(client)
    with database.begin() as work:
        kit = places.kit(work)
        machine = Machine(name="Half a pulley", ratio="0.5")
        places.save_kit(work, kit.model_copy(update={"machines": (machine,)}))
    lifter_.play("Leg extension: 2 x 10 at 40 kg", [(10, 2), (8, 1)], today)
    with database.begin() as work:
        places.save_kit(work, kit)
    lifter_.play("Leg extension: 10 at 40 kg", [(10, 2)], today)
    with database() as work:
        found = volumes(work, ("leg-extension", ""), datetime.now(UTC))
    assert [float(each.tonnage_kg) for each in found] == [18 * 20, 10 * 40]
