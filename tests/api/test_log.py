"""The log over the wire: entries kept, refused, put right, taken out; tables in and out; what lies ahead."""

import json
from datetime import UTC, datetime, timedelta

import pytest

NOW = datetime.now(UTC).replace(microsecond=0)


def moment(days_ago=0.0):
    return (NOW - timedelta(days=days_ago)).isoformat()


def entry(kind="reading", days_ago=1.0, **more):
    usual = {"what": "nitrate", "value": "20", "kit": "nitrate_drops"} if kind == "reading" else {}
    return {"at": moment(days_ago), "entry": {"kind": kind, **usual, **more}}


def keep(client, *entries, system=5):
    return client.post(f"/api/systems/{system}/log", json={"now": moment(), "entries": list(entries)})


def log_of(client, system=5):
    """What was written into a log; those of the register that it shows are told apart by their name."""
    return [row for row in client.get(f"/api/systems/{system}/log").json() if not row["who"]]


def test_a_reading_is_kept_as_the_interval_that_it_is(client):
    kept = keep(
        client, entry(), entry(value="between 20 and 40", days_ago=0.5), entry(value="160", days_ago=2)
    ).json()
    # 20 on 0-5-10-20-40 is 15 to 30 mg/L of the ion, a 4.4266th of it as nitrogen.
    assert [kept[0]["low"], kept[0]["high"]] == pytest.approx([15 / 4.42664, 30 / 4.42664], rel=1e-4)
    assert [kept[1]["low"], kept[1]["high"]] == pytest.approx([20 / 4.42664, 40 / 4.42664], rel=1e-4)
    assert (kept[2]["low"], kept[2]["high"]) == (pytest.approx(120 / 4.42664, rel=1e-4), None)
    assert [row["entry"]["value"] for row in log_of(client)] == ["160", "20", "between 20 and 40"]


@pytest.mark.parametrize(
    ("given", "code", "field"),
    [
        (entry(days_ago=-1), "in_the_future", "at"),
        (entry(value="-5"), "negative", "value"),
        (entry(value="a lot"), "not_a_reading", "value"),
        (entry(value="between 40 and 20"), "turned_round", "value"),
        (entry(value="20000", kit=""), "no_such_level", "value"),
        (entry(what="luck"), "read_of_what", "what"),
        (entry(kit="ph_drops"), "kit_reads_another", "kit"),
        (entry("change"), "how_much", "litres"),
        (entry("change", litres=500.0), "more_than_the_tank", "litres"),
        (entry("dose", what="hope"), "dose_of_what", "what"),
    ],
)
def test_what_can_not_be_kept_is_said_at_its_field(client, given, code, field):
    answer = keep(client, entry(), given)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert answer.json()["fields"][0]["path"] == f"entries.1.{field}"
    assert log_of(client) == []


def test_nothing_is_kept_from_before_a_cycle_began(client):
    day = (NOW - timedelta(days=30)).date().isoformat()
    answer = keep(client, {"at": f"{day}T12:00:00+00:00", "entry": entry()["entry"]}, system=6)
    assert answer.json()["code"] == "before_it_began"


def test_two_readings_of_one_minute_that_differ_are_asked_about(client):
    first = entry()
    assert keep(client, first).status_code == 201
    other = {**first, "entry": {**first["entry"], "value": "40"}}
    assert keep(client, other).json()["code"] == "read_twice"
    # The same once more, or with another kit, is none.
    with_strip = {**other, "entry": {**other["entry"], "kit": "nitrate_strip", "value": "50"}}
    assert keep(client, with_strip).status_code == 201


def test_an_entry_is_put_right_and_what_it_was_is_kept(client):
    row = keep(client, entry()).json()[0]
    change = {"base": row["revision"], "now": moment(), **entry(value="40")}
    assert client.put(f"/api/log/{row['id']}", json=change).json()["entry"]["value"] == "40"
    assert client.put(f"/api/log/{row['id']}", json=change).json()["code"] == "stale_revision"
    history = client.get(f"/api/log/{row['id']}/history").json()
    assert [was["entry"]["value"] for was in history] == ["40", "20"]
    bad = {**change, "base": 2, "entry": {**change["entry"], "value": "oops"}}
    assert client.put(f"/api/log/{row['id']}", json=bad).status_code == 422


