"""Who is who in the record: lifts, set-ups and sessions keep their history, and days are the lifter's."""

from datetime import UTC, datetime, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

import pytest

from fortis.api.work import now
from fortis.core.loading.strip import PlateOrder
from fortis.core.units import Unit
from fortis.demo.log import BOATHOUSE
from fortis.store.lifter import lifter_row, save_body_weight, save_lifter
from fortis.store.places import save_kit

OWN_LIFT = {"load_kind": "bar", "pattern": "squat", "prime": ["quads"]}


@pytest.mark.parametrize("lift", ["Ring dip", "Handstand push-up"])
def test_a_new_lifter_without_a_body_weight_does_a_lift_at_bw_and_all_goes_on(client, lifter, today, lift):
    text = f"# First\n{lift}: 2 x 6 at bw leave 2"
    session_id = lifter.play(text, [(6, 2), (6, 1)], today)
    learned = {"before": None, "after": None} if lift == "Ring dip" else None
    assert learned is None or lifter.past(session_id)["learned"] == [learned]
    lifter.plan(text, today)
    view = client.get("/api/today")
    assert view.status_code == 200
    assert view.json()["body_weight_missing"] == (lift == "Ring dip")
    assert client.post("/api/compose/examine", json={"written": f"{lift}: 3 at 80%; 5 leave 1"}).status_code == 200
    planned = view.json()["due"][0]["id"]
    assert client.post(f"/api/floor/{planned}/start").status_code == 200


def test_body_weight_is_asked_for_once(client, lifter, today):
    lifter.plan("Weighted chin-up: 3 x 5 at bw+20 kg leave 2", today)
    assert client.get("/api/today").json()["body_weight_missing"]
    client.put("/api/kit/body-weight", json={"kg": 80})
    assert not client.get("/api/today").json()["body_weight_missing"]


def test_a_lift_that_is_renamed_keeps_its_history(client, lifter, today):
    client.put("/api/compose/lifts/Belt squat", json=OWN_LIFT)
    text = "# Legs\nBelt squat: 3 x 5 at 100 kg leave 2"
    first = lifter.play(text, [(5, 2)] * 3, today)
    renamed = client.post("/api/compose/lifts/Belt squat", json={"name": "Hip-belt squat"})
    assert (renamed.json()["id"], renamed.json()["former_names"]) == ("belt-squat", ["Belt squat"])
    assert lifter.past(first)["tally"]["lifts"][0]["exercise"] == "Hip-belt squat"
    lifter.plan(text.replace("Belt squat", "Hip-belt squat"), today)
    (due,) = client.get("/api/today").json()["due"]
    assert due["lifts"][0]["loads"][0]["kg"] == 102.5
    again = lifter.play(text, [(5, 2)] * 3, today)
    assert lifter.past(again)["before"]["id"] == first
    taken = client.post("/api/compose/lifts/Hip-belt squat", json={"name": "Front squat"})
    assert (taken.status_code, taken.json()["fields"][0]["field"]) == (409, "name")
    assert client.post("/api/compose/lifts/Nothing", json={"name": "Something"}).status_code == 404


def test_a_set_up_is_the_same_in_any_order_and_spelling(client, lifter, today):
    lifter.play("Deadlift [Belt, high-handles]: 1 at 200 kg", [(1, 0)], today)
    written = "Deadlift [High  handles, belt]: 3 at 80%"
    examined = client.post("/api/compose/examine", json={"written": written}).json()
    (load,) = examined["lifts"][0]["loads"]
    assert load["percent"] == pytest.approx(80, abs=0.5)
    assert "guide" not in load["reasons"][0]["text"]


def test_a_session_that_is_renamed_fills_its_slot_still(client, lifter, today):
    text = "# Legs\nBack squat: 3 x 5 at 100 kg leave 2"
    first = lifter.play(text, [(5, 2)] * 3, today)
    slot = lifter.past(first)["slot"]
    body = {"written": text.replace("# Legs", "# Lower body"), "planned_on": today.isoformat(), "slot": slot}
    renamed = client.put("/api/compose/sessions/00000000-0000-4000-8000-00000000000a", json=body).json()
    assert renamed["slot"] == slot
    (due,) = client.get("/api/today").json()["due"]
    assert due["lifts"][0]["loads"][0]["kg"] == 102.5
    examined = client.post("/api/compose/examine", json={"written": body["written"], "slot": slot}).json()
    assert examined["before"]["id"] == first
    alone = client.post("/api/compose/examine", json={"written": body["written"].replace("Lower", "Other")}).json()
    assert alone["before"] is None


def test_sessions_without_a_title_do_not_stand_in_for_each_other(lifter, today):
    lifter.play("Back squat: 5 at 100 kg leave 2", [(5, 2)], today)
    second = lifter.play("Bench press: 5 at 60 kg leave 2", [(5, 2)], today)
    assert lifter.past(second)["before"] is None


