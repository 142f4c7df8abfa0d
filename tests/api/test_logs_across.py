"""All logs together, and pages that start from who lives there today."""

from datetime import UTC, datetime, timedelta

import pytest

from tests.api.test_log import entry, keep, moment

NOW = datetime.now(UTC).replace(microsecond=0)


def found(client, **sought):
    return client.get("/api/log", params={"count": 200, **sought}).json()


def test_lines_of_all_logs_are_found_by_words_tank_kind_and_days(client):
    keep(client, entry(days_ago=3), entry("change", days_ago=2, share=0.3, note="while the kettle boiled"))
    keep(client, entry(days_ago=50, value="40"), system=4)
    assert {row["system_id"] for row in found(client, system=[4])} == {4}
    assert {row["entry"]["kind"] for row in found(client, kind=["change"], system=[5])} == {"change"}
    assert [row["entry"]["note"] for row in found(client, find="KETTLE")] == ["while the kettle boiled"]
    assert found(client, find="kettle nowhere") == []
    recent = found(client, since=moment(10), system=[4, 5])
    assert recent
    assert all(datetime.fromisoformat(row["at"]) >= NOW - timedelta(days=10) for row in recent)
    assert client.get("/api/log", params={"kind": ["luck"]}).status_code == 422


def last(client, system):
    rows = {row["system_id"]: row for row in client.get("/api/log/last").json()["rows"]}
    return {one["measure"]: one for one in rows[system]["readings"]}


def test_the_last_reading_of_everything_with_what_lies_outside(client):
    keep(client, entry(days_ago=5, value="5"), entry(days_ago=1, value="160"))
    keep(
        client,
        entry(what="ph", value="7.2", kit="ph_drops"),
        entry(what="temperature", value="3", kit="thermometer"),
    )
    found = last(client, 5)
    assert found["nitrate"]["value"] == "160"
    assert found["nitrate"]["beyond"] == "over"
    assert found["nitrate"]["high"] is None
    assert found["temperature"]["beyond"] == "under"
    keep(client, entry(days_ago=0.5, value="5"))
    assert last(client, 5)["nitrate"]["beyond"] == ""
    assert "nitrate" in client.get("/api/log/last").json()["measures"]


def test_one_thing_through_time_in_several_tanks(client):
    keep(client, entry(days_ago=5, value="5"), entry(days_ago=1, value="20"))
    asked = {"measure": "nitrate", "system": [5, 3], "since": moment(4)}
    rows = {row["system_id"]: row["points"] for row in client.get("/api/log/series", params=asked).json()["rows"]}
    # 20 on the chart is 15 to 30 of the ion.
    assert [(row["low"], row["high"]) for row in rows[5]] == [
        (pytest.approx(15 / 4.42664, rel=1e-4), pytest.approx(30 / 4.42664, rel=1e-4))
    ]
    assert 3 in rows
    assert client.get("/api/log/series", params={"measure": "nitrate", "since": moment(4)}).status_code == 422


def plan_of(client, system):
    return client.get(f"/api/systems/{system}").json()["plan"]


def turtles(client, **stocking):
    """A system of its own with two young turtles."""
    plan = plan_of(client, 1)
    group = {"species": "yellow_bellied_slider", "number": 2, "size_by": "length", "length_cm": 6.0}
    plan |= {"name": "Sliders", "animals": [group], "stocking": {**plan["stocking"], **stocking}, "bags": []}
    made = client.post("/api/systems", json={"plan": plan})
    assert made.status_code < 300, made.text
    return made.json()["id"], plan


def nitrate(client, system, plan):
    answer = client.post(f"/api/systems/{system}/nitrate", json={"plan": plan, "now": moment()})
    assert answer.status_code == 200, answer.text
    return answer.json()


def write_down(client, system, day, **more):
    resident = {"species": "yellow_bellied_slider", "name": "", "sex": "unknown"}
    happened = {"kind": "arrival", "day": day, "count": 2, "system": system, **more}
    body = {"today": NOW.date().isoformat(), "resident": resident, "happened": [happened]}
    answer = client.post("/api/register", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()["resident_id"]


def test_nitrate_starts_from_the_animals_as_they_are_today_and_the_register_knows_them_best(client):
    system, plan = turtles(client)
    young = nitrate(client, system, plan)
    assert "Grown" in young["grown"]["text"]
    grown = [{**plan["animals"][0], "size_by": "adult"}]
    full = nitrate(client, system, {**plan, "animals": grown})
    assert full["grown"] is None
    assert full["settled_peak"] > 3 * young["settled_peak"]
    # Written down with their length, the register's are taken whatever the plan says of their size.
    write_down(client, system, NOW.date().isoformat(), length_cm=6.0)
    lived = nitrate(client, system, {**plan, "animals": grown})
    assert lived["settled_peak"] == pytest.approx(young["settled_peak"], rel=0.02)


def test_a_stay_is_a_date_in_the_register_and_a_duty_before_it(client):
    system, _ = turtles(client, stays="months", stays_months=2.0)
    came = NOW.date() - timedelta(days=40)
    resident = write_down(client, system, came.isoformat())
    homes = client.get("/api/register", params={"today": NOW.date().isoformat()}).json()["homes"]
    written = next(row for home in homes for row in home["residents"] if row["id"] == resident)
    ends = came + timedelta(days=61)
    assert written["resident"]["stays_until"] == ends.isoformat()
    # 21 days before its end: within the month in which the next home is looked for.
    params = {"today": NOW.date().isoformat(), "zone": "UTC"}
    stops = client.get("/api/round", params=params).json()["stops"]
    lines = next(stop["lines"] for stop in stops if stop["system_id"] == system)
    assert any(line["key"].startswith(f"stay.{resident}") for line in lines)


def test_a_stay_that_was_told_goes_before_the_plans(client):
    system, _ = turtles(client, stays="months", stays_months=2.0)
    body = {
        "today": NOW.date().isoformat(),
        "resident": {"species": "yellow_bellied_slider", "stays_until": "2030-01-01"},
        "happened": [{"kind": "arrival", "day": NOW.date().isoformat(), "count": 1, "system": system}],
    }
    number = client.post("/api/register", json=body).json()["resident_id"]
    homes = client.get("/api/register", params={"today": NOW.date().isoformat()}).json()["homes"]
    written = next(row for home in homes for row in home["residents"] if row["id"] == number)
    assert written["resident"]["stays_until"] == "2030-01-01"