def test_entries_are_taken_out_together_and_brought_back(client):
    ids = [row["id"] for row in keep(client, entry(), entry(days_ago=2)).json()]
    assert client.post("/api/log/delete", json={"ids": ids}).status_code == 204
    assert log_of(client) == []
    assert client.post("/api/log/delete", json={"ids": ids}).json()["code"] == "no_such_entry"
    assert client.post("/api/log/restore", json={"ids": ids}).status_code == 204
    assert len(log_of(client)) == 2
    assert client.post("/api/log/restore", json={"ids": [99999]}).status_code == 404
    assert client.get("/api/log/99999/history").status_code == 404


def test_the_newest_of_all_systems_come_first(client):
    keep(client, entry(days_ago=0.01, value="10"))
    latest = client.get("/api/log", params={"count": 5}).json()
    assert (len(latest), latest[0]["entry"]["value"]) == (5, "10")
    assert client.get("/api/systems/999/log").status_code == 404
    assert keep(client, entry(), system=999).status_code == 404


def test_kits_of_ones_own_are_offered(client):
    cells = {"label": "Blue box", "measure": "nitrate", "steps": "0|12.5|25|50", "reads": "ion", "blur_frac": "0.3",
             "interferes": "", "source": "its leaflet", "expires": "2026-01-31"}  # fmt: skip
    key = client.post("/api/own/kits", json={"cells": cells}).json()["key"]
    kits = {kit["key"]: kit for kit in client.get("/api/log/known").json()["kits"]}
    assert (kits[key]["steps"], kits[key]["expires"]) == (["0", "12.5", "25", "50"], "2026-01-31")
    row = keep(client, entry(value="25", kit=key)).json()[0]
    assert row["high"] == pytest.approx(37.5 / 4.42664, rel=1e-4)
    upside_down = {**cells, "steps": "50|25"}
    assert client.post("/api/own/kits", json={"cells": upside_down}).status_code == 422


# Tables -----------------------------------------------------------------------------------------

TABLE = """date;time;NO3;NO2-N;pH;water change;mood
03.11.2025;19:30;20;0,05;7,4;40 %;fine
10.11.2025;;25;;7,2;30 L;
17.11.2025;;lots;;;;
33.11.2025;;20;;;;
"""


def table(client, text, verb="table", system=5, **more):
    return client.post(f"/api/systems/{system}/log/{verb}", json={"text": text, "now": moment(), **more})


def test_a_table_says_what_it_takes_each_column_for_and_keeps_what_it_can(client):
    seen = table(client, TABLE, "preview").json()
    taken = {column["heading"]: column["taken_for"] for column in seen["columns"]}
    assert taken == {
        "date": "date", "time": "time", "NO3": "Nitrate as the ion", "NO2-N": "Nitrite as nitrogen", "pH": "pH",
        "water change": "change, in %", "mood": "",
    }  # fmt: skip
    assert [(fault["line"], fault["column"]) for fault in seen["faults"]] == [(4, "nitrate"), (5, "date")]
    assert (seen["new"], seen["kept"], log_of(client)) == (7, False, [])
    assert table(client, TABLE).json()["new"] == 7
    again = table(client, TABLE).json()
    assert (again["new"], again["there"], len(log_of(client))) == (0, 7, 7)
    rows = log_of(client)
    assert rows[0]["at"].startswith("2025-11-03T19:30")
    assert [row["entry"]["share"] for row in rows if row["entry"]["kind"] == "change"] == [0.4, None]
    nitrite = next(row for row in rows if row["entry"]["what"] == "nitrite")
    assert nitrite["low"] < 0.05 < nitrite["high"]


