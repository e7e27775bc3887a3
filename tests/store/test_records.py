"""What the record says of the best of a lift, added up by the database, is what each session adds up to."""

from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
from sqlalchemy import select, text, update

from fortis.core.conventions import Conventions
from fortis.core.loading.kit import Machine
from fortis.core.units import Unit
from fortis.store import bouts, places, planning, sessions
from fortis.store.database import open_database
from fortis.store.lifter import save_lifter
from fortis.store.lifter import today as day_of
from fortis.store.played import added_up
from fortis.store.records import alike, bests, volumes
from fortis.store.tables import BoutRow
from fortis.store.weeks import done_within
from tests.conftest import Lifter

FIVE = {"reps": {"kind": "reps", "count": 5}}
NOW = datetime(2026, 11, 25, tzinfo=UTC)


@pytest.mark.parametrize("ways", [Conventions(), Conventions(both_dumbbells=False, body_weight=False, halves=True)])
def test_volumes_are_those_of_the_sessions(tmp_path, ways, demo_at):
    demo_at(tmp_path / "demo.db", NOW)
    database = open_database(tmp_path / "demo.db")
    with database.begin() as work:
        save_lifter(work, Unit.KG, None, None, ways=ways)
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
        for column, other in (
            ("kg", "case kg when '0' then '0.0' else '0' end"),
            ("setup", "replace(setup, ',', ', ')"),
        ):
            otherwise = f"update bout set {column} = {other} where done_at < '2026-10-15' and kg + 0 in (0, 155)"
            assert work.execute(text(otherwise)).rowcount
    with database() as work:
        told = {}
        for row in sessions.finished(work):
            for each in bouts.of(work, row.id):
                if key := alike(each.bout):
                    day = day_of(work, each.done_at)
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


def test_a_session_under_way_changes_nothing_of_what_its_loads_were_settled_from(database, lifter, today):
    text = "Back squat: 3 x 5 at 100 kg leave 2"
    lifter.play(text, [(5, 2), (5, 2), (5, 1)], today - timedelta(days=3))
    playing = lifter.plan(text, today).json()["id"]
    lifter.start(playing)
    now = (datetime.now(UTC) + timedelta(days=1)).replace(hour=12)

    def known(at):
        with database() as work:
            return planning.basis(work, at), bests(work, ["back-squat"], at)

    before, best = known(now)
    assert lifter.record(playing, lifter.work(playing)[0], reps=5, reserve=0).is_success
    after, still = known(now + timedelta(hours=1))
    assert after.estimates == before.estimates
    assert still is best
    assert known(now + timedelta(days=9))[0].estimates != before.estimates


def test_what_is_kept_of_a_record_is_what_a_record_opened_anew_says(client, database, lifter, today, tmp_path):
    """After every kind of change, each looked at twice: kept by the one, never seen before by the other."""
    text = "Dumbbell press: 3 x 10 at 20 kg leave 2\nPull-up: 2 x 8 leave 2"
    played = [lifter.play(text, [(10, 2)] * 3 + [(8, 2)] * 2, today - timedelta(days=days)) for days in (9, 6, 3)]
    press, _, _, pull_up, _ = lifter.work(played[1])
    own = {"load_kind": "dumbbell", "pattern": "press", "prime": ["chest"]}
    fixed = {"kind": "fixed step", "step_kg": 5}
    said = []

    def both():
        anew = open_database(tmp_path / "fortis.db")
        with database() as kept, anew() as fresh:
            for work in (kept, fresh):
                now = datetime.now(UTC)
                rows = sessions.finished(work)
                known = bests(work, ["dumbbell-press", "pull-up"], now)
                added = [volumes(work, (lift, ""), now) for lift in ("dumbbell-press", "pull-up")]
                next_loads = [planning.recommended(work, row) for row in rows]
                days = [each.day for each in done_within(work, today - timedelta(days=9), today)]
                yield known, added, next_loads, days

    for change in (
        lambda: None,
        lambda: lifter.record(played[1], press, reps=12, reserve=0, seen=1),
        lambda: lifter.take_back(played[1], press, seen=2),
        lambda: lifter.record(played[1], pull_up, reps=9, reserve=1, seen=1),
        lambda: client.put("/api/kit/body-weight", params={"on": str(today)}, json={"kg": 80}),
        lambda: client.put("/api/kit/body-weight", params={"on": str(today)}, json={"kg": 85}),
        lambda: client.put("/api/kit/lifter", json={"unit": "kg", "ways": {"body_weight": False}}),
        lambda: client.put("/api/compose/lifts/Dumbbell press", json=own),
        lambda: client.put("/api/policies/dumbbell-press", json=fixed),
        lambda: client.delete(f"/api/floor/{played[2]}/finish"),
        lambda: client.post(f"/api/floor/{played[2]}/finish"),
        lambda: client.delete(f"/api/compose/sessions/{played[0]}"),
    ):
        answer = change()
        assert answer is None or answer.is_success, answer.text
        kept, anew = both()
        assert kept == anew
        said.append(kept)
    assert all(before != after for before, after in pairwise(said))