def test_a_later_weigh_in_corrects_an_earlier_session(lifter, database, today):
    with database.begin() as work:
        save_body_weight(work, today, Decimal(80))
    session_id = lifter.play("# Dips\nDip: 5 at bw", [(5, 2)], today)
    assert lifter.past(session_id)["tally"]["tonnage_kg"] == 5 * 76
    with database.begin() as work:
        save_body_weight(work, today, Decimal(100))
    assert lifter.past(session_id)["tally"]["tonnage_kg"] == 5 * 95


def test_the_day_is_the_lifters_and_not_the_servers(client, lifter, database):
    """Late on Sunday in Auckland it is Sunday morning in UTC, and the other way round in Honolulu."""
    evening = datetime(2026, 3, 1, 9, 30, tzinfo=UTC)
    client.app.dependency_overrides[now] = lambda: evening
    for zone, day in (("Pacific/Auckland", 1), ("Pacific/Honolulu", 28)):
        with database.begin() as work:
            lifter_row(work).zone = zone
        assert client.get("/api/today").json()["on"].endswith(f"{day:02d}")
        assert evening.astimezone(ZoneInfo(zone)).day == day
        client.put("/api/kit/body-weight", json={"kg": 80})
    weighed = client.get("/api/kit").json()["lifter"]["weighed"]
    assert [each["on"] for each in weighed] == ["2026-03-01", "2026-02-28"]


def test_kit_that_changes_changes_nothing_behind(client, lifter, database, today):
    session_id = lifter.play("# Pull\nCable row: 3 x 10 at 50 kg leave 2", [(10, 2)] * 3, today)
    before = lifter.past(session_id)
    kit = client.get("/api/kit").json()["places"][0]["kit"]
    machines = [{"name": "Tower", "first_kg": 20, "step_kg": 20, "ratio": 0.5}]
    client.put("/api/kit/places/1", json={"kit": kit | {"machines": machines}})
    after = lifter.past(session_id)
    assert (after["tally"], after["next_loads"]) == (before["tally"], before["next_loads"])


def test_warm_ups_are_told_apart_from_sets(client, lifter, database, today):
    with database.begin() as work:
        save_lifter(work, Unit.KG, training_since=None, warm_ups="few big jumps")
    session_id = lifter.plan("# Squat\nBack squat: 2 x 5 at 100 kg leave 2", today).json()["id"]
    view = lifter.start(session_id)
    work_steps = [step for step in view["timeline"]["steps"] if step["kind"] == "work"]
    for step in work_steps:
        lifter.record(session_id, step, reps=5)
    client.post(f"/api/floor/{session_id}/finish")
    tally = lifter.past(session_id)["tally"]
    assert (tally["sets"], tally["warm_ups"], tally["reps"]) == (2, len(work_steps) - 2, 10)
    (row,) = client.get("/api/ledger").json()["sessions"]
    assert row["sets"] == 2


def test_plates_hang_as_the_lifter_likes(client, database):
    with database.begin() as work:
        save_kit(work, BOATHOUSE)
    stacks = {}
    for order in PlateOrder:
        client.put("/api/kit/lifter", json={"unit": "kg", "warm_ups": "few big jumps", "plate_order": order})
        written = {"written": "Bench press: 4 x 5 at 75 kg leave 2 rest 3:00"}
        steps = client.post("/api/compose/examine", json=written).json()["timeline"]["steps"]
        stacks[order] = next(step for step in steps if step["kind"] == "work" and not step["warm_up"])["settled"][
            "sleeve"
        ]
    assert stacks[PlateOrder.BIG_INSIDE] == sorted(stacks[PlateOrder.BIG_INSIDE], reverse=True)
    assert client.get("/api/kit").json()["lifter"]["plate_order"] == PlateOrder.FEWEST


def test_a_single_and_its_triple_are_quick_to_strip_whatever_the_warm_ups_cost(client, database):
    """25 seconds between 165 and 135 kg: with these plates one comes off and one goes on, each side."""
    with database.begin() as work:
        save_kit(work, BOATHOUSE)
    save = {"unit": "kg", "warm_ups": "few big jumps", "plate_order": PlateOrder.FEWEST}
    client.put("/api/kit/lifter", json=save)
    written = "Trap-bar deadlift: 4 sets of (1 at 92% of 180 kg, 25s, 3 at 74% of 180 kg) rest 3:00"
    steps = client.post("/api/compose/examine", json={"written": written}).json()["timeline"]["steps"]
    triples = [step for step in steps if step["kind"] == "work" and step["bout"] == 2 and not step["warm_up"]]
    assert [step["settled"]["plates"] for step in triples] == [2] * 4


def test_a_session_counts_on_the_day_it_was_started(client, lifter, database, today):
    with database.begin() as work:
        save_body_weight(work, today - timedelta(days=1), Decimal(70))
        save_body_weight(work, today, Decimal(80))
    session_id = lifter.play("# Dips\nDip: 5 at bw", [(5, 2)], today)
    assert lifter.past(session_id)["tally"]["tonnage_kg"] == 5 * 76
