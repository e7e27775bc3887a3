"""What no real gym meets is refused with its reason, before it costs anything."""

import unicodedata
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fortis.core.exercises import lift_id, one_form
from fortis.core.structure.notation import MOST_BOUTS, examine

SQUAT = {"exercise": "Back squat", "kg": 100, "reps": 5}
GYM = {"place": "Gym"}


def kit(client, **parts):
    return client.put("/api/kit/places/1", json={"kit": {**GYM, **parts}})


def test_a_machine_of_tiny_steps(client):
    answer = kit(client, machines=[{"name": "Row", "first_kg": 5, "step_kg": 0.000001, "most_kg": 120}])
    assert answer.status_code == 422
    assert "Row would have more than 400 pins: make its steps larger" in answer.json()["detail"]


def test_sixty_sizes_of_plates(client):
    sizes = [{"amount": 0.25 * size, "count": 2} for size in range(1, 61)]
    assert kit(client, plates=sizes).json()["fields"][0]["field"] == "kit.plates"
    written = " ".join(f"1x{size * 0.25}" for size in range(1, 61))
    answer = client.put("/api/kit/places/1", json={"kit": GYM, "plates": written})
    assert (answer.status_code, answer.json()["detail"]) == (
        422,
        "These are 60 different plates; one place holds 20 at most.",
    )
    answer = client.put("/api/kit/places/1", json={"kit": GYM, "plates": "99x20 99x20"})
    assert "more than 200 plates of one weight" in answer.json()["detail"]
    assert client.put("/api/kit/places/1", json={"kit": GYM, "plates": "1x999"}).status_code == 422
    assert client.get("/api/today").status_code == 200


@pytest.mark.parametrize("kg", ["9" * 1_000_000, "0." + "0" * 1_000_000 + "1", "1e-999999", "1e999999"])
def test_a_weight_of_a_million_digits(client, lifter, kg):
    session = lifter.plan("Back squat: 5 at 100 kg").json()["id"]
    lifter.start(session)
    at = f"/api/floor/{session}/bouts/1/1/1/1/1"
    answer = client.put(at, json={**SQUAT, "kg": kg})
    assert (answer.status_code, answer.json()["fields"][0]["field"]) == (422, "kg")
    assert client.put("/api/kit/body-weight", json={"kg": kg}).status_code == 422


def test_a_whole_number_of_a_million_digits_is_no_json(client):
    body, header = f'{{"kg": {"9" * 1_000_000}}}', {"Content-Type": "application/json"}
    answer = client.put("/api/kit/body-weight", content=body, headers=header)
    assert (answer.status_code, answer.headers["Content-Type"]) == (400, "application/problem+json")


def test_exact_pounds_are_no_weight_of_too_many_digits(client, lifter):
    session = lifter.plan("Back squat: 5 at 225 lb").json()["id"]
    lifter.start(session)
    (step,) = lifter.work(session)
    assert lifter.record(session, step, reps=5, kg=102.05828325).status_code == 200
    assert lifter.record(session, step, reps=5, kg=61.234969950000004, seen=1).status_code == 200


def test_a_set_up_of_many_items(client, lifter):
    session = lifter.plan("Back squat: 5 at 100 kg").json()["id"]
    lifter.start(session)
    (step,) = lifter.work(session)
    answer = lifter.record(session, {**step, "setup": {"items": ["belt"] * 10_000}}, reps=5)
    assert (answer.status_code, answer.json()["fields"][0]["field"]) == (422, "setup.items")
    written = lifter.plan(f"Back squat [{', '.join(['belt'] * 13)}]: 5 at 100 kg")
    assert "A set-up has 12 items at most." in written.json()["detail"]


def test_a_text_of_more_bouts_than_anyone_does(client):
    text = "\n".join(f"Lift {number}: 50 x 5 at 60 kg" for number in range(30))
    answer = client.post("/api/compose/examine", json={"written": text})
    assert f"over {MOST_BOUTS:,} bouts" in answer.json()["problems"][0]["message"]
    assert len(answer.content) < 10_000
    most = "\n".join(f"Lift {number}: 50 x 5 at 60 kg" for number in range(MOST_BOUTS // 50))
    answer = client.post("/api/compose/examine", json={"written": most})
    assert answer.json()["problems"] == []
    assert len(answer.content) < 2_000_000


@pytest.mark.parametrize(
    ("at", "why"),
    [
        ("2/1/1/1/1", "no lift 1 in group 2"),
        ("1/1/2/1/1", "no lift 2 in group 1"),
        ("1/1/1/24/1", "no set 24 of back squat: 23 at most"),
        ("1/24/1/1/1", "no round 24 of back squat: 23 at most"),
        ("1/1/1/1/2", "no bout 2 of back squat: 1 at most"),
    ],
)
def test_a_bout_where_the_session_has_none(client, lifter, at, why):
    session = lifter.plan("Back squat: 3 x 5 at 100 kg").json()["id"]
    lifter.start(session)
    answer = client.put(f"/api/floor/{session}/bouts/{at}", json=SQUAT)
    assert (answer.status_code, answer.json()["detail"]) == (422, f"The session has {why}.")


def test_a_bout_of_a_set_that_another_device_took_away_is_kept(client, lifter):
    session = lifter.plan("Back squat: 3 x 5 at 100 kg").json()["id"]
    lifter.start(session)
    assert client.put(f"/api/floor/{session}/bouts/1/4/1/4/1", json=SQUAT).status_code == 200


CAFE = "Café squat"


def test_one_name_in_two_spellings_is_one_lift(client, lifter):
    session = lifter.plan(f"{CAFE}: 5 at 100 kg").json()["id"]
    lifter.start(session)
    (step,) = lifter.work(session)
    other = unicodedata.normalize("NFD", CAFE)
    assert lifter.record(session, {**step, "exercise": other}, reps=5).status_code == 200
    (bout,) = client.get(f"/api/floor/{session}").json()["bouts"]
    assert bout["bout"]["exercise"] == CAFE
    assert bout["bout"]["lift_id"] == lift_id(CAFE)
    for name in (CAFE, other):
        lift = {"load_kind": "bar", "pattern": "squat", "prime": ["quads"]}
        assert client.put(f"/api/compose/lifts/{name}", json=lift).json()["name"] == CAFE
    assert sum(lift["own"] for lift in client.get("/api/compose/lifts").json()) == 1


@given(st.text(max_size=30))
def test_the_one_form_of_a_name_is_the_same_however_it_is_spelled(name):
    forms = {one_form(unicodedata.normalize(form, name)) for form in ("NFC", "NFD", "NFKC", "NFKD")}
    assert len(forms) == 1
    assert one_form(one_form(name)) == one_form(name)


@given(st.integers(81, 500))
def test_a_name_of_any_length_is_told_to_be_too_long(length):
    (problem,) = examine("a" * length + ": 5 at 60 kg").problems
    assert problem.message == "The name of a lift has 80 letters at most."


def test_a_number_that_is_entered_keeps_its_digits(client):
    assert client.put("/api/kit/body-weight?on=2026-03-01", json={"kg": 81.65}).status_code == 204
    (weighed,) = client.get("/api/kit").json()["lifter"]["weighed"]
    assert Decimal(str(weighed["kg"])) == Decimal("81.65")
