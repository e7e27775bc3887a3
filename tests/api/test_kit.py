import pytest

GARAGE = {"place": "Garage", "bars": [{"name": "bar", "kind": "bar", "kg": 20}], "machines": []}


def show(client):
    return client.get("/api/kit").json()


def test_a_new_lifter_has_an_ordinary_gym(client):
    (place,) = show(client)["places"]
    assert (place["kit"]["place"], place["current"]) == ("Gym", True)
    assert place["plates"] == "4x25 2x20 1x15 2x10 2x5 2x2.5 1x1.25"


def test_places_are_added_used_changed_and_left(client):
    garage = client.post("/api/kit/places", json={"kit": GARAGE, "plates": "2x20 1x10"}).json()
    assert client.post("/api/kit/load", json={"wanted": [137.5]}).json()["loads"][0]["total_kg"] == 137.5
    client.put(f"/api/kit/current/{garage['id']}")
    (load,) = client.post("/api/kit/load", json={"wanted": [137.5]}).json()["loads"]
    assert (load["total_kg"], load["sleeve"], load["below_kg"], load["above_kg"]) == (120, [20, 20, 10], 120, None)
    kept = client.put(
        f"/api/kit/places/{garage['id']}", json={"kit": garage["kit"], "plates": "3x20 0.5x15"}
    ).json()
    assert kept["plates"] == "3x20 0.5x15"
    again = client.put(f"/api/kit/places/{garage['id']}", json={"kit": kept["kit"]}).json()
    assert again == kept
    assert client.delete(f"/api/kit/places/{garage['id']}").status_code == 204
    (place,) = show(client)["places"]
    assert place["current"]
    assert client.delete(f"/api/kit/places/{place['id']}").status_code == 409
    assert client.put("/api/kit/current/99").status_code == 404


def test_a_session_is_settled_from_the_kit_of_the_place(client, lifter, today):
    lifter.plan("# Legs\nBack squat: 5 at 137.5 kg", today)
    garage = client.post("/api/kit/places", json={"kit": GARAGE, "plates": "2x20 1x10"}).json()
    client.put(f"/api/kit/current/{garage['id']}")
    (load,) = client.get("/api/today").json()["due"][0]["lifts"][0]["loads"]
    assert load["kg"] == 120
    assert "cannot be built here" in load["reasons"][0]["text"]


def test_loads_in_turn_strip_from_the_outside_and_one_plate_would_help(client):
    asked = {"wanted": [160, 120, 96], "warm_up": "few big jumps"}
    told = client.post("/api/kit/load", json=asked).json()
    assert told["loads"][1]["change"] == "take the outer 20 off each side"
    assert told["loads"][2]["would_need_kg"] == 0.5
    assert told["warm_up"][0] == {"kg": 20, "reps": 8}
    stack = client.post("/api/kit/load", json={"wanted": [43], "lift": "Leg extension"}).json()["loads"][0]
    assert (stack["total_kg"], stack["sleeve"]) == (45, [])


def test_what_is_on_this_bar(client):
    told = client.post("/api/kit/weigh", json={"side": "25 25 2.5"}).json()
    assert (told["total_kg"], told["bar"]) == (125, "20 kg bar")
    assert client.post("/api/kit/weigh", json={"side": "45lb"}).json()["total_kg"] == 60.8233133
    wrong = client.post("/api/kit/weigh", json={"side": "25 heavy"})
    assert wrong.status_code == 422
    assert "“heavy”" in wrong.json()["detail"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"bars": [{"name": "bar", "kind": "bar", "kg": -20}]}, "kit.bars.0.kg"),
        ({"bars": [{"name": "", "kind": "bar", "kg": 20}]}, "kit.bars.0.name"),
        ({"machines": [{"name": "m", "step_kg": 0}]}, "kit.machines.0.step_kg"),
        ({"dumbbells": [0]}, "kit.dumbbells.0"),
    ],
)
def test_an_impossible_kit_is_told_which_field(client, change, field):
    answer = client.post("/api/kit/places", json={"kit": {**GARAGE, **change}})
    assert answer.status_code == 422
    assert answer.json()["fields"][0]["field"] == field


def test_bands_are_solved_and_measured(client):
    weighed = [{"bands": ["green"], "top_kg": 18}, {"bands": ["green", "red"], "top_kg": 48}]
    told = client.post("/api/kit/bands/solve", json={"combinations": weighed}).json()
    assert [(each["name"], round(each["top_kg"], 3)) for each in told] == [("green", 18), ("red", 30)]
    answer = client.post("/api/kit/bands/solve", json={"combinations": weighed[1:]})
    assert answer.status_code == 422
    assert "tell green, red apart" in answer.json()["detail"]
    measured = [{"cm": 30, "kg": 10}, {"cm": 60, "kg": 25}]
    assert client.post("/api/kit/bands/line", json={"measured": measured}).json()["kg_per_cm"] == pytest.approx(0.5)


def test_the_lifter_says_who_they_are(client, today):
    client.put("/api/kit/lifter", json={"unit": "lb", "training_since": str(today), "warm_ups": None})
    told = show(client)["lifter"]
    assert (told["unit"], told["training_since"], told["warm_ups"]) == ("lb", str(today), None)
    found = client.post("/api/compose/examine", json={"written": "Leg extension: 12 at 100 to failure"}).json()
    assert "novice-failure" in [each["rule"] for each in found["cautions"]]
    assert found["timeline"]["steps"][0]["load"]["kg"] == 45


def test_body_weight_is_kept_by_day_and_read_between_the_days(client, lifter, today):
    client.put("/api/kit/body-weight", json={"kg": 80}, params={"on": "2026-01-01"})
    client.put("/api/kit/body-weight", json={"kg": 82}, params={"on": "2026-01-11"})
    assert [each["kg"] for each in show(client)["lifter"]["weighed"]] == [82, 80]
    assert client.put("/api/kit/body-weight", json={"kg": 8}).status_code == 422
    client.delete("/api/kit/body-weight/2026-01-11")
    client.put("/api/kit/body-weight", json={"kg": 90})
    assert [each["on"] for each in show(client)["lifter"]["weighed"]] == [str(today), "2026-01-01"]


def test_two_places_of_one_name_are_told_apart_before_they_are_two(client):
    kit = {"kit": {"place": "Barn"}, "plates": "2x20"}
    first = client.post("/api/kit/places", json=kit).json()
    assert client.post("/api/kit/places", json=kit).json() == first
    other = client.post("/api/kit/places", json={**kit, "plates": "2x25"})
    assert (other.status_code, other.json()["fields"][0]["field"]) == (409, "kit.place")
    renamed = client.put("/api/kit/places/1", json={"kit": {"place": "barn "}, "plates": "2x20"})
    assert renamed.status_code == 409
    assert client.put(f"/api/kit/places/{first['id']}", json={**kit, "plates": "2x25"}).status_code == 200
