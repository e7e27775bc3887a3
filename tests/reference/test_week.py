"""A week's load by effort against its published definition, and the demo record added up by other means."""

import sqlite3
from datetime import date, timedelta
from statistics import stdev

import numpy as np
import pandas as pd
import pytest
from fastapi.testclient import TestClient

from fortis.api.app import create_app
from fortis.core.exercises import LIBRARY
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.costing import cost_of_performance
from fortis.core.tally.week import DayDone, added_up
from fortis.store.database import open_database

MONDAY = date(2026, 3, 2)
NOTHING = Prescription(title="", sets=())


def day(number, felt, minutes):
    costing = cost_of_performance(NOTHING, [], minutes * 60)
    return DayDone(day=MONDAY + timedelta(days=number), costing=costing, felt=felt)


def test_monotony_and_strain():
    """Foster 1998, Med Sci Sports Exerc, from memory: session RPE times minutes; the mean of the days by their
    standard deviation (here that of the population); their product with the week's load. Spread by numpy."""
    daily = [420, 0, 510, 380, 0, 600, 0]
    found = added_up(MONDAY, [day(0, 7, 60), day(2, 6, 85), day(3, 5, 76), day(5, 8, 75)])
    assert found.load == sum(daily) == 1_910
    assert found.monotony == pytest.approx(np.mean(daily) / np.std(daily)) == pytest.approx(1.114, abs=0.001)
    assert found.strain == pytest.approx(2_128, abs=1)
    assert found.monotony != pytest.approx(np.mean(daily) / stdev(daily), abs=0.01)


def test_the_demo_record_added_up_by_pandas(tmp_path, demo_at):
    """pandas over the rows of the record: full reps times what moves, both dumbbells and a share of the body."""
    path = tmp_path / "demo.db"
    demo_at(path)
    client = TestClient(create_app(open_database(path)), base_url="http://localhost")
    weeks = client.get("/api/ledger/weeks", params={"many": 16}).json()["weeks"]
    with sqlite3.connect(path) as record:
        rows = pd.read_sql(
            "select b.*, s.started_at, s.zone, s.adjustments from bout b join session s on s.id = b.session_id "
            'where b.taken_back_at is null and s.finished_at is not null and b."set" > 0',
            record,
        )
        weighed = pd.read_sql('select "on", kg from body_weight order by "on"', record)
    lifts = {lift.id: lift for lift in LIBRARY}
    started = pd.to_datetime(rows.started_at, format="ISO8601").dt.tz_localize("UTC")
    local = [at.tz_convert(zone) for at, zone in zip(started, rows.zone.fillna("UTC"), strict=True)]
    rows["day"] = [at.tz_localize(None).normalize() for at in local]
    rows["monday"] = [at - pd.Timedelta(days=at.weekday()) for at in rows.day]
    ordinals = [[day.toordinal() for day in days] for days in (rows.day, pd.to_datetime(weighed.on))]
    body = np.interp(*ordinals, weighed.kg.astype(float))
    share = rows.lift_id.map(lambda each: float(lifts[each].body_share))
    times = rows.lift_id.map(lambda each: 2 if lifts[each].load_kind == "dumbbells" else 1)
    sides = [
        2 if lifts[each].one_sided and side == "both" else 1
        for each, side in zip(rows.lift_id, rows.side, strict=True)
    ]
    moved = rows.kg.astype(float) * times + np.where(rows.body == 1, share * body, 0)
    rows["tonnage"] = rows.reps * sides * moved
    rows["counted"] = rows.reps * sides
    by_week = rows.groupby("monday")[["tonnage", "counted"]].sum()
    assert len(by_week) >= 10
    found = {each["monday"]: each for each in weeks if each["sessions"]}
    assert list(found) == [str(monday.date()) for monday in by_week.index]
    for monday, week in by_week.iterrows():
        assert found[str(monday.date())]["tonnage_kg"] == pytest.approx(week.tonnage, rel=1e-4)
        assert found[str(monday.date())]["reps"] == week.counted