def test_what_loquen_wrote_it_reads_again(client):
    keep(client, entry(), entry("change", share=0.3, note="=1+1"), entry("dose", what="ammonia", amount=1.5))
    written = client.get("/api/systems/5/log.csv")
    assert written.headers["content-type"].startswith("text/csv")
    assert "'=1+1" in written.text
    other = table(client, written.text, system=2).json()
    # With the arrival that the register knows of: of whom, the table can not say.
    assert (other["new"], other["faults"]) == (4, [])
    here, there = ([row["entry"] for row in log_of(client, s) if row["at"] > moment(3)] for s in (5, 2))
    assert here == there
    assert table(client, written.text).json()["new"] == 0


def test_dates_that_can_be_read_two_ways_are_asked_about(client):
    text = "date,nitrate\n03/11/2025,20\n04/11/2025,20"
    assert table(client, text, "preview").json()["either_order"] is True
    table(client, text, order="month first")
    assert [row["at"][:10] for row in log_of(client)] == ["2025-03-11", "2025-04-11"]
    # One that can only be read one way decides for all.
    sure = table(client, "date,nitrate\n03/11/2025,20\n25/11/2025,20", "preview").json()
    assert sure["either_order"] is False


@pytest.mark.parametrize(
    "text", ["nitrate\n20", "date,weather\n2025-11-03,wet", "date,nitrate\n" + "2025-11-03,20\n" * 50_001]
)
def test_a_text_that_is_no_table_of_a_log_is_refused(client, text):
    answer = table(client, text, "preview")
    assert (answer.status_code, answer.json()["code"]) == (422, "unread_table")


def test_a_table_can_not_bring_what_no_entry_may(client):
    text = f"date,nitrate,change\n{(NOW + timedelta(days=9)).date()},20,\n2025-11-03,9000,50%\n2025-11-04,-3,5000 L"
    seen = table(client, text).json()
    assert (seen["new"], len(seen["faults"])) == (1, 4)


# What lies ahead ---------------------------------------------------------------------------------


def ahead(client, what, system):
    plan = client.get(f"/api/systems/{system}").json()["plan"]
    return client.post(f"/api/systems/{system}/{what}", json={"plan": plan, "now": moment()})


def test_a_cycle_is_forecast_from_plan_and_log(client):
    forecast = ahead(client, "cycle", 6).json()
    assert 19 <= forecast["today"] < 20
    low, middle, high = forecast["days_10_50_90"]
    assert 20 < low <= middle <= high < 60
    assert len(forecast["readings"]) == 12
    assert forecast["done"]["answer"] == "no"
    assert ahead(client, "cycle", 1).json()["code"] == "not_begun"
    plan = client.get("/api/systems/6").json()["plan"]
    body = {"plan": plan, "now": moment()}
    assert client.post("/api/systems/99/cycle", json=body).json()["code"] == "no_such_system"


def test_donors_say_what_they_can_spare(client):
    rows = client.get("/api/systems/6/donors", params={"share": 0.2}).json()["rows"]
    assert [row["name"] for row in rows][:2] == ["Long Hall", "Tidal Corner"]
    assert all(row["donor"]["load_mg_d"] > 0 for row in rows)


def test_nitrate_and_trends_are_told(client):
    page = ahead(client, "nitrate", 3).json()
    assert page["experiments"][0]["verdict"] == "real"
    assert {row["key"] for row in page["said"]} == {
        "changes.logged_rise_nitrate_mg_l_d",
        "water.source_nitrate_mg_l",
    }
    assert page["levers"][0]["key"] == "feed"
    plan = client.get("/api/systems/3").json()["plan"]
    body = {"plan": plan, "now": moment()}
    assert "keeps" in client.post("/api/systems/3/nitrate/against/1", json=body).json()["sentence"]["text"]
    assert client.post("/api/systems/3/nitrate/against/5", json=body).json()["code"] == "nothing_read"
    rows = ahead(client, "trends", 1).json()["rows"]
    assert [row["what"] for row in rows] == ["temperature"]
    assert json.dumps(rows)
